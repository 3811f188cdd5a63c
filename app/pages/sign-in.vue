<script setup lang="ts">
import { Person, SignIn } from '#shared/people'

const session = useSessionStore()
const router = useRouter()
const { authenticate, isSupported } = useWebAuthn()
const state = ref<Record<string, string>>({ login: '', password: '' })
const problem = ref('')
const isBusy = ref(false)
const fields = [
  { name: 'login', label: 'Sign-in name', autocomplete: 'username' },
  { name: 'password', label: 'Password', type: 'password', autocomplete: 'current-password' },
] as const

async function enter(run: () => Promise<unknown>) {
  isBusy.value = true
  problem.value = ''
  try {
    await run()
    await session.load()
    await router.push('/')
  } catch (error) {
    const told = (error as { data?: { message?: string } }).data?.message
    problem.value =
      told ?? (error instanceof ApiFailure ? error.message : 'The passkey was not used')
  } finally {
    isBusy.value = false
  }
}
const byPassword = () => enter(() => api('/api/session', Person, postJson(state.value)))
const byPasskey = () => enter(() => authenticate())
</script>

<template>
  <DoorForm
    v-model:state="state"
    title="Sign in"
    text="Every observation goes under your name."
    :schema="SignIn"
    :fields="fields"
    submit="Sign in"
    :problem="problem"
    :is-busy="isBusy"
    @submit="byPassword"
  >
    <UButton
      v-if="isSupported"
      color="neutral"
      variant="outline"
      size="xl"
      block
      icon="lucide:key-round"
      @click="byPasskey"
    >
      Use a passkey
    </UButton>
    <UAlert
      v-if="session.isOffline"
      color="neutral"
      variant="subtle"
      title="No connection to the server"
      description="Signing in needs it."
    />
    <p class="small soft">No account? The owner of this Corvit makes one for you.</p>
  </DoorForm>
</template>
