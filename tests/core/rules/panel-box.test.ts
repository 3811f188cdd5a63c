import { panel, run, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (
  name: string,
  house: Node,
  on: string,
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })
const at = (more: Node, premises: Node = {}) => panel([], more, premises)

const roomy = {
  workingDepthIn: 36,
  workingWidthIn: 30,
  workingHeightIn: 80,
  widthIn: 15,
  door: '90° or more',
  isKeptClear: true,
  escape: 'upright, with a step back',
}
ruleTable('working-space', {
  clear: [
    row('just enough', at(roomy), 'main'),
    row(
      'low in an existing house, 200 A',
      at({ ...roomy, workingHeightIn: 72, busAmps: 200, work: 'none' }),
      'main',
    ),
  ],
  fault: [
    row('nobody can stand', at({ ...roomy, escape: 'must sit or kneel' }), 'main'),
    row('no way out', at({ ...roomy, escape: 'no way out past it' }), 'main'),
    row('35 in deep', at({ ...roomy, workingDepthIn: 35 }), 'main'),
    row('29 in wide', at({ ...roomy, workingWidthIn: 29 }), 'main'),
    row(
      '34 in wide before a 36 in enclosure',
      at({ ...roomy, workingWidthIn: 34, widthIn: 36 }),
      'main',
      { why: '36' },
    ),
    row('low and 225 A', at({ ...roomy, workingHeightIn: 72, busAmps: 225, work: 'none' }), 'main'),
    row('low and new', at({ ...roomy, workingHeightIn: 72, busAmps: 200, work: 'new' }), 'main'),
    row('door hits the wall', at({ ...roomy, door: 'less than 90°' }), 'main'),
    row('shelves in front', at({ ...roomy, isKeptClear: false }), 'main'),
  ],
  undecided: [
    row('nobody stood there', at({ ...roomy, escape: undefined }), 'main', { missing: ['escape'] }),
    row('width not measured', at({ workingDepthIn: 40 }), 'main', { missing: ['workingWidthIn'] }),
    row('low, rating not read', at({ ...roomy, workingHeightIn: 72 }), 'main', {
      missing: ['busAmps'],
    }),
  ],
  inapplicable: [row('meter', at({ type: 'meter', ...roomy, workingDepthIn: 10 }), 'main')],
})
ruleTable('handle-height', {
  clear: [row('79 in', at({ topHandleIn: 79 }), 'main')],
  fault: [row('80 in', at({ topHandleIn: 80 }), 'main')],
  undecided: [row('not measured', at({}), 'main', { missing: ['topHandleIn'] })],
  inapplicable: [row('meter', at({ type: 'meter', topHandleIn: 90 }), 'main')],
})
ruleTable('split-bus', {
  clear: [
    row(
      'six, none added',
      at({ mainKind: 'split bus', upperMains: 6, hasAddedUpper: false }),
      'main',
    ),
  ],
  fault: [
    row('seven', at({ mainKind: 'split bus', upperMains: 7 }), 'main'),
    row(
      'one added above',
      at({ mainKind: 'split bus', upperMains: 5, hasAddedUpper: true }),
      'main',
    ),
    row(
      'seen by its bus',
      {
        ...at({}),
        enclosures: [
          {
            id: 'main',
            type: 'panel',
            fedFrom: 'utility',
            mainKind: 'main lugs',
            bus: 'split bus',
            upperMains: 8,
          },
        ],
      },
      'main',
    ),
  ],
  undecided: [
    row('not looked through', at({ mainKind: 'split bus' }), 'main', { missing: ['upperMains'] }),
    row(
      'main not seen',
      { ...at({}), enclosures: [{ id: 'main', type: 'panel', fedFrom: 'utility' }] },
      'main',
      { missing: ['mainKind'] },
    ),
  ],
  inapplicable: [
    row('one main', at({}), 'main'),
    row('lugs, single phase', at({ mainKind: 'main lugs' }), 'main'),
  ],
})
ruleTable('three-phase-panel-on-single-phase', {
  clear: [
    row(
      'listed jumper',
      at({ bus: 'three phase', thirdLeg: 'jumpered to another leg', isJumperListed: true }),
      'main',
    ),
  ],
  fault: [
    row('dead third bar', at({ bus: 'three phase', thirdLeg: 'not connected' }), 'main'),
    row(
      'improvised jumper',
      at({ bus: 'three phase', thirdLeg: 'jumpered to another leg', isJumperListed: false }),
      'main',
    ),
  ],
  undecided: [
    row('not measured', at({ bus: 'three phase' }), 'main', { missing: ['thirdLeg'] }),
    row(
      'jumper not read',
      at({ bus: 'three phase', thirdLeg: 'jumpered to another leg' }),
      'main',
      { missing: ['isJumperListed'] },
    ),
  ],
  inapplicable: [
    row('single phase', at({}), 'main'),
    row('truly three phase', at({ bus: 'three phase', thirdLeg: 'fed by a third phase' }), 'main'),
  ],
})
const twin = (breaker: Node, more: Node = {}) =>
  panel([{ id: 'b', space: 3, half: 'a', poles: 1, ratingAmps: 15, ...breaker }], more)
ruleTable('tandem-misplaced', {
  clear: [
    row('allowed everywhere', twin({}, { tandems: 'all spaces' }), 'b'),
    row('marked space', twin({ isTwinSpace: true }, { tandems: 'marked spaces' }), 'b'),
  ],
  fault: [
    row('none allowed', twin({}, { tandems: 'none' }), 'b'),
    row('space not marked', twin({ isTwinSpace: false }, { tandems: 'marked spaces' }), 'b'),
  ],
  undecided: [
    row('label not read', twin({}), 'b', { missing: ['tandems'] }),
    row('space not read', twin({}, { tandems: 'marked spaces' }), 'b', {
      missing: ['isTwinSpace'],
    }),
  ],
  inapplicable: [
    row('full size', panel([{ id: 'b', space: 3, poles: 1 }], { tandems: 'all spaces' }), 'b'),
  ],
})
const many = (n: number, maxCircuits?: number, last: Node = {}) =>
  panel(
    Array.from({ length: n }, (_, i) => ({
      id: `b${i}`,
      space: i + 1,
      poles: 1,
      ...(i === n - 1 && last),
    })),
    maxCircuits ? { maxCircuits } : {},
  )
ruleTable('spaces-exceeded', {
  clear: [row('eight of eight', many(8, 8), 'main')],
  fault: [
    row('nine of eight', many(9, 8), 'main'),
    row('a two-pole one too many', many(8, 8, { poles: 2 }), 'main'),
  ],
  undecided: [
    row('label not read', many(4), 'main', { missing: ['maxCircuits'] }),
    row('poles not counted', panel([{ id: 'b', space: 1 }], { maxCircuits: 4 }), 'main', {
      missing: ['poles'],
    }),
  ],
  inapplicable: [row('disconnect', at({ type: 'disconnect', maxCircuits: 2 }), 'main')],
})
const pair = (circuit: Node, wiring: string | undefined, premises: Node = {}) =>
  panel(
    ['c1', 'c2'].map((id, i) => ({
      id: `b${i}`,
      space: 1 + 2 * i,
      poles: 1,
      handleTie: 'listed tie',
      circuit: {
        id,
        sharesNeutralWith: [i ? 'c1' : 'c2'],
        ...circuit,
        segments: [
          { id: `s${i}`, ...(wiring && { wiring }), ...(wiring === 'NM-B' && { conductors: 3 }) },
        ],
      },
    })),
    {},
    premises,
  )
ruleTable('multiwire-not-grouped', {
  clear: [
    row('tied', pair({ isGroupedInPanel: true }, 'steel conduit'), 'c1'),
    row('one cable', pair({ isGroupedInPanel: false }, 'NM-B'), 'c1'),
  ],
  fault: [row('apart, in pipe', pair({ isGroupedInPanel: false }, 'steel conduit'), 'c1')],
  undecided: [
    row('not seen', pair({}, 'steel conduit'), 'c1', { missing: ['isGroupedInPanel'] }),
    row('apart, wiring not seen', pair({ isGroupedInPanel: false }, undefined), 'c1', {
      missing: ['wiring'],
    }),
  ],
  inapplicable: [
    row(
      'its neutral is its own',
      panel([{ id: 'b', space: 1, poles: 1, circuit: { id: 'c1', sharesNeutralWith: [] } }]),
      'c1',
    ),
    row('second of the pair', pair({ isGroupedInPanel: false }, 'steel conduit'), 'c2'),
  ],
})
/** A breaker that feeds another panel: what it carries is clamped at the feeder. */
const feeding = (temperatureC: number, more: Node = {}) =>
  panel(
    [
      {
        id: 'b',
        space: 1,
        poles: 2,
        ratingAmps: 30,
        protection: 'standard',
        role: 'feeder',
        temperatureC,
        ...more,
      },
    ],
    { ambientC: 29 },
  )
const warm = (
  temperatureC: number | undefined,
  loadAmps: number | undefined,
  more: Node = {},
  neighbors: Node[] = [{ temperatureC: 32 }],
  enclosure: Node = { ambientC: 29 },
) =>
  panel(
    [
      {
        id: 'b',
        space: 1,
        poles: 1,
        ratingAmps: 30,
        protection: 'standard',
        role: 'branch',
        ...(temperatureC !== undefined && { temperatureC }),
        ...more,
        circuit: { id: 'c', ...(loadAmps !== undefined && { loadAmps }) },
      },
      ...neighbors.map((n, i) => ({
        id: `n${i}`,
        space: 3 + 2 * i,
        poles: 1,
        ratingAmps: 20,
        protection: 'standard',
        ...n,
      })),
    ],
    enclosure,
  )
ruleTable('breaker-hot', {
  clear: [
    row('cool at half load', warm(35, 16), 'b'),
    row('electronics warm under load', warm(44, 16, { protection: 'dual' }), 'b'),
    row(
      'warm at full load, no warmer than its like',
      warm(55, 29, { rescan: 'no warmer than similar breakers' }),
      'b',
    ),
    row('cool at half its load, load share 53 %', warm(34, 16), 'b'),
    row('a feeder at half its load, clamped itself', feeding(34, { loadAmps: 16 }), 'b'),
  ],
  fault: [
    row('55 °C at 16 of 30 A in 29 °C', warm(55, 16), 'b', { why: 'not fit' }),
    row('as hot after re-torque', warm(55, 29, { rescan: 'as hot after re-torque' }), 'b'),
    row('45 °C over the air, load not clamped', warm(75, undefined), 'b'),
  ],
  undecided: [
    row('not scanned', warm(undefined, 16), 'b', { missing: ['temperatureC'] }),
    row('cool at a tenth of its load', warm(30, 3), 'b', {
      why: 'under load',
      missing: ['rescan'],
    }),
    row('cool without a load', warm(29, 0), 'b', { missing: ['rescan'] }),
    row('warm, load not clamped', warm(45, undefined), 'b', { missing: ['loadAmps'] }),
    row('warm at full load', warm(55, 29), 'b'),
    row('a feeder that was not clamped', feeding(45), 'b', { missing: ['loadAmps'] }),
    row('air not measured', warm(55, 16, {}, [], {}), 'b', { missing: ['ambientC'] }),
  ],
  inapplicable: [row('spare', warm(60, undefined, { role: 'spare' }), 'b')],
})

const seg = (segment: Node, circuit: Node = {}) => panel([run(15, segment, circuit)])
ruleTable('unidentified-conductor-metal', {
  clear: [
    row(
      'copper through',
      seg({ metal: 'copper', surface: 'copper color', core: 'copper color' }),
      's',
    ),
    row(
      'tinned copper',
      seg({ metal: 'tinned copper', surface: 'silver color', core: 'copper color' }),
      's',
    ),
    row(
      'aluminum through',
      seg({ metal: 'aluminum', surface: 'silver color', core: 'silver color' }),
      's',
    ),
    row(
      'copper-clad',
      seg({ metal: 'copper-clad aluminum', surface: 'copper color', core: 'silver color' }),
      's',
    ),
  ],
  fault: [
    row(
      'copper outside, silver inside, taken for copper',
      seg({ metal: 'copper', surface: 'copper color', core: 'silver color' }),
      's',
    ),
    row(
      'tinned copper taken for aluminum',
      seg({ metal: 'aluminum', surface: 'silver color', core: 'copper color' }),
      's',
    ),
    row(
      'tinned taken for plain',
      seg({ metal: 'copper', surface: 'silver color', core: 'copper color' }),
      's',
    ),
    row(
      'clad taken for aluminum',
      seg({ metal: 'aluminum', surface: 'copper color', core: 'silver color' }),
      's',
    ),
  ],
  undecided: [
    row('only the surface seen', seg({ metal: 'copper', surface: 'copper color' }), 's', {
      missing: ['core'],
    }),
    row(
      'silver-looking with a silver core',
      seg({ metal: 'silver-looking', core: 'silver color' }),
      's',
    ),
  ],
  inapplicable: 'always applies',
})
const look = (rule: string, field: string, good: string, bad: string[]) =>
  ruleTable(rule, {
    clear: [row(good, seg({ [field]: good }), 's')],
    fault: bad.map(b => row(b, seg({ [field]: b }), 's')),
    undecided: [row('not looked at', seg({}), 's', { missing: [field] })],
    inapplicable: 'always applies',
  })
look('conductor-workmanship', 'workmanship', 'sound', [
  'nicked',
  'wrapped counterclockwise',
  'insulation under the screw',
  'hooked in a straight clamp',
  'too much bare',
  'fails a gentle pull test',
])
look('wrong-tape', 'tape', 'electrical', ['packing, masking or other'])
const held = {
  wiring: 'NM-B',
  support: 'within 12 in and every 4½ ft',
  boring: 'plated',
  firestop: 'none',
}
ruleTable('cable-support', {
  clear: [
    row('fastened and plated', seg(held), 's'),
    row('fished', seg({ ...held, support: 'not near the enclosure', isFished: true }), 's'),
    row(
      'hidden and fished',
      seg({ wiring: 'NM-B', boring: 'plated', firestop: 'none', isFished: true }),
      's',
    ),
  ],
  fault: [
    row(
      'not near the enclosure',
      seg({ ...held, support: 'not near the enclosure', isFished: false }),
      's',
    ),
    row('hole near the edge', seg({ ...held, boring: 'nearer and not plated' }), 's'),
    row('open fire-rated wall', seg({ ...held, firestop: 'open' }), 's'),
  ],
  undecided: [
    row('not looked at', seg({ wiring: 'NM-B' }), 's', { missing: ['support'] }),
    row('loose, perhaps fished', seg({ ...held, support: 'spans too long' }), 's', {
      missing: ['isFished'],
    }),
  ],
  inapplicable: [
    row('conduit', seg({ wiring: 'steel conduit', boring: 'nearer and not plated' }), 's'),
  ],
})
const joint = (outlet: Node, school = 'listed connectors') =>
  panel(
    [
      {
        id: 'b',
        space: 1,
        poles: 1,
        circuit: { id: 'c', outlets: [{ id: 'p', type: 'junction box', ...outlet }] },
      },
    ],
    {},
    { aluminumSchool: school },
  )
ruleTable('mixed-metal-splice', {
  clear: [
    row(
      'marked twist-on, listed school',
      joint({
        splice: 'aluminum to copper',
        connector: 'twist-on',
        connectorListing: 'aluminum to copper',
      }),
      'p',
    ),
    row(
      'lug, strict school',
      joint(
        {
          splice: 'aluminum to copper',
          connector: 'set-screw lug',
          connectorListing: 'aluminum to copper',
        },
        'strict',
      ),
      'p',
    ),
  ],
  fault: [
    row(
      'copper only',
      joint({
        splice: 'aluminum to copper',
        connector: 'twist-on',
        connectorListing: 'copper only',
      }),
      'p',
    ),
    row(
      'solder and tape',
      joint({ splice: 'aluminum to copper', connector: 'solder and tape' }),
      'p',
    ),
    row(
      'marked twist-on, strict school',
      joint(
        {
          splice: 'aluminum to copper',
          connector: 'twist-on',
          connectorListing: 'aluminum to copper',
        },
        'strict',
      ),
      'p',
    ),
  ],
  undecided: [
    row('not looked at', joint({ isBoxOpened: true }), 'p', { missing: ['splice'] }),
    row('box not opened', joint({}), 'p', { missing: ['isBoxOpened'] }),
    row('print not read', joint({ splice: 'aluminum to copper', connector: 'twist-on' }), 'p', {
      missing: ['connectorListing'],
    }),
  ],
  inapplicable: [
    row(
      'copper to copper',
      joint({ splice: 'copper to copper', connectorListing: 'copper only' }),
      'p',
    ),
  ],
})
const appliance = (rating: number, circuit: Node) =>
  panel([
    run(
      rating,
      { size: '10', metal: 'copper', wiring: 'NM-B' },
      { supplies: 'fixed appliance', ...circuit },
    ),
  ])
ruleTable('appliance-overcurrent', {
  clear: [
    row(
      '20 A, 10 A appliance, nothing marked',
      appliance(20, { applianceAmps: 10, isDeviceMarked: false }),
      'c',
    ),
    row(
      '150 % of 18.8 A is 28.2, next 30',
      appliance(30, {
        applianceAmps: 18.8,
        isDeviceMarked: false,
        supplies: 'water heater',
        heaterKind: 'storage, 120 gal or less',
      }),
      'c',
    ),
    row(
      'as marked',
      appliance(40, { applianceAmps: 20, isDeviceMarked: true, applianceMaxDevice: 40 }),
      'c',
    ),
    row(
      'space heating at 125 %',
      appliance(25, { applianceAmps: 20, supplies: 'space heating' }),
      'c',
    ),
  ],
  fault: [
    row('25 A, 10 A appliance', appliance(25, { applianceAmps: 10, isDeviceMarked: false }), 'c'),
    row(
      'over the marking',
      appliance(30, { applianceAmps: 20, isDeviceMarked: true, applianceMaxDevice: 25 }),
      'c',
    ),
    row(
      'water heater under 125 %',
      appliance(20, {
        applianceAmps: 18.8,
        isDeviceMarked: false,
        supplies: 'water heater',
        heaterKind: 'storage, 120 gal or less',
      }),
      'c',
    ),
    row(
      'space heating under 125 %',
      appliance(20, { applianceAmps: 17, supplies: 'space heating' }),
      'c',
    ),
  ],
  undecided: [
    row('rating of the appliance not read', appliance(30, { isDeviceMarked: false }), 'c', {
      missing: ['applianceAmps'],
    }),
    row('marking not read', appliance(30, { applianceAmps: 10 }), 'c', {
      missing: ['isDeviceMarked'],
    }),
  ],
  inapplicable: [
    row(
      'air conditioning',
      appliance(40, { supplies: 'air conditioning', applianceAmps: 10, isDeviceMarked: false }),
      'c',
    ),
    row('receptacles', appliance(20, { supplies: 'receptacles' }), 'c'),
  ],
})
