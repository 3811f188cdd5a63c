<script setup lang="ts">
import { useEventListener, watchDebounced } from '@vueuse/core'
import { Appended, JobList, type JobSummary, type NewJob } from '#shared/api'
import { firstObservations, JOB_STAGES, withClocks, type JobStage, type Problem } from '#core'
import { DEFAULT_OWN, ownFactsOf, OwnSettings } from '#shared/files'
import type { LocalJob } from '~/local/replica'

const router = useRouter()
const store = useJobStore()
const toast = useToast()
const device = useDeviceStore()
const session = useSessionStore()
const listed = ref<JobSummary[]>()
const total = ref(0)
const search = ref('')
const stage = ref<'all' | 'today' | 'archived' | JobStage>('all')
const STAGES = [
  { value: 'all', label: 'All' },
  { value: 'today', label: 'Today' },
  ...JOB_STAGES.map(value => ({ value, label: value.charAt(0).toUpperCase() + value.slice(1) })),
  { value: 'archived', label: 'Archived' },
]
const isFiltered = computed(() => search.value.trim() !== '' || stage.value !== 'all')
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
  stage: 'planned',
  nextOn: '',
  imported: 0,
  owner: '',
  isOwn: true,
})
const jobs = computed<JobSummary[] | undefined>(() => {
  const fresh = isFiltered.value ? [] : local.value.filter(j => j.isNew).map(placeholder)
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

/** Jobs asked for at a time; more come as they are scrolled to. */
const PAGE = 50
function listUrl(offset: number): string {
  const query = new URLSearchParams({ offset: String(offset), limit: String(PAGE) })
  if (search.value.trim()) query.set('search', search.value.trim())
  if (stage.value === 'today') query.set('on', today())
  else if (stage.value === 'archived') query.set('archived', '1')
  else if (stage.value !== 'all') query.set('stage', stage.value)
  return `/api/jobs?${query}`
}
let isFetching = false
async function more() {
  if (isFetching || !listed.value || listed.value.length >= total.value) return
  isFetching = true
  const asked = listUrl(listed.value.length)
  try {
    const answer = await api(asked, JobList)
    const known = new Set(listed.value.map(j => j.id))
    if (asked === listUrl(listed.value.length))
      listed.value = [...listed.value, ...answer.jobs.filter(j => !known.has(j.id))]
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    isFetching = false
  }
}
watchDebounced([search, stage], () => void load(), { debounce: 120 })

/** What this device has of its own: jobs the server has not counted, and the list as it was last. */
async function readDevice() {
  await device.ready
  const [own, last] = await Promise.all([
    device.replica.jobs
      .filter(device.isOwn)
      .toArray()
      .catch(() => []),
    device.replica.recall<JobSummary[]>('list').catch(() => undefined),
  ])
  local.value = own
  lastList.value = last ?? []
}
/** The newest question: an answer to an earlier one that comes late is let go. */
let asked = 0
async function load() {
  const mine = ++asked
  problem.value = ''
  const isNarrowed = isFiltered.value
  // Nothing on the device is shown among what was searched for, so nobody waits for it.
  const reading = readDevice()
  if (!isNarrowed) await reading
  try {
    const answer = await api(listUrl(0), JobList)
    if (mine !== asked) return
    listed.value = answer.jobs
    total.value = answer.total
    isDemo.value = answer.isDemo
    isOffline.value = false
    if (!isNarrowed) await device.replica.keep('list', answer.jobs).catch(() => undefined)
  } catch (error) {
    if (mine !== asked) return
    isOffline.value = error instanceof ApiFailure && error.code === 'offline'
    if (!isOffline.value) problem.value = (error as Error).message
  }
}
/** A copy stays on the device, so that a job made without a network begins with it too. */
const own = ref<OwnSettings>(DEFAULT_OWN)
async function readOwn() {
  const kept = OwnSettings.safeParse(await device.replica.recall('own').catch(() => undefined))
  if (kept.success) own.value = kept.data
  try {
    own.value = await api('/api/me/settings', OwnSettings)
    await device.replica.keep('own', JSON.parse(JSON.stringify(own.value)))
  } catch {
    // Without a connection the copy serves.
  }
}
onMounted(() => {
  store.close()
  void device.ready.then(readOwn)
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
    { ...first, own: ownFactsOf(own.value), assessor: first.assessor ?? session.person?.name },
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
async function archive(job: JobSummary, isArchived: boolean) {
  try {
    await apiDone(`/api/jobs/${job.id}/archive`, postJson({ isArchived }))
    toast.add({
      title: isArchived ? `${job.name} is in the archive` : `${job.name} is in the list again`,
      actions: [{ label: 'Undo', onClick: () => void archive(job, !isArchived) }],
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
        [
          stage.value === 'archived'
            ? {
                label: 'Take out of the archive',
                icon: 'lucide:archive-restore',
                onSelect: () => void archive(job, false),
              }
            : { label: 'Archive', icon: 'lucide:archive', onSelect: () => void archive(job, true) },
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
    { label: 'Your settings', icon: 'lucide:settings-2', to: '/settings' },
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
    const type = file.name.endsWith('.zip') ? 'application/zip' : 'application/json'
    const { job } = await api('/api/jobs/import', Appended, {
      method: 'POST',
      body: file,
      headers: { 'content-type': type },
    })
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
          accept=".json,.zip,application/json,application/zip"
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
      :edition="own.edition"
      @make="create"
      @leave="isNew = false"
    />

    <div v-if="!isOffline && (jobs?.length || isFiltered)" class="find">
      <UInput
        v-model="search"
        size="xl"
        icon="lucide:search"
        class="words"
        placeholder="Name, street, client, finding"
        aria-label="search jobs by name, street, client or finding"
        type="search"
      />
      <UTabs
        v-model="stage"
        class="max-w-full"
        variant="pill"
        color="neutral"
        size="sm"
        :content="false"
        :items="STAGES"
        :ui="{
          list: 'overflow-x-auto',
          trigger: 'min-h-9 grow-0 shrink-0',
          label: 'overflow-visible',
        }"
      />
      <span class="small soft" data-testid="total" role="status">{{ total }} jobs</span>
    </div>
    <p v-if="jobs && !jobs.length && isFiltered" class="state soft" data-testid="none-found">
      No job is found by that.
    </p>

    <div v-if="problem" role="alert" class="state">
      <h2>The list could not be read</h2>
      <p class="soft">{{ problem }}</p>
      <UButton color="neutral" variant="outline" class="plain" @click="load">Try again</UButton>
    </div>
    <p v-else-if="!jobs" class="state soft" role="status">Reading the jobs</p>
    <div v-else-if="!jobs.length && !isFiltered" class="state">
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
      @more="more"
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
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
  margin-bottom: 0.9rem;
}
.words {
  flex: 1 1 16rem;
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
