<script setup lang="ts">
/** What is seen of the conductor, by the keys of the form: its surface, and what shows where it is cut or scraped. */
const values = defineModel<Record<string, unknown>>({ required: true })
const PARTS = [
  ['surface', 'The surface'],
  ['core', 'The cut end, scraped bright'],
] as const
/** The cut end: the skin around the core. */
const RINGS = [
  ['surface', 27],
  ['core', 22],
] as const
const COLORS = ['copper color', 'silver color'] as const
const fill = (key: string) => {
  const seen = values.value[key]
  return seen === 'copper color'
    ? 'var(--metal-cu)'
    : seen === 'silver color'
      ? 'var(--metal-al)'
      : 'none'
}
const set = (key: string, color: string) => {
  values.value = { ...values.value, [key]: values.value[key] === color ? undefined : color }
}
</script>

<template>
  <div class="wires">
    <figure v-for="[key, words] in PARTS" :key="key">
      <svg viewBox="0 0 220 90" role="img" :aria-label="words">
        <template v-if="key === 'surface'">
          <rect x="4" y="26" width="100" height="38" rx="6" class="jacket" />
          <rect
            x="104"
            y="34"
            width="112"
            height="22"
            rx="3"
            :fill="fill('surface')"
            class="metal"
            :class="{ open: !values.surface }"
          />
        </template>
        <template v-else>
          <circle cx="110" cy="45" r="40" class="jacket" />
          <circle
            v-for="[part, r] in RINGS"
            :key="part"
            cx="110"
            cy="45"
            :r="r"
            :fill="fill(part)"
            class="metal"
            :class="{ open: !values[part] }"
          />
        </template>
      </svg>
      <figcaption>{{ words }}</figcaption>
      <div class="row">
        <UButton
          v-for="c in COLORS"
          :key="c"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="values[key] === c"
          @click="set(key, c)"
          >{{ c }}</UButton
        >
      </div>
    </figure>
    <p class="small soft wide">
      Power off, and proved off, before anything is scraped or cut. Copper over silver is clad;
      silver over copper is tinned.
    </p>
  </div>
</template>

<style scoped>
.wires {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.8rem 1.4rem;
  margin-bottom: 1rem;
}
figure {
  display: grid;
  gap: 0.4rem;
}
figcaption {
  font-weight: 600;
}
.jacket {
  fill: #33393f;
}
.metal {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.metal.open {
  stroke-dasharray: 4 4;
  fill: var(--sheet);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}
.wide {
  grid-column: 1 / -1;
}
</style>
