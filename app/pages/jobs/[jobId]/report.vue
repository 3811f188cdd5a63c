<script setup lang="ts">
import {
  differenceOf,
  differenceWords,
  houseAt,
  JOB_STAGES,
  Ledger,
  logLine,
  logSince,
  REPORT_VOICES,
  signingsOf,
  stageOf,
  valueOf,
  type FindingMark,
  type ReportVoice,
} from '#core'
import { DEFAULT_OWN, OwnSettings, SignedList, type Signed } from '#shared/files'
import type { Written } from '~/workers/judge.worker'

const WORDS: Readonly<Record<ReportVoice, string>> = {
  inspector: 'Inspector',
  electrician: 'Electrician',
  corrections: 'Corrections',
  household: 'Household',
  insurance: 'Insurer',
  rental: 'Rental',
}
const TABS = REPORT_VOICES.map(value => ({ value, label: WORDS[value] }))

const { job, problem, isLoading, load } = useOpenJob()
const session = useSessionStore()
const own = ref<OwnSettings>(DEFAULT_OWN)
const voice = ref<ReportVoice>('inspector')
const written = shallowRef<Written>()
const signed = ref<Signed[]>([])
const failure = ref('')
const edited = shallowRef<FindingMark>()
const isEditing = computed({
  get: () => edited.value !== undefined,
  set: open => {
    if (!open) edited.value = undefined
  },
})
const isSigning = ref(false)
const isSending = ref(false)

/** Written on this device, so that it needs no network; the server writes the same from the same log. */
async function write() {
  failure.value = ''
  try {
    written.value = await job.report(voice.value)
  } catch (error) {
    failure.value = (error as Error).message
  }
}
/** Without a connection there is the report, and nothing to sign it with. */
async function readSigned() {
  try {
    signed.value = (await api(`/api/jobs/${job.jobId}/signed`, SignedList)).signed
  } catch {
    signed.value = []
  }
}
watch(
  [() => isLoading.value, voice, () => job.house],
  () => {
    if (!isLoading.value && !problem.value) void write()
  },
  { immediate: true },
)
watch(isLoading, loading => {
  if (!loading) void readSigned()
})
onMounted(async () => {
  try {
    own.value = await api('/api/me/settings', OwnSettings)
    voice.value = own.value.voice
  } catch {
    own.value = DEFAULT_OWN
  }
})
const ofVoice = computed(() => signed.value.filter(s => s.voice === voice.value))
const last = computed(() => ofVoice.value.at(-1))
/** What was recorded since the last signature of this report, and what it changes. */
const since = computed(() => {
  const signing = signingsOf(job.house)
    .filter(s => valueOf(s, 'voice') === voice.value)
    .at(-1)
  if (!signing) return undefined
  const ledger = new Ledger(job.log())
  const log = logSince(ledger, signing)
  if (log.length === 0) return { lines: [], count: 0, changes: [] }
  return {
    lines: log.slice(-12).map(o => logLine(job.house, o)),
    count: log.length,
    changes: differenceWords(differenceOf(houseAt(ledger, signing), job.house)),
  }
})
const print = () => window.print()
const mayWrite = computed(() => session.may('assessor'))
</script>

<template>
  <AppShell title="Report" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState
      :is-loading="isLoading"
      :problem="problem || failure"
      @again="problem ? load() : write()"
    >
      <div class="desk">
        <div class="top no-print">
          <div class="acts">
            <UButton
              size="xl"
              icon="lucide:file-text"
              label="PDF"
              :href="`/api/jobs/${job.jobId}/papers/report-${voice}`"
              external
            />
            <UButton
              v-if="mayWrite"
              size="xl"
              color="neutral"
              variant="outline"
              icon="lucide:signature"
              :disabled="!written"
              :label="last ? 'Amend' : 'Sign'"
              @click="isSigning = true"
            />
            <UButton
              v-if="mayWrite"
              size="xl"
              color="neutral"
              variant="outline"
              icon="lucide:send"
              label="Send"
              @click="isSending = true"
            />
            <UButton
              size="xl"
              color="neutral"
              variant="ghost"
              class="max-sm:hidden"
              icon="lucide:printer"
              label="Print"
              @click="print"
            />
          </div>
        </div>
        <div class="left">
          <UTabs
            v-model="voice"
            class="no-print voices"
            variant="link"
            :content="false"
            :items="TABS"
            :ui="{
              list: 'overflow-x-auto',
              trigger: 'min-h-11 shrink-0',
              label: 'overflow-visible',
            }"
          />
          <p v-if="!written" class="soft" role="status">Writing the report</p>
          <PaperSheet
            v-else
            :paper="written.paper"
            :job-id="job.jobId ?? ''"
            can-edit
            @edit="edited = $event"
          />
        </div>
        <aside class="side no-print" aria-label="what to do with it">
          <UFormField label="State of the job">
            <USelect
              :model-value="stageOf(job.house)"
              :items="[...JOB_STAGES]"
              size="lg"
              class="w-full"
              @update:model-value="s => job.note('premises', 'stage', s, 'told')"
            />
          </UFormField>
          <section v-if="written">
            <h2>Before it is signed</h2>
            <p v-if="written.unsettled.total === 0">Nothing is open.</p>
            <p v-else>
              <b>{{ written.unsettled.total }}</b> open: {{ written.unsettled.loops.length }} loose
              ends, {{ written.unsettled.questions }} questions of the visit<template
                v-if="written.unsettled.rivals"
                >, {{ written.unsettled.rivals }} seen differently</template
              >.
              <NuxtLink class="touch" :to="`/jobs/${job.jobId}/walk`">To the walk</NuxtLink>
            </p>
          </section>
          <section v-if="signed.length" data-testid="signed">
            <h2>Signed</h2>
            <ul>
              <li v-for="s in signed" :key="s.name" class="line">
                <a class="touch" :href="`/api/jobs/${job.jobId}/signed/${s.name}`"
                  ><UIcon name="lucide:lock" /> {{ WORDS[s.voice] }}, revision {{ s.number }}</a
                >
                <span class="small soft"
                  >{{ s.signedBy }}, {{ s.signedOn }} · seal {{ s.hash.slice(0, 12) }}</span
                >
              </li>
            </ul>
          </section>
          <section v-if="since" data-testid="since">
            <h2>Since it was signed</h2>
            <p v-if="!since.count" class="soft">Nothing was recorded.</p>
            <template v-else>
              <ul class="dots small">
                <li v-for="c in since.changes" :key="c">{{ c }}</li>
              </ul>
              <p class="small soft">{{ since.count }} recorded, the last of them:</p>
              <ul class="small soft">
                <li v-for="(l, i) in since.lines" :key="i">{{ l }}</li>
              </ul>
            </template>
          </section>
          <section>
            <h2>The next visit</h2>
            <NuxtLink class="touch file" :to="`/jobs/${job.jobId}/return`"
              ><UIcon name="lucide:undo-2" /> Return visit</NuxtLink
            >
            <a class="touch file" :href="`/api/jobs/${job.jobId}/visits.ics`"
              ><UIcon name="lucide:calendar" /> Visits for the calendar</a
            >
          </section>
          <section>
            <h2>Files</h2>
            <a class="touch file" :href="`/api/jobs/${job.jobId}/bundle`"
              ><UIcon name="lucide:package" /> Everything, with photographs</a
            >
            <a class="touch file" :href="`/api/jobs/${job.jobId}/export?form=log`"
              ><UIcon name="lucide:download" /> Job file</a
            >
            <a class="touch file" :href="`/api/jobs/${job.jobId}/export?form=house`"
              ><UIcon name="lucide:download" /> Plain house</a
            >
            <a class="touch file" :href="`/api/jobs/${job.jobId}/schedule.csv`"
              ><UIcon name="lucide:table" /> Panel schedule, CSV</a
            >
            <MergeCopy v-if="mayWrite" />
          </section>
        </aside>
      </div>
      <EditFinding
        v-if="edited"
        v-model:open="isEditing"
        :finding="edited"
        :phrases="own.phrases"
      />
      <SignReport
        v-if="isSigning && written"
        v-model:open="isSigning"
        :voice="voice"
        :unsettled="written.unsettled"
        :last-number="last?.number ?? 0"
        @signed="readSigned"
      />
      <SendReport
        v-if="isSending"
        v-model:open="isSending"
        :paper="`report-${voice}`"
        :signed="signed"
      />
    </PageState>
  </AppShell>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 52rem) minmax(15rem, 20rem);
  gap: 0.8rem 1.6rem;
  align-items: start;
}
.left {
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
}
.side {
  display: grid;
  gap: 1.2rem;
  position: sticky;
  top: 0.5rem;
}
.top {
  grid-column: 1 / -1;
}
.side h2 {
  font-size: 1rem;
  margin-bottom: 0.3rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.line {
  display: grid;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
.file {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
}
.dots {
  list-style: disc;
  padding-left: 1.1rem;
}
@media (max-width: 900px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
  }
}
</style>
