<script lang="ts">
import { gfciOf, groundOf, valueOf, type Site, type Subject } from '#core'

export interface OutletFaceProps {
  outlet: Subject<'outlet'>
  site: Site
  size?: number
}
</script>

<script setup lang="ts">
const { outlet, site, size = 46 } = defineProps<OutletFaceProps>()
const type = computed(() => valueOf(outlet, 'type'))
const slots = computed(() => valueOf(outlet, 'slots'))
const ground = computed(() => groundOf(site, outlet).value)
const own = computed(() => valueOf(outlet, 'protection'))
const isGfci = computed(() => own.value === 'GFCI' || own.value === 'dual')
const words = computed(() =>
  [
    type.value,
    slots.value && `${slots.value} slots`,
    type.value === 'receptacle' &&
      (ground.value === 'good'
        ? 'grounded'
        : ground.value === 'none'
          ? 'no ground'
          : 'ground not settled'),
    gfciOf(site, outlet).value,
  ]
    .filter(Boolean)
    .join(', '),
)
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 46 46" role="img" :aria-label="words">
    <template v-if="type === 'receptacle'">
      <rect
        x="5"
        y="2"
        width="36"
        height="42"
        rx="4"
        fill="#fbf9f3"
        stroke="var(--steel-edge)"
        stroke-width="1.4"
      />
      <template v-if="slots">
        <rect x="14" :y="isGfci ? 9 : 13" width="3" height="10" fill="#2a2f36" />
        <rect x="27" :y="isGfci ? 10 : 14" width="3" height="8" fill="#2a2f36" />
        <path
          v-if="slots === 'T-slot'"
          :d="`M10 ${isGfci ? 14 : 18} h6`"
          stroke="#2a2f36"
          stroke-width="3"
        />
        <template v-if="slots !== 'two'">
          <circle v-if="ground === 'good'" cx="22" :cy="isGfci ? 25 : 31" r="3.6" fill="#2f7a4d" />
          <g v-else-if="ground === 'none'">
            <circle
              cx="22"
              :cy="isGfci ? 25 : 31"
              r="3.8"
              fill="#fbf9f3"
              stroke="#b0201c"
              stroke-width="1.8"
            />
            <path :d="`M18.5 ${isGfci ? 28.5 : 34.5} l7 -7`" stroke="#b0201c" stroke-width="1.8" />
          </g>
          <circle
            v-else
            cx="22"
            :cy="isGfci ? 25 : 31"
            r="3.8"
            fill="none"
            stroke="#2a2f36"
            stroke-width="1.5"
            stroke-dasharray="2.2 1.8"
          />
        </template>
      </template>
      <text v-else x="23" y="29" text-anchor="middle" font-size="18" fill="#2a2f36">?</text>
      <g v-if="isGfci">
        <rect x="12" y="33" width="9" height="6" rx="1" fill="#246770" />
        <rect
          x="24"
          y="33"
          width="9"
          height="6"
          rx="1"
          fill="none"
          stroke="#246770"
          stroke-width="1.4"
        />
      </g>
    </template>
    <g v-else-if="type === 'switch'">
      <rect
        x="9"
        y="2"
        width="28"
        height="42"
        rx="4"
        fill="#fbf9f3"
        stroke="var(--steel-edge)"
        stroke-width="1.4"
      />
      <rect
        x="19"
        y="13"
        width="8"
        height="20"
        rx="1.5"
        fill="none"
        stroke="#2a2f36"
        stroke-width="1.6"
      />
      <rect x="20.5" y="14.5" width="5" height="9" fill="#2a2f36" />
    </g>
    <g v-else-if="type === 'luminaire'">
      <circle cx="23" cy="21" r="12" fill="none" stroke="var(--ink)" stroke-width="1.8" />
      <path d="M14.5 12.5 l17 17 M31.5 12.5 l-17 17" stroke="var(--ink)" stroke-width="1.4" />
    </g>
    <g v-else-if="type === 'alarm'">
      <circle cx="23" cy="22" r="14" fill="none" stroke="var(--ink)" stroke-width="1.6" />
      <circle cx="23" cy="22" r="5" fill="none" stroke="var(--ink)" stroke-width="1.6" />
    </g>
    <g v-else-if="type === 'hard-wired outlet'">
      <rect
        x="7"
        y="8"
        width="32"
        height="28"
        rx="3"
        fill="none"
        stroke="var(--ink)"
        stroke-width="1.8"
      />
      <path d="M15 22 h16" stroke="var(--ink)" stroke-width="2.4" />
    </g>
    <rect
      v-else
      x="7"
      y="7"
      width="32"
      height="32"
      rx="2"
      fill="none"
      stroke="var(--ink)"
      stroke-width="1.6"
      :stroke-dasharray="type ? undefined : '5 4'"
    />
  </svg>
</template>
