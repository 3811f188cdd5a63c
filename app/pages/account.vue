<script setup lang="ts">
import { ChangeOwn, PasskeyList, Person, ROLE_WORDS } from '#shared/people'

const session = useSessionStore()
const device = useDeviceStore()
const router = useRouter()
const toast = useToast()
const { register, isSupported } = useWebAuthn()
const state = reactive({ current: '', password: '' })
const problem = ref('')
const passkeys = ref<{ id: string; createdAt: string }[]>([])

async function attempt(run: () => Promise<unknown>) {
  problem.value = ''
  try {
    await run()
  } catch (error) {
    problem.value =
      (error as { data?: { message?: string } }).data?.message ?? (error as Error).message
  }
}
const load = () =>
  attempt(async () => {
    passkeys.value = (await api('/api/me/passkeys', PasskeyList)).passkeys
  })
const changePassword = () =>
  attempt(async () => {
    await api('/api/me/password', Person, { ...postJson(state), method: 'PUT' })
    Object.assign(state, { current: '', password: '' })
    toast.add({ title: 'The password is changed; other sessions have ended' })
  })
const addPasskey = () =>
  attempt(async () => {
    await register({ userName: session.person!.login })
    await load()
  })
const removePasskey = (id: string) =>
  attempt(async () => {
    await apiDone(`/api/me/passkeys/${encodeURIComponent(id)}`, { method: 'DELETE' })
    await load()
  })
const signOut = () =>
  attempt(async () => {
    await apiDone('/api/session', { method: 'DELETE' })
    await device.leave()
    await session.load()
    await router.push('/sign-in')
  })
onMounted(load)
</script>

<template>
  <PlainShell
    :title="session.person?.name ?? 'Account'"
    :subtitle="session.person ? `${session.person.role}: ${ROLE_WORDS[session.person.role]}` : ''"
  >
    <UAlert
      v-if="problem"
      color="error"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="problem"
    />
    <UAlert
      v-if="device.unsent > 0"
      color="warning"
      variant="subtle"
      :title="`${device.unsent} not sent yet`"
      description="Signing out leaves it on this device, under your name, and sends it when you sign in here again."
    />
    <section class="stack">
      <h2>Passkeys</h2>
      <p class="soft">A passkey signs you in with this device's own lock, without a password.</p>
      <ul class="stack">
        <li v-for="k in passkeys" :key="k.id" class="row">
          <span
            >Added
            {{ new Date(k.createdAt).toLocaleDateString('en-US', { dateStyle: 'medium' }) }}</span
          >
          <UButton color="neutral" variant="ghost" @click="removePasskey(k.id)">Remove</UButton>
        </li>
      </ul>
      <div>
        <UButton
          :disabled="!isSupported"
          color="neutral"
          variant="outline"
          size="lg"
          icon="lucide:key-round"
          @click="addPasskey"
          >Add a passkey</UButton
        >
      </div>
    </section>
    <UForm :schema="ChangeOwn" :state="state" class="stack" @submit="changePassword">
      <h2>Password</h2>
      <UFormField name="current" label="Present password"
        ><UInput
          v-model="state.current"
          type="password"
          autocomplete="current-password"
          size="lg"
          class="w-full"
      /></UFormField>
      <UFormField name="password" label="New password" help="At least 10 characters"
        ><UInput
          v-model="state.password"
          type="password"
          autocomplete="new-password"
          size="lg"
          class="w-full"
      /></UFormField>
      <div><UButton type="submit" size="lg">Change it</UButton></div>
    </UForm>
    <div>
      <UButton color="neutral" variant="outline" size="lg" icon="lucide:log-out" @click="signOut"
        >Sign out</UButton
      >
    </div>
  </PlainShell>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 0.8rem;
}
.row {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-bottom: 1px solid var(--line);
  min-height: 48px;
}
</style>
