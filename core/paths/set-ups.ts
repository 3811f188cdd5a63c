/**
 * What one tries to see where current goes: each a question first, what is done on a property, and what is seen. On the
 * teaching house or on one's own, by whatever of it fits.
 */
import { neutralGroupOf } from '../derive/neutrals'
import { roleOf } from '../derive/service-role'
import type { Site } from '../derive/site'
import { valueOf } from '../model/house'
import { tripBand } from '../tables/protective-devices'
import { labelOf } from '../texts/labels'
import { PropertyTracer, type PathChange, type PropertyAnswer } from './changes'
import { wireOhms, type LoadPlace, type PropertyNetwork } from './property'

export const SET_UPS = [
  'normal',
  'second-bond',
  'ground-fault',
  'no-ground',
  'only-a-rod',
  'lost-neutral',
  'one-leg',
  'bad-joint',
] as const
export type SetUpId = (typeof SET_UPS)[number]

/** What a set-up needs of a property. */
interface Roles {
  readonly service: string | undefined
  readonly sub:
    { readonly id: string; readonly feeder: string; readonly place: LoadPlace } | undefined
  readonly grounded: LoadPlace | undefined
  /** A load on each leg of one panel, and the service neutral they come home by. */
  readonly halves: Pair | undefined
  /** Two circuits on one neutral. */
  readonly pair: Pair | undefined
}
interface Pair {
  readonly a: LoadPlace
  readonly b: LoadPlace
  readonly neutral: string
}
/** A curve: what is turned, and what is read at each position. */
export interface Sweep {
  readonly title: string
  readonly x: string
  readonly y: string
  readonly series: readonly { readonly name: string; readonly unit: string }[]
  readonly points: readonly {
    readonly x: number
    readonly y: readonly number[]
    readonly says?: string
  }[]
}
export interface SetUpSlider {
  readonly id: 'amperes' | 'ohms' | 'feet' | 'split'
  readonly label: string
  readonly unit: string
  readonly min: number
  readonly max: number
  readonly step: number
  readonly start: number
}
export interface SetUp {
  readonly id: SetUpId
  readonly title: string
  readonly question: string
  readonly guesses: readonly string[]
  /** Which of the guesses is right. */
  readonly right: number
  readonly slider: SetUpSlider
  /** Things the drawing shows beside panels and electrodes. */
  readonly focus: readonly string[]
  /** The parts a clamp is laid round to begin with. */
  readonly clamp: readonly string[]
  changes(turned: number): readonly PathChange[]
  /** What is seen, in the numbers of this property. */
  explain(answer: PropertyAnswer, turned: number): readonly string[]
  /** What it would be good to know besides. */
  readonly caution: string
}
/** A set-up a property has no place for, and why. */
export interface NoSetUp {
  readonly id: SetUpId
  readonly title: string
  readonly why: string
}

const TITLES: Readonly<Record<SetUpId, string>> = {
  normal: 'Ordinary loads',
  'second-bond': 'Neutral bonded again downstream',
  'ground-fault': 'A fault to a grounded frame',
  'no-ground': 'The same fault without a ground',
  'only-a-rod': 'Only a ground rod',
  'lost-neutral': 'The service neutral is lost',
  'one-leg': 'A shared neutral, both on one leg',
  'bad-joint': 'A bad joint',
}

export function rolesIn(site: Site, network: PropertyNetwork): Roles {
  const part = new Map(network.parts.map(p => [p.id, p]))
  const halves = network.places.filter(p => p.volts === 120)
  const legOf = (p: LoadPlace): 'A' | 'B' | undefined => {
    const breaker = valueOf(site.get(p.circuit, 'circuit'), 'fedBy')
    const [a, b] = [part.has(`breaker ${breaker} A`), part.has(`breaker ${breaker} B`)]
    return a && !b ? 'A' : b && !a ? 'B' : undefined
  }
  const ground = (p: LoadPlace) => part.get(`ground ${p.subject}`)?.ohms ?? Infinity
  const service = site.all.enclosure.find(
    e =>
      part.has(`bond ${e.id}`) &&
      valueOf(e, 'type') !== 'meter' &&
      roleOf(site, e).value !== 'load',
  )
  const inPanel = (p: LoadPlace, panel: string) =>
    site.get(valueOf(site.get(p.circuit, 'circuit'), 'fedBy'), 'breaker')?.parent === panel
  const sub = site.all.enclosure.flatMap(e => {
    const feeder = valueOf(e, 'fedFrom')
    const place = halves.find(p => inPanel(p, e.id))
    const isSub =
      roleOf(site, e).value === 'load' && part.get(`feeder ${feeder} G`)?.ohms !== Infinity
    return isSub && place && feeder !== undefined && part.has(`feeder ${feeder} N`)
      ? [{ id: e.id, feeder, place }]
      : []
  })[0]
  const twoLegs = site.all.enclosure.flatMap(e => {
    const here = halves.filter(p => inPanel(p, e.id))
    const [a, b] = [here.find(p => legOf(p) === 'A'), here.find(p => legOf(p) === 'B')]
    const neutral = serviceNeutralOf(site, e.id)
    return a && b && neutral !== undefined && part.has(neutral) ? [{ a, b, neutral }] : []
  })[0]
  const pair = halves.flatMap(first => {
    const circuit = site.get(first.circuit, 'circuit')
    const group = circuit ? neutralGroupOf(site, circuit).circuits : []
    const [head] = group
    const second = halves.find(
      p =>
        p.circuit !== first.circuit &&
        group.some(c => c.id === p.circuit) &&
        legOf(p) !== legOf(first),
    )
    const neutral = `neutral ${head?.id} shared neutral`
    return second && legOf(first) && legOf(second) && part.has(neutral)
      ? [{ a: first, b: second, neutral }]
      : []
  })[0]
  return {
    service: service?.id,
    sub,
    grounded: halves.find(p => ground(p) < 1 && legOf(p) !== undefined),
    halves: twoLegs,
    pair,
  }
}

const amps = (answer: PropertyAnswer, part: string): number =>
  Math.abs(answer.branches.find(b => b.id === part)?.amperes ?? 0)
const volts = (answer: PropertyAnswer, node: string): number => Math.abs(answer.nodes[node] ?? 0)
const n = (x: number): string => (x < 0.05 ? '0' : x < 10 ? x.toFixed(1) : x.toFixed(0))
const AMPERES: SetUpSlider = {
  id: 'amperes',
  label: 'Load',
  unit: 'A',
  min: 0,
  max: 20,
  step: 0.5,
  start: 10,
}

/** The neutral of the service a panel hangs on. */
function serviceNeutralOf(site: Site, panel: string): string | undefined {
  const seen = new Set<string>()
  for (let at: string | undefined = panel; at !== undefined && !seen.has(at);) {
    seen.add(at)
    const from: string | undefined = valueOf(site.get(at, 'enclosure'), 'fedFrom')
    if (from === 'utility' || from === undefined) return `service ${at} N`
    const start: string | undefined = valueOf(site.get(from, 'feeder'), 'from')
    at = site.get(start, 'enclosure')?.id ?? site.get(start, 'breaker')?.parent ?? undefined
  }
  return undefined
}

/** The set-ups of a property: those it has a place for, and those it has not. */
export function setUpsOf(site: Site, network: PropertyNetwork): readonly (SetUp | NoSetUp)[] {
  const roles = rolesIn(site, network)
  return SET_UPS.map(
    id => build(id, site, network, roles) ?? { id, title: TITLES[id], why: WHY[id] },
  )
}
export const isSetUp = (x: SetUp | NoSetUp): x is SetUp => 'question' in x

const NO_HALVES = 'No load of 120 V is drawn on each of the two legs.'
const NO_GROUND = 'No outlet with a grounding conductor is drawn.'
const WHY: Readonly<Record<SetUpId, string>> = {
  normal: NO_HALVES,
  'second-bond': 'No sub-panel with a grounding conductor and a load is drawn.',
  'ground-fault': NO_GROUND,
  'no-ground': NO_GROUND,
  'only-a-rod': NO_GROUND,
  'lost-neutral': NO_HALVES,
  'one-leg': 'No two circuits that share a neutral on two legs are drawn.',
  'bad-joint': NO_GROUND,
}

const LIVE = 'Never try this on a live house: it is here so that nobody has to.'

function build(
  id: SetUpId,
  site: Site,
  network: PropertyNetwork,
  { service, sub, grounded, halves, pair }: Roles,
): SetUp | undefined {
  const title = TITLES[id]
  const off = network.places.flatMap((p): PathChange[] =>
    network.parts.some(x => x.id === `load ${p.circuit}`)
      ? [{ change: 'load', at: p.circuit, amperes: 0 }]
      : [],
  )
  const quiet = [...new Map(off.map(c => [JSON.stringify(c), c])).values()]
  const load = (p: LoadPlace, amperes: number): PathChange => ({
    change: 'load',
    at: p.subject,
    amperes,
  })
  const serviceNeutral = halves?.neutral
  switch (id) {
    case 'normal': {
      if (!halves || !serviceNeutral) return undefined
      return {
        id,
        title,
        question: '10 A on one leg and 6 A on the other: what comes back in the service neutral?',
        guesses: ['16 A', '4 A', '10 A'],
        right: 1,
        slider: { ...AMPERES, label: 'Load on the first leg' },
        focus: [halves.a.subject, halves.b.subject],
        clamp: [serviceNeutral],
        changes: x => [...quiet, load(halves.a, x), load(halves.b, 6)],
        explain: (answer, x) => [
          `The two halves pull against each other: of ${n(x)} and 6 A only the difference, ` +
            `${n(amps(answer, serviceNeutral))} A, comes back in the neutral.`,
          'Nothing comes back in grounding conductors or electrodes, but for a trickle through the earth.',
        ],
        caution:
          'A clamp on a grounding conductor that reads more than a trickle has found a second bond.',
      }
    }
    case 'second-bond': {
      if (!sub || !service) return undefined
      const [neutral, ground] = [`feeder ${sub.feeder} N`, `feeder ${sub.feeder} G`]
      return {
        id,
        title,
        question:
          'Neutral and metal are joined in the sub-panel too. Where does 10 A of a load there come back?',
        guesses: [
          'All of it in the neutral',
          'In the neutral and in the grounding conductor, as their resistances say',
          'All of it in the grounding conductor',
        ],
        right: 1,
        slider: {
          id: 'ohms',
          label: 'Added in the feeder neutral',
          unit: 'Ω',
          min: 0,
          max: 0.5,
          step: 0.005,
          start: 0,
        },
        focus: [sub.place.subject],
        clamp: [ground],
        changes: x => [
          ...quiet,
          load(sub.place, 10),
          { change: 'bond', at: sub.id, isClosed: true },
          { change: 'joint', part: neutral, ohms: x },
        ],
        explain: answer => [
          `${n(amps(answer, neutral))} A come back in the neutral, ${n(amps(answer, ground))} A in the grounding ` +
            'conductor: current takes all paths at once, each by how well it conducts.',
          `The metal of the sub-panel stands at ${volts(answer, `${sub.id} G`).toFixed(1)} V against the earth, ` +
            'and so does every frame behind it.',
          'Should the neutral come loose, all of it goes over the grounds, and nothing opens.',
        ],
        caution:
          'The clamp proves it: loads on, a feeder grounding conductor reads about 0 A where the bond is right.',
      }
    }
    case 'ground-fault':
    case 'no-ground':
    case 'only-a-rod': {
      if (!grounded) return undefined
      return faultSetUp(id, title, site, network, grounded, quiet)
    }
    case 'lost-neutral': {
      if (!halves || !serviceNeutral) return undefined
      const landings = network.parts.filter(p => p.kind === 'electrode').map(p => p.id)
      const cut = landings.map((part): PathChange => ({ change: 'open', part }))
      const total = 1500
      return {
        id,
        title,
        question:
          'The service neutral is open. 1200 W hang on one leg, 300 W on the other. What does the small load get?',
        guesses: ['120 V, as before', 'Nothing', 'Nearly 200 V'],
        right: 2,
        slider: {
          id: 'split',
          label: 'Of 1500 W, on the first leg',
          unit: 'W',
          min: 100,
          max: 1400,
          step: 50,
          start: 1200,
        },
        focus: [halves.a.subject, halves.b.subject],
        clamp: [serviceNeutral],
        changes: x => [
          ...quiet,
          { change: 'open', part: serviceNeutral },
          ...cut,
          { change: 'load', at: halves.a.subject, watts: x },
          { change: 'load', at: halves.b.subject, watts: total - x },
        ],
        explain: answer => {
          const across = (p: LoadPlace) =>
            Math.abs(answer.branches.find(b => b.id === `load at ${p.subject}`)?.volts ?? 0)
          return [
            `The two loads stand in series across 240 V: the large one gets ${n(across(halves.a))} V, the small one ` +
              `${n(across(halves.b))} V.`,
            'Lights that brighten on one half while they dim on the other say this before any meter does.',
            'With good electrodes some of it goes home through the earth: the halves differ less, and the fault hides.',
          ]
        },
        caution:
          'This burns appliances and starts fires: open the main, call the utility, let nobody touch the service.',
      }
    }
    case 'one-leg': {
      if (!pair) return undefined
      const breaker = valueOf(site.get(pair.b.circuit, 'circuit'), 'fedBy')
      const own = network.parts.find(p => p.kind === 'device' && p.subject === breaker)
      const other = network.parts.find(
        p =>
          p.kind === 'device' &&
          p.subject === valueOf(site.get(pair.a.circuit, 'circuit'), 'fedBy'),
      )
      if (!own || !other) return undefined
      return {
        id,
        title,
        question:
          'Two circuits share a neutral of 12 AWG, good for 20 A. Both land on one leg, with 14 and 11 A on. ' +
          'The neutral carries …',
        guesses: ['3 A', '14 A', '25 A'],
        right: 2,
        slider: { ...AMPERES, label: 'Load on the first', max: 20, start: 14 },
        focus: [pair.a.subject, pair.b.subject],
        clamp: [pair.neutral],
        changes: x => [
          ...quiet,
          load(pair.a, x),
          load(pair.b, 11),
          { change: 'open', part: own.id },
          {
            change: 'path',
            id: 'moved to the same leg',
            from: other.from,
            to: own.to,
            ohms: 0.002,
          },
        ],
        explain: (answer, x) => [
          `On one leg the two add up: ${n(amps(answer, pair.neutral))} A in a neutral that no breaker watches.`,
          `On two legs it would be the difference, ${n(Math.abs(x - 11))} A.`,
          'Neither breaker opens: each sees only its own half.',
        ],
        caution:
          'Between the two hots 240 V prove two legs; 0 V is this fault. A breaker of two poles keeps it right.',
      }
    }
    case 'bad-joint': {
      if (!grounded) return undefined
      const part = `hot ${grounded.subject}`
      return {
        id,
        title,
        question: '0.2 Ω in a splice, 15 A through it. How much heat is made in the splice?',
        guesses: ['About 3 W', 'About 45 W', 'None to speak of'],
        right: 1,
        slider: { ...AMPERES, max: 20, start: 15 },
        focus: [grounded.subject],
        clamp: [part],
        changes: x => [...quiet, load(grounded, x), { change: 'joint', part, ohms: 0.2 }],
        explain: answer => {
          const i = amps(answer, part)
          return [
            `${n(i)} A in 0.2 Ω: ${(i * 0.2).toFixed(1)} V lost and ${n(i * i * 0.2)} W of heat in a place ` +
              'the size of a thumb.',
            'The breaker sees an ordinary load and holds.',
          ]
        },
        caution:
          'Heat goes with the square of the load: scan and measure with the load on, never without.',
      }
    }
  }
}

function faultSetUp(
  id: 'ground-fault' | 'no-ground' | 'only-a-rod',
  title: string,
  site: Site,
  network: PropertyNetwork,
  place: LoadPlace,
  quiet: readonly PathChange[],
): SetUp {
  const { subject } = place
  const breaker = site.get(valueOf(site.get(place.circuit, 'circuit'), 'fedBy'), 'breaker')
  const device = network.parts.find(p => p.kind === 'device' && p.subject === breaker?.id)?.id ?? ''
  const rating = valueOf(breaker, 'ratingAmps')
  const name = breaker ? labelOf(site, breaker) : 'the breaker'
  const fault: PathChange = { change: 'fault', at: subject, from: 'hot', to: 'ground' }
  const openGround: PathChange = { change: 'open', part: `ground ${subject}` }
  const tells = (answer: PropertyAnswer): string => {
    const trip = answer.trips.find(t => t.on === device)
    return trip
      ? `${n(trip.amperes)} A through ${name}, ${trip.multiple.toFixed(1)} times its ${trip.ratingAmps} A: ` +
          `${trip.says}${trip.withinSeconds === null ? '' : ' (a band, not a promise)'}.`
      : `${n(amps(answer, device))} A through ${name}.`
  }
  const common = { id, title, focus: [subject], caution: LIVE }
  if (id === 'ground-fault')
    return {
      ...common,
      question: `The hot touches the grounded frame at ${place.text}. What opens the breaker?`,
      guesses: ['The earth, by the rod', 'The grounding conductor, back to the neutral', 'Nothing'],
      right: 1,
      clamp: [`ground ${subject}`],
      slider: {
        id: 'feet',
        label: 'Length of the run',
        unit: 'ft',
        min: 10,
        max: 300,
        step: 5,
        start: 60,
      },
      changes: x => [
        ...quiet,
        fault,
        { change: 'resistance', part: `hot ${subject}`, ohms: wireOhms('12', 'copper', x) },
        { change: 'resistance', part: `ground ${subject}`, ohms: wireOhms('12', 'copper', x) },
      ],
      explain: answer => [
        tells(answer),
        `Until it opens the frame stands at ${n(volts(answer, place.ground))} V.`,
        'What matters is the way back to the neutral at the service: the rod carries next to nothing of it.',
      ],
    }
  const slider: SetUpSlider = {
    id: 'ohms',
    label: id === 'no-ground' ? 'Body and shoes' : 'The rod',
    unit: 'Ω',
    min: id === 'no-ground' ? 500 : 1,
    max: id === 'no-ground' ? 20_000 : 100,
    step: id === 'no-ground' ? 500 : 1,
    start: id === 'no-ground' ? 1000 : 25,
  }
  if (id === 'no-ground')
    return {
      ...common,
      question: 'The frame has no ground. The hot touches it, and then somebody does. What opens?',
      guesses: [
        'The breaker',
        'Only a ground-fault device, once somebody touches',
        'Nothing, in any case',
      ],
      right: 1,
      clamp: [`hot ${subject}`],
      slider,
      changes: x => [
        ...quiet,
        openGround,
        fault,
        { change: 'body', from: place.ground, to: 'earth', ohms: x },
      ],
      explain: (answer, x) => [
        `The frame stands at ${n(volts(answer, place.ground))} V and nothing opens by itself.`,
        `Through ${x.toLocaleString('en-US')} Ω of body and shoes flow ${n(answer.body?.milliamperes ?? 0)} mA: ` +
          `${answer.body?.effect ?? ''}. People differ; being dry is no help to count on.`,
        'A ground-fault device opens at about 5 mA. It limits how long, not how hard.',
      ],
    }
  return {
    ...common,
    question:
      'The frame is tied to a ground rod and to nothing else. The hot touches it. What does the breaker do?',
    guesses: ['It opens at once', 'It opens within minutes', 'It holds for ever'],
    right: 2,
    clamp: ['own rod'],
    slider,
    changes: x => [
      ...quiet,
      openGround,
      fault,
      { change: 'path', id: 'own rod', from: place.ground, to: 'earth', ohms: x },
    ],
    explain: answer => [
      tells(answer),
      `The earth lets ${n(amps(answer, 'own rod'))} A through, and the frame stays at ` +
        `${n(volts(answer, place.ground))} V${rating === undefined ? '' : ` for as long as ${rating} A do not flow`}.`,
      'A rod is for lightning and for the utility side; it clears no fault.',
    ],
  }
}

const STEPS = 40
/**
 * The curve of a set-up: its slider turned from end to end.
 * @throws UnsolvablePaths where a change cannot be made
 */
export function sweepOf(site: Site, network: PropertyNetwork, setUp: SetUp): Sweep {
  const { min, max, label, unit } = setUp.slider
  const at = (x: number) => new PropertyTracer(site, setUp.changes(x), network).trace()
  const xs = Array.from({ length: STEPS + 1 }, (_, i) => min + ((max - min) * i) / STEPS)
  const of = (
    title: string,
    y: string,
    series: Sweep['series'],
    read: (answer: PropertyAnswer, x: number) => { y: readonly number[]; says?: string },
  ): Sweep => ({
    title,
    x: `${label}, ${unit}`,
    y,
    series,
    points: xs.map(x => ({ x, ...read(at(x), x) })),
  })
  const [clamp = ''] = setUp.clamp
  switch (setUp.id) {
    case 'second-bond': {
      const neutral = clamp.replace(/ G$/, ' N')
      return of(
        'What share of the load comes back by which path',
        'share, %',
        [
          { name: 'neutral', unit: '%' },
          { name: 'grounding conductor and metal', unit: '%' },
        ],
        answer => {
          const [a, b] = [amps(answer, neutral), amps(answer, clamp)]
          const whole = a + b || 1
          return { y: [(100 * a) / whole, (100 * b) / whole] }
        },
      )
    }
    case 'lost-neutral': {
      const [a, b] = setUp.focus
      const across = (answer: PropertyAnswer, place: string | undefined) =>
        Math.abs(answer.branches.find(x => x.id === `load at ${place}`)?.volts ?? 0)
      return of(
        'Volts on both halves',
        'V',
        [
          { name: 'first leg', unit: 'V' },
          { name: 'second leg', unit: 'V' },
        ],
        answer => ({ y: [across(answer, a), across(answer, b)] }),
      )
    }
    case 'ground-fault': {
      const device = deviceOf(site, network, setUp)
      return of(
        'Fault current against the length of the run',
        'A',
        [{ name: 'fault current', unit: 'A' }],
        answer => {
          const current = amps(answer, device.part)
          const { note } = tripBand(device.rating, current)
          return { y: [current], says: note }
        },
      )
    }
    case 'bad-joint':
      return of('Heat in the joint', 'W', [{ name: 'heat', unit: 'W' }], answer => ({
        y: [amps(answer, clamp) ** 2 * 0.2],
      }))
    case 'no-ground':
      return of(
        'Current through the body',
        'mA',
        [{ name: 'through the body', unit: 'mA' }],
        answer => ({
          y: [answer.body?.milliamperes ?? 0],
          says: answer.body?.effect,
        }),
      )
    case 'only-a-rod':
      return of('Volts that stay on the frame', 'V', [{ name: 'frame', unit: 'V' }], answer => ({
        y: [volts(answer, `${setUp.focus[0]} g`)],
      }))
    case 'normal':
    case 'one-leg':
      return of('What the neutral carries', 'A', [{ name: 'neutral', unit: 'A' }], answer => ({
        y: [amps(answer, clamp)],
      }))
  }
}

function deviceOf(
  site: Site,
  network: PropertyNetwork,
  setUp: SetUp,
): { part: string; rating: number } {
  const place = network.places.find(p => p.subject === setUp.focus[0])
  const breaker = site.get(valueOf(site.get(place?.circuit, 'circuit'), 'fedBy'), 'breaker')
  const part = network.parts.find(p => p.kind === 'device' && p.subject === breaker?.id)?.id ?? ''
  return { part, rating: valueOf(breaker, 'ratingAmps') ?? 20 }
}
