<script lang="ts">
import { neutralGroupOf, roleOf, legsOf, valueOf, type Site, type Subject } from '#core'
import type { Mark } from '~/composables/useMarks'

export interface PanelFaceProps {
  enclosure: Subject<'enclosure'>
  site: Site
  /** Mark of a thing on the face. */
  markOf: (subject: Subject) => Mark | undefined
  selected?: string
  /** Narrow screens: names inside the breakers, bars below. */
  compact?: boolean
}
export interface PanelFaceEmits {
  select: [subject: string]
  /** An empty space was touched. */
  space: [space: number]
}
</script>

<script setup lang="ts">
import { quantity, spaceAt, spacesOf } from '#core'
const { enclosure, site, markOf, selected = '', compact = false } = defineProps<PanelFaceProps>()
const emit = defineEmits<PanelFaceEmits>()

const METAL: Record<string, string> = {
  copper: 'var(--metal-cu)',
  'tinned copper': 'var(--metal-tin)',
  aluminum: 'var(--metal-al)',
  'copper-clad aluminum': 'var(--metal-cca)',
  'silver-looking': 'var(--metal-al)',
  'copper-looking': 'var(--metal-cu)',
}
const spaces = computed(() => spacesOf(site, enclosure))
const rows = computed(() => Math.ceil(spaces.value / 2))
const isDownEachSide = computed(() => valueOf(enclosure, 'numbering') === 'down each side')
const g = computed(() =>
  compact
    ? { width: 390, row: 56, top: 92, left: 10, right: 200, breaker: 180, bus: 195 }
    : {
        width: 760,
        row: rows.value <= 6 ? 56 : rows.value <= 12 ? 46 : 38,
        top: 104,
        left: 238,
        right: 394,
        breaker: 128,
        bus: 380,
      },
)
const bottom = computed(() => g.value.top + rows.value * g.value.row)
const height = computed(() => bottom.value + (compact ? 16 : 56))

function place(space: number) {
  const { side, row } = spaceAt(space, rows.value, isDownEachSide.value)
  return {
    side,
    row,
    x: side === 'left' ? g.value.left : g.value.right,
    y: g.value.top + row * g.value.row,
  } as const
}

const breakers = computed(() =>
  site.children(enclosure, 'breaker').flatMap(breaker => {
    const space = valueOf(breaker, 'space')
    if (space === undefined) return []
    const half = valueOf(breaker, 'half')
    const poles = valueOf(breaker, 'poles') ?? 1
    const at = place(space)
    const circuit = site.circuitsOf(breaker)[0]
    const feeder = site.feedersFrom(breaker)[0]
    const wire = (feeder ?? (circuit ? site.children(circuit, 'segment')[0] : undefined)) as
      Subject<'segment'> | undefined
    const metal = valueOf(wire, 'metal')
    const size = valueOf(wire, 'size')
    const h = half ? g.value.row / 2 : g.value.row * poles
    const legs = legsOf(site, breaker).value
    const shares = circuit
      ? neutralGroupOf(site, circuit)
          .circuits.filter(c => c !== circuit)
          .map(c => valueOf(site.get(valueOf(c, 'fedBy'), 'breaker'), 'space'))
          .filter(s => s !== undefined && s !== space)
      : []
    return [
      {
        breaker,
        space: `${space}${half ?? ''}`,
        poles,
        ...at,
        y: at.y + (half === 'b' ? g.value.row / 2 : 0),
        h,
        rating: valueOf(breaker, 'ratingAmps'),
        name: feeder ? 'feeder' : undefined,
        label:
          sharedLabel(site.circuitsOf(breaker).map(c => valueOf(c, 'label'))) ??
          valueOf(breaker, 'label') ??
          (valueOf(breaker, 'role') === 'spare' ? 'spare' : ''),
        isSpare: valueOf(breaker, 'role') === 'spare',
        wire: wire
          ? [size ? sizeShort(size) : 'size ?', metal ? shortMetal(metal) : 'metal ?'].join(' ')
          : '',
        dot: metal ? METAL[metal] : undefined,
        hasWire: wire !== undefined,
        directory:
          valueOf(breaker, 'label') !== undefined &&
          valueOf(circuit, 'label') !== undefined &&
          valueOf(breaker, 'label') !== valueOf(circuit, 'label')
            ? valueOf(breaker, 'label')
            : undefined,
        heat: valueOf(breaker, 'temperatureC'),
        tied: valueOf(breaker, 'handleTie'),
        tie: poles > 1 || valueOf(breaker, 'handleTie') === 'listed tie',
        protection: valueOf(breaker, 'protection'),
        legs,
        shares,
        mark: markOf(breaker),
      },
    ]
  }),
)
/** The names of all circuits on one breaker; what they have in common at the start is said once. */
function sharedLabel(labels: readonly (string | undefined)[]): string | undefined {
  const [first, ...others] = labels.filter(l => l !== undefined)
  if (first === undefined || others.length === 0) return first
  const words = first.split(' ')
  return [
    first,
    ...others.map(o => {
      const rest = o
        .split(' ')
        .filter((w, i) => w !== words[i])
        .join(' ')
      return rest || o
    }),
  ].join(', ')
}
const sizeShort = (size: string) => (Number(size) >= 250 ? `${size}k` : size)
const shortMetal = (metal: string) =>
  ({
    copper: 'Cu',
    'tinned copper': 'Cu tinned',
    aluminum: 'Al',
    'copper-clad aluminum': 'CCA',
    'silver-looking': 'silver ?',
    'copper-looking': 'copper ?',
  })[metal] ?? metal

const empty = computed(() => {
  const taken = new Set<string>()
  for (const b of breakers.value)
    for (let p = 0; p < b.poles; p++) taken.add(`${b.side} ${b.row + p}`)
  return Array.from({ length: spaces.value }, (_, i) => ({ space: i + 1, ...place(i + 1) })).filter(
    s => !taken.has(`${s.side} ${s.row}`),
  )
})
const rowLegs = computed(() => {
  const bus = valueOf(enclosure, 'bus')
  if (bus === undefined) return []
  const pattern = bus === 'three phase' ? ['A', 'B', 'C'] : ['A', 'B']
  return Array.from({ length: rows.value }, (_, i) => pattern[i % pattern.length]!)
})
const bars = computed(() => {
  const all = site.children(enclosure, 'bar').map((bar, i) => {
    const screws = site.children(bar, 'screw')
    const count = valueOf(bar, 'screws') ?? Math.max(screws.length, 8)
    const role = valueOf(bar, 'role')
    const isRight = role === 'ground' || role === 'electrode'
    const space = bottom.value - g.value.top - 8
    const step = Math.min(22, space / Math.max(count, 6))
    return {
      bar,
      role: role ?? 'bar ?',
      x: isRight ? g.value.width - 34 : 22,
      isRight,
      i,
      count,
      step,
      mark: markOf(bar),
      areAllSeen: valueOf(bar, 'areAllScrewsSeen') === true,
      screws: Array.from({ length: count }, (_, n) => {
        const screw = screws.find(s => valueOf(s, 'position') === n + 1)
        return {
          n: n + 1,
          neutrals: valueOf(screw, 'neutrals') ?? 0,
          grounds: valueOf(screw, 'grounds') ?? 0,
        }
      }),
    }
  })
  return all
})
const neutralBar = computed(() => bars.value.find(b => !b.isRight))
const main = computed(() => {
  const kind = valueOf(enclosure, 'mainKind')
  const amps = valueOf(enclosure, 'mainAmps')
  const role = roleOf(site, enclosure).value
  const roleText =
    role === 'service'
      ? 'service disconnect'
      : role === 'load'
        ? 'sub-panel'
        : role === 'supply'
          ? 'supply side'
          : 'service or sub-panel: not settled'
  return { kind, amps, roleText, isUnknown: kind === undefined, isLugs: kind === 'main lugs' }
})
const bond = computed(() => {
  const fact = enclosure.facts.bondMeans
  if (fact.state !== 'known')
    return {
      text: fact.state === 'blocked' ? 'bond: could not be seen' : 'bond: not looked at',
      kind: 'open' as const,
    }
  return fact.value === 'none'
    ? { text: 'bond: none found', kind: 'none' as const }
    : { text: `bond: ${fact.value}`, kind: 'there' as const }
})
/** Heat over the air of the panel, as a share of 40 °C; drawn as a strip on the breaker. */
const ambient = computed(() => valueOf(enclosure, 'ambientC') ?? 22)
const heatShare = (c: number) => Math.min(1, Math.max(0.06, (c - ambient.value) / 40))
const heatTone = (c: number) =>
  c - ambient.value > 20 ? '#e0483c' : c - ambient.value > 10 ? '#e6a23c' : '#6fa8ae'
/** Where a split bus is cut, and what a third bar is tied to. */
const split = computed(() => {
  if (valueOf(enclosure, 'mainKind') !== 'split bus' && valueOf(enclosure, 'bus') !== 'split bus')
    return undefined
  const rowsAbove = valueOf(enclosure, 'upperRows')
  return {
    y: g.value.top + (rowsAbove ?? Math.min(3, rows.value - 1)) * g.value.row,
    isCounted: rowsAbove !== undefined,
  }
})
const third = computed(() =>
  valueOf(enclosure, 'bus') === 'three phase'
    ? { state: valueOf(enclosure, 'thirdLeg') }
    : undefined,
)
/** Ties between the handles of two breakers in neighboring spaces. */
const ties = computed(() =>
  breakers.value.flatMap(b => {
    if (b.poles > 1 || !b.tied || b.tied === 'not tied') return []
    const below = breakers.value.find(
      o => o.side === b.side && o.row === b.row + 1 && o.poles === 1 && o.tied === b.tied,
    )
    return below
      ? [
          {
            key: b.breaker.id,
            x: (b.side === 'left' ? b.x + g.value.breaker - 28 : b.x + 16) + 4,
            y1: b.y + b.h / 2,
            y2: below.y + below.h / 2,
            kind: b.tied,
          },
        ]
      : []
  }),
)
/** Breakers that share a neutral, joined by a white line on the outer side. */
const pairs = computed(() =>
  breakers.value.flatMap(b =>
    b.shares.flatMap(s => {
      const other = breakers.value.find(o => Number.parseInt(o.space, 10) === s)
      if (!other || other.side !== b.side || other.row <= b.row) return []
      return [
        {
          key: `${b.space}-${other.space}`,
          x: b.side === 'left' ? b.x - 3 : b.x + g.value.breaker + 3,
          out: b.side === 'left' ? -6 : 6,
          y1: b.y + b.h / 2,
          y2: other.y + other.h / 2,
        },
      ]
    }),
  ),
)
const screwState = computed(() => valueOf(enclosure, 'coverScrews'))
const corners = computed(
  () =>
    [
      [14, 28],
      [g.value.width - 14, 28],
      [14, height.value - 14],
      [g.value.width - 14, height.value - 14],
    ] as const,
)
const openings = computed(() => Math.min(6, valueOf(enclosure, 'openings') ?? 0))
const hatch = useId()
/** A name over at most two lines on a narrow screen. */
function twoLines(label: string): string[] {
  if (label.length <= 15) return [label]
  const space = label.lastIndexOf(' ', 15)
  return space > 0 ? [label.slice(0, space), cut(label.slice(space + 1), 15)] : [cut(label, 15)]
}
const cut = (text: string, n: number) => (text.length > n ? `${text.slice(0, n - 1)}…` : text)
const sevVar = (mark: Mark | undefined) =>
  mark === 'make safe now'
    ? 'var(--now)'
    : mark === 'repair'
      ? 'var(--repair)'
      : mark === 'upgrade'
        ? 'var(--upgrade)'
        : mark === 'note'
          ? 'var(--record)'
          : undefined
const describe = (b: (typeof breakers.value)[number]) =>
  [
    `space ${b.space}`,
    b.rating ? `${b.rating} A` : 'rating not read',
    b.label || 'no name',
    ...(b.mark ? [b.mark] : []),
  ].join(', ')
</script>

<template>
  <svg
    :viewBox="`0 0 ${g.width} ${height}`"
    class="panel-face"
    :class="{ narrow: compact }"
    role="group"
    :aria-label="valueOf(enclosure, 'name') ?? 'panel'"
  >
    <defs>
      <pattern
        :id="hatch"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="6" height="6" fill="var(--now)" />
        <rect width="2.4" height="6" fill="var(--sheet)" />
      </pattern>
    </defs>
    <rect
      x="1"
      y="14"
      :width="g.width - 2"
      :height="height - 16"
      rx="5"
      fill="var(--steel)"
      stroke="var(--steel-edge)"
      stroke-width="1.5"
    />

    <!-- cover screws and open knockouts -->
    <g
      v-if="!compact"
      class="part"
      role="button"
      tabindex="0"
      :aria-label="`cover screws: ${screwState ?? 'not looked at'}`"
      @click="emit('select', enclosure.id)"
      @keydown.enter="emit('select', enclosure.id)"
    >
      <template v-for="([x, y], i) in corners" :key="i">
        <circle
          :cx="x"
          :cy="y"
          r="5"
          :fill="
            screwState === undefined || (screwState === 'some missing' && i === 3)
              ? 'var(--paper)'
              : '#9a9484'
          "
          :stroke="
            screwState === 'pointed' || (screwState === 'some missing' && i === 3)
              ? 'var(--repair)'
              : '#5b564b'
          "
          :stroke-width="screwState === 'pointed' ? 1.8 : 1"
          :stroke-dasharray="
            screwState === undefined || (screwState === 'some missing' && i === 3)
              ? '2.4 2'
              : undefined
          "
        />
        <path
          v-if="screwState !== undefined && !(screwState === 'some missing' && i === 3)"
          :d="
            screwState === 'pointed'
              ? `M${x - 3} ${y - 2} L${x} ${y + 4} L${x + 3} ${y - 2} Z`
              : `M${x - 3} ${y} h6`
          "
          :fill="screwState === 'pointed' ? 'var(--repair)' : 'none'"
          stroke="#3c382f"
          stroke-width="1"
        />
      </template>
      <circle
        v-for="n in openings"
        :key="`o${n}`"
        :cx="g.width - 30 - n * 26"
        cy="15"
        r="9"
        fill="#14181d"
        stroke="var(--repair)"
        stroke-width="2"
      />
    </g>

    <!-- supply -->
    <g v-if="!compact">
      <path
        v-if="neutralBar"
        :d="`M${g.bus - 70} 2 V40 H${neutralBar.x + 6} V${g.top - 4}`"
        fill="none"
        stroke="var(--steel-edge)"
        stroke-width="7"
      />
      <path
        v-if="neutralBar"
        :d="`M${g.bus - 70} 2 V40 H${neutralBar.x + 6} V${g.top - 4}`"
        fill="none"
        stroke="#fdfcf8"
        stroke-width="4.6"
      />
    </g>
    <path :d="`M${g.bus - 18} 0 V34`" stroke="var(--steel-edge)" stroke-width="9" />
    <path :d="`M${g.bus - 18} 0 V34`" stroke="#20262d" stroke-width="7" />
    <path :d="`M${g.bus + 18} 0 V34`" stroke="#a5302b" stroke-width="7" />
    <g
      class="part"
      tabindex="0"
      role="button"
      :aria-label="`main: ${main.amps ?? 'rating not read'}`"
      @click="emit('select', enclosure.id)"
      @keydown.enter="emit('select', enclosure.id)"
    >
      <rect
        :x="g.bus - 105"
        y="32"
        width="210"
        height="50"
        rx="4"
        :fill="main.isLugs || main.isUnknown ? 'var(--sheet)' : 'var(--device)'"
        :stroke="selected === enclosure.id ? 'var(--touch)' : 'var(--steel-edge)'"
        :stroke-width="selected === enclosure.id ? 3 : 1.2"
        :stroke-dasharray="main.isUnknown ? '6 4' : undefined"
      />
      <text
        :x="g.bus"
        y="49"
        text-anchor="middle"
        class="t-small"
        :fill="main.isLugs || main.isUnknown ? 'var(--soft)' : 'var(--device-soft)'"
      >
        {{ main.roleText }}
      </text>
      <text
        :x="g.bus"
        y="73"
        text-anchor="middle"
        class="t-big"
        :fill="main.isLugs || main.isUnknown ? 'var(--ink)' : 'var(--device-ink)'"
      >
        {{ main.isLugs ? 'main lugs' : main.amps ? `${main.amps} A` : 'main not read' }}
      </text>
    </g>

    <!-- bus -->
    <path
      :d="`M${g.bus - 4} 84 V${bottom}`"
      stroke="var(--steel-edge)"
      :stroke-width="compact ? 4 : 6"
    />
    <path :d="`M${g.bus - 4} 84 V${bottom}`" stroke="#20262d" :stroke-width="compact ? 2.5 : 4" />
    <path :d="`M${g.bus + 4} 84 V${bottom}`" stroke="#a5302b" :stroke-width="compact ? 2.5 : 4" />
    <g v-if="valueOf(enclosure, 'isPlugOnNeutral')">
      <path
        v-for="x in [g.left + g.breaker - 2, g.right + 2]"
        :key="x"
        :d="`M${x} ${g.top - 8} V${bottom + 4}`"
        stroke="var(--steel-edge)"
        stroke-width="5"
      />
      <path
        v-for="x in [g.left + g.breaker - 2, g.right + 2]"
        :key="`w${x}`"
        :d="`M${x} ${g.top - 8} V${bottom + 4}`"
        stroke="#fdfcf8"
        stroke-width="3.4"
      />
    </g>
    <g v-if="third">
      <path
        :d="`M${g.bus + 12} 90 V${bottom}`"
        stroke="#2c5f9e"
        :stroke-width="compact ? 2.5 : 4"
        :stroke-dasharray="
          third.state === undefined ? '3 5' : third.state === 'not connected' ? '10 8' : undefined
        "
        :opacity="third.state === 'not connected' ? 0.45 : 1"
      />
      <path
        v-if="third.state === 'jumpered to another leg'"
        :d="`M${g.bus + 4} 90 h8`"
        stroke="var(--now)"
        stroke-width="6"
      />
    </g>
    <g v-if="split">
      <rect :x="g.bus - 14" :y="split.y - 5" width="28" height="10" fill="var(--steel)" />
      <path
        :d="`M${g.bus - 16} ${split.y - 6} l8 6 -8 6 M${g.bus + 16} ${split.y - 6} l-8 6 8 6`"
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.8"
        :stroke-dasharray="split.isCounted ? undefined : '3 3'"
      />
    </g>
    <g v-if="!compact">
      <text
        v-for="(leg, i) in rowLegs"
        :key="i"
        :x="g.bus"
        :y="g.top + i * g.row + g.row / 2 + 4"
        text-anchor="middle"
        class="t-leg"
      >
        {{ leg }}
      </text>
    </g>

    <!-- empty spaces -->
    <g
      v-for="s in empty"
      :key="`e${s.space}`"
      class="part"
      tabindex="0"
      role="button"
      :aria-label="`space ${s.space}, empty`"
      :data-empty="s.space"
      @click="emit('space', s.space)"
      @keydown.enter="emit('space', s.space)"
    >
      <rect
        :x="s.x"
        :y="s.y + 1.5"
        :width="g.breaker"
        :height="g.row - 3"
        rx="3"
        fill="var(--tint)"
        :stroke="selected === `space ${s.space}` ? 'var(--touch)' : 'var(--line)'"
        :stroke-width="selected === `space ${s.space}` ? 3 : 1"
      />
      <text
        :x="s.side === 'left' ? s.x + 9 : s.x + g.breaker - 9"
        :y="s.y + g.row / 2 + 4"
        :text-anchor="s.side === 'left' ? 'start' : 'end'"
        class="t-small"
        fill="var(--faint)"
      >
        {{ s.space }}
      </text>
    </g>

    <!-- breakers -->
    <g
      v-for="b in breakers"
      :key="b.breaker.id"
      class="part"
      tabindex="0"
      role="button"
      :aria-label="describe(b)"
      :data-space="b.space"
      @click="emit('select', b.breaker.id)"
      @keydown.enter="emit('select', b.breaker.id)"
    >
      <rect
        v-if="!compact"
        :x="b.side === 'left' ? 52 : b.x"
        :y="b.y"
        :width="b.breaker ? 314 : 0"
        :height="b.h"
        fill="transparent"
      />
      <rect
        :x="b.x"
        :y="b.y + 1.5"
        :width="g.breaker"
        :height="b.h - 3"
        rx="3"
        :fill="b.isSpare ? 'var(--steel-edge)' : 'var(--device)'"
      />
      <rect
        v-if="b.mark === 'make safe now'"
        :x="b.x"
        :y="b.y + 1.5"
        width="10"
        :height="b.h - 3"
        :fill="`url(#${hatch})`"
      />
      <rect
        v-else-if="b.mark === 'repair'"
        :x="b.x"
        :y="b.y + 1.5"
        width="10"
        :height="b.h - 3"
        fill="var(--repair)"
      />
      <rect
        v-else-if="b.mark === 'upgrade'"
        :x="b.x + 1.5"
        :y="b.y + 3"
        width="8"
        :height="b.h - 6"
        fill="var(--device)"
        stroke="#8fbbe6"
        stroke-width="2"
      />
      <circle
        v-else-if="b.mark === 'note'"
        :cx="b.x + 6"
        :cy="b.y + b.h / 2"
        r="3.4"
        fill="var(--device-soft)"
      />
      <rect
        v-if="b.mark === 'undecided'"
        :x="b.x + 2.5"
        :y="b.y + 4"
        :width="g.breaker - 5"
        :height="b.h - 8"
        rx="2"
        fill="none"
        stroke="var(--device-soft)"
        stroke-width="1.4"
        stroke-dasharray="7 5"
      />
      <rect
        v-if="selected === b.breaker.id"
        :x="b.x - 2"
        :y="b.y - 0.5"
        :width="g.breaker + 4"
        :height="b.h + 1"
        rx="4"
        fill="none"
        stroke="var(--touch)"
        stroke-width="3"
      />
      <rect
        v-else-if="sevVar(b.mark) && (b.mark === 'make safe now' || b.mark === 'repair')"
        :x="b.x"
        :y="b.y + 1.5"
        :width="g.breaker"
        :height="b.h - 3"
        rx="3"
        fill="none"
        :stroke="sevVar(b.mark)"
        stroke-width="1.8"
      />
      <!-- handle on the bus side -->
      <rect
        :x="b.side === 'left' ? b.x + g.breaker - 28 : b.x + 16"
        :y="b.y + b.h / 2 - (b.tie && b.poles > 1 ? b.h / 4 + 4 : 6)"
        width="15"
        :height="b.tie && b.poles > 1 ? b.h / 2 + 8 : 12"
        rx="2"
        fill="#14181d"
      />
      <text
        :x="b.side === 'left' ? b.x + 15 : b.x + g.breaker - 9"
        :y="b.y + 13"
        :text-anchor="b.side === 'left' ? 'start' : 'end'"
        class="t-tiny"
        fill="var(--device-soft)"
      >
        {{ b.space }}
      </text>
      <text
        v-if="!compact"
        :x="b.side === 'left' ? b.x + 62 : b.x + g.breaker - 56"
        :y="b.y + b.h / 2 + 6"
        text-anchor="middle"
        :class="b.h < 30 ? 't-mid' : 't-rating'"
        :fill="b.isSpare ? 'var(--sheet)' : 'var(--device-ink)'"
      >
        {{ b.rating ?? '?' }}
      </text>
      <text
        v-if="b.protection && b.protection !== 'standard' && !compact"
        :x="b.side === 'left' ? b.x + 15 : b.x + g.breaker - 9"
        :y="b.y + b.h - 6"
        :text-anchor="b.side === 'left' ? 'start' : 'end'"
        class="t-tiny"
        fill="var(--device-ink)"
      >
        {{ b.protection }}
      </text>

      <template v-if="b.heat !== undefined">
        <rect
          :x="b.side === 'left' ? b.x + g.breaker - 8 : b.x + 3"
          :y="b.y + 4"
          width="5"
          :height="b.h - 8"
          fill="#14181d"
        />
        <rect
          :x="b.side === 'left' ? b.x + g.breaker - 8 : b.x + 3"
          :y="b.y + 4 + (b.h - 8) * (1 - heatShare(b.heat))"
          width="5"
          :height="(b.h - 8) * heatShare(b.heat)"
          :fill="heatTone(b.heat)"
        />
      </template>

      <template v-if="compact">
        <text
          :x="b.side === 'left' ? b.x + 15 : b.x + g.breaker - 9"
          :y="b.y + b.h / 2 + 12"
          :text-anchor="b.side === 'left' ? 'start' : 'end'"
          class="t-rating"
          fill="var(--device-ink)"
        >
          {{ b.rating ?? '?' }}
        </text>
        <text
          v-for="(part, i) in twoLines(b.label)"
          :key="i"
          :x="b.side === 'left' ? b.x + 44 : b.x + 38"
          :y="b.y + b.h / 2 - (twoLines(b.label).length > 1 ? 12 : 4) + i * 14"
          class="t-name"
          fill="var(--device-ink)"
        >
          {{ part }}
        </text>
        <circle
          v-if="b.hasWire"
          :cx="b.side === 'left' ? b.x + 49 : b.x + 43"
          :cy="b.y + b.h / 2 + (twoLines(b.label).length > 1 ? 14 : 10)"
          r="4"
          :fill="b.dot ?? 'none'"
          stroke="var(--device-soft)"
          :stroke-dasharray="b.dot ? undefined : '2 2'"
        />
        <text
          :x="b.side === 'left' ? b.x + 58 : b.x + 52"
          :y="b.y + b.h / 2 + (twoLines(b.label).length > 1 ? 18 : 14)"
          class="t-small"
          fill="var(--device-soft)"
        >
          {{ b.wire }}
        </text>
      </template>
      <template v-else>
        <text
          :x="b.side === 'left' ? b.x - 12 : b.x + g.breaker + 12"
          :y="b.y + b.h / 2 - (b.hasWire && b.h >= 30 ? 1 : -5)"
          :text-anchor="b.side === 'left' ? 'end' : 'start'"
          class="t-name"
          :fill="b.isSpare ? 'var(--faint)' : 'var(--ink)'"
        >
          {{ cut(b.label, 24) }}
        </text>
        <template v-if="b.hasWire && b.h >= 30">
          <circle
            :cx="b.side === 'left' ? b.x - 17 : b.x + g.breaker + 17"
            :cy="b.y + b.h / 2 + 10.5"
            r="4.4"
            :fill="b.dot ?? 'none'"
            stroke="var(--soft)"
            :stroke-dasharray="b.dot ? undefined : '2.2 1.6'"
          />
          <text
            :x="b.side === 'left' ? b.x - 26 : b.x + g.breaker + 26"
            :y="b.y + b.h / 2 + 15"
            :text-anchor="b.side === 'left' ? 'end' : 'start'"
            class="t-small"
            fill="var(--soft)"
          >
            {{ b.wire }}
            <tspan v-if="b.shares.length">· neutral with {{ b.shares.join(', ') }}</tspan>
            <tspan
              v-if="b.heat !== undefined"
              :fill="b.heat - ambient > 20 ? 'var(--now)' : undefined"
            >
              · {{ quantity(b.heat, '°C', site.units) }}
            </tspan>
            <tspan v-if="b.directory" fill="var(--repair)">
              · directory: {{ cut(b.directory, 14) }}
            </tspan>
          </text>
        </template>
      </template>
    </g>

    <g v-for="p in pairs" :key="p.key">
      <path
        :d="`M${p.x} ${p.y1} h${p.out} V${p.y2} h${-p.out}`"
        fill="none"
        stroke="var(--steel-edge)"
        stroke-width="4"
      />
      <path
        :d="`M${p.x} ${p.y1} h${p.out} V${p.y2} h${-p.out}`"
        fill="none"
        stroke="#fdfcf8"
        stroke-width="2.4"
      />
    </g>
    <g v-for="t in ties" :key="t.key">
      <path
        v-if="t.kind === 'improvised tie'"
        :d="`M${t.x + 3} ${t.y1} q7 ${(t.y2 - t.y1) / 4} 0 ${(t.y2 - t.y1) / 2} t0 ${(t.y2 - t.y1) / 2}`"
        fill="none"
        stroke="#b98d4a"
        stroke-width="2"
      />
      <rect
        v-else
        :x="t.x"
        :y="t.y1 - 5"
        width="7"
        :height="t.y2 - t.y1 + 10"
        rx="2"
        fill="#3f4a56"
        stroke="#8b959f"
      />
    </g>

    <!-- bars -->
    <template v-if="!compact">
      <g
        v-for="bar in bars"
        :key="bar.bar.id"
        class="part"
        tabindex="0"
        role="button"
        :aria-label="`${bar.role} bar${bar.mark ? `, ${bar.mark}` : ''}`"
        @click="emit('select', bar.bar.id)"
        @keydown.enter="emit('select', bar.bar.id)"
      >
        <text
          :x="bar.isRight ? bar.x + 12 : bar.x - 6"
          :y="g.top - 10"
          :text-anchor="bar.isRight ? 'end' : 'start'"
          class="t-small"
          fill="var(--soft)"
        >
          {{ bar.role }}
        </text>
        <rect
          :x="bar.x - 14"
          :y="g.top - 4"
          width="42"
          :height="bar.count * bar.step + 8"
          fill="transparent"
        />
        <rect
          :x="bar.x"
          :y="g.top - 2"
          width="12"
          :height="bar.count * bar.step + 4"
          rx="2"
          :fill="bar.role === 'ground' ? '#8d9a86' : '#b8b2a2'"
          :stroke="
            selected === bar.bar.id ? 'var(--touch)' : (sevVar(bar.mark) ?? 'var(--steel-edge)')
          "
          :stroke-width="selected === bar.bar.id || sevVar(bar.mark) ? 2.6 : 1"
          :stroke-dasharray="bar.mark === 'undecided' ? '6 4' : undefined"
        />
        <g v-for="s in bar.screws" :key="s.n">
          <path
            v-for="k in s.neutrals"
            :key="`n${k}`"
            :d="`M${bar.x + 6} ${g.top + (s.n - 0.5) * bar.step} h${bar.isRight ? -16 : -16} `"
            :transform="`translate(0 ${(k - (s.neutrals + 1) / 2) * 4})`"
            stroke="var(--steel-edge)"
            stroke-width="4.4"
          />
          <path
            v-for="k in s.neutrals"
            :key="`w${k}`"
            :d="`M${bar.x + 6} ${g.top + (s.n - 0.5) * bar.step} h-16`"
            :transform="`translate(0 ${(k - (s.neutrals + 1) / 2) * 4})`"
            stroke="#fdfcf8"
            stroke-width="2.8"
          />
          <path
            v-for="k in s.grounds"
            :key="`g${k}`"
            :d="`M${bar.x + 6} ${g.top + (s.n - 0.5) * bar.step} h${bar.isRight ? 16 : 17}`"
            :transform="`translate(0 ${(k - (s.grounds + 1) / 2) * 3.6})`"
            stroke="var(--metal-cu)"
            stroke-width="2.2"
          />
          <circle
            :cx="bar.x + 6"
            :cy="g.top + (s.n - 0.5) * bar.step"
            :r="Math.min(4.2, bar.step / 2.6)"
            :fill="s.neutrals + s.grounds > 0 ? '#6d675a' : 'var(--steel)'"
            stroke="#5b564b"
            stroke-width="0.8"
          />
          <circle
            v-if="s.neutrals > 1 || (s.neutrals && s.grounds)"
            :cx="bar.x + 6"
            :cy="g.top + (s.n - 0.5) * bar.step"
            :r="bar.step / 1.8 + 2"
            fill="none"
            :stroke="sevVar(bar.mark) ?? 'var(--repair)'"
            stroke-width="2"
          />
        </g>
      </g>
      <g
        class="part"
        role="button"
        tabindex="0"
        :aria-label="bond.text"
        @click="emit('select', enclosure.id)"
        @keydown.enter="emit('select', enclosure.id)"
      >
        <circle
          cx="28"
          :cy="bottom + 28"
          r="9"
          :fill="bond.kind === 'there' ? '#8a8474' : 'none'"
          :stroke="bond.kind === 'none' ? 'var(--now)' : 'var(--ink)'"
          stroke-width="1.8"
          :stroke-dasharray="bond.kind === 'open' ? '4 3' : undefined"
        />
        <path
          v-if="bond.kind === 'there'"
          :d="`M23 ${bottom + 28} h10`"
          stroke="var(--sheet)"
          stroke-width="2"
        />
        <path
          v-if="bond.kind === 'none'"
          :d="`M22 ${bottom + 22} l12 12`"
          stroke="var(--now)"
          stroke-width="1.8"
        />
        <text
          x="44"
          :y="bottom + 33"
          class="t-name"
          :fill="bond.kind === 'none' ? 'var(--now)' : 'var(--ink)'"
        >
          {{ bond.text }}
        </text>
      </g>
      <text :x="g.width - 18" :y="bottom + 33" text-anchor="end" class="t-small" fill="var(--soft)">
        {{ spaces }} spaces
        <tspan v-if="valueOf(enclosure, 'busAmps')">
          · {{ valueOf(enclosure, 'busAmps') }} A bus
        </tspan>
      </text>
    </template>
  </svg>
</template>

<style scoped>
.panel-face {
  display: block;
  width: 100%;
  max-height: calc(100dvh - 236px);
  user-select: none;
}
@media (max-width: 900px) {
  .panel-face {
    max-height: none;
  }
}
.part {
  cursor: pointer;
}
.part:focus {
  outline: none;
}
.part:focus-visible > rect {
  stroke: var(--touch);
  stroke-width: 3;
}
.t-tiny {
  font-size: 12px;
}
.t-small {
  font-size: 13.5px;
}
.t-name {
  font-size: 15.5px;
  font-weight: 600;
}
.narrow .t-small {
  font-size: 12px;
}
.narrow .t-name {
  font-size: 13px;
}
.narrow .t-tiny {
  font-size: 11px;
}
.t-mid {
  font-size: 14px;
  font-weight: 700;
}
.t-rating {
  font-size: 19px;
  font-weight: 700;
}
.t-big {
  font-size: 19px;
  font-weight: 700;
}
.t-leg {
  font-size: 10px;
  font-weight: 700;
  fill: var(--soft);
  paint-order: stroke;
  stroke: var(--steel);
  stroke-width: 5px;
}
</style>
