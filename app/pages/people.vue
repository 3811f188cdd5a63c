<script setup lang="ts">
import {
  Audit,
  NewPerson,
  People,
  Person,
  ROLES,
  ROLE_WORDS,
  Settings,
  type AuditEntry,
  type PersonRow,
  type Role,
} from '#shared/people'

const session = useSessionStore()
const toast = useToast()
const tab = ref('people')
const people = ref<PersonRow[]>()
const entries = ref<AuditEntry[]>([])
const settings = reactive<Settings>({ trashDays: 30, auditDays: 0 })
const problem = ref('')
const isMaking = ref(false)
const isBusy = ref(false)
const fresh = reactive({ login: '', name: '', role: 'assessor' as Role, password: '' })
const changed = ref<PersonRow>()
const password = ref('')
const TABS = [
  { label: 'People', value: 'people', icon: 'lucide:users' },
  { label: 'What happened', value: 'audit', icon: 'lucide:history' },
  { label: 'Keeping', value: 'settings', icon: 'lucide:archive' },
]
const roleItems = ROLES.map(value => ({ label: value, value, description: ROLE_WORDS[value] }))

async function attempt(run: () => Promise<void>) {
  isBusy.value = true
  problem.value = ''
  try {
    await run()
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    isBusy.value = false
  }
}
const load = () =>
  attempt(async () => {
    people.value = (await api('/api/people', People)).people
    entries.value = (await api('/api/audit', Audit)).entries
    Object.assign(settings, await api('/api/settings', Settings))
  })
const older = () =>
  attempt(async () => {
    const page = await api(`/api/audit?before=${entries.value.at(-1)?.seq ?? 0}`, Audit)
    entries.value = [...entries.value, ...page.entries]
  })
const make = () =>
  attempt(async () => {
    await api('/api/people', Person, postJson(fresh))
    Object.assign(fresh, { login: '', name: '', role: 'assessor', password: '' })
    isMaking.value = false
    await load()
  })
const change = (person: PersonRow, what: Record<string, unknown>) =>
  attempt(async () => {
    await api(`/api/people/${person.id}`, Person, { ...postJson(what), method: 'PATCH' })
    changed.value = undefined
    password.value = ''
    await load()
  })
const keep = () =>
  attempt(async () => {
    Object.assign(
      settings,
      await api('/api/settings', Settings, { ...postJson(settings), method: 'PUT' }),
    )
    toast.add({ title: 'Kept' })
  })
onMounted(load)
const columns = [
  { accessorKey: 'name', header: 'Name' },
  { accessorKey: 'role', header: 'Role' },
  {
    accessorKey: 'jobs',
    header: 'Jobs',
    meta: { class: { th: 'max-sm:hidden', td: 'max-sm:hidden' } },
  },
  { id: 'acts', header: '' },
]
const actsOn = (person: PersonRow) => [
  [
    {
      label: 'New password',
      icon: 'lucide:key-round',
      onSelect: () => {
        changed.value = person
      },
    },
    {
      label: person.isDisabled ? 'Open the account again' : 'Close the account',
      icon: 'lucide:user',
      onSelect: () => void change(person, { isDisabled: !person.isDisabled }),
    },
  ],
]
const auditColumns = [
  { accessorKey: 'at', header: 'When' },
  { accessorKey: 'who', header: 'Who' },
  { accessorKey: 'action', header: 'What' },
  { accessorKey: 'detail', header: 'About' },
  { accessorKey: 'device', header: 'Device' },
]
const when = (at: string) =>
  new Date(at).toLocaleString('en-US', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <PlainShell
    title="People and keeping"
    subtitle="Accounts, what was done under them, and how long things are kept."
    is-wide
  >
    <UAlert
      v-if="session.isDemo"
      color="neutral"
      variant="subtle"
      title="This is the demo"
      description="It needs no sign-in and has no accounts. Started with npm start, Corvit asks for them."
    />
    <UAlert
      v-if="problem"
      color="error"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="problem"
    />
    <UTabs v-model="tab" :items="TABS" :content="false" variant="link" />
    <section v-if="tab === 'people'" class="stack">
      <UTable :data="people ?? []" :columns="columns" :loading="!people" empty="No accounts">
        <template #name-cell="{ row }">
          <b :class="{ closed: row.original.isDisabled }">{{ row.original.name }}</b>
          <span class="small soft block"
            >{{ row.original.login
            }}<template v-if="row.original.isDisabled"> · closed</template></span
          >
        </template>
        <template #role-cell="{ row }">
          <USelect
            :model-value="row.original.role"
            :items="roleItems"
            :aria-label="`role of ${row.original.name}`"
            size="lg"
            class="w-36"
            @update:model-value="role => change(row.original, { role })"
          />
        </template>
        <template #acts-cell="{ row }">
          <UDropdownMenu :items="actsOn(row.original)">
            <UButton
              color="neutral"
              variant="ghost"
              size="xl"
              icon="lucide:ellipsis-vertical"
              :aria-label="`password or closing of ${row.original.name}`"
            />
          </UDropdownMenu>
        </template>
      </UTable>
      <div>
        <UButton icon="lucide:plus" size="lg" @click="isMaking = true">New account</UButton>
      </div>
    </section>
    <section v-else-if="tab === 'audit'" class="stack">
      <UTable :data="entries" :columns="auditColumns" empty="Nothing yet">
        <template #at-cell="{ row }">{{ when(row.original.at) }}</template>
        <template #who-cell="{ row }">{{ row.original.who || '–' }}</template>
        <template #device-cell="{ row }"
          ><span class="small soft device">{{ row.original.device }}</span></template
        >
      </UTable>
      <div>
        <UButton v-if="entries.length >= 200" color="neutral" variant="outline" @click="older"
          >Earlier</UButton
        >
      </div>
    </section>
    <UForm v-else :schema="Settings" :state="settings" class="stack narrow" @submit="keep">
      <UFormField
        name="trashDays"
        label="Days a deleted job can be brought back"
        help="After that it is gone, with its photographs."
      >
        <UInputNumber v-model="settings.trashDays" :min="1" :max="3650" size="lg" />
      </UFormField>
      <UFormField
        name="auditDays"
        label="Days the record of what happened is kept"
        help="0 keeps it for ever."
      >
        <UInputNumber v-model="settings.auditDays" :min="0" :max="36500" size="lg" />
      </UFormField>
      <div class="acts">
        <UButton type="submit" size="lg" :loading="isBusy">Save</UButton>
        <UButton
          to="/api/everything"
          external
          color="neutral"
          variant="outline"
          size="lg"
          icon="lucide:download"
          >Everything in one file</UButton
        >
      </div>
    </UForm>

    <UModal
      v-model:open="isMaking"
      title="New account"
      description="Tell the person the password; they change it after signing in."
    >
      <template #body>
        <UForm :schema="NewPerson" :state="fresh" class="stack" @submit="make">
          <UFormField name="name" label="Name" help="Goes with every observation"
            ><UInput v-model="fresh.name" size="lg" class="w-full" autocomplete="off"
          /></UFormField>
          <UFormField name="login" label="Sign-in name"
            ><UInput v-model="fresh.login" size="lg" class="w-full" autocomplete="off"
          /></UFormField>
          <UFormField name="role" label="Role" :help="ROLE_WORDS[fresh.role]"
            ><USelect v-model="fresh.role" :items="roleItems" size="lg" class="w-full"
          /></UFormField>
          <UFormField name="password" label="First password"
            ><UInput
              v-model="fresh.password"
              type="password"
              size="lg"
              class="w-full"
              autocomplete="new-password"
          /></UFormField>
          <UAlert v-if="problem" color="error" variant="subtle" :title="problem" />
          <UButton type="submit" size="lg" :loading="isBusy">Make the account</UButton>
        </UForm>
      </template>
    </UModal>
    <UModal
      :open="changed !== undefined"
      :title="`New password for ${changed?.name ?? ''}`"
      description="It ends every session of the account."
      @update:open="changed = undefined"
    >
      <template #body>
        <form class="stack" @submit.prevent="change(changed!, { password })">
          <UInput
            v-model="password"
            type="password"
            size="lg"
            aria-label="new password"
            autocomplete="new-password"
          />
          <UAlert v-if="problem" color="error" variant="subtle" :title="problem" />
          <UButton type="submit" size="lg" :loading="isBusy" :disabled="password.length < 10"
            >Set it</UButton
          >
        </form>
      </template>
    </UModal>
  </PlainShell>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 1rem;
  min-width: 0;
}
.narrow {
  max-width: 30rem;
}
.acts {
  display: flex;
  gap: 0.4rem;
  flex-wrap: wrap;
}
.closed {
  text-decoration: line-through;
}
.device {
  display: block;
  max-width: 16rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
