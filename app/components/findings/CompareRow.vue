<script lang="ts">
import type { Comparison } from '#core'

export interface CompareRowProps {
  compare: Comparison
  tone?: string
}
</script>

<script setup lang="ts">
const { compare, tone = '' } = defineProps<CompareRowProps>()
const words = computed(() => {
  const { left, right, unit, sign, leftLabel, rightLabel } = compare
  return `${leftLabel} ${left} ${unit} ${sign} ${rightLabel} ${right} ${unit}`
})
</script>

<template>
  <p class="compare" :aria-label="words">
    <span class="num">{{ compare.left }}</span><span class="of"
      >{{ compare.unit }} {{ compare.leftLabel }}</span
    >
    <span class="sign" :class="tone">{{ compare.sign }}</span>
    <span class="num">{{ compare.right }}</span><span class="of"
      >{{ compare.unit }} {{ compare.rightLabel }}</span
    >
  </p>
</template>

<style scoped>
.compare {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 0 0.35rem;
}
.num {
  font-size: 1.9rem;
  font-weight: 700;
  line-height: 1.15;
}
.of {
  color: var(--soft);
  font-size: 0.85rem;
}
.sign {
  font-size: 1.6rem;
  font-weight: 700;
  padding: 0 0.35rem;
}
</style>
