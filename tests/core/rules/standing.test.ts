import { evaluate, ruleById } from '#core'
import { oneOutlet, panel, run, siteOf, type Node } from '../../support/house'

/** Houses that break a rule whatever the year; the year goes on the part that is judged. */
const inRoom = (use: string, outlet: Node, year: unknown): Node =>
  oneOutlet(
    {
      room: 'r',
      after: 'panel',
      protection: 'none',
      appliance: 'none that needs a ground',
      year,
      work: 'none',
      ...outlet,
    },
    { premises: { edition: 2023 }, rooms: [{ id: 'r', use, hasSink: false }] },
  )
const service = (more: Node, year: unknown): Node =>
  panel([], { year, work: 'none', ...more }, { edition: 2023 })
const pair = (year: unknown): Node =>
  panel(
    ['c1', 'c2'].map((id, i) => ({
      id: `b${i}`,
      space: 1 + 2 * i,
      poles: 1,
      handleTie: 'not tied',
      circuit: {
        id,
        year,
        sharesNeutralWith: [i ? 'c1' : 'c2'],
        isOnOneYoke: false,
        feedsLineToLine: false,
        isGroupedInPanel: false,
        segments: [{ id: `s${i}`, wiring: 'steel conduit' }],
      },
    })),
    {},
    { edition: 2023 },
  )
const required = (use: string, year: unknown): Node =>
  panel(
    [
      run(
        15,
        { size: '14', metal: 'copper' },
        { requiredUse: use, supplies: 'receptacles', isSharedOutside: true, year },
      ),
    ],
    {},
    { edition: 2023 },
  )
const white = (year: unknown): Node =>
  panel(
    [run(15, { wiring: 'NM', isWhiteHot: true, isWhiteMarked: false, isSwitchLoop: true, year })],
    {},
    { edition: 2023 },
  )

/** Only a receptacle brings arc-fault protection along when it is replaced. */
const BRINGS_NONE = ['bedroom light', 'a switch']

/** Rule, thing judged, first year in which it was broken when made, and the house of a year. */
const TURNS: readonly (readonly [
  rule: string,
  on: string,
  turn: number,
  house: (year: unknown) => Node,
  what: string,
])[] = [
  ['multiwire-no-common-trip', 'c1', 2008, pair, 'separate handles'],
  ['multiwire-not-grouped', 'c1', 2008, pair, 'conductors apart'],
  ['required-20A-circuit-downsized', 'c', 1959, year => required('laundry', year), 'laundry'],
  [
    'required-20A-circuit-downsized',
    'c',
    1996,
    year => required('bathroom receptacles', year),
    'bathroom',
  ],
  ['required-20A-circuit-downsized', 'c', 2017, year => required('garage', year), 'garage'],
  [
    'dedicated-circuits',
    'c',
    1996,
    year => required('bathroom receptacles', year),
    'bathroom shared',
  ],
  ['hot-on-unmarked-white', 's', 1999, white, 'unmarked white of a switch loop'],
  [
    'gfci-missing',
    'p',
    2020,
    year => inRoom('garage', { slots: '240 V', isDedicated: false, isOutOfReach: false }, year),
    '250 V in the garage',
  ],
  [
    'gfci-missing',
    'p',
    2020,
    year => inRoom('outdoors', { type: 'hard-wired outlet', appliance: 'motor tool' }, year),
    'hard-wired outdoors',
  ],
  [
    'gfci-missing',
    'p',
    2014,
    year =>
      inRoom(
        'kitchen',
        { servesCounter: false, type: 'hard-wired outlet', appliance: 'dishwasher' },
        year,
      ),
    'dishwasher',
  ],
  [
    'gfci-missing',
    'p',
    2017,
    year => inRoom('crawl space', { type: 'luminaire' }, year),
    'crawl space light',
  ],
  ['surge-protector', 'main', 2020, year => service({ surge: 'none' }, year), 'no surge protector'],
  ['gfci-missing', 'p', 1975, year => inRoom('bathroom', {}, year), 'bathroom'],
  [
    'gfci-missing',
    'p',
    1996,
    year => inRoom('outdoors', { hasGradeAccess: false }, year),
    'balcony',
  ],
  ['gfci-missing', 'p', 1973, year => inRoom('outdoors', { hasGradeAccess: true }, year), 'yard'],
  [
    'gfci-missing',
    'p',
    2008,
    year => inRoom('garage', { isDedicated: true, isOutOfReach: false }, year),
    'garage freezer',
  ],
  [
    'gfci-missing',
    'p',
    1978,
    year => inRoom('garage', { isDedicated: false, isOutOfReach: false }, year),
    'garage',
  ],
  ['gfci-missing', 'p', 2020, year => inRoom('basement, finished', {}, year), 'finished basement'],
  [
    'gfci-missing',
    'p',
    2023,
    year => inRoom('kitchen', { servesCounter: false }, year),
    'kitchen wall',
  ],
  ['afci-missing', 'p', 1999, year => inRoom('bedroom', {}, year), 'bedroom receptacle'],
  [
    'afci-missing',
    'p',
    2002,
    year => inRoom('bedroom', { type: 'luminaire' }, year),
    'bedroom light',
  ],
  ['afci-missing', 'p', 2008, year => inRoom('living', {}, year), 'living room'],
  ['afci-missing', 'p', 2014, year => inRoom('kitchen', {}, year), 'kitchen'],
  ['afci-missing', 'p', 2014, year => inRoom('living', { type: 'switch' }, year), 'a switch'],
  [
    'tamper-resistant',
    'p',
    2008,
    year => inRoom('living', { isTamperResistant: false, heightFt: 1, isDedicated: false }, year),
    'no shutters',
  ],
  [
    'weather-resistant',
    'p',
    2008,
    year => inRoom('outdoors', { isWeatherResistant: false }, year),
    'not WR',
  ],
  [
    'gfci-not-readily-accessible',
    'p',
    2011,
    year => inRoom('bathroom', { protection: 'GFCI', resetAccess: 'behind an appliance' }, year),
    'reset behind an appliance',
  ],
  [
    'push-in-misuse',
    'p',
    1995,
    year =>
      inRoom(
        'living',
        {
          termination: 'push-in',
          metal: 'copper',
          stranding: 'solid',
          size: '12',
          pushInMarking: '14 solid',
        },
        year,
      ),
    '12 AWG pushed in',
  ],
]
const standing = (rule: string, on: string, house: Node) => {
  const result = evaluate(siteOf(house), [ruleById(rule)!]).find(r => r.subject.id === on)!
  expect(result.verdict.outcome).toBe('fault')
  return result.standing!
}

describe('standing on both sides of the year a rule turned', () => {
  it.each(TURNS.map(t => [t[0], t[4], t[2], t] as const))(
    '%s (%s): lawful before %i, broken from then',
    (_rule, _what, _turn, [rule, on, turn, house]) => {
      expect(standing(rule, on, house(turn - 1)).kind).toBe('allowed to remain')
      expect(standing(rule, on, house(turn)).kind).toBe('violation when installed')
    },
  )
  it.each(TURNS.map(t => [t[0], t[4], t] as const))(
    '%s (%s): with the year open the years that would change the answer are named',
    (_rule, _what, [rule, on, turn, house]) => {
      const open = standing(rule, on, house([turn - 5, turn + 1]))
      expect(open.kind).toBe('depends on the year')
      expect(open.turningYears).toEqual([turn])
    },
  )
  it.each(
    TURNS.filter(
      t =>
        t[1] === 'p' &&
        t[0] !== 'gfci-not-readily-accessible' &&
        t[0] !== 'push-in-misuse' &&
        !BRINGS_NONE.includes(t[4]),
    ).map(t => [t[0], t[4], t] as const),
  )(
    '%s (%s): replacing it now brings the rule of today',
    (_rule, _what, [rule, on, turn, house]) => {
      const file = structuredClone(house(turn - 1))
      const outlet = (
        ((file.enclosures as Node[])[0]!.breakers as Node[])[0]!.circuit as { outlets: Node[] }
      ).outlets.find(p => p.id === on)!
      outlet.work = 'replaced'
      expect(standing(rule, on, file).kind).toBe('required by this work')
    },
  )
})

describe('an edition older than the rule knows no such rule', () => {
  it.each<[string, string, number, (year: unknown) => Node]>([
    ['surge-protector', 'main', 2017, year => service({ surge: 'none' }, year)],
    ['gfci-missing', 'p', 2017, year => inRoom('basement, finished', {}, year)],
    ['afci-missing', 'p', 2011, year => inRoom('kitchen', {}, year)],
    [
      'gfci-not-readily-accessible',
      'p',
      2008,
      year => inRoom('bathroom', { protection: 'GFCI', resetAccess: 'locked away' }, year),
    ],
  ])('%s under %s: %i', (rule, on, edition, house) => {
    const file = structuredClone(house(1990))
    ;(file.premises as Node).edition = edition
    expect(
      evaluate(siteOf(file), [ruleById(rule)!]).find(r => r.subject.id === on)!.verdict.outcome,
    ).toBe('n/a')
  })
})
