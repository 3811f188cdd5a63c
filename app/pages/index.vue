<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { Appended, JobList, NewJob, PURPOSES, type JobSummary } from '#shared/api'
import { EDITIONS, firstObservations, withClocks, type Problem } from '#core'
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
const busy = ref('')
const form = reactive({
  name: '',
  street: '',
  purpose: 'purchase' as (typeof PURPOSES)[number],
  yearBuilt: '',
  edition: 2020 as (typeof EDITIONS)[number],
  assessor: '',
})
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
async function create() {
  const input = {
    name: form.name,
    purpose: form.purpose,
    edition: form.edition,
    ...(form.street.trim() && { street: form.street }),
    ...(form.assessor.trim() && { assessor: form.assessor }),
    ...(form.yearBuilt.trim() && { yearBuilt: Number(form.yearBuilt) }),
  }
  const parsed = NewJob.safeParse(input)
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!
    const names: Record<string, string> = {
      name: 'Name',
      yearBuilt: 'Year built',
      street: 'Street',
      edition: 'Edition',
    }
    formProblem.value = `${names[String(issue.path[0])] ?? 'Form'}: ${issue.message}`
    return
  }
  formProblem.value = ''
  busy.value = 'new'
  try {
    await makeJob(parsed.data)
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
const LEGEND = [
  ['make safe now', 'make safe now'],
  ['repair', 'repair'],
  ['upgrade', 'upgrade'],
  ['note', 'note'],
  ['undecided', 'not decided'],
] as const
const marks = (job: JobSummary) =>
  [
    ['make safe now', job.makeSafe],
    ['repair', job.repair],
    ['upgrade', job.upgrade],
    ['note', job.record],
    ['undecided', job.undecided],
  ] as const
</script>

<template>
  <main class="jobs">
    <header class="top">
      <div>
        <p class="mark">corvit</p>
        <h1>Jobs</h1>
      </div>
      <div class="acts">
        <label class="plain" :class="{ busy: busy === 'import' }"
          ><UIcon name="lucide:upload" />
          {{ busy === 'import' ? 'reading the file' : 'open a job file'
          }}<input type="file" accept=".json,application/json" class="sr-only" @change="importFile"
        /></label>
        <button type="button" class="go" @click="isNew = !isNew">
          <UIcon name="lucide:plus" /> New job
        </button>
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
    </header>

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
      <table>
        <thead>
          <tr>
            <th>where</th>
            <th>expected</th>
            <th>found</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(p, i) in importProblems" :key="i">
            <td class="mono">{{ p.path }}</td>
            <td>{{ p.expected }}</td>
            <td>{{ p.found }}</td>
          </tr>
        </tbody>
      </table>
      <button type="button" class="touch" @click="importTitle = ''">close</button>
    </section>

    <form v-if="isNew" class="new" @submit.prevent="create">
      <h2>New job</h2>
      <label
        >Name of the job<input
          v-model="form.name"
          class="field"
          name="name"
          maxlength="200"
          autofocus
      /></label>
      <label
        >Street <span class="soft small">optional</span
        ><input v-model="form.street" class="field" name="street" maxlength="200"
      /></label>
      <fieldset>
        <legend>What for</legend>
        <div class="row">
          <button
            v-for="p in PURPOSES"
            :key="p"
            type="button"
            class="chip"
            :aria-pressed="form.purpose === p"
            @click="form.purpose = p"
          >
            {{ p }}
          </button>
        </div>
      </fieldset>
      <label
        >Year built <span class="soft small">as far as it is known</span
        ><input
          v-model="form.yearBuilt"
          class="field short"
          name="yearBuilt"
          inputmode="numeric"
          maxlength="4"
      /></label>
      <fieldset>
        <legend>Code edition in force there</legend>
        <div class="row">
          <button
            v-for="e in EDITIONS"
            :key="e"
            type="button"
            class="chip"
            :aria-pressed="form.edition === e"
            @click="form.edition = e"
          >
            {{ e }}
          </button>
        </div>
      </fieldset>
      <label
        >Your name <span class="soft small">goes with every observation</span
        ><input v-model="form.assessor" class="field" name="assessor" maxlength="120"
      /></label>
      <p v-if="formProblem" role="alert" class="why">{{ formProblem }}</p>
      <div class="row">
        <button type="submit" class="go" :disabled="busy === 'new'">Start</button
        ><button type="button" class="plain" @click="isNew = false">Cancel</button>
      </div>
    </form>

    <div v-if="problem" role="alert" class="state">
      <h2>The list could not be read</h2>
      <p class="soft">{{ problem }}</p>
      <button type="button" class="plain" @click="load">Try again</button>
    </div>
    <p v-else-if="!jobs" class="state soft" role="status">Reading the jobs</p>
    <div v-else-if="!jobs.length" class="state">
      <h2>No jobs yet</h2>
      <p class="soft">
        Start one with its purpose, the year built and the code edition; then draw the first panel.
      </p>
      <button type="button" class="go" @click="isNew = true">New job</button>
    </div>
    <div v-else class="legend small soft" aria-hidden="true">
      <span v-for="[kind, word] in LEGEND" :key="kind"
        ><SeverityMark :kind="kind" :size="12" />{{ word }}</span
      >
    </div>
    <ul v-if="jobs?.length" class="list">
      <li v-for="job in jobs" :key="job.id">
        <NuxtLink :to="`/jobs/${job.id}/panel`" class="job">
          <span class="name"
            ><b>{{ job.name || 'without a name' }}</b
            ><span class="small soft">{{
              [
                job.street,
                job.purpose,
                job.yearBuilt && `built ${job.yearBuilt}`,
                job.edition && `${job.edition} code`,
              ]
                .filter(Boolean)
                .join(' · ')
            }}</span></span
          >
          <span class="marks"
            ><span v-for="[kind, n] in marks(job)" :key="kind" class="n" :title="kind"
              ><SeverityMark :kind="kind" />{{ n }}</span
            ></span
          >
          <span class="small soft when"
            >{{ job.observations.toLocaleString('en') }} observations<b
              v-if="!isHere(job)"
              class="absent"
              >not on this device</b
            ><b v-if="device.unsentOf(job.id)" class="unsent"
              >{{ device.unsentOf(job.id) }} not sent</b
            ></span
          >
        </NuxtLink>
        <UDropdownMenu v-if="menuOf(job).length" :items="menuOf(job)"
          ><UButton
            color="neutral"
            variant="ghost"
            size="xl"
            icon="lucide:ellipsis-vertical"
            :aria-label="`share or delete ${job.name}`"
        /></UDropdownMenu>
      </li>
    </ul>
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
        <button type="button" class="touch" :disabled="busy === 'reset'" @click="resetDemo">
          Put it back as it was
        </button>
      </p>
      <p>
        Corvit’s answers are a second opinion, not an approval. Local law and the local inspector
        decide; work on or near live parts is for qualified people.
      </p>
    </footer>
  </main>
</template>

<style scoped>
.jobs {
  max-width: 60rem;
  margin: 0 auto;
  padding: 1.6rem 1.4rem 3rem;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: flex-end;
  gap: 1rem;
  flex-wrap: wrap;
  margin-bottom: 1.4rem;
}
.mark {
  font-weight: 700;
  color: var(--touch);
}
h1 {
  font-size: 1.7rem;
}
.acts,
.row {
  display: flex;
  gap: 0.5rem;
  flex-wrap: wrap;
}
.list {
  border-top: 1px solid var(--line);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.1rem;
  justify-content: flex-end;
  margin-bottom: 0.5rem;
}
.legend span {
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
}
.job {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 9.5rem;
  gap: 1.6rem;
  align-items: center;
  min-height: 72px;
}
li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.job {
  flex: 1;
  min-width: 0;
}
.absent {
  display: block;
  font-weight: 400;
}
.unsent {
  display: block;
  color: var(--repair);
}
.job:hover b {
  color: var(--touch);
}
.name {
  display: grid;
}
.name b {
  font-size: 1.1rem;
}
.when {
  text-align: right;
}
.marks {
  display: grid;
  grid-template-columns: repeat(4, 3.4rem) 4.4rem;
}
.n {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
  font-weight: 600;
  min-width: 2.4rem;
}
.new {
  display: grid;
  gap: 1rem;
  padding: 1.2rem 1.3rem 1.4rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  margin-bottom: 1.4rem;
}
.new label,
legend {
  font-weight: 600;
  display: block;
}
.new .field {
  font-weight: 400;
  margin-top: 0.25rem;
}
.short {
  width: 8rem;
  display: block;
}
fieldset .row {
  margin-top: 0.3rem;
}
.why {
  color: var(--now);
  font-weight: 600;
}
.bad {
  border-left: 7px solid var(--repair);
  background: var(--sheet);
  padding: 0.9rem 1.1rem;
  margin-bottom: 1.2rem;
  overflow-x: auto;
}
.bad th {
  text-align: left;
  color: var(--soft);
  font-weight: 400;
}
.bad td,
.bad th {
  padding: 0.2rem 1rem 0.2rem 0;
  vertical-align: top;
}
.mono {
  font-family: var(--font-mono);
  font-size: 0.9rem;
  overflow-wrap: anywhere;
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
.busy {
  opacity: 0.6;
}
@media (max-width: 900px) {
  .job {
    grid-template-columns: 1fr;
    gap: 0.2rem;
    padding: 0.8rem 0;
  }
  .when {
    text-align: left;
  }
  .jobs {
    padding: 1rem 0.9rem 2rem;
  }
  .acts > .plain,
  .acts > .go {
    flex: 1 1 auto;
    justify-content: center;
    white-space: nowrap;
    padding: 0 0.7rem;
  }
}
</style>
