<script lang="ts">
import type { Subject, Readings } from '#core'

export interface ReadingsSayProps {
  outlet: Subject<'outlet'>
}
</script>

<script setup lang="ts">
import { diagnose, readingsOf, valueOf } from '#core'

const { outlet } = defineProps<ReadingsSayProps>()
const job = useJobStore()
/** What has been read at this outlet, as the diagnosis takes it. */
const readings = computed<Readings>(() => readingsOf(outlet).readings)
const said = computed(() =>
  Object.keys(readings.value).length ? diagnose(readings.value, { meter: 'low' }) : undefined,
)
</script>

<template>
  <section v-if="valueOf(outlet, 'type') === 'receptacle'" class="says" data-testid="readings-say">
    <p v-if="said">
      <span class="small soft">The readings fit {{ ' ' }}</span>
      <b>{{ said.fitting.slice(0, 3).join(', or ') }}</b><span
        v-if="said.fitting.length > 3"
        class="small soft"
      >
        and {{ said.fitting.length - 3 }} more</span
      >
    </p>
    <p v-if="said?.next" class="small soft">Next: {{ said.next.how }}</p>
    <NuxtLink
      :to="{ path: `/jobs/${job.jobId}/bench`, query: { calculator: 'diagnose', from: outlet.id } }"
      class="touch small"
      >{{ said ? 'all readings on the bench' : 'read it on the bench' }}</NuxtLink
    >
  </section>
</template>

<style scoped>
.says {
  border-left: 4px solid var(--cool);
  padding: 0.2rem 0 0.2rem 0.8rem;
  display: grid;
  gap: 0.15rem;
}
.touch {
  min-height: 36px;
  display: inline-flex;
  align-items: center;
}
</style>
