<script lang="ts">
import type { CurrentLayout, PropertyAnswer } from '#core'

export interface CurrentMapProps {
  layout: CurrentLayout
  answer: PropertyAnswer
  /** Parts that lie in the jaws of the clamp. */
  clamp: readonly string[]
  /** Numbers and movement are kept back until somebody has guessed. */
  isHidden?: boolean
  isMoving?: boolean
}
export interface CurrentMapEmits {
  clamp: [part: string]
  bond: [enclosure: string]
}
</script>

<script setup lang="ts">
const { layout, answer, clamp, isHidden = false, isMoving = true } = defineProps<CurrentMapProps>()
const emit = defineEmits<CurrentMapEmits>()

/** Less than this is drawn as nothing. */
const LEAST_AMPS = 0.02
/** More than this in a grounding conductor is no leakage. */
const STRAY_AMPS = 0.1
const branches = computed(() => new Map(answer.branches.map(b => [b.id, b])))
const KIND_COLOR: Readonly<Record<string, string>> = {
  hot: 'var(--ink)',
  device: 'var(--ink)',
  neutral: 'var(--steel-edge)',
  ground: 'var(--metal-cu)',
  electrode: 'var(--metal-cu)',
  pipe: 'var(--metal-cu)',
  bond: 'var(--metal-cu)',
}
const STRAY = new Set(['ground', 'electrode', 'pipe'])
const told = (amps: number) =>
  amps < LEAST_AMPS ? '' : amps < 10 ? `${amps.toFixed(1)} A` : `${Math.round(amps)} A`

const lines = computed(() =>
  layout.lines.map(line => {
    const branch = branches.value.get(line.part)
    const amps = branch?.amperes ?? 0
    const isOpen = (branch?.ohms ?? Infinity) === Infinity
    const flow = isHidden ? 0 : Math.abs(amps)
    return {
      ...line,
      text: answer.parts[line.part]?.text ?? line.part,
      flow,
      isOpen,
      isForward: amps >= 0,
      isStray: STRAY.has(line.kind) && flow > STRAY_AMPS,
      width: Math.min(11, 1.6 + 1.5 * Math.sqrt(flow)),
      // Faster where more flows, and never so fast that it flickers.
      seconds: Math.max(0.5, 3 / (1 + Math.sqrt(flow))),
      isClamped: clamp.includes(line.part),
    }
  }),
)
const nodes = computed(() =>
  layout.nodes.map(p => {
    const volts = p.frame === undefined ? 0 : Math.abs(answer.nodes[p.frame] ?? 0)
    const bond = p.bond === undefined ? undefined : branches.value.get(p.bond)
    const soil = branches.value.get(`soil ${p.node.id}`)
    return {
      ...p,
      volts: isHidden ? 0 : volts,
      isJoined: (bond?.ohms ?? Infinity) < Infinity,
      bondAmps: isHidden ? 0 : Math.abs(bond?.amperes ?? 0),
      soilAmps: isHidden ? 0 : Math.abs(soil?.amperes ?? 0),
    }
  }),
)
const VOLTS_FELT = 50
const voltsText = (volts: number) =>
  volts < 0.05 ? '' : `metal at ${volts < 10 ? volts.toFixed(1) : Math.round(volts)} V to earth`
const cut = (text: string, n: number) => (text.length > n ? `${text.slice(0, n - 1)}…` : text)
</script>

<template>
  <div class="scroll">
    <svg
      :viewBox="`0 0 ${layout.width} ${layout.height}`"
      :style="{ width: `clamp(${Math.round(layout.width * 0.72)}px, 100%, ${layout.width}px)` }"
      role="group"
      aria-label="where the current goes"
      :class="{ still: !isMoving }"
    >
      <g
        v-for="l in lines"
        :key="l.part"
        class="line"
        role="button"
        tabindex="0"
        :aria-pressed="l.isClamped"
        :aria-label="`clamp round ${l.text}${isHidden ? '' : `, ${l.flow.toFixed(1)} A`}`"
        :data-part="l.part"
        @click="emit('clamp', l.part)"
        @keydown.enter.prevent="emit('clamp', l.part)"
        @keydown.space.prevent="emit('clamp', l.part)"
      >
        <path :d="l.d" stroke="transparent" stroke-width="20" fill="none" />
        <path
          :d="l.d"
          fill="none"
          :stroke="l.isStray ? 'var(--now)' : KIND_COLOR[l.kind]"
          :stroke-width="l.width"
          :stroke-dasharray="l.isOpen ? '3 7' : undefined"
          stroke-linejoin="round"
        />
        <path
          v-if="l.flow >= LEAST_AMPS"
          class="flow"
          :class="{ back: !l.isForward }"
          :d="l.d"
          fill="none"
          stroke="var(--sheet)"
          :stroke-width="Math.max(1.4, l.width * 0.42)"
          stroke-dasharray="3 15"
          stroke-linecap="round"
          :style="{ animationDuration: `${l.seconds}s` }"
        />
        <ellipse
          v-if="l.isClamped"
          :cx="l.tx"
          :cy="l.ty - 26"
          rx="12"
          ry="6"
          fill="none"
          stroke="var(--touch)"
          stroke-width="3.5"
        />
      </g>
      <g v-for="p in nodes" :key="p.node.id">
        <rect
          :x="p.x"
          :y="p.y"
          :width="p.w"
          :height="p.h"
          :rx="p.node.kind === 'piping' ? 20 : 4"
          :fill="p.node.kind === 'utility' ? 'var(--tint)' : 'var(--sheet)'"
          :stroke="p.volts > VOLTS_FELT ? 'var(--now)' : 'var(--steel-edge)'"
          :stroke-width="p.volts > VOLTS_FELT ? 3 : 1.4"
        />
        <text :x="p.x + 12" :y="p.y + (p.node.kind === 'enclosure' ? 21 : 17)" class="n">
          {{ cut(p.node.label, p.h > 50 ? 24 : 20) }}
        </text>
        <text
          v-if="p.frame"
          :x="p.x + 12"
          :y="p.y + 39"
          class="t"
          :fill="p.volts > VOLTS_FELT ? 'var(--now)' : 'var(--soft)'"
        >
          {{ voltsText(p.volts) || p.node.what }}
        </text>
        <text
          v-else
          :x="p.x + 12"
          :y="p.y + (p.h > 50 ? 39 : p.h - 8)"
          class="t"
          fill="var(--soft)"
        >
          {{ told(p.soilAmps) ? `${told(p.soilAmps)} into the earth` : cut(p.node.what, 27) }}
        </text>
        <g
          v-if="p.bond"
          class="bond"
          role="switch"
          tabindex="0"
          :aria-checked="p.isJoined"
          :aria-label="`neutral and metal joined in ${p.node.label}`"
          :data-bond="p.node.id"
          @click="emit('bond', p.node.id)"
          @keydown.enter.prevent="emit('bond', p.node.id)"
          @keydown.space.prevent="emit('bond', p.node.id)"
        >
          <rect
            :x="p.x + 8"
            :y="p.y + 46"
            :width="p.w - 16"
            height="24"
            rx="3"
            fill="var(--tint)"
          />
          <path
            :d="`M${p.x + 14} ${p.y + 58} h16 M${p.x + 46} ${p.y + 58} h16`"
            stroke="var(--metal-cu)"
            stroke-width="4"
          />
          <path
            :d="p.isJoined ? `M${p.x + 30} ${p.y + 58} h16` : `M${p.x + 30} ${p.y + 58} l13 -9`"
            stroke="var(--touch)"
            stroke-width="3.5"
            stroke-linecap="round"
          />
          <text :x="p.x + 70" :y="p.y + 62" class="t b" fill="var(--ink)">
            {{ p.isJoined ? `joined ${told(p.bondAmps)}` : 'kept apart' }}
          </text>
        </g>
      </g>
      <template v-for="l in lines" :key="`n${l.part}`">
        <text
          v-if="told(l.flow)"
          :x="l.tx"
          :y="l.ty"
          text-anchor="middle"
          class="t b halo"
          :fill="l.isStray ? 'var(--now)' : 'var(--ink)'"
        >
          {{ told(l.flow) }}
        </text>
      </template>
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
.line,
.bond {
  cursor: pointer;
}
.line:focus,
.bond:focus {
  outline: none;
}
.line:focus-visible > path:nth-child(2) {
  stroke: var(--touch);
}
.bond:focus-visible > rect,
.bond:hover > rect {
  stroke: var(--touch);
  stroke-width: 2;
}
.flow {
  animation: flow linear infinite;
}
.flow.back {
  animation-direction: reverse;
}
.still .flow {
  animation-play-state: paused;
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
.halo {
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
  stroke-linejoin: round;
}
@keyframes flow {
  from {
    stroke-dashoffset: 18;
  }
  to {
    stroke-dashoffset: 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .flow {
    animation: none;
  }
}
</style>
