<script lang="ts">
import type { PlainPlan } from '~/workers/plan.worker'

export interface PlanChoiceProps {
  choice: PlainPlan['choices'][number]
}
</script>

<script setup lang="ts">
import { money, withinSentence } from '#core'

const { choice } = defineProps<PlanChoiceProps>()
const emit = defineEmits<{
  forbid: [remedy: string, subject: string]
  lock: [remedy: string, subject: string]
}>()
const isOpen = defineModel<boolean>('open', { default: false })
const first = computed(() => choice.steps[0])
const places = computed(() => {
  const found = choice.findings.map(f => f.label)
  // A panel that other works lean on is for no fault of its own.
  const labels = [...new Set(found.length > 0 ? found : choice.steps.map(s => s.label))]
  return labels.length > 2 ? `${labels[0]} and ${labels.length - 1} more` : labels.join(', ')
})
const chain = computed(() => choice.steps.slice(1))
const marks = computed(() => [...new Set(choice.steps.flatMap(s => s.markings))])
const cautions = computed(() => [...new Set(choice.steps.flatMap(s => s.cautions))])
const lacks = computed(() => [...new Set(choice.steps.flatMap(s => s.lacks ?? []))])
</script>

<template>
  <article class="choice" :class="{ open: isOpen }">
    <UButton
      color="neutral"
      variant="ghost"
      block
      class="head bare"
      :aria-expanded="isOpen"
      @click="isOpen = !isOpen"
    >
      <SeverityMark :kind="choice.severity" :size="18" />
      <span class="what"
        ><b>{{ first?.title }}</b
        ><template v-if="chain.length">
          <span v-for="s in chain" :key="s.remedy + s.subject" class="small"
            >then {{ withinSentence(s.title) }}: {{ s.label }}</span
          >
        </template>
        <span class="small soft">{{ places }}</span></span
      >
      <span class="num">{{ money(choice.cost.cents) }}</span>
    </UButton>
    <div v-if="isOpen" class="more">
      <p class="why">{{ choice.why }}.</p>
      <dl>
        <dt>Takes away</dt>
        <dd>
          <span v-for="f in choice.findings" :key="f.rule + f.subject" class="block"
            >{{ f.title }} · {{ f.label }}</span
          >
        </dd>
        <template v-if="lacks.length">
          <dt>Does not give</dt>
          <dd>{{ lacks.join('; ') }}</dd>
        </template>
        <template v-if="marks.length">
          <dt>Markings</dt>
          <dd>{{ marks.join('; ') }}</dd>
        </template>
        <dt>Takes</dt>
        <dd>
          {{ choice.cost.minutes }} min<template v-if="choice.cost.wallFt"
            >, {{ choice.cost.wallFt }} ft of wall opened</template
          ><template v-if="choice.cost.buttons"
            >, {{ choice.cost.buttons }} to test each month</template
          ><template v-if="choice.cost.needsPermit">, a permit</template>
        </dd>
      </dl>
      <p v-for="c in cautions" :key="c" class="small caution">
        <UIcon name="lucide:triangle-alert" /> {{ c }}
      </p>
      <div class="acts">
        <UButton
          v-if="first"
          color="neutral"
          variant="outline"
          label="Not this way"
          @click="emit('forbid', first.remedy, first.subject)"
        />
        <UButton
          v-if="first"
          color="neutral"
          variant="outline"
          label="Keep this, whatever else"
          @click="emit('lock', first.remedy, first.subject)"
        />
      </div>
    </div>
  </article>
</template>

<style scoped>
.choice {
  border-bottom: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 0.7rem;
  align-items: center;
  text-align: left;
  min-height: 50px;
  padding: 0.35rem 0.4rem;
  font-weight: 400;
}
.what {
  display: grid;
}
.num {
  font-weight: 600;
}
.more {
  display: grid;
  gap: 0.5rem;
  padding: 0.2rem 0.4rem 0.9rem 2rem;
}
.why {
  color: var(--cool);
}
dl {
  display: grid;
  grid-template-columns: 7.5rem minmax(0, 1fr);
  gap: 0.25rem 0.8rem;
}
dt {
  color: var(--soft);
}
.block {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
@media (max-width: 900px) {
  .more {
    padding-left: 0.4rem;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.1rem;
  }
}
</style>
