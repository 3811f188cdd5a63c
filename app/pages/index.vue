<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { Appended, JobList, type JobSummary, type NewJob } from '#shared/api'
import { firstObservations, withClocks, type Problem } from '#core'
import type { LocalJob } from '~/local/replica'

const router = useRouter()
const store = useJobStore()
const toast = useToast()
const device = useDeviceStore()
const session = useSessionStore()
const listed = ref<JobSummary[]>()
const local = shallowRef<LocalJob[]>([])
const isOffline = ref(false)
const lastList = shallowRef<JobSummary[]>([])
const shared = ref<JobSummary>()
const isDemo = ref(false)
const problem = ref('')
const isNew = ref(false)
const importProblems = ref<readonly Problem[]>([])
const importTitle = ref('')
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const busy = ref('')
const formProblem = ref('')

/** A job the server has not counted yet is listed by what this device knows. */
const placeholder = ({ id, name, openedAt, count }: LocalJob): JobSummary => ({
  id,
  name,
  street: '',
  purpose: '',
  yearBuilt: '',
  edition: '',
  createdAt: openedAt,
  changedAt: openedAt,
  observations: count,
  makeSafe: 0,
  repair: 0,
  upgrade: 0,
  record: 0,
  undecided: 0,
  inScope: null,
  imported: 0,
  owner: '',
  isOwn: true,
})
const jobs = computed<JobSummary[] | undefined>(() => {
  const fresh = local.value.filter(j => j.isNew).map(placeholder)
  if (listed.value)
    return [...fresh.filter(j => !listed.value!.some(l => l.id === j.id)), ...listed.value]
  if (!isOffline.value) return undefined
  const here = new Map(
    local.value.filter(j => !j.isNew).map(j => [j.id, j.summary ?? placeholder(j)]),
  )
  return [
    ...fresh,
    ...lastList.value.map(j => here.get(j.id) ?? j),
    ...[...here.values()].filter(j => !lastList.value.some(l => l.id === j.id)),
  ]
})
/** Without a connection only what was opened on this device can be opened. */
const isHere = (job: JobSummary) => !isOffline.value || local.value.some(l => l.id === job.id)

async function load() {
  problem.value = ''
  await device.ready
  local.value = await device.replica.jobs
    .filter(device.isOwn)
    .toArray()
    .catch(() => [])
  lastList.value = (await device.replica.recall<JobSummary[]>('list').catch(() => undefined)) ?? []
  try {
    const answer = await api('/api/jobs', JobList)
    listed.value = answer.jobs
    isDemo.value = answer.isDemo
    isOffline.value = false
    await device.replica.keep('list', answer.jobs).catch(() => undefined)
  } catch (error) {
    isOffline.value = error instanceof ApiFailure && error.code === 'offline'
    if (!isOffline.value) problem.value = (error as Error).message
  }
}
onMounted(() => {
  store.close()
  void load()
  void device.flush()
})
// What was waiting has gone: the list has something new.
watch(
  () => device.unsent,
  (now, before) => {
    if (now === 0 && before > 0) void load()
  },
)
useEventListener(window, 'online', () => void load())
useEventListener(window, 'offline', () => {
  isOffline.value = true
})

/** Made on this device first, so that it needs no network; the server hears of it when there is one. */
async function create(first: NewJob) {
  formProblem.value = ''
  busy.value = 'new'
  try {
    await makeJob(first)
  } catch (error) {
    formProblem.value = (error as Error).message
  } finally {
    busy.value = ''
  }
}
async function makeJob(first: NewJob) {
  const at = new Date().toISOString()
  const by = session.person?.name ?? first.assessor ?? 'assessor'
  const raw = firstObservations(
    { ...first, assessor: first.assessor ?? session.person?.name },
    { at, by, nextId: () => crypto.randomUUID() },
  )
  const observations = withClocks(raw.map(o => ({ ...o, clock: device.stamp(Date.now()) })))
  if (device.storageProblem) {
    // Nothing can be kept here, so the server has to have it at once.
    const { job } = await api('/api/jobs', Appended, postJson(first))
    await router.push(`/jobs/${job.id}/panel`)
    return
  }
  const id = crypto.randomUUID()
  await device.addJob({
    id,
    summary: null,
    name: first.name,
    isNew: true,
    lastSequence: 0,
    count: 0,
    openedAt: at,
  })
  await device.hold(id, observations)
  await router.push(`/jobs/${id}/panel`)
}
async function remove(job: JobSummary) {
  try {
    await apiDone(`/api/jobs/${job.id}`, { method: 'DELETE' })
    await device.replica.forget(job.id).catch(() => undefined)
    toast.add({
      title: `${job.name} is in the trash`,
      actions: [{ label: 'Undo', onClick: () => void restore(job.id) }],
    })
    await load()
  } catch (error) {
    toast.add({ title: (error as Error).message, color: 'error' })
  }
}
async function restore(id: string) {
  await apiDone(`/api/trash/${id}/restore`, postJson({}))
  await load()
}
const menuOf = (job: JobSummary) =>
  job.isOwn && session.may('assessor') && !isOffline.value
    ? [
        [
          {
            label: 'Share',
            icon: 'lucide:share-2',
            onSelect: () => {
              shared.value = job
            },
          },
        ],
        [{ label: 'Delete', icon: 'lucide:trash-2', onSelect: () => void remove(job) }],
      ]
    : []
const ownMenu = computed(() => [
  ...(session.person
    ? [[{ label: session.person.name, icon: 'lucide:user', to: '/account' }]]
    : []),
  [
    ...(session.may('owner')
      ? [{ label: 'People and keeping', icon: 'lucide:users', to: '/people' }]
      : []),
    ...(session.may('assessor') ? [{ label: 'Trash', icon: 'lucide:trash-2', to: '/trash' }] : []),
    { label: 'Not sent yet', icon: 'lucide:cloud-upload', to: '/unsent' },
  ],
])
async function importFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  importProblems.value = []
  importTitle.value = ''
  busy.value = 'import'
  try {
    const { job } = await api('/api/jobs/import', Appended, { method: 'POST', body: file })
    await router.push(`/jobs/${job.id}/panel`)
  } catch (error) {
    importTitle.value = `${file.name} cannot be read; nothing was changed`
    importProblems.value =
      error instanceof ApiFailure && error.problems.length
        ? error.problems
        : [{ path: '(file)', expected: 'a Corvit job file', found: (error as Error).message }]
  } finally {
    busy.value = ''
  }
}
async function resetDemo() {
  busy.value = 'reset'
  try {
    listed.value = (await api('/api/demo/reset', JobList, postJson({}))).jobs
    for (const job of listed.value) await device.replica.forget(job.id).catch(() => undefined)
    toast.add({ title: 'The demo house is as it was at first' })
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = ''
  }
}
const PROBLEM_COLUMNS = [
  { accessorKey: 'path', header: 'Where' },
  { accessorKey: 'expected', header: 'Expected' },
  { accessorKey: 'found', header: 'Found' },
]
</script>

<template>
  <AppShell title="Jobs" class="jobs">
    <template #tools>
      <div class="acts">
        <UButton
          color="neutral"
          variant="outline"
          class="plain open"
          icon="lucide:upload"
          :loading="busy === 'import'"
          :label="busy === 'import' ? 'Reading the file' : 'Open a job file'"
          @click="chooser?.click()"
        />
        <!-- The button opens the browser's own chooser of files, which only this element can do. -->
        <input
          ref="chooser"
          type="file"
          accept=".json,application/json"
          class="sr-only"
          tabindex="-1"
          aria-hidden="true"
          @change="importFile"
        />
        <UButton color="primary" variant="solid" class="go" @click="isNew = !isNew">
          <UIcon name="lucide:plus" /> New job
        </UButton>
        <UDropdownMenu :items="ownMenu"
          ><UButton
            color="neutral"
            variant="outline"
            size="xl"
            icon="lucide:menu"
            aria-label="account, people, trash"
            data-testid="own-menu"
        /></UDropdownMenu>
      </div>
    </template>

    <UAlert
      v-if="isOffline"
      class="mb-4"
      color="neutral"
      variant="subtle"
      icon="lucide:cloud-off"
      title="No connection"
      description="Jobs opened on this device can be worked on; what is recorded is sent when there is a connection."
    />
    <UAlert
      v-if="device.unsent"
      class="mb-4"
      color="warning"
      variant="subtle"
      icon="lucide:cloud-upload"
      :title="`${device.unsent} not on the server yet`"
      :actions="[{ label: 'Show', to: '/unsent', color: 'neutral', variant: 'outline' }]"
    />

    <section v-if="importTitle" class="bad" role="alert" data-testid="import-problems">
      <h2>{{ importTitle }}</h2>
      <UTable :data="[...importProblems]" :columns="PROBLEM_COLUMNS" />
      <UButton color="primary" variant="link" class="touch" @click="importTitle = ''"
        >close</UButton
      >
    </section>

    <NewJobForm
      v-if="isNew"
      :busy="busy === 'new'"
      :refusal="formProblem"
      @make="create"
      @leave="isNew = false"
    />

    <div v-if="problem" role="alert" class="state">
      <h2>The list could not be read</h2>
      <p class="soft">{{ problem }}</p>
      <UButton color="neutral" variant="outline" class="plain" @click="load">Try again</UButton>
    </div>
    <p v-else-if="!jobs" class="state soft" role="status">Reading the jobs</p>
    <div v-else-if="!jobs.length" class="state">
      <h2>No jobs yet</h2>
      <p class="soft">
        Start one with its purpose, the year built and the code edition; then draw the first panel.
      </p>
      <UButton color="primary" variant="solid" class="go" @click="isNew = true">New job</UButton>
    </div>
    <JobRows
      v-if="jobs?.length"
      :jobs="jobs"
      :is-here="isHere"
      :unsent-of="device.unsentOf"
      :menu-of="menuOf"
    />
    <ShareJob
      v-if="shared"
      :open="true"
      :job-id="shared.id"
      :name="shared.name"
      @update:open="shared = undefined"
    />
    <footer class="foot small soft">
      <p v-if="isDemo">
        This is a demo: nobody signs in, and everything in it is made up.
        <UButton
          color="primary"
          variant="link"
          class="touch"
          :disabled="busy === 'reset'"
          @click="resetDemo"
        >
          Put it back as it was
        </UButton>
      </p>
      <p>
        Corvit’s answers are a second opinion, not an approval. Local law and the local inspector
        decide; work on or near live parts is for qualified people.
      </p>
    </footer>
  </AppShell>
</template>

<style scoped>
.bad {
  border-left: 7px solid var(--repair);
  background: var(--sheet);
  padding: 0.9rem 1.1rem;
  margin-bottom: 1.2rem;
  overflow-x: auto;
}
.bad .touch {
  min-height: 44px;
}
.state {
  display: grid;
  gap: 0.7rem;
  justify-items: start;
  padding: 2rem 0;
}
.foot {
  margin-top: 2rem;
  display: grid;
  gap: 0.4rem;
}
.foot .touch {
  min-height: 32px;
}
.acts {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
  justify-content: flex-end;
}
@media (max-width: 900px) {
  /* Its icon stays; the words are for those who hear the page. */
  .acts .open :deep([data-slot='label']) {
    position: absolute;
    clip-path: inset(50%);
  }
  .acts .plain,
  .acts .go {
    padding: 0 0.7rem;
    white-space: nowrap;
  }
}
</style>
