<script setup lang="ts">
import { Appended, JobList, NewJob, PURPOSES, type JobSummary } from '#shared/api'
import { EDITIONS, type Problem } from '#core'

const router = useRouter()
const store = useJobStore()
const toast = useToast()
const jobs = ref<JobSummary[]>()
const isDemo = ref(false)
const problem = ref('')
const isNew = ref(false)
const importProblems = ref<readonly Problem[]>([])
const importTitle = ref('')
const busy = ref('')
const form = reactive({ name: '', street: '', purpose: 'purchase' as (typeof PURPOSES)[number], yearBuilt: '', edition: 2020 as (typeof EDITIONS)[number], assessor: '' })
const formProblem = ref('')

async function load() {
  problem.value = ''
  try {
    const answer = await api('/api/jobs', JobList)
    jobs.value = answer.jobs
    isDemo.value = answer.isDemo
  } catch (error) {
    problem.value = (error as Error).message
  }
}
onMounted(() => {
  store.close()
  void load()
})
async function create() {
  const input = { name: form.name, purpose: form.purpose, edition: form.edition, ...form.street.trim() && { street: form.street }, ...form.assessor.trim() && { assessor: form.assessor }, ...form.yearBuilt.trim() && { yearBuilt: Number(form.yearBuilt) } }
  const parsed = NewJob.safeParse(input)
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!
    formProblem.value = `${({ name: 'Name', yearBuilt: 'Year built', street: 'Street', edition: 'Edition' } as Record<string, string>)[String(issue.path[0])] ?? 'Form'}: ${issue.message}`
    return
  }
  formProblem.value = ''
  busy.value = 'new'
  try {
    const { job } = await api('/api/jobs', Appended, postJson(parsed.data))
    await router.push(`/jobs/${job.id}/panel`)
  } catch (error) {
    formProblem.value = (error as Error).message
  } finally {
    busy.value = ''
  }
}
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
    importProblems.value = error instanceof ApiFailure && error.problems.length ? error.problems : [{ path: '(file)', expected: 'a Corvit job file', found: (error as Error).message }]
  } finally {
    busy.value = ''
  }
}
async function resetDemo() {
  busy.value = 'reset'
  try {
    jobs.value = (await api('/api/demo/reset', JobList, { method: 'POST' })).jobs
    toast.add({ title: 'The demo house is as it was at first' })
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = ''
  }
}
const LEGEND = [['make safe now', 'make safe now'], ['repair', 'repair'], ['upgrade at next work', 'upgrade at next work'], ['for the record', 'for the record'], ['undecided', 'not decided']] as const
const marks = (job: JobSummary) => [['make safe now', job.makeSafe], ['repair', job.repair], ['upgrade at next work', job.upgrade], ['for the record', job.record], ['undecided', job.undecided]] as const
</script>

<template>
  <main class="jobs">
    <header class="top">
      <div><p class="mark">corvit</p><h1>Jobs</h1></div>
      <div class="acts">
        <label class="plain" :class="{ busy: busy === 'import' }"><UIcon name="lucide:upload" /> {{ busy === 'import' ? 'reading the file' : 'open a job file' }}<input type="file" accept=".json,application/json" class="sr-only" @change="importFile"></label>
        <button type="button" class="go" @click="isNew = !isNew"><UIcon name="lucide:plus" /> New job</button>
      </div>
    </header>

    <section v-if="importTitle" class="bad" role="alert" data-testid="import-problems">
      <h2>{{ importTitle }}</h2>
      <table><thead><tr><th>where</th><th>expected</th><th>found</th></tr></thead><tbody><tr v-for="(p, i) in importProblems" :key="i"><td class="mono">{{ p.path }}</td><td>{{ p.expected }}</td><td>{{ p.found }}</td></tr></tbody></table>
      <button type="button" class="touch" @click="importTitle = ''">close</button>
    </section>

    <form v-if="isNew" class="new" @submit.prevent="create">
      <h2>New job</h2>
      <label>Name of the job<input v-model="form.name" class="field" name="name" maxlength="200" autofocus></label>
      <label>Street <span class="soft small">optional</span><input v-model="form.street" class="field" name="street" maxlength="200"></label>
      <fieldset><legend>What for</legend><div class="row"><button v-for="p in PURPOSES" :key="p" type="button" class="chip" :aria-pressed="form.purpose === p" @click="form.purpose = p">{{ p }}</button></div></fieldset>
      <label>Year built <span class="soft small">as far as it is known</span><input v-model="form.yearBuilt" class="field short" name="yearBuilt" inputmode="numeric" maxlength="4"></label>
      <fieldset><legend>Code edition in force there</legend><div class="row"><button v-for="e in EDITIONS" :key="e" type="button" class="chip" :aria-pressed="form.edition === e" @click="form.edition = e">{{ e }}</button></div></fieldset>
      <label>Your name <span class="soft small">goes with every observation</span><input v-model="form.assessor" class="field" name="assessor" maxlength="120"></label>
      <p v-if="formProblem" role="alert" class="why">{{ formProblem }}</p>
      <div class="row"><button type="submit" class="go" :disabled="busy === 'new'">Start</button><button type="button" class="plain" @click="isNew = false">Not now</button></div>
    </form>

    <div v-if="problem" role="alert" class="state"><h2>The list could not be read</h2><p class="soft">{{ problem }}</p><button type="button" class="plain" @click="load">Try again</button></div>
    <p v-else-if="!jobs" class="state soft" role="status">Reading the jobs</p>
    <div v-else-if="!jobs.length" class="state">
      <h2>No jobs yet</h2>
      <p class="soft">Start one with its purpose, the year built and the code edition; then draw the first panel.</p>
      <button type="button" class="go" @click="isNew = true">New job</button>
    </div>
    <div v-else class="legend small soft" aria-hidden="true"><span v-for="[kind, word] in LEGEND" :key="kind"><SeverityMark :kind="kind" :size="12" />{{ word }}</span></div>
    <ul v-if="jobs?.length" class="list">
      <li v-for="job in jobs" :key="job.id">
        <NuxtLink :to="`/jobs/${job.id}/panel`" class="job">
          <span class="name"><b>{{ job.name || 'without a name' }}</b><span class="small soft">{{ [job.street, job.purpose, job.yearBuilt && `built ${job.yearBuilt}`, job.edition && `${job.edition} code`].filter(Boolean).join(' · ') }}</span></span>
          <span class="marks"><span v-for="[kind, n] in marks(job)" :key="kind" class="n" :title="kind"><SeverityMark :kind="kind" />{{ n }}</span></span>
          <span class="small soft when">{{ job.observations.toLocaleString('en') }} observations</span>
        </NuxtLink>
      </li>
    </ul>
    <footer class="foot small soft">
      <p v-if="isDemo">Demo data in its own file; everything in it is made up. <button type="button" class="touch" :disabled="busy === 'reset'" @click="resetDemo">Put it back as it was</button></p>
      <p>Corvit’s answers are a second opinion, not an approval. Local law and the local inspector decide; work on or near live parts is for qualified people.</p>
    </footer>
  </main>
</template>

<style scoped>
.jobs { max-width: 60rem; margin: 0 auto; padding: 1.6rem 1.4rem 3rem; }
.top { display: flex; justify-content: space-between; align-items: flex-end; gap: 1rem; flex-wrap: wrap; margin-bottom: 1.4rem; }
.mark { font-weight: 700; color: var(--touch); } h1 { font-size: 1.7rem; }
.acts, .row { display: flex; gap: 0.5rem; flex-wrap: wrap; }
.list { border-top: 1px solid var(--line); }
.legend { display: flex; flex-wrap: wrap; gap: 0.2rem 1.1rem; justify-content: flex-end; margin-bottom: 0.5rem; } .legend span { display: inline-flex; align-items: center; gap: 0.35rem; }
.job { display: grid; grid-template-columns: minmax(0, 1fr) auto 9.5rem; gap: 1.6rem; align-items: center; min-height: 72px; border-bottom: 1px solid var(--line); }
.job:hover b { color: var(--touch); }
.name { display: grid; } .name b { font-size: 1.1rem; } .when { text-align: right; }
.marks { display: flex; gap: 0.9rem; } .n { display: inline-flex; gap: 0.35rem; align-items: center; font-weight: 600; min-width: 2.4rem; }
.new { display: grid; gap: 1rem; padding: 1.2rem 1.3rem 1.4rem; background: var(--sheet); border: 1px solid var(--line); border-radius: 4px; margin-bottom: 1.4rem; }
.new label, legend { font-weight: 600; display: block; } .new .field { font-weight: 400; margin-top: 0.25rem; } .short { width: 8rem; display: block; } fieldset .row { margin-top: 0.3rem; }
.why { color: var(--now); font-weight: 600; }
.bad { border-left: 7px solid var(--repair); background: var(--sheet); padding: 0.9rem 1.1rem; margin-bottom: 1.2rem; overflow-x: auto; } .bad th { text-align: left; color: var(--soft); font-weight: 400; } .bad td, .bad th { padding: 0.2rem 1rem 0.2rem 0; vertical-align: top; } .mono { font-family: var(--font-mono); font-size: 0.9rem; overflow-wrap: anywhere; }
.bad .touch { min-height: 44px; }
.state { display: grid; gap: 0.7rem; justify-items: start; padding: 2rem 0; }
.foot { margin-top: 2rem; display: grid; gap: 0.4rem; } .foot .touch { min-height: 32px; }
.busy { opacity: 0.6; }
@media (max-width: 900px) { .job { grid-template-columns: 1fr; gap: 0.2rem; padding: 0.8rem 0; } .when { text-align: left; } .jobs { padding: 1rem 0.9rem 2rem; } .acts > * { flex: 1; justify-content: center; } }
</style>
