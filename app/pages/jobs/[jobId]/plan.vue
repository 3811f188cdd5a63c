<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import {
  AIMS,
  FIX_PRESETS,
  money,
  priceBookSchema,
  remedyById,
  SAMPLE_PRICES,
  SCHOOLS,
  tasksInOrder,
  valueOf,
  labelOf,
  type Aim,
  type FixPreset,
  type PriceBook,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const planner = usePlanner()
provide(PLANNER, planner)
const {
  fix,
  aim,
  budget,
  schools,
  locks,
  forbids,
  prices,
  progress,
  isPlanning,
  frontier,
  plan,
  tasks,
  alternatives,
  bought,
  findings,
  danger,
} = planner
const tab = ref<'choose' | 'do'>('choose')
const toast = useToast()

/** The price book of this device; one that cannot be read any more gives way to the sample. */
const kept = useLocalStorage('corvit-prices', '')
if (kept.value) {
  try {
    const read = priceBookSchema.safeParse(JSON.parse(kept.value))
    if (read.success) prices.value = read.data
  } catch {
    kept.value = ''
  }
}
watch(prices, (book: PriceBook) => {
  kept.value = book === SAMPLE_PRICES ? '' : JSON.stringify(book)
})

const FIX_WORDS: Readonly<Record<FixPreset, string>> = {
  'make-safe': 'Make safe',
  'before-sale': 'Before a sale',
  ungrounded: 'Outlets without a ground',
  aluminum: 'Aluminum',
  all: 'All faults',
}
const FIX_ORDER: readonly FixPreset[] = [
  'make-safe',
  'before-sale',
  'ungrounded',
  'aluminum',
  'all',
]
const AIM_WORDS: Readonly<Record<Aim, string>> = {
  'least-cost': 'Least cost',
  'most-protection': 'Most protection',
  'least-opening': 'Least wall opened',
  'fewest-tests': 'Fewest to test',
}
const presets = FIX_ORDER.filter(f => FIX_PRESETS.includes(f))

// The first plan is worked out as soon as the house is judged.
watch(
  () => job.isReady,
  ready => {
    if (ready && !frontier.value) void planner.open()
  },
  { immediate: true },
)
const isStale = ref(false)
const planned = shallowRef(job.house)
watch(
  () => job.house,
  house => {
    isStale.value = house !== planned.value && plan.value !== undefined
  },
)
watch(plan, () => {
  planned.value = job.house
  isStale.value = false
})

const most = computed(() => frontier.value?.at(-1)?.cents ?? 0)
/** Whole dollars on the slider; the far end is "as much as it takes". */
const dragged = computed({
  get: () => Math.ceil((budget.value ?? most.value) / 100),
  set: dollars => {
    budget.value = dollars * 100 >= most.value ? undefined : dollars * 100
  },
})
const shares = computed(() => {
  const gone = bought.value?.danger ?? frontier.value?.at(-1)?.danger ?? 0
  return danger.value === 0 ? 100 : Math.floor((100 * gone) / danger.value)
})
const total = computed(() => bought.value?.cents ?? plan.value?.total ?? 0)
const cured = computed(() => plan.value?.choices.reduce((n, c) => n + c.findings.length, 0) ?? 0)

const schoolOf = (id: string) => {
  const question = SCHOOLS.find(q => q.id === id)
  return (
    schools.value.find(
      c => c.circuit === undefined && question?.schools.some(s => s.id === c.school),
    )?.school ?? 'any'
  )
}
function chooseSchool(question: (typeof SCHOOLS)[number], school: string) {
  const others = schools.value.filter(
    c => c.circuit !== undefined || !question.schools.some(s => s.id === c.school),
  )
  schools.value = school === 'any' ? others : [...others, { school }]
}
const schoolItems = (q: (typeof SCHOOLS)[number]) => [
  { value: 'any', label: 'Whichever serves the aim' },
  ...q.schools.map(s => ({ value: s.id, label: s.label })),
]
const schoolWhy = (q: (typeof SCHOOLS)[number]) => q.schools.find(s => s.id === schoolOf(q.id))?.why

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
const forbid = (remedy: string, subject: string) =>
  (forbids.value = [...forbids.value, { remedy, subject }])
const lock = (remedy: string, subject: string) =>
  (locks.value = [...locks.value.filter(l => l.subject !== subject), { remedy, subject }])

const openChoice = ref<number>()
function pick(choice: number) {
  openChoice.value = choice
  void nextTick(() =>
    document.querySelector(`[data-choice="${choice}"]`)?.scrollIntoView({ block: 'center' }),
  )
}
const STATUS_WORDS: Readonly<Record<string, string>> = {
  planned:
    'Judged again with all of it done: every fault chosen is gone, and nothing new comes of it.',
  'nothing to fix': 'Nothing to fix here.',
  'out of budget': 'The most danger this money takes away. What it does not reach is listed below.',
  infeasible:
    'Some of it has no remedy that can be promised yet. The rest is planned; what is missing is listed below.',
  'not shown to hold':
    'Judged again, something would be left or come along. Look at it below before you rely on it.',
}
/** A budget that does not reach comes before what nothing here cures: both are said. */
const says = computed(() => {
  if (!plan.value) return ''
  const { status, left } = plan.value
  const isShort = left.length > 0 && status === 'infeasible'
  return [isShort ? 'out of budget' : '', status].flatMap(s => STATUS_WORDS[s] ?? []).join(' ')
})
const accepted = computed(() => tasksInOrder(job.house))
const stillPlanned = computed(() => accepted.value.filter(t => valueOf(t, 'state') === 'planned'))
function accept() {
  // An accepted plan takes the place of what an earlier one left undone; what was done stays on record.
  const old = stillPlanned.value.map(t => ({ act: 'drop' as const, subject: t.id }))
  job.record([
    ...old,
    ...tasks.value.map(c => (c.act === 'note' ? { ...c, grade: 'told' as const } : c)),
  ])
  tab.value = 'do'
  toast.add({
    title: 'Plan accepted',
    description: 'Its works and papers stand under Do it.',
    icon: 'lucide:check',
  })
}
const isPricing = ref(false)
const isMoreOpen = ref(false)
const ALTERNATIVE_WORDS = {
  cheapest: 'Cheapest lawful',
  rewire: 'New cable wherever it serves',
  nothing: 'Do nothing yet',
} as const
const beside = computed(() => {
  if (!plan.value) return []
  const mine = {
    id: 'this' as const,
    name: 'This plan',
    total: plan.value.total,
    cured: cured.value,
    wallFt: plan.value.choices.reduce((n, c) => n + c.cost.wallFt, 0),
    buttons: plan.value.choices.reduce((n, c) => n + c.cost.buttons, 0),
  }
  return [mine, ...alternatives.value.map(a => ({ ...a, name: ALTERNATIVE_WORDS[a.id] }))]
})
const choicesOf = (stage: { choices: readonly number[] }) =>
  stage.choices.flatMap(i => {
    const choice = plan.value?.choices[i]
    return choice ? { i, choice } : []
  })
</script>

<template>
  <AppShell title="Plan" :subtitle="valueOf(job.site.premises, 'name')">
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <div class="bar">
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === 'choose'"
          @click="tab = 'choose'"
          >Choose</UButton
        >
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === 'do'"
          @click="tab = 'do'"
          >Do it <b v-if="accepted.length">{{ stillPlanned.length }}</b></UButton
        >
      </div>

      <PlanDo v-if="tab === 'do'" />
      <template v-else>
        <div class="fixes" role="group" aria-label="what to fix">
          <UButton
            v-for="f in presets"
            :key="f"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="fix === f"
            @click="fix = f"
            >{{ FIX_WORDS[f] }}</UButton
          >
        </div>
        <div v-if="progress !== undefined" class="working" role="status">
          <span class="soft">Working out what can be done, and judging the house after each</span>
          <UProgress :model-value="Math.round(progress * 100)" />
          <UButton color="neutral" variant="outline" label="Stop" @click="planner.cancel()" />
        </div>
        <p v-if="planner.problem.value" role="alert" class="fails">{{ planner.problem.value }}</p>

        <header v-if="plan" class="top">
          <p v-if="isStale" class="stale">
            The record has changed since.
            <UButton variant="link" label="Plan again" @click="planner.open()" />
          </p>
          <div class="heroes" data-testid="heroes">
            <p>
              <b class="hero">{{ money(total) }}</b><span class="small soft">{{
                plan.prices.isSample ? 'sample prices, made up' : plan.prices.name
              }}</span>
            </p>
            <p>
              <b class="hero">{{ shares }} %</b><span class="small soft">of the danger gone</span>
            </p>
            <p>
              <b class="hero">{{ cured }}</b><span class="small soft"
                >of {{ findings }} faults cured</span
              >
            </p>
          </div>
          <p class="says" :class="{ fails: plan.status === 'not shown to hold' }">
            {{ says }}
            <span v-if="plan.proof.gap === 0" class="soft"
              >Proved the best of {{ plan.proof.options }} ways by this aim.</span
            >
          </p>
          <div class="acts">
            <UButton
              size="lg"
              icon="lucide:check"
              :disabled="isPlanning || !plan.choices.length"
              label="Accept this plan"
              @click="accept"
            />
            <UButton
              size="lg"
              color="neutral"
              variant="outline"
              label="Price book"
              @click="isPricing = true"
            />
          </div>
        </header>
        <div v-if="plan" class="split" :class="{ waiting: isPlanning }">
          <section class="main">
            <section v-for="(stage, s) in plan.stages" :key="stage.title">
              <h2>
                <span class="no">{{ s + 1 }}</span> {{ stage.title }}
              </h2>
              <PlanChoice
                v-for="{ i, choice } in choicesOf(stage)"
                :key="i"
                :data-choice="i"
                :choice="choice"
                :open="openChoice === i"
                @update:open="o => (openChoice = o ? i : undefined)"
                @forbid="forbid"
                @lock="lock"
              />
            </section>
            <section v-if="plan.left.length || plan.relax.length" class="rest">
              <h2>Stays as it is</h2>
              <ul>
                <li v-for="f in plan.left" :key="f.rule + f.subject">
                  {{ f.title }} · {{ f.label }} <span class="small soft">beyond the budget</span>
                </li>
                <li v-for="f in plan.relax" :key="f.rule + f.subject">
                  {{ f.title }} · {{ f.label }}
                  <span class="small soft block">{{
                    f.remedies.map(r => `${remedyById(r.remedy)?.title}: ${r.why}`).join(' · ') ||
                    'no remedy is known'
                  }}</span>
                </li>
              </ul>
            </section>
            <section v-if="plan.newlyRequired.length" class="rest">
              <h2>Would come along</h2>
              <ul>
                <li v-for="f in plan.newlyRequired" :key="f.rule + f.subject">
                  {{ f.title }} · {{ f.label }}
                </li>
              </ul>
            </section>
            <section v-if="plan.newlyUndecided.length" class="rest">
              <h2>To be looked at when it is done</h2>
              <ul>
                <li v-for="f in plan.newlyUndecided" :key="f.rule + f.subject">
                  {{ f.title }} · {{ f.label }}
                </li>
              </ul>
            </section>
          </section>

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
                <div class="schools">
                  <UFormField
                    v-for="q in SCHOOLS"
                    :key="q.id"
                    :label="q.title"
                    :help="schoolWhy(q)"
                  >
                    <USelect
                      class="wide"
                      :items="schoolItems(q)"
                      :model-value="schoolOf(q.id)"
                      :aria-label="q.title"
                      @update:model-value="v => chooseSchool(q, String(v))"
                    />
                  </UFormField>
                  <p v-for="d in plan.departures" :key="d.rule + d.subject" class="small soft">
                    {{ d.label }}: {{ d.said }}
                  </p>
                </div>
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
        </div>
        <section v-if="plan && plan.choices.length" class="where">
          <h2>What is done where</h2>
          <PlanHouse :plan="plan" @pick="pick" />
        </section>
      </template>
      <PriceSheet v-model:open="isPricing" v-model="prices" />
    </PageState>
  </AppShell>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 1.4rem;
  border-bottom: 1px solid var(--line);
}
.tab {
  min-height: 48px;
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  font-weight: 600;
  color: var(--soft);
  border-bottom: 3px solid transparent;
}
.tab[aria-current='true'] {
  color: var(--ink);
  border-bottom-color: var(--touch);
}
.fixes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.9rem 0;
}
.working {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  max-width: 30rem;
  margin-bottom: 1rem;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(18rem, 23rem);
  gap: 2.2rem;
  align-items: start;
}
.split.waiting .main {
  opacity: 0.75;
}
.top {
  display: grid;
  gap: 0.7rem;
  margin-bottom: 1.2rem;
}
.main,
.side {
  display: grid;
  gap: 1.1rem;
}
.heroes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 2.2rem;
}
.heroes p {
  display: grid;
}
.hero {
  font-size: 1.9rem;
  line-height: 1.1;
}
.fails {
  color: var(--now);
}
.acts,
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.main h2 {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding-bottom: 0.3rem;
}
.no {
  display: inline-grid;
  place-items: center;
  width: 1.5rem;
  height: 1.5rem;
  background: var(--touch);
  color: var(--paper);
  border-radius: 2px;
  font-size: 0.9rem;
}
.rest li {
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
.block {
  display: block;
}
.money {
  display: grid;
  gap: 0.5rem;
  padding-top: 0.5rem;
}
.schools {
  display: grid;
  gap: 0.8rem;
  padding-top: 0.5rem;
}
.wide {
  width: 100%;
}
.wishes li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.where {
  margin-top: 1.6rem;
  display: grid;
  gap: 0.8rem;
}
@media (max-width: 900px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
    gap: 1.2rem;
  }
  .side {
    order: -1;
  }
}
</style>
