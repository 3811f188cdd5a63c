/**
 * Where along a circuit a state begins. Outlets hang on a tree from the breaker by `after`; what was ruled out at one
 * and leads at the next begins between them, though neither has a single answer.
 */
import { dropOf, type DropReadings, type DropSetting } from './drop'
import { JOINT_STATES, WHOLE_STATES, type OutletState, type Readings } from './states'

/** An outlet of the chain with what its readings say. */
export interface ChainOutlet {
  readonly id: string
  /** The outlet before it, or "panel"; nothing where nobody has traced it. */
  readonly after: string | undefined
  readonly circuit?: string
  /** The state that leads: the answer, or the likeliest of those that fit. Nothing where nothing was read. */
  readonly state?: string
  /** Every state that fits; without it only the leading one does. */
  readonly fitting?: readonly string[]
  readonly readings?: Readings
  readonly setting?: DropSetting
}
export interface Origin {
  readonly state: string
  /** First outlet that shows it. */
  readonly first: string
  /** The nearest outlet before it that has it ruled out, or "panel"; nothing where nobody knows what is before. */
  readonly before: string | undefined
  /** Outlets between those two where it is open. */
  readonly open: readonly string[]
  /** Other outlets that show it too. */
  readonly affects: readonly string[]
  readonly text: string
}
/** What several circuits show alike has one cause ahead of all of them. */
export interface CommonCause {
  readonly state: string
  readonly circuits: readonly string[]
  readonly text: string
}

const partsOf = (state: string): readonly string[] => state.split(' with ')
const isJoint = (state: string): boolean => JOINT_STATES.has(state as OutletState)
const isWhole = (state: string): boolean => WHOLE_STATES.has(state as OutletState)

/** Whether a state shows at an outlet: it leads there, or nothing that fits has it; undefined in between. */
function shows(o: ChainOutlet | undefined, state: string): boolean | undefined {
  if (o?.state === undefined) return undefined
  if (partsOf(o.state).includes(state)) return true
  return (o.fitting ?? []).some(f => partsOf(f).includes(state)) ? undefined : false
}

/** Whether nothing but this fits at an outlet. */
const proves = (o: ChainOutlet, state: string): boolean =>
  shows(o, state) === true && (o.fitting ?? []).every(f => partsOf(f).includes(state))

/**
 * What a lost neutral does it does to every outlet of the circuit. Where one of them has it ruled out, it is not what
 * leads at another: the one other thing that fits there does.
 */
function together(outlets: readonly ChainOutlet[]): readonly ChainOutlet[] {
  return outlets.map(o => {
    const { state, fitting = [] } = o
    if (state === undefined || !isWhole(state)) return o
    const isElsewhere = outlets.some(p => p.circuit === o.circuit && shows(p, state) === false)
    if (!isElsewhere) return o
    const left = fitting.filter(f => !isWhole(f))
    const { state: _, ...rest } = o
    return left.length === 1
      ? { ...rest, state: left[0]!, fitting: left }
      : { ...rest, fitting: left }
  })
}

/** Every state that is wrong somewhere, and the joint or box it is in. */
export function originsOf(told: readonly ChainOutlet[]): Origin[] {
  const outlets = together(told)
  const by = new Map(outlets.map(o => [o.id, o]))
  const origins: Origin[] = []
  for (const outlet of outlets) {
    const wrong = partsOf(outlet.state ?? 'good').filter(s => s !== 'good' && !isWhole(s))
    for (const state of wrong) {
      const origin = isJoint(state)
        ? beginning(by, outlets, outlet, state)
        : atDevice(by, outlet, state)
      if (origin) origins.push(origin)
    }
  }
  return origins
}

/** A state made at the device is where it shows, and nowhere else. */
function atDevice(
  by: ReadonlyMap<string, ChainOutlet>,
  outlet: ChainOutlet,
  state: string,
): Origin {
  return {
    state,
    first: outlet.id,
    before: outlet.after,
    open: [],
    affects: [],
    text: `${state} at ${outlet.id} alone: look in its box`,
  }
}

/** The joint a state begins at, if this outlet is the first behind it. */
function beginning(
  by: ReadonlyMap<string, ChainOutlet>,
  outlets: readonly ChainOutlet[],
  outlet: ChainOutlet,
  state: string,
): Origin | undefined {
  const open: string[] = []
  let before = outlet.after
  const walked = new Set([outlet.id])
  while (before !== undefined && before !== 'panel' && !walked.has(before)) {
    walked.add(before)
    const at = by.get(before)
    const found = shows(at, state)
    if (found === true) return undefined
    if (found === false) break
    open.unshift(before)
    before = at?.after
  }
  const behind = outlets.filter(o => o !== outlet && leadsTo(by, o, outlet.id))
  const affects = behind.filter(o => shows(o, state) === true).map(o => o.id)
  const isSpared = behind.some(o => shows(o, state) === false)
  const ahead = before ?? 'what is ahead'
  return {
    state,
    first: outlet.id,
    before,
    open,
    affects,
    text: isSpared
      ? `${state} at ${outlet.id} alone, and not behind it: look in its box`
      : open.length > 0
        ? `${state} from ${outlet.id} on: between ${ahead} and ${outlet.id}; not settled at ${open.join(', ')}`
        : affects.length > 0
          ? `${state} from ${outlet.id} on: the joint between ${ahead} and ${outlet.id}`
          : `${state} at ${outlet.id}: the joint between ${ahead} and ${outlet.id}, or its own box`,
  }
}

/** What circuits that show the same from their first outlet on have in common. */
export function commonCausesOf(outlets: readonly ChainOutlet[]): CommonCause[] {
  const circuits = new Map<string, ChainOutlet[]>()
  for (const o of outlets) {
    const id = o.circuit ?? ''
    circuits.set(id, [...(circuits.get(id) ?? []), o])
  }
  const having = (test: (list: readonly ChainOutlet[]) => boolean): string[] =>
    [...circuits].filter(([, list]) => test(list)).map(([id]) => id || 'the circuit')
  const causes: CommonCause[] = []
  for (const state of WHOLE_STATES) {
    // It bears on every outlet of a circuit: where it merely leads, and one has it ruled out, it is something else.
    // Where it is proven it stays: what was read at another moment may have been in balance.
    const on = having(
      list =>
        list.some(o => proves(o, state)) ||
        (list.some(o => shows(o, state)) && !list.some(o => shows(o, state) === false)),
    )
    if (on.length > 0) causes.push({ state, circuits: on, text: WHOLE_TEXT[state]!(on.join(', ')) })
  }
  if (circuits.size < 2) return causes
  const isNamed = (state: string) => causes.some(c => c.state === state)
  const name = (state: string, on: readonly string[]) => {
    if (on.length > 0 && !isNamed(state))
      causes.push({ state, circuits: on, text: WHOLE_TEXT[state]!(on.join(', ')) })
  }
  const { whole, pair } = halvesApart(circuits)
  name('open service neutral', whole)
  name('lost shared neutral', [...new Set([...pair, ...pulledPair(circuits)])])
  // What is wrong with the whole house, or with a pair, drops at every outlet of it too.
  const covered = new Set(causes.flatMap(c => c.circuits))
  for (const state of ['open hot', 'open neutral', 'high-resistance joint'] as const) {
    const on = having(list => firsts(list).some(o => shows(o, state))).filter(
      id => state === 'open hot' || !covered.has(id),
    )
    if (on.length < 2) continue
    causes.push({
      state,
      circuits: on,
      text: `${state} on ${on.join(', ')} from the first outlet on: they share ${SHARED_AHEAD[state]}`,
    })
  }
  return causes
}
const firsts = (list: readonly ChainOutlet[]) => list.filter(o => o.after === 'panel')
const SHARED_AHEAD = {
  'open hot': 'a leg, a bus or a device ahead of both',
  'open neutral': 'a shared neutral, or the neutral bar of the panel',
  'high-resistance joint':
    'the main or its lugs, the neutral bar, the feeder or the service: measure both halves there under load',
} as const

/**
 * A lost neutral lifts one half by what it takes from the other. A supply that holds stands at 114 to 126 V, and a bad
 * joint only takes: nothing else lifts a half above that.
 */
const LIFTED_V = 126
/** By so much a half of a pair stands off what the sound circuits beside it stand at. */
const HALF_OFF_V = 5
/** The two halves together are what the supply is, twice 114 to 126 V. */
const TOGETHER_V = [228, 252] as const
/**
 * Circuits that drop under load from the first outlet on, while some stand high and some low: no run of theirs is to
 * blame, the neutral ahead of them is. That of the house where all drop, of a pair where two do beside sound ones.
 * One outlet alone cannot tell it from a joint.
 */
function halvesApart(circuits: ReadonlyMap<string, readonly ChainOutlet[]>): {
  readonly whole: readonly string[]
  readonly pair: readonly string[]
} {
  const read = [...circuits].flatMap(([id, list]) => {
    const [first] = firsts(list)
    const { hotNeutral: volts, dropPercent: drop } = first?.readings ?? {}
    return volts === undefined || drop === undefined ? [] : [{ id, volts, drop }]
  })
  const dropping = read.filter(r => r.drop >= SOUND_DROP)
  if (dropping.length < 2) return { whole: [], pair: [] }
  const volts = dropping.map(r => r.volts)
  const ids = dropping.map(r => r.id)
  const [low, high] = [Math.min(...volts), Math.max(...volts)]
  if (dropping.length === read.length) {
    const isSplit = low + high >= TOGETHER_V[0] && low + high <= TOGETHER_V[1]
    return { whole: high >= LIFTED_V && isSplit ? ids : [], pair: [] }
  }
  const sound = read.filter(r => r.drop < SOUND_DROP).map(r => r.volts)
  const due = sound.reduce((n, v) => n + v, 0) / sound.length
  const isPair =
    dropping.length === 2 &&
    high - due >= HALF_OFF_V &&
    due - low >= HALF_OFF_V &&
    Math.abs(low + high - 2 * due) < 2 * HALF_OFF_V
  return { whole: [], pair: isPair ? ids : [] }
}
/** Drop of a run that is in order, per cent, at the test load. */
const SOUND_DROP = 8

/** A dead half beside one at nearly all of 240 V, both with the neutral at the voltage of a hot: they share it. */
function pulledPair(circuits: ReadonlyMap<string, readonly ChainOutlet[]>): readonly string[] {
  const at = (isIt: (across: number, neutral: number) => boolean) =>
    [...circuits].flatMap(([id, list]) =>
      firsts(list).some(o => isIt(o.readings?.hotNeutral ?? NaN, o.readings?.neutralGround ?? NaN))
        ? [id]
        : [],
    )
  const dead = at((across, neutral) => across < 20 && neutral > 90)
  const doubled = at((across, neutral) => across > 200 && neutral > 90)
  return dead.length > 0 && doubled.length > 0 ? [...dead, ...doubled] : []
}

const WHOLE_TEXT: Readonly<Record<string, (circuits: string) => string>> = {
  'open service neutral': on =>
    `Seen on ${on}: the neutral of the service or of the feeder to this panel is open, and every circuit shows it. ` +
    'Make safe now: shut off and call the utility; no rod, lifted bond or moved circuit cures it',
  'lost shared neutral': on =>
    `Seen on ${on}: the neutral shared by the pair is open ahead of its first outlet. Make safe now`,
}

export interface Joint {
  readonly between: readonly [string, string]
  /** By how much the drop jumps, per cent. */
  readonly jump: number
  /** What of it the wire between the two does not explain, volts at the test load. */
  readonly excessVolts: number
  readonly side: 'hot' | 'neutral' | 'both' | undefined
  readonly ohms: number
  readonly watts: number
}

/** Runs of a length nobody has said: as long as is usual between two boxes, in the thinner wire. */
const USUAL_FT = 40
/**
 * The joint the drop is lost in: between the two neighbors where most of it is not explained by the wire between
 * them. Nothing under 2 per cent.
 */
export function jointOf(outlets: readonly ChainOutlet[]): Joint | undefined {
  const by = new Map(outlets.map(o => [o.id, o]))
  let found: Joint | undefined
  for (const o of outlets) {
    const from = o.after === 'panel' ? PANEL : by.get(o.after ?? '')
    if (o.after === undefined || !from) continue
    const [here, there] = [o.readings?.dropPercent, from.readings?.dropPercent]
    if (here === undefined || there === undefined) continue
    const [near, far] = [from.setting?.runFt, o.setting?.runFt]
    const ft = near === undefined || far === undefined ? USUAL_FT : Math.max(0, far - near)
    const drop = dropOf(
      {
        dropPercent: Math.max(0, here - there),
        ...lifted(o.readings, from.readings),
      },
      { ...o.setting, runFt: ft },
    )
    if (!drop || drop.excessPercent < 2) continue
    const joint: Joint = {
      between: [o.after, o.id],
      jump: Math.round((here - there) * 100) / 100,
      excessVolts: drop.excessVolts,
      side: drop.side,
      ohms: drop.ohms,
      watts: drop.watts,
    }
    if (!found || joint.excessVolts > found.excessVolts) found = joint
  }
  return found
}

const PANEL: Pick<ChainOutlet, 'readings' | 'setting'> = {
  readings: { dropPercent: 0, neutralGround: 0, neutralGroundLoaded: 0 },
  setting: { runFt: 0 },
}

/** What the neutral of one outlet is lifted by beyond that of the one before it. */
function lifted(here: DropReadings = {}, there: DropReadings = {}): DropReadings {
  const rise = (r: DropReadings) =>
    r.neutralGroundLoaded === undefined ? undefined : r.neutralGroundLoaded - (r.neutralGround ?? 0)
  const [far, near] = [rise(here), rise(there)]
  if (far === undefined || near === undefined) return {}
  return { neutralGroundLoaded: Math.max(0, far - near), neutralGround: 0 }
}

function leadsTo(by: ReadonlyMap<string, ChainOutlet>, from: ChainOutlet, target: string): boolean {
  const walked = new Set<string>()
  for (
    let at: ChainOutlet | undefined = from;
    at && !walked.has(at.id);
    at = at.after === undefined ? undefined : by.get(at.after)
  ) {
    if (at.after === target) return true
    walked.add(at.id)
  }
  return false
}
