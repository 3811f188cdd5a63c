<script lang="ts">
import type { Severity } from '#core'

export interface SeverityMarkProps {
  /** A severity of a fault, or the state of a judgement without one. */
  kind: Severity | 'undecided' | 'clear'
  size?: number
}
</script>

<script setup lang="ts">
const { kind, size = 16 } = defineProps<SeverityMarkProps>()
const tone = computed(
  () =>
    ({
      'make safe now': 'sev-now',
      repair: 'sev-repair',
      'upgrade at next work': 'sev-upgrade',
      'for the record': 'sev-record',
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
    :aria-label="kind"
    class="shrink-0"
  >
    <g v-if="kind === 'make safe now'">
      <rect x="1" y="1" width="14" height="14" fill="currentColor" />
      <path d="M0 7 L6 1 M0 13 L6 7 M1 18 L6 13" stroke="var(--sheet)" stroke-width="1.8" />
    </g>
    <rect v-else-if="kind === 'repair'" x="1" y="1" width="14" height="14" fill="currentColor" />
    <rect
      v-else-if="kind === 'upgrade at next work'"
      x="2"
      y="2"
      width="12"
      height="12"
      fill="none"
      stroke="currentColor"
      stroke-width="2.4"
    />
    <circle v-else-if="kind === 'for the record'" cx="8" cy="8" r="3.6" fill="currentColor" />
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
