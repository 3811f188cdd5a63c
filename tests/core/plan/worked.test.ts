/**
 * Houses whose best plan is worked out by hand, with the sample prices: $90 an hour, a tenth for contingency, 8 % tax
 * on materials. A work of m dollars of materials and t minutes costs (m + 1.5 t) × 1.1 + 0.08 m; a visit $120, a
 * permit $150 once.
 */
import {
  consequencesOf,
  Judged,
  Ledger,
  planHouse,
  type House,
  type PlanRequest,
  type Result,
} from '#core'
import { observe, panel, type Node } from '../../support/house'
import { OPEN, wing } from '../../support/wing'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const cost = (materials: number, minutes: number) =>
  Math.round((materials + 1.5 * minutes) * 110 + materials * 8)
const VISIT = 12_000
const PERMIT = 15_000
interface Told {
  readonly status: string
  readonly total: number
  readonly works: readonly string[]
}
function told(node: Node, request: PlanRequest): Told {
  const { status, total, choices } = planHouse(houseOf(node), request)
  const works = choices.flatMap(c => c.option.steps.map(s => `${s.remedy.id}@${s.subject}`))
  return { status, total, works }
}
const without = (...remedies: string[]) => remedies.map(remedy => ({ remedy }))

const breaker = (id: string, space: number, circuit: Node, more: Node = {}): Node => ({
  id,
  space,
  poles: 1,
  ratingAmps: 20,
  device: 'breaker',
  protection: 'standard',
  circuit: {
    sharesNeutralWith: [],
    supplies: 'receptacles',
    work: 'none',
    year: 1968,
    ...circuit,
  },
  ...more,
})
const receptacle = (id: string, more: Node = {}): Node => ({
  id,
  type: 'receptacle',
  slots: 'three',
  after: 'panel',
  ground: 'connected',
  lamps: 'correct',
  groundOhms: 0.3,
  groundToReferenceV: 0,
  hasNeutralGroundJumper: false,
  protection: 'none',
  isTamperResistant: true,
  work: 'none',
  year: 1968,
  boxVolumeIn3: 22.5,
  conductorsInBox: 4,
  groundsInBox: 2,
  largestInBox: '12',
  hasInternalClamps: true,
  throughInBox: 0,
  fittingsInBox: 0,
  yokesInBox: 1,
  ...more,
})
const OLD = { yearBuilt: 1968, edition: 2020, visitedOn: '2025-03-01' }

describe('the garage panel and the dishwasher', () => {
  const dishwasher = (more: Node = {}, there: Node = {}): Node => ({
    ...panel(
      [
        breaker('b', 1, {
          id: 'c',
          supplies: 'fixed appliance',
          outlets: [
            receptacle('dish', {
              room: 'kitchen',
              appliance: 'dishwasher',
              work: 'replaced',
              year: 2024,
              resetAccess: 'behind an appliance',
              ...there,
            }),
          ],
        }),
      ],
      { protectiveBreakers: 'none made', room: 'garage', ...more },
      OLD,
    ),
    rooms: [
      { id: 'kitchen', use: 'kitchen', hasSink: true },
      { id: 'garage', use: 'garage', hasSink: false },
    ],
  })
  const fix = ['gfci-missing', 'afci-missing'].map(rule => ({ rule, subject: 'dish' }))
  it('no breaker is made for it, and no reset is in reach behind the machine: one device beside the panel', () => {
    // $70 and 75 minutes; a device behind the machine would have to be moved out again.
    expect(told(dishwasher(), { fix })).toEqual({
      status: 'planned',
      total: VISIT + cost(70, 75),
      works: ['protect-beside-panel@dish'],
    })
  })
  it('the place of the device asks for GFCI too: a combined one goes in, and nothing is left there', () => {
    const before = new Judged(houseOf(dishwasher()))
    const finding = before.resultOf('afci-missing', 'dish') as Result
    const done = consequencesOf(before, finding, 'protect-beside-panel')
    expect([done.isCured, done.broken, done.required]).toEqual([true, [], []])
    const beside = done.changes?.find(c => c.act === 'add')?.subject ?? ''
    const after = before.after(done.changes ?? [])
    expect(after.resultOf('gfci-missing', beside)?.outcome).toBe('clear')
    // An arc-fault device alone would fail where it stands.
    const alone = after.after([
      { act: 'note', subject: beside, field: 'protection', value: 'AFCI' },
    ])
    expect(alone.resultOf('gfci-missing', beside)?.outcome).toBe('fault')
  })
  it('with breakers to be had, the breaker: $60 and 30 minutes', () => {
    const { works, total } = told(dishwasher({ protectiveBreakers: 'available' }), { fix })
    expect([works, total]).toEqual([['gfci-breaker@dish'], VISIT + cost(60, 30)])
  })
})

describe('the legacy panel', () => {
  const legacy = wing({ protectiveBreakers: 'none made', room: 'r' }, undefined, 'living')
  const inRooms = ['two-slot-device', 'gfci-here', 'gfci-first-outlet', 'afci-first-outlet']
  const ground = ['run-grounding-conductor', 'new-cable']
  it('is worked around by one device beside it', () => {
    const forbids = without(...inRooms, ...ground)
    // Three outlets are marked: two labels more than one, three minutes each.
    expect(told(legacy, { fix: OPEN, forbids })).toEqual({
      status: 'planned',
      total: VISIT + cost(70, 75 + 6),
      works: [expect.stringMatching(/^protect-beside-panel@p/)],
    })
  })
  it('is replaced where that is out of the question too: the new panel makes the breaker possible', () => {
    const forbids = without(...inRooms, ...ground, 'protect-beside-panel')
    const { status, works, total } = told(legacy, { fix: OPEN, forbids })
    expect(status).toBe('planned')
    expect(works[0]).toBe('replace-panel@main')
    expect(works.filter(w => w.startsWith('gfci-breaker@'))).toHaveLength(1)
    expect(total).toBe(VISIT + PERMIT + cost(650, 600) + cost(60, 30 + 6))
  })
  it('is paid once, however many circuits lean on it', () => {
    const two = {
      ...panel(
        [1, 2].map(n =>
          breaker(`b${n}`, n * 2 - 1, {
            id: `c${n}`,
            outlets: [receptacle(`k${n}`, { room: 'bath', work: 'replaced', year: 2024 })],
          }),
        ),
        { protectiveBreakers: 'none made' },
        OLD,
      ),
      rooms: [{ id: 'bath', use: 'bathroom', hasSink: true }],
    }
    const fix = [1, 2].map(n => ({ rule: 'gfci-missing', subject: `k${n}` }))
    const forbids = without('gfci-here', 'gfci-first-outlet', 'protect-beside-panel')
    expect(told(two, { fix, forbids })).toEqual({
      status: 'planned',
      total: VISIT + PERMIT + cost(650, 600) + 2 * cost(60, 30),
      works: ['replace-panel@main', 'gfci-breaker@k1', 'gfci-breaker@k2'],
    })
    // Within a budget for the panel and one breaker, one is protected, and the panel is paid all the same.
    const budget = VISIT + PERMIT + cost(650, 600) + cost(60, 30)
    const one = told(two, { fix, forbids, budget })
    expect([one.status, one.total]).toEqual(['out of budget', budget])
    expect(one.works).toHaveLength(2)
  })
})

describe('the two-wire bedroom wing with one computer', () => {
  const computer = wing({}, [{}, { appliance: 'computer' }, {}], 'bedroom')
  it('a real ground where the machine stands, one combined device ahead for the rest', () => {
    const forbids = without('two-slot-device')
    const plan = planHouse(houseOf(computer), { fix: 'ungrounded', forbids })
    const works = plan.choices.flatMap(c => c.option.steps.map(s => `${s.remedy.id}@${s.subject}`))
    // Forty feet at $15 of wall and $2 of wire, $10 and 60 minutes; then the device: $40, 35 minutes, two marks more.
    const run = Math.round((10 + 80) * 110 + (90 + 600) * 110 + (10 + 80) * 8)
    expect(works).toEqual(['run-grounding-conductor@p2', 'afci-first-outlet@p2'])
    expect(plan.choices[0]?.option.steps[0]?.cost.cents).toBe(run)
    expect(plan.total).toBe(VISIT + PERMIT + run + cost(40, 35 + 3))
    expect(plan.choices[0]?.findings).toHaveLength(4)
  })
  it('a protective device alone is no ground for it', () => {
    const forbids = without(
      'two-slot-device',
      'run-grounding-conductor',
      'new-cable',
      'use-raceway',
    )
    const plan = planHouse(houseOf(computer), { fix: 'ungrounded', forbids })
    expect(plan.clash.map(c => `${c.finding.rule.id}@${c.finding.subject.id}`)).toEqual([
      'equipment-needs-ground@p2',
    ])
  })
})

describe('the aluminum level', () => {
  const level = (aluminumSchool: string): Node => ({
    ...panel(
      [
        breaker('b', 1, {
          id: 'c',
          outlets: [1, 2, 3].map(i =>
            receptacle(`a${i}`, { room: 'den', metal: 'aluminum', aluminumMarking: 'none' }),
          ),
        }),
      ],
      {},
      { ...OLD, aluminumSchool },
    ),
    rooms: [{ id: 'den', use: 'living', hasSink: false }],
  })
  it('on a strict desk: a set-screw lug at each outlet, $12 and 20 minutes, the permit once', () => {
    const plan = planHouse(houseOf(level('strict')), { fix: 'aluminum' })
    expect(told(level('strict'), { fix: 'aluminum' })).toEqual({
      status: 'planned',
      total: VISIT + PERMIT + 3 * cost(12, 20),
      works: ['lug-pigtail@a1', 'lug-pigtail@a2', 'lug-pigtail@a3'],
    })
    // Runner-up: the crimped one, $18 and 25 minutes.
    expect(plan.choices[0]?.runnerUp?.more).toBe(cost(18, 25) - cost(12, 20))
  })
  it('a strict desk takes no twist-on connector, whatever it costs', () => {
    const forbids = without('lug-pigtail', 'crimped-pigtail', 'co-alr-device', 'copper-rewire')
    expect(told(level('strict'), { fix: 'aluminum', forbids }).works).toEqual([])
  })
})

describe('the kitchen circuit where a smaller breaker is illegal', () => {
  const kitchen = (requiredUse: string): Node => ({
    ...panel(
      [
        breaker('b', 1, {
          id: 'c',
          requiredUse,
          loadAmps: 9,
          segments: [
            { id: 's', size: '14', metal: 'copper', wiring: 'NM-B', insulationC: 90, lengthFt: 30 },
          ],
          outlets: [receptacle('k1', { room: 'k' })],
        }),
      ],
      {},
      OLD,
    ),
    rooms: [{ id: 'k', use: 'kitchen', hasSink: true }],
  })
  const fix = [{ rule: 'overfused-conductor', subject: 's' }]
  it('the conductor is replaced: 30 ft, and there is no other way', () => {
    const run = Math.round((20 + 60) * 110 + (180 + 450) * 110 + (20 + 60) * 8)
    expect(told(kitchen('kitchen small-appliance'), { fix })).toEqual({
      status: 'planned',
      total: VISIT + PERMIT + run,
      works: ['replace-conductor@s'],
    })
  })
  it('on a circuit nothing is required of, the smaller breaker: $15 and 20 minutes', () => {
    expect(told(kitchen('none'), { fix })).toEqual({
      status: 'planned',
      total: VISIT + cost(15, 20),
      works: ['smaller-breaker@s'],
    })
  })
})

describe('the shared-neutral pair', () => {
  const pair = (second: number): Node => ({
    ...panel(
      [
        breaker(
          'b1',
          1,
          {
            id: 'c1',
            work: 'new',
            year: 2012,
            sharesNeutralWith: ['c2'],
            outlets: [receptacle('m1', { room: 'bath', work: 'replaced', year: 2024 })],
          },
          { handleTie: 'not tied' },
        ),
        breaker(
          'b2',
          second,
          {
            id: 'c2',
            work: 'new',
            year: 2012,
            sharesNeutralWith: ['c1'],
            outlets: [receptacle('m2', { room: 'hall' })],
          },
          { handleTie: 'not tied' },
        ),
      ],
      { protectiveBreakers: 'available', spaces: 24 },
      OLD,
    ),
    rooms: [
      { id: 'bath', use: 'bathroom', hasSink: true },
      { id: 'hall', use: 'hallway', hasSink: false },
    ],
  })
  const fix = [
    { rule: 'gfci-missing', subject: 'm1' },
    { rule: 'multiwire-no-common-trip', subject: 'c1' },
  ]
  it('one two-pole protective breaker does both: cheaper than a device and a two-pole breaker', () => {
    expect(cost(60, 30)).toBeLessThan(cost(25, 25) + cost(25, 30))
    expect(told(pair(3), { fix })).toEqual({
      status: 'planned',
      total: VISIT + cost(60, 30),
      works: ['gfci-breaker@m1'],
    })
  })
  it('is one breaker on two spaces afterwards, and feeds both', () => {
    const before = new Judged(houseOf(pair(3)))
    const finding = before.resultOf('gfci-missing', 'm1') as Result
    const { changes = [] } = consequencesOf(before, finding, 'gfci-breaker')
    const { site } = before.after(changes)
    expect(site.all.breaker.map(b => b.id)).toEqual(['b1'])
    expect(site.circuitsOf(site.all.breaker[0] as never).map(c => c.id)).toEqual(['c1', 'c2'])
  })
  it('spaces that are not side by side take no two-pole breaker', () => {
    expect(told(pair(7), { fix: fix.slice(0, 1) }).works).toEqual(['gfci-here@m1'])
  })
})

describe('the indoor main that became a sub-panel', () => {
  const property = (egc: string): Node => {
    const main = panel([{ id: 'f2', space: 1, poles: 2, ratingAmps: 60, role: 'feeder' }], {
      marking: 'service disconnect',
      bondMeans: 'screw',
    })
    const sub = {
      id: 'sub',
      type: 'panel',
      place: 'indoors',
      bondMeans: 'screw',
      feeder: { id: 'f', from: 'f2', egc, size: '6', metal: 'copper' },
      bars: [{ id: 'n', role: 'neutral', isBondedToEnclosure: true }],
    }
    return { ...main, enclosures: [...(main.enclosures as Node[]), sub] }
  }
  const fix = [{ rule: 'neutral-bonded-downstream', subject: 'sub' }]
  it('with a ground in the feeder: the bond comes out', () => {
    expect(told(property('wire'), { fix }).works).toEqual(['separate-neutral@sub'])
  })
  it('without one the feeder comes first: taking the bond out would leave no fault path at all', () => {
    const { works, status } = told(property('none'), { fix })
    expect([status, works]).toEqual(['planned', ['new-four-wire-feeder@sub']])
  })
})

describe('the full small boxes', () => {
  const full = wing({}, [{ boxVolumeIn3: 8 }, { boxVolumeIn3: 8 }, { boxVolumeIn3: 8 }])
  it('take no device: the protection goes to the breaker', () => {
    const forbids = without('two-slot-device')
    const { works, total } = told(full, { fix: OPEN, forbids })
    expect(works).toEqual([expect.stringMatching(/^gfci-breaker@p/)])
    expect(total).toBe(VISIT + cost(60, 30 + 6))
  })
})
