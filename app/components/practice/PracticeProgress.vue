<script setup lang="ts">
import {
  CategoryScale,
  Chart,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
  type ChartData,
  type ChartOptions,
} from 'chart.js'
import { Line } from 'vue-chartjs'

Chart.register(CategoryScale, LinearScale, LineElement, PointElement, Tooltip)
const played = usePlayed()
const colors = useChartColors()
/** A curve wants two points. */
const isCurve = computed(() => played.value.length > 1)
const data = computed<ChartData<'line'>>(() => ({
  labels: played.value.map((_, i) => String(i + 1)),
  datasets: [
    {
      label: 'score',
      data: played.value.map(p => p.score),
      borderColor: colors.value.touch,
      backgroundColor: colors.value.touch,
      borderWidth: 2.5,
    },
  ],
}))
const options = computed<ChartOptions<'line'>>(() => ({
  animation: false,
  responsive: true,
  maintainAspectRatio: false,
  plugins: {
    legend: { display: false },
    tooltip: { callbacks: { title: items => played.value[items[0]?.dataIndex ?? 0]?.what ?? '' } },
  },
  scales: {
    x: {
      title: { display: true, text: 'round', color: colors.value.soft },
      ticks: { color: colors.value.soft },
      grid: { color: colors.value.line },
    },
    y: {
      min: 0,
      max: 100,
      ticks: { color: colors.value.soft, maxTicksLimit: 5 },
      grid: { color: colors.value.line },
    },
  },
}))
const rows = computed(() =>
  [...played.value]
    .reverse()
    .slice(0, 12)
    .map(p => [
      p.what,
      new Date(p.at).toLocaleDateString('en-US'),
      `${p.found} of ${p.wanted}`,
      String(p.invented),
      String(p.score),
    ]),
)
</script>

<template>
  <section v-if="played.length" class="progress">
    <h2>Your rounds on this device</h2>
    <div v-if="isCurve" class="canvas">
      <Line :data="data" :options="options" aria-label="score of each round" />
    </div>
    <FigureTable
      :head="['House', 'Played', 'Found', 'Invented', 'Score']"
      :rows="rows"
      :figures="[2, 3, 4]"
    />
  </section>
</template>

<style scoped>
.progress {
  display: grid;
  gap: 0.5rem;
}
.canvas {
  height: 12rem;
  position: relative;
}
</style>
