import { panel, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (
  name: string,
  house: Node,
  on: string,
  more: { why?: string; missing?: string[] } = {},
) => ({ name, house, on, ...more })
/** A lone service panel; `more` on the panel, `premises` on the premises, `top` beside them. */
const service = (more: Node, premises: Node = {}, top: Node = {}): Node => ({
  ...panel([], more, premises),
  ...top,
})
const behind: Node = {
  id: 'sub',
  type: 'panel',
  place: 'indoors',
  feeder: { id: 'f', from: 'main' },
}
const withSub = (more: Node): Node => ({
  ...panel([], {}),
  enclosures: [...(panel([], {}).enclosures as Node[]), { ...behind, ...more }],
})

ruleTable('service-conductor', {
  clear: [
    row(
      '2/0 Al on 150 A',
      service({
        serviceSize: '2/0',
        serviceMetal: 'aluminum',
        serviceInsulationC: 75,
        mainAmps: 150,
      }),
      'main',
    ),
    row(
      '4/0 Al on 200 A, 180 A rounded up',
      service({ serviceSize: '4/0', serviceMetal: 'aluminum', serviceInsulationC: 75 }),
      'main',
    ),
    row(
      '2 Al on 100 A as a dwelling service',
      service({
        serviceSize: '2',
        serviceMetal: 'aluminum',
        serviceInsulationC: 75,
        mainAmps: 100,
      }),
      'main',
      { why: 'dwelling service' },
    ),
    row(
      '8 Cu on 40 A',
      service({ serviceSize: '8', serviceMetal: 'copper', mainAmps: 40 }),
      'main',
    ),
    row(
      '120/240 V before 2017',
      service(
        { serviceSize: '2', serviceMetal: 'aluminum', serviceInsulationC: 75, mainAmps: 100 },
        { edition: 2014, supply: '120/240 V single phase' },
      ),
      'main',
    ),
  ],
  fault: [
    row(
      'old rubber insulation at 60 °C',
      service({
        serviceSize: '2/0',
        serviceMetal: 'aluminum',
        serviceInsulationC: 60,
        mainAmps: 150,
      }),
      'main',
    ),
    row('2/0 Al on 200 A', service({ serviceSize: '2/0', serviceMetal: 'aluminum' }), 'main', {
      why: '150',
    }),
    row(
      'reduced size on 208Y/120 V before 2017',
      service(
        { serviceSize: '2', serviceMetal: 'aluminum', serviceInsulationC: 75, mainAmps: 100 },
        { edition: 2014, supply: '208Y/120 V' },
      ),
      'main',
    ),
  ],
  undecided: [
    row(
      'insulation not read',
      service({ serviceSize: '2/0', serviceMetal: 'aluminum', mainAmps: 150 }),
      'main',
      { missing: ['serviceInsulationC'] },
    ),
    row('size not read', service({ serviceMetal: 'copper' }), 'main', { missing: ['serviceSize'] }),
    row(
      'supply not measured before 2017',
      service(
        { serviceSize: '2', serviceMetal: 'aluminum', serviceInsulationC: 75, mainAmps: 100 },
        { edition: 2011 },
      ),
      'main',
      { missing: ['supply'] },
    ),
  ],
  inapplicable: [
    row('sub-panel', withSub({ mainKind: 'main breaker', mainAmps: 100 }), 'sub'),
    row('split bus', service({ mainKind: 'split bus' }), 'main'),
  ],
})

const rod = {
  id: 'e',
  type: 'rod',
  rods: 2,
  spacingFt: 8,
  landsIn: 'main',
  landsOn: 'neutral bar',
  size: '6',
  metal: 'copper',
  connection: 'sound',
  isSpliced: false,
}
const inEarth = { clampFt: 2, isTenFtInEarth: true }
const grounded = (electrode: Node | Node[], more: Node = {}): Node =>
  service(
    { electrodes: 'found', serviceSize: '4/0', serviceMetal: 'aluminum', ...more },
    {},
    { electrodes: Array.isArray(electrode) ? electrode : [electrode] },
  )
ruleTable('electrode-conductor', {
  clear: [
    row('6 Cu to two rods at a 200 A service', grounded(rod), 'main'),
    row('one rod of 18 Ω', grounded({ ...rod, rods: 1, ohms: 18 }), 'main'),
    row('4 Cu to a footing', grounded({ ...rod, type: 'concrete-encased', size: '4' }), 'main'),
    row(
      'water pipe with jumper and full size',
      grounded([
        { ...rod, ...inEarth, id: 'w', type: 'water pipe', isJumpered: true, size: '2' },
        rod,
      ]),
      'main',
    ),
  ],
  fault: [
    row('none found', service({ electrodes: 'none found' }), 'main'),
    row('8 Cu to a rod behind 4/0 Al', grounded({ ...rod, size: '8' }), 'main'),
    row(
      '6 Cu to the water pipe behind 4/0 Al',
      grounded({ ...rod, type: 'water pipe', isJumpered: true }),
      'main',
    ),
    row('one rod of 60 Ω', grounded({ ...rod, rods: 1, ohms: 60 }), 'main'),
    row(
      'the water pipe alone',
      grounded({ ...rod, type: 'water pipe', isJumpered: true, size: '2' }),
      'main',
      { why: 'only electrode' },
    ),
    row(
      'a single plate of 60 Ω',
      grounded({
        id: 'e',
        type: 'plate',
        ohms: 60,
        landsIn: 'main',
        landsOn: 'neutral bar',
        size: '6',
        metal: 'copper',
        connection: 'sound',
        isSpliced: false,
      }),
      'main',
    ),
    row('rods 3 ft apart', grounded({ ...rod, spacingFt: 3 }), 'main'),
    row('lands on an isolated bar', grounded({ ...rod, landsOn: 'isolated bar' }), 'main'),
    row('loose clamp', grounded({ ...rod, connection: 'loose' }), 'main'),
    row('spliced', grounded({ ...rod, isSpliced: true }), 'main'),
    row(
      'no jumper round the meter',
      grounded({ ...rod, type: 'water pipe', size: '2', isJumpered: false }),
      'main',
    ),
  ],
  undecided: [
    row('nobody looked', service({}), 'main', { missing: ['electrodes'] }),
    row('one rod, not measured', grounded({ ...rod, rods: 1 }), 'main', { missing: ['ohms'] }),
    row(
      'two rods recorded apart, distance not measured',
      grounded([
        { ...rod, id: 'e1', rods: 1, spacingFt: { blocked: 'overgrown' } },
        { ...rod, id: 'e2', rods: 1, spacingFt: { blocked: 'overgrown' } },
      ]),
      'main',
      { missing: ['spacingFt'] },
    ),
    row('clamp buried', grounded({ ...rod, connection: { blocked: 'buried' } }), 'main', {
      missing: ['connection'],
    }),
    row('found and not recorded', service({ electrodes: 'found' }), 'main'),
    row(
      'where it lands not followed',
      grounded({ ...rod, landsIn: { blocked: 'behind the stove' } }),
      'main',
      { missing: ['landsIn'] },
    ),
    row(
      'size not gauged',
      grounded({
        id: 'e',
        type: 'rod',
        rods: 2,
        spacingFt: 8,
        landsIn: 'main',
        landsOn: 'neutral bar',
        metal: 'copper',
        connection: 'sound',
        isSpliced: false,
      }),
      'main',
      { missing: ['size'] },
    ),
  ],
  inapplicable: [row('sub-panel', withSub({}), 'sub')],
})

const shed = (more: Node) => ({ ...panel([]), buildings: [{ id: 'shed', ...more }] })
ruleTable('detached-electrode-missing', {
  clear: [
    row('found', shed({ isDetached: true, fedThrough: 'a feeder', electrode: 'found' }), 'shed'),
  ],
  fault: [
    row(
      'feeder, none found',
      shed({ isDetached: true, fedThrough: 'a feeder', electrode: 'none found' }),
      'shed',
    ),
    row(
      'two branch circuits',
      shed({ isDetached: true, fedThrough: 'several branch circuits', electrode: 'none found' }),
      'shed',
    ),
    row(
      'one branch circuit without a ground',
      shed({
        isDetached: true,
        fedThrough: 'one branch circuit without a ground',
        electrode: 'none found',
      }),
      'shed',
    ),
  ],
  undecided: [
    row('nobody looked', shed({ isDetached: true, fedThrough: 'a feeder' }), 'shed', {
      missing: ['electrode'],
    }),
    row('what feeds it not seen', shed({ isDetached: true, electrode: 'none found' }), 'shed', {
      missing: ['fedThrough'],
    }),
  ],
  inapplicable: [
    row(
      'one branch circuit with a ground',
      shed({
        isDetached: true,
        fedThrough: 'one branch circuit with a ground',
        electrode: 'none found',
      }),
      'shed',
    ),
    row('part of the house', shed({ isDetached: false, fedThrough: 'a feeder' }), 'shed'),
  ],
})

ruleTable('raceway-bonding', {
  clear: [
    row(
      'bushing',
      service({ serviceRaceway: 'metal raceway', racewayBond: 'bonding bushing or jumper' }),
      'main',
    ),
    row('hub', service({ serviceRaceway: 'metal raceway', racewayBond: 'threaded hub' }), 'main'),
  ],
  fault: [
    row(
      'plain locknuts',
      service({ serviceRaceway: 'metal raceway', racewayBond: 'plain locknuts' }),
      'main',
    ),
  ],
  undecided: [
    row('not seen', service({ serviceRaceway: 'metal raceway' }), 'main', {
      missing: ['racewayBond'],
    }),
  ],
  inapplicable: [
    row('cable', service({ serviceRaceway: 'cable', racewayBond: 'nothing' }), 'main'),
    row(
      'sub-panel',
      withSub({ serviceRaceway: 'metal raceway', racewayBond: 'plain locknuts' }),
      'sub',
    ),
  ],
})

const bonds = (...list: Node[]) => ({
  bonds: list.map((b, i) => ({
    id: `bond-${i}`,
    size: '4',
    metal: 'copper',
    connection: 'sound',
    landsIn: 'main',
    landsOn: 'neutral bar',
    ...b,
  })),
})
const big = { serviceSize: '2/0', serviceMetal: 'copper' }
ruleTable('water-bond', {
  clear: [
    row(
      '4 Cu behind 2/0 Cu',
      service(big, { waterPiping: 'metal', waterBond: 'found' }, bonds({ to: 'water piping' })),
      'premises',
    ),
  ],
  fault: [
    row(
      'none found',
      service({}, { waterPiping: 'metal in part', waterBond: 'none found' }),
      'premises',
    ),
    row(
      '6 Cu behind 2/0 Cu',
      service(
        big,
        { waterPiping: 'metal', waterBond: 'found' },
        bonds({ to: 'water piping', size: '6' }),
      ),
      'premises',
    ),
    row(
      'loose',
      service(
        big,
        { waterPiping: 'metal', waterBond: 'found' },
        bonds({ to: 'water piping', connection: 'loose' }),
      ),
      'premises',
    ),
  ],
  undecided: [
    row('pipes not seen', service({}, { waterBond: 'none found' }), 'premises', {
      missing: ['waterPiping'],
    }),
    row(
      'service size not read',
      service({}, { waterPiping: 'metal', waterBond: 'found' }, bonds({ to: 'water piping' })),
      'premises',
      { missing: ['serviceSize'] },
    ),
  ],
  inapplicable: [row('plastic', service({}, { waterPiping: 'plastic' }), 'premises')],
})
ruleTable('gas-bond', {
  clear: [
    row(
      'by the appliance',
      service(
        {},
        { gasPiping: 'rigid metal', gasBond: 'none found', doGasAppliancesHaveGround: true },
      ),
      'premises',
    ),
    row(
      '12 Cu bond',
      service(
        {},
        { gasPiping: 'rigid metal', gasBond: 'found', doGasAppliancesHaveGround: false },
        bonds({ to: 'gas piping', size: '12' }),
      ),
      'premises',
    ),
  ],
  fault: [
    row(
      'neither',
      service(
        {},
        { gasPiping: 'rigid metal', gasBond: 'none found', doGasAppliancesHaveGround: false },
      ),
      'premises',
    ),
  ],
  undecided: [
    row('gas not looked for', service({}, { gasBond: 'none found' }), 'premises', {
      missing: ['gasPiping'],
    }),
    row(
      'appliance not looked at',
      service({}, { gasPiping: 'rigid metal', gasBond: 'none found' }),
      'premises',
      { missing: ['doGasAppliancesHaveGround'] },
    ),
  ],
  inapplicable: [row('no gas', service({}, { gasPiping: 'none' }), 'premises')],
})
ruleTable('csst-bond', {
  clear: [
    row(
      '6 Cu',
      service(
        {},
        { gasPiping: 'corrugated tubing', gasBond: 'found' },
        bonds({ to: 'gas piping', size: '6' }),
      ),
      'premises',
    ),
  ],
  fault: [
    row('none', service({}, { gasPiping: 'corrugated tubing', gasBond: 'none found' }), 'premises'),
    row(
      '8 Cu',
      service(
        {},
        { gasPiping: 'corrugated tubing', gasBond: 'found' },
        bonds({ to: 'gas piping', size: '8' }),
      ),
      'premises',
    ),
    row(
      '6 Al: less than 6 Cu',
      service(
        {},
        { gasPiping: 'corrugated tubing', gasBond: 'found' },
        bonds({ to: 'gas piping', size: '6', metal: 'aluminum' }),
      ),
      'premises',
    ),
    row(
      'clamp on the tubing',
      service(
        {},
        { gasPiping: 'corrugated tubing', gasBond: 'found' },
        bonds({ to: 'gas piping', size: '6', connection: 'on the corrugated tubing itself' }),
      ),
      'premises',
    ),
  ],
  undecided: [
    row('not looked for', service({}, { gasPiping: 'corrugated tubing' }), 'premises', {
      missing: ['gasBond'],
    }),
    row('tubing not looked for', service({}, {}), 'premises', { missing: ['gasPiping'] }),
  ],
  inapplicable: [
    row(
      'arc-resistant jacket',
      service({}, { gasPiping: 'corrugated tubing, arc-resistant jacket', gasBond: 'none found' }),
      'premises',
    ),
    row('rigid', service({}, { gasPiping: 'rigid metal' }), 'premises'),
  ],
})
const one = (more: Node, premises: Node = {}) =>
  service(big, premises, bonds({ id: 'bond', ...more }))
ruleTable('bond-unsound', {
  clear: [
    row('steel on 4 Cu behind 2/0 Cu', one({ to: 'building steel' }), 'bond'),
    row(
      '8 Cu of communications unprotected',
      one({ to: 'communications', size: '8', isProtected: false }),
      'bond',
    ),
    row(
      'communications over 20 ft',
      one({ to: 'communications', size: '10', lengthFt: 20 }),
      'bond',
    ),
    row(
      'clamp of communications behind a finish',
      one({ to: 'communications', size: '10', clampPlace: 'behind a finish' }),
      'bond',
    ),
    row('copper near the earth', one({ to: 'building steel', isNearEarth: true }), 'bond'),
  ],
  fault: [
    row('steel on 8 Cu', one({ to: 'building steel', size: '8' }), 'bond'),
    row(
      '8 Cu of steel unprotected',
      one({ to: 'building steel', size: '8', isProtected: false }),
      'bond',
    ),
    row(
      'steel on a rod of its own',
      one({ to: 'building steel', landsIn: undefined, landsOn: 'an electrode of its own' }),
      'bond',
    ),
    row(
      'loose clamp of communications',
      one({ to: 'communications', connection: 'loose' }),
      'bond',
    ),
    row(
      'communications over 21 ft in the year of the rule',
      one({ to: 'communications', lengthFt: 21, year: 2002 }),
      'bond',
    ),
    row(
      'communications over 21 ft',
      one({ to: 'communications', lengthFt: 21, year: 2010 }),
      'bond',
    ),
    row(
      'spliced and on paint',
      one({ to: 'communications', isSpliced: true, clampPlace: 'on paint or a coating' }),
      'bond',
    ),
    row(
      'aluminum of steel near the earth',
      one({ to: 'building steel', size: '2', metal: 'aluminum', isNearEarth: true }),
      'bond',
    ),
    row(
      'clamp of steel behind a finish',
      one({ to: 'building steel', clampPlace: 'behind a finish' }),
      'bond',
    ),
    row(
      'spliced, on a rod of its own that nobody followed',
      one({ to: 'communications', landsOn: 'an electrode of its own', isSpliced: true }),
      'bond',
    ),
    row(
      'rod of the telephone that nothing joins',
      one(
        { to: 'communications', landsOn: 'an electrode of its own' },
        { electrodesTogether: 'one stands apart' },
      ),
      'bond',
    ),
  ],
  undecided: [
    row('what it bonds not recorded', one({}), 'bond', { missing: ['to'] }),
    row(
      'other end of communications not followed',
      one({ to: 'communications', landsOn: undefined }),
      'bond',
      {
        missing: ['landsOn'],
      },
    ),
    row(
      'rod of its own, joined or not',
      one({ to: 'communications', landsOn: 'an electrode of its own' }),
      'bond',
      {
        missing: ['electrodesTogether'],
      },
    ),
  ],
  inapplicable: [row('water piping', one({ to: 'water piping' }), 'bond')],
})
ruleTable('intersystem-termination', {
  clear: [
    row('there', service({}, { intersystem: 'termination with room for three' }), 'premises'),
  ],
  fault: [row('none', service({}, { intersystem: 'none found' }), 'premises')],
  undecided: [row('not looked for', service({}), 'premises', { missing: ['intersystem'] })],
  inapplicable: 'always applies',
})
ruleTable('service-drop', {
  clear: [row('sound', service({}, { serviceDrop: 'sound' }), 'premises')],
  fault: [
    row('in reach', service({}, { serviceDrop: 'too low or within reach' }), 'premises'),
    row('taped', service({}, { serviceDrop: 'taped splices' }), 'premises'),
  ],
  undecided: [row('not looked at', service({}), 'premises', { missing: ['serviceDrop'] })],
  inapplicable: [row('underground', service({}, { serviceDrop: 'underground' }), 'premises')],
})
const lugs = (more: Node): Node => ({
  ...panel([]),
  enclosures: [
    {
      id: 'main',
      type: 'panel',
      place: 'indoors',
      fedFrom: 'utility',
      mainKind: 'main lugs',
      ...more,
    },
  ],
})
ruleTable('service-over-six', {
  clear: [
    row('main breaker', service({}), 'main'),
    row(
      'six mains of 1974',
      lugs({ upperMains: 6, areDisconnectsApart: false, year: 1974, work: 'none' }),
      'main',
    ),
    row(
      'six, each apart, of 2021',
      lugs({ upperMains: 6, areDisconnectsApart: true, year: 2021 }),
      'main',
    ),
  ],
  fault: [
    row('seven', lugs({ upperMains: 7 }), 'main'),
    row(
      'three together in a service of 2021',
      lugs({ upperMains: 3, areDisconnectsApart: false, year: 2021 }),
      'main',
    ),
    row(
      'three together, replaced now',
      lugs({ upperMains: 3, areDisconnectsApart: false, year: 1974, work: 'replaced' }),
      'main',
    ),
  ],
  undecided: [
    row('not counted', lugs({}), 'main', { missing: ['upperMains'] }),
    row(
      'six together, work not said',
      lugs({ upperMains: 6, areDisconnectsApart: false, year: 1974 }),
      'main',
      { missing: ['work'] },
    ),
  ],
  inapplicable: [row('sub-panel', withSub({ upperMains: 9 }), 'sub')],
})
/** A service without a surge protector, and a panel that may hang on it. */
const withNext = (next: Node, isTraced = true): Node => {
  const house = service({ surge: 'none' })
  const main = (house.enclosures as Node[])[0] as Node
  return {
    ...house,
    enclosures: [
      main,
      {
        id: 'next',
        type: 'panel',
        ...(isTraced && { feeder: { id: 'f', from: 'main' } }),
        ...next,
      },
    ],
  }
}
ruleTable('surge-protector', {
  clear: [
    row('present', service({ surge: 'present' }), 'main'),
    row('present at the next panel', withNext({ surge: 'present' }), 'main'),
  ],
  fault: [
    row('none', service({ surge: 'none' }), 'main'),
    row('failed', service({ surge: 'signals failed' }), 'main'),
  ],
  undecided: [
    row('not looked for', service({}), 'main', { missing: ['surge'] }),
    row('none here, and the next panel not looked at', withNext({}), 'main', {
      missing: ['surge'],
    }),
    row(
      'none here, and one at a panel nobody traced',
      withNext({ surge: 'present' }, false),
      'main',
      { missing: ['fedFrom'] },
    ),
  ],
  inapplicable: [
    row('edition 2017', service({ surge: 'none' }, { edition: 2017 }), 'main'),
    row('sub-panel', withSub({ surge: 'none' }), 'sub'),
  ],
})

const loads = (mainAmps: number, premises: Node, circuits: [Node, number?][]) =>
  panel(
    circuits.map(([circuit, poles], i) => ({
      id: `b${i}`,
      space: 2 * i + 1,
      poles: poles ?? 2,
      ratingAmps: 40,
      circuit: { id: `c${i}`, ...circuit },
    })),
    { mainAmps, marking: 'service disconnect' },
    { supply: '120/240 V single phase', ...premises },
  )
const BIG: [Node, number?][] = [
  [{ supplies: 'cooking appliance', applianceKw: 12 }],
  [{ supplies: 'water heater', applianceKw: 4.5 }],
  [{ supplies: 'vehicle charger', applianceAmps: 40 }],
  [{ supplies: 'air conditioning', applianceAmps: 30 }],
]
ruleTable('service-load', {
  clear: [
    row(
      'A7: within a service of 200 A, everything recorded',
      loads(200, { floorAreaFt2: 1500, areAppliancesRecorded: true }, BIG),
      'main',
    ),
    row(
      'a small house on 60 A',
      loads(60, { floorAreaFt2: 900, areAppliancesRecorded: true }, []),
      'main',
    ),
  ],
  fault: [
    row('A7: a charger on a service of 60 A', loads(60, { floorAreaFt2: 1500 }, BIG), 'main', {
      why: 'calculates to',
    }),
    row(
      'more than the service though not all is recorded',
      loads(60, { floorAreaFt2: 4500, areAppliancesRecorded: false }, [
        [{ supplies: 'space heating', applianceKw: 20 }],
      ]),
      'main',
    ),
  ],
  undecided: [
    row(
      '76 A at 240 V and 88 A at 208 V: which supply nobody has measured',
      loads(80, { floorAreaFt2: 1500, areAppliancesRecorded: true, supply: undefined }, [
        [{ supplies: 'cooking appliance', applianceKw: 12 }],
        [{ supplies: 'water heater', applianceKw: 4.5 }],
        [{ supplies: 'space heating', applianceKw: 8 }],
      ]),
      'main',
      { missing: ['supply'] },
    ),
    row(
      'a circuit nobody has said what it supplies',
      loads(200, { floorAreaFt2: 1500, areAppliancesRecorded: true }, [[{}]]),
      'main',
      { missing: ['supplies'] },
    ),
    row('no floor area', loads(100, { areAppliancesRecorded: true }, BIG), 'main', {
      missing: ['floorAreaFt2'],
    }),
    row(
      'nobody says that everything is recorded',
      loads(200, { floorAreaFt2: 1500 }, BIG),
      'main',
      {
        missing: ['areAppliancesRecorded'],
      },
    ),
    row(
      'an appliance nobody has read',
      loads(200, { floorAreaFt2: 1500, areAppliancesRecorded: true }, [
        [{ supplies: 'water heater' }],
      ]),
      'main',
      { missing: ['applianceKw'] },
    ),
  ],
  inapplicable: [
    row('a meter', panel([], { type: 'meter', mainAmps: 60 }, { floorAreaFt2: 3000 }), 'main'),
  ],
})
