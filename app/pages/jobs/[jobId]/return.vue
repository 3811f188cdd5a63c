<script setup lang="ts">
import {
  fieldOf,
  labelOf,
  returnSheet,
  returnVisitsOf,
  sheetOf,
  tasksInOrder,
  triedAt,
  valueOf,
  visitsSideBySide,
  type AnyValue,
  type Grade,
  type Recheck,
  type RecheckState,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const visits = computed(() => returnVisitsOf(job.house))
const at = ref<string>()
const visit = computed(() => visits.value.find(v => v.id === at.value) ?? visits.value.at(-1))
const results = computed(() => [...job.results.values()])
const sheet = computed(() => visit.value && sheetOf(job.house, visit.value, results.value))
const on = ref(today())
const isPlanned = computed(() => tasksInOrder(job.house).length > 0)
const corrections = computed(() => results.value.filter(r => r.outcome === 'fault').length)

function begin(basis: 'corrections' | 'plan') {
  const changes = returnSheet(job.house, basis, on.value, job.assessor, () => crypto.randomUUID())
  const told = changes.map(c => (c.act === 'note' ? { ...c, grade: 'told' as const } : c))
  job.record([
    ...told,
    { act: 'note', subject: 'premises', field: 'stage', value: 'return', grade: 'told' },
  ])
  at.value = changes[0]?.subject
}

const OUTCOMES = ['corrected', 'not corrected', 'could not be seen'] as const
const STATE_WORDS: Readonly<Record<RecheckState, string>> = {
  passed: 'passed',
  'not corrected': 'not corrected',
  'could not be seen': 'could not be seen',
  'record disagrees': 'record what is there now',
  open: 'not looked at yet',
}
const say = (r: Recheck, outcome: (typeof OUTCOMES)[number]) =>
  job.note(r.thing.id, 'outcome', outcome)
function write(id: string, field: 'reading' | 'note' | 'nextOn', value: string) {
  const subject = job.house.subjects.get(id)
  if (
    subject &&
    value !== ((subject.facts as Record<string, { value?: unknown }>)[field]?.value ?? '')
  )
    job.note(id, field, value, field === 'reading' ? 'measured' : 'told')
}
const passed = computed(() => sheet.value?.rechecks.filter(r => r.state === 'passed').length ?? 0)
const open = ref<string>()
/** The facts that a correction rested on: what is there now takes their place. */
const factsOf = (r: Recheck) =>
  (r.now?.evidence ?? [])
    .flatMap(e => {
      const subject = job.house.subjects.get(e.subject)
      const field = subject && fieldOf(subject.kind, e.field)
      if (!subject || !field || subject.kind === 'premises') return []
      const fact = triedAt(subject, e.field)
      return [{ subject, name: e.field, field, thing: labelOf(job.site, subject), fact }]
    })
    .slice(0, 8)
const seen = (subject: string, field: string, value: AnyValue, grade: Grade) =>
  job.note(subject, field, value, grade)

const beside = computed(() => (visits.value.length > 1 ? visitsSideBySide(job.house) : undefined))
const dayOf = (v: (typeof visits.value)[number]) =>
  `Visit ${valueOf(v, 'number') ?? ''}${valueOf(v, 'on') ? `, ${valueOf(v, 'on')}` : ''}`
</script>

<template>
  <AppShell title="Return visit" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <p v-if="!job.isReady" class="soft" role="status">Judging</p>
      <section v-else-if="!visit || at === 'new'" class="begin">
        <p>
          What was to be corrected is looked at again, line by line, with its reading and a
          photograph. It passes when you say so and what is recorded bears it out.
        </p>
        <UFormField label="Day of the return visit">
          <UInput v-model="on" type="date" size="xl" />
        </UFormField>
        <div class="row">
          <UButton
            v-show="corrections"
            size="xl"
            icon="lucide:list-checks"
            :disabled="!corrections"
            :label="
              corrections === 1 ? 'From the one correction' : `From the ${corrections} corrections`
            "
            @click="begin('corrections')"
          />
          <UButton
            v-if="isPlanned"
            size="xl"
            color="neutral"
            variant="outline"
            icon="lucide:list-tree"
            label="From the accepted plan"
            @click="begin('plan')"
          />
          <UButton
            v-if="at === 'new'"
            size="xl"
            color="neutral"
            variant="ghost"
            label="Back"
            @click="at = undefined"
          />
        </div>
        <p v-if="!corrections" class="soft">
          Nothing is proven wrong: there is nothing to go back to.
        </p>
      </section>
      <template v-else-if="sheet">
        <header class="head">
          <UTabs
            v-if="visits.length > 1"
            :model-value="visit.id"
            variant="link"
            :content="false"
            :items="visits.map(v => ({ value: v.id, label: dayOf(v) }))"
            @update:model-value="at = String($event)"
          />
          <p class="count" data-testid="return-state">
            <b>{{ passed }} of {{ sheet.rechecks.length }} passed</b>
            <span v-if="sheet.isPassed" class="ok"
              ><UIcon name="lucide:check" /> All corrections pass.</span
            >
          </p>
          <UProgress
            :model-value="passed"
            :max="Math.max(1, sheet.rechecks.length)"
            aria-label="corrections that pass"
          />
        </header>
        <ul class="sheet" data-testid="rechecks">
          <li
            v-for="r in sheet.rechecks"
            :key="r.thing.id"
            :data-state="r.state"
            :data-rule="r.rule"
          >
            <p>{{ r.was }}</p>
            <p class="state">
              <UIcon
                :name="r.state === 'passed' ? 'lucide:circle-check' : 'lucide:circle-dashed'"
              />
              {{ STATE_WORDS[r.state] }}
            </p>
            <div class="row">
              <UButton
                v-for="o in OUTCOMES"
                :key="o"
                color="neutral"
                variant="outline"
                class="chip"
                :aria-pressed="valueOf(r.thing, 'outcome') === o"
                @click="say(r, o)"
                >{{ o }}</UButton
              >
              <UButton
                color="neutral"
                variant="ghost"
                class="chip"
                :aria-expanded="open === r.thing.id"
                @click="open = open === r.thing.id ? undefined : r.thing.id"
                >reading, photograph, note</UButton
              >
            </div>
            <div v-if="r.state === 'record disagrees'" class="now">
              <p class="small">
                Recorded is still: {{ r.now?.why ?? 'too little to decide it' }}. What is there now?
              </p>
              <template v-for="(f, i) in factsOf(r)" :key="f.subject.id + f.name">
                <b v-if="f.thing !== factsOf(r)[i - 1]?.thing" class="small">{{ f.thing }}</b>
                <FactRow
                  :field="f.field"
                  :fact="f.fact"
                  :targets="refTargets(job.site, f.field)"
                  :data-field="f.name"
                  @note="(v, g) => seen(f.subject.id, f.name, v, g)"
                  @block="why => job.block(f.subject.id, f.name, why)"
                />
              </template>
            </div>
            <div v-if="open === r.thing.id" class="more">
              <UFormField label="Reading">
                <UInput
                  :model-value="valueOf(r.thing, 'reading') ?? ''"
                  :maxlength="200"
                  size="lg"
                  class="w-full"
                  placeholder="120.4 V hot to neutral, trips in 24 ms"
                  @change="write(r.thing.id, 'reading', ($event.target as HTMLInputElement).value)"
                />
              </UFormField>
              <UFormField label="Note">
                <UInput
                  :model-value="valueOf(r.thing, 'note') ?? ''"
                  :maxlength="400"
                  size="lg"
                  class="w-full"
                  @change="write(r.thing.id, 'note', ($event.target as HTMLInputElement).value)"
                />
              </UFormField>
              <PhotoStrip :subject="r.thing" />
            </div>
          </li>
        </ul>
        <footer class="foot">
          <UFormField label="Next visit">
            <UInput
              type="date"
              size="xl"
              :model-value="valueOf(visit, 'nextOn') ?? ''"
              @change="write(visit.id, 'nextOn', ($event.target as HTMLInputElement).value)"
            />
          </UFormField>
          <UFormField label="What the next one should know">
            <UInput
              size="xl"
              class="w-full"
              :maxlength="400"
              :model-value="valueOf(visit, 'note') ?? ''"
              @change="write(visit.id, 'note', ($event.target as HTMLInputElement).value)"
            />
          </UFormField>
          <div class="row">
            <UButton
              size="xl"
              color="neutral"
              variant="outline"
              icon="lucide:plus"
              label="Another return visit"
              @click="at = 'new'"
            />
            <UButton
              size="xl"
              color="neutral"
              variant="outline"
              icon="lucide:file-text"
              label="Correction notice, PDF"
              :href="`/api/jobs/${job.jobId}/papers/report-corrections`"
              external
            />
          </div>
        </footer>
        <section v-if="beside" class="beside" data-testid="side-by-side">
          <h2>Visit by visit</h2>
          <FigureTable
            :head="['Found before', ...beside.visits.map(dayOf)]"
            :rows="beside.rows.map(r => [r.was, ...r.states])"
            :figures="[]"
          />
        </section>
      </template>
    </PageState>
  </AppShell>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 1rem;
  max-width: 40rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.head,
.sheet,
.foot {
  max-width: 52rem;
}
.count {
  display: flex;
  gap: 1rem;
  font-size: 1.2rem;
  margin-bottom: 0.4rem;
}
.ok {
  color: var(--cool);
  display: inline-flex;
  gap: 0.3rem;
  align-items: center;
}
.sheet li {
  border-bottom: 1px solid var(--line);
  padding: 0.9rem 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
}
.state {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  color: var(--soft);
}
li[data-state='passed'] .state {
  color: var(--cool);
}
li[data-state='not corrected'] .state,
li[data-state='record disagrees'] .state {
  color: var(--repair);
  font-weight: 600;
}
.now,
.more {
  border-left: 3px solid var(--line);
  padding-left: 0.8rem;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
}
.foot {
  display: grid;
  gap: 0.8rem;
  margin-top: 1.2rem;
}
.beside {
  margin-top: 1.6rem;
  overflow-x: auto;
}
</style>
