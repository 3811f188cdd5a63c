import {
  authorHouse,
  evaluate,
  Ledger,
  readJob,
  RULES,
  Site,
  valueOf,
  writeHouse,
  type Observation,
} from '#core'
import { DEMO_HOUSES } from '#core/examples/index'
import { HIDDEN_KINDS, RECIPES } from '#core/simulate/drafts'
import {
  compare,
  faultsIn,
  inspect,
  roundTrip,
  sumUp,
  tourOf,
  type Tour,
} from '#core/simulate/inspect'
import { HouseMeters, NOTHING_HIDDEN, type Hidden } from '#core/simulate/meters'
import { SimulatedInstruments } from '#core/simulate/instruments'
import { seeded } from '#core/simulate/random'
import { answerOf, recorded, simulateHouse, soundLog } from '#core/simulate/simulated'

/** Sound houses of each kind. */
const SEEDS = process.env.CORVIT_HOUSES ? [1, 2, 3] : [1]
/** Houses of a run, more by hand: the whole of it is `npm run simulate -- roundtrip`. */
const HOUSES = Number(process.env.CORVIT_HOUSES ?? 2)

const outcomes = (site: Site) => {
  const found = evaluate(site, RULES)
  return {
    faults: found.filter(r => r.outcome === 'fault' || r.outcome === 'allowed').map(nameOf),
    open: found.filter(r => r.outcome === 'undecided').map(nameOf),
  }
}
const nameOf = (r: ReturnType<typeof evaluate>[number]) => `${r.rule.id} ${r.subject.id}`
/** A small sound house, with something hidden in it. */
const small = (hidden: Partial<Hidden> = {}) => {
  const site = new Site(new Ledger(soundLog(seeded(4), { isSmall: true })).house)
  const meters = new HouseMeters(site, { ...NOTHING_HIDDEN, ...hidden })
  const read = (id: string) => {
    const outlet = site.get(id, 'outlet')
    if (!outlet) throw new Error(`no ${id}`)
    return meters.outlet(outlet)
  }
  return { site, meters, read }
}

describe('a sound house', () => {
  it.each([
    ['ordinary', {}],
    ['small', { isSmall: true }],
    ['with everything there is', { isWhole: true }],
  ])(
    '%s: wholly decided and without a fault, read with the errors of instruments',
    (_, options) => {
      for (const seed of SEEDS) {
        const house = simulateHouse(seed, { faults: 0, ...options })
        expect(outcomes(house.truth)).toEqual({ faults: [], open: [] })
        expect(outcomes(recorded(house, seeded(seed)).site)).toEqual({ faults: [], open: [] })
      }
    },
  )
  it('with an old split bus: that may remain, and nothing else is found or left open', () => {
    const house = simulateHouse(7, { faults: 0 })
    expect(house.truth.all.enclosure.some(e => valueOf(e, 'bus') === 'split bus')).toBe(true)
    expect(outcomes(house.truth)).toEqual({ faults: ['split-bus main'], open: [] })
  })
  it('is the same for the same seed, and another for another', () => {
    const write = (seed: number) =>
      JSON.stringify(writeHouse(simulateHouse(seed, { faults: 2, isSmall: true }).truth.house))
    expect(write(21)).toBe(write(21))
    expect(write(21)).not.toBe(write(22))
  })
})

describe('what instruments read', () => {
  it('a sound outlet reads sound', () => {
    const r = small().read('living-1')
    expect(r.lamps).toBe('correct')
    expect(r.hotNeutralV).toBeGreaterThan(117)
    expect(r.groundOhms).toBeLessThan(1)
    expect(r.groundToReferenceV).toBeLessThan(1)
    expect(r.dropPercent).toBeLessThan(5)
  })
  it.each<[string, Partial<Hidden>, string | undefined]>([
    ['reversed', { swaps: new Map([['living-1', 'reversed']]) }, 'reversed'],
    [
      'hot and ground reversed',
      { swaps: new Map([['living-1', 'hot and ground']]) },
      'hot and ground reversed',
    ],
    [
      'neutral and ground swapped',
      { swaps: new Map([['living-1', 'neutral and ground']]) },
      'correct',
    ],
    ['an open hot', { changes: [{ change: 'open', part: 'hot living-1' }] }, 'open hot'],
    [
      'an open neutral',
      { changes: [{ change: 'open', part: 'neutral living-1' }] },
      'open neutral',
    ],
    ['an open ground', { changes: [{ change: 'open', part: 'ground living-1' }] }, 'open ground'],
  ])('%s: the lamps say what its legend says', (_, hidden, lamps) => {
    expect(small(hidden).read('living-1').lamps).toBe(lamps)
  })
  it('what is broken is broken for all behind it, and for nothing before', () => {
    const { read } = small({ changes: [{ change: 'open', part: 'ground living-2' }] })
    expect(read('living-1').lamps).toBe('correct')
    expect(read('living-3').lamps).toBe('open ground')
  })
  it('a conductor broken off carries ghost volts for a meter of high impedance, and none for a low one', () => {
    const { site, meters, read } = small({ changes: [{ change: 'open', part: 'ground living-1' }] })
    const outlet = site.get('living-1', 'outlet')
    if (!outlet) throw new Error('no outlet')
    // In the middle between hot and neutral by the leakage of the cable; a low-impedance meter pulls it down.
    expect(meters.hotToGround(outlet, 'high')).toBeGreaterThan(30)
    expect(meters.hotToGround(outlet, 'low')).toBeLessThan(5)
    expect(read('living-1').groundOhms).toBe(100_000)
  })
  it('a joint drops volts under load and a poor ground reads its ohms', () => {
    const joint = small({ changes: [{ change: 'joint', part: 'hot living-1', ohms: 1 }] })
    expect(joint.read('living-1').dropPercent).toBeGreaterThan(8)
    const poor = small({ changes: [{ change: 'joint', part: 'ground living-1', ohms: 30 }] })
    expect(poor.read('living-1').groundOhms).toBeCloseTo(30, 0)
    expect(poor.read('living-1').lamps).toBe('correct')
  })
  it('a failing service neutral parts the halves by the loads that are on', () => {
    const { site, meters } = small({
      changes: [
        { change: 'load', at: 'living', amperes: 10 },
        { change: 'joint', part: 'service meter N', ohms: 3 },
      ],
    })
    const [, panel] = site.all.enclosure
    if (!panel) throw new Error('no panel')
    const { legAToNeutralV: a, legBToNeutralV: b } = meters.enclosure(panel)
    expect(Math.abs(Number(a) - Number(b))).toBeGreaterThan(5)
    expect(Number(a) + Number(b)).toBeGreaterThan(235)
  })
  it('a bad contact warms a breaker with the square of its load', () => {
    const at = (amperes: number, ohms: number) => {
      const { site, meters } = small({
        changes: [{ change: 'load', at: 'living', amperes }],
        contacts: new Map([['main/1', ohms]]),
      })
      const breaker = site.get('main/1', 'breaker')
      if (!breaker) throw new Error('no breaker')
      return Number(meters.breaker(breaker).temperatureC)
    }
    expect(at(0, 0.2)).toBeLessThan(27)
    expect(at(10, 0.2) - at(10, 0)).toBeGreaterThan(3 * (at(5, 0.2) - at(5, 0)))
  })
})

describe('faults put in', () => {
  it.each(HIDDEN_KINDS)('%s shows in a house, by its rule', kind => {
    // With its loads in balance a house does not show every one of them: another is taken.
    for (let seed = 23; seed < 31; seed++) {
      try {
        const { injected } = simulateHouse(seed, { faults: 1, isSmall: true, kinds: [kind] })
        expect(injected.map(i => i.kind)).toEqual([kind])
        return
      } catch (error) {
        if (!(error as Error).message.includes('could not put')) throw error
      }
    }
    throw new Error(`${kind} shows in none of eight houses`)
  })
  it('are of most rules there are', () => {
    expect(new Set(RECIPES.map(r => r.rule)).size).toBeGreaterThan(110)
  })
  it('come back from the file that is written', () => {
    const house = simulateHouse(9, { faults: 3 })
    const { log } = recorded(house, seeded(9))
    const ledger = new Ledger(log)
    const file = writeHouse(ledger.house, id => ledger.find(id))
    let n = 0
    const read = readJob(JSON.parse(JSON.stringify({ ...file, simulated: { seed: 9 } })), {
      at: '2026-01-01T00:00:00.000Z',
      by: 'test',
      nextId: () => `t${n++}`,
    })
    const { faults } = outcomes(new Site(new Ledger(read.observations).house))
    for (const i of house.injected) expect(faults).toContain(`${i.rule} ${i.subject}`)
  })
})

describe('a round made of a recorded house', () => {
  const observations = (house: object) => {
    let n = 0
    return readJob(JSON.parse(JSON.stringify(house)), {
      at: '2026-01-01T00:00:00.000Z',
      by: 'test',
      nextId: () => `a${n++}`,
    }).observations
  }
  const faultsIn = (log: readonly Observation[]) => outcomes(new Site(new Ledger(log).house)).faults
  // The first is by far the largest: all of them with CORVIT_HOUSES.
  const authored = process.env.CORVIT_HOUSES ? DEMO_HOUSES : DEMO_HOUSES.slice(1)
  it.each(authored.map(d => [d.id, d] as const))(
    '%s: what was recorded stays, what was put in shows, the same number puts in the same',
    (_id, { file }) => {
      const log = new Ledger(observations(file())).log()
      const made = authorHouse(log, 2, { faults: 3 })
      expect(made.injected).toHaveLength(3)
      const after = faultsIn(made.log)
      expect(after).toEqual(expect.arrayContaining(faultsIn(log)))
      expect(after).toEqual(
        expect.arrayContaining(made.injected.map(i => `${i.rule} ${i.subject}`)),
      )
      expect(authorHouse(log, 2, { faults: 3 })).toEqual(made)
      expect(authorHouse(log, 2, { faults: 0 }).log).toBe(log)
    },
  )
  it('says how many show where more are asked for than can (long)', () => {
    const [, , small] = DEMO_HOUSES
    const log = new Ledger(observations(small!.file())).log()
    const rules = new Set(['three-phase-panel-on-single-phase'])
    expect(() => authorHouse(log, 1, { faults: 6, rules })).toThrow(/only \d of 6 faults show/)
  })
})

describe('a round trip', () => {
  it(`over ${HOUSES} houses: every fault found, none invented, nothing left open`, () => {
    const trip = roundTrip(HOUSES, 5)
    expect(trip.injected).toBeGreaterThanOrEqual(HOUSES)
    expect(trip.missed).toEqual([])
    expect(trip.invented).toEqual([])
    expect(trip.stuck).toEqual([])
  })
  it('is counted alike where the tours come from other processes as JSON', () => {
    const tours = [0, 4].map(i => tourOf(i, 5))
    const [first, second] = tours as [Tour, Tour]
    const [lost] = first.injected
    // As if the first fault of the first house had been overlooked.
    const told = [{ ...first, missed: [lost!] }, second]
    const trip = sumUp(JSON.parse(JSON.stringify(told)) as Tour[])
    expect(trip).toEqual(sumUp(told))
    const put = first.injected.length + second.injected.length
    expect([trip.injected, trip.found]).toEqual([put, put - 1])
    const totals = Object.values(trip.rules).reduce((n, c) => n + c.found, 0)
    expect(totals).toBe(put - 1)
  })
  it('a receptacle that names the failing service neutral is no invention where it fails', () => {
    // Exact meters read a volt short of proof at laundry-1 of this house, these just beyond.
    const seed = 202_607_759
    const house = simulateHouse(seed, { faults: faultsIn(1_681) })
    expect(house.injected.map(i => i.kind)).toContain('service neutral failing')
    const met = compare(house, seeded(seed + 7_000_000))
    expect(met.invented).toEqual([])
    const sound = { ...house, injected: house.injected.filter(i => i.kind === 'to be seen') }
    expect(compare(sound, seeded(seed + 7_000_000)).invented).toContain('miswire laundry-1')
  })
  it('with a budget of looks, what is undecided waits for a look that was not taken (long)', () => {
    const house = simulateHouse(3, { faults: 2 })
    const { log, site: answers } = recorded(house, seeded(3))
    const { site, looks, isCutShort } = inspect(log, answers, 300)
    expect([looks, isCutShort]).toEqual([300, true])
    const open = evaluate(site, RULES).filter(r => r.outcome === 'undecided')
    expect(open.length).toBeGreaterThan(20)
    for (const r of open)
      expect(r.missing.some(m => answerOf(site, m.subject, m.field) === undefined)).toBe(true)
  })
})

describe('simulated instruments', () => {
  const { site } = small()
  const instruments = new SimulatedInstruments(site, seeded(1))
  it.each<[string, string, string, unknown]>([
    ['three-lamp tester', 'living-1', 'lamps', 'correct'],
    ['circuit tracer', 'living-1', 'circuit', 'living'],
    ['plug-in GFCI/AFCI tester', 'bath-1', 'gfciTest', 'goes dead'],
    ['plug-in GFCI/AFCI tester', 'living-1', 'gfciTest', 'stays live'],
    ['plug-in GFCI/AFCI tester', 'living-1', 'afciTest', 'goes dead'],
    ['plug-in GFCI/AFCI tester', 'bath-1', 'afciTest', 'stays live'],
  ])('%s at %s reads %s as %s', (instrument, subject, field, value) => {
    expect(instruments.read(instrument, subject, field)).toBe(value)
  })
  it('numbers move a little from reading to reading, as meters do', () => {
    const read = () => Number(instruments.read('multimeter', 'living-1', 'hotNeutralV'))
    const all = Array.from({ length: 12 }, read)
    expect(new Set(all).size).toBeGreaterThan(3)
    for (const v of all) expect(Math.abs(v - 120)).toBeLessThan(4)
  })
  it('an instrument reads nothing it is not made for, nor at what is not there', () => {
    expect(instruments.read('multimeter', 'living-1', 'lamps')).toBeUndefined()
    expect(instruments.read('multimeter', 'no such', 'hotNeutralV')).toBeUndefined()
  })
})
