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
import { isAsked, KIND_LABEL, labelOf, looksOf, SEVERITIES, valueOf } from '#core'

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
      <h2>{{ labelOf(job.site, subject).replace(/^.*?, (?=space )/, '') }}</h2>
      <button
        type="button"
        class="plain icon"
        aria-label="clear selection"
        @click="emit('pick', '')"
      >
        <UIcon name="lucide:x" />
      </button>
    </header>
    <h2 v-else-if="!job.isReady" class="soft">Judging</h2>
    <h2 v-else>{{ faults.length ? `${faults.length} found here` : 'No fault found so far' }}</h2>

    <div v-if="faults.length" class="stack">
      <FindingCard
        v-for="f in subject ? faults : faults.slice(0, 4)"
        :key="`${f.rule}${f.subject.id}`"
        :finding="f"
        :unnamed="!!subject"
        :part="subject ? partName(f) : ''"
        :fixes="!!subject"
        @click="!subject && emit('pick', f.subject.id)"
      />
      <p v-if="!subject && faults.length > 4" class="small soft">
        {{ faults.length - 4 }} more: touch a part of the drawing, or see Findings
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
      <button
        v-if="looks.length > shownLooks"
        type="button"
        class="touch more"
        @click="shownLooks += 12"
      >
        {{ looks.length - shownLooks }} more
      </button>
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
        <button
          v-for="[kind, words] in GROWS[s.kind] ?? []"
          :key="kind"
          type="button"
          class="touch more"
          @click="grow(s, kind)"
        >
          {{ words }}
        </button>
      </template>
      <button
        v-if="CAN_ISOLATE.has(subject.kind)"
        type="button"
        class="touch more"
        @click="isIsolating = true"
      >
        <UIcon name="lucide:power-off" /> make it dead: the plan
      </button>
      <IsolationSheet v-if="isIsolating" v-model="isIsolating" :subject="subject" />
      <button
        v-if="subject.kind !== 'premises'"
        type="button"
        class="touch more danger"
        @click="removeThing"
      >
        <UIcon name="lucide:trash-2" /> it is not there: remove
      </button>
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
