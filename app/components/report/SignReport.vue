<script lang="ts">
import type { ReportVoice, Unsettled } from '#core'

export interface SignReportProps {
  voice: ReportVoice
  unsettled: Unsettled
  /** Of this voice: 0 where none is signed yet. */
  lastNumber: number
}
export interface SignReportEmits {
  signed: []
}
</script>

<script setup lang="ts">
import { REPORT_TITLES } from '#core'
import { Signed } from '#shared/files'

const { voice, unsettled, lastNumber } = defineProps<SignReportProps>()
const emit = defineEmits<SignReportEmits>()
const isOpen = defineModel<boolean>('open', { required: true })
const job = useJobStore()
const device = useDeviceStore()
const by = ref(job.assessor)
const discloses = ref('')
const changes = ref('')
const problem = ref('')
const isBusy = ref(false)
const SHOWN = 8

async function sign() {
  problem.value = ''
  isBusy.value = true
  try {
    // What this device holds belongs into the paper.
    await device.flush()
    if (device.unsentOf(job.jobId ?? '') > 0)
      throw new Error('Some of this is not on the server yet; sign when it is')
    const on = today()
    await api(
      `/api/jobs/${job.jobId}/signed`,
      Signed,
      postJson({ voice, by: by.value, on, discloses: discloses.value, changes: changes.value }),
    )
    isOpen.value = false
    emit('signed')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    isBusy.value = false
  }
}
</script>

<template>
  <UModal
    v-model:open="isOpen"
    :title="lastNumber ? `Amend: revision ${lastNumber + 1}` : 'Sign the report'"
    :description="REPORT_TITLES[voice]"
  >
    <template #body>
      <div class="form" data-testid="sign-report">
        <template v-if="unsettled.total">
          <p>
            <b>{{ unsettled.total }} still open:</b> close them on the walk, or say why they stay
            open. The report discloses it.
          </p>
          <ul class="loops small">
            <li v-for="l in unsettled.loops.slice(0, SHOWN)" :key="l.subject + l.field">
              <b>{{ l.label }}</b> {{ l.text }}
            </li>
            <li v-if="unsettled.loops.length > SHOWN">
              and {{ unsettled.loops.length - SHOWN }} more loose ends
            </li>
            <li v-if="unsettled.questions">
              {{ unsettled.questions }} questions within the scope of the visit
            </li>
          </ul>
          <UFormField label="Why they stay open" required>
            <UTextarea v-model="discloses" :rows="3" :maxlength="2000" autoresize class="w-full" />
          </UFormField>
        </template>
        <UFormField
          v-if="lastNumber"
          label="What the amendment is for"
          help="Findings that changed are listed by themselves."
        >
          <UTextarea v-model="changes" :rows="2" :maxlength="2000" autoresize class="w-full" />
        </UFormField>
        <UFormField label="Signed by" required>
          <UInput v-model="by" :maxlength="120" class="w-full" />
        </UFormField>
        <p class="small soft">
          The report is frozen with a seal as it is now. What is recorded later makes an amendment.
        </p>
        <p v-if="problem" role="alert" class="fails">{{ problem }}</p>
      </div>
    </template>
    <template #footer>
      <UButton
        size="xl"
        icon="lucide:signature"
        :loading="isBusy"
        :disabled="!by.trim() || (unsettled.total > 0 && !discloses.trim())"
        label="Sign"
        @click="sign"
      />
    </template>
  </UModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.9rem;
}
.loops {
  list-style: disc;
  padding-left: 1.2rem;
  max-height: 12rem;
  overflow-y: auto;
}
.fails {
  color: var(--now);
  font-weight: 600;
}
</style>
