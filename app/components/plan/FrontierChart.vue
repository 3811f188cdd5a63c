<script lang="ts">
import type { FrontierPoint } from '#core'

export interface FrontierChartProps {
  points: readonly FrontierPoint[]
  /** Danger of all that is to be fixed. */
  all: number
  /** Cents there are; the mark on the curve. */
  budget: number | undefined
}
</script>

<script setup lang="ts">
import {
  Chart,
  Filler,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Line } from 'vue-chartjs'
import { atBudget, money } from '#core'

Chart.register(Filler, LinearScale, LineElement, PointElement, Tooltip)
const { points, all, budget } = defineProps<FrontierChartProps>()
const colors = useChartColors()
const share = (danger: number) => (all === 0 ? 0 : Math.floor((100 * danger) / all))
/** More than these few hundred points are not told apart on a screen. */
const MOST = 300
const drawn = computed(() => {
  const every = Math.max(1, Math.ceil(points.length / MOST))
  return points.filter((_, i) => i % every === 0 || i === points.length - 1)
})
const here = computed(() => {
  if (budget === undefined) return points.at(-1)
  return atBudget(points, budget)
})
const data = computed<ChartData<'line'>>(() => ({
  datasets: [
    {
      label: 'danger taken away',
      data: drawn.value.map(p => ({ x: p.cents / 100, y: share(p.danger) })),
      stepped: 'before',
      borderColor: colors.value.touch,
      backgroundColor: colors.value.tint,
      fill: true,
      pointRadius: 0,
      borderWidth: 2,
    },
    {
      label: 'this plan',
      data: here.value ? [{ x: here.value.cents / 100, y: share(here.value.danger) }] : [],
      pointRadius: 6,
      borderColor: colors.value.ink,
      backgroundColor: colors.value.ink,
      showLine: false,
    },
  ],
}))
const options = computed<ChartOptions<'line'>>(() => ({
  animation: false,
  responsive: true,
  maintainAspectRatio: false,
  interaction: { mode: 'nearest', axis: 'x', intersect: false },
  plugins: {
    legend: { display: false },
    tooltip: {
      callbacks: {
        title: () => '',
        label: item =>
          `${money(Number(item.parsed.x) * 100)}: ${item.parsed.y} % of the danger gone`,
      },
    },
  },
  scales: {
    x: {
      type: 'linear',
      beginAtZero: true,
      ticks: {
        color: colors.value.soft,
        callback: v => `$${Number(v).toLocaleString('en-US')}`,
        maxTicksLimit: 5,
      },
      grid: { color: colors.value.line },
    },
    y: {
      beginAtZero: true,
      max: 100,
      ticks: { color: colors.value.soft, callback: v => `${v} %`, maxTicksLimit: 5 },
      grid: { color: colors.value.line },
    },
  },
}))
/** The table behind the curve: a few telling steps. */
const steps = computed(() => {
  const wanted = [25, 50, 75, 90, 100]
  return wanted.flatMap(w => {
    const point = points.find(p => share(p.danger) >= w)
    return point ? { share: share(point.danger), cents: point.cents } : []
  })
})
</script>

<template>
  <figure class="frontier">
    <figcaption class="small soft">What each dollar takes away</figcaption>
    <div class="canvas">
      <Line :data="data" :options="options" aria-label="cost against danger taken away" />
    </div>
    <details class="small">
      <summary class="touch">As a table</summary>
      <FigureTable
        :head="['Danger gone', 'Costs']"
        :rows="steps.map(s => [`${s.share} %`, money(s.cents)])"
      />
    </details>
  </figure>
</template>

<style scoped>
.frontier {
  display: grid;
  gap: 0.3rem;
}
.canvas {
  height: 11rem;
  position: relative;
}
summary {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
}
</style>
