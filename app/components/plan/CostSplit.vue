<script lang="ts">
import type { PlainPlan } from '~/workers/plan.worker'

import type { PriceBook } from '#core'

export interface CostSplitProps {
  plan: PlainPlan
  book: PriceBook
}
</script>

<script setup lang="ts">
import { BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartOptions } from 'chart.js'
import { Bar } from 'vue-chartjs'
import { money } from '#core'

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip)
const { plan, book } = defineProps<CostSplitProps>()
const colors = useChartColors()
/** By what is paid for; the quantities are those of the plan. */
const parts = computed(() => {
  const sum = (of: (c: PlainPlan['choices'][number]['cost']) => number) =>
    plan.choices.reduce((n, c) => n + of(c.cost), 0)
  const materials = sum(c => c.materials)
  const labor = sum(c => Math.round((c.minutes * book.hourly) / 60))
  const walls = sum(c => c.wallFt * book.wallPerFt)
  const rest = sum(c => c.cents) - materials - labor - walls
  const shared = plan.shared.map(s => ({ name: s.what, cents: s.cents }))
  return [
    { name: 'Materials', cents: materials },
    { name: 'Labor', cents: labor },
    { name: 'Walls opened', cents: walls },
    { name: 'Contingency and tax', cents: rest },
    ...shared,
  ].filter(p => p.cents > 0)
})
const data = computed(() => ({
  labels: parts.value.map(p => p.name),
  datasets: [
    {
      data: parts.value.map(p => p.cents / 100),
      backgroundColor: colors.value.cool,
      maxBarThickness: 16,
    },
  ],
}))
const options = computed<ChartOptions<'bar'>>(() => ({
  indexAxis: 'y',
  animation: false,
  responsive: true,
  maintainAspectRatio: false,
  plugins: {
    legend: { display: false },
    tooltip: { callbacks: { label: item => money(Number(item.parsed.x) * 100) } },
  },
  scales: {
    x: {
      ticks: {
        color: colors.value.soft,
        maxTicksLimit: 4,
        callback: v => `$${Number(v).toLocaleString('en-US')}`,
      },
      grid: { color: colors.value.line },
    },
    y: { ticks: { color: colors.value.ink, autoSkip: false }, grid: { display: false } },
  },
}))
</script>

<template>
  <figure class="costs">
    <figcaption class="small soft">Where the money goes</figcaption>
    <div class="canvas" :style="{ height: `${parts.length * 1.7 + 2}rem` }">
      <Bar :data="data" :options="options" aria-label="cost by stage" />
    </div>
    <details class="small">
      <summary class="touch">As a table</summary>
      <FigureTable :head="['For', 'Costs']" :rows="parts.map(p => [p.name, money(p.cents)])" />
    </details>
  </figure>
</template>

<style scoped>
.costs {
  display: grid;
  gap: 0.3rem;
}
.canvas {
  position: relative;
}
summary {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
}
</style>
