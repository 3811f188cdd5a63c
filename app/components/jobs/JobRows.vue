<script lang="ts">
import type { JobSummary } from '#shared/api'
import type { DropdownMenuItem } from '@nuxt/ui'

export interface JobRowsProps {
  jobs: readonly JobSummary[]
  /** Whether a job can be opened now. */
  isHere: (job: JobSummary) => boolean
  unsentOf: (job: string) => number
  menuOf: (job: JobSummary) => DropdownMenuItem[][]
}
export interface JobRowsEmits {
  /** The end of what is loaded comes near. */
  more: []
}
</script>

<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'

const emit = defineEmits<JobRowsEmits>()
const { jobs, isHere, unsentOf, menuOf } = defineProps<JobRowsProps>()
const COLUMNS = [
  ['make safe now', 'Make safe', (j: JobSummary) => j.makeSafe],
  ['repair', 'Repair', (j: JobSummary) => j.repair],
  ['upgrade', 'Upgrade', (j: JobSummary) => j.upgrade],
  ['note', 'Note', (j: JobSummary) => j.record],
  ['undecided', 'To check', (j: JobSummary) => j.inScope ?? '–'],
] as const
/** Rows near the window are drawn; the others are room above and below. */
const board = useTemplateRef<HTMLElement>('board')
const ROW = 69
const NEAR = 30
const rows = useWindowVirtualizer(
  computed(() => ({
    count: jobs.length,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: board.value?.offsetTop ?? 0,
    getItemKey: (i: number) => jobs[i]?.id ?? i,
  })),
)
const drawn = computed(() =>
  rows.value.getVirtualItems().flatMap(v => {
    const job = jobs[v.index]
    return job ? [{ job, index: v.index }] : []
  }),
)
const above = computed(
  () => (rows.value.getVirtualItems()[0]?.start ?? 0) - rows.value.options.scrollMargin,
)
const below = computed(
  () =>
    rows.value.getTotalSize() -
    ((rows.value.getVirtualItems().at(-1)?.end ?? 0) - rows.value.options.scrollMargin),
)
const measure = (row: unknown) => {
  if (row instanceof HTMLElement) rows.value.measureElement(row)
}
watch(
  () => drawn.value.at(-1)?.index ?? 0,
  last => {
    if (last >= jobs.length - NEAR) emit('more')
  },
)
const about = (job: JobSummary) =>
  [
    job.stage,
    job.nextOn && job.nextOn > today() ? `next ${day(`${job.nextOn}T12:00:00`)}` : '',
    job.street,
    job.purpose,
    job.yearBuilt && `built ${job.yearBuilt}`,
    job.edition && `${job.edition} code`,
  ]
    .filter(Boolean)
    .join(' · ')
const day = (at: string) =>
  new Date(at).toLocaleDateString('en-US', { month: 'short', day: 'numeric', year: 'numeric' })
</script>

<template>
  <div class="board">
    <div class="head small soft" aria-hidden="true">
      <span />
      <span v-for="[kind, word] in COLUMNS" :key="kind"
        ><SeverityMark :kind="kind" :size="12" />{{ word }}</span
      >
      <span class="when">Changed</span>
    </div>
    <ul ref="board" :style="{ paddingTop: `${above}px`, paddingBottom: `${Math.max(0, below)}px` }">
      <!-- A row is filled anew when other jobs are found, which is far quicker than making another. -->
      <li v-for="{ job, index } in drawn" :key="index" :ref="measure" :data-index="index">
        <NuxtLink :to="`/jobs/${job.id}/panel`" class="job">
          <span class="name"
            ><b>{{ job.name || 'without a name' }}</b
            ><span class="small soft">{{ about(job) }}</span></span
          >
          <span v-for="[kind, word, count] in COLUMNS" :key="kind" class="n"
            ><SeverityMark :kind="kind" class="hand" /><b>{{ count(job) }}</b
            ><span class="sr-only">{{ word }}</span></span
          >
          <span class="small soft when"
            >{{ day(job.changedAt) }}<b v-if="!isHere(job)" class="absent">not on this device</b
            ><b v-if="unsentOf(job.id)" class="unsent">{{ unsentOf(job.id) }} not sent</b></span
          >
        </NuxtLink>
        <UDropdownMenu v-if="menuOf(job).length" :items="menuOf(job)"
          ><UButton
            color="neutral"
            variant="ghost"
            size="xl"
            icon="lucide:ellipsis-vertical"
            :aria-label="`share or delete ${job.name}`"
        /></UDropdownMenu>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.head,
.job {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(4, 5.2rem) 6.2rem 6.4rem;
  gap: 0.4rem;
  align-items: center;
}
.head {
  padding: 0 2.9rem 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.head span {
  display: inline-flex;
  align-items: center;
  justify-content: flex-end;
  gap: 0.35rem;
  white-space: nowrap;
}
li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.job {
  flex: 1;
  min-width: 0;
  min-height: 68px;
}
.job:hover .name b {
  color: var(--touch);
}
.name {
  display: grid;
}
.name b {
  font-size: 1.1rem;
}
.n {
  display: inline-flex;
  justify-content: flex-end;
  align-items: center;
  gap: 0.35rem;
  font-size: 1.1rem;
}
.hand {
  display: none;
}
.when {
  text-align: right;
  display: block !important;
}
.absent,
.unsent {
  display: block;
  font-weight: 400;
}
.unsent {
  color: var(--repair);
  font-weight: 700;
}
@media (max-width: 900px) {
  .head {
    display: none;
  }
  .job {
    grid-template-columns: repeat(4, auto) 1fr;
    gap: 0.2rem 1.1rem;
    padding: 0.8rem 0;
  }
  .name,
  .when {
    grid-column: 1 / -1;
    text-align: left;
  }
  .n {
    justify-content: flex-start;
    font-size: 1rem;
  }
  .hand {
    display: inline-block;
  }
}
</style>
