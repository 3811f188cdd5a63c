<script lang="ts">
export interface FigureTableProps {
  /** Heads of the columns; the first is what a row is about. */
  head: readonly string[]
  rows: readonly (readonly string[])[]
  caption?: string
  /** Columns of figures, set to the right; every column but the first where nothing is said. */
  figures?: readonly number[]
}
</script>

<script setup lang="ts">
const FIGURE = { th: 'text-right', td: 'text-right whitespace-nowrap' }
const { head, rows, caption = '', figures = undefined } = defineProps<FigureTableProps>()
const isFigure = (i: number) => (figures ? figures.includes(i) : i > 0)
const columns = computed(() =>
  head.map((header, i) => ({
    accessorKey: String(i),
    header,
    meta: { class: isFigure(i) ? FIGURE : {} },
  })),
)
const data = computed(() =>
  rows.map(r => Object.fromEntries(r.map((cell, i) => [String(i), cell]))),
)
</script>

<template>
  <UTable
    :data="data"
    :columns="columns"
    :caption="caption || undefined"
    :ui="{ th: 'px-1 py-1', td: 'px-1 py-1 whitespace-normal align-top' }"
  />
</template>
