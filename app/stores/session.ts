import { defineStore } from 'pinia'
import { SessionState, type Person, type Role, mayAtLeast } from '#shared/people'

/** Who sits here, as the server says; without a network, as it said last. */
export const useSessionStore = defineStore('session', () => {
  const device = useDeviceStore()
  const door = ref<SessionState['door']>()
  const person = ref<Person | null>(null)
  const isOffline = ref(false)

  async function load(): Promise<void> {
    await device.ready
    try {
      const state = await api('/api/session', SessionState)
      isOffline.value = false
      await device.replica.keep('session', state).catch(() => undefined)
      await take(state)
    } catch {
      isOffline.value = true
      const kept = await device.replica.recall<SessionState>('session').catch(() => undefined)
      if (kept) await take(kept)
    }
  }
  async function take(state: SessionState): Promise<void> {
    door.value = state.door
    person.value = state.person
    if (state.door === 'in' || state.door === 'open')
      await device.setAccount(state.person?.id ?? null)
  }
  /** In a demo everybody may do everything. */
  const may = (least: Role) =>
    door.value === 'open' || (person.value !== null && mayAtLeast(person.value.role, least))

  return { door, person, isOffline, load, may, isDemo: computed(() => door.value === 'open') }
})
