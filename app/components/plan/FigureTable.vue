<script lang="ts">
export interface FigureTableProps {
  /** Heads of the columns; the first is what a row is about. */
  head: readonly string[]
  rows: readonly (readonly string[])[]
  caption?: string
}
</script>

<script setup lang="ts">
const FIGURE = { th: 'text-right', td: 'text-right whitespace-nowrap' }
const { head, rows, caption = '' } = defineProps<FigureTableProps>()
const columns = computed(() =>
  head.map((header, i) => ({
    accessorKey: String(i),
    header,
    meta: { class: i === 0 ? {} : FIGURE },
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
    :ui="{ th: 'px-1 py-1', td: 'px-1 py-1 whitespace-normal' }"
  />
</template>
