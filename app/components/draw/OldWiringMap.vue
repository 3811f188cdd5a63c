<script lang="ts">
import type { Cut, Fate, OldWiring, TracedConductor } from '#core'

export interface OldWiringMapProps {
  wiring: OldWiring
  /** Names of the outlets it feeds. */
  names: ReadonlyMap<string, string>
  selected: string | undefined
  cut: Cut | undefined
}
export interface OldWiringMapEmits {
  pick: [conductor: string]
}
</script>

<script setup lang="ts">
import { oldWiringLayout } from '#core'

const { wiring, names, selected, cut } = defineProps<OldWiringMapProps>()
const emit = defineEmits<OldWiringMapEmits>()
const layout = computed(() => oldWiringLayout(wiring))
const dying = computed(() => new Set(cut?.conductors))
const fates = computed(() => new Map(cut?.outlets.map(o => [o.id, o.fate])))
const FATE_COLOR: Readonly<Record<Fate, string>> = {
  dead: 'var(--soft)',
  'live without a return': 'var(--now)',
  'still live, by another conductor': 'var(--now)',
  'one of the two, nobody measured which': 'var(--repair)',
}
const FATE_WORDS: Readonly<Record<Fate, string>> = {
  dead: 'dead',
  'live without a return': 'stays live',
  'still live, by another conductor': 'stays live',
  'one of the two, nobody measured which': 'dead or live',
}
const colorOf = (c: TracedConductor) =>
  c.identity === 'neutral'
    ? 'var(--steel-edge)'
    : c.identity === undefined
      ? 'var(--repair)'
      : 'var(--ink)'
const saysOf = (c: TracedConductor) =>
  c.identity ?? (c.takenFor ? `${c.takenFor}? not measured` : 'not measured')
const isBoxed = (c: TracedConductor) => c.joint?.includes('in a box') === true
const isBare = (c: TracedConductor) => c.joint?.includes('outside') === true
const cutText = (text: string, n: number) => (text.length > n ? `${text.slice(0, n - 1)}…` : text)
/** Outlets are joined to the conductors that end on them. */
const ends = computed(() =>
  layout.value.conductors.flatMap(p =>
    p.conductor.feeds.flatMap(id => {
      const outlet = layout.value.outlets.find(o => o.id === id)
      if (!outlet) return []
      const d =
        `M${p.endX} ${p.y} C${p.endX + 30} ${p.y} ` +
        `${outlet.x - 30} ${outlet.y} ${outlet.x} ${outlet.y}`
      return [{ key: p.conductor.id + id, p, d }]
    }),
  ),
)
</script>

<template>
  <div class="scroll">
    <svg
      :viewBox="`0 0 ${layout.width} ${layout.height}`"
      :style="{ width: `clamp(${Math.round(layout.width * 0.7)}px, 100%, ${layout.width}px)` }"
      role="group"
      aria-label="single conductors"
    >
      <path
        v-for="e in ends"
        :key="e.key"
        :d="e.d"
        fill="none"
        :stroke="colorOf(e.p.conductor)"
        stroke-width="2.4"
        :opacity="dying.has(e.p.conductor.id) ? 0.35 : 1"
      />
      <g
        v-for="p in layout.conductors"
        :key="p.conductor.id"
        class="run"
        role="button"
        tabindex="0"
        :aria-pressed="selected === p.conductor.id"
        :aria-label="`${p.conductor.label}, ${saysOf(p.conductor)}`"
        :data-conductor="p.conductor.id"
        @click="emit('pick', p.conductor.id)"
        @keydown.enter.prevent="emit('pick', p.conductor.id)"
        @keydown.space.prevent="emit('pick', p.conductor.id)"
      >
        <path :d="p.d" stroke="transparent" stroke-width="22" fill="none" />
        <path
          :d="p.d"
          fill="none"
          :stroke="colorOf(p.conductor)"
          :stroke-width="selected === p.conductor.id ? 6 : 3.4"
          :stroke-dasharray="p.conductor.identity === undefined ? '9 5' : undefined"
          :opacity="dying.has(p.conductor.id) && selected !== p.conductor.id ? 0.35 : 1"
        />
        <rect
          v-if="p.conductor.from && isBoxed(p.conductor)"
          :x="p.tapX - 6"
          :y="p.tapY - 6"
          width="12"
          height="12"
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="2"
        />
        <circle
          v-else-if="p.conductor.from"
          :cx="p.tapX"
          :cy="p.tapY"
          r="6"
          :fill="isBare(p.conductor) ? 'var(--now)' : colorOf(p.conductor)"
          stroke="var(--sheet)"
          stroke-width="1.5"
        />
        <text v-else :x="p.tapX - 10" :y="p.y + 4" text-anchor="end" class="t soft-ink">
          {{ p.conductor.start ? 'from a terminal' : 'not followed' }}
        </text>
        <text :x="p.endX - 8" :y="p.y - 8" text-anchor="end" class="t b">
          {{ cutText(p.conductor.label, 22) }}
        </text>
        <text
          :x="p.endX - 8"
          :y="p.y + 17"
          text-anchor="end"
          class="t"
          :fill="p.conductor.identity === undefined ? 'var(--repair)' : 'var(--soft)'"
        >
          {{ cutText([saysOf(p.conductor), ...p.conductor.weak].join(', '), 34) }}
        </text>
      </g>
      <g v-for="o in layout.outlets" :key="o.id">
        <rect
          :x="o.x"
          :y="o.y - 15"
          :width="o.w"
          height="30"
          rx="4"
          fill="var(--sheet)"
          :stroke="FATE_COLOR[fates.get(o.id) ?? 'dead']"
          :stroke-width="fates.has(o.id) ? 3 : 1.3"
        />
        <text :x="o.x + 9" :y="o.y + (fates.has(o.id) ? -1 : 4)" class="t b">
          {{ cutText(names.get(o.id) ?? o.id, 19) }}
        </text>
        <text
          v-if="fates.get(o.id)"
          :x="o.x + 9"
          :y="o.y + 11"
          class="t"
          :fill="FATE_COLOR[fates.get(o.id)!]"
        >
          {{ FATE_WORDS[fates.get(o.id)!] }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  padding-bottom: 0.6rem;
}
svg {
  display: block;
}
.run {
  cursor: pointer;
}
.run:focus {
  outline: none;
}
.run:focus-visible > path:nth-child(2) {
  stroke: var(--touch);
}
.t {
  font-size: 12.5px;
}
.b {
  font-weight: 600;
  fill: var(--ink);
}
.soft-ink {
  fill: var(--soft);
}
</style>
