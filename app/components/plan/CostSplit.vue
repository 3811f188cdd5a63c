<script lang="ts">
import type { PlainPlan } from '~/workers/plan.worker'

export interface CostSplitProps {
  plan: PlainPlan
}
</script>

<script setup lang="ts">
import { BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartOptions } from 'chart.js'
import { Bar } from 'vue-chartjs'
import { money } from '#core'

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip)
const { plan } = defineProps<CostSplitProps>()
const colors = useChartColors()
/** By stage, and what is paid once. */
const parts = computed(() => [
  ...plan.stages.map(s => ({
    name: s.title,
    cents: s.choices.reduce((n, i) => n + (plan.choices[i]?.cost.cents ?? 0), 0),
  })),
  ...plan.shared.map(s => ({ name: s.what, cents: s.cents })),
])
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
  <figure class="split">
    <figcaption class="small soft">Where the money goes</figcaption>
    <div class="canvas" :style="{ height: `${parts.length * 1.7 + 2}rem` }">
      <Bar :data="data" :options="options" aria-label="cost by stage" />
    </div>
    <details class="small">
      <summary class="touch">As a table</summary>
      <table>
        <tbody>
          <tr v-for="p in parts" :key="p.name">
            <td>{{ p.name }}</td>
            <td>{{ money(p.cents) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </figure>
</template>

<style scoped>
.split {
  display: grid;
  gap: 0.3rem;
}
.canvas {
  position: relative;
}
table {
  width: 100%;
}
td:last-child {
  text-align: right;
  white-space: nowrap;
}
summary {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
}
</style>
