<script lang="ts">
import type { Sweep } from '#core'

export interface SweepChartProps {
  sweep: Sweep
  /** Where the slider stands. */
  at: number
}
</script>

<script setup lang="ts">
import {
  Chart,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Line } from 'vue-chartjs'

Chart.register(Legend, LinearScale, LineElement, PointElement, Tooltip)
const { sweep, at } = defineProps<SweepChartProps>()
const colors = useChartColors()
const nearest = computed(() =>
  sweep.points.reduce((best, p) => (Math.abs(p.x - at) < Math.abs(best.x - at) ? p : best)),
)
const data = computed<ChartData<'line'>>(() => {
  const tones = [colors.value.touch, colors.value.cool]
  return {
    datasets: [
      ...sweep.series.map((s, i) => ({
        label: s.name,
        data: sweep.points.map(p => ({ x: p.x, y: p.y[i] ?? 0 })),
        borderColor: tones[i % tones.length],
        backgroundColor: tones[i % tones.length],
        pointRadius: 0,
        borderWidth: 2.5,
      })),
      {
        label: 'now',
        data: nearest.value.y.map(y => ({ x: nearest.value.x, y })),
        showLine: false,
        pointRadius: 5,
        borderColor: colors.value.ink,
        backgroundColor: colors.value.ink,
      },
    ],
  }
})
const options = computed<ChartOptions<'line'>>(() => ({
  animation: false,
  responsive: true,
  maintainAspectRatio: false,
  interaction: { mode: 'index', axis: 'x', intersect: false },
  plugins: {
    legend: {
      display: sweep.series.length > 1,
      position: 'bottom',
      labels: { color: colors.value.ink, filter: item => item.text !== 'now', boxHeight: 2 },
    },
    tooltip: {
      filter: item => item.dataset.label !== 'now',
      callbacks: {
        title: items => `${Number(items[0]?.parsed.x).toFixed(2)} (${sweep.x})`,
        afterBody: items => sweep.points[items[0]?.dataIndex ?? 0]?.says ?? '',
      },
    },
  },
  scales: {
    x: {
      type: 'linear',
      title: { display: true, text: sweep.x, color: colors.value.soft },
      ticks: { color: colors.value.soft, maxTicksLimit: 6 },
      grid: { color: colors.value.line },
    },
    y: {
      beginAtZero: true,
      title: { display: true, text: sweep.y, color: colors.value.soft },
      ticks: { color: colors.value.soft, maxTicksLimit: 5 },
      grid: { color: colors.value.line },
    },
  },
}))
const EVERY = 5
const rows = computed(() =>
  sweep.points
    .filter((_, i) => i % EVERY === 0)
    .map(p => [
      String(Math.round(p.x * 1000) / 1000),
      ...p.y.map(y => (y < 10 ? y.toFixed(1) : String(Math.round(y)))),
      ...(sweep.points.some(q => q.says) ? [p.says ?? ''] : []),
    ]),
)
const head = computed(() => [
  sweep.x,
  ...sweep.series.map(s => `${s.name}, ${s.unit}`),
  ...(sweep.points.some(q => q.says) ? ['what it does'] : []),
])
</script>

<template>
  <figure class="sweep">
    <figcaption class="b">{{ sweep.title }}</figcaption>
    <div class="canvas"><Line :data="data" :options="options" :aria-label="sweep.title" /></div>
    <p v-if="nearest.says" class="small soft">Here: {{ nearest.says }}. A band, never a line.</p>
    <details class="small">
      <summary class="touch">As a table</summary>
      <FigureTable :head="head" :rows="rows" />
    </details>
  </figure>
</template>

<style scoped>
.sweep {
  display: grid;
  gap: 0.3rem;
}
.canvas {
  height: 14rem;
  position: relative;
}
.b {
  font-weight: 600;
}
summary {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
}
</style>
