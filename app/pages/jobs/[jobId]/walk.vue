<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import {
  roleOf,
  bondMapOf,
  openLoopsOf,
  RULES,
  STAGE_WORDS,
  TURNS,
  timelineOf,
  valueOf,
  walkOf,
  type VisitStop,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const route = useRoute()
const router = useRouter()
const isNarrow = useMediaQuery('(max-width: 900px)')
const isMarginOpen = ref(false)
const TABS = [
  ['route', 'Route'],
  ['bonds', 'Bonds'],
  ['loops', 'Unresolved questions'],
  ['years', 'Years'],
] as const
type Tab = (typeof TABS)[number][0]
const tab = computed<Tab>(() => TABS.find(t => t[0] === route.query.tab)?.[0] ?? 'route')
const toTab = (t: Tab) => router.replace({ query: { ...route.query, tab: t } })

const spoken = computed(() => [...job.results.values()])
const walk = computed(() => walkOf(job.site, spoken.value))
const { scope, visit, looksOfQuestion, choose, setAccess, setInstrument, setSample, attest } =
  useVisit()
const map = computed(() => bondMapOf(job.site, spoken.value))
const loops = computed(() => openLoopsOf(job.site))
const openLoops = computed(() => loops.value.filter(l => !l.disclosed).length)
const about = ref('whole')
const moments = computed(() =>
  timelineOf(
    job.site,
    about.value.startsWith('rule ')
      ? { rule: about.value.slice(5) }
      : about.value !== 'whole'
        ? { room: job.site.get(about.value, 'room') }
        : {},
  ),
)
/** Rules that have a year: the others are as old as any house. */
const dated = RULES.filter(r => r.since !== undefined || TURNS.some(t => t.rule === r.id))
const abouts = computed(() => [
  [{ value: 'whole', label: 'the whole property' }],
  [
    { type: 'label' as const, label: 'a room', value: '' },
    ...job.site.all.room.map(r => ({ value: r.id, label: valueOf(r, 'name') ?? r.id })),
  ],
  [
    { type: 'label' as const, label: 'a rule', value: '' },
    ...dated.map(r => ({ value: `rule ${r.id}`, label: r.title })),
  ],
])
const keyOf = (s: VisitStop) => `${s.stage} ${s.place.id}`
const openKey = ref('')
/** The stop worked at: the one opened, while it has anything left; else the first. */
const current = computed(
  () => visit.value.stops.find(s => keyOf(s) === openKey.value) ?? visit.value.stops[0],
)
const index = computed(() => (current.value ? visit.value.stops.indexOf(current.value) : -1))
const minutes = (seconds: number) =>
  seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${Math.round(seconds / 60)} min`
const stages = computed(() => {
  const list: { stage: VisitStop['stage']; stops: VisitStop[] }[] = []
  for (const s of visit.value.stops) {
    if (list.at(-1)?.stage === s.stage) list.at(-1)!.stops.push(s)
    else list.push({ stage: s.stage, stops: [s] })
  }
  return list
})
const share = (settled: number, total: number) =>
  total === 0 ? 0 : Math.round((100 * settled) / total)
function step(by: number) {
  const next = visit.value.stops[index.value + by]
  if (next) openKey.value = keyOf(next)
  window.scrollTo({ top: 0 })
}
function go(subject: string) {
  const s = job.house.subjects.get(subject)
  if (s?.kind === 'enclosure' || s?.kind === 'feeder') {
    const id = s.kind === 'feeder' ? (job.site.enclosuresOn(s)[0]?.id ?? '') : s.id
    void router.push({ path: `/jobs/${job.jobId}/panel`, query: { at: id } })
  } else picked.value = subject
}
const picked = ref('')
const pickedSubject = computed(() => job.house.subjects.get(picked.value))
const record = (id: string) => {
  picked.value = id
  if (isNarrow.value) isMarginOpen.value = true
}
function addElectrode() {
  const id = crypto.randomUUID()
  const host = job.site.all.enclosure.find(e => roleOf(job.site, e).value === 'service')
  job.record([
    { act: 'add', subject: id, kind: 'electrode', parent: 'premises' },
    { act: 'note', subject: id, field: 'name', value: 'Electrode', grade: 'seen' },
    ...(host
      ? [
          {
            act: 'note' as const,
            subject: id,
            field: 'landsIn',
            value: host.id,
            grade: 'seen' as const,
          },
        ]
      : []),
  ])
  record(id)
}
function addBond(to: 'water piping' | 'gas piping') {
  const id = crypto.randomUUID()
  job.record([
    { act: 'add', subject: id, kind: 'bond', parent: 'premises' },
    { act: 'note', subject: id, field: 'to', value: to, grade: 'seen' },
    {
      act: 'note',
      subject: id,
      field: 'name',
      value: to === 'water piping' ? 'Water pipe bond' : 'Gas pipe bond',
      grade: 'seen',
    },
  ])
  record(id)
}
const reasonFor = ref('')
const reason = ref('')
function disclose(subject: string, field: string) {
  if (reason.value.trim()) job.block(subject, field, reason.value.trim())
  reasonFor.value = reason.value = ''
}
const marginNote = computed(() =>
  pickedSubject.value ? 'record it' : `${visit.value.counts.inScope} open here`,
)
</script>

<template>
  <AppShell
    v-model:margin="isMarginOpen"
    title="Walk"
    :subtitle="valueOf(job.site.premises, 'name')"
    :margin-note="marginNote"
    :wide="tab === 'bonds' && !pickedSubject"
  >
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <nav class="tabs" aria-label="parts of the walk">
        <UButton
          v-for="[id, name] in TABS"
          :key="id"
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === id"
          @click="toTab(id)"
        >
          {{ name }}<b v-if="id === 'loops' && openLoops" class="n">{{ openLoops }}</b
          ><b v-if="id === 'bonds' && map.problems.length" class="n">{{ map.problems.length }}</b>
        </UButton>
      </nav>

      <template v-if="tab === 'route'">
        <p v-if="!job.isReady" class="soft none" role="status">Judging</p>
        <template v-else>
          <ScopeBar
            :scope="scope"
            :counts="visit.counts"
            @purpose="choose"
            @access="setAccess"
            @instrument="setInstrument"
            @sample="setSample"
          />
          <LoosePictures />
          <p v-if="!visit.stops.length" class="soft none">
            Nothing left to look at on this visit: what was in scope is decided or could not be
            seen.
          </p>
        </template>
        <template v-if="job.isReady && current">
          <p v-if="map.firstQuestion && index === 0" class="question">
            <SeverityMark kind="undecided" :size="20" />
            <span class="ask">{{ map.firstQuestion.text }}</span>
            <UButton
              color="primary"
              variant="link"
              class="touch"
              @click="go(map.firstQuestion.subject)"
            >
              answer
            </UButton>
          </p>
          <section class="stop" :data-stage="current.stage">
            <p class="small soft">
              {{ STAGE_WORDS[current.stage] }} · stop {{ index + 1 }} of {{ visit.stops.length }}
            </p>
            <h2 class="place">{{ current.place.label }}</h2>
            <p class="small soft meta">
              <span>{{
                current.answers === 1 ? 'one answer' : `${current.answers} answers`
              }}</span><span>about {{ minutes(current.seconds) }}</span
              ><span v-if="current.instruments.length"
                >take: {{ current.instruments.join(', ') }}</span
              >
            </p>
            <p v-for="c in current.cautions" :key="c" class="small caution">
              <UIcon name="lucide:triangle-alert" /> {{ c }}
            </p>
            <AttestCard
              v-if="current.attestation"
              :attestation="current.attestation"
              @attest="current.attestation && attest(current.attestation)"
            />
            <LookGroup
              v-for="q in current.questions"
              :key="`${keyOf(current)} ${q.kind} ${q.field}`"
              :looks="looksOfQuestion(q)"
            />
            <SpokenLine
              class="say"
              :place="current.place.id"
              placeholder="Or say what you see here"
            />
            <div class="steps">
              <UButton
                color="neutral"
                variant="outline"
                class="plain"
                :disabled="index <= 0"
                @click="step(-1)"
              >
                Back</UButton
              ><UButton
                color="primary"
                variant="solid"
                class="go"
                :disabled="index >= visit.stops.length - 1"
                @click="step(1)"
              >
                Next place
              </UButton>
            </div>
          </section>
          <section class="all">
            <h2>The whole route</h2>
            <div v-for="s in stages" :key="s.stage" class="stage">
              <h3 class="small soft">{{ STAGE_WORDS[s.stage] }}</h3>
              <UButton
                v-for="x in s.stops"
                :key="keyOf(x)"
                color="neutral"
                variant="outline"
                class="chip stopchip"
                :aria-pressed="x === current"
                @click="openKey = keyOf(x)"
              >
                {{ x.place.label }} <b>{{ x.answers }}</b>
              </UButton>
            </div>
          </section>
        </template>
        <section v-if="job.isReady && visit.limitations.length" class="all" data-testid="limits">
          <h2>Outside this visit</h2>
          <p class="small soft">
            Not judged, and never taken as fine. This is what the report will say.
          </p>
          <p v-for="l in visit.limitations" :key="l.class" class="limit">
            <b class="count">{{ l.judgments }}</b> {{ l.text }}
          </p>
        </section>
      </template>

      <template v-else-if="tab === 'bonds'">
        <p v-if="map.firstQuestion" class="question">
          <SeverityMark kind="undecided" :size="20" />
          <span class="ask">{{ map.firstQuestion.text }}</span>
          <UButton
            color="primary"
            variant="link"
            class="touch"
            @click="go(map.firstQuestion.subject)"
            >answer</UButton
          >
        </p>
        <SpokenLine
          class="say"
          :place="job.site.premises.id"
          placeholder="water bonded, no gas bond, rod with number six"
        />
        <BondMap :map="map" :compact="isNarrow" @pick="record" />
        <div class="row">
          <UButton color="neutral" variant="outline" class="plain" @click="addElectrode">
            <UIcon name="lucide:plus" /> electrode</UButton
          ><UButton
            color="neutral"
            variant="outline"
            class="plain"
            @click="addBond('water piping')"
          >
            <UIcon name="lucide:plus" /> water bond</UButton
          ><UButton color="neutral" variant="outline" class="plain" @click="addBond('gas piping')">
            <UIcon name="lucide:plus" /> gas bond
          </UButton>
        </div>
        <section v-if="map.problems.length" class="block">
          <h2>Found</h2>
          <UButton
            v-for="p in map.problems"
            :key="p.rule + p.subject"
            color="neutral"
            variant="ghost"
            class="line bare"
            @click="record(p.subject)"
          >
            <SeverityMark :kind="job.results.get(`${p.rule} ${p.subject}`)?.severity ?? 'repair'" />
            {{ p.text }}
            <span class="soft small">{{
              job.results.get(`${p.rule} ${p.subject}`)?.subject.label
            }}</span>
          </UButton>
        </section>
        <section class="block">
          <h2>When it is right, this is measured</h2>
          <ul class="accept">
            <li v-for="a in map.acceptance" :key="a">{{ a }}</li>
          </ul>
        </section>
      </template>

      <template v-else-if="tab === 'loops'">
        <p class="soft intro">
          Begun and not followed to its end. Each is closed by recording it, or disclosed with a
          reason before a report is signed.
        </p>
        <p v-if="!loops.length" class="soft none">No unresolved question.</p>
        <div v-for="l in loops" :key="l.subject + l.field + l.text" class="loop">
          <SeverityMark :kind="l.disclosed ? 'clear' : 'undecided'" :size="18" />
          <div>
            <p>
              <b>{{ l.label }}</b>: {{ l.text }}
            </p>
            <p v-if="l.disclosed" class="small soft">disclosed: {{ l.disclosed }}</p>
            <form
              v-if="reasonFor === l.subject + l.field"
              class="row"
              @submit.prevent="disclose(l.subject, l.field)"
            >
              <UInput
                v-model="reason"
                class="field"
                placeholder="why it stays open"
                aria-label="why it stays open"
                maxlength="400"
              /><UButton color="neutral" variant="outline" type="submit" class="plain"
                >Save</UButton
              >
            </form>
          </div>
          <div class="row ends">
            <UButton color="primary" variant="link" class="touch" @click="record(l.subject)"
              >record</UButton
            ><UButton
              v-if="!l.disclosed"
              color="primary"
              variant="link"
              class="touch"
              @click="reasonFor = l.subject + l.field"
            >
              disclose
            </UButton>
          </div>
        </div>
      </template>

      <template v-else>
        <div class="small soft about">
          Years that count for
          <USelectMenu
            v-model="about"
            class="field"
            value-key="value"
            aria-label="years that count for"
            :items="abouts"
          />
        </div>
        <YearLine :moments="moments" />
        <p class="small soft intro">
          Years of the model code as published. When an edition became law here is recorded at the
          property.
        </p>
      </template>
    </PageState>
    <template #margin>
      <template v-if="pickedSubject"
        ><JudgmentMargin :subject="pickedSubject" @pick="id => (picked = id)"
      /></template>
      <template v-else>
        <h2>Covered so far</h2>
        <p v-if="!job.isReady" class="small soft" role="status">Judging</p>
        <p v-else class="small soft">
          {{ visit.counts.settled }} settled, {{ visit.counts.inScope }} open here,
          {{ visit.counts.outside }} outside this visit
        </p>
        <div class="bars">
          <div v-for="c in walk.coverage" :key="c.id" class="cover">
            <p>
              <span>{{ c.label }}</span><span class="small soft"
                >{{ c.settled }}/{{ c.total }}</span
              >
            </p>
            <div
              class="track"
              role="progressbar"
              :aria-label="c.label"
              :aria-valuenow="c.settled"
              :aria-valuemax="c.total"
            >
              <i :style="{ width: `${share(c.settled, c.total)}%` }" /><i
                class="not"
                :style="{ width: `${share(c.notSeen, c.total)}%` }"
              />
            </div>
          </div>
        </div>
        <section v-if="walk.blocked.length" class="block">
          <h2>Could not be seen</h2>
          <p v-for="b in walk.blocked" :key="b.label + b.fact" class="small lim">
            <b>{{ b.label }}</b>: {{ b.fact }} <span class="soft">({{ b.reason }})</span>
          </p>
        </section>
      </template>
    </template>
  </AppShell>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 0 1.3rem;
  border-bottom: 1px solid var(--line);
  margin-bottom: 0.9rem;
  overflow-x: auto;
  scrollbar-width: none;
}
.n {
  color: var(--touch);
}
.stop {
  max-width: 46rem;
}
.place {
  font-size: 1.35rem;
}
.meta {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1rem;
  margin: 0.15rem 0 0.4rem;
}
.caution {
  color: var(--repair);
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
  margin-top: 0.15rem;
}
.say {
  margin-top: 0.9rem;
}
.steps {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  margin: 1rem 0 1.4rem;
}
.ask {
  flex: 1 1 0;
  min-width: 0;
}
.question {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  border: 1.5px dashed var(--ink);
  padding: 0.5rem 0.8rem;
  margin-bottom: 0.9rem;
  max-width: 52rem;
}
.question .touch {
  min-height: 44px;
}
.all {
  max-width: 52rem;
  border-top: 1px solid var(--line);
  padding-top: 0.9rem;
}
.limit {
  display: grid;
  grid-template-columns: 3rem 1fr;
  gap: 0.4rem;
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
}
.count {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.stage {
  margin: 0.5rem 0;
}
.stopchip {
  margin: 0.2rem 0.3rem 0.2rem 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.row .field {
  flex: 1 1 12rem;
}
.block {
  margin-top: 1.1rem;
  display: grid;
  gap: 0.3rem;
  max-width: 52rem;
}
.line {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  text-align: left;
  min-height: 44px;
  cursor: pointer;
}
.line:hover {
  color: var(--touch);
}
.accept {
  list-style: none;
  display: grid;
  gap: 0.35rem;
}
.accept li::before {
  content: '— ';
  color: var(--cool);
}
.loop {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 0.7rem;
  align-items: start;
  padding: 0.6rem 0;
  border-bottom: 1px solid var(--line);
  max-width: 56rem;
}
.ends .touch {
  min-height: 44px;
}
.intro {
  margin-bottom: 0.7rem;
  max-width: 46rem;
}
.none {
  padding: 2rem 0;
}
.about {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  margin-bottom: 0.6rem;
}
.about .field {
  width: auto;
  max-width: 100%;
}
.bars {
  display: grid;
  gap: 0.7rem;
  margin-top: 0.8rem;
}
.cover p {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
}
.track {
  height: 6px;
  background: var(--tint);
  display: flex;
}
.track i {
  display: block;
  height: 100%;
  background: var(--cool);
}
.track .not {
  background: repeating-linear-gradient(90deg, var(--soft) 0 3px, transparent 3px 6px);
}
.lim {
  padding: 0.15rem 0;
}
@media (max-width: 900px) {
  .loop {
    grid-template-columns: 18px 1fr;
  }
  .ends {
    grid-column: 2;
  }
  .steps {
    position: sticky;
    bottom: 116px;
    background: var(--paper);
    padding: 0.5rem 0;
    z-index: 5;
    border-top: 1px solid var(--line);
  }
  .steps .go,
  .steps .plain {
    flex: 1;
    justify-content: center;
    min-height: 52px;
  }
}
</style>
