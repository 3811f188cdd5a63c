<script lang="ts">
import type { Severity } from '#core'

export interface SeverityMarkProps {
  /** A severity of a fault, or the state of a judgment without one. */
  kind: Severity | 'undecided' | 'clear'
  size?: number
  /** Drawn open: it leans to this, and is not proven. */
  open?: boolean
}
</script>

<script setup lang="ts">
const { kind, size = 16, open = false } = defineProps<SeverityMarkProps>()
const tone = computed(
  () =>
    ({
      'make safe now': 'sev-now',
      repair: 'sev-repair',
      upgrade: 'sev-upgrade',
      note: 'sev-record',
      undecided: 'sev-undecided',
      clear: 'faint',
    })[kind],
)
</script>

<template>
  <svg
    :width="size"
    :height="size"
    viewBox="0 0 16 16"
    :class="tone"
    role="img"
    :aria-label="open ? `${kind}, not proven` : kind"
    class="shrink-0"
  >
    <rect
      v-if="open"
      x="2"
      y="2"
      width="12"
      height="12"
      fill="none"
      stroke="currentColor"
      stroke-width="2.4"
      stroke-dasharray="3.4 2.2"
    />
    <g v-else-if="kind === 'make safe now'">
      <rect x="1" y="1" width="14" height="14" fill="currentColor" />
      <path d="M0 7 L6 1 M0 13 L6 7 M1 18 L6 13" stroke="var(--sheet)" stroke-width="1.8" />
    </g>
    <rect v-else-if="kind === 'repair'" x="1" y="1" width="14" height="14" fill="currentColor" />
    <rect
      v-else-if="kind === 'upgrade'"
      x="2"
      y="2"
      width="12"
      height="12"
      fill="none"
      stroke="currentColor"
      stroke-width="2.4"
    />
    <circle v-else-if="kind === 'note'" cx="8" cy="8" r="3.6" fill="currentColor" />
    <path
      v-else-if="kind === 'undecided'"
      d="M9 2 H14 V14 H2 V2 H5"
      fill="none"
      stroke="currentColor"
      stroke-width="1.7"
      stroke-dasharray="3 1.8"
    />
    <path v-else d="M4 8.5 H12" stroke="currentColor" stroke-width="1.4" />
  </svg>
</template>
