<script lang="ts">
import type { Subject, AnyValue, Fact, Field, Grade, Kind } from '#core'

export interface FactSheetProps { subject: Subject, title?: string }
</script>

<script setup lang="ts">
import { FIELDS, labelOf } from '#core'

const { subject, title = '' } = defineProps<FactSheetProps>()
const job = useJobStore()
const showsAll = ref(false)
watch(() => subject.id, () => { showsAll.value = false })
const asked = computed(() => new Set([...job.results.values()].flatMap(r => r.missing).filter(m => m.subject === subject.id).map(m => m.field)))
const rows = computed(() => Object.entries(FIELDS[subject.kind] as Record<string, Field>).map(([name, field]) => ({
  name, field, fact: (subject.facts as Record<string, Fact | undefined>)[name], isAsked: asked.value.has(name),
})))
/** Looked for first, then what is known, then the rest behind a touch. */
const first = computed(() => rows.value.filter(r => r.isAsked || r.fact))
const rest = computed(() => rows.value.filter(r => !r.isAsked && !r.fact))
function targets(field: Field) {
  if (field.type !== 'ref' && field.type !== 'refs') return []
  return field.kinds.flatMap(kind => (job.site.all[kind as Kind] as Subject[])).filter(s => s.id !== subject.id).map(s => ({ id: s.id, label: labelOf(job.site, s) })).sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
}
const note = (field: string, value: AnyValue, grade: Grade) => job.note(subject.id, field, value, grade)
</script>

<template>
  <section class="sheet">
    <h3 v-if="title" class="small soft">{{ title }}</h3>
    <FactRow v-for="r in first" :key="r.name" :field="r.field" :fact="r.fact" :asked="r.isAsked" :targets="targets(r.field)" :data-field="r.name" @note="(v, g) => note(r.name, v, g)" @block="reason => job.block(subject.id, r.name, reason)" />
    <template v-if="showsAll">
      <FactRow v-for="r in rest" :key="r.name" :field="r.field" :fact="r.fact" :targets="targets(r.field)" :data-field="r.name" @note="(v, g) => note(r.name, v, g)" @block="reason => job.block(subject.id, r.name, reason)" />
    </template>
    <button v-else-if="rest.length" type="button" class="touch more" @click="showsAll = true">{{ rest.length }} more to record</button>
  </section>
</template>

<style scoped>
.sheet { padding-top: 0.4rem; }
.more { min-height: 44px; }
</style>
