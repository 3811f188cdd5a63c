import { feederGroundOf } from '../derive/feeder-ground'
import { soundnessOf } from '../derive/electrode'
import { ruleById } from '../rules'
import { roleOf } from '../derive/service-role'
import { neutralBondOf } from '../derive/bond'
import type { Site } from '../derive/site'
import { valueOf, type Subject } from '../model/house'
import { labelOf } from '../texts/labels'
import type { SpokenResult } from '../assess/assess'

/** How a tie between two things stands. A gap in what was seen is drawn as a gap. */
export type TieState = 'sound' | 'missing' | 'second' | 'unsound' | 'lawful old' | 'not seen'
export interface MapNode {
  readonly id: string
  readonly kind: 'utility' | 'enclosure' | 'electrode' | 'piping' | 'steel' | 'communications'
  readonly label: string
  /** What it is: service disconnect, supply side, sub-panel, not settled; kind of electrode or pipe. */
  readonly what: string
  /** Steps from the utility; electrodes and pipes take that of the enclosure they hang on. */
  readonly depth: number
  readonly building: string
  readonly subject: string | undefined
}
export interface MapTie {
  readonly id: string
  readonly from: string
  readonly to: string
  readonly kind:
    | 'supply'
    | 'feeder'
    | 'ground'
    | 'neutral bond'
    | 'grounding electrode conductor'
    | 'pipe bond'
    | 'bond'
  readonly state: TieState
  readonly text: string
  readonly subject: string | undefined
}
export interface BondMap {
  readonly nodes: readonly MapNode[]
  /** Between things; a neutral bond ties an enclosure to itself. */
  readonly ties: readonly MapTie[]
  /** Asked first: which enclosure is the service disconnect; undefined once settled. */
  readonly firstQuestion: { readonly subject: string; readonly text: string } | undefined
  /** What a sound system measures, to be done when the work is done. */
  readonly acceptance: readonly string[]
  readonly problems: readonly {
    readonly rule: string
    readonly subject: string
    readonly text: string
  }[]
}

const UTILITY = 'utility'

/** Whether a tie holds what stands beside an enclosure: an electrode, piping, steel, communications. */
export const isToTheSide = ({ kind }: MapTie): boolean =>
  kind === 'grounding electrode conductor' || kind === 'pipe bond' || kind === 'bond'

/** The premises as one graph of supply, grounding and bonding, with what is missing, second, isolated or unseen. */
export function bondMapOf(site: Site, results: readonly SpokenResult[]): BondMap {
  // A check that failed is drawn as such, also where it is allowed to remain or only the year is open.
  const verdict = new Map(
    results.map(r => [`${r.rule} ${r.subject.id}`, r.checks.length > 0 ? 'fault' : r.outcome]),
  )
  const depth = depths(site)
  const nodes: MapNode[] = [
    {
      id: UTILITY,
      kind: 'utility',
      label: 'Utility',
      what: 'grounded transformer',
      depth: 0,
      building: '',
      subject: undefined,
    },
  ]
  const ties: MapTie[] = []
  for (const e of site.all.enclosure) {
    const role = roleOf(site, e).value
    nodes.push({
      id: e.id,
      kind: 'enclosure',
      label: labelOf(site, e),
      what:
        role === 'service'
          ? 'service disconnect'
          : role === 'supply'
            ? 'supply side'
            : role === 'load'
              ? 'after the service'
              : 'service or not: not settled',
      depth: depth.get(e.id) ?? 1,
      building: buildingName(site, e),
      subject: e.id,
    })
    supply(e)
    neutral(e)
  }
  for (const electrode of site.all.electrode) {
    const at = valueOf(electrode, 'landsIn')
    const host = site.get(at, 'enclosure')
    nodes.push({
      id: electrode.id,
      kind: 'electrode',
      label: labelOf(site, electrode),
      what: valueOf(electrode, 'type') ?? 'kind not seen',
      depth: (host ? (depth.get(host.id) ?? 1) : 0) + 1,
      building: host ? buildingName(site, host) : buildingName(site, electrode),
      subject: electrode.id,
    })
    if (!host) continue
    const { faults, isSeen } = soundnessOf(site, electrode, host).value
    const size = valueOf(electrode, 'size')
    ties.push({
      id: `gec ${electrode.id}`,
      from: electrode.id,
      to: host.id,
      kind: 'grounding electrode conductor',
      state: faults.length > 0 ? 'unsound' : isSeen ? 'sound' : 'not seen',
      text:
        [size && `${size} AWG`, valueOf(electrode, 'connection')].filter(Boolean).join(', ') ||
        'not looked at',
      subject: electrode.id,
    })
  }
  const service = site.all.enclosure.find(e => roleOf(site, e).value === 'service')
  for (const e of site.all.enclosure) {
    if (
      roleOf(site, e).value !== 'service' ||
      site.all.electrode.some(x => valueOf(x, 'landsIn') === e.id)
    )
      continue
    const seen = valueOf(e, 'electrodes')
    if (seen === 'found') continue
    const id = `no electrode ${e.id}`
    nodes.push({
      id,
      kind: 'electrode',
      label: 'Electrode',
      what: seen === 'none found' ? 'none found' : 'not looked for',
      depth: (depth.get(e.id) ?? 1) + 1,
      building: buildingName(site, e),
      subject: e.id,
    })
    ties.push({
      id: `gec ${id}`,
      from: id,
      to: e.id,
      kind: 'grounding electrode conductor',
      state: seen === 'none found' ? 'missing' : 'not seen',
      text: seen === 'none found' ? 'no GEC found' : 'look for it',
      subject: e.id,
    })
  }
  const p = site.premises
  if (service) {
    const water = valueOf(p, 'waterPiping')
    if (water !== 'plastic' && water !== 'none')
      pipe('water piping', 'Water piping', water ?? 'not looked at', 'water-bond')
    const gas = valueOf(p, 'gasPiping')
    if (gas !== 'none')
      pipe(
        'gas piping',
        'Gas piping',
        gas ?? 'not looked at',
        gas === 'corrugated tubing' ? 'csst-bond' : 'gas-bond',
      )
    const comms = valueOf(p, 'intersystem')
    const bonds = site.all.bond.filter(b => valueOf(b, 'to') === 'communications')
    // Nobody looks for a termination on the map where what it would join is drawn already.
    if (comms !== undefined || bonds.length === 0) {
      nodes.push({
        id: 'communications',
        kind: 'communications',
        label: 'Communications',
        what: comms ?? 'not looked for',
        depth: (depth.get(service.id) ?? 1) + 1,
        building: buildingName(site, service),
        subject: p.id,
      })
      ties.push({
        id: 'tie communications',
        from: 'communications',
        to: service.id,
        kind: 'bond',
        state: stateBy('intersystem-termination', p.id),
        text: comms ?? 'look for the termination',
        subject: p.id,
      })
    }
    for (const b of bonds) aside(b, `communications ${b.id}`, 'communications', service)
    // The first has the name by which the conductors know the steel.
    site.all.bond
      .filter(b => valueOf(b, 'to') === 'building steel')
      .forEach((b, i) =>
        aside(b, i === 0 ? 'building steel' : `building steel ${b.id}`, 'steel', service),
      )
  }
  const open = site.all.enclosure.find(e => roleOf(site, e).value === undefined)
  return {
    nodes,
    ties,
    firstQuestion: open && {
      subject: open.id,
      text:
        `Which is the service disconnect? Read the marking on ${labelOf(site, open)} and follow ` +
        `what feeds it: every bond hangs on this.`,
    },
    acceptance: [
      'Everything on, a clamp round each grounding conductor, grounding electrode conductor and ' +
        'pipe bond reads about 0 A',
      ...site.all.enclosure
        .filter(e => roleOf(site, e).value === 'load' && valueOf(e, 'type') !== 'meter')
        .map(
          e =>
            `${labelOf(site, e)}: dead and proved dead, neutral lifted: no continuity from neutral bar to enclosure`,
        ),
      ...(service
        ? [
            `${labelOf(site, service)}: neutral bar to enclosure and to every ground bar 0.1 Ω or less, ` +
              `by the meter’s own zero`,
          ]
        : []),
    ],
    problems: results
      .filter(r => (r.outcome === 'fault' || r.leans) && ruleById(r.rule)?.tags?.includes('bond'))
      .map(r => ({ rule: r.rule, subject: r.subject.id, text: r.why })),
  }

  function stateBy(rule: string, subject: string): TieState {
    const outcome = verdict.get(`${rule} ${subject}`)
    return outcome === 'fault' ? 'missing' : outcome === 'clear' ? 'sound' : 'not seen'
  }
  function supply(e: Subject<'enclosure'>) {
    const from = valueOf(e, 'fedFrom')
    if (from === 'utility') {
      ties.push({
        id: `supply ${e.id}`,
        from: UTILITY,
        to: e.id,
        kind: 'supply',
        state: 'sound',
        text: 'service conductors',
        subject: e.id,
      })
      return
    }
    const feeder = site.get(from, 'feeder')
    const start = feeder && valueOf(feeder, 'from')
    const source =
      site.get(start, 'enclosure') ??
      site.get(site.get(start, 'breaker')?.parent ?? undefined, 'enclosure')
    if (!feeder || !source) {
      ties.push({
        id: `supply ${e.id}`,
        from: source?.id ?? UTILITY,
        to: e.id,
        kind: 'feeder',
        state: 'not seen',
        text: 'what feeds it has not been found',
        subject: e.id,
      })
      return
    }
    const size = valueOf(feeder, 'size')
    const isService = roleOf(site, source).value === 'supply'
    ties.push({
      id: `feed ${feeder.id}`,
      from: source.id,
      to: e.id,
      kind: isService ? 'supply' : 'feeder',
      state: size ? 'sound' : 'not seen',
      text:
        [size && `${size} AWG`, valueOf(feeder, 'metal')].filter(Boolean).join(' ') || 'not gauged',
      subject: feeder.id,
    })
    if (isService) return
    const ground = feederGroundOf(site, feeder)
    const path = ground.state === 'settled' ? ground.value : undefined
    const outcome = verdict.get(`three-wire-feeder ${feeder.id}`)
    ties.push({
      id: `egc ${feeder.id}`,
      from: source.id,
      to: e.id,
      kind: 'ground',
      subject: feeder.id,
      state:
        path === undefined
          ? 'not seen'
          : path !== 'none'
            ? 'sound'
            : outcome === 'allowed'
              ? 'lawful old'
              : outcome === 'fault'
                ? 'missing'
                : 'not seen',
      text:
        path === undefined
          ? 'ground not looked for'
          : path === 'none'
            ? outcome === 'allowed'
              ? 'old three-wire feeder'
              : 'no ground in the feeder'
            : path === 'wire'
              ? 'wire'
              : (valueOf(feeder, 'wiring') ?? 'raceway'),
    })
  }
  function neutral(e: Subject<'enclosure'>) {
    const role = roleOf(site, e).value
    if (valueOf(e, 'type') === 'meter') return
    const bond = neutralBondOf(site, e).value
    const main = verdict.get(`main-bond-missing ${e.id}`)
    const again = verdict.get(`neutral-bonded-downstream ${e.id}`)
    let state: TieState = 'not seen'
    let text = 'bond not seen'
    if (role === 'service') {
      state =
        main === 'fault'
          ? bond === true
            ? 'unsound'
            : 'missing'
          : main === 'clear'
            ? 'sound'
            : 'not seen'
      text =
        main === 'fault'
          ? bond === true
            ? 'a bar is isolated'
            : 'no main bonding jumper'
          : main === 'clear'
            ? 'main bonding jumper'
            : 'main bonding jumper not seen'
    } else if (role === 'load') {
      state =
        again === 'fault'
          ? 'second'
          : again === 'clear'
            ? bond === true
              ? 'lawful old'
              : 'sound'
            : 'not seen'
      text =
        again === 'fault'
          ? 'neutral bonded again'
          : again === 'clear'
            ? bond === true
              ? 'bond belongs here'
              : 'kept apart'
            : 'apart or not: not seen'
    } else if (role === 'supply') {
      state = 'sound'
      text = 'bond permitted here'
    }
    ties.push({
      id: `bond ${e.id}`,
      from: e.id,
      to: e.id,
      kind: 'neutral bond',
      state,
      text,
      subject: e.id,
    })
  }
  function pipe(to: 'water piping' | 'gas piping', label: string, what: string, rule: string) {
    const bond = site.all.bond.find(b => valueOf(b, 'to') === to)
    const host = site.get(valueOf(bond, 'landsIn'), 'enclosure') ?? service!
    nodes.push({
      id: to,
      kind: 'piping',
      label,
      what,
      depth: (depth.get(host.id) ?? 1) + 1,
      building: buildingName(site, host),
      subject: bond?.id ?? p.id,
    })
    const state = stateBy(rule, p.id)
    ties.push({
      id: `tie ${to}`,
      from: to,
      to: host.id,
      kind: 'pipe bond',
      state: state === 'missing' && bond ? 'unsound' : state,
      text: bond
        ? (ENDS[valueOf(bond, 'landsOn') ?? ''] ?? wordsOf(bond))
        : state === 'missing'
          ? 'no bond'
          : 'look for the clamp',
      subject: bond?.id ?? p.id,
    })
  }
  /** Steel, or a block of the communications, by the bond that was found on it. */
  function aside(
    bond: Subject<'bond'>,
    id: string,
    kind: 'steel' | 'communications',
    service: Subject<'enclosure'>,
  ) {
    const host = site.get(valueOf(bond, 'landsIn'), 'enclosure') ?? service
    nodes.push({
      id,
      kind,
      label: labelOf(site, bond),
      what: kind === 'steel' ? 'building steel' : 'communications',
      depth: (depth.get(host.id) ?? 1) + 1,
      building: buildingName(site, host),
      subject: bond.id,
    })
    const outcome = verdict.get(`bond-unsound ${bond.id}`)
    const on = valueOf(bond, 'landsOn')
    // An electrode of its own that is joined to the others is no failure: what failed tells, not where it lands.
    const failed = results.find(r => r.rule === 'bond-unsound' && r.subject.id === bond.id)?.checks
    const isApart = failed?.some(check => APART.has(check.id)) ?? false
    const isSettled = outcome === 'fault' || outcome === 'clear'
    ties.push({
      id: `tie ${id}`,
      from: id,
      to: host.id,
      kind: 'bond',
      state:
        outcome === 'fault'
          ? isApart
            ? 'missing'
            : 'unsound'
          : outcome === 'clear'
            ? 'sound'
            : 'not seen',
      text: isApart
        ? (ENDS[on ?? ''] ?? 'lands after the service')
        : isSettled || on !== undefined
          ? wordsOf(bond)
          : 'follow it to its end',
      subject: bond.id,
    })
  }
}

/** Checks of a bond that joins what it is on to nothing of the house. */
const APART: ReadonlySet<string> = new Set([
  'lands-on-nothing',
  'electrode-apart',
  'lands-elsewhere',
])

/** In a few words where such a bond ends. */
const ENDS: Readonly<Record<string, string>> = {
  nothing: 'ends on nothing',
  'an electrode of its own': 'on its own electrode',
}

/** A bond in a few words: what is wrong with it where something is seen to be, else its size. */
function wordsOf(bond: Subject<'bond'>): string {
  const [clamp, connection] = [valueOf(bond, 'clampPlace'), valueOf(bond, 'connection')]
  if (connection !== undefined && connection !== 'sound') return connection
  if (clamp === 'on paint or a coating') return 'clamp on paint'
  // A clamp of the communications need not be reached.
  if (clamp === 'behind a finish' && valueOf(bond, 'to') !== 'communications')
    return 'clamp behind a finish'
  const size = valueOf(bond, 'size')
  return [size && `${size} AWG`, connection].filter(Boolean).join(', ') || 'bond'
}

function buildingName(site: Site, s: Subject): string {
  const building = site.buildingOf(s)
  return building ? labelOf(site, building) : ''
}

/** Steps of each enclosure from the utility; what nobody has followed counts as one. */
function depths(site: Site): Map<string, number> {
  const found = new Map<string, number>()
  const walk = (e: Subject<'enclosure'>, seen: Set<string>): number => {
    const known = found.get(e.id)
    if (known !== undefined) return known
    if (seen.has(e.id)) return 1
    seen.add(e.id)
    const feeder = site.get(valueOf(e, 'fedFrom'), 'feeder')
    const start = feeder && valueOf(feeder, 'from')
    const source =
      site.get(start, 'enclosure') ??
      site.get(site.get(start, 'breaker')?.parent ?? undefined, 'enclosure')
    const depth = source ? walk(source, seen) + 1 : 1
    found.set(e.id, depth)
    return depth
  }
  for (const e of site.all.enclosure) walk(e, new Set())
  return found
}
