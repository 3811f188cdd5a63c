import {
  assess,
  bondMapOf,
  calculatorById,
  Ledger,
  roleOf,
  Site,
  valueOf,
  type SpokenResult,
  type Subject,
} from '#core'
import { pick, seeded, type Random } from '#core/simulate/random'
import { observe, type Node } from '../support/house'

/**
 * One question, one answer: the calculators, the bond map and the conditions of remedies are held against the rules
 * over random houses in which any fact may be unknown: 2000 before anything lands, 10 000 by `npm run simulate`.
 */
const FEW = 400
const MANY = Math.max(2000, Number(process.env.CORVIT_TRIALS ?? 0))

const METALS = [
  'copper',
  'aluminum',
  'copper-clad aluminum',
  'silver-looking',
  'copper-looking',
] as const
const WIRINGS = ['NM-B', 'NM', 'cloth NM', 'UF', 'knob-and-tube', 'SE', 'MC'] as const
const SIZES = ['14', '12', '10', '8', '6', '4', '2', '1/0'] as const
const EDITIONS = [2008, 2011, 2014, 2017, 2020, 2023] as const

/** A value, or nothing where nobody has looked. */
const maybe = <T>(random: Random, list: readonly T[], known = 0.75): T | undefined =>
  random() < known ? pick(random, list) : undefined
const facts = (of: Record<string, unknown>): Node =>
  Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined))

const run = (r: Random) =>
  facts({
    id: 's',
    size: pick(r, SIZES),
    metal: maybe(r, METALS),
    wiring: maybe(r, WIRINGS),
    insulationC: maybe(r, [60, 75, 90], 0.4),
    terminalsC: maybe(r, [60, 75], 0.4),
    isInInsulation: maybe(r, [true, false], 0.4),
  })

function house(r: Random): Node {
  const segment = run(r)
  const hot = r() < 0.3 ? [{ what: 'hot', ambientC: pick(r, [25, 36, 45, 52]) }] : []
  const yes = [true, false]
  const circuit = {
    id: 'c',
    supplies: 'fixed appliance',
    sharesNeutralWith: [],
    segments: [{ ...segment, exposures: hot }],
  }
  return {
    corvit: 2,
    form: 'house',
    premises: facts({
      yearBuilt: maybe(r, [1950, 1985, 2004, 2012, [1990, 2015]]),
      edition: pick(r, EDITIONS),
      visitedOn: '2026-01-01',
      waterPiping: maybe(r, ['metal', 'plastic']),
      waterBond: maybe(r, ['found', 'none found']),
      gasPiping: maybe(r, ['none', 'rigid metal']),
    }),
    buildings: [
      {
        id: 'house',
        isDetached: false,
        enclosures: [
          facts({
            id: 'main',
            type: 'panel',
            place: maybe(r, ['indoors', 'outdoors'], 0.9),
            fedFrom: 'utility',
            marking: maybe(r, ['service disconnect', 'not service equipment', 'none'], 0.5),
            mainKind: 'main breaker',
            mainAmps: 200,
            hasSecondSource: false,
            bondMeans: maybe(r, ['screw', 'strap', 'none']),
            landings: maybe(r, ['on separate bars', 'on a common bar']),
            serviceSize: maybe(r, ['2', '2/0', '4/0']),
            serviceMetal: maybe(r, ['copper', 'aluminum']),
            electrodes: maybe(r, ['found', 'none found']),
            workingDepthIn: maybe(r, [30, 36, 40]),
            workingWidthIn: maybe(r, [28, 30, 36]),
            workingHeightIn: maybe(r, [70, 78, 80]),
            widthIn: maybe(r, [14, 32]),
            breakers: [
              {
                id: 'b',
                space: 1,
                poles: 1,
                ratingAmps: pick(r, [15, 20, 25, 30, 40, 50, 60, 100]),
                circuit,
              },
              { id: 'fb', space: 2, poles: 2, ratingAmps: 60, role: 'feeder' },
            ],
          }),
        ],
      },
      facts({
        id: 'barn',
        isDetached: maybe(r, yes, 0.85),
        enclosures: [
          facts({
            id: 'sub',
            type: 'panel',
            place: 'indoors',
            bondMeans: maybe(r, ['screw', 'strap', 'none']),
            landings: maybe(r, ['on separate bars', 'on a common bar']),
            feeder: facts({
              id: 'f',
              from: 'fb',
              egc: maybe(r, ['wire', 'none', 'none']),
              hasOtherMetallicPath: maybe(r, [true, false, false]),
              hasGroundFaultProtectionAhead: maybe(r, [true, false, false]),
              year: maybe(r, [1970, 2007, 2008, 2015, [2000, 2012]]),
            }),
          }),
        ],
      }),
    ],
    electrodes: [
      facts({
        id: 'e',
        type: maybe(r, ['rod', 'water pipe', 'concrete-encased']),
        landsIn: maybe(r, ['main', 'sub'], 0.9),
        landsOn: maybe(r, ['neutral bar', 'isolated bar', 'nothing']),
        connection: maybe(r, ['sound', 'loose']),
        isSpliced: maybe(r, yes),
        isJumpered: maybe(r, yes),
        size: maybe(r, ['8', '6', '4', '2']),
        metal: maybe(r, ['copper', 'aluminum']),
      }),
    ],
  }
}

/** What is known of a thing, under the names of a calculator. */
const knownOf = (subject: Subject | undefined, names: readonly string[]): Node =>
  facts(
    Object.fromEntries(names.map(n => [n, valueOf(subject as Subject<'segment'>, n as 'size')])),
  )

interface Case {
  readonly site: Site
  readonly of: (rule: string, subject: string) => SpokenResult
  readonly results: readonly SpokenResult[]
}
type Check = (c: Case) => string | undefined

const ampacity: Check = ({ site, of }) => {
  const s = site.get('s', 'segment')
  const exposure = s && site.children(s, 'exposure')[0]
  const input = {
    ...knownOf(s, ['size', 'metal', 'wiring', 'insulationC', 'terminalsC', 'isInInsulation']),
    ...(exposure && { ambientC: valueOf(exposure, 'ambientC') }),
    feedsSeveralReceptacles: false,
    breakerAmps: valueOf(site.get('b', 'breaker'), 'ratingAmps'),
    edition: site.edition,
  }
  const calculator = calculatorById('ampacity')!
  const { breaker } = calculator.run(calculator.input.parse(input)) as { breaker: string }
  const { outcome } = of('overfused-conductor', 's')
  return breaker === outcome ? undefined : `calculator ${breaker}, rule ${outcome}`
}

const ELECTRODE = new Set(['lands-on-nothing', 'connection', 'spliced', 'no-jumper', 'too-small'])
const electrode: Check = ({ site, of, results }) => {
  const main = site.get('main', 'enclosure')!
  const { state } = bondMapOf(site, results).ties.find(t => t.id === 'gec e') ?? {}
  if (
    valueOf(site.get('e', 'electrode'), 'landsIn') !== 'main' ||
    roleOf(site, main).value !== 'service'
  )
    return undefined
  const rule = of('electrode-conductor', 'main')
  if (!rule.evidence.some(e => e.subject === 'e')) return undefined
  const isBad = rule.checks.some(c => ELECTRODE.has(c.id))
  return (state === 'unsound') === isBad
    ? undefined
    : `map ${state}, rule ${JSON.stringify(rule.checks)}`
}

const bonds: Check = ({ site, of, results }) => {
  for (const id of ['main', 'sub']) {
    const { state } = bondMapOf(site, results).ties.find(t => t.id === `bond ${id}`) ?? {}
    const missing = of('main-bond-missing', id)
    const second = of('neutral-bonded-downstream', id)
    if ((state === 'missing' || state === 'unsound') !== missing.checks.length > 0)
      return `map ${state} at ${id}, rule ${missing.outcome}`
    if ((state === 'second') !== second.checks.length > 0)
      return `map ${state} at ${id}, rule ${second.outcome}`
  }
  return undefined
}

/** Leaving a three-wire feeder is offered exactly where every rule that could speak against it is content. */
const feeder: Check = ({ of, results }) => {
  const with3 = results.find(r => r.remedies.some(m => m.id === 'leave-three-wire-feeder'))
  const remedy = with3?.remedies.find(m => m.id === 'leave-three-wire-feeder')
  const rule = of('three-wire-feeder', 'f')
  const conditions = [
    'no-ground-inside-building',
    'other-path',
    'behind-ground-fault',
    'new-without-ground',
  ]
  const isBroken = rule.checks.some(c => conditions.includes(c.id)) && rule.outcome === 'fault'
  if (remedy?.verdict === 'offered' && isBroken) return `remedy offered, rule ${rule.why}`
  if (remedy?.verdict === 'refused' && rule.outcome === 'allowed')
    return `remedy refused (${remedy.why}), rule allowed`
  const down = of('neutral-bonded-downstream', 'sub')
  if (rule.outcome === 'allowed' && down.outcome === 'fault')
    return 'the feeder may remain, and the bond it needs may not'
  return undefined
}

const space: Check = ({ site, of }) => {
  const main = site.get('main', 'enclosure')!
  const [depthIn, widthIn, heightIn, equipmentWidthIn] = [
    valueOf(main, 'workingDepthIn'),
    valueOf(main, 'workingWidthIn'),
    valueOf(main, 'workingHeightIn'),
    valueOf(main, 'widthIn'),
  ]
  if ([depthIn, widthIn, heightIn, equipmentWidthIn].includes(undefined) || heightIn! < 78)
    return undefined
  const { verdict } = calculatorById('working-space')!.run({
    depthIn,
    widthIn,
    heightIn,
    equipmentWidthIn,
  }) as {
    verdict: string
  }
  const isShort = of('working-space', 'main').checks.some(c => c.id === 'space-too-small')
  return (verdict === 'fault') === isShort ? undefined : `calculator ${verdict}, rule ${isShort}`
}

const CHECKS: Record<string, Check> = { ampacity, electrode, bonds, feeder, space }

function agreeOver(houses: number): void {
  const random = seeded(2026)
  const wrong: string[] = []
  const outcomes = new Set<string>()
  for (let i = 0; i < houses; i++) {
    const site = new Site(new Ledger(observe(house(random))).house)
    const { results } = assess(site.house)
    const by = new Map(results.map(r => [`${r.rule} ${r.subject.id}`, r]))
    const of = (rule: string, subject: string) => by.get(`${rule} ${subject}`)!
    for (const r of results) outcomes.add(`${r.rule} ${r.outcome}`)
    for (const [name, check] of Object.entries(CHECKS)) {
      const problem = check({ site, of, results })
      if (problem) wrong.push(`house ${i}, ${name}: ${problem}`)
    }
    if (wrong.length > 8) break
  }
  expect(wrong).toEqual([])
  // The houses are of every kind, or the agreement would mean little.
  for (const rule of [
    'overfused-conductor',
    'three-wire-feeder',
    'neutral-bonded-downstream',
    'electrode-conductor',
  ])
    expect([...outcomes].filter(o => o.startsWith(rule)).length).toBeGreaterThanOrEqual(3)
}
it(`the calculators, the map, the remedies and the rules agree over ${FEW} random houses`, () =>
  agreeOver(FEW))
it(`the calculators, the map, the remedies and the rules agree over ${MANY} random houses (long)`, () =>
  agreeOver(MANY))

describe('the disagreements that were found', () => {
  const segment = (more: Node) => ({ id: 's', size: '6', metal: 'aluminum', wiring: 'SE', ...more })
  const judged = (breakerAmps: number, run: Node, edition: number) => {
    const file = {
      corvit: 2,
      form: 'house',
      premises: { edition, yearBuilt: 1990 },
      enclosures: [
        {
          id: 'main',
          type: 'panel',
          place: 'indoors',
          fedFrom: 'utility',
          mainKind: 'main breaker',
          mainAmps: 200,
          hasSecondSource: false,
          breakers: [
            {
              id: 'b',
              space: 1,
              poles: 2,
              ratingAmps: breakerAmps,
              circuit: { id: 'c', supplies: 'fixed appliance', segments: [segment(run)] },
            },
          ],
        },
      ],
    }
    const calculator = calculatorById('ampacity')!
    const { id: _, ...known } = segment(run)
    const input = { ...known, breakerAmps, feedsSeveralReceptacles: false, edition }
    const { breaker } = calculator.run(calculator.input.parse(input)) as { breaker: string }
    const rule = assess(new Ledger(observe(file)).house).results.find(
      r => r.rule === 'overfused-conductor',
    )!
    return [breaker, rule.outcome]
  }
  it.each([
    [
      'inside in 2008, where SE counts as 60 °C',
      50,
      { terminalsC: 75, insulationC: 75 },
      2008,
      'fault',
    ],
    [
      'in insulation from 2011',
      50,
      { terminalsC: 75, insulationC: 75, isInInsulation: true },
      2014,
      'fault',
    ],
    [
      'out of insulation',
      50,
      { terminalsC: 75, insulationC: 75, isInInsulation: false },
      2014,
      'clear',
    ],
    ['insulation not looked at', 50, { terminalsC: 75, insulationC: 75 }, 2014, 'undecided'],
  ])('50 A on 6 Al SE, %s: both say the same', (_name, amps, run, edition, outcome) => {
    expect(judged(amps, run, edition)).toEqual([outcome, outcome])
  })
})
