<script lang="ts">
import type { SpokenResult } from '#core'

export interface RemedyListProps {
  remedies: SpokenResult['remedies']
  columns?: boolean
}
</script>

<script setup lang="ts">
const { remedies, columns = false } = defineProps<RemedyListProps>()
const ORDER = { offered: 0, conditional: 1, refused: 2 } as const
const sorted = computed(() => [...remedies].sort((a, b) => ORDER[a.verdict] - ORDER[b.verdict]))
</script>

<template>
  <ul class="remedies" :class="{ columns }">
    <li v-for="r in sorted" :key="r.id" :class="r.verdict">
      <p class="title">{{ r.title }}</p>
      <p class="small soft">
        <span class="verdict">{{ r.verdict === 'conditional' ? 'look first' : r.verdict }}</span>:
        {{ r.why }}
      </p>
      <ul v-if="r.missing.length" class="small soft dash">
        <li v-for="m in r.missing.slice(0, 4)" :key="`${m.subject}${m.field}`">
          {{ m.fact }}: {{ m.look }}
        </li>
      </ul>
      <details v-if="r.verdict !== 'refused'" class="small">
        <summary class="touch">what it brings</summary>
        <p>
          <b>Gives</b> {{ r.gives }}<template v-if="r.lacks">; <b>not</b> {{ r.lacks }}</template>
        </p>
        <p v-if="r.duties.length"><b>Duties</b> {{ r.duties.join(' · ') }}</p>
        <p v-if="r.markings.length"><b>Markings</b> {{ r.markings.join(' · ') }}</p>
        <p v-if="r.steps.length"><b>Steps</b> {{ r.steps.join(' → ') }}</p>
        <p v-if="r.tests.length"><b>Then test</b> {{ r.tests.join(' · ') }}</p>
        <p class="soft">
          {{ r.cautions.join('. ') }}.<template v-if="r.needsPermit">
            Usually needs a permit and a licensed person.</template
          >
        </p>
      </details>
    </li>
  </ul>
</template>

<style scoped>
.remedies {
  display: grid;
  gap: 0.7rem;
}
.remedies.columns {
  grid-template-columns: repeat(auto-fill, minmax(15.5rem, 1fr));
  gap: 0.9rem 1.4rem;
}
.remedies > li {
  border-left: 3px solid var(--cool);
  padding-left: 0.7rem;
}
.remedies > li.conditional {
  border-left-style: dashed;
  border-left-color: var(--ink);
}
.remedies > li.refused {
  border-left-color: var(--line);
}
.title {
  font-weight: 600;
}
.refused .title {
  text-decoration: line-through;
  color: var(--soft);
}
.offered .verdict {
  color: var(--cool);
  font-weight: 600;
}
.conditional .verdict {
  font-weight: 600;
  color: var(--ink);
}
.dash {
  list-style: none;
}
.dash li::before {
  content: '– ';
}
details p {
  margin-top: 0.25rem;
}
summary {
  min-height: 28px;
  list-style: none;
}
</style>
