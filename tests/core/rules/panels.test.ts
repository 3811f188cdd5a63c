import { panel, run, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (
  name: string,
  house: Node,
  on: string,
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })
const barOf = (bar: Node) => panel([], { bars: [{ id: 'bar', role: 'neutral', ...bar }] })
const screw = (neutrals: number | undefined, grounds: number | undefined) => ({
  position: 1,
  ...(neutrals !== undefined && { neutrals }),
  ...(grounds !== undefined && { grounds }),
})

ruleTable('doubled-neutral', {
  clear: [
    row('each alone', barOf({ areAllScrewsSeen: true, screws: [screw(1, 0)] }), 'bar'),
    row(
      'three grounds where the label allows three',
      barOf({ role: 'ground', areAllScrewsSeen: true, groundsPerScrew: 3, screws: [screw(0, 3)] }),
      'bar',
    ),
  ],
  fault: [
    row('two neutrals', barOf({ areAllScrewsSeen: true, screws: [screw(2, 0)] }), 'bar'),
    row('neutral and ground', barOf({ screws: [screw(1, 1)] }), 'bar'),
    row(
      'four grounds where the label allows three',
      barOf({ areAllScrewsSeen: true, groundsPerScrew: 3, screws: [screw(0, 4)] }),
      'bar',
    ),
  ],
  undecided: [
    row('not every screw seen', barOf({ screws: [screw(1, 0)] }), 'bar', {
      missing: ['areAllScrewsSeen'],
    }),
    row(
      'known not to have seen every screw',
      barOf({ areAllScrewsSeen: false, screws: [screw(1, 0)] }),
      'bar',
    ),
    row(
      'two grounds, label unread',
      barOf({ areAllScrewsSeen: true, screws: [screw(0, 2)] }),
      'bar',
      { missing: ['groundsPerScrew'] },
    ),
    row(
      'grounds of a screw not counted',
      barOf({ areAllScrewsSeen: true, screws: [screw(1, undefined)] }),
      'bar',
      { missing: ['grounds'] },
    ),
  ],
  inapplicable: 'always applies',
})

const service = (more: Node) => panel([], more)
ruleTable('main-bond-missing', {
  clear: [
    row('screw', service({ bondMeans: 'screw' }), 'main'),
    row(
      'ground bar tied by a jumper',
      service({ bondMeans: 'strap', bars: [{ id: 'g', role: 'ground', isTiedToNeutral: true }] }),
      'main',
    ),
    row(
      'bonded by the neutral bar itself',
      service({
        bondMeans: 'none',
        bars: [{ id: 'n', role: 'neutral', isBondedToEnclosure: true }],
      }),
      'main',
    ),
    row(
      'outdoor disconnect marked as the service',
      {
        ...service({}),
        enclosures: [
          {
            id: 'out',
            type: 'disconnect',
            place: 'outdoors',
            fedFrom: 'utility',
            marking: 'service disconnect',
            bondMeans: 'strap',
          },
        ],
      },
      'out',
    ),
  ],
  fault: [
    row('none', service({ bondMeans: 'none' }), 'main'),
    row(
      'isolated ground bar',
      service({
        bondMeans: 'screw',
        bars: [{ id: 'g', role: 'ground', isTiedToNeutral: false, isBondedToEnclosure: false }],
      }),
      'main',
      { why: 'neither' },
    ),
    row(
      'panel behind an emergency disconnect that is not service equipment',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          {
            id: 'out',
            type: 'disconnect',
            place: 'outdoors',
            fedFrom: 'utility',
            marking: 'not service equipment',
          },
          {
            id: 'in',
            type: 'panel',
            place: 'indoors',
            bondMeans: 'none',
            feeder: { id: 'f', from: 'out' },
          },
        ],
      },
      'in',
    ),
  ],
  undecided: [
    row('bond not looked at', service({}), 'main', { missing: ['bondMeans'] }),
    row(
      'fed from nobody knows where',
      {
        ...service({}),
        enclosures: [{ id: 'main', type: 'panel', place: 'indoors', bondMeans: 'none' }],
      },
      'main',
      { missing: ['fedFrom'] },
    ),
    row(
      'ground bar not looked at',
      service({ bondMeans: 'screw', bars: [{ id: 'g', role: 'ground' }] }),
      'main',
    ),
    row(
      'outdoor disconnect with its marking unread',
      {
        ...service({}),
        enclosures: [
          {
            id: 'out',
            type: 'disconnect',
            place: 'outdoors',
            fedFrom: 'utility',
            bondMeans: 'none',
          },
        ],
      },
      'out',
      { missing: ['marking'] },
    ),
    row(
      'panel behind an unread marking',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          { id: 'out', type: 'disconnect', place: 'outdoors', fedFrom: 'utility' },
          {
            id: 'in',
            type: 'panel',
            place: 'indoors',
            bondMeans: 'none',
            feeder: { id: 'f', from: 'out' },
          },
        ],
      },
      'in',
      { missing: ['marking'] },
    ),
  ],
  inapplicable: [
    row(
      'meter',
      { ...service({}), enclosures: [{ id: 'm', type: 'meter', fedFrom: 'utility' }] },
      'm',
    ),
    row(
      'indoor panel behind an outdoor service',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          {
            id: 'out',
            type: 'disconnect',
            place: 'outdoors',
            fedFrom: 'utility',
            marking: 'service disconnect',
          },
          {
            id: 'in',
            type: 'panel',
            place: 'indoors',
            bondMeans: 'none',
            feeder: { id: 'f', from: 'out' },
          },
        ],
      },
      'in',
    ),
  ],
})

/** A sub-panel on a feeder, in the house or in a building of its own. */
function sub(panelMore: Node, feeder: Node, building?: Node): Node {
  const own = {
    id: 'sub',
    type: 'panel',
    place: 'indoors',
    feeder: { id: 'f', from: 'fb', ...feeder },
    ...panelMore,
  }
  const house = panel([{ id: 'fb', space: 1, poles: 2, ratingAmps: 60 }], { bondMeans: 'screw' })
  return building
    ? { ...house, buildings: [{ id: 'shed', ...building, enclosures: [own] }] }
    : { ...house, enclosures: [...(house.enclosures as Node[]), own] }
}
const apart = { bondMeans: 'none', landings: 'on separate bars' }
const old3 = {
  egc: 'none',
  hasOtherMetallicPath: false,
  hasGroundFaultProtectionAhead: false,
  year: 1985,
}
ruleTable('neutral-bonded-downstream', {
  clear: [
    row('neutral isolated, grounds apart', sub(apart, { egc: 'wire' }), 'sub'),
    row(
      'bars seen apart',
      sub(
        {
          bondMeans: 'none',
          bars: [
            { id: 'n', role: 'neutral', isBondedToEnclosure: false },
            { id: 'g', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false },
          ],
        },
        { egc: 'wire' },
      ),
      'sub',
    ),
    row(
      'detached on a lawful old three-wire feeder',
      sub({ bondMeans: 'screw' }, old3, { isDetached: true }),
      'sub',
      { why: 'belongs' },
    ),
  ],
  fault: [
    row('screw in', sub({ bondMeans: 'screw' }, { egc: 'wire' }), 'sub'),
    row(
      'grounds on the neutral bar',
      sub(
        {
          bondMeans: 'none',
          bars: [
            {
              id: 'n',
              role: 'neutral',
              isBondedToEnclosure: false,
              screws: [
                { position: 1, neutrals: 1, grounds: 0 },
                { position: 2, neutrals: 0, grounds: 1 },
              ],
            },
          ],
        },
        { egc: 'wire' },
      ),
      'sub',
    ),
    row(
      'three-wire feeder of 2010',
      sub({ bondMeans: 'screw' }, { ...old3, year: 2010 }, { isDetached: true }),
      'sub',
    ),
    row(
      'old three-wire feeder beside a metal water pipe',
      sub({ bondMeans: 'screw' }, { ...old3, hasOtherMetallicPath: true }, { isDetached: true }),
      'sub',
    ),
    row('three-wire feeder inside the house', sub({ bondMeans: 'screw' }, old3), 'sub'),
    row(
      'indoor "main panel" behind an outdoor service disconnect',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          { id: 'out', type: 'disconnect', place: 'outdoors', fedFrom: 'utility', marking: 'none' },
          {
            id: 'in',
            type: 'panel',
            place: 'indoors',
            bondMeans: 'strap',
            feeder: { id: 'f', from: 'out' },
          },
        ],
      },
      'in',
    ),
  ],
  undecided: [
    row('bond not looked at', sub({}, { egc: 'wire' }), 'sub', { missing: ['bondMeans'] }),
    row(
      'detached, feeder not looked at',
      sub({ bondMeans: 'screw' }, {}, { isDetached: true }),
      'sub',
      { missing: ['egc'] },
    ),
    row(
      'detached, year of the feeder open',
      sub({ bondMeans: 'screw' }, { ...old3, year: [1990, 2015] }, { isDetached: true }),
      'sub',
      { missing: ['year'] },
    ),
  ],
  inapplicable: [
    row('the service disconnect', sub(apart, { egc: 'wire' }), 'main'),
    row(
      'behind an emergency disconnect that is not service equipment',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          {
            id: 'out',
            type: 'disconnect',
            place: 'outdoors',
            fedFrom: 'utility',
            marking: 'not service equipment',
          },
          {
            id: 'in',
            type: 'panel',
            place: 'indoors',
            bondMeans: 'strap',
            feeder: { id: 'f', from: 'out' },
          },
        ],
      },
      'in',
    ),
  ],
})

ruleTable('three-wire-feeder', {
  clear: [
    row('ground wire', sub({}, { egc: 'wire' }), 'f'),
    row(
      'conduit is the ground',
      sub({}, { egc: 'metal raceway or armor', wiring: 'steel conduit' }),
      'f',
    ),
    row(
      'old, to a detached building, bonded there',
      sub({ bondMeans: 'screw' }, old3, { isDetached: true }),
      'f',
    ),
  ],
  fault: [
    row(
      'neither ground nor bond: no way back',
      sub({ bondMeans: 'none' }, old3, { isDetached: true }),
      'f',
      { why: 'way back' },
    ),
    row('within the house', sub({}, { egc: 'none' }), 'f'),
    row('new to a detached building', sub({}, { ...old3, year: 2012 }, { isDetached: true }), 'f'),
    row(
      'old, with another metal path',
      sub({}, { ...old3, hasOtherMetallicPath: true }, { isDetached: true }),
      'f',
    ),
  ],
  undecided: [
    row(
      'old, to a detached building, bond not looked for',
      sub({}, old3, { isDetached: true }),
      'f',
      { missing: ['bondMeans'] },
    ),
    row('not looked at', sub({}, {}), 'f', { missing: ['egc'] }),
    row(
      'detached, other path not looked for',
      sub({}, { egc: 'none', year: 1985 }, { isDetached: true }),
      'f',
      { missing: ['hasOtherMetallicPath'] },
    ),
  ],
  inapplicable: [
    row(
      'service conductors',
      {
        corvit: 1,
        form: 'house',
        premises: { edition: 2020 },
        enclosures: [
          { id: 'm', type: 'meter', fedFrom: 'utility' },
          { id: 'p', type: 'panel', place: 'indoors', feeder: { id: 'f', from: 'm', egc: 'none' } },
        ],
      },
      'f',
    ),
  ],
})

/** Two circuits on one neutral. */
function pair(a: Node, b: Node, circuit: Node = {}, more: Node = {}): Node {
  return panel(
    [
      {
        id: 'b1',
        space: 1,
        poles: 1,
        ratingAmps: 20,
        ...a,
        circuit: {
          id: 'c1',
          sharesNeutralWith: ['c2'],
          feedsLineToLine: false,
          isOnOneYoke: false,
          ...circuit,
        },
      },
      {
        id: 'b2',
        space: 3,
        poles: 1,
        ratingAmps: 20,
        ...b,
        circuit: {
          id: 'c2',
          sharesNeutralWith: ['c1'],
          feedsLineToLine: false,
          isOnOneYoke: false,
        },
      },
    ],
    more,
  )
}
const tied = { handleTie: 'listed tie' }
ruleTable('multiwire-no-common-trip', {
  clear: [
    row('listed ties, line-to-neutral loads', pair(tied, tied), 'c1'),
    row(
      'common trip',
      pair({ handleTie: 'common trip' }, { handleTie: 'common trip' }, { feedsLineToLine: true }),
      'c1',
    ),
    row(
      'one two-pole breaker',
      {
        ...panel([
          {
            id: 'b1',
            space: 1,
            poles: 2,
            ratingAmps: 20,
            circuit: { id: 'c1', sharesNeutralWith: ['c2'] },
          },
        ]),
        circuits: [{ id: 'c2', fedBy: 'b1', sharesNeutralWith: ['c1'] }],
      },
      'c1',
    ),
  ],
  fault: [
    row('not tied', pair({ handleTie: 'not tied' }, { handleTie: 'not tied' }), 'c1'),
    row(
      'a nail through the handles',
      pair({ handleTie: 'improvised tie' }, { handleTie: 'improvised tie' }),
      'c1',
    ),
    row('tie, but a 240 V load', pair(tied, tied, { feedsLineToLine: true }), 'c1', {
      why: 'common trip',
    }),
  ],
  undecided: [
    row(
      'two-wire cable: its neutral may be borrowed',
      panel([
        run(15, { size: '14', wiring: 'NM-B', conductors: 2 }, { sharesNeutralWith: undefined }),
      ]),
      'c',
    ),

    row('handles not looked at', pair({}, {}), 'c1', { missing: ['handleTie'] }),
    row('loads not known', pair(tied, tied, { feedsLineToLine: undefined }), 'c1', {
      missing: ['feedsLineToLine'],
    }),
    row(
      'sharing not looked at',
      panel([run(15, { size: '14' }, { sharesNeutralWith: undefined })]),
      'c',
      { missing: ['sharesNeutralWith'] },
    ),
  ],
  inapplicable: [
    row('own neutral', panel([run(15, { size: '14' })]), 'c'),
    row('judged on the first of the pair', pair({}, {}), 'c2'),
    row(
      'two-pole breaker alone',
      panel([run(30, { size: '10' }, { sharesNeutralWith: undefined }, { poles: 2 })]),
      'c',
    ),
  ],
})
ruleTable('multiwire-same-leg', {
  clear: [
    row('rows 1 and 2', pair({}, {}), 'c1'),
    row(
      'numbered down each side, 1 and 2',
      pair({}, { space: 2 }, {}, { numbering: 'down each side' }),
      'c1',
    ),
    row('measured on different legs', pair({ measuredLeg: 'A' }, { measuredLeg: 'B' }, {}), 'c1'),
  ],
  fault: [
    row('spaces 1 and 5', pair({}, { space: 5 }), 'c1'),
    row('across the bus: 1 and 2', pair({}, { space: 2 }), 'c1'),
    row('both halves of one space', pair({ half: 'a' }, { space: 1, half: 'b' }), 'c1'),
    row(
      'numbered down each side, 1 and 3',
      pair({}, { space: 3 }, {}, { numbering: 'down each side' }),
      'c1',
    ),
    row(
      'measured on one leg whatever the drawing',
      pair({ measuredLeg: 'A', space: 1 }, { measuredLeg: 'A', space: 5 }),
      'c1',
    ),
    row('three-phase bus, rows 1 and 4', pair({}, { space: 7 }, {}, { bus: 'three phase' }), 'c1'),
    row(
      'three hots on two legs',
      panel(
        [1, 3, 5].map((space, i) => ({
          id: `b${i}`,
          space,
          poles: 1,
          ratingAmps: 20,
          circuit: {
            id: `c${i}`,
            sharesNeutralWith: ['c0', 'c1', 'c2'].filter(x => x !== `c${i}`),
          },
        })),
      ),
      'c0',
    ),
  ],
  undecided: [
    row('bus not looked at', pair({}, {}, {}, { bus: undefined }), 'c1', { missing: ['bus'] }),
    row('space not known', pair({}, { space: undefined }), 'c1', { missing: ['space'] }),
  ],
  inapplicable: [row('own neutral', panel([run(15, { size: '14' })]), 'c')],
})

const brk = (more: Node) => panel([{ id: 'b', space: 1, poles: 1, ratingAmps: 20, ...more }])
ruleTable('doubled-hot', {
  clear: [
    row('one', brk({ conductorsOnTerminal: 1 }), 'b'),
    row('two, marked for two', brk({ conductorsOnTerminal: 2, isMarkedForTwo: true }), 'b'),
  ],
  fault: [
    row('two, not marked', brk({ conductorsOnTerminal: 2, isMarkedForTwo: false }), 'b'),
    row('three', brk({ conductorsOnTerminal: 3, isMarkedForTwo: true }), 'b'),
  ],
  undecided: [
    row('marking unread', brk({ conductorsOnTerminal: 2 }), 'b', { missing: ['isMarkedForTwo'] }),
    row('not looked at', brk({}), 'b'),
  ],
  inapplicable: [row('spare', brk({ role: 'spare' }), 'b')],
})
ruleTable('bus-overloaded', {
  clear: [
    row('main within the bus', panel([], { busAmps: 200 }), 'main'),
    row(
      'sub-panel main larger than its feeder breaker',
      sub({ mainKind: 'main breaker', mainAmps: 100, busAmps: 70 }, {}),
      'sub',
    ),
  ],
  fault: [
    row('main above the bus', panel([], { busAmps: 125 }), 'main'),
    row('feeder breaker above the bus', sub({ mainKind: 'main lugs', busAmps: 50 }, {}), 'sub'),
  ],
  undecided: [
    row(
      'split bus, what feeds its lower section not recorded',
      panel([], { busAmps: 200, mainKind: 'split bus' }),
      'main',
    ),
    row('bus unread', panel([], {}), 'main', { missing: ['busAmps'] }),
    row('main kind not seen', panel([], { busAmps: 200, mainKind: undefined }), 'main'),
  ],
  inapplicable: [
    row(
      'a disconnect',
      { ...panel([]), enclosures: [{ id: 'd', type: 'disconnect', fedFrom: 'utility' }] },
      'd',
    ),
  ],
})

/**
 * Rules that say what one look says: the value that is right, the ones that are not, and what makes
 * it inapplicable.
 */
const looks: [rule: string, field: string, right: unknown, wrong: unknown[], na?: Node][] = [
  ['dead-front-missing', 'cover', 'in place', ['missing', 'damaged'], { type: 'meter' }],
  ['cover-screws', 'coverScrews', 'all blunt', ['pointed', 'some missing'], { type: 'meter' }],
  ['unused-opening', 'openings', 0, [1, 12]],
  [
    'corrosion-debris',
    'corrosion',
    'none',
    ['surface rust', 'on bus or terminals', 'debris or pests'],
  ],
  ['panel-trip-record', 'hasTripRecord', false, [true], { type: 'disconnect' }],
  [
    'panel-location',
    'location',
    'ordinary',
    ['clothes closet', 'bathroom', 'over steps'],
    { type: 'meter' },
  ],
]
ruleTable('panel-no-protective-breakers', {
  clear: [
    row('they can be had', panel([], { protectiveBreakers: 'available' }), 'main'),
    // C4: a fact that limits the remedies is no fault; the result of it is put on record as allowed.
    row('none are made', panel([], { protectiveBreakers: 'none made' }), 'main', {
      why: 'None are made',
    }),
  ],
  fault: [],
  undecided: [row('nobody has found out', panel([]), 'main', { missing: ['protectiveBreakers'] })],
  inapplicable: [
    row('a disconnect', panel([], { type: 'disconnect', protectiveBreakers: 'none made' }), 'main'),
  ],
})
for (const [rule, field, right, wrong, na] of looks) {
  ruleTable(rule, {
    clear: [row(`${field} ${String(right)}`, panel([], { [field]: right }), 'main')],
    fault: wrong.map(w => row(`${field} ${String(w)}`, panel([], { [field]: w }), 'main')),
    undecided: [
      row('not looked at', panel([]), 'main', { missing: [field] }),
      row('could not be seen', panel([], { [field]: { blocked: 'locked room' } }), 'main', {
        missing: [field],
      }),
    ],
    inapplicable: na ? [row('not such a thing', panel([], na), 'main')] : 'always applies',
  })
}
ruleTable('directory', {
  clear: [
    row(
      'legible and true',
      panel([], { directory: 'legible and specific', contradictions: 0 }),
      'main',
    ),
  ],
  fault: [
    row('missing', panel([], { directory: 'missing' }), 'main'),
    row(
      'legible and wrong',
      panel([], { directory: 'legible and specific', contradictions: 2 }),
      'main',
    ),
  ],
  undecided: [
    row('not traced', panel([], { directory: 'legible and specific' }), 'main', {
      missing: ['contradictions'],
    }),
  ],
  inapplicable: [row('a disconnect', panel([], { type: 'disconnect' }), 'main')],
})
ruleTable('overheated-termination', {
  clear: [row('sound', brk({ termination: 'sound' }), 'b')],
  fault: [
    row('melted', brk({ termination: 'melted' }), 'b'),
    row('loose', brk({ termination: 'loose' }), 'b'),
  ],
  undecided: [row('not looked at', brk({}), 'b')],
  inapplicable: [row('spare', brk({ role: 'spare' }), 'b')],
})
ruleTable('breaker-not-listed-for-panel', {
  clear: [row('listed', brk({ fitsPanel: 'listed' }), 'b')],
  fault: [row('not listed', brk({ fitsPanel: 'not listed' }), 'b')],
  undecided: [row('label unread', brk({}), 'b')],
  inapplicable: [row('fuse', brk({ device: 'plug fuse' }), 'b')],
})
