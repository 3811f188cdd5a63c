<script lang="ts">
import {
  triedAt,
  FIELDS,
  PREMISES_ID,
  type Subject,
  type AnyValue,
  type Field,
  type Grade,
} from '#core'

export interface FactSheetProps {
  subject: Subject
  title?: string
}
</script>

<script setup lang="ts">
const { subject, title = '' } = defineProps<FactSheetProps>()
const job = useJobStore()
const showsAll = ref(false)
watch(
  () => subject.id,
  () => {
    showsAll.value = false
  },
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
const rows = computed(() =>
  Object.entries(FIELDS[subject.kind] as Record<string, Field>).map(([name, field]) => ({
    name,
    field,
    fact: triedAt(subject, name),
    isAsked: asked.value.has(name),
  })),
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
])
/** Looked for first, then what is known, then the rest behind a touch. */
const first = computed(() => rows.value.filter(r => r.isAsked || r.fact || ALWAYS.has(r.name)))
const rest = computed(() => rows.value.filter(r => !r.isAsked && !r.fact && !ALWAYS.has(r.name)))
/** One list, so that a row being filled in stays open when a judgment begins to ask for it. */
const shown = computed(() =>
  showsAll.value || rows.value.length <= 6 ? [...first.value, ...rest.value] : first.value,
)
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
    <FactRow
      v-for="r in shown"
      :key="r.name"
      :field="r.field"
      :fact="r.fact"
      :asked="r.isAsked"
      :targets="targets(r.field)"
      :data-field="r.name"
      @note="(v, g) => note(r.name, v, g)"
      @block="reason => job.block(subject.id, r.name, reason)"
      @room="(name, use) => addRoom(r.name, name, use)"
    />
    <button
      v-if="shown.length < rows.length"
      type="button"
      class="touch more"
      @click="showsAll = true"
    >
      {{ rest.length }} more to record
    </button>
  </section>
</template>

<style scoped>
.sheet {
  padding-top: 0.4rem;
}
.more {
  min-height: 44px;
}
</style>
