<script lang="ts">
import type { BondMap, MapNode, MapTie } from '#core'

export interface BondMapProps {
  map: BondMap
  compact?: boolean
}
export interface BondMapEmits {
  pick: [subject: string]
}
</script>

<script setup lang="ts">
const { map, compact = false } = defineProps<BondMapProps>()
const emit = defineEmits<BondMapEmits>()

const W = 208
const H = 74
const GX = 40
const GY = 96
const LEAF = 178
/** Room for the words left of the first line down. */
const LEFT = 96
interface Placed {
  node: MapNode
  x: number
  y: number
  w: number
  h: number
}

/** A tree from the utility down: enclosures in rows by depth, electrodes and pipes hung below what they land on. */
const placed = computed(() => {
  const children = new Map<string, MapNode[]>()
  const up = new Map<string, string>()
  for (const t of map.ties)
    if ((t.kind === 'supply' || t.kind === 'feeder') && t.from !== t.to) up.set(t.to, t.from)
  for (const n of map.nodes) {
    const tie = map.ties.find(
      t =>
        t.from === n.id && (t.kind === 'grounding electrode conductor' || t.kind === 'pipe bond'),
    )
    const parent = up.get(n.id) ?? tie?.to ?? (n.id === 'utility' ? undefined : 'utility')
    if (parent) children.set(parent, [...(children.get(parent) ?? []), n])
  }
  const list: Placed[] = []
  const isLeaf = (n: MapNode) => n.kind !== 'enclosure' && n.kind !== 'utility'
  /** First free place of each row. */
  const free: number[] = []
  /** Most leaves in a row: a row with many stands taller. */
  const most: number[] = []
  const count = (n: MapNode, depth: number) => {
    const all = children.get(n.id) ?? []
    most[depth] = Math.max(most[depth] ?? 0, all.filter(isLeaf).length)
    for (const c of all) if (!isLeaf(c)) count(c, depth + 1)
  }
  const top = (depth: number): number =>
    depth === 0 ? 20 : top(depth - 1) + Math.max(H, (most[depth - 1] ?? 0) * 46 - 24) + GY
  const place = (n: MapNode, depth: number): number => {
    const all = children.get(n.id) ?? []
    const leaves = all.filter(isLeaf)
    const below = all.filter(c => !isLeaf(c)).map(c => place(c, depth + 1))
    const middle = below.length === 0 ? 0 : (below[0]! + below.at(-1)!) / 2
    const x = Math.max(free[depth] ?? LEFT, middle)
    const y = top(depth)
    list.push({ node: n, x, y, w: W, h: H })
    // Electrodes and pipes stand beside their enclosure, one under another, so that a row stays readable.
    leaves.forEach((leaf, i) =>
      list.push({
        node: leaf,
        x: x + W + GX,
        y: y + i * 46 - (leaves.length > 2 ? 20 : 0),
        w: LEAF,
        h: 40,
      }),
    )
    free[depth] = x + W + GX + (leaves.length > 0 ? LEAF + GX : 0)
    return x
  }
  const root = map.nodes.find(n => n.id === 'utility')
  if (root) {
    count(root, 0)
    place(root, 0)
  }
  return list
})
const at = computed(() => new Map(placed.value.map(p => [p.node.id, p])))
const width = computed(() => Math.max(320, ...placed.value.map(p => p.x + p.w)) + 20)
const height = computed(() => Math.max(160, ...placed.value.map(p => p.y + p.h)) + 24)

const TONE: Record<MapTie['state'], string> = {
  sound: 'var(--ink)',
  missing: 'var(--now)',
  second: 'var(--now)',
  unsound: 'var(--repair)',
  'lawful old': 'var(--upgrade)',
  'not seen': 'var(--soft)',
}
const DASH: Partial<Record<MapTie['state'], string>> = {
  missing: '2 7',
  'not seen': '7 6',
  'lawful old': '12 4',
}
interface Line {
  tie: MapTie
  d: string
  tx: number
  ty: number
  anchor: 'start' | 'middle' | 'end'
}
const lines = computed(() =>
  map.ties.flatMap((tie): Line[] => {
    const a = at.value.get(tie.from)
    const b = at.value.get(tie.to)
    if (!a || !b || tie.kind === 'neutral bond') return []
    if (tie.kind === 'grounding electrode conductor' || tie.kind === 'pipe bond') {
      const [leaf, host] = [a, b]
      const y = leaf.y + leaf.h / 2
      const mid = leaf.x - GX / 2
      const hy = host.y + H - 12
      return [
        {
          tie,
          d: `M${leaf.x} ${y} H${mid} V${hy} H${host.x + host.w}`,
          tx: leaf.x + leaf.w / 2,
          ty: y + 4,
          anchor: 'middle',
        },
      ]
    }
    // The grounding conductor of a feeder runs beside it.
    const off = tie.kind === 'ground' ? 9 : 0
    const x1 = a.x + a.w / 2 + off
    const x2 = b.x + b.w / 2 + off
    const y1 = a.y + a.h
    const mid = b.y - GY / 2 + (tie.kind === 'ground' ? 10 : 0)
    return [
      {
        tie,
        d: `M${x1} ${y1} V${mid} H${x2} V${b.y}`,
        tx: x2 + (tie.kind === 'ground' ? 8 : -8),
        ty: b.y - 12,
        anchor: tie.kind === 'ground' ? 'start' : 'end',
      },
    ]
  }),
)
const bonds = computed(
  () => new Map(map.ties.filter(t => t.kind === 'neutral bond').map(t => [t.from, t])),
)
const tieOf = (id: string) =>
  map.ties.find(
    t => t.from === id && (t.kind === 'grounding electrode conductor' || t.kind === 'pipe bond'),
  )
const cut = (text: string, n: number) => (text.length > n ? `${text.slice(0, n - 1)}…` : text)
const pick = (subject: string | undefined) => {
  if (subject) emit('pick', subject)
}
</script>

<template>
  <div class="scroll" :class="{ compact }">
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
            l.tie.kind === 'ground' && l.tie.state === 'sound'
              ? 'var(--metal-cu)'
              : l.tie.kind === 'grounding electrode conductor' && l.tie.state === 'sound'
                ? 'var(--metal-cu)'
                : l.tie.kind === 'pipe bond' && l.tie.state === 'sound'
                  ? 'var(--metal-cu)'
                  : TONE[l.tie.state]
          "
          :stroke-width="l.tie.kind === 'supply' || l.tie.kind === 'feeder' ? 4.5 : 3"
          :stroke-dasharray="DASH[l.tie.state]"
        />
        <text
          v-if="l.tie.kind !== 'grounding electrode conductor' && l.tie.kind !== 'pipe bond'"
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
