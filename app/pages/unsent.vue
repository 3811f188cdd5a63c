<script setup lang="ts">
import {
  expects,
  fieldOf,
  KIND_LABEL,
  KINDS,
  valueSchema,
  valueText,
  type AnyValue,
  type Field,
  type Kind,
  type Observation,
} from '#core'
import type { Outgoing, WaitingPhoto } from '~/local/replica'

const device = useDeviceStore()
const store = useJobStore()
const jobNames = ref<ReadonlyMap<string, string>>(new Map())
const correcting = ref<number>()
const typed = ref('')
const problem = ref('')

onMounted(async () => {
  await device.ready
  await device.refresh()
  const jobs = await device.replica.jobs.toArray().catch(() => [])
  jobNames.value = new Map(jobs.map(j => [j.id, j.summary?.name || j.name || 'job without a name']))
})
const refused = computed(() =>
  device.outbox.filter(i => i.state === 'refused' && i.account === device.account),
)
const waiting = computed(() => device.outbox.filter(i => i.state === 'waiting'))
const others = computed(() =>
  [...device.outbox, ...device.photos].filter(i => i.account !== device.account),
)
const refusedPhotos = computed(() =>
  device.photos.filter(p => p.state === 'refused' && p.account === device.account),
)
const byJob = computed(() => {
  const counts = new Map<string, number>()
  const own = [...waiting.value, ...device.photos.filter(p => p.state === 'waiting')].filter(
    i => i.account === device.account,
  )
  for (const { job } of [...own, ...device.inMemory]) counts.set(job, (counts.get(job) ?? 0) + 1)
  return [...counts].map(([id, n]) => ({ id, n, name: jobNames.value.get(id) ?? id }))
})

function read(
  item: Outgoing,
): Partial<Observation> & { field?: string; value?: AnyValue; subject?: string } {
  try {
    return JSON.parse(item.body)
  } catch {
    return {}
  }
}
/** The job need not be open here, so the field is found by its name alone where the thing is not known. */
function fieldFor(item: Outgoing): Field | undefined {
  const name = read(item).field ?? ''
  const kind = kindOf(item)
  return kind ? fieldOf(kind, name) : KINDS.map(k => fieldOf(k, name)).find(f => f !== undefined)
}
const kindOf = (item: Outgoing): Kind | undefined =>
  store.house.subjects.get(read(item).subject ?? '')?.kind
function words(item: Outgoing): string {
  const o = read(item)
  if (o.act === 'note') {
    const field = fieldFor(item)
    return `${field?.label ?? o.field}: ${field ? valueText(field, o.value as AnyValue) : JSON.stringify(o.value)}`
  }
  if (o.act === 'add') return `a new ${KIND_LABEL[(o as { kind: Kind }).kind] ?? 'thing'}`
  if (o.act === 'block') return `${fieldFor(item)?.label ?? o.field}: could not be seen`
  if (o.act === 'drop') return 'something taken out'
  return o.act === 'retract' ? 'something undone' : 'something that cannot be read'
}
const reasons = (item: Outgoing) =>
  item.problems.map(p => `expected ${p.expected}, found ${p.found}`).join('; ')
const isTime = (item: Outgoing) => item.problems.some(p => /\.(at|clock)$/.test(p.path))

function edit(item: Outgoing) {
  correcting.value = item.order
  typed.value = String(read(item).value ?? '')
  problem.value = ''
}
async function correct(item: Outgoing) {
  const field = fieldFor(item)
  const asNumber = Number(typed.value)
  const candidates: unknown[] = [typed.value, ...(Number.isNaN(asNumber) ? [] : [asNumber])]
  const value = candidates.find(c => !field || valueSchema(field).safeParse(c).success)
  if (value === undefined) {
    problem.value = field ? `Expected ${expects(field)}` : 'That is no value'
    return
  }
  const failed = await device.correct(item, { value } as Partial<Observation>)
  problem.value = failed ?? ''
  if (!failed) correcting.value = undefined
}
/** The device's clock was wrong: the same, with the time it is now. */
const retime = (item: Outgoing) => device.correct(item, { at: new Date().toISOString() })

function download() {
  const list = [
    ...device.outbox.map(i => i.body),
    ...device.inMemory.map(m => JSON.stringify(m.observation)),
  ]
  saveAs(
    new Blob([`[\n${list.join(',\n')}\n]\n`], { type: 'application/json' }),
    'corvit-unsent.json',
  )
}
const savePhoto = (photo: WaitingPhoto) =>
  saveAs(photo.picture, `photograph.${photo.picture.type.split('/')[1] || 'jpg'}`)
const onlyHere = computed(
  () =>
    `This device does not store (${device.storageProblem}). ` +
    'Keep the window open until they are sent, or save them as a file.',
)
function saveAs(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <PlainShell
    title="Not on the server yet"
    subtitle="Kept on this device until the server says it has it."
  >
    <UAlert
      v-if="device.inMemory.length"
      color="error"
      icon="lucide:triangle-alert"
      :title="`${device.inMemory.length} only in this window`"
      :description="onlyHere"
    />
    <UAlert
      v-if="device.stop && device.unsent"
      color="warning"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="device.stop.message"
      :actions="device.stop.kind === 'sign in' ? [{ label: 'Sign in', to: '/sign-in' }] : []"
    />
    <p v-if="device.unsent === 0" class="soft" data-testid="all-sent">
      Everything recorded on this device is on the server.
    </p>
    <section v-if="byJob.length" class="stack">
      <h2>Waiting</h2>
      <ul class="list">
        <li v-for="j in byJob" :key="j.id">
          <NuxtLink :to="`/jobs/${j.id}/panel`" class="touch grow">{{ j.name }}</NuxtLink><b>{{
            j.n
          }}</b>
        </li>
      </ul>
    </section>
    <p v-if="others.length" class="soft" data-testid="of-others">
      {{ others.length }} were recorded under another account; that person sends them by signing in
      on this device.
    </p>
    <section v-if="refused.length" class="stack" data-testid="refused">
      <h2>Not taken by the server</h2>
      <p class="soft">The rest went through. Correct these, try them again, or let them go.</p>
      <ul class="list">
        <li v-for="i in refused" :key="i.order">
          <span class="grow"
            ><b>{{ words(i) }}</b
            ><span class="small soft block"
              >{{ jobNames.get(i.job) ?? i.job }} · {{ reasons(i) }}</span
            ></span
          >
          <form v-if="correcting === i.order" class="acts" @submit.prevent="correct(i)">
            <UInput v-model="typed" size="lg" aria-label="the right value" autofocus />
            <UButton type="submit" size="lg">Save</UButton>
          </form>
          <div v-else class="acts">
            <UButton v-if="isTime(i)" size="lg" color="neutral" variant="outline" @click="retime(i)"
              >Use the time now</UButton
            >
            <UButton
              v-else-if="read(i).act === 'note'"
              size="lg"
              color="neutral"
              variant="outline"
              @click="edit(i)"
              >Correct</UButton
            >
            <UButton size="lg" color="neutral" variant="ghost" @click="device.tryAgain([i])"
              >Try again</UButton
            >
            <UButton size="lg" color="neutral" variant="ghost" @click="device.giveUp([i])"
              >Let it go</UButton
            >
          </div>
          <p v-if="correcting === i.order && problem" role="alert" class="small why">
            {{ problem }}
          </p>
        </li>
      </ul>
    </section>
    <section v-if="refusedPhotos.length" class="stack" data-testid="refused-photos">
      <h2>Photographs not taken by the server</h2>
      <ul class="list">
        <li v-for="p in refusedPhotos" :key="p.id">
          <span class="grow">
            <b>Photograph</b>
            <span class="small soft block"
              >{{ jobNames.get(p.job) ?? 'a job without a name' }} · {{ p.problem }}</span
            >
          </span>
          <div class="acts">
            <UButton size="lg" color="neutral" variant="outline" @click="savePhoto(p)"
              >Save as a file</UButton
            >
            <UButton size="lg" color="neutral" variant="ghost" @click="device.tryPhotoAgain(p.id)"
              >Try again</UButton
            >
            <UButton size="lg" color="neutral" variant="ghost" @click="device.dropPhoto(p.id)"
              >Let it go</UButton
            >
          </div>
        </li>
      </ul>
    </section>
    <div v-if="device.unsent" class="acts">
      <UButton size="lg" :loading="device.isSending" @click="device.flush()">Send now</UButton>
      <UButton size="lg" color="neutral" variant="outline" icon="lucide:download" @click="download"
        >Save as a file</UButton
      >
    </div>
  </PlainShell>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 0.6rem;
}
.list {
  border-top: 1px solid var(--line);
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  min-height: 52px;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
}
.grow {
  flex: 1 1 14rem;
}
.acts {
  display: flex;
  gap: 0.4rem;
  flex-wrap: wrap;
}
.why {
  color: var(--repair);
  width: 100%;
}
</style>
