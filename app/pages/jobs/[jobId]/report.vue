<script setup lang="ts">
import { REPORT_VOICES, valueOf, type Report, type ReportVoice } from '#core'

const PDF_WORDS: Readonly<Record<ReportVoice, string>> = {
  inspector: 'Inspector',
  electrician: 'Electrician',
  corrections: 'Corrections',
  household: 'Household',
}

const { job, problem, isLoading, load } = useOpenJob()
const voice = ref<'inspector' | 'electrician'>('inspector')
const report = shallowRef<Report>()
const failure = ref('')
/**
 * Written on this device from what it has, so that it needs no network; the server writes the same
 * from the same log.
 */
async function fetchReport() {
  failure.value = ''
  try {
    report.value = await job.report(voice.value)
  } catch (error) {
    failure.value = (error as Error).message
  }
}
watch(
  [() => isLoading.value, voice, () => job.house],
  () => {
    if (!isLoading.value && !problem.value) void fetchReport()
  },
  { immediate: true },
)
const print = () => window.print()
</script>

<template>
  <AppShell title="Report" :subtitle="valueOf(job.site.premises, 'name')">
    <PageState
      :is-loading="isLoading"
      :problem="problem || failure"
      @again="problem ? load() : fetchReport()"
    >
      <div class="bar no-print">
        <UButton
          v-for="v in ['inspector', 'electrician'] as const"
          :key="v"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="voice === v"
          @click="voice = v"
        >
          {{ v }}
        </UButton>
        <span class="grow" />
        <a class="plain" :href="`/api/jobs/${job.jobId}/export?form=log`"
          ><UIcon name="lucide:download" /> job file</a
        >
        <a class="plain" :href="`/api/jobs/${job.jobId}/export?form=house`">plain house</a>
        <a class="plain" :href="`/api/jobs/${job.jobId}/schedule.csv`">schedule CSV</a>
        <UButton color="primary" variant="solid" class="go" @click="print">
          <UIcon name="lucide:printer" /> Print
        </UButton>
      </div>
      <p class="pdfs no-print">
        <span class="soft">As PDF:</span>
        <a
          v-for="v in REPORT_VOICES"
          :key="v"
          class="touch pdf"
          :href="`/api/jobs/${job.jobId}/papers/report-${v}`"
          ><UIcon name="lucide:file-text" /> {{ PDF_WORDS[v] }}</a
        >
      </p>
      <p v-if="!report" class="soft" role="status">Writing the report</p>
      <ReportPaper v-else :report="report" />
    </PageState>
  </AppShell>
</template>

<style scoped>
.pdfs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.pdf {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
  min-height: 44px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-bottom: 1rem;
}
.grow {
  flex: 1;
}
</style>
