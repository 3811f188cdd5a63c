<script lang="ts">
export interface SpokenLineProps {
  /** Id of the enclosure or room one stands at. */
  place?: string
  /** Id of the thing pointed at. */
  selected?: string
  placeholder?: string
}
export interface SpokenLineEmits {
  kept: [things: readonly string[]]
}
</script>

<script setup lang="ts">
import { fieldOf, understand, valueText, type Meaning } from '#core'

const {
  place = undefined,
  selected = undefined,
  placeholder = 'Say or type what you see',
} = defineProps<SpokenLineProps>()
const emit = defineEmits<SpokenLineEmits>()
const job = useJobStore()
const { keep: keepSaid } = useSaid()
const text = ref('')
const heard = computed(() =>
  text.value.trim() === '' ? undefined : understand(job.site, { place, selected }, text.value),
)
const canKeep = computed(() => (heard.value?.means.length ?? 0) > 0)
/** The same fact of several things is one chip. */
const chips = computed(() => {
  const groups = new Map<string, { words: string; things: number; was: string }>()
  for (const m of heard.value?.means ?? []) {
    if (m.field === 'space' || (m.kind === 'outlet' && m.field === 'room')) continue
    const words = wordsOf(m)
    const group = groups.get(words)
    if (group) group.things++
    else groups.set(words, { words, things: 1, was: m.was === undefined ? '' : String(m.was) })
  }
  return [...groups.values()]
})
function wordsOf(m: Meaning): string {
  const field = fieldOf(m.kind, m.field)
  const name = field?.label ?? m.field
  if (m.blocked !== undefined) return `${name}: not seen, ${m.blocked}`
  if (m.value === true) return name
  if (m.value === false) return `not ${name}`
  return field && m.value !== null ? `${name}: ${valueText(field, m.value, job.site.units)}` : name
}
/** Which thing is meant, where it is not plain from what is selected. */
const about = computed(() => {
  const spaces = heard.value?.means.filter(m => m.field === 'space') ?? []
  const outlets = new Set(heard.value?.means.filter(m => m.kind === 'outlet').map(m => m.thing))
  if (spaces.length > 0) return `space ${spaces.map(m => String(m.value)).join(', ')}`
  return outlets.size > 1 ? `${outlets.size} outlets` : ''
})
function save() {
  if (!heard.value || !canKeep.value) return
  const things = keepSaid(heard.value.means)
  // What could not be read stays in the line, so that nothing is lost.
  text.value = heard.value.notUnderstood.join(', ')
  emit('kept', things)
}
</script>

<template>
  <form class="spoken no-print" data-testid="spoken" @submit.prevent="save">
    <UInput
      v-model="text"
      class="w-full"
      size="xl"
      leading-icon="i-lucide-mic"
      :placeholder="placeholder"
      aria-label="say or type what you see"
      autocomplete="off"
      maxlength="2000"
    >
      <template #trailing>
        <UButton v-if="canKeep" type="submit" label="Save" size="md" />
      </template>
    </UInput>
    <p v-if="heard" class="chips" aria-live="polite">
      <b v-if="about" class="small">{{ about }}</b>
      <UBadge v-for="c in chips" :key="c.words" color="neutral" variant="soft" size="lg">
        {{ c.words }}<template v-if="c.things > 1"> × {{ c.things }}</template
        ><s v-if="c.was" class="soft">{{ c.was }}</s>
      </UBadge>
      <UBadge
        v-for="n in heard.notUnderstood"
        :key="n"
        color="warning"
        variant="outline"
        size="lg"
        icon="i-lucide-circle-help"
      >
        not understood: {{ n }}
      </UBadge>
    </p>
    <p v-for="a in heard?.asks ?? []" :key="a.text" class="ask small">
      <UIcon name="lucide:message-circle-question" /> {{ a.text }}
    </p>
  </form>
</template>

<style scoped>
.spoken {
  display: grid;
  gap: 0.45rem;
  max-width: 46rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  align-items: center;
}
.ask {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  color: var(--repair);
}
s {
  margin-left: 0.4rem;
}
</style>
