/** Solves where the current goes beside the screen, so that a slider never waits for it. */
import {
  bondMapOf,
  clampRead,
  currentLayout,
  isSetUp,
  networkOf,
  PropertyTracer,
  setUpsOf,
  Site,
  sweepOf,
  UndrawableProperty,
  UnsolvablePaths,
  type CurrentLayout,
  type House,
  type NoSetUp,
  type PathChange,
  type PropertyAnswer,
  type PropertyNetwork,
  type SetUp,
  type SetUpId,
  type Sweep,
} from '#core'

/** A set-up without what only the worker can do with it. */
export type PlainSetUp = Omit<SetUp, 'changes' | 'explain'>
export interface Shown {
  readonly layout: CurrentLayout
  readonly answer: PropertyAnswer
  readonly explains: readonly string[]
  /** What the clamp reads, amperes; undefined where it is laid round nothing. */
  readonly clamp: number | undefined
  readonly ms: number
}
export type PathsAsk =
  | { kind: 'open'; run: number; house: House }
  | {
      kind: 'show'
      run: number
      setUp: SetUpId
      turned: number
      /** What somebody has switched by hand, after what the set-up does. */
      by: readonly PathChange[]
      clamp: readonly string[]
      /** Every panel drawn, not only those on the way to what is looked at. */
      isWhole: boolean
    }
  | { kind: 'sweep'; run: number; setUp: SetUpId }
export type PathsSay =
  | {
      kind: 'opened'
      run: number
      setUps: readonly (PlainSetUp | NoSetUp)[]
      /** Neutrals of the service conductors, to be opened by hand. */
      neutrals: readonly string[]
    }
  | { kind: 'shown'; run: number; shown: Shown }
  | { kind: 'swept'; run: number; sweep: Sweep }
  | { kind: 'failed'; run: number; message: string }

let site: Site | undefined
let network: PropertyNetwork | undefined
let setUps: readonly (SetUp | NoSetUp)[] = []

function plain(setUp: SetUp | NoSetUp): PlainSetUp | NoSetUp {
  if (!isSetUp(setUp)) return setUp
  const { changes: _changes, explain: _explain, ...rest } = setUp
  return rest
}
function find(id: SetUpId): SetUp {
  const found = setUps.find(s => s.id === id)
  if (!found || !isSetUp(found)) throw new Error(found?.why ?? 'no such set-up')
  return found
}

function answer(ask: PathsAsk): PathsSay {
  const { run } = ask
  if (ask.kind === 'open') {
    site = new Site(ask.house)
    network = networkOf(site)
    setUps = setUpsOf(site, network)
    const neutrals = network.parts
      .filter(p => p.kind === 'neutral' && p.id.startsWith('service '))
      .map(p => p.id)
    return { kind: 'opened', run, setUps: setUps.map(plain), neutrals }
  }
  if (!site || !network) throw new Error('no property is open')
  const setUp = find(ask.setUp)
  if (ask.kind === 'sweep') return { kind: 'swept', run, sweep: sweepOf(site, network, setUp) }
  const began = performance.now()
  const tracer = new PropertyTracer(site, [...setUp.changes(ask.turned), ...ask.by], network)
  const traced = tracer.trace()
  return {
    kind: 'shown',
    run,
    shown: {
      layout: currentLayout(site, bondMapOf(site, []), tracer.network, setUp.focus, ask.isWhole),
      answer: traced,
      explains: setUp.explain(traced, ask.turned),
      clamp: ask.clamp.length > 0 ? clampRead(traced, ask.clamp) : undefined,
      ms: performance.now() - began,
    },
  }
}

self.onmessage = ({ data }: MessageEvent<PathsAsk>) => {
  try {
    self.postMessage(answer(data))
  } catch (error) {
    const isTold = error instanceof UnsolvablePaths || error instanceof UndrawableProperty
    if (!isTold) console.error(error)
    self.postMessage({ kind: 'failed', run: data.run, message: (error as Error).message })
  }
}
