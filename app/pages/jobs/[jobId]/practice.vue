<script setup lang="ts">
import { Ledger, readJob, valueOf, writeHouse, type Observation } from '#core'
import { useClipboard } from '@vueuse/core'
import type { PracticeHouse } from '~/composables/usePractice'

/**
 * A round a supervisor makes of this very job: what is recorded is what can be seen, all its faults are wanted, and
 * more can be put in. How it is made stands in the address, so that an apprentice who opens it plays the same.
 */
const { job, problem, isLoading, load } = useOpenJob()
const { make, isMaking, problem: notMade } = usePracticeMaker()
const { setUp, address } = useRoundAddress({ minutes: 90, covers: 6, faults: 0, seed: 1 })
const house = shallowRef<PracticeHouse>()
const faults = computed(() => job.findings.filter(f => f.outcome === 'fault').length)
const { copy, copied } = useClipboard()

function recordedLog(): readonly Observation[] {
  let made = 0
  const { observations } = readJob(writeHouse(job.house), {
    at: new Date().toISOString(),
    by: 'practice',
    nextId: () => `p${made++}`,
  })
  return new Ledger(observations).log()
}
function begin() {
  const { minutes, covers, theme, seed, faults: count } = setUp
  const title = valueOf(job.site.premises, 'name') ?? 'This job'
  // A worker is told plain data only.
  const log = JSON.parse(JSON.stringify(recordedLog())) as Observation[]
  make(
    { log, seed, faults: count, theme },
    made => (house.value = { title, log: made.log, injected: undefined, minutes, covers }),
  )
}
</script>

<template>
  <AppShell title="Practice" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <PracticeBoard v-if="house" :house="house" @again="house = undefined" />
      <div v-else class="start">
        <p v-if="faults">
          A round in this house: what is recorded of it is what can be seen there, and its
          {{ faults }} {{ faults === 1 ? 'fault is' : 'faults are' }} what has to be found. Nothing
          done in the round changes the job.
        </p>
        <p v-else>
          A round in this house. No fault has been found in it, so put some in below, or practice in
          <NuxtLink class="underline" to="/practice">a house made up for it</NuxtLink>.
        </p>
        <div class="pair">
          <UFormField label="Minutes there are">
            <UInputNumber
              size="xl"
              v-model="setUp.minutes"
              :min="10"
              :max="600"
              aria-label="minutes"
            />
          </UFormField>
          <UFormField label="Covers that may be opened">
            <UInputNumber
              size="xl"
              v-model="setUp.covers"
              :min="0"
              :max="200"
              aria-label="covers"
            />
          </UFormField>
        </div>
        <UFormField
          label="Faults to put in besides"
          help="Into the copy that is played; instruments read what they bring about"
        >
          <UInputNumber
            size="xl"
            v-model="setUp.faults"
            :min="0"
            :max="MOST_PUT_IN"
            aria-label="faults to put in"
          />
        </UFormField>
        <template v-if="setUp.faults > 0">
          <ThemePick v-model="setUp.theme" />
          <UFormField label="Number" help="The same number puts in the same faults">
            <UInputNumber
              size="xl"
              v-model="setUp.seed"
              :min="1"
              :max="99999"
              :format-options="{ useGrouping: false }"
              aria-label="number"
            />
          </UFormField>
        </template>
        <p v-if="notMade" role="alert" class="fails">
          This round could not be made: {{ notMade }}.
        </p>
        <div class="acts">
          <UButton
            color="primary"
            size="xl"
            icon="lucide:play"
            label="Begin"
            data-testid="begin"
            :loading="isMaking"
            :disabled="!job.isReady || (!faults && !setUp.faults)"
            @click="begin"
          />
          <UButton
            color="neutral"
            variant="outline"
            size="xl"
            icon="lucide:link"
            :label="copied ? 'Copied' : 'Copy the address of this round'"
            @click="copy(address)"
          />
        </div>
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
.pair,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.pair {
  gap: 1.1rem;
}
.acts {
  gap: 0.8rem;
}
</style>
