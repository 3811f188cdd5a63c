<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import {
  FIX_PRESETS,
  money,
  priceBookSchema,
  remedyById,
  SAMPLE_PRICES,
  schoolById,
  tasksInOrder,
  valueOf,
  type FixPreset,
  type PriceBook,
} from '#core'
import { DEFAULT_OWN, OwnSettings } from '#shared/files'

const { job, problem, isLoading, load } = useOpenJob()
const planner = usePlanner()
provide(PLANNER, planner)
const {
  fix,
  schools,
  locks,
  forbids,
  prices,
  progress,
  isPlanning,
  frontier,
  plan,
  tasks,
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
/** The ways of this desk, kept like its prices. */
const ways = useLocalStorage<readonly string[]>('corvit-schools', [])
schools.value = ways.value.filter(id => schoolById(id)).map(school => ({ school }))
/** Where nothing was chosen on this device, the ways of one's own settings hold. */
onMounted(async () => {
  if (ways.value.length > 0) return
  const own = await api('/api/me/settings', OwnSettings).catch(() => DEFAULT_OWN)
  if (own.schools.length > 0) schools.value = own.schools.map(school => ({ school }))
})
watch(schools, list => {
  ways.value = list.flatMap(c => (c.circuit === undefined ? c.school : []))
})
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
const presets = FIX_ORDER.filter(f => FIX_PRESETS.includes(f))

// The first plan is worked out as soon as the house is judged.
watch(
  () => job.isReady && !isLoading.value,
  ready => {
    if (ready && planner.plannedFor.value !== job.house) void planner.open()
  },
  { immediate: true },
)
const isStale = computed(() => plan.value !== undefined && job.house !== planner.plannedFor.value)

/** Without a fault of the chosen kind there are no sums to show, and nothing to accept. */
const isEmpty = computed(
  () => plan.value?.status === 'nothing to fix' && !isPlanning.value && !isStale.value,
)
const shares = computed(() => {
  const gone = bought.value?.danger ?? frontier.value?.at(-1)?.danger ?? 0
  return danger.value === 0 ? 100 : Math.floor((100 * gone) / danger.value)
})
const total = computed(() => bought.value?.cents ?? plan.value?.total ?? 0)
const cured = computed(() => plan.value?.choices.reduce((n, c) => n + c.findings.length, 0) ?? 0)

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
  // Only the plan itself was recorded: it is not out of date for that.
  planner.plannedFor.value = job.house
  tab.value = 'do'
  toast.add({
    title: 'Plan accepted',
    description: 'Its works and papers stand under Do it.',
    icon: 'lucide:check',
  })
}
const isPricing = ref(false)
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
        <div v-else-if="!plan" class="working">
          <p v-if="planner.problem.value" role="alert" class="fails">
            It could not be worked out: {{ planner.problem.value }}
          </p>
          <p v-else-if="!job.isReady || isPlanning" class="soft" role="status">Judging</p>
          <p v-else class="soft">Stopped. Nothing is planned.</p>
          <UButton
            v-if="job.isReady && !isPlanning"
            icon="lucide:rotate-ccw"
            label="Work it out"
            @click="planner.open()"
          />
        </div>

        <section v-if="plan && isEmpty" class="working" data-testid="nothing-to-plan">
          <p>
            {{
              job.findings.length
                ? 'Nothing of this kind has been found: another choice above has something to plan.'
                : 'No fault has been found yet, so there is nothing to plan.'
            }}
          </p>
          <UButton
            v-if="!job.findings.length"
            icon="lucide:footprints"
            label="To the walk"
            :to="`/jobs/${job.jobId}/walk`"
          />
        </section>
        <header v-else-if="plan" class="top">
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
              :disabled="isPlanning || isStale || !plan.choices.length"
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
        <div v-if="plan && !isEmpty" class="split" :class="{ waiting: isPlanning }">
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

          <PlanSide :plan="plan" class="side" />
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
.main {
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
.acts {
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
