<script lang="ts">
export interface KeyPadProps {
  /** What is being read, said above the number. */
  label: string
  unit: string
}
</script>

<script setup lang="ts">
const { label, unit } = defineProps<KeyPadProps>()
/** The number read; undefined while nothing is. */
const value = defineModel<number | undefined>({ required: true })
/** As it stands on the display: "1." is on the way to 1.5, and is no other number than 1 yet. */
const text = ref('')
const numberOf = (t: string): number | undefined => {
  const trimmed = t.trim().replace(',', '.')
  const number = Number(trimmed)
  return trimmed === '' || trimmed === '.' || Number.isNaN(number) ? undefined : number
}
watch(
  [value, () => label],
  () => {
    if (numberOf(text.value) !== value.value) text.value = value.value?.toString() ?? ''
  },
  { immediate: true },
)
watch(text, t => {
  value.value = numberOf(t)
})
const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const
/** A meter shows five digits at most. */
const LONGEST = 7
function press(key: (typeof KEYS)[number]) {
  if (key === '⌫') text.value = text.value.slice(0, -1)
  else if (key === '.' && text.value.includes('.')) return
  else if (text.value.length < LONGEST) text.value += key
}
</script>

<template>
  <div class="pad" data-testid="keypad">
    <p class="shown">
      <span class="small soft">{{ label }}</span>
      <UInput
        v-model="text"
        variant="none"
        inputmode="decimal"
        placeholder="–"
        :maxlength="LONGEST"
        :aria-label="label"
        class="number"
      /><span class="soft">{{ unit }}</span>
    </p>
    <div class="keys">
      <UButton
        v-for="k in KEYS"
        :key="k"
        color="neutral"
        variant="outline"
        size="xl"
        class="key"
        :aria-label="k === '⌫' ? 'take the last digit back' : k"
        @click="press(k)"
        >{{ k }}</UButton
      >
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  gap: 0.5rem;
  max-width: 17rem;
}
.shown {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: baseline;
  gap: 0 0.4rem;
  border-bottom: 2px solid var(--touch);
}
.shown > .small {
  grid-column: 1 / -1;
}
.number :deep(input) {
  font-size: 1.9rem;
  font-weight: 600;
  padding: 0;
}
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.35rem;
}
.key {
  min-height: 48px;
  justify-content: center;
  font-size: 1.15rem;
}
</style>
