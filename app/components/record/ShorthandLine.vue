<script lang="ts">
import type { Line, Meaning } from '#core'

export interface ShorthandLineProps {
  space?: number
  /** Id of the panel one stands at, and of the breaker pointed at: with them whole sentences are read too. */
  place?: string
  selected?: string
}
export interface ShorthandLineEmits {
  keep: [line: Line]
  said: [things: readonly string[]]
  leave: []
}
</script>

<script setup lang="ts">
import { fieldOf, parseLine, understand, valueText } from '#core'

const {
  space = undefined,
  place = undefined,
  selected = undefined,
} = defineProps<ShorthandLineProps>()
const emit = defineEmits<ShorthandLineEmits>()
const text = ref('')
const last = shallowRef<Line>()
const input = useTemplateRef<{ inputRef: HTMLInputElement | null }>('input')
const box = computed(() => input.value?.inputRef)
const job = useJobStore()
const { keep: keepSaid } = useSaid()
/** What begins with a word is a sentence; a line of shorthand begins with a number. */
const heard = computed(() => {
  const words = text.value.trim()
  if (place === undefined || !/^[a-z]/i.test(words)) return undefined
  // An empty space that is pointed at is the one spoken of.
  const isEmpty = space !== undefined && selected === undefined
  const say = isEmpty && !/^(space|slot|breaker)\b/i.test(words) ? `space ${space} ${words}` : words
  return understand(job.site, { place, selected }, say)
})
const parsed = computed(() => {
  if (!heard.value) return parseLine(text.value, space, last.value)
  const { means, notUnderstood, asks } = heard.value
  return {
    line: {} as Line,
    pieces: [
      ...means
        .filter(m => m.field !== 'space')
        .map(m => ({ text: m.from, meaning: inWords(m), isRead: true })),
      ...notUnderstood.map(t => ({ text: t, meaning: 'not understood', isRead: false })),
      ...asks.map(a => ({ text: a.from, meaning: a.text, isRead: false })),
    ],
  }
})
function inWords(m: Meaning): string {
  const field = fieldOf(m.kind, m.field)
  if (m.blocked !== undefined) return `${field?.label ?? m.field} not seen: ${m.blocked}`
  if (typeof m.value === 'boolean')
    return m.value ? (field?.label ?? '') : `not ${field?.label ?? ''}`
  return field && m.value !== null ? valueText(field, m.value, job.site.units) : ''
}
const isReady = computed(() => (heard.value ? heard.value.means.length > 0 : isLineReady.value))
const isLineReady = computed(
  () =>
    text.value.trim() !== '' &&
    parsed.value.pieces.every(p => p.isRead) &&
    (parsed.value.line.space !== undefined || space !== undefined),
)
const hint = computed(() =>
  text.value.trim() === ''
    ? ''
    : parsed.value.pieces.some(p => !p.isRead)
      ? 'part of it cannot be read'
      : heard.value
        ? 'Enter keeps'
        : parsed.value.line.space === undefined && space === undefined
          ? 'which space?'
          : 'Enter keeps',
)

function keep() {
  if (!isReady.value) return
  if (heard.value) {
    const { means, notUnderstood } = heard.value
    emit('said', keepSaid(means))
    // What could not be read stays in the line, so that nothing is lost.
    text.value = notUnderstood.join(', ')
    return
  }
  last.value = parsed.value.line
  emit('keep', parsed.value.line)
  text.value = ''
}
/** The line before over again: the next breaker is often the same. */
function repeat() {
  text.value = '='
  focus()
}
/** Whole breakers in one tap; each is a line anybody could have typed. */
const PRESETS = [
  ['15 A', '15 14cu nm-b'],
  ['20 A', '20 12cu nm-b'],
  ['2-pole 30', '2p 30 10cu nm-b'],
  ['2-pole 50', '2p 50 6cu nm-b'],
  ['spare', '15 spare'],
] as const
function preset(line: string) {
  text.value = line
  keep()
}
function focus() {
  box.value?.focus()
}
defineExpose({ focus })
</script>

<template>
  <form class="line no-print" @submit.prevent="keep">
    <div class="box">
      <label class="small soft" for="breaker-line">{{
        space === undefined ? 'breaker' : `space ${space}`
      }}</label>
      <UInput
        id="breaker-line"
        ref="input"
        v-model="text"
        variant="none"
        class="grow"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        maxlength="300"
        placeholder="7 20 14cu nm porch lights, or say it"
        @keydown.esc="text === '' ? (box?.blur(), emit('leave')) : (text = '')"
        @keydown.up.prevent="repeat"
      />
      <span class="small" :class="isReady ? 'soft' : 'why'">{{ hint }}</span>
      <UButton
        v-if="last && !text"
        color="primary"
        variant="link"
        class="touch small"
        @click="repeat"
      >
        same again
      </UButton>
      <UButton v-if="isReady" color="neutral" variant="outline" type="submit" class="plain keep"
        >Save</UButton
      >
    </div>
    <div
      v-if="space !== undefined && !text"
      class="presets"
      role="group"
      aria-label="whole breakers in one tap"
    >
      <UButton
        v-for="[name, line] in PRESETS"
        :key="name"
        color="neutral"
        variant="outline"
        class="chip"
        :title="line"
        @click="preset(line)"
      >
        <b>{{ name }}</b><span class="small soft">{{
          line
            .replace(/^(2p )?\d+ /, '')
            .replace('cu', ' Cu')
            .replace('nm-b', 'NM-B')
            .replace('spare', 'nothing on it')
        }}</span>
      </UButton>
    </div>
    <p v-else class="pieces" aria-live="polite">
      <span v-for="(p, i) in parsed.pieces" :key="i" class="piece" :class="{ bad: !p.isRead }">{{
        p.isRead ? p.meaning : `${p.text}: ${p.meaning}`
      }}</span>
    </p>
  </form>
</template>

<style scoped>
.line {
  margin-top: 0.7rem;
  position: sticky;
  bottom: 0;
  z-index: 5;
  background: var(--paper);
  padding: 0.35rem 0 0.6rem;
}
.box {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  border: 2px solid var(--touch);
  border-radius: 5px;
  background: var(--sheet);
  padding: 0 0.4rem 0 0.9rem;
  min-height: 48px;
}
.box label {
  white-space: nowrap;
}
.grow {
  flex: 1;
  min-width: 0;
}
.box :deep(input) {
  padding: 0;
  font-family: var(--font-mono);
  font-size: 1.05rem;
  min-height: 46px;
}
.box :deep(input)::placeholder {
  color: var(--faint);
  opacity: 0.75;
}
.box .small {
  white-space: nowrap;
}
.box .touch {
  min-height: 40px;
  padding: 0 0.4rem;
}
.keep {
  min-height: 40px;
}
.why {
  color: var(--repair);
}
.pieces {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.35rem;
  margin-top: 0.4rem;
  min-height: 1.6rem;
}
.presets {
  display: flex;
  gap: 0.4rem;
  margin-top: 0.5rem;
  overflow-x: auto;
  scrollbar-width: none;
}
.presets .chip {
  flex: none;
  flex-direction: column;
  gap: 0;
  min-height: 50px;
  line-height: 1.15;
}
.piece {
  background: var(--cool-tint);
  color: var(--cool);
  border-radius: 3px;
  padding: 0.1rem 0.55rem;
  font-size: 0.88rem;
  font-weight: 600;
}
.piece.bad {
  background: none;
  outline: 1.5px dashed var(--repair);
  color: var(--repair);
}
@media (max-width: 900px) {
  .box .small:not(.touch) {
    display: none;
  }
  .box input {
    font-size: 1rem;
  }
}
</style>
