<script lang="ts">
import type { FindingMark, Paper } from '#core'

export interface PaperSheetProps {
  paper: Paper
  /** The job whose photographs it shows; without one, only their captions are read. */
  jobId?: string
  /** Its findings can be worded, put in order and left out. */
  canEdit?: boolean
}
export interface PaperSheetEmits {
  edit: [finding: FindingMark]
}
</script>

<script setup lang="ts">
import { PhotoMarks, type PhotoMark } from '#shared/api'

const { paper, jobId = '', canEdit = false } = defineProps<PaperSheetProps>()
const emit = defineEmits<PaperSheetEmits>()

function marksOf(text: string): PhotoMark[] {
  try {
    const parsed = PhotoMarks.safeParse(JSON.parse(text || '[]'))
    return parsed.success ? parsed.data : []
  } catch {
    return []
  }
}
const findingOf = (b: Paper['blocks'][number]) => ('finding' in b ? b.finding : undefined)
</script>

<template>
  <article class="paper" data-testid="report">
    <header>
      <h1>{{ paper.title }}</h1>
      <p class="soft">{{ paper.subtitle }}</p>
    </header>
    <template v-for="(b, i) in paper.blocks" :key="i">
      <h2 v-if="b.kind === 'heading' && b.level === 1">{{ b.text }}</h2>
      <div
        v-else-if="(b.kind === 'heading' || b.kind === 'text') && findingOf(b)"
        class="finding"
        :data-finding="`${findingOf(b)?.rule}@${findingOf(b)?.subjects[0]}`"
      >
        <h3>{{ b.text }}</h3>
        <UButton
          v-if="canEdit"
          class="no-print shrink-0"
          size="lg"
          color="neutral"
          variant="ghost"
          icon="lucide:pencil"
          :aria-label="`change how it is told: ${b.text}`"
          @click="emit('edit', findingOf(b)!)"
        />
      </div>
      <h3 v-else-if="b.kind === 'heading'">{{ b.text }}</h3>
      <p v-else-if="b.kind === 'text'" :class="b.tone">{{ b.text }}</p>
      <ul v-else-if="b.kind === 'list'" class="dots">
        <li v-for="(t, n) in b.items" :key="n">{{ t }}</li>
      </ul>
      <ul v-else-if="b.kind === 'checks'" class="boxes">
        <li v-for="(t, n) in b.items" :key="n">
          <UIcon name="lucide:square" /><span>{{ t }}</span>
        </li>
      </ul>
      <div v-else-if="b.kind === 'table'" class="wide">
        <FigureTable :head="b.head" :rows="b.rows" :figures="b.figures ?? []" />
      </div>
      <figure v-else-if="b.kind === 'picture'" class="picture">
        <div v-if="jobId" class="framed">
          <img :src="`/api/jobs/${jobId}/photos/${b.hash}`" :alt="b.caption" loading="lazy" />
          <svg viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden="true">
            <template v-for="(m, n) in marksOf(b.marks)" :key="n">
              <line v-if="m.kind === 'arrow'" :x1="m.x" :y1="m.y" :x2="m.x2" :y2="m.y2" />
              <circle v-else-if="m.kind === 'circle'" :cx="m.x" :cy="m.y" :r="m.r" />
            </template>
          </svg>
        </div>
        <figcaption class="small soft">{{ b.caption }}</figcaption>
      </figure>
      <figure v-else-if="b.kind === 'drawing'" class="drawing">
        <figcaption>
          <b>{{ b.caption }}</b>
        </figcaption>
        <!-- A drawing of our own core, its texts escaped there. -->
        <!-- eslint-disable-next-line vue/no-v-html -->
        <div role="img" :aria-label="b.caption" v-html="b.svg" />
      </figure>
    </template>
  </article>
</template>

<style scoped>
.paper {
  background: var(--sheet);
  border: 1px solid var(--line);
  padding: 2rem 2.4rem;
  max-width: 52rem;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.55rem;
  align-content: start;
}
h2 {
  margin-top: 1.3rem;
  padding-bottom: 0.2rem;
  border-bottom: 2px solid var(--ink);
}
h3 {
  font-weight: 700;
}
.finding {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 0.6rem;
  margin-top: 0.5rem;
  min-height: 40px;
}
.strong {
  font-weight: 700;
}
.soft {
  color: var(--soft);
}
.dots {
  list-style: disc;
  padding-left: 1.3rem;
}
.boxes {
  display: grid;
  gap: 0.4rem;
}
.boxes li {
  display: grid;
  grid-template-columns: 1.5rem 1fr;
  align-items: start;
}
.wide {
  overflow-x: auto;
}
.picture {
  max-width: 26rem;
}
.framed {
  position: relative;
}
.framed img {
  display: block;
  width: 100%;
}
.framed svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.framed line,
.framed circle {
  fill: none;
  stroke: var(--now);
  stroke-width: 3px;
  vector-effect: non-scaling-stroke;
}
.drawing :deep(svg) {
  width: 100%;
  height: auto;
  background: #fff;
  margin-top: 0.3rem;
}
@media (max-width: 900px) {
  .paper {
    padding: 1.1rem 1rem;
  }
}
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
  }
}
</style>
