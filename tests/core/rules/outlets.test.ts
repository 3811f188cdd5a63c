import { oneOutlet, panel, run, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (
  name: string,
  house: Node,
  on = 'p',
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })
/** A receptacle in a room of some use. */
const inRoom = (
  use: string,
  outlet: Node = {},
  premises: Node = {},
  room: Node = { hasSink: false },
) =>
  oneOutlet(
    {
      room: 'r',
      after: 'panel',
      protection: 'none',
      appliance: 'none that needs a ground',
      ...outlet,
    },
    { premises, rooms: [{ id: 'r', use, ...room }] },
  )

ruleTable('gfci-missing', {
  clear: [
    row('in the device', inRoom('bathroom', { protection: 'GFCI' })),
    row(
      'in the breaker',
      oneOutlet(
        { protection: 'none', room: 'r' },
        { breaker: { protection: 'dual' }, rooms: [{ id: 'r', use: 'garage' }] },
      ),
    ),
  ],
  fault: [
    row('bathroom', inRoom('bathroom')),
    row('garage freezer in 2020', inRoom('garage', { isDedicated: true, isOutOfReach: false })),
    row('kitchen counter', inRoom('kitchen', { servesCounter: true })),
    row(
      'kitchen wall, edition 2023',
      inRoom('kitchen', { servesCounter: false }, { edition: 2023 }),
    ),
    row('bedroom sink at 5 ft', inRoom('bedroom', { sinkFt: 5 }, {}, { hasSink: true })),
    row('finished basement, 2020', inRoom('basement, finished')),
  ],
  undecided: [
    row(
      'protection not seen',
      oneOutlet(
        { room: 'r' },
        { breaker: { protection: 'standard' }, rooms: [{ id: 'r', use: 'bathroom' }] },
      ),
    ),
    row('room not recorded', oneOutlet({ after: 'panel', protection: 'none' }), 'p', {
      missing: ['room'],
    }),
    row('counter or not', inRoom('kitchen', {}, { edition: 2020 }), 'p', {
      missing: ['servesCounter'],
    }),
    row('sink not looked for', inRoom('living', {}, {}, {}), 'p', { missing: ['hasSink'] }),
  ],
  inapplicable: [
    row('bedroom', inRoom('bedroom')),
    row('kitchen wall away from the sink, 2020', inRoom('kitchen', { servesCounter: false })),
    row('finished basement, 2017', inRoom('basement, finished', {}, { edition: 2017 })),
    row('a light', inRoom('bathroom', { type: 'luminaire' })),
  ],
})
// Whether anything protects it, and from where, is not seen.
const unseen = { protection: undefined, after: undefined }
ruleTable('afci-missing', {
  clear: [
    row(
      'breaker',
      oneOutlet(
        { room: 'r' },
        { breaker: { protection: 'AFCI' }, rooms: [{ id: 'r', use: 'bedroom' }] },
      ),
    ),
    row('in the device', inRoom('living', { protection: 'dual' })),
    row(
      'an arc tester makes it dead',
      oneOutlet(
        { room: 'r', ...unseen, afciTest: 'goes dead' },
        { circuit: { work: 'none' }, rooms: [{ id: 'r', use: 'living' }] },
      ),
    ),
    row(
      'first outlet ahead',
      oneOutlet(
        { room: 'r', protection: 'none', after: 'first', isFedFromLoadSide: true },
        {
          rooms: [{ id: 'r', use: 'living' }],
          others: [{ id: 'first', type: 'receptacle', after: 'panel', protection: 'AFCI' }],
        },
      ),
    ),
  ],
  fault: [
    row('bedroom receptacle', inRoom('bedroom')),
    row('smoke alarm in a bedroom', inRoom('bedroom', { type: 'alarm' })),
    row('kitchen, 2014', inRoom('kitchen', {}, { edition: 2014 })),
    row('a switch, 2014', inRoom('living', { type: 'switch' }, { edition: 2014 })),
    row('replaced in a bedroom', inRoom('bedroom', { work: 'replaced' })),
  ],
  undecided: [
    row('an arc tester leaves it live', inRoom('living', { ...unseen, afciTest: 'stays live' })),
    row(
      'made dead by an arc tester, on a new circuit: by what is not seen',
      oneOutlet(
        { room: 'r', ...unseen, afciTest: 'goes dead' },
        { circuit: { work: 'new' }, rooms: [{ id: 'r', use: 'living' }] },
      ),
    ),
    row(
      'breaker not seen',
      {
        ...panel([
          {
            id: 'b',
            space: 1,
            poles: 1,
            circuit: {
              id: 'c',
              outlets: [
                { id: 'p', type: 'receptacle', room: 'r', after: 'panel', protection: 'none' },
              ],
            },
          },
        ]),
        rooms: [{ id: 'r', use: 'bedroom' }],
      },
      'p',
      { missing: ['protection'] },
    ),
    row('room not recorded', oneOutlet({ after: 'panel', protection: 'none' }), 'p', {
      missing: ['room'],
    }),
    row(
      'short extension, outlets not said',
      oneOutlet(
        { room: 'r', after: 'panel', protection: 'none' },
        { circuit: { work: 'extended', extensionFt: 5 }, rooms: [{ id: 'r', use: 'bedroom' }] },
      ),
      'p',
      { missing: ['addsOutlets'] },
    ),
  ],
  inapplicable: [
    row(
      'an unfinished basement, below grade as basements are',
      oneOutlet(
        { room: 'r' },
        { rooms: [{ id: 'r', use: 'basement, unfinished', isBelowGrade: true }] },
      ),
    ),
    row(
      'a garage below grade is a garage',
      oneOutlet({ room: 'r' }, { rooms: [{ id: 'r', use: 'garage', isBelowGrade: true }] }),
    ),
    row('bathroom', inRoom('bathroom')),
    row('kitchen, 2011', inRoom('kitchen', {}, { edition: 2011 })),
    row('a switch, 2011', inRoom('living', { type: 'switch' }, { edition: 2011 })),
    row(
      'extension of 5 ft, no outlets',
      oneOutlet(
        { room: 'r', after: 'panel', protection: 'none', work: 'none' },
        {
          circuit: { work: 'extended', extensionFt: 5, addsOutlets: false },
          rooms: [{ id: 'r', use: 'bedroom' }],
        },
      ),
    ),
  ],
})
const look = (
  rule: string,
  base: Node,
  field: string,
  good: unknown,
  bad: unknown[],
  inapplicable: Node | undefined,
  premises: Node = {},
) =>
  ruleTable(rule, {
    clear: [row('right', oneOutlet({ ...base, [field]: good }, { premises }))],
    fault: bad.map(b => row(String(b), oneOutlet({ ...base, [field]: b }, { premises }))),
    undecided: [row('not looked at', oneOutlet(base, { premises }), 'p', { missing: [field] })],
    inapplicable: inapplicable
      ? [
          row(
            'another thing',
            oneOutlet({ ...base, [field]: bad[0], ...inapplicable }, { premises }),
          ),
        ]
      : 'always applies',
  })
const own = { protection: 'GFCI' }
look('gfci-failed', own, 'gfciButton', 'trips, goes dead', ['does not trip'], {
  protection: 'none',
})
look('gfci-line-load-reversed', own, 'gfciButton', 'trips, goes dead', ['trips, stays live'], {
  protection: 'none',
})
look(
  'gfci-not-readily-accessible',
  own,
  'resetAccess',
  'readily accessible',
  ['behind an appliance', 'behind a fixed panel', 'attic or crawl space', 'locked away'],
  { protection: 'none' },
)
look(
  'ground-carried-from-ungrounded-gfci',
  { ...own, lamps: 'open ground', ground: 'none' },
  'carriesGroundOn',
  false,
  [true],
  { protection: 'none' },
)
look('cover-missing', {}, 'cover', 'in place', ['missing', 'broken'], undefined)
look(
  'splice-outside-box',
  {},
  'splicePlace',
  'in a listed tap device',
  ['outside a box'],
  undefined,
)
look('junction-buried', {}, 'isAccessible', true, [false], undefined)
ruleTable('miswire', {
  clear: [
    row('240 V, nothing in its ground', oneOutlet({ slots: '240 V', groundClampA: 0.1 })),
    row(
      'correct, ground at earth',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 0.4, groundClampA: 0 }),
    ),
    row('no ground, narrow slot hot', oneOutlet({ lamps: 'open ground', narrowToReferenceV: 119 })),
  ],
  fault: [
    row('240 V, its ground carries current', oneOutlet({ slots: '240 V', groundClampA: 4 })),
    row('reversed', oneOutlet({ lamps: 'reversed' })),
    row(
      'correct on a reversed bootleg',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 118 }),
      'p',
      {
        why: 'jumper',
      },
    ),
    row(
      'no ground, narrow slot dead',
      oneOutlet({ lamps: 'open ground', narrowToReferenceV: 1 }),
      'p',
      {
        why: 'reversed',
      },
    ),
    row(
      'D4: 240 V between the slots, recorded',
      oneOutlet({ hotNeutralV: 240, hotGroundV: 120, neutralGroundV: 120 }),
      'p',
      { why: '240 V across the slots' },
    ),
    row(
      'D4: a lost service neutral, recorded with its other half',
      oneOutlet({ hotNeutralV: 137, hotGroundV: 137, neutralGroundV: 0.3, otherHalfV: 103 }),
      'p',
      { why: 'open service neutral' },
    ),
    row(
      'D4: a shared neutral that is gone, though the lamps say correct',
      oneOutlet({ lamps: 'correct', hotNeutralV: 212, otherHalfV: 28, hotGroundV: 120 }),
      'p',
      { why: 'lost shared neutral' },
    ),
    row(
      'D4: a frame live through an appliance',
      oneOutlet({
        hotNeutralV: 120,
        hotGroundV: 0,
        neutralGroundV: 120,
        groundToReferenceV: 120,
        narrowToReferenceV: 120,
        groundOhms: 40,
        dropPercent: 3,
        runFt: 70,
        groundClampA: 0,
      }),
      'p',
      { why: 'floating ground energized' },
    ),
    row(
      'D4: 208 V between slots that are 120 V to ground: unexplained, whatever the lamps say',
      oneOutlet({
        lamps: 'correct',
        groundToReferenceV: 0,
        groundClampA: 0,
        hotNeutralV: 208,
        hotGroundV: 120,
        neutralGroundV: 120,
      }),
      'p',
      { why: 'No sound outlet' },
    ),
    row(
      'D4: dead, proven without lamps',
      oneOutlet({
        hotNeutralV: 0,
        hotGroundV: 0,
        neutralGroundV: 0,
        narrowToReferenceV: 0,
        groundToReferenceV: 0,
        isGroundDetected: false,
      }),
      'p',
      { why: 'open hot' },
    ),
    row('open neutral', oneOutlet({ lamps: 'open neutral' })),
    row('dead', oneOutlet({ lamps: 'open hot' })),
    row(
      'hot on the ground terminal',
      oneOutlet({ lamps: 'hot and ground reversed', groundToReferenceV: 119 }),
      'p',
      { why: 'swapped' },
    ),
    row(
      'open neutral with a load on',
      oneOutlet({ lamps: 'hot and ground reversed', groundToReferenceV: 0 }),
      'p',
      { why: 'load on' },
    ),
  ],
  undecided: [
    row('240 V: the lamps do not fit', oneOutlet({ slots: '240 V', hotNeutralV: 240 }), 'p', {
      missing: ['groundClampA'],
    }),
    row('240 V at slots nobody has seen', oneOutlet({ slots: undefined, hotNeutralV: 240 }), 'p', {
      missing: ['slots'],
    }),
    row(
      'a pattern of the lamps no legend has',
      oneOutlet({ lamps: { blocked: 'only the middle lamp' } }),
      'p',
      { missing: ['hotNeutralV', 'hotGroundV', 'neutralGroundV'] },
    ),
    row(
      'correct, no jumper in the box: it may be one box ahead',
      oneOutlet({ lamps: 'correct', hasNeutralGroundJumper: false }),
    ),
    row(
      'D4: 60 V on a ground that floats, read without low-impedance mode',
      oneOutlet({ hotNeutralV: 120, hotGroundV: 60, neutralGroundV: 58, groundOhms: 100000 }),
      'p',
      { missing: ['lamps'] },
    ),
    row(
      'D4: voltages that several states explain',
      oneOutlet({ hotNeutralV: 120, hotGroundV: 120, neutralGroundV: 0.3 }),
      'p',
      { missing: ['lamps'] },
    ),
    row('not tested', oneOutlet({}), 'p', { missing: ['lamps'] }),
    row('the lamps alone', oneOutlet({ lamps: 'correct' }), 'p', {
      missing: ['groundToReferenceV'],
    }),
    row('no ground to compare with', oneOutlet({ lamps: 'open ground' }), 'p', {
      missing: ['narrowToReferenceV'],
    }),
    row('lamps cannot tell', oneOutlet({ lamps: 'hot and ground reversed' }), 'p', {
      missing: ['groundToReferenceV'],
    }),
  ],
  inapplicable: [row('a light', oneOutlet({ type: 'luminaire', lamps: 'reversed' }))],
})
ruleTable('voltage-drop', {
  clear: [
    row('what the run explains', oneOutlet({ dropPercent: 3, runFt: 60, testLoadA: 13 })),
    row(
      'long and thin, and explained',
      oneOutlet({ dropPercent: 7, runFt: 110, testLoadA: 13, size: '14' }),
    ),
    row('ordinary, on a run of 10 ft', oneOutlet({ dropPercent: 5, runFt: 10, testLoadA: 13 })),
    row('small, of a run nobody measured', oneOutlet({ dropPercent: 5 })),
  ],
  fault: [
    row(
      'D3: a joint in the hot, with its heat',
      oneOutlet({ dropPercent: 12, runFt: 60, testLoadA: 13, neutralGroundRiseV: 2 }),
      'p',
      { why: '"ohms":0.731,"watts":123.5,"side":"in the hot"' },
    ),
    row(
      'D3: in the neutral',
      oneOutlet({ dropPercent: 12, runFt: 60, testLoadA: 13, neutralGroundRiseV: 11.5 }),
      'p',
      { why: 'in the neutral' },
    ),
    row('D3: in both', oneOutlet({ dropPercent: 12, runFt: 60, neutralGroundRiseV: 7 }), 'p', {
      why: 'in hot and neutral',
    }),
    row('side not read', oneOutlet({ dropPercent: 12, runFt: 60 }), 'p', { why: 'hot or neutral' }),
    row('no run is that long', oneOutlet({ dropPercent: 20 })),
    row(
      'long, and of 10 AWG',
      oneOutlet({ dropPercent: 7, runFt: 110, testLoadA: 13, size: '10' }),
    ),
  ],
  undecided: [
    row('ordinary on a long run only', oneOutlet({ dropPercent: 7 }), 'p', {
      missing: ['runFt', 'size'],
    }),
    row(
      'long, of wire nobody gauged',
      oneOutlet({ dropPercent: 7, runFt: 110, testLoadA: 13 }),
      'p',
      {
        missing: ['size'],
      },
    ),
    row('it carries nothing, and nobody measured', oneOutlet({ dropPercent: 100 }), 'p', {
      missing: ['hotNeutralV'],
    }),
    row('nobody loaded it', oneOutlet({}), 'p', { missing: ['dropPercent'] }),
  ],
  inapplicable: [
    row('a light', oneOutlet({ type: 'luminaire' })),
    row('it carries nothing', oneOutlet({ dropPercent: 100, hotNeutralV: 0 })),
  ],
})
const bare = { isTamperResistant: false, heightFt: 1, isDedicated: false }
ruleTable('tamper-resistant', {
  clear: [row('shutters', oneOutlet({ isTamperResistant: true }))],
  fault: [row('none', oneOutlet(bare))],
  undecided: [
    row('height not measured', oneOutlet({ isTamperResistant: false, isDedicated: false }), 'p', {
      missing: ['isHigh'],
    }),
  ],
  inapplicable: [
    row('two slots', oneOutlet({ ...bare, slots: 'two' })),
    row('6 ft up', oneOutlet({ ...bare, heightFt: 6 })),
    row('for one appliance', oneOutlet({ ...bare, isDedicated: true })),
    row('a light', oneOutlet({ ...bare, type: 'luminaire' })),
  ],
})
ruleTable('weather-resistant', {
  clear: [row('marked', inRoom('outdoors', { isWeatherResistant: true }))],
  fault: [row('not marked', inRoom('outdoors', { isWeatherResistant: false }))],
  undecided: [row('not looked at', inRoom('outdoors'), 'p', { missing: ['isWeatherResistant'] })],
  inapplicable: [row('indoors', inRoom('bedroom', { isWeatherResistant: false }))],
})
const rated = (rating: number, outlet: Node, others: Node[] = []) =>
  oneOutlet(outlet, { breaker: { ratingAmps: rating }, others })
ruleTable('receptacle-rating', {
  clear: [
    row('15 on 15', rated(15, { deviceAmps: 15 })),
    row('15 A duplex on 20 A', rated(20, { deviceAmps: 15, isSingle: false })),
    row(
      '15 A duplex on 20 A, right by itself: what the next one is was only assumed',
      rated(20, { deviceAmps: 15, isSingle: false }, [
        { id: 'q', type: { value: 'receptacle', grade: 'assumed' } },
      ]),
    ),
    row(
      'single 15 A with another on 20 A',
      rated(20, { deviceAmps: 15, isSingle: true }, [{ id: 'q', type: 'receptacle' }]),
    ),
    row('T-slot on 20 A', rated(20, { slots: 'T-slot' })),
  ],
  fault: [
    row('20 on 15', rated(15, { deviceAmps: 20, isSingle: false })),
    row('T-slot on 15 A', rated(15, { slots: 'T-slot', isSingle: false })),
    row('single 15 A alone on 20 A', rated(20, { deviceAmps: 15, isSingle: true })),
    row('15 A on 30 A', rated(30, { deviceAmps: 15, isSingle: false })),
  ],
  undecided: [
    row('not read', rated(20, {}), 'p', { missing: ['deviceAmps'] }),
    row('single or duplex', rated(20, { deviceAmps: 15 }), 'p', { missing: ['isSingle'] }),
  ],
  inapplicable: [row('a light', rated(20, { type: 'luminaire' }))],
})
const pushed = {
  termination: 'push-in',
  metal: 'copper',
  stranding: 'solid',
  size: '14',
  pushInMarking: '14 solid',
}
ruleTable('push-in-misuse', {
  clear: [
    row('14 solid', oneOutlet(pushed)),
    row('12 where marked for 12', oneOutlet({ ...pushed, size: '12', pushInMarking: '12 solid' })),
    row(
      'stranded where marked',
      oneOutlet({ ...pushed, stranding: 'stranded', pushInMarking: 'stranded' }),
    ),
  ],
  fault: [
    row('12 where marked for 14', oneOutlet({ ...pushed, size: '12' })),
    row('stranded', oneOutlet({ ...pushed, stranding: 'stranded' })),
    row('aluminum', oneOutlet({ ...pushed, metal: 'aluminum' })),
    row('copper-clad', oneOutlet({ ...pushed, metal: 'copper-clad aluminum' })),
    row('10 AWG', oneOutlet({ ...pushed, size: '10' })),
  ],
  undecided: [
    row(
      'marking not read',
      oneOutlet({ termination: 'push-in', metal: 'copper', stranding: 'solid', size: '12' }),
      'p',
      { missing: ['pushInMarking'] },
    ),
    row('box not opened', oneOutlet({}), 'p', { missing: ['isBoxOpened'] }),
    row('how it lands not seen', oneOutlet({ isBoxOpened: true }), 'p', {
      missing: ['termination'],
    }),
  ],
  inapplicable: [
    row('clamp plate', oneOutlet({ ...pushed, termination: 'clamp plate', size: '10' })),
  ],
})
const box = (volume: number | undefined, more: Node = {}) =>
  oneOutlet({
    ...(volume !== undefined && { boxVolumeIn3: volume }),
    conductorsInBox: 4,
    groundsInBox: 2,
    largestInBox: '12',
    hasInternalClamps: true,
    isOneSize: true,
    throughInBox: 0,
    fittingsInBox: 0,
    yokesInBox: 1,
    ...more,
  })
ruleTable('box-fill', {
  clear: [row('18 of 18 in³, two 12-2 with ground', box(18), 'p', { why: '18' })],
  fault: [
    row('17.9 in³', box(17.9)),
    row('a stud too many', box(18, { fittingsInBox: 1 })),
    row('one passing through too many', box(18, { throughInBox: 1 })),
    row('a second device', box(18, { yokesInBox: 2 })),
    row(
      '3×2×2 with two 14-2 without ground',
      box(10, { largestInBox: '14', groundsInBox: 0 }),
      'p',
      { why: '14' },
    ),
    row('hopeless whatever the sizes', box(8, { isOneSize: false })),
  ],
  undecided: [
    row(
      'fittings not counted',
      oneOutlet({
        boxVolumeIn3: 30,
        conductorsInBox: 4,
        groundsInBox: 2,
        largestInBox: '12',
        hasInternalClamps: true,
        throughInBox: 0,
        yokesInBox: 1,
      }),
      'p',
      { missing: ['fittingsInBox'] },
    ),
    row('volume not read', box(undefined, { isBoxOpened: true }), 'p', {
      missing: ['boxVolumeIn3'],
    }),
    row(
      'sizes mixed',
      oneOutlet({
        boxVolumeIn3: 17,
        conductorsInBox: 4,
        groundsInBox: 2,
        largestInBox: '12',
        hasInternalClamps: true,
      }),
      'p',
      { missing: ['isOneSize'] },
    ),
  ],
  inapplicable: 'always applies',
})
ruleTable('box-setback', {
  clear: [
    row('flush', oneOutlet({ setbackIn: 0 })),
    row('a quarter inch behind plaster', oneOutlet({ setbackIn: 0.25, finish: 'non-combustible' })),
    row('extender', oneOutlet({ setbackIn: 1, hasExtender: true })),
  ],
  fault: [
    row('half an inch', oneOutlet({ setbackIn: 0.5, hasExtender: false })),
    row(
      'a little behind wood',
      oneOutlet({ setbackIn: 0.1, finish: 'combustible', hasExtender: false }),
    ),
  ],
  undecided: [
    row('not measured', oneOutlet({ isBoxOpened: true }), 'p', { missing: ['setbackIn'] }),
    row('finish not seen', oneOutlet({ setbackIn: 0.2, hasExtender: false }), 'p', {
      missing: ['finish'],
    }),
  ],
  inapplicable: 'always applies',
})
ruleTable('equipment-needs-ground', {
  clear: [
    row(
      'grounded',
      oneOutlet({ appliance: 'refrigerator or freezer', ground: 'connected', lamps: 'correct' }),
    ),
  ],
  fault: [
    row(
      'refrigerator without',
      oneOutlet({ appliance: 'refrigerator or freezer', ground: 'none', lamps: 'open ground' }),
    ),
    row(
      'protected is not grounded',
      oneOutlet({ appliance: 'washer', ground: 'none', lamps: 'open ground', protection: 'GFCI' }),
    ),
  ],
  undecided: [
    row('what it feeds', oneOutlet({ ground: 'none', lamps: 'open ground' }), 'p', {
      missing: ['appliance'],
    }),
    row('ground not settled', oneOutlet({ appliance: 'computer' })),
  ],
  inapplicable: [
    row('a lamp', oneOutlet({ appliance: 'none that needs a ground', ground: 'none' })),
  ],
})
const closet = (more: Node) => inRoom('closet', { type: 'luminaire', ...more })
ruleTable('closet-luminaire', {
  clear: [
    row('12 in', closet({ lampKind: 'surface incandescent or LED, enclosed', clearanceIn: 12 })),
    row('6 in, fluorescent', closet({ lampKind: 'surface fluorescent', clearanceIn: 6 })),
  ],
  fault: [
    row('11 in', closet({ lampKind: 'surface incandescent or LED, enclosed', clearanceIn: 11 })),
    row('5 in, recessed', closet({ lampKind: 'recessed, enclosed', clearanceIn: 5 })),
    row('bare', closet({ lampKind: 'bare lamp or pendant' })),
  ],
  undecided: [row('kind not seen', closet({}), 'p', { missing: ['lampKind'] })],
  inapplicable: [
    row('bedroom', inRoom('bedroom', { type: 'luminaire', lampKind: 'bare lamp or pendant' })),
  ],
})
const circuit = (more: Node, segment: Node = {}, enclosure: Node = {}) =>
  panel([run(30, segment, more)], enclosure)
ruleTable('disconnect-not-in-sight', {
  clear: [
    row('within sight', circuit({ supplies: 'air conditioning', disconnect: 'within sight' }), 'c'),
  ],
  fault: [
    row(
      'round the corner',
      circuit({ supplies: 'air conditioning', disconnect: 'not within sight' }),
      'c',
    ),
    row('none', circuit({ supplies: 'motor', disconnect: 'none' }), 'c'),
  ],
  undecided: [
    row('not looked for', circuit({ supplies: 'motor' }), 'c', { missing: ['disconnect'] }),
  ],
  inapplicable: [row('lights', circuit({ disconnect: 'none' }), 'c')],
})
ruleTable('dedicated-circuits', {
  clear: [row('alone', circuit({ requiredUse: 'laundry', isSharedOutside: false }), 'c')],
  fault: [
    row('shared', circuit({ requiredUse: 'bathroom receptacles', isSharedOutside: true }), 'c'),
  ],
  undecided: [
    row('not traced', circuit({ requiredUse: 'laundry' }), 'c', { missing: ['isSharedOutside'] }),
  ],
  inapplicable: [
    row('no such circuit', circuit({ requiredUse: 'none', isSharedOutside: true }), 'c'),
  ],
})
const walls = (room: Node) => ({ ...panel([]), rooms: [{ id: 'r', use: 'living', ...room }] })
ruleTable('required-outlets', {
  clear: [row('all there', walls({ outlets: 'all there' }), 'r')],
  fault: [row('gap', walls({ outlets: 'gap along the wall' }), 'r')],
  undecided: [row('not walked', walls({}), 'r', { missing: ['outlets'] })],
  inapplicable: 'always applies',
})
ruleTable('smoke-co-alarms', {
  clear: [row('there', panel([], {}, { alarms: 'where required' }), 'premises')],
  fault: [row('none', panel([], {}, { alarms: 'none found' }), 'premises')],
  undecided: [row('not looked for', panel([]), 'premises', { missing: ['alarms'] })],
  inapplicable: 'always applies',
})
const kt = { wiring: 'knob-and-tube', isBuried: false, isExtended: false, isNeutralFused: false }
ruleTable('knob-and-tube', {
  clear: [row('free', circuit({}, kt), 's')],
  fault: [
    row('buried', circuit({}, { ...kt, isBuried: true }), 's'),
    row('extended', circuit({}, { ...kt, isExtended: true }), 's'),
    row('neutral fused', circuit({}, { ...kt, isNeutralFused: true }), 's'),
  ],
  undecided: [
    row('not followed', circuit({}, { wiring: 'knob-and-tube' }), 's', { missing: ['isBuried'] }),
  ],
  inapplicable: [row('NM-B', circuit({}, { ...kt, wiring: 'NM-B', isBuried: true }), 's')],
})
const cloth = (purpose: string | undefined, segment: Node = {}) =>
  panel([run(15, { wiring: 'cloth NM', ...segment })], {}, purpose ? { purpose } : {})
ruleTable('cloth-cable', {
  clear: [row('sound', cloth('purchase', { insulation: 'sound' }), 's')],
  fault: [
    row('for an insurer', cloth('insurance', { insulation: 'sound' }), 's'),
    row('brittle', cloth('purchase', { insulation: 'brittle' }), 's'),
  ],
  undecided: [row('not looked at', cloth('purchase'), 's', { missing: ['insulation'] })],
  inapplicable: [row('NM-B', circuit({}, { wiring: 'NM-B', insulation: 'brittle' }), 's')],
})
const dryer = {
  supplies: 'fixed appliance',
  frameGround: 'neutral',
  neutral: 'insulated',
  year: 1980,
  work: 'none',
}
const ten = { size: '10', metal: 'copper', egc: 'none' }
ruleTable('three-wire-dryer-range', {
  clear: [
    row(
      'four wires',
      circuit({ supplies: 'fixed appliance', frameGround: 'grounding conductor' }),
      'c',
    ),
    row('old, insulated neutral', circuit(dryer, ten), 'c'),
    row(
      'old, bare in SE from the service',
      circuit({ ...dryer, neutral: 'bare in SE cable' }, ten),
      'c',
    ),
  ],
  fault: [
    row('bare in NM', circuit({ ...dryer, neutral: 'bare in other cable' }, ten), 'c'),
    row('12 AWG', circuit(dryer, { size: '12', metal: 'copper' }), 'c'),
    row('10 Al', circuit(dryer, { size: '10', metal: 'aluminum' }), 'c'),
    row('new in 2005', circuit({ ...dryer, year: 2005 }, ten), 'c'),
    row('nothing', circuit({ ...dryer, frameGround: 'nothing' }, ten), 'c'),
    row(
      'bare in SE from a sub-panel',
      {
        ...panel([]),
        enclosures: [
          ...(panel([]).enclosures as Node[]),
          {
            id: 'sub',
            type: 'panel',
            place: 'indoors',
            feeder: { id: 'f', from: 'main' },
            breakers: [run(30, ten, { ...dryer, neutral: 'bare in SE cable' })],
          },
        ],
      },
      'c',
      { why: 'service equipment' },
    ),
  ],
  undecided: [
    row('color of the metal only', circuit(dryer, { size: '10', metal: 'silver-looking' }), 'c', {
      missing: ['metal'],
    }),
    row(
      'a second run not gauged',
      panel([
        {
          ...run(30, ten, dryer),
          circuit: {
            ...(run(30, ten, dryer).circuit as Node),
            segments: [
              { id: 's', ...ten },
              { id: 's2', metal: 'copper' },
            ],
          },
        },
      ]),
      'c',
      { missing: ['size'] },
    ),
    row('frame not looked at', circuit({ supplies: 'cooking appliance' }), 'c', {
      missing: ['frameGround'],
    }),
    row('year open', circuit({ ...dryer, year: [1985, 2005] }, ten), 'c', { missing: ['year'] }),
  ],
  inapplicable: [row('lights', circuit({ frameGround: 'nothing' }), 'c')],
})
