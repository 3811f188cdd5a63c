import { consequencesOf, Judged, Ledger, Site, withChanges, type House } from '#core'
import { observe, type Node } from '../../support/house'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const MAIN: Node = {
  id: 'main',
  type: 'panel',
  fedFrom: 'utility',
  marking: 'service disconnect',
  mainKind: 'main breaker',
  mainAmps: 200,
  busAmps: 200,
  bus: 'single phase',
  numbering: 'odd left, even right',
  spaces: 12,
  hasSecondSource: false,
}
const house = (main: Node, more: Node = {}): Node => ({
  corvit: 1,
  form: 'house',
  premises: { yearBuilt: 1990, edition: 2020, visitedOn: '2026-01-01', ...(more.premises as Node) },
  rooms: [{ id: 'r', use: 'living' }],
  enclosures: [{ ...MAIN, ...main }],
})
const single = (space: number, circuit: Node = {}): Node => ({
  id: `b${space}`,
  space,
  poles: 1,
  ratingAmps: 20,
  device: 'breaker',
  role: 'branch',
  circuit: { id: `c${space}`, supplies: 'receptacles', sharesNeutralWith: [], ...circuit },
})
const NM: Node = { id: 's', size: '12', metal: 'copper', wiring: 'NM-B' }

/** Does the work and looks at the house afterwards. */
function done(node: Node, rule: string, subject: string, remedy: string) {
  const before = new Judged(houseOf(node))
  const finding = before.resultOf(rule, subject)
  if (finding?.outcome !== 'fault') throw new Error(`${rule} on ${subject} is ${finding?.outcome}`)
  const made = consequencesOf(before, finding, remedy)
  const site = new Site(withChanges(before.house, made.changes ?? []))
  const fact = (kind: 'circuit' | 'breaker' | 'segment', id: string, field: string): unknown => {
    const thing = site.get(id, kind) as { facts: Record<string, { value?: unknown }> } | undefined
    return thing?.facts[field]?.value
  }
  return { made, site, fact }
}

describe('a circuit of its own', () => {
  const shared = (main: Node = {}) =>
    house({
      ...main,
      breakers: [
        {
          ...single(1, {
            id: 'c',
            supplies: 'fixed appliance',
            applianceAmps: 24,
            segments: [NM],
            outlets: [
              { id: 'unit', type: 'hard-wired outlet', room: 'r', after: 'panel' },
              { id: 'p', type: 'receptacle', room: 'r', after: 'unit' },
            ],
          }),
        },
      ],
    })
  it('takes the appliance along, and leaves the rest on the old breaker and the old cable', () => {
    const { made, site, fact } = done(shared(), 'load-over-circuit', 'c', 'own-circuit')
    expect(made.isCured).toBe(true)
    expect(made.isRefused).toBe(false)
    expect(fact('circuit', 'c', 'fedBy')).toBe('c/own-breaker')
    expect(fact('breaker', 'c/own-breaker', 'ratingAmps')).toBe(25)
    expect(fact('segment', 'c/own-run', 'size')).toBe('10')
    expect(fact('circuit', 'c/others', 'fedBy')).toBe('b1')
    expect(fact('circuit', 'c/others', 'supplies')).toBe('receptacles')
    expect(fact('circuit', 'c/others', 'applianceAmps')).toBeUndefined()
    const [others] = site.all.circuit.filter(c => c.id === 'c/others')
    expect(others && site.outletsOf(others).map(o => o.id)).toEqual(['p'])
    expect(others && site.children(others, 'segment')).toHaveLength(1)
  })
  it('says nothing where the panel has no space', () => {
    const crowded = shared({ spaces: 2 })
    const [main] = crowded.enclosures as Node[]
    ;((main as Node).breakers as Node[]).push(single(2))
    const { made } = done(crowded, 'load-over-circuit', 'c', 'own-circuit')
    expect(made.changes).toBeUndefined()
  })
  it('takes two spaces one below the other for a two-pole breaker', () => {
    const wide = house({
      breakers: [
        {
          ...single(1, { id: 'c', supplies: 'vehicle charger', applianceAmps: 32, segments: [NM] }),
          poles: 2,
          ratingAmps: 30,
        },
        single(5),
      ],
    })
    const { made, fact } = done(wide, 'load-over-circuit', 'c', 'own-circuit')
    expect(made.isCured).toBe(true)
    expect(fact('breaker', 'c/own-breaker', 'space')).toBe(2)
    expect(fact('breaker', 'c/own-breaker', 'poles')).toBe(2)
    expect(fact('breaker', 'c/own-breaker', 'ratingAmps')).toBe(40)
  })
  it('says nothing where nobody can tell which outlet is the appliance', () => {
    const unclear = shared()
    const [main] = unclear.enclosures as Node[]
    const [breaker] = (main as Node).breakers as Node[]
    const circuit = (breaker as Node).circuit as Node
    circuit.outlets = [{ id: 'p', type: 'receptacle', room: 'r', after: 'panel' }]
    const { made } = done(unclear, 'load-over-circuit', 'c', 'own-circuit')
    expect(made.changes).toBeUndefined()
  })
})

describe('one circuit for each unit', () => {
  const units = (main: Node = {}) =>
    house({
      ...main,
      breakers: [
        {
          ...single(1, {
            id: 'c',
            supplies: 'air conditioning',
            nameplateDevice: 'fuse or breaker',
            segments: [{ ...NM, size: '8' }],
            outlets: [
              { id: 'u1', type: 'hard-wired outlet', nameplateMca: 18, nameplateMocp: 30 },
              { id: 'u2', type: 'hard-wired outlet', nameplateMca: 22, nameplateMocp: 35 },
            ],
          }),
          poles: 2,
          ratingAmps: 50,
        },
      ],
    })
  it('gives each the device and the conductors its nameplate takes', () => {
    const { made, fact } = done(units(), 'nameplate-mismatch', 'c', 'circuit-per-unit')
    expect(made.isCured).toBe(true)
    expect(fact('breaker', 'b1', 'ratingAmps')).toBe(30)
    expect(fact('breaker', 'u2/own-breaker', 'ratingAmps')).toBe(35)
    expect(fact('segment', 'u2/own-run', 'size')).toBe('10')
    expect(fact('circuit', 'u2/own', 'nameplateMca')).toBe(22)
  })
  it('says nothing where there is no space for the second', () => {
    const { made } = done(units({ spaces: 3 }), 'nameplate-mismatch', 'c', 'circuit-per-unit')
    expect(made.changes).toBeUndefined()
  })
})

describe('a sub-panel beside a full one', () => {
  const full = (main: Node = {}) =>
    house({
      maxCircuits: 6,
      spaces: 8,
      ...main,
      breakers: [1, 2, 3, 4, 5, 6, 7].map(n => single(n)),
    })
  it('takes as many circuits as make room for its own breaker', () => {
    const { made, site, fact } = done(full(), 'spaces-exceeded', 'main', 'fewer-circuits')
    expect(made.isCured).toBe(true)
    const [sub] = site.all.enclosure.filter(e => e.id === 'main/sub-panel')
    const [main] = site.all.enclosure.filter(e => e.id === 'main')
    // Seven poles and two of the feeder are three too many for six.
    expect(sub && site.children(sub, 'breaker')).toHaveLength(3)
    expect(main && site.children(main, 'breaker')).toHaveLength(5)
    expect(fact('circuit', 'c7', 'fedBy')).toBe('b7/moved')
    expect(fact('breaker', 'main/sub-panel-breaker', 'poles')).toBe(2)
    expect(made.broken).toEqual([])
    expect(made.required).toEqual([])
  })
  it('leaves circuits on a shared neutral where they are', () => {
    const paired = full()
    const [main] = paired.enclosures as Node[]
    const breakers = (main as Node).breakers as Node[]
    const circuit = breakers[6]?.circuit as Node
    circuit.sharesNeutralWith = ['c5']
    const { site } = done(paired, 'spaces-exceeded', 'main', 'fewer-circuits')
    const [sub] = site.all.enclosure.filter(e => e.id === 'main/sub-panel')
    const moved = sub ? site.children(sub, 'breaker').map(b => b.id) : []
    expect(moved).not.toContain('b7/moved')
    expect(moved).not.toContain('b5/moved')
    expect(moved).toHaveLength(3)
  })
})

describe('a load held off by a listed controller', () => {
  const loaded = (more: Node = {}) =>
    house(
      {
        mainAmps: 100,
        breakers: [
          [1, 'cooking appliance', 12],
          [5, 'vehicle charger', 11.5],
          [9, 'space heating', 15],
        ].map(([space, supplies, applianceKw]) => ({
          ...single(space as number, { supplies, applianceKw }),
          poles: 2,
          ratingAmps: 60,
        })),
      },
      {
        premises: {
          floorAreaFt2: 2400,
          supply: '120/240 V single phase',
          areAppliancesRecorded: true,
          ...more,
        },
      },
    )
  it('does not count, so that the service carries the rest', () => {
    const { made, fact } = done(loaded(), 'service-load', 'main', 'fewer-loads')
    expect(made.isCured).toBe(true)
    // The range alone is not enough to hold off, and nothing more than the charger has to wait.
    const held = ['c1', 'c5', 'c9'].filter(c => fact('circuit', c, 'isHeldOff') === true)
    expect(held).toEqual(['c5'])
  })
  it('takes two where one is not enough, and says nothing where no two are', () => {
    const large = done(loaded({ floorAreaFt2: 8500 }), 'service-load', 'main', 'fewer-loads')
    const held = ['c5', 'c9'].filter(c => large.fact('circuit', c, 'isHeldOff') === true)
    expect(large.made.isCured).toBe(true)
    expect(held.length).toBe(2)
    const palace = done(loaded({ floorAreaFt2: 20_000 }), 'service-load', 'main', 'fewer-loads')
    expect(palace.made.isCured).toBe(false)
  })
  it.each([
    ['true', { isHeldOff: true }, 2020, 'clear'],
    ['not looked for', {}, 2020, 'fault'],
    ['false', { isHeldOff: false }, 2020, 'fault'],
    ['true, under an edition that knows no controllers', { isHeldOff: true }, 2011, 'fault'],
    ['only assumed', { isHeldOff: { value: true, grade: 'assumed' } }, 2020, 'undecided'],
  ])('held off: %s', (_, facts, edition, outcome) => {
    const one = loaded({ edition }) as { enclosures: Node[] }
    const [, charger] = one.enclosures[0]?.breakers as Node[]
    Object.assign(charger?.circuit as Node, facts)
    expect(new Judged(houseOf(one as Node)).resultOf('service-load', 'main')?.outcome).toBe(outcome)
  })
})
