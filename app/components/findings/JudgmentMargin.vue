<script lang="ts">
import type { Subject, SpokenResult, Kind } from '#core'

export interface JudgmentMarginProps {
  /** The thing pointed at, or none for the whole. */
  subject?: Subject
  /** What is open where nothing is pointed at: only these subjects, or all. */
  within?: ReadonlySet<string>
}
export interface JudgmentMarginEmits {
  pick: [subject: string]
}
</script>

<script setup lang="ts">
import { groupAlike, isAsked, KIND_LABEL, labelOf, looksOf, SEVERITIES, valueOf } from '#core'

const { subject = undefined, within = undefined } = defineProps<JudgmentMarginProps>()
const emit = defineEmits<JudgmentMarginEmits>()
const job = useJobStore()
const things = computed(() => (subject ? belongings(job.site, subject) : []))
const results = computed(() =>
  subject
    ? things.value.flatMap(s => job.bySubject.get(s.id) ?? [])
    : [...job.results.values()].filter(r => !within || within.has(r.subject.id)),
)
const faults = computed(() =>
  results.value
    .filter(isFinding)
    .sort((a, b) => SEVERITIES.indexOf(a.severity!) - SEVERITIES.indexOf(b.severity!)),
)
/** The same fault is said once, with its places. */
const groups = computed(() => groupAlike(faults.value))
const shownGroups = computed(() => (subject ? groups.value : groups.value.slice(0, 4)))
const OTHERS = 4
const allowed = computed(() => results.value.filter(r => r.outcome === 'allowed'))
const allLooks = computed(() =>
  looksOf(results.value).sort((a, b) => b.danger - a.danger || b.settles - a.settles),
)
/** What this visit asks for; the rest is counted, and a thing can be taken in whole. */
const looks = computed(() =>
  allLooks.value.filter(l => {
    const thing = job.house.subjects.get(l.subject)
    return l.state === 'blocked' || (thing && isAsked(job.covering, thing, l.field))
  }),
)
const beyond = computed(() => allLooks.value.length - looks.value.length)
const { widen } = useScope()
const clear = computed(() => results.value.filter(r => r.outcome === 'clear').length)
const shownLooks = ref(6)
const CAN_ISOLATE: ReadonlySet<Kind> = new Set([
  'enclosure',
  'breaker',
  'bar',
  'feeder',
  'circuit',
  'outlet',
])
const isIsolating = ref(false)
watch(
  () => subject?.id,
  () => {
    shownLooks.value = 6
  },
)
const sheetTitle = (s: Subject) =>
  s.kind === 'screw'
    ? `screw ${valueOf(s as Subject<'screw'>, 'position') ?? ''}`
    : s.kind === 'segment'
      ? `conductors${valueOf(s as Subject<'segment'>, 'name') ? ` · ${valueOf(s as Subject<'segment'>, 'name')}` : ''}`
      : KIND_LABEL[s.kind]
/** Which part of the thing pointed at a finding is about, where that is not plain. */
const partName = (f: SpokenResult) =>
  f.subject.kind === 'segment'
    ? (valueOf(job.site.get(f.subject.id, 'segment'), 'name') ?? 'conductors')
    : f.subject.kind === 'feeder' && subject?.kind !== 'feeder'
      ? f.subject.label
      : ''
/** What can be added to a thing, in words. */
const GROWS: Partial<Record<Kind, readonly (readonly [kind: Kind, words: string])[]>> = {
  circuit: [['segment', 'add conductors of this circuit']],
  segment: [['exposure', 'add a hot or crowded stretch']],
  feeder: [['exposure', 'add a hot or crowded stretch']],
  premises: [
    ['adoption', 'add an edition and the year it became law here'],
    ['amendment', 'add a local amendment of a rule'],
  ],
  bar: [['screw', 'record a screw and what lands under it']],
  enclosure: [['bar', 'add a bar']],
}
function grow(thing: Subject, kind: Kind) {
  const id = crypto.randomUUID()
  const drafts: Parameters<typeof job.record>[0][number][] = [
    { act: 'add', subject: id, kind, parent: thing.id },
  ]
  if (kind === 'screw') {
    const taken = job.site.children(thing, 'screw').map(s => valueOf(s, 'position') ?? 0)
    drafts.push({
      act: 'note',
      subject: id,
      field: 'position',
      value: Math.max(0, ...taken) + 1,
      grade: 'seen',
    })
  }
  job.record(drafts)
  if (kind === 'bar') emit('pick', id)
}
function removeThing() {
  if (!subject) return
  const drops = things.value
    .filter(s => s.kind !== 'feeder')
    .map(s => ({ act: 'drop' as const, subject: s.id }))
  job.record(drops)
  emit('pick', '')
}
</script>

<template>
  <div class="margin" data-testid="margin">
    <header v-if="subject" class="title">
      <OutletFace
        v-if="subject.kind === 'outlet'"
        :outlet="subject as Subject<'outlet'>"
        :site="job.site"
        :size="48"
      />
      <h2>{{ labelOf(job.site, subject).replace(/^.*?, (?=space )/, '') }}</h2>
      <UButton
        color="neutral"
        variant="outline"
        class="plain icon"
        aria-label="clear selection"
        @click="emit('pick', '')"
      >
        <UIcon name="lucide:x" />
      </UButton>
    </header>
    <h2 v-else-if="!job.isReady" class="soft">{{ job.jobId ? 'Judging' : '' }}</h2>
    <h2 v-else>{{ faults.length ? `${faults.length} found here` : 'No fault found so far' }}</h2>

    <div v-if="faults.length" class="stack">
      <template v-for="g in shownGroups" :key="`${g.first.rule}${g.first.subject.id}`">
        <FindingCard
          :finding="g.first"
          :unnamed="!!subject"
          :part="subject ? partName(g.first) : ''"
          :fixes="!!subject"
          @click="!subject && emit('pick', g.first.subject.id)"
        />
        <p v-if="g.all.length > 1" class="small soft same">
          The same at {{ g.all.length - 1 }} more:
          <UButton
            v-for="other in g.all.slice(1, 1 + OTHERS)"
            :key="other.subject.id"
            color="primary"
            variant="link"
            class="touch"
            @click="emit('pick', other.subject.id)"
            >{{ other.subject.label }}</UButton><template v-if="g.all.length > 1 + OTHERS"
            >, …</template
          >
        </p>
      </template>
      <p v-if="shownGroups.length < groups.length" class="small soft">
        {{ groups.length - shownGroups.length }} more kinds: touch a part of the drawing, or see
        Findings
      </p>
    </div>

    <section v-if="subject && allowed.length" data-testid="allowed">
      <h2>Allowed to remain</h2>
      <div v-for="r in allowed" :key="r.rule" class="kept">
        <p>
          <b>{{ r.title }}</b>
        </p>
        <p>{{ r.checks.length ? r.checks.map(c => c.sentence).join('. ') : r.why }}</p>
        <p class="small soft">{{ r.standingWhy }}</p>
      </div>
    </section>
    <section v-if="looks.length">
      <h2 class="split">
        Look next <span class="small soft">{{ looks.length }} open</span>
      </h2>
      <LookRow
        v-for="l in looks.slice(0, shownLooks)"
        :key="`${l.subject}${l.field}`"
        :look="l"
        :unnamed="things.length === 1"
        @pick="id => emit('pick', id)"
      />
      <UButton
        v-if="looks.length > shownLooks"
        color="primary"
        variant="link"
        class="touch more"
        @click="shownLooks += 12"
      >
        {{ looks.length - shownLooks }} more
      </UButton>
    </section>
    <p v-else-if="subject && job.isReady" class="soft">Nothing left to look at here.</p>
    <p v-if="subject && beyond" class="small soft" data-testid="beyond">
      {{ beyond }} more outside this visit.
      <UButton
        size="sm"
        variant="link"
        label="Look at this all the way"
        @click="widen(things.map(t => t.id))"
      />
    </p>
    <p v-if="clear" class="small faint">{{ clear }} judged clear</p>

    <section v-if="subject" class="record">
      <hr class="rule" />
      <h2 class="rec">Record</h2>
      <ReadingsSay v-if="subject.kind === 'outlet'" :outlet="subject as Subject<'outlet'>" />
      <PhotoStrip :subject="subject" :things="things" />
      <template v-for="s in things" :key="s.id">
        <FactSheet :subject="s" :title="things.length > 1 ? sheetTitle(s) : ''" />
        <UButton
          v-for="[kind, words] in GROWS[s.kind] ?? []"
          :key="kind"
          color="primary"
          variant="link"
          class="touch more"
          @click="grow(s, kind)"
        >
          {{ words }}
        </UButton>
      </template>
      <UButton
        v-if="CAN_ISOLATE.has(subject.kind)"
        color="primary"
        variant="link"
        class="touch more"
        @click="isIsolating = true"
      >
        <UIcon name="lucide:power-off" /> make it dead: the plan
      </UButton>
      <IsolationSheet v-if="isIsolating" v-model="isIsolating" :subject="subject" />
      <UButton
        v-if="subject.kind !== 'premises'"
        color="primary"
        variant="link"
        class="touch more danger"
        @click="removeThing"
      >
        <UIcon name="lucide:trash-2" /> it is not there: remove
      </UButton>
    </section>
  </div>
</template>

<style scoped>
.margin {
  display: grid;
  gap: 0.9rem;
  align-content: start;
}
.title,
.split {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
}
.title h2 {
  flex: 1;
}
.same .touch {
  margin-left: 0.4rem;
}
.icon {
  padding: 0 0.75rem;
}
.stack {
  display: grid;
  gap: 0.7rem;
}
.rec {
  margin-top: 0.7rem;
}
.kept {
  padding: 0.35rem 0;
}
.more {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
}
.danger {
  color: var(--soft);
  font-weight: 400;
}
</style>
