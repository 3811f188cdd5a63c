<script setup lang="ts">
import { Person, Setup } from '#shared/people'

const session = useSessionStore()
const router = useRouter()
const state = ref<Record<string, string>>({ code: '', login: '', name: '', password: '' })
const problem = ref('')
const isBusy = ref(false)
const fields = [
  {
    name: 'code',
    label: 'Code',
    autocomplete: 'one-time-code',
    help: 'Printed where this server was started',
  },
  { name: 'name', label: 'Your name', autocomplete: 'name', help: 'Goes with every observation' },
  { name: 'login', label: 'Sign-in name', autocomplete: 'username' },
  {
    name: 'password',
    label: 'Password',
    type: 'password',
    autocomplete: 'new-password',
    help: 'At least 10 characters',
  },
] as const

async function make() {
  isBusy.value = true
  problem.value = ''
  try {
    await api('/api/setup', Person, postJson(state.value))
    await session.load()
    await router.push('/')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    isBusy.value = false
  }
}
</script>

<template>
  <DoorForm
    v-model:state="state"
    title="The first account"
    text="This Corvit has no owner yet. The owner makes the other accounts."
    :schema="Setup"
    :fields="fields"
    submit="Make the account"
    :problem="problem"
    :is-busy="isBusy"
    @submit="make"
  />
</template>
