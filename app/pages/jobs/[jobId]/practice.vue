<script setup lang="ts">
import { Ledger, readJob, valueOf, writeHouse } from '#core'
import type { PracticeHouse } from '~/composables/usePractice'

/** A round made of this very job: what is recorded is what can be seen, and all its faults are wanted. */
const { job, problem, isLoading, load } = useOpenJob()
const minutes = ref(90)
const covers = ref(6)
const house = shallowRef<PracticeHouse>()
const faults = computed(() => job.findings.filter(f => f.outcome === 'fault').length)
function begin() {
  let made = 0
  const { observations } = readJob(writeHouse(job.house), {
    at: new Date().toISOString(),
    by: 'practice',
    nextId: () => `p${made++}`,
  })
  house.value = {
    title: valueOf(job.site.premises, 'name') ?? 'This job',
    log: new Ledger(observations).log(),
    injected: undefined,
    minutes: minutes.value,
    covers: covers.value,
  }
}
</script>

<template>
  <AppShell title="Practice" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <PracticeBoard v-if="house" :house="house" @again="house = undefined" />
      <div v-else class="start">
        <p>
          A round in this house: what is recorded of it is what can be seen there, and its
          {{ faults }} faults are what has to be found. Nothing done in the round changes the job.
        </p>
        <UFormField label="Minutes there are">
          <UInputNumber v-model="minutes" :min="10" :max="600" aria-label="minutes" />
        </UFormField>
        <UFormField label="Covers that may be opened">
          <UInputNumber v-model="covers" :min="0" :max="200" aria-label="covers" />
        </UFormField>
        <UButton
          color="primary"
          size="xl"
          icon="lucide:play"
          label="Begin"
          class="begin"
          :disabled="!job.isReady"
          @click="begin"
        />
      </div>
    </PageState>
  </AppShell>
</template>

<style scoped>
.start {
  display: grid;
  gap: 1.1rem;
  max-width: 46rem;
}
.begin {
  justify-self: start;
}
</style>
