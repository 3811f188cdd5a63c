import { oneOutlet, panel, run, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const nmb = (size: string, more: Node = {}): Node => ({
  size,
  metal: 'copper',
  wiring: 'NM-B',
  ...more,
})
const one = (
  amps: number | undefined,
  segment: Node,
  circuit: Node = {},
  breaker: Node = {},
  more: Node = {},
) => panel([run(amps, segment, circuit, breaker)], more)
const row = (
  name: string,
  house: Node,
  on = 's',
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })

/** A sub-panel behind a breaker of so many amperes, with one circuit in it. */
const behind = (
  feederAmps: number | undefined,
  circuit: Node,
  second: boolean | undefined,
): Node => ({
  ...panel([
    {
      id: 'fb',
      space: 1,
      poles: 2,
      role: 'feeder',
      ...(feederAmps !== undefined && { ratingAmps: feederAmps }),
    },
  ]),
  enclosures: [
    ...(panel([
      {
        id: 'fb',
        space: 1,
        poles: 2,
        role: 'feeder',
        ...(feederAmps !== undefined && { ratingAmps: feederAmps }),
      },
    ]).enclosures as Node[]),
    {
      id: 'sub',
      type: 'panel',
      place: 'indoors',
      mainKind: 'main lugs',
      ...(second !== undefined && { hasSecondSource: second }),
      feeder: { id: 'f', from: 'fb', size: '10', metal: 'copper', egc: 'wire' },
      breakers: [circuit],
    },
  ],
})

ruleTable('overfused-conductor', {
  clear: [
    row(
      'conductor below the nameplate minimum: a fault of its own',
      one(30, nmb('14'), { supplies: 'air conditioning', nameplateMca: 22, nameplateMocp: 30 }),
    ),

    row('breaker equals what the conductor bears', one(15, nmb('14'))),
    row(
      'rounds up to the next size for a fixed appliance',
      one(60, nmb('6'), { supplies: 'fixed appliance' }),
    ),
    row(
      'rounds up: 24.6 A in a hot attic stays 20',
      one(20, nmb('12', { exposures: [{ what: 'hot', ambientC: 50 }] })),
    ),
    row(
      'air conditioner within its nameplate',
      one(30, nmb('12'), { supplies: 'air conditioning', nameplateMca: 17.4, nameplateMocp: 30 }),
    ),
    row(
      'motor within its nameplate',
      one(30, nmb('12'), { supplies: 'motor', nameplateMca: 15, nameplateMocp: 30 }),
    ),
    row('a smaller device upstream, one source', behind(30, run(40, nmb('10')), false), 's', {
      why: 'upstream',
    }),
    row(
      '75 °C terminals known at both ends',
      one(
        50,
        { size: '8', metal: 'copper', wiring: 'steel conduit', insulationC: 75, terminalsC: 75 },
        { supplies: 'fixed appliance' },
      ),
    ),
    row('copper-looking, small enough for either', one(15, nmb('12', { metal: 'copper-looking' }))),
    row(
      'a plug fuse of the right size',
      one(15, nmb('14', { wiring: 'cloth NM' }), {}, { device: 'plug fuse' }),
    ),
    row(
      'nothing known of the load, but right for all',
      one(20, nmb('12'), { supplies: undefined }),
    ),
  ],
  fault: [
    row('20 A on 14', one(20, nmb('14'))),
    row(
      '30 A plug fuse on 14: twice what it bears',
      one(30, nmb('14', { wiring: 'knob-and-tube' }), {}, { device: 'plug fuse' }),
    ),
    row(
      'no rounding up for several receptacles',
      one(
        15,
        {
          ...nmb('12'),
          wiring: 'plastic conduit',
          insulationC: 60,
          terminalsC: 60,
          exposures: [{ what: 'crowded', currentCarrying: 8 }],
        },
        { supplies: 'receptacles' },
      ),
    ),
    row(
      'copper-clad aluminum one size too small',
      one(20, nmb('12', { metal: 'copper-clad aluminum' })),
    ),
    row(
      'breaker above the nameplate maximum',
      one(40, nmb('10'), { supplies: 'air conditioning', nameplateMca: 20, nameplateMocp: 35 }),
    ),
    row('water heater is not exempt', one(30, nmb('12'), { supplies: 'water heater' })),
    row(
      'a smaller device upstream does not help with a second source',
      behind(30, run(40, nmb('10')), true),
    ),
    row(
      'too large a cooking circuit that is no tap',
      one(50, nmb('10', { isTap: false }), { supplies: 'cooking appliance' }),
    ),
    row(
      'load unknown, but receptacles were found on it',
      panel([
        run(20, nmb('14'), { supplies: undefined, outlets: [{ id: 'p', type: 'receptacle' }] }),
      ]),
    ),
  ],
  undecided: [
    row('14 aluminum: out of the table', one(15, nmb('14', { metal: 'aluminum' }))),

    row('size not gauged', one(20, { metal: 'copper', wiring: 'NM-B' }), 's', {
      missing: ['size'],
    }),
    row('rating not read', one(undefined, nmb('14')), 's', { missing: ['ratingAmps'] }),
    row('metal unknown and it matters', one(20, { size: '12', wiring: 'NM-B' }), 's', {
      missing: ['metal'],
    }),
    row('silver-looking', one(20, nmb('12', { metal: 'silver-looking' })), 's', { missing: [] }),
    row(
      'terminal marking unread: 60 and 75 °C disagree',
      one(
        50,
        { size: '8', metal: 'copper', wiring: 'steel conduit', insulationC: 75 },
        { supplies: 'fixed appliance' },
      ),
      's',
      { missing: ['terminalsC'] },
    ),
    row('load unknown: a motor may have it', one(20, nmb('14'), { supplies: undefined }), 's', {
      missing: ['supplies'],
    }),
    row('nameplate unread', one(30, nmb('12'), { supplies: 'air conditioning' }), 's', {
      missing: ['nameplateMca', 'nameplateMocp'],
    }),
    row(
      'a luminaire tap perhaps',
      panel([
        {
          id: 'b',
          space: 1,
          poles: 1,
          ratingAmps: 20,
          circuit: {
            id: 'c',
            supplies: 'lighting',
            segments: [
              { id: 's0', ...nmb('12') },
              { id: 's', ...nmb('14') },
            ],
          },
        },
      ]),
      's',
      { missing: ['isTap'] },
    ),
    row(
      'a cooking tap of unknown metal',
      one(50, { size: '12', wiring: 'NM-B', isTap: true }, { supplies: 'cooking appliance' }),
      's',
    ),
    row('a tap perhaps', one(50, nmb('10'), { supplies: 'cooking appliance' }), 's', {
      missing: ['isTap'],
    }),
    row(
      'a hot stretch nobody measured',
      one(15, nmb('14', { exposures: [{ what: 'hot' }] })),
      's',
      { missing: ['ambientC'] },
    ),
    row(
      'feeder breaker unread, it might be small enough',
      behind(undefined, run(40, nmb('10')), false),
      's',
      { missing: ['ratingAmps'] },
    ),
    row('second source not looked for', behind(30, run(40, nmb('10')), undefined), 's', {
      missing: ['hasSecondSource'],
    }),
    row(
      'only assumed: an assumption clears nothing',
      one(15, nmb('14', { size: { value: '14', grade: 'assumed' } })),
      's',
      { missing: ['size'] },
    ),
  ],
  inapplicable: [
    row(
      'a tap to one luminaire',
      panel([
        {
          id: 'b',
          space: 1,
          poles: 1,
          ratingAmps: 20,
          circuit: {
            id: 'c',
            supplies: 'lighting',
            segments: [
              { id: 's0', ...nmb('12') },
              { id: 's', ...nmb('14', { isTap: true }) },
            ],
          },
        },
      ]),
    ),
    row(
      'a tap of a cooking circuit',
      one(50, nmb('10', { isTap: true }), { supplies: 'cooking appliance' }),
    ),
  ],
})

const cooled = (amps: number | undefined, segment: Node, more: Node = {}) =>
  one(amps, segment, {
    supplies: 'air conditioning',
    nameplateMca: 18,
    nameplateMocp: 30,
    nameplateDevice: 'fuse or breaker',
    ...more,
  })
/** Two units on one circuit, each with its own nameplate. */
const units = (
  rating: number,
  size: string,
  ...plates: readonly (readonly [mca: number, mocp: number | undefined])[]
): Node =>
  panel([
    {
      id: 'b',
      space: 1,
      poles: 2,
      ratingAmps: rating,
      circuit: {
        id: 'c',
        supplies: 'air conditioning',
        nameplateDevice: 'fuse or breaker',
        segments: [{ id: 's', size, metal: 'copper', wiring: 'NM-B' }],
        outlets: plates.map(([nameplateMca, nameplateMocp], i) => ({
          id: `u${i}`,
          type: 'hard-wired outlet',
          nameplateMca,
          ...(nameplateMocp && { nameplateMocp }),
        })),
      },
    },
  ])
ruleTable('nameplate-mismatch', {
  clear: [
    row('two units, 12.5 + 10 / 1.25 on 10 AWG', units(25, '10', [12.5, 25], [10, 30]), 'c'),
    row('within both', cooled(30, nmb('12')), 'c'),
    row(
      'a smaller device upstream protects the unit',
      behind(
        20,
        {
          id: 'b',
          space: 1,
          poles: 2,
          ratingAmps: 40,
          circuit: {
            id: 'c',
            supplies: 'motor',
            nameplateDevice: 'fuse or breaker',
            nameplateMca: 12,
            nameplateMocp: 20,
            segments: [{ id: 's', ...nmb('12') }],
          },
        },
        false,
      ),
      'c',
    ),
  ],
  fault: [
    row('two units: the smallest maximum counts', units(30, '10', [12.5, 25], [10, 30]), 'c', {
      why: '25',
    }),
    row('two units: 20.5 A on 12 AWG', units(20, '12', [12.5, 25], [10, 30]), 'c'),
    row('device above the maximum', cooled(40, nmb('10')), 'c'),
    row('conductor below the minimum', cooled(25, nmb('14')), 'c'),
    row(
      '30 A upstream of 40 A still exceeds 20 A',
      behind(
        30,
        {
          id: 'b',
          space: 1,
          poles: 2,
          ratingAmps: 40,
          circuit: {
            id: 'c',
            supplies: 'motor',
            nameplateDevice: 'fuse or breaker',
            nameplateMca: 12,
            nameplateMocp: 20,
            segments: [{ id: 's', ...nmb('12') }],
          },
        },
        false,
      ),
      'c',
    ),
  ],
  undecided: [
    row('one of two nameplates unread', units(25, '10', [12.5, 25], [10, undefined]), 'c', {
      missing: ['nameplateMocp'],
    }),
    row('nameplate unread', cooled(30, nmb('12'), { nameplateMocp: undefined }), 'c', {
      missing: ['nameplateMocp'],
    }),
    row('conductor not gauged', cooled(30, { metal: 'copper', wiring: 'NM-B' }), 'c', {
      missing: ['size'],
    }),
    row('metal decides', cooled(30, { size: '12', wiring: 'NM-B' }), 'c', { missing: ['metal'] }),
  ],
  inapplicable: [row('lights', one(15, nmb('14')), 'c')],
})

const fed = (feeder: Node, breakerAmps?: number): Node => {
  const house = panel([
    { id: 'fb', space: 1, poles: 2, ...(breakerAmps !== undefined && { ratingAmps: breakerAmps }) },
  ])
  return {
    ...house,
    enclosures: [
      ...(house.enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        place: 'indoors',
        feeder: { id: 'f', from: 'fb', egc: 'wire', ...feeder },
      },
    ],
  }
}
const al2 = { size: '2', metal: 'aluminum', wiring: 'SE', insulationC: 75, terminalsC: 75 }
/**
 * A tap from the lugs of the service panel to a small enclosure with a main of its own. 6 Cu: 55 A
 * at 60 °C, 65 A at 75 °C.
 */
const tap = (
  feeder: Node,
  mainAmps: number | undefined = 50,
  terminals: Node = { terminalsC: 75, insulationC: 75 },
): Node => {
  const house = panel([])
  return {
    ...house,
    enclosures: [
      ...(house.enclosures as Node[]),
      {
        id: 'small',
        type: 'panel',
        place: 'indoors',
        mainKind: 'main breaker',
        ...(mainAmps !== undefined && { mainAmps }),
        feeder: {
          id: 'f',
          from: 'main',
          size: '6',
          metal: 'copper',
          wiring: 'steel conduit',
          egc: 'metal raceway or armor',
          carriesWholeDwelling: false,
          ...terminals,
          ...feeder,
        },
      },
    ],
  }
}
/** The same, to a panel where it enters another building. */
const tapToShed = (feeder: Node): Node => {
  const { enclosures, ...house } = tap({ ...short, tapFt: 90, ...feeder })
  const [main, small] = enclosures as Node[]
  const outside = { ...main, place: 'outdoors' }
  return { ...house, enclosures: [outside], buildings: [{ id: 'shed', enclosures: [small] }] }
}
const short = { isTap: true, tapFt: 10, tapEndsIn: 'one breaker or set of fuses' }
ruleTable('overfused-feeder', {
  clear: [
    row('a tap of 10 ft, a tenth of 200 A and more', tap(short), 'f', { why: 'tap' }),
    row('outdoors to another building: any length', tapToShed({ tapIsOutdoors: true }), 'f', {
      why: 'tap',
    }),
    row(
      '2 Al for part of the dwelling on 90 A',
      fed({ ...al2, carriesWholeDwelling: false }, 90),
      'f',
    ),
    row(
      '2 Al for the whole dwelling on 100 A',
      fed({ ...al2, carriesWholeDwelling: true }, 100),
      'f',
    ),
  ],
  fault: [
    row('a tap of 25 ft bearing less than a third of 200 A', tap({ ...short, tapFt: 25 }), 'f'),
    row('a tap of 30 ft', tap({ ...short, tapFt: 30 }), 'f'),
    row('90 ft to another building, part of it indoors', tapToShed({ tapIsOutdoors: false }), 'f'),
    row(
      'outdoors, and it ends in lugs',
      tapToShed({ tapIsOutdoors: true, tapEndsIn: 'several devices or lugs' }),
      'f',
    ),
    row(
      'a tap that ends in several devices',
      tap({ ...short, tapEndsIn: 'several devices or lugs' }),
      'f',
    ),
    row('a main larger than the tap bears', tap(short, 70), 'f'),
    row('no tap at all', tap({ isTap: false }), 'f'),
    row(
      '2 Al for part of the dwelling on 100 A',
      fed({ ...al2, carriesWholeDwelling: false }, 100),
      'f',
    ),
    row('4 Al on 100 A', fed({ ...al2, size: '4', carriesWholeDwelling: false }, 100), 'f'),
  ],
  undecided: [
    row(
      'length of the tap not measured',
      tap({ isTap: true, tapEndsIn: 'one breaker or set of fuses' }),
      'f',
      { missing: ['tapFt'] },
    ),
    row('90 ft to another building, by which way is not seen', tapToShed({}), 'f', {
      missing: ['tapIsOutdoors'],
    }),
    row('the worst terminals would not bear the main', tap(short, 60, { insulationC: 75 }), 'f', {
      missing: ['terminalsC'],
    }),
    row('whole dwelling or part is not known', fed(al2, 100), 'f', {
      missing: ['carriesWholeDwelling'],
    }),
    row('breaker not read', fed({ ...al2, carriesWholeDwelling: false }), 'f', {
      missing: ['ratingAmps'],
    }),
  ],
  inapplicable: [
    row(
      'service conductors from a meter',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          { id: 'm', type: 'meter', fedFrom: 'utility' },
          { id: 'p', type: 'panel', feeder: { id: 'f', from: 'm' } },
        ],
      },
      'f',
    ),
  ],
})

ruleTable('required-20A-circuit-downsized', {
  clear: [
    row('kitchen on 20 A', one(20, nmb('12'), { requiredUse: 'kitchen small-appliance' }), 'c'),
  ],
  fault: [
    row('laundry on 15 A', one(15, nmb('12'), { requiredUse: 'laundry' }), 'c'),
    row('garage on 15 A under 2020', one(15, nmb('14'), { requiredUse: 'garage' }), 'c'),
  ],
  undecided: [
    row('use not known on 15 A', one(15, nmb('14')), 'c', { missing: ['requiredUse'] }),
    row('rating not read', one(undefined, nmb('12'), { requiredUse: 'laundry' }), 'c'),
  ],
  inapplicable: [
    row('an ordinary circuit', one(15, nmb('14'), { requiredUse: 'none' }), 'c'),
    row(
      'garage before the 2017 edition',
      {
        ...one(15, nmb('14'), { requiredUse: 'garage' }),
        premises: { edition: 2014, yearBuilt: 1990 },
      },
      'c',
    ),
  ],
})

const al = (more: Node) =>
  oneOutlet({
    metal: 'aluminum',
    stranding: 'solid',
    deviceAmps: 15,
    termination: 'binding screw',
    ...more,
  })
ruleTable('aluminum-at-unmarked-device', {
  clear: [
    row('CO/ALR', al({ aluminumMarking: 'CO/ALR' }), 'p'),
    row('AL-CU at 30 A', al({ aluminumMarking: 'AL-CU', deviceAmps: 30 }), 'p'),
    row('copper-clad aluminum on a binding screw', al({ metal: 'copper-clad aluminum' }), 'p'),
  ],
  fault: [
    row('no marking', al({ aluminumMarking: 'none' }), 'p'),
    row('AL-CU at 15 A', al({ aluminumMarking: 'AL-CU' }), 'p'),
    row('CO/ALR at 30 A', al({ aluminumMarking: 'CO/ALR', deviceAmps: 30 }), 'p'),
    row('push-in', al({ termination: 'push-in', aluminumMarking: 'CO/ALR' }), 'p'),
    row(
      'copper-clad aluminum in push-in',
      al({ metal: 'copper-clad aluminum', termination: 'push-in' }),
      'p',
    ),
  ],
  undecided: [
    row('marking unread', al({}), 'p', { missing: ['aluminumMarking'] }),
    row('metal not seen', oneOutlet({}), 'p', { missing: ['metal'] }),
    row(
      'silver-looking: perhaps tinned copper',
      al({ metal: 'silver-looking', aluminumMarking: 'none' }),
      'p',
    ),
    row('copper-looking: perhaps copper-clad', al({ metal: 'copper-looking' }), 'p'),
  ],
  inapplicable: [
    row('copper', al({ metal: 'copper' }), 'p'),
    row('tinned copper', al({ metal: 'tinned copper' }), 'p'),
    row('a luminaire', al({ type: 'luminaire' }), 'p'),
  ],
})

ruleTable('aluminum-at-unmarked-breaker', {
  clear: [
    row('marked', one(20, nmb('10', { metal: 'aluminum' }), {}, { isAluminumMarked: true }), 'b'),
  ],
  fault: [
    row(
      'not marked',
      one(20, nmb('10', { metal: 'aluminum' }), {}, { isAluminumMarked: false }),
      'b',
    ),
  ],
  undecided: [
    row('marking unread', one(20, nmb('10', { metal: 'aluminum' })), 'b', {
      missing: ['isAluminumMarked'],
    }),
    row('metal not seen', one(20, { size: '10' }), 'b', { missing: ['metal'] }),
    row(
      'silver-looking on an unmarked terminal',
      one(20, nmb('10', { metal: 'silver-looking' }), {}, { isAluminumMarked: false }),
      'b',
    ),
  ],
  inapplicable: [row('copper', one(20, nmb('12')), 'b')],
})

ruleTable('hot-on-unmarked-white', {
  clear: [row('marked in a cable', one(15, nmb('14', { isWhiteHot: true, isWhiteMarked: true })))],
  fault: [
    row(
      'unmarked, and no switch loop',
      one(15, nmb('14', { isWhiteHot: true, isWhiteMarked: false, isSwitchLoop: false })),
    ),
    row(
      'unmarked, whatever it feeds, from the year the marking was asked for',
      one(15, nmb('14', { isWhiteHot: true, isWhiteMarked: false, year: 2000 })),
    ),
    row(
      'in conduit, marked or not',
      one(15, nmb('14', { wiring: 'steel conduit', isWhiteHot: true, isWhiteMarked: true })),
    ),
  ],
  undecided: [
    row('mark not looked for', one(15, nmb('14', { isWhiteHot: true })), 's', {
      missing: ['isWhiteMarked'],
    }),
    row('nobody looked', one(15, nmb('14')), 's', { missing: ['isWhiteHot'] }),
    row(
      'unmarked, perhaps an old switch loop',
      one(15, nmb('14', { isWhiteHot: true, isWhiteMarked: false, year: 1990 })),
      's',
      { missing: ['isSwitchLoop'] },
    ),
  ],
  inapplicable: [row('no white used as a hot', one(15, nmb('14', { isWhiteHot: false })))],
})
ruleTable('cord-as-fixed-wiring', {
  clear: [row('cable', one(15, nmb('14', {})))],
  fault: [row('cord', one(15, nmb('14', { wiring: 'cord' })))],
  undecided: [
    row('not looked at', one(15, nmb('14', { wiring: undefined })), 's', { missing: ['wiring'] }),
  ],
  inapplicable: 'always applies',
})
ruleTable('insulation-failed', {
  clear: [row('sound', one(15, nmb('14', { insulation: 'sound' })))],
  fault: [
    row('brittle', one(15, nmb('14', { insulation: 'brittle' }))),
    row('bare', one(15, nmb('14', { insulation: 'frayed or bare' }))),
  ],
  undecided: [row('not looked at', one(15, nmb('14')))],
  inapplicable: 'always applies',
})
