import { defineStore } from 'pinia'
import type { InstrumentReading, InstrumentTarget, WirelessInstrument } from '#shared/instruments'
import { instrumentsAtHand } from '~/local/instruments'

/** Instruments connected to this device, the field in focus, and what is read for it now. */
export const useInstrumentStore = defineStore('instruments', () => {
  const job = useJobStore()
  const atHand = shallowRef<readonly WirelessInstrument[]>(instrumentsAtHand(() => job.site))
  const connected = ref<readonly string[]>([])
  const isTrayOpen = ref(false)
  const focus = shallowRef<InstrumentTarget>()
  const reading = shallowRef<InstrumentReading>()
  const problem = ref('')
  let stopping: AbortController | undefined

  const isConnected = (i: WirelessInstrument) => connected.value.includes(i.serial)
  const fitting = computed(() => {
    const at = focus.value
    return at ? atHand.value.filter(i => i.canRead(at)) : []
  })
  /** The connected one that reads the field in focus. */
  const reader = computed(() => fitting.value.find(isConnected))

  async function toggle(i: WirelessInstrument): Promise<void> {
    problem.value = ''
    if (isConnected(i)) {
      i.disconnect()
      connected.value = connected.value.filter(s => s !== i.serial)
      return
    }
    try {
      await i.connect()
      connected.value = [...connected.value, i.serial]
    } catch (error) {
      problem.value = `${i.name}: ${(error as Error).message}`
    }
  }
  async function follow(): Promise<void> {
    stopping?.abort()
    reading.value = undefined
    const at = focus.value
    const instrument = reader.value
    if (!at || !instrument) return
    const mine = (stopping = new AbortController())
    try {
      for await (const next of instrument.read(at, mine.signal)) {
        if (mine.signal.aborted) return
        reading.value = next
      }
    } catch (error) {
      problem.value = `${instrument.name}: ${(error as Error).message}`
    }
  }
  watch([focus, reader], () => void follow())

  /** Writes what is read now as a fact, with the instrument that read it. */
  function take(): void {
    const at = focus.value
    const now = reading.value
    if (!at || !now) return
    const isSimulated = reader.value?.isSimulated === true
    const simulated = isSimulated ? ', simulated' : ''
    job.record([
      {
        act: 'note',
        subject: at.subject,
        field: at.field,
        value: now.value,
        // What no real meter read may raise an alarm and never clears one: it counts as assumed.
        grade: isSimulated ? 'assumed' : 'measured',
        instrument: `${now.kind}${simulated}, ${now.serial}`,
      },
    ])
  }
  return {
    atHand,
    connected,
    isConnected,
    isTrayOpen,
    focus,
    fitting,
    reader,
    reading,
    problem,
    toggle,
    take,
  }
})
