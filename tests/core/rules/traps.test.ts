import { assess, evaluate, LiveAssessment, paperText, reportPaper, ruleById, RULES } from '#core'
import { judge, observe, oneOutlet, panel, run, siteOf, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

/** Traps with a row on each side: what looks like a fault and is none, and the other way about. */
const row = (
  name: string,
  house: Node,
  on: string,
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })
const wire = (segment: Node, circuit: Node = {}, breaker: Node = {}): Node =>
  panel([run(20, segment, circuit, breaker)])
const hots = (count: number, more: Node = {}, each: (i: number) => Node = () => ({})): Node =>
  panel(
    Array.from({ length: count }, (_, i) => ({
      id: `b${i}`,
      poles: 1,
      ...each(i),
      circuit: {
        id: `c${i}`,
        sharesNeutralWith: Array.from({ length: count }, (_, k) => `c${k}`).filter(
          id => id !== `c${i}`,
        ),
        feedsLineToLine: false,
      },
    })),
    more,
  )

ruleTable('cable-unprotected-at-entry', {
  clear: [
    row('clamp', wire({ entry: 'clamp or bushing' }), 's'),
    row('not needed', wire({ entry: 'not needed' }), 's'),
    row(
      'single-gang plastic, fastened at 8 in',
      wire({ entry: 'none, single-gang plastic box', fastenedAtBoxIn: 8 }),
      's',
    ),
    row(
      '6 AWG in pipe without a bushing',
      wire({ entry: 'pipe end without insulating bushing', size: '6' }),
      's',
    ),
  ],
  fault: [
    row('none', wire({ entry: 'none' }), 's'),
    row(
      'single-gang plastic, fastened at 9 in',
      wire({ entry: 'none, single-gang plastic box', fastenedAtBoxIn: 9 }),
      's',
    ),
    row(
      '4 AWG in pipe without a bushing',
      wire({ entry: 'pipe end without insulating bushing', size: '4' }),
      's',
      { why: 'bushing' },
    ),
    row('jacket too short', wire({ entry: 'jacket ends before the fitting' }), 's'),
  ],
  undecided: [
    row('not looked at', wire({}), 's', { missing: ['entry'] }),
    row('first staple not measured', wire({ entry: 'none, single-gang plastic box' }), 's', {
      missing: ['fastenedAtBoxIn'],
    }),
    row('pipe, size not gauged', wire({ entry: 'pipe end without insulating bushing' }), 's', {
      missing: ['size'],
    }),
  ],
  inapplicable: 'always applies',
})
ruleTable('neutral-remarked', {
  clear: [
    row('none made', wire({ wiring: 'steel conduit', isColorMadeWhite: false }), 's'),
    row('4 AWG may be', wire({ wiring: 'steel conduit', isColorMadeWhite: true, size: '4' }), 's'),
  ],
  fault: [
    row(
      '6 AWG may not',
      wire({ wiring: 'plastic conduit', isColorMadeWhite: true, size: '6' }),
      's',
    ),
  ],
  undecided: [
    row('not looked at', wire({ wiring: 'steel conduit' }), 's', {
      missing: ['isColorMadeWhite'],
    }),
    row('not gauged', wire({ wiring: 'steel conduit', isColorMadeWhite: true }), 's', {
      missing: ['size'],
    }),
    row('wiring not seen', wire({ isColorMadeWhite: true, size: '12' }), 's', {
      missing: ['wiring'],
    }),
  ],
  inapplicable: [row('a cable', wire({ wiring: 'NM-B' }), 's')],
})
ruleTable('overheated-splice', {
  clear: [row('sound', oneOutlet({ spliceState: 'sound' }), 'p')],
  fault: [
    row('melted', oneOutlet({ spliceState: 'melted' }), 'p'),
    row('discolored', oneOutlet({ spliceState: 'discolored' }), 'p'),
    row('buzzes', oneOutlet({ spliceState: 'buzz or smell' }), 'p'),
  ],
  undecided: [
    row('not looked at', oneOutlet({}), 'p', { missing: ['isBoxOpened'] }),
    row('box opened, splices not looked at', oneOutlet({ isBoxOpened: true }), 'p', {
      missing: ['spliceState'],
    }),
  ],
  inapplicable: [row('no splices', oneOutlet({ splice: 'none' }), 'p')],
})
const lamp = (supplyMarkC: number | undefined, ...segments: Node[]): Node =>
  oneOutlet(
    { type: 'luminaire', slots: undefined, ...(supplyMarkC !== undefined && { supplyMarkC }) },
    { circuit: { segments } },
  )
ruleTable('luminaire-supply-temperature', {
  clear: [
    row('no marking', lamp(60, { wiring: 'cloth NM' }), 'p'),
    row('90 on NM-B', lamp(90, { wiring: 'NM-B' }), 'p'),
    row('75 on 90 in pipe', lamp(75, { wiring: 'steel conduit', insulationC: 90 }), 'p'),
  ],
  fault: [row('90 on old NM', lamp(90, { wiring: 'NM' }), 'p', { why: '60' })],
  undecided: [
    row('marking not read', lamp(undefined, { wiring: 'NM' }), 'p', { missing: ['supplyMarkC'] }),
    row('insulation not read', lamp(90, { wiring: 'steel conduit' }), 'p', {
      missing: ['insulationC'],
    }),
    row(
      'old and new runs: which reaches it',
      lamp(90, { id: 's1', wiring: 'NM' }, { id: 's2', wiring: 'NM-B' }),
      'p',
    ),
    row('no run recorded', lamp(90), 'p'),
  ],
  inapplicable: [row('a receptacle', oneOutlet({}), 'p')],
})
const room = (use: string | undefined, more: Node = {}, premises: Node = {}): Node => ({
  ...panel([], {}, premises),
  rooms: [{ id: 'r', ...(use !== undefined && { use }), ...more }],
})
ruleTable('required-circuits-absent', {
  clear: [row('there', room('kitchen', { ownCircuit: 'there' }), 'r')],
  fault: [
    row('laundry', room('laundry', { ownCircuit: 'missing' }), 'r'),
    row('garage under 2017', room('garage', { ownCircuit: 'missing' }, { edition: 2017 }), 'r'),
  ],
  undecided: [
    row('not traced', room('bathroom'), 'r', { missing: ['ownCircuit'] }),
    row('use not known', room(undefined, { ownCircuit: 'missing' }), 'r', { missing: ['use'] }),
  ],
  inapplicable: [
    row('bedroom', room('bedroom'), 'r'),
    row('garage under 2014', room('garage', { ownCircuit: 'missing' }, { edition: 2014 }), 'r'),
  ],
})

/** A neutral shared between a panel and its sub-panel. */
function twoPanels(breaker: Node): Node {
  const house = panel([
    { id: 'b0', space: 1, poles: 1, ...breaker, circuit: { id: 'c0', sharesNeutralWith: ['c1'] } },
    { id: 'fb', space: 2, poles: 2 },
  ])
  return {
    ...house,
    enclosures: [
      ...(house.enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        bus: 'single phase',
        numbering: 'odd left, even right',
        feeder: { id: 'f', from: 'fb' },
        breakers: [
          {
            id: 'b1',
            space: 3,
            poles: 1,
            ...breaker,
            circuit: { id: 'c1', sharesNeutralWith: ['c0'] },
          },
        ],
      },
    ],
  }
}

describe('multiwire circuits', () => {
  it.each<[string, string, Node, string]>([
    [
      'three hots on a bus of two legs share a leg wherever they stand',
      'multiwire-same-leg',
      hots(3, { numbering: undefined }),
      'fault',
    ],
    [
      'three hots on a bus nobody counted',
      'multiwire-same-leg',
      hots(3, { bus: undefined, numbering: undefined }),
      'undecided',
    ],
    ['two hots on spaces nobody read', 'multiwire-same-leg', hots(2), 'undecided'],
    [
      'the third bar of a three-phase enclosure, jumpered',
      'multiwire-same-leg',
      hots(2, { bus: 'three phase', thirdLeg: 'jumpered to another leg' }, i => ({
        space: 1 + 4 * i,
      })),
      'undecided',
    ],
    [
      'its first two bars',
      'multiwire-same-leg',
      hots(2, { bus: 'three phase', thirdLeg: 'jumpered to another leg' }, i => ({
        space: 1 + 2 * i,
      })),
      'clear',
    ],
    [
      'three phases that are there',
      'multiwire-same-leg',
      hots(2, { bus: 'three phase', thirdLeg: 'fed by a third phase' }, i => ({
        space: 1 + 4 * i,
      })),
      'clear',
    ],
    ['hots from two panels, by their spaces', 'multiwire-same-leg', twoPanels({}), 'undecided'],
    [
      'hots from two panels, measured',
      'multiwire-same-leg',
      twoPanels({ measuredLeg: 'A' }),
      'fault',
    ],
    [
      'a single-pole GFCI on a shared neutral',
      'multiwire-no-common-trip',
      hots(2, {}, i => ({
        space: 1 + 2 * i,
        handleTie: 'listed tie',
        protection: i ? 'GFCI' : 'standard',
      })),
      'fault',
    ],
    [
      'plain breakers with a listed tie',
      'multiwire-no-common-trip',
      hots(2, {}, i => ({ space: 1 + 2 * i, handleTie: 'listed tie', protection: 'standard' })),
      'clear',
    ],
  ])('%s', (_name, rule, house, outcome) =>
    expect(judge(rule, house, 'c0').verdict.outcome).toBe(outcome),
  )
})

describe('the meter enclosure bears the service', () => {
  const metered = (meter: Node, mainAmps: number | undefined, more: Node[] = []): Node => ({
    ...panel([]),
    enclosures: [
      { id: 'm', type: 'meter', fedFrom: 'utility', ...meter },
      {
        id: 'main',
        type: 'panel',
        place: 'indoors',
        mainKind: 'main breaker',
        ...(mainAmps !== undefined && { mainAmps }),
        busAmps: 225,
        feeder: { id: 'f', from: 'm' },
      },
      ...more,
    ],
  })
  it.each<[string, Node, string]>([
    ['125 A meter, 200 A main', metered({ busAmps: 125 }, 200), 'fault'],
    ['200 A meter, 200 A main', metered({ busAmps: 200 }, 200), 'clear'],
    ['rating not read', metered({}, 200), 'undecided'],
    ['main not read', metered({ busAmps: 200 }, undefined), 'undecided'],
    [
      'two mains that add to more: the load decides',
      metered({ busAmps: 200 }, 150, [
        {
          id: 'second',
          type: 'panel',
          place: 'indoors',
          mainKind: 'main breaker',
          mainAmps: 100,
          feeder: { id: 'f2', from: 'm' },
        },
      ]),
      'undecided',
    ],
  ])('%s', (_name, house, outcome) =>
    expect(judge('bus-overloaded', house, 'm').verdict.outcome).toBe(outcome),
  )
})

describe('a nameplate that names fuses only', () => {
  const unit = (more: Node, device?: string): Node =>
    panel([
      {
        id: 'b',
        space: 1,
        poles: 2,
        ratingAmps: 30,
        ...(device && { device }),
        circuit: {
          id: 'c',
          supplies: 'air conditioning',
          nameplateMca: 18,
          nameplateMocp: 30,
          segments: [{ size: '10', metal: 'copper', wiring: 'NM-B' }],
          ...more,
        },
      },
    ])
  it.each<[string, Node, string]>([
    [
      'a breaker and a plain switch at the unit',
      unit({ nameplateDevice: 'fuses only', hasFusesAtUnit: false }, 'breaker'),
      'fault',
    ],
    [
      'a breaker and fuses at the unit',
      unit({ nameplateDevice: 'fuses only', hasFusesAtUnit: true }, 'breaker'),
      'clear',
    ],
    [
      'cartridge fuses at the panel',
      unit({ nameplateDevice: 'fuses only' }, 'cartridge fuse'),
      'clear',
    ],
    ['disconnect not opened', unit({ nameplateDevice: 'fuses only' }, 'breaker'), 'undecided'],
    ['not read whether fuses or breaker', unit({}, 'breaker'), 'undecided'],
  ])('%s', (_name, house, outcome) =>
    expect(judge('nameplate-mismatch', house, 'c').verdict.outcome).toBe(outcome),
  )
})

describe('the directory against itself', () => {
  const card = (...breakers: Node[]): Node =>
    panel(
      breakers.map((b, i) => ({ id: `b${i}`, space: i + 1, poles: 1, ...b })),
      { directory: 'legible and specific', contradictions: 0 },
    )
  const outlets = { circuit: { id: 'c', outlets: [{ id: 'p', type: 'receptacle' }] } }
  it.each<[string, Node, string]>([
    ['one entry twice', card({ label: 'Dryer' }, { label: 'dryer ' }), 'fault'],
    ['a spare that feeds outlets', card({ label: 'Spare', ...outlets }), 'fault'],
    ['two spares', card({ label: 'Spare' }, { label: 'Spare' }), 'clear'],
    ['entries of their own', card({ label: 'Dryer' }, { label: 'Range', ...outlets }), 'clear'],
  ])('%s', (_name, house, outcome) =>
    expect(judge('directory', house, 'main').verdict.outcome).toBe(outcome),
  )
})

describe('a box with conductors of two sizes', () => {
  const box = (more: Node): Node =>
    oneOutlet({
      boxVolumeIn3: 14,
      conductorsInBox: 4,
      groundsInBox: 2,
      largestInBox: '12',
      hasInternalClamps: false,
      throughInBox: 0,
      fittingsInBox: 0,
      yokesInBox: 1,
      isOneSize: false,
      ...more,
    })
  it.each<[string, Node, string]>([
    // 2 × 2.00 + 2 × 2.25 + device 2 × 2.00 + grounds 2.25 = 14.75 in³
    [
      '14.75 in³ in 14: full by its sizes',
      box({ conductors14InBox: 2, conductors12InBox: 2, conductors10InBox: 0, size: '14' }),
      'fault',
    ],
    [
      '14.75 in³ in 14.75: exactly full',
      box({
        boxVolumeIn3: 14.75,
        conductors14InBox: 2,
        conductors12InBox: 2,
        conductors10InBox: 0,
        size: '14',
      }),
      'clear',
    ],
    ['not counted apart', box({}), 'undecided'],
    [
      'counts that do not add up',
      box({ conductors14InBox: 1, conductors12InBox: 2, conductors10InBox: 0, size: '14' }),
      'undecided',
    ],
  ])('%s', (_name, house, outcome) =>
    expect(judge('box-fill', house, 'p').verdict.outcome).toBe(outcome),
  )
})

describe('ground-fault protection beyond plain receptacles', () => {
  const at = (use: string, outlet: Node, premises: Node = {}, more: Node = {}): Node =>
    oneOutlet(
      {
        room: 'r',
        after: 'panel',
        protection: 'none',
        appliance: 'none that needs a ground',
        ...outlet,
      },
      {
        premises: { edition: 2020, ...premises },
        rooms: [{ id: 'r', use, hasSink: false, ...more }],
        breaker: { ratingAmps: 40 },
      },
    )
  const wired = { type: 'hard-wired outlet', slots: undefined }
  const cooler = { ...wired, appliance: 'heating or cooling unit' }
  it.each<[string, Node, string]>([
    ['hard-wired outdoors, 2020', at('outdoors', wired), 'fault'],
    ['hard-wired outdoors, 2017', at('outdoors', wired, { edition: 2017 }), 'n/a'],
    [
      'hard-wired outdoors behind 60 A',
      {
        ...at('outdoors', wired),
        ...oneOutlet(
          { room: 'r', after: 'panel', protection: 'none', ...wired },
          {
            premises: { edition: 2020 },
            rooms: [{ id: 'r', use: 'outdoors' }],
            breaker: { ratingAmps: 60 },
          },
        ),
      },
      'n/a',
    ],
    ['a light outdoors', at('outdoors', { type: 'luminaire', slots: undefined }), 'n/a'],
    ['cooling unit outdoors, 2020', at('outdoors', cooler), 'fault'],
    [
      'cooling unit outdoors, 2023, before 1 September 2026',
      at('outdoors', cooler, { edition: 2023, visitedOn: '2026-08-31' }),
      'n/a',
    ],
    [
      'cooling unit outdoors, 2023, from then on',
      at('outdoors', cooler, { edition: 2023, visitedOn: '2026-09-01' }),
      'fault',
    ],
    [
      'some unit outdoors, 2023, in the exempt time',
      at(
        'outdoors',
        { ...wired, appliance: undefined },
        { edition: 2023, visitedOn: '2026-01-01' },
      ),
      'undecided',
    ],
    [
      '250 V in the garage, 2020',
      at('garage', { slots: '240 V', isDedicated: false, isOutOfReach: false }),
      'fault',
    ],
    [
      '250 V in the garage, 2017',
      at('garage', { slots: '240 V', isDedicated: false, isOutOfReach: false }, { edition: 2017 }),
      'n/a',
    ],
    [
      'dishwasher, hard-wired, 2014',
      at('kitchen', { ...wired, appliance: 'dishwasher' }, { edition: 2014 }),
      'fault',
    ],
    [
      'dishwasher, hard-wired, 2011',
      at('kitchen', { ...wired, appliance: 'dishwasher' }, { edition: 2011 }),
      'n/a',
    ],
    [
      'cooktop, 2023',
      at('kitchen', { ...wired, appliance: 'range, oven or cooktop' }, { edition: 2023 }),
      'fault',
    ],
    ['cooktop, 2020', at('kitchen', { ...wired, appliance: 'range, oven or cooktop' }), 'n/a'],
    [
      'kitchen outlet, what it feeds not seen',
      at('kitchen', { ...wired, appliance: undefined }),
      'undecided',
    ],
    [
      'crawl-space light, 2017',
      at('crawl space', { type: 'luminaire', slots: undefined }, { edition: 2017 }),
      'fault',
    ],
    [
      'crawl-space light, 2014',
      at('crawl space', { type: 'luminaire', slots: undefined }, { edition: 2014 }),
      'n/a',
    ],
    [
      'near a wet-bar sink, 2008',
      at('living', { sinkFt: 4 }, { edition: 2008 }, { hasSink: true, sinkKind: 'wet-bar sink' }),
      'fault',
    ],
    [
      'near some other sink, 2008',
      at('living', { sinkFt: 4 }, { edition: 2008 }, { hasSink: true, sinkKind: 'other sink' }),
      'n/a',
    ],
    [
      'near some other sink, 2011',
      at('living', { sinkFt: 4 }, { edition: 2011 }, { hasSink: true, sinkKind: 'other sink' }),
      'fault',
    ],
    [
      'near a tub, 2011',
      at('bedroom', { sinkFt: 4 }, { edition: 2011 }, { hasSink: true, sinkKind: 'tub or shower' }),
      'n/a',
    ],
    [
      'near a tub, 2014',
      at('bedroom', { sinkFt: 4 }, { edition: 2014 }, { hasSink: true, sinkKind: 'tub or shower' }),
      'fault',
    ],
    [
      'near water of a kind nobody said, 2011',
      at('bedroom', { sinkFt: 4 }, { edition: 2011 }, { hasSink: true }),
      'undecided',
    ],
    [
      'near water of a kind nobody said, 2014',
      at('bedroom', { sinkFt: 4 }, { edition: 2014 }, { hasSink: true }),
      'fault',
    ],
    ['damp room, 2020', at('damp or wet room', {}), 'fault'],
    ['damp room, 2017', at('damp or wet room', {}, { edition: 2017 }), 'n/a'],
    ['where food is prepared, 2023', at('food preparation', {}, { edition: 2023 }), 'fault'],
    ['boathouse', at('boathouse', {}), 'fault'],
    ['boat hoist, hard-wired', at('boathouse', { ...wired, appliance: 'boat hoist' }), 'fault'],
  ])('%s', (_name, house, outcome) =>
    expect(judge('gfci-missing', house, 'p').verdict.outcome).toBe(outcome),
  )
})

describe('what one edition asks when something is replaced or extended', () => {
  const bedroom = (edition: number, outlet: Node, circuit: Node = {}): Node =>
    oneOutlet(
      { room: 'r', after: 'panel', protection: 'none', year: 1970, ...outlet },
      { premises: { edition }, rooms: [{ id: 'r', use: 'bedroom' }], circuit },
    )
  it.each<[string, string, Node, string]>([
    [
      'a receptacle replaced under 2008 brings no arc-fault protection',
      'afci-missing',
      bedroom(2008, { work: 'replaced' }),
      'allowed to remain',
    ],
    [
      'under 2011 it does',
      'afci-missing',
      bedroom(2011, { work: 'replaced' }),
      'required by this work',
    ],
    [
      'nor tamper resistance under 2008',
      'tamper-resistant',
      bedroom(2008, {
        work: 'replaced',
        isTamperResistant: false,
        heightFt: 1,
        isDedicated: false,
      }),
      'allowed to remain',
    ],
    [
      'under 2011 it does too',
      'tamper-resistant',
      bedroom(2011, {
        work: 'replaced',
        isTamperResistant: false,
        heightFt: 1,
        isDedicated: false,
      }),
      'required by this work',
    ],
  ])('%s', (_name, rule, house, kind) => expect(judge(rule, house, 'p').standing!.kind).toBe(kind))
})

describe('an extended circuit', () => {
  const extended = (edition: number, circuit: Node, outlet: Node = {}): Node =>
    oneOutlet(
      { room: 'r', after: 'panel', protection: 'none', year: 1970, work: 'none', ...outlet },
      {
        premises: { edition },
        rooms: [{ id: 'r', use: 'bedroom' }],
        circuit: { work: 'extended', ...circuit },
      },
    )
  const judged = (house: Node) => judge('afci-missing', house, 'p')
  it.each<[string, Node, string]>([
    ['20 ft under 2011', extended(2011, { extensionFt: 20, addsOutlets: false }), 'fault'],
    [
      '5 ft without an outlet under 2011: no exemption yet',
      extended(2011, { extensionFt: 5, addsOutlets: false }),
      'fault',
    ],
    [
      '5 ft without an outlet under 2014',
      extended(2014, { extensionFt: 5, addsOutlets: false }),
      'n/a',
    ],
    ['6 ft exactly', extended(2014, { extensionFt: 6, addsOutlets: false }), 'n/a'],
    ['6½ ft', extended(2014, { extensionFt: 6.5, addsOutlets: false }), 'fault'],
    ['5 ft with an outlet', extended(2014, { extensionFt: 5, addsOutlets: true }), 'fault'],
    [
      '5 ft, and the receptacle replaced: the exemption is not for that',
      extended(2014, { extensionFt: 5, addsOutlets: false }, { work: 'replaced' }),
      'fault',
    ],
    ['length not measured', extended(2014, { addsOutlets: false }), 'undecided'],
    ['5 ft, whether outlets are added not said', extended(2014, { extensionFt: 5 }), 'undecided'],
  ])('%s', (_name, house, outcome) => expect(judged(house).verdict.outcome).toBe(outcome))
  it('on a water heater, a cooker or a 240 V receptacle there is nothing to protect', () => {
    const on = (breaker: Node, outlet: Node, circuit: Node = {}) =>
      judge(
        'afci-missing',
        oneOutlet(
          { room: 'r', after: 'panel', protection: 'none', ...outlet },
          { premises: { edition: 2020 }, rooms: [{ id: 'r', use: 'kitchen' }], breaker, circuit },
        ),
        'p',
      ).verdict.outcome
    const wired = { type: 'hard-wired outlet', slots: undefined }
    expect(on({ ratingAmps: 30, poles: 2 }, wired)).toBe('n/a')
    expect(on({ ratingAmps: 20, poles: 2 }, wired, { feedsLineToLine: true })).toBe('n/a')
    expect(on({ ratingAmps: 20, poles: 2 }, wired)).toBe('undecided')
    expect(on({ ratingAmps: 20, poles: 2 }, wired, { feedsLineToLine: false })).toBe('fault')
    expect(on({ ratingAmps: 20, poles: 2 }, { slots: '240 V' })).toBe('n/a')
    expect(on({ ratingAmps: 20, poles: 2 }, {})).toBe('fault')
  })
})

describe('single faults by what the tester and the years say', () => {
  it.each<[string, string, Node, string, string]>([
    [
      'current in the ground under load: neutral and ground swapped',
      'miswire',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 0.2, groundClampA: 11.8 }),
      'p',
      'fault',
    ],
    [
      'no current in the ground',
      'miswire',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 0.2, groundClampA: 0 }),
      'p',
      'clear',
    ],
    [
      'a failed surge protector under 2008',
      'surge-protector',
      panel([], { surge: 'signals failed' }, { edition: 2008 }),
      'main',
      'fault',
    ],
    [
      'none under 2008',
      'surge-protector',
      panel([], { surge: 'none' }, { edition: 2008 }),
      'main',
      'n/a',
    ],
    [
      'no receptacle at the island, 2020',
      'required-outlets',
      room('kitchen', { outlets: 'none at the peninsula or island' }),
      'r',
      'fault',
    ],
    [
      'no receptacle at the island, 2023',
      'required-outlets',
      room('kitchen', { outlets: 'none at the peninsula or island' }, { edition: 2023 }),
      'r',
      'n/a',
    ],
    ['a buzzing device', 'device-worn', oneOutlet({ condition: 'buzzing' }), 'p', 'fault'],
  ])('%s', (_name, rule, house, on, outcome) =>
    expect(judge(rule, house, on).verdict.outcome).toBe(outcome),
  )
  it('a doubled neutral of 1995 was no better than one of today', () => {
    const bar = (year: number): Node =>
      panel([], {
        year,
        bars: [{ id: 'n', role: 'neutral', screws: [{ position: 1, neutrals: 2, grounds: 0 }] }],
      })
    for (const year of [1995, 2010])
      expect(judge('doubled-neutral', bar(year), 'n').standing!.kind).toBe(
        'violation when installed',
      )
  })
  it('an unmarked white of 1990 is lawful in a switch loop only', () => {
    const white = (more: Node) =>
      wire({ wiring: 'NM', isWhiteHot: true, isWhiteMarked: false, year: 1990, ...more })
    expect(judge('hot-on-unmarked-white', white({ isSwitchLoop: true }), 's').standing!.kind).toBe(
      'allowed to remain',
    )
    expect(judge('hot-on-unmarked-white', white({ isSwitchLoop: false }), 's').standing!.kind).toBe(
      'violation when installed',
    )
    expect(judge('hot-on-unmarked-white', white({}), 's').standing!.kind).toBe(
      'violation when installed',
    )
  })
  it('a feeder to a panel of the dwelling had the reduced sizes before 2008', () => {
    const feed = (year: number): Node => {
      const house = panel([{ id: 'fb', space: 1, poles: 2, ratingAmps: 100 }])
      return {
        ...house,
        enclosures: [
          ...(house.enclosures as Node[]),
          {
            id: 'sub',
            type: 'panel',
            place: 'indoors',
            feeder: {
              id: 'f',
              from: 'fb',
              egc: 'wire',
              size: '2',
              metal: 'aluminum',
              wiring: 'SE',
              insulationC: 75,
              terminalsC: 75,
              carriesWholeDwelling: false,
              year,
            },
          },
        ],
      }
    }
    expect(judge('overfused-feeder', feed(2004), 'f').standing!.kind).toBe('allowed to remain')
    expect(judge('overfused-feeder', feed(2012), 'f').standing!.kind).toBe(
      'violation when installed',
    )
  })
})

describe('lawful when installed and allowed to remain', () => {
  const kept: [string, Node, string][] = [
    [
      'knob-and-tube',
      wire({ wiring: 'knob-and-tube', isBuried: false, isExtended: false, isNeutralFused: false }),
      's',
    ],
    [
      'cloth-cable',
      panel([run(15, { wiring: 'cloth NM', insulation: 'sound' })], {}, { purpose: 'purchase' }),
      's',
    ],
    [
      'split-bus',
      panel([], { mainKind: 'split bus', upperMains: 6, hasAddedUpper: false }),
      'main',
    ],
    [
      'open-ground-three-slot',
      oneOutlet({ slots: 'two', ground: 'none', year: 1955 }, { premises: { yearBuilt: 1950 } }),
      'p',
    ],
  ]
  it.each(kept)('%s is neither a fault nor clear', (rule, house, on) => {
    const spoken = assess(siteOf(house).house).results.find(
      r => r.rule === rule && r.subject.id === on,
    )!
    expect([spoken.outcome, spoken.standing]).toEqual(['allowed', 'allowed to remain'])
    expect(spoken.standingWhy!.length).toBeGreaterThan(20)
  })
  it('what is simply right has no standing', () => {
    const spoken = assess(
      siteOf(panel([run(15, { size: '14', metal: 'copper', wiring: 'NM-B' })])).house,
    ).results.find(r => r.rule === 'overfused-conductor')!
    expect([spoken.outcome, spoken.standing]).toEqual(['clear', null])
  })
})

describe('local amendments', () => {
  const bedroom = (...amendments: Node[]): Node => ({
    ...oneOutlet(
      { room: 'r', after: 'panel', protection: 'none', year: 2018, work: 'none' },
      { premises: { edition: 2017 }, rooms: [{ id: 'r', use: 'kitchen', hasSink: false }] },
    ),
    amendments,
  })
  const judged = (house: Node) => judge('afci-missing', house, 'p')
  it('not enforced here: no fault, and the ordinance is named', () => {
    const { verdict } = judged(
      bedroom({ rule: 'afci-missing', effect: 'not enforced here', source: 'Ordinance 12' }),
    )
    expect([verdict.outcome, verdict.why.slots]).toEqual(['n/a', { source: 'Ordinance 12' }])
  })
  it('held at an older edition: judged by that one', () => {
    expect(judged(bedroom()).verdict.outcome).toBe('fault')
    expect(
      judged(bedroom({ rule: 'afci-missing', effect: 'as in another edition', asIn: 2011 })).verdict
        .outcome,
    ).toBe('n/a')
    expect(
      judged(bedroom({ rule: 'afci-missing', effect: 'as in another edition', asIn: 2023 })).verdict
        .outcome,
    ).toBe('fault')
  })
  it('held at the edition in force: judged as without it', () => {
    const { verdict } = judged(
      bedroom({ rule: 'afci-missing', effect: 'as in another edition', asIn: 2017 }),
    )
    expect([verdict.outcome, 'defect' in verdict && verdict.defect]).toEqual(['fault', false])
  })
  it('a newer edition held early asks what it asks', () => {
    const finished = (...amendments: Node[]): Node => ({
      ...oneOutlet(
        { room: 'r', after: 'panel', protection: 'none', appliance: 'none that needs a ground' },
        {
          premises: { edition: 2017 },
          rooms: [{ id: 'r', use: 'basement, finished', hasSink: false }],
        },
      ),
      amendments,
    })
    expect(judge('gfci-missing', finished(), 'p').verdict.outcome).toBe('n/a')
    expect(
      judge(
        'gfci-missing',
        finished({ rule: 'gfci-missing', effect: 'as in another edition', asIn: 2020 }),
        'p',
      ).verdict.outcome,
    ).toBe('fault')
  })
  it('recorded and not read: undecided on it', () => {
    const { verdict, missing } = judged(bedroom({ rule: 'afci-missing' }))
    expect(verdict.outcome).toBe('undecided')
    expect(missing.map(m => m.field)).toContain('effect')
  })
  it('takes away no hazard and touches no other rule', () => {
    const house = {
      ...panel([], { cover: 'missing' }),
      amendments: [{ rule: 'dead-front-missing', effect: 'not enforced here' }],
    }
    expect(judge('dead-front-missing', house, 'main').verdict.outcome).toBe('fault')
    const plain = evaluate(
      siteOf(bedroom()),
      RULES.filter(r => r.id !== 'afci-missing'),
    )
    const amended = evaluate(
      siteOf(bedroom({ rule: 'afci-missing', effect: 'not enforced here' })),
      RULES.filter(r => r.id !== 'afci-missing'),
    )
    expect(amended.map(r => [r.rule.id, r.verdict.outcome])).toEqual(
      plain.map(r => [r.rule.id, r.verdict.outcome]),
    )
  })
  it('every rule can be named', () =>
    expect(RULES.map(r => r.id).every(id => ruleById(id) !== undefined)).toBe(true))
})

describe('a severity set by a person', () => {
  const house = (...overrides: Node[]): Node => ({
    ...panel([run(20, { size: '14', metal: 'copper', wiring: 'NM-B' })]),
    overrides,
  })
  const spoken = (h: Node) =>
    assess(siteOf(h).house).results.find(r => r.rule === 'overfused-conductor')!
  const byHand = {
    id: 'o',
    rule: 'overfused-conductor',
    of: 's',
    severity: 'note',
    reason: 'disconnected and capped today',
  }
  it('stands in place of the computed one, and both are said', () => {
    const computed = spoken(house())
    expect([computed.severity, computed.byHand]).toEqual(['repair', null])
    const set = spoken(house(byHand))
    expect([set.severity, set.byHand]).toEqual([
      'note',
      { computed: 'repair', reason: 'disconnected and capped today' },
    ])
    expect(assess(siteOf(house(byHand)).house).totals.severity['note']).toBe(
      1 + assess(siteOf(house()).house).totals.severity['note'],
    )
    const told = paperText(reportPaper(siteOf(house(byHand)).house, 'inspector'))
    expect(told).toContain('computed: repair')
  })
  it('does not count without a reason, nor for another thing', () => {
    expect(spoken(house({ ...byHand, reason: undefined })).severity).toBe('repair')
    expect(spoken(house({ ...byHand, of: 'main' })).severity).toBe('repair')
  })
  it('is heard at once while recording', () => {
    const live = new LiveAssessment()
    live.append(observe(house()))
    const stamp = { at: '2026-02-01T08:00:00.000Z', by: 'test' }
    const { changed, totals } = live.append([
      { ...stamp, id: 'z1', act: 'add', subject: 'o', kind: 'override', parent: 'premises' },
      ...(['rule', 'of', 'severity', 'reason'] as const).map((field, i) => ({
        ...stamp,
        id: `z2${i}`,
        act: 'note' as const,
        subject: 'o',
        field,
        value: byHand[field],
        grade: 'told' as const,
      })),
    ])
    expect(changed.find(c => c.rule === 'overfused-conductor')?.severity).toBe('note')
    expect(totals).toEqual(assess(live.ledger.house).totals)
  })
})
