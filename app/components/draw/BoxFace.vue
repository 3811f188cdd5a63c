<script lang="ts">
import { roleOf, valueOf, type Site, type Subject } from '#core'
import type { Mark } from '~/composables/useMarks'

export interface BoxFaceProps {
  enclosure: Subject<'enclosure'>
  site: Site
  mark?: Mark
  selected?: boolean
}
</script>

<script setup lang="ts">
const { enclosure, site, mark = undefined, selected = false } = defineProps<BoxFaceProps>()
const emit = defineEmits<{ select: [subject: string] }>()
const isMeter = computed(() => valueOf(enclosure, 'type') === 'meter')
const role = computed(
  () =>
    ({ service: 'service disconnect', supply: 'supply side', load: 'load side' })[
      roleOf(site, enclosure).value ?? 'supply'
    ],
)
const isSettled = computed(() => roleOf(site, enclosure).value !== undefined)
const bond = computed(() =>
  enclosure.facts.bondMeans.state === 'known'
    ? `bond: ${enclosure.facts.bondMeans.value}`
    : 'bond: not seen',
)
</script>

<template>
  <svg
    viewBox="0 0 760 340"
    class="box-face"
    role="button"
    tabindex="0"
    :aria-label="`${valueOf(enclosure, 'name')}, ${mark ?? 'not judged'}`"
    @click="emit('select', enclosure.id)"
    @keydown.enter="emit('select', enclosure.id)"
  >
    <path d="M362 0 V60 M398 0 V60" stroke="#20262d" stroke-width="7" />
    <path d="M398 0 V60" stroke="#a5302b" stroke-width="7" />
    <rect
      x="250"
      y="30"
      width="260"
      height="270"
      rx="6"
      fill="var(--steel)"
      :stroke="selected ? 'var(--touch)' : 'var(--steel-edge)'"
      :stroke-width="selected ? 3 : 1.5"
      :stroke-dasharray="mark === 'undecided' ? '9 6' : undefined"
    />
    <template v-if="isMeter">
      <circle
        cx="380"
        cy="140"
        r="74"
        fill="var(--sheet)"
        stroke="var(--steel-edge)"
        stroke-width="4"
      />
      <rect x="338" y="112" width="84" height="30" rx="2" fill="var(--device)" />
      <text x="380" y="133" text-anchor="middle" font-size="17" fill="var(--device-ink)">kWh</text>
    </template>
    <template v-else>
      <rect x="330" y="84" width="100" height="110" rx="4" fill="var(--device)" />
      <rect x="368" y="104" width="24" height="46" rx="3" fill="#14181d" />
      <text
        x="380"
        y="180"
        text-anchor="middle"
        font-size="20"
        font-weight="700"
        fill="var(--device-ink)"
      >
        {{ valueOf(enclosure, 'mainAmps') ?? '?' }} A
      </text>
    </template>
    <text x="380" y="256" text-anchor="middle" font-size="16" font-weight="600" fill="var(--ink)">
      {{ isSettled ? role : 'service or not: not settled' }}
    </text>
    <text x="380" y="280" text-anchor="middle" font-size="14" fill="var(--soft)">{{ bond }}</text>
  </svg>
</template>

<style scoped>
.box-face {
  display: block;
  width: 100%;
  max-height: 56dvh;
  cursor: pointer;
}
</style>
