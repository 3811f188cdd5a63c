<script setup lang="ts">
import { MergeAnswer } from '#shared/files'
import type { Problem } from '#core'

const job = useJobStore()
const file = ref<File | null>(null)
const answer = ref<MergeAnswer>()
const problems = ref<readonly Problem[]>([])
const failure = ref('')
const isBusy = ref(false)

/** Another copy of this job is put together with it; what differs is shown with both values. */
async function merge(chosen: File | null | undefined) {
  if (!chosen) return
  answer.value = undefined
  failure.value = ''
  problems.value = []
  isBusy.value = true
  try {
    const type = chosen.name.endsWith('.zip') ? 'application/zip' : 'application/json'
    answer.value = await api(`/api/jobs/${job.jobId}/merge`, MergeAnswer, {
      method: 'POST',
      body: chosen,
      headers: { 'content-type': type },
    })
  } catch (error) {
    failure.value = `${chosen.name}: nothing was changed`
    problems.value =
      error instanceof ApiFailure && error.problems.length
        ? error.problems
        : [{ path: '(file)', expected: 'a copy of this job', found: (error as Error).message }]
  } finally {
    isBusy.value = false
    file.value = null
  }
}
watch(file, merge)
</script>

<template>
  <div class="merge" data-testid="merge">
    <UFileUpload
      v-slot="{ open: choose }"
      v-model="file"
      accept=".json,.zip,application/json,application/zip"
      :preview="false"
      aria-label="merge another copy of this job"
    >
      <UButton
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:git-merge"
        label="Merge another copy"
        :loading="isBusy"
        @click="choose()"
      />
    </UFileUpload>
    <p v-if="isBusy" class="small soft" role="status">Reading the copy</p>
    <div v-if="failure" role="alert" class="fails">
      <b>{{ failure }}</b>
      <p v-for="p in problems" :key="p.path" class="small">
        {{ p.path }}: expected {{ p.expected }}, found {{ p.found }}
      </p>
    </div>
    <div v-if="answer" class="small" data-testid="merged">
      <p>
        {{ answer.stored }} new, {{ answer.known }} known already, {{ answer.photos }} photographs.
      </p>
      <template v-if="answer.conflicts.length">
        <p>
          <b>Seen differently:</b>
          <NuxtLink class="touch" :to="`/jobs/${job.jobId}/opinions`">decide</NuxtLink>
        </p>
        <p v-for="c in answer.conflicts" :key="c.thing + c.field">
          {{ c.thing }}, {{ c.field }}:
          <span v-for="v in c.values" :key="v.value + v.by">{{ v.value }} ({{ v.by }}) </span>
        </p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.merge {
  display: grid;
  gap: 0.4rem;
  margin-top: 0.4rem;
}
.fails {
  color: var(--now);
}
</style>
