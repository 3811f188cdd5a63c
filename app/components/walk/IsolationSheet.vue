<script lang="ts">
import type { Subject } from '#core'

export interface IsolationSheetProps {
  subject: Subject
}
</script>

<script setup lang="ts">
import { isolationPlan } from '#core'

const { subject } = defineProps<IsolationSheetProps>()
const isOpen = defineModel<boolean>({ default: false })
const job = useJobStore()
const plan = computed(() => isolationPlan(job.site, subject))
const done = ref(new Set<number>())
watch(
  () => subject.id,
  () => {
    done.value = new Set()
  },
)
function toggle(i: number) {
  const next = new Set(done.value)
  if (!next.delete(i)) next.add(i)
  done.value = next
}
const print = () => window.print()
</script>

<template>
  <UModal
    v-model:open="isOpen"
    :title="`Make dead: ${plan.target}`"
    description="A plan from what is recorded. Qualified people only; what the tester says comes before what this says."
  >
    <template #body>
      <div class="iso" data-testid="isolation">
        <section v-if="plan.open.length" class="warn" role="alert">
          <h3><SeverityMark kind="undecided" /> Not to be relied on yet</h3>
          <ul>
            <li v-for="o in plan.open" :key="o">Not known: {{ o }}</li>
          </ul>
        </section>
        <section v-if="plan.staysLive.length" class="live">
          <h3><SeverityMark kind="make safe now" /> Stays live</h3>
          <ul>
            <li v-for="l in plan.staysLive" :key="l.what">
              <b>{{ l.what }}</b>: {{ l.why }}
            </li>
          </ul>
        </section>
        <ol>
          <li v-for="(s, i) in plan.steps" :key="i">
            <UButton
              color="neutral"
              variant="ghost"
              class="step bare"
              :aria-pressed="done.has(i)"
              @click="toggle(i)"
            >
              <span class="box">{{ done.has(i) ? '✓' : i + 1 }}</span><span
                ><b v-if="s.act === 'switch off' || s.act === 'lock and tag'"
                  >{{ s.act === 'switch off' ? 'Switch off' : 'Lock and tag' }}: </b
                >{{ s.text }}</span
              >
            </UButton>
          </li>
        </ol>
        <section class="tag">
          <h3 class="small soft">Tag</h3>
          <p v-for="t in plan.tag" :key="t" :class="{ big: t.startsWith('DO NOT') }">{{ t }}</p>
        </section>
        <UButton color="neutral" variant="outline" class="plain no-print" @click="print">
          <UIcon name="lucide:printer" /> Print
        </UButton>
      </div>
    </template>
  </UModal>
</template>

<style scoped>
.iso {
  display: grid;
  gap: 1rem;
}
h3 {
  font-weight: 700;
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin-bottom: 0.3rem;
}
ul {
  list-style: none;
  display: grid;
  gap: 0.25rem;
}
.warn {
  border: 1.5px dashed var(--ink);
  padding: 0.7rem 0.9rem;
}
.live {
  border-left: 6px solid var(--now);
  padding: 0.2rem 0.9rem;
}
.step {
  display: grid;
  grid-template-columns: 30px 1fr;
  gap: 0.6rem;
  text-align: left;
  min-height: 48px;
  align-items: center;
  width: 100%;
  cursor: pointer;
  border-bottom: 1px solid var(--line);
}
.box {
  width: 28px;
  height: 28px;
  border: 1.5px solid var(--ink);
  display: grid;
  place-items: center;
  font-weight: 700;
}
.step[aria-pressed='true'] {
  color: var(--soft);
}
.step[aria-pressed='true'] .box {
  background: var(--ink);
  color: var(--paper);
}
.tag {
  border: 2px solid var(--now);
  padding: 0.7rem 0.9rem;
  max-width: 22rem;
}
.tag p {
  min-height: 1.6em;
}
.big {
  font-weight: 700;
  color: var(--now);
  font-size: 1.15rem;
}
</style>
