<script setup lang="ts">
import { LAMPS } from '#core'

/** Readings of the diagnosis by their key; what is not there was not read. */
const values = defineModel<Record<string, unknown>>({ required: true })
type Hole = 'hot' | 'neutral' | 'ground' | 'reference'
const HOLES: readonly { id: Hole; x: number; y: number; words: string }[] = [
  { id: 'neutral', x: 62, y: 66, words: 'wide slot, neutral' },
  { id: 'hot', x: 138, y: 66, words: 'narrow slot, hot' },
  { id: 'ground', x: 100, y: 126, words: 'ground hole' },
  { id: 'reference', x: 262, y: 126, words: 'proved ground on a long lead' },
]
const PAIRS: Readonly<Record<string, readonly [key: string, label: string]>> = {
  'hot neutral': ['hotNeutral', 'Hot to neutral'],
  'ground hot': ['hotGround', 'Hot to ground'],
  'ground neutral': ['neutralGround', 'Neutral to ground'],
  'ground reference': ['groundEarth', 'Ground to a proved ground'],
  'hot reference': ['narrowEarth', 'Narrow slot to a proved ground'],
}
const leads = ref<readonly Hole[]>(['hot', 'neutral'])
const pair = computed(() => PAIRS[[...leads.value].sort().join(' ')])
/** The third hole touched takes the first lead along. */
function touch(hole: Hole) {
  if (leads.value.includes(hole)) return
  leads.value = [...leads.value.slice(-1), hole]
}
const typed = computed({
  get: () => {
    const known = pair.value && values.value[pair.value[0]]
    return typeof known === 'number' ? known : undefined
  },
  set: volts => {
    if (pair.value) values.value = { ...values.value, [pair.value[0]]: volts }
  },
})
const at = (id: Hole) => HOLES.find(h => h.id === id)!
const read = computed(() =>
  Object.entries(PAIRS).flatMap(([ends, [key, label]]) => {
    const value = values.value[key]
    if (value === undefined) return []
    const [a, b] = ends.split(' ').map(e => at(e as Hole)) as [
      ReturnType<typeof at>,
      ReturnType<typeof at>,
    ]
    return { key, label, value: String(value), a, b }
  }),
)
const lamp = (l: (typeof LAMPS)[number]) => {
  values.value = { ...values.value, lamps: values.value.lamps === l ? undefined : l }
}
</script>

<template>
  <div class="leads">
    <div class="pairing">
      <svg viewBox="0 0 340 190" class="face" role="group" aria-label="put the leads">
        <rect x="14" y="10" width="172" height="166" rx="16" class="plate" />
        <rect x="56" y="42" width="12" height="48" class="hole" />
        <rect x="133" y="46" width="10" height="40" class="hole" />
        <path d="M86 128 a14 14 0 0 1 28 0 v8 h-28z" class="hole" />
        <path d="M240 150 h44 M248 158 h28 M256 166 h12 M262 126 V150" class="earth" />
        <text x="262" y="184" text-anchor="middle" class="word">long lead</text>
        <g v-for="r in read" :key="r.key" class="said">
          <path :d="`M${r.a.x} ${r.a.y} L${r.b.x} ${r.b.y}`" />
        </g>
        <g
          v-for="h in HOLES"
          :key="h.id"
          role="button"
          tabindex="0"
          :aria-label="h.words"
          :aria-pressed="leads.includes(h.id)"
          class="touchable"
          @click="touch(h.id)"
          @keydown.enter.prevent="touch(h.id)"
          @keydown.space.prevent="touch(h.id)"
        >
          <circle :cx="h.x" :cy="h.y" r="24" class="ring" />
          <g v-if="leads.includes(h.id)" :class="leads[0] === h.id ? 'red' : 'black'">
            <path :d="`M${h.x} ${h.y} q 30 -40 70 -66`" class="wire" />
            <circle :cx="h.x" :cy="h.y" r="8" />
          </g>
        </g>
      </svg>
      <p v-if="!pair" class="small why">Nothing is read between these two. Touch another hole.</p>
      <ul v-if="read.length" class="list small">
        <li v-for="r in read" :key="r.key">
          {{ r.label }} <b>{{ r.value }} V</b>
        </li>
      </ul>
    </div>
    <KeyPad v-if="pair" :key="pair[0]" v-model="typed" :label="pair[1]" unit="V" />
    <div class="lamps" role="group" aria-label="lamp tester">
      <span class="small soft">The lamp tester says, by the card on it:</span>
      <UButton
        v-for="l in LAMPS"
        :key="l"
        color="neutral"
        variant="outline"
        class="chip lamp"
        :aria-pressed="values.lamps === l"
        @click="lamp(l)"
      >
        {{ l }}
      </UButton>
    </div>
  </div>
</template>

<style scoped>
.leads {
  display: grid;
  grid-template-columns: minmax(0, 22rem) auto;
  gap: 0.8rem 1.6rem;
  align-items: start;
  margin-bottom: 1rem;
}
.face {
  width: 100%;
  touch-action: manipulation;
}
.plate {
  fill: #fbf9f3;
  stroke: var(--steel-edge);
  stroke-width: 2;
}
.hole {
  fill: #2a2f36;
}
.earth {
  stroke: var(--ink);
  stroke-width: 2.5;
  fill: none;
}
.word {
  font-size: 13px;
  fill: var(--soft);
}
.said path {
  stroke: var(--cool);
  stroke-width: 3;
  stroke-dasharray: 7 5;
}
.touchable {
  cursor: pointer;
}
.ring {
  fill: transparent;
  stroke: var(--steel-edge);
  stroke-dasharray: 3 4;
}
.touchable:hover .ring,
.touchable:focus-visible .ring {
  stroke: var(--touch);
  stroke-width: 2;
}
.red circle {
  fill: #c0352b;
}
.black circle {
  fill: #20252b;
}
.wire {
  fill: none;
  stroke-width: 5;
  stroke-linecap: round;
}
.red .wire {
  stroke: #c0352b;
}
.black .wire {
  stroke: #20252b;
}
.dark .black .wire {
  stroke: #7d868f;
}
.list {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
.lamps {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.lamps > .small {
  width: 100%;
}
.why {
  color: var(--repair);
}
@media (max-width: 900px) {
  .leads {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
