<script lang="ts">
import type { PlainPlan } from '~/workers/plan.worker'

export interface PlanSideProps {
  plan: PlainPlan
}
</script>

<script setup lang="ts">
import { AIMS, labelOf, money, remedyById, type Aim } from '#core'

const { plan } = defineProps<PlanSideProps>()
const job = useJobStore()
const { aim, budget, locks, forbids, prices, frontier, alternatives, danger } = inject(PLANNER)!
const AIM_WORDS: Readonly<Record<Aim, string>> = {
  'least-cost': 'Least cost',
  'most-protection': 'Most protection',
  'least-opening': 'Least wall opened',
  'fewest-tests': 'Fewest to test',
}
const most = computed(() => frontier.value?.at(-1)?.cents ?? 0)
/** Whole dollars on the slider; the far end is "as much as it takes". */
const dragged = computed({
  get: () => Math.ceil((budget.value ?? most.value) / 100),
  set: dollars => {
    budget.value = dollars * 100 >= most.value ? undefined : dollars * 100
  },
})
const named = (id: string) => {
  const thing = job.house.subjects.get(id)
  return thing ? labelOf(job.site, thing) : id
}
const wishes = computed(() => [
  ...locks.value.map(l => ({
    words: `Kept: ${remedyById(l.remedy)?.title} at ${named(l.subject)}`,
    undo: () => (locks.value = locks.value.filter(o => o !== l)),
  })),
  ...forbids.value.map(f => ({
    words: `Not: ${remedyById(f.remedy)?.title} at ${named(f.subject ?? '')}`,
    undo: () => (forbids.value = forbids.value.filter(o => o !== f)),
  })),
])
const isMoreOpen = ref(false)
const ALTERNATIVE_WORDS = {
  cheapest: 'Cheapest lawful',
  rewire: 'New cable wherever it serves',
  nothing: 'Do nothing yet',
} as const
const beside = computed(() => {
  const mine = {
    id: 'this' as const,
    name: 'This plan',
    total: plan.total,
    cured: plan.choices.reduce((n, c) => n + c.findings.length, 0),
    wallFt: plan.choices.reduce((n, c) => n + c.cost.wallFt, 0),
    buttons: plan.choices.reduce((n, c) => n + c.cost.buttons, 0),
  }
  return [mine, ...alternatives.value.map(a => ({ ...a, name: ALTERNATIVE_WORDS[a.id] }))]
})
</script>

<template>
  <aside class="side">
    <UFormField label="Money there is">
      <div class="money">
        <USlider
          v-model="dragged"
          :min="0"
          :max="Math.ceil(most / 100)"
          :step="10"
          aria-label="budget, dollars"
        />
        <b data-testid="budget">{{
          budget === undefined ? 'as much as it takes' : money(budget)
        }}</b>
      </div>
    </UFormField>
    <FrontierChart v-if="frontier" :points="frontier" :all="danger" :budget="budget" />
    <UFormField label="Before anything else">
      <div class="chips" role="group" aria-label="aim">
        <UButton
          v-for="a in AIMS"
          :key="a"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="aim === a"
          @click="aim = a"
          >{{ AIM_WORDS[a] }}</UButton
        >
      </div>
    </UFormField>
    <ul v-if="wishes.length" class="wishes small">
      <li v-for="w in wishes" :key="w.words">
        {{ w.words }}
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          :aria-label="`take back: ${w.words}`"
          @click="w.undo()"
        />
      </li>
    </ul>
    <UCollapsible v-model:open="isMoreOpen">
      <UButton
        color="neutral"
        variant="link"
        icon="lucide:chevron-down"
        label="Which way your desk goes"
      />
      <template #content>
        <SchoolsPick :departures="plan.departures" />
      </template>
    </UCollapsible>
    <FigureTable
      v-if="beside.length > 1"
      caption="other ways beside it"
      :head="['Beside it', 'Costs', 'Cures', 'Wall']"
      :rows="beside.map(b => [b.name, money(b.total), String(b.cured), `${b.wallFt} ft`])"
    />
    <CostSplit v-if="plan.choices.length" :plan="plan" :book="prices" />
  </aside>
</template>

<style scoped>
.side {
  display: grid;
  gap: 1.1rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.money {
  display: grid;
  gap: 0.5rem;
  padding-top: 0.5rem;
}
.wishes li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
</style>
