<script lang="ts">
import { REPORT_TITLES, valueOf } from '#core'
import {
  Outbox,
  Permits,
  Sent,
  type Permit,
  type Sent as SentRow,
  type Signed,
} from '#shared/files'

export interface SendReportProps {
  /** The paper as it is now, and the signed ones. */
  paper: string
  signed: readonly Signed[]
}
</script>

<script setup lang="ts">
const { paper, signed } = defineProps<SendReportProps>()
const isOpen = defineModel<boolean>('open', { required: true })
const job = useJobStore()
const toast = useToast()
const sent = ref<SentRow[]>([])
const permits = ref<Permit[]>([])
const problem = ref('')
const busy = ref('')
const name = computed(() => valueOf(job.site.premises, 'name') ?? 'your house')
const mail = reactive({ to: '', subject: '', text: '', paper: '' })

const papers = computed(() => [
  ...[...signed].reverse().map(s => ({
    label: `${REPORT_TITLES[s.voice]}, signed, revision ${s.number}`,
    value: s.name,
  })),
  { label: 'As it is now, not signed', value: paper },
])
async function attempt(what: string, run: () => Promise<void>) {
  problem.value = ''
  busy.value = what
  try {
    await run()
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = ''
  }
}
const base = computed(() => `/api/jobs/${job.jobId}`)
const load = () =>
  attempt('load', async () => {
    sent.value = (await api(`${base.value}/outbox`, Outbox)).sent
    permits.value = (await api(`${base.value}/permits`, Permits)).permits
  })
watch(
  isOpen,
  open => {
    if (!open) return
    mail.paper = papers.value[0]?.value ?? paper
    mail.subject = `Report on the wiring: ${name.value}`
    mail.text = `Attached is the report on the wiring of ${name.value}. Ask me about anything in it.`
    void load()
  },
  { immediate: true },
)
const send = () =>
  attempt('mail', async () => {
    await api(`${base.value}/outbox`, Sent, postJson(mail))
    toast.add({ title: 'In the outbox', icon: 'lucide:check' })
    sent.value = (await api(`${base.value}/outbox`, Outbox)).sent
  })
const print = () =>
  attempt('labels', async () => {
    await api(`${base.value}/outbox/labels`, Sent, postJson({}))
    sent.value = (await api(`${base.value}/outbox`, Outbox)).sent
  })
const apply = () =>
  attempt('permit', async () => {
    permits.value = (await api(`${base.value}/permits`, Permits, postJson({}))).permits
  })
const when = (at: string) =>
  new Date(at).toLocaleString('en-US', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <USlideover v-model:open="isOpen" title="Send" :description="name">
    <template #body>
      <div class="form" data-testid="send-report">
        <UFormField label="Paper">
          <USelect v-model="mail.paper" :items="papers" class="w-full" />
        </UFormField>
        <UFormField label="To" required>
          <UInput v-model="mail.to" type="email" placeholder="name@example.org" class="w-full" />
        </UFormField>
        <UFormField label="Subject">
          <UInput v-model="mail.subject" class="w-full" :maxlength="200" />
        </UFormField>
        <UFormField label="Message">
          <UTextarea v-model="mail.text" :rows="4" class="w-full" :maxlength="8000" />
        </UFormField>
        <UButton
          size="xl"
          icon="lucide:send"
          label="Mail it"
          :loading="busy === 'mail'"
          :disabled="!mail.to"
          @click="send"
        />
        <p v-if="problem" role="alert" class="fails">{{ problem }}</p>
        <h3>To the permit office</h3>
        <ul>
          <li v-for="p in permits" :key="p.reference" class="line">
            <b>{{ p.reference }}</b><span class="small soft"
              >{{ p.works }} works · {{ p.state
              }}<template v-if="p.result"> · {{ p.result }}</template></span
            >
          </li>
        </ul>
        <div class="row">
          <UButton
            size="lg"
            color="neutral"
            variant="outline"
            label="Send the permit note"
            :loading="busy === 'permit'"
            @click="apply"
          />
          <UButton
            v-if="permits.length"
            size="lg"
            color="neutral"
            variant="ghost"
            label="Ask again"
            @click="load"
          />
        </div>
        <h3>Labels</h3>
        <UButton
          size="lg"
          color="neutral"
          variant="outline"
          icon="lucide:printer"
          label="Print the labels of the plan"
          :loading="busy === 'labels'"
          @click="print"
        />
        <h3>Went out</h3>
        <p v-if="!sent.length" class="soft">Nothing yet.</p>
        <ul>
          <li v-for="s in sent" :key="s.id" class="line">
            <a class="touch" :href="`${base}/outbox/${s.id}`">{{ s.subject }}</a>
            <span class="small soft">{{ s.to }} · {{ when(s.at) }}</span>
          </li>
        </ul>
        <p class="small soft">
          This Corvit writes mail into its outbox folder, prints labels into a file, and has a small
          permit office of its own.
        </p>
      </div>
    </template>
  </USlideover>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.9rem;
}
h3 {
  font-weight: 700;
  margin-top: 0.6rem;
}
.line {
  display: grid;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
}
.row {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
}
.fails {
  color: var(--now);
  font-weight: 600;
}
</style>
