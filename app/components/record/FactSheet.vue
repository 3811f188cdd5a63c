<script lang="ts">
import {
  STAGES,
  triedAt,
  FIELDS,
  PREMISES_ID,
  type Subject,
  type AnyValue,
  type Field,
  type Grade,
  type Stage,
} from '#core'

export interface FactSheetProps {
  subject: Subject
  title?: string
}
</script>

<script setup lang="ts">
const { subject, title = '' } = defineProps<FactSheetProps>()
const job = useJobStore()
/** What matters next is a handful: the rest stands folded by how it is looked at. */
const HANDFUL = 5
/** With so few facts nothing is folded. */
const FEW = 6
const openThemes = ref<ReadonlySet<Stage>>(new Set())
watch(
  () => subject.id,
  () => {
    openThemes.value = new Set()
  },
)
/** Facts this visit asks for here, the most dangerous first. */
const next = computed(() =>
  job.openLooks
    .filter(l => l.subject === subject.id && l.state !== 'blocked')
    .sort((a, b) => b.danger - a.danger || b.settles - a.settles)
    .map(l => l.field),
)
const asked = computed(
  () =>
    new Set(
      [...job.results.values()]
        .flatMap(r => r.missing)
        .filter(m => m.subject === subject.id)
        .map(m => m.field),
    ),
)
/** What places and names a thing is offered even where no judgment waits for it. */
const ALWAYS = new Set([
  'name',
  'label',
  'room',
  'after',
  'slots',
  'type',
  'supplies',
  'size',
  'metal',
  'wiring',
  'ratingAmps',
  'bondMeans',
  'street',
  'client',
  'yearBuilt',
  'edition',
  'purpose',
  'use',
])
const rows = computed(() =>
  Object.entries(FIELDS[subject.kind] as Record<string, Field>).map(([name, field]) => ({
    name,
    field,
    fact: triedAt(subject, name),
    isAsked: asked.value.has(name),
  })),
)
type Row = (typeof rows.value)[number]
/** A row being filled in must not move under the hand: what stood first stays first until another thing is shown. */
const pinned = ref<readonly string[]>([])
watch(
  () => [subject.id, job.isReady] as const,
  () => {
    pinned.value = next.value.slice(0, HANDFUL)
  },
  { immediate: true },
)
watch(next, now => {
  // A new handful comes when the last one is answered.
  if (!pinned.value.some(name => now.includes(name))) pinned.value = now.slice(0, HANDFUL)
})
const first = computed<readonly Row[]>(() => {
  if (rows.value.length <= FEW) return rows.value
  const names = new Set(pinned.value)
  const ahead = pinned.value.flatMap(n => rows.value.find(r => r.name === n) ?? [])
  return [...ahead, ...rows.value.filter(r => ALWAYS.has(r.name) && !names.has(r.name))]
})
const THEMES: Readonly<Record<Stage, string>> = {
  before: 'From papers and people',
  outside: 'Outside',
  'cover on': 'With the cover on',
  'cover off': 'With the cover off',
  'sub-panel': 'At the sub-panel',
  trace: 'By tracing and measuring',
  rooms: 'By eye and tester, where it is',
  'open box': 'In the opened box, power off',
}
/** What matters next stands open at the top; the rest is folded by how it is looked at. */
const sections = computed(() => {
  const shown = new Set(first.value.map(r => r.name))
  const next = { stage: 'next' as const, title: '', list: first.value, known: 0, asked: 0 }
  const themes = STAGES.map(stage => {
    const list = rows.value.filter(r => r.field.stage === stage && !shown.has(r.name))
    return {
      stage,
      title: THEMES[stage],
      list,
      known: list.filter(r => r.fact).length,
      asked: list.filter(r => r.isAsked && !r.fact).length,
    }
  }).filter(t => t.list.length > 0)
  return [next, ...themes]
})
const isOpen = (stage: Stage | 'next') => stage === 'next' || openThemes.value.has(stage)
function fold(stage: Stage | 'next') {
  if (stage === 'next') return
  const open = new Set(openThemes.value)
  if (!open.delete(stage)) open.add(stage)
  openThemes.value = open
}
function targets(field: Field) {
  if (field.type !== 'ref' && field.type !== 'refs') return []
  return refTargets(job.site, field).filter(t => t.id !== subject.id)
}
/** A room found while recording an outlet in it: added, named, and the outlet put there, in one step. */
function addRoom(field: string, name: string, use: string) {
  const id = crypto.randomUUID()
  job.record([
    { act: 'add', subject: id, kind: 'room', parent: PREMISES_ID },
    { act: 'note', subject: id, field: 'name', value: name, grade: 'seen' },
    ...(use
      ? [{ act: 'note' as const, subject: id, field: 'use', value: use, grade: 'seen' as const }]
      : []),
    { act: 'note', subject: subject.id, field, value: id, grade: 'seen' },
  ])
}
const note = (field: string, value: AnyValue, grade: Grade) =>
  job.note(subject.id, field, value, grade)
</script>

<template>
  <section class="sheet">
    <h3 v-if="title" class="small soft">{{ title }}</h3>
    <div v-for="t in sections" :key="t.stage" :class="{ theme: t.stage !== 'next' }">
      <UButton
        v-if="t.stage !== 'next'"
        color="neutral"
        variant="ghost"
        class="fold bare"
        :aria-expanded="isOpen(t.stage)"
        :data-theme="t.stage"
        @click="fold(t.stage)"
      >
        <span>{{ t.title }}</span><span class="small soft"
          ><template v-if="t.known">{{ t.known }} known</template
          ><template v-if="t.known && t.asked"> · </template
          ><template v-if="t.asked">{{ t.asked }} open</template>
          <UIcon :name="isOpen(t.stage) ? 'lucide:chevron-down' : 'lucide:chevron-right'"
        /></span>
      </UButton>
      <template v-if="isOpen(t.stage)">
        <FactRow
          v-for="r in t.list"
          :key="r.name"
          :field="r.field"
          :fact="r.fact"
          :asked="r.isAsked"
          :targets="targets(r.field)"
          :data-field="r.name"
          :at="{ subject: subject.id, kind: subject.kind, field: r.name }"
          @note="(v, g) => note(r.name, v, g)"
          @block="reason => job.block(subject.id, r.name, reason)"
          @room="(name, use) => addRoom(r.name, name, use)"
        />
      </template>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  padding-top: 0.4rem;
}
.fold {
  width: 100%;
  min-height: 48px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 1rem;
  text-align: left;
  font-weight: 600;
  border-bottom: 1px solid var(--line);
  border-radius: 0;
}
.fold > :last-child {
  font-weight: 400;
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
}
.theme :deep(.fact) {
  margin-left: 0.9rem;
}
</style>
