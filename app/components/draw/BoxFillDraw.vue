<script lang="ts">
export interface BoxFillDrawProps {
  lines: readonly { what: string; count: number; each: number; volume: number }[]
  total: number
  volume: number
  fits: boolean
}
</script>

<script setup lang="ts">
const { lines, total, volume, fits } = defineProps<BoxFillDrawProps>()
const H = 250
/** The box is drawn as tall as its volume; what is in it stands in it, and over it where there is too much. */
const scale = computed(() => H / Math.max(total, volume, 1))
const top = computed(() => H - volume * scale.value)
const TONES = ['var(--metal-cu)', '#d69b6a', '#8d9a86', 'var(--device)', '#a9a290', '#6fa8ae']
const stacked = computed(() => {
  let y = H
  return lines.map((l, i) => {
    const h = l.volume * scale.value
    y -= h
    return { ...l, y, h, fill: TONES[i % TONES.length]! }
  })
})
</script>

<template>
  <svg
    :viewBox="`0 -14 530 ${H + 30}`"
    class="boxfill"
    role="img"
    :aria-label="`${total} of ${volume} cubic inches`"
  >
    <g v-for="l in stacked" :key="l.what">
      <rect x="26" :y="l.y + 1" width="150" :height="Math.max(0, l.h - 2)" :fill="l.fill" />
      <text x="206" :y="l.y + l.h / 2 + 5" class="t">
        {{ l.what }}: {{ l.count }} × {{ l.each }} = {{ l.volume }}
      </text>
      <path :d="`M178 ${l.y + l.h / 2} h22`" stroke="var(--line)" />
    </g>
    <path
      :d="`M20 ${top} V${H + 3} H182 V${top}`"
      fill="none"
      :stroke="fits ? 'var(--ink)' : 'var(--now)'"
      stroke-width="6"
    />
    <path
      v-if="!fits"
      :d="`M8 ${top} H194`"
      stroke="var(--now)"
      stroke-width="2"
      stroke-dasharray="6 4"
    />
  </svg>
</template>

<style scoped>
.boxfill {
  width: 100%;
  max-width: 34rem;
}
.t {
  font-size: 14px;
  fill: var(--ink);
}
</style>
