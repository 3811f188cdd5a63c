import type { House, PathChange, SetUpId, Sweep, NoSetUp } from '#core'
import type { PathsAsk, PathsSay, PlainSetUp, Shown } from '~/workers/paths.worker'

/** Asks without their run: each gets one. */
type Ask = PathsAsk extends infer A ? (A extends PathsAsk ? Omit<A, 'run'> : never) : never
/** A bond is no bond any more at this many ohms. */
const OPEN = Infinity

const open = (part: string): PathChange => ({ change: 'open', part })
const off = (at: string): PathChange => ({ change: 'load', at, amperes: 0 })
/** Where the current goes in a house: what is tried, and what the worker answers. */
export function usePaths(house: () => House) {
  const setUps = shallowRef<readonly (PlainSetUp | NoSetUp)[]>([])
  const id = ref<SetUpId>()
  const setUp = computed(() =>
    setUps.value.find((s): s is PlainSetUp => s.id === id.value && 'question' in s),
  )
  const turned = ref(0)
  const guess = ref<number>()
  /** Bonds switched by hand, by enclosure. */
  const bonds = ref<Readonly<Record<string, boolean>>>({})
  /** What else somebody has switched, whatever the set-up does. */
  const byHand = reactive({ isNeutralOpen: false, hasFault: false, isLoadOff: false })
  let neutrals: readonly string[] = []
  const clamp = ref<readonly string[]>([])
  const isWhole = ref(false)
  const shown = shallowRef<Shown>()
  const sweep = shallowRef<Sweep>()
  const problem = ref('')

  let worker: Worker | undefined
  let run = 0
  const latest = { open: 0, show: 0, sweep: 0 }
  function send(ask: Ask): void {
    worker ??= start()
    latest[ask.kind] = ++run
    const plain = 'house' in ask ? ask : (JSON.parse(JSON.stringify(ask)) as Ask)
    worker.postMessage({ ...plain, run })
  }
  function start(): Worker {
    const made = new Worker(new URL('../workers/paths.worker.ts', import.meta.url), {
      type: 'module',
    })
    made.onmessage = ({ data }: MessageEvent<PathsSay>) => {
      // Only the last thing asked is shown; what a slider passed by is of no use any more.
      if (data.kind === 'failed') problem.value = data.message
      else if (data.kind === 'opened' && data.run === latest.open)
        opened(data.setUps, data.neutrals)
      else if (data.kind === 'shown' && data.run === latest.show) {
        problem.value = ''
        shown.value = data.shown
      } else if (data.kind === 'swept' && data.run === latest.sweep) sweep.value = data.sweep
    }
    return made
  }
  function opened(list: readonly (PlainSetUp | NoSetUp)[], ofService: readonly string[]): void {
    neutrals = ofService
    problem.value = ''
    setUps.value = list
    if (!setUp.value) {
      const first = list.find(s => 'question' in s)
      if (first) choose(first.id)
    } else show()
  }
  function choose(next: SetUpId): void {
    id.value = next
    guess.value = undefined
    bonds.value = {}
    Object.assign(byHand, { isNeutralOpen: false, hasFault: false, isLoadOff: false })
    sweep.value = undefined
    turned.value = setUp.value?.slider.start ?? 0
    clamp.value = setUp.value?.clamp ?? []
    show()
  }
  function show(): void {
    if (!id.value || !setUp.value) return
    const by = Object.entries(bonds.value).map(([at, isClosed]): PathChange => ({
      change: 'bond',
      at,
      isClosed,
    }))
    const { focus } = setUp.value
    if (byHand.isNeutralOpen) by.push(...neutrals.map(open))
    if (byHand.isLoadOff) by.push(...focus.map(off))
    const [first] = focus
    if (byHand.hasFault && first) by.push({ change: 'fault', at: first, from: 'hot', to: 'ground' })
    send({
      kind: 'show',
      setUp: id.value,
      turned: turned.value,
      by,
      clamp: clamp.value,
      isWhole: isWhole.value,
    })
  }
  function curve(): void {
    if (id.value && !sweep.value) send({ kind: 'sweep', setUp: id.value })
  }
  /** Whether neutral and metal are joined in an enclosure, as it is drawn now. */
  const isJoined = (enclosure: string): boolean =>
    (shown.value?.answer.branches.find(b => b.id === `bond ${enclosure}`)?.ohms ?? OPEN) < OPEN
  function toggleBond(enclosure: string): void {
    bonds.value = { ...bonds.value, [enclosure]: !isJoined(enclosure) }
    show()
  }
  function toggleClamp(part: string): void {
    clamp.value = clamp.value.includes(part)
      ? clamp.value.filter(p => p !== part)
      : [...clamp.value, part]
    show()
  }
  watch([turned, isWhole, byHand], show)
  watch(
    house,
    now => {
      sweep.value = undefined
      send({ kind: 'open', house: now })
    },
    { immediate: true },
  )
  onScopeDispose(() => worker?.terminate())
  return {
    setUps,
    id,
    setUp,
    turned,
    guess,
    clamp,
    isWhole,
    byHand,
    shown,
    sweep,
    problem,
    choose,
    curve,
    isJoined,
    toggleBond,
    toggleClamp,
  }
}
