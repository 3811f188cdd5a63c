<script lang="ts">
import type { BondMap, MapTie } from '#core'

export interface BondMapProps {
  map: BondMap
  compact?: boolean
}
export interface BondMapEmits {
  pick: [subject: string]
}
</script>

<script setup lang="ts">
import { bondLayout, isToTheSide, TIE_DASH } from '#core'

const { map, compact = false } = defineProps<BondMapProps>()
const emit = defineEmits<BondMapEmits>()

const layout = computed(() => bondLayout(map))
const placed = computed(() => layout.value.nodes)
const lines = computed(() => layout.value.ties)
const width = computed(() => layout.value.width)
const height = computed(() => layout.value.height)

const TONE: Record<MapTie['state'], string> = {
  sound: 'var(--ink)',
  missing: 'var(--now)',
  second: 'var(--now)',
  unsound: 'var(--repair)',
  'lawful old': 'var(--upgrade)',
  'not seen': 'var(--soft)',
}
const DASH = TIE_DASH
const bonds = computed(
  () => new Map(map.ties.filter(t => t.kind === 'neutral bond').map(t => [t.from, t])),
)
const tieOf = (id: string) => map.ties.find(t => t.from === id && isToTheSide(t))
const cut = (text: string, n: number) => (text.length > n ? `${text.slice(0, n - 1)}…` : text)
const frame = useTemplateRef<HTMLElement>('frame')
/** A map wider than the screen opens at its root: everything hangs on what the utility feeds. */
onMounted(() => {
  const root = [...placed.value].sort((a, b) => a.y - b.y)[0]
  const box = frame.value
  const scale = (box?.scrollWidth ?? 0) / width.value
  if (root && box) box.scrollLeft = (root.x + root.w / 2) * scale - box.clientWidth / 2
})
const pick = (subject: string | undefined) => {
  if (subject) emit('pick', subject)
}
</script>

<template>
  <div ref="frame" class="scroll" :class="{ compact }">
    <svg
      :viewBox="`0 0 ${width} ${height}`"
      :style="{
        width: compact
          ? `${Math.round(width * 0.74)}px`
          : `clamp(${Math.round(width * 0.85)}px, 100%, ${width}px)`,
      }"
      role="group"
      aria-label="bond map"
    >
      <g
        v-for="l in lines"
        :key="l.tie.id"
        class="tie"
        role="button"
        tabindex="0"
        :aria-label="`${l.tie.kind}: ${l.tie.text}, ${l.tie.state}`"
        @click="pick(l.tie.subject)"
        @keydown.enter="pick(l.tie.subject)"
      >
        <path :d="l.d" stroke="transparent" stroke-width="16" fill="none" />
        <path
          :d="l.d"
          fill="none"
          :stroke="
            l.tie.state === 'sound' && (l.tie.kind === 'ground' || isToTheSide(l.tie))
              ? 'var(--metal-cu)'
              : TONE[l.tie.state]
          "
          :stroke-width="l.tie.kind === 'supply' || l.tie.kind === 'feeder' ? 4.5 : 3"
          :stroke-dasharray="DASH[l.tie.state]"
        />
        <text
          v-if="!isToTheSide(l.tie)"
          :x="l.tx"
          :y="l.ty"
          :text-anchor="l.anchor"
          class="t"
          :fill="TONE[l.tie.state]"
        >
          {{ cut(l.tie.text, 28) }}
        </text>
      </g>
      <g
        v-for="p in placed"
        :key="p.node.id"
        class="node"
        role="button"
        tabindex="0"
        :aria-label="`${p.node.label}, ${p.node.what}`"
        @click="pick(p.node.subject)"
        @keydown.enter="pick(p.node.subject)"
      >
        <template v-if="p.node.kind === 'utility'">
          <rect
            :x="p.x"
            :y="p.y"
            :width="p.w"
            :height="p.h"
            rx="4"
            fill="var(--tint)"
            stroke="var(--line)"
          />
          <text :x="p.x + 14" :y="p.y + 30" class="n">Utility</text>
          <text :x="p.x + 14" :y="p.y + 52" class="t" fill="var(--soft)">{{ p.node.what }}</text>
        </template>
        <template v-else-if="p.node.kind === 'enclosure'">
          <rect
            :x="p.x"
            :y="p.y"
            :width="p.w"
            :height="p.h"
            rx="4"
            fill="var(--sheet)"
            :stroke="p.node.what === 'service disconnect' ? 'var(--ink)' : 'var(--steel-edge)'"
            :stroke-width="p.node.what === 'service disconnect' ? 2.6 : 1.2"
            :stroke-dasharray="p.node.what.includes('not settled') ? '7 5' : undefined"
          />
          <text :x="p.x + 12" :y="p.y + 21" class="n">{{ cut(p.node.label, 24) }}</text>
          <text :x="p.x + 12" :y="p.y + 38" class="t" fill="var(--soft)">
            {{ cut([p.node.what, p.node.building].filter(Boolean).join(' · '), 34) }}
          </text>
          <g v-if="bonds.get(p.node.id)" :fill="TONE[bonds.get(p.node.id)!.state]">
            <path :d="`M${p.x + 14} ${p.y + 56} h14`" stroke="#fdfcf8" stroke-width="5" />
            <path :d="`M${p.x + 14} ${p.y + 56} h14`" stroke="var(--soft)" stroke-width="1" />
            <path
              :d="`M${p.x + 30} ${p.y + 56} h10`"
              :stroke="TONE[bonds.get(p.node.id)!.state]"
              stroke-width="3"
              :stroke-dasharray="DASH[bonds.get(p.node.id)!.state] ? '3 3' : undefined"
              :opacity="bonds.get(p.node.id)!.text === 'kept apart' ? 0 : 1"
            />
            <path
              :d="`M${p.x + 42} ${p.y + 48} v16 M${p.x + 46} ${p.y + 51} v10 M${p.x + 50} ${p.y + 54} v4`"
              stroke="var(--ink)"
              stroke-width="2"
            />
            <text :x="p.x + 60" :y="p.y + 61" class="t b">
              {{ cut(bonds.get(p.node.id)!.text, 22) }}
            </text>
          </g>
        </template>
        <template v-else>
          <rect
            :x="p.x"
            :y="p.y"
            :width="p.w"
            :height="p.h"
            :rx="p.node.kind === 'piping' ? 20 : 4"
            fill="var(--sheet)"
            :stroke="TONE[tieOf(p.node.id)?.state ?? 'not seen']"
            :stroke-width="tieOf(p.node.id)?.state === 'sound' ? 1.2 : 2"
            :stroke-dasharray="DASH[tieOf(p.node.id)?.state ?? 'not seen']"
          />
          <text :x="p.x + 14" :y="p.y + 17" class="t b" fill="var(--ink)">
            {{ cut(p.node.label, 23) }}
          </text>
          <text
            :x="p.x + 14"
            :y="p.y + 32"
            class="t"
            :fill="TONE[tieOf(p.node.id)?.state ?? 'not seen']"
          >
            {{ cut(tieOf(p.node.id)?.text || p.node.what, 25) }}
          </text>
        </template>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  padding: 0.4rem 0 0.8rem;
}
svg {
  display: block;
  max-height: none;
}
.node,
.tie {
  cursor: pointer;
}
.node:focus,
.tie:focus {
  outline: none;
}
.node:focus-visible > rect {
  stroke: var(--touch);
  stroke-width: 3;
}
.node:hover .n {
  fill: var(--touch);
}
.n {
  font-size: 15px;
  font-weight: 700;
  fill: var(--ink);
}
.t {
  font-size: 12.5px;
}
.b {
  font-weight: 600;
}
</style>
