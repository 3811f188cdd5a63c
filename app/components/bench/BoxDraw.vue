<script setup lang="ts">
import { BOX_VOLUME, CONDUCTOR_VOLUME } from '#core'

/** What is in the box, by the keys of the box fill form. */
const values = defineModel<Record<string, unknown>>({ required: true })
const count = (key: string) => Number(values.value[key] ?? 0)
/** One tap puts a whole thing in; taking it out takes what it brought. */
interface Thing {
  readonly word: string
  readonly puts: Readonly<Record<string, number>>
  readonly ground?: string
}
const THINGS: readonly Thing[] = [
  ...(['14', '12', '10'] as const).flatMap(size =>
    [2, 3].map(n => ({
      word: `${size}/${n} cable`,
      puts: { [`conductors.${size}`]: n, 'grounds.count': 1 },
      ground: size,
    })),
  ),
  { word: 'device', puts: { yokes: 1 } },
  { word: 'stud or hickey', puts: { supportFittings: 1 } },
]
function put(thing: Thing, sign: 1 | -1) {
  const next = { ...values.value }
  for (const [key, n] of Object.entries(thing.puts)) {
    const now = Number(next[key] ?? 0) + sign * n
    next[key] = now > 0 ? now : undefined
  }
  if (thing.ground && sign > 0) {
    const known = Number(next['grounds.size'] ?? Infinity)
    // Grounds count once, by the largest of them; the smaller number is the larger conductor.
    next['grounds.size'] = String(Math.min(known, Number(thing.ground)))
  }
  if (!next['grounds.count']) next['grounds.size'] = undefined
  values.value = next
}
const canTake = (t: Thing) => Object.entries(t.puts).every(([key, n]) => count(key) >= n)
const clamps = computed({
  get: () => values.value.hasInternalClamps === true,
  set: is => {
    values.value = { ...values.value, hasInternalClamps: is || undefined }
  },
})
const boxes = Object.keys(BOX_VOLUME).map(b => ({ value: b, label: b }))
const wires = computed(() =>
  (['14', '12', '10'] as const).flatMap(size =>
    Array.from({ length: Math.min(12, count(`conductors.${size}`)) }, () => size),
  ),
)
const WIDTH: Record<string, number> = { '14': 4, '12': 5, '10': 6.5 }
const volume = computed(() => {
  const size = String(values.value['grounds.size'] ?? '14') as keyof typeof CONDUCTOR_VOLUME
  return CONDUCTOR_VOLUME[size]
})
</script>

<template>
  <div class="boxing">
    <svg viewBox="0 0 300 200" class="box" role="img" aria-label="the box and what is in it">
      <rect x="60" y="30" width="180" height="140" rx="4" class="wall" />
      <g v-if="clamps" class="clamp">
        <path d="M96 30 v18 h28 v-18 M176 30 v18 h28 v-18" />
      </g>
      <path
        v-for="(size, i) in wires"
        :key="i"
        :d="`M${84 + i * 13} 10 C ${84 + i * 13} 80, ${100 + i * 9} 90, ${110 + i * 8} 140`"
        class="wire"
        :style="{ strokeWidth: `${WIDTH[size]}px` }"
        :class="i % 2 ? 'white' : 'black'"
      />
      <path v-if="count('grounds.count')" d="M70 10 C 76 90, 90 120, 110 152" class="wire bare" />
      <rect
        v-for="k in Math.min(2, count('yokes'))"
        :key="`y${k}`"
        :x="110 + (k - 1) * 66"
        y="84"
        width="54"
        height="74"
        rx="5"
        class="yoke"
      />
      <text v-if="volume && count('grounds.count')" x="6" y="192" class="note">
        {{ count('grounds.count') }} grounds
      </text>
    </svg>
    <div class="tray" role="group" aria-label="put into the box">
      <span v-for="t in THINGS" :key="t.word" class="thing">
        <UButton
          color="neutral"
          variant="outline"
          size="lg"
          icon="lucide:plus"
          :label="t.word"
          @click="put(t, 1)"
        /><UButton
          v-if="canTake(t)"
          color="neutral"
          variant="ghost"
          size="lg"
          icon="lucide:minus"
          :aria-label="`take a ${t.word} out`"
          @click="put(t, -1)"
        />
      </span>
      <USwitch v-model="clamps" label="Clamps inside" />
      <USelectMenu
        class="w-full"
        placeholder="which box, where it is not marked"
        aria-label="box"
        value-key="value"
        :items="boxes"
        :model-value="values.box === undefined ? undefined : String(values.box)"
        @update:model-value="v => (values = { ...values, box: v, volumeIn3: undefined })"
      />
    </div>
  </div>
</template>

<style scoped>
.boxing {
  display: grid;
  grid-template-columns: minmax(0, 18rem) minmax(0, 1fr);
  gap: 1.2rem;
  align-items: start;
  margin-bottom: 1rem;
}
.box {
  width: 100%;
}
.wall {
  fill: var(--steel);
  stroke: var(--steel-edge);
  stroke-width: 4;
}
.wire {
  fill: none;
  stroke-linecap: round;
}
.black {
  stroke: #23282e;
}
.white {
  stroke: #cfc8b8;
}
.bare {
  stroke: var(--metal-cu);
  stroke-width: 4;
}
.clamp path {
  fill: none;
  stroke: var(--steel-edge);
  stroke-width: 6;
}
.yoke {
  fill: var(--device);
  stroke: var(--device-soft);
}
.note {
  font-size: 13px;
  fill: var(--soft);
}
.tray {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.thing {
  display: inline-flex;
}
@media (max-width: 900px) {
  .boxing {
    grid-template-columns: minmax(0, 1fr);
  }
  .box {
    max-height: 9rem;
  }
}
</style>
