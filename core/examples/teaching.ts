/**
 * A made-up house to try currents in: a service panel, a sub-panel, a pair on one neutral, an old circuit without a
 * ground.
 */
import { measured, read, type Node } from './grades'

const outlet = (id: string, circuit: string, name: string, more: Node = {}): Node => ({
  id,
  name,
  circuit,
  after: 'panel',
  type: 'receptacle',
  slots: 'three',
  runFt: 60,
  lamps: 'correct',
  ground: 'connected',
  ...more,
})
const breaker = (id: string, space: number, circuit: Node, size = '12', more: Node = {}): Node => ({
  id,
  space,
  poles: 1,
  ratingAmps: read(20),
  role: 'branch',
  circuit: {
    segments: [{ size, metal: 'copper', egc: 'wire' }],
    ...circuit,
  },
  ...more,
})
const PANEL: Node = {
  type: 'panel',
  place: 'indoors',
  bus: 'single phase',
  numbering: 'odd left, even right',
  spaces: 20,
  landings: 'on separate bars',
}

export function teaching(): Node {
  return {
    corvit: 1,
    form: 'house',
    premises: {
      name: 'Teaching house',
      supply: measured('120/240 V single phase', 'multimeter'),
      edition: 2020,
      visitedOn: '2026-06-09',
      waterPiping: 'metal',
      waterBond: 'found',
      gasPiping: 'none',
    },
    enclosures: [
      {
        id: 'service',
        name: 'Service panel',
        ...PANEL,
        fedFrom: 'utility',
        marking: 'service disconnect',
        mainKind: 'main breaker',
        mainAmps: read(100),
        bondMeans: 'screw',
        serviceSize: read('3'),
        serviceMetal: 'copper',
        electrodes: 'found',
        breakers: [
          breaker('b-left', 1, { id: 'left', label: 'Counter left', sharesNeutralWith: ['right'] }),
          breaker('b-right', 3, {
            id: 'right',
            label: 'Counter right',
            sharesNeutralWith: ['left'],
          }),
          breaker(
            'b-old',
            5,
            {
              id: 'old',
              label: 'Old bedroom',
              segments: [{ size: '14', metal: 'copper', egc: 'none' }],
            },
            '14',
            { ratingAmps: read(15) },
          ),
          { id: 'b-feed', space: 2, poles: 2, ratingAmps: read(60), role: 'feeder' },
        ],
      },
      {
        id: 'sub',
        name: 'Sub-panel',
        ...PANEL,
        marking: 'not service equipment',
        mainKind: 'main lugs',
        bondMeans: 'none',
        feeder: {
          id: 'feed',
          from: 'b-feed',
          size: read('6'),
          metal: 'copper',
          egc: 'wire',
          egcSize: '6',
        },
        breakers: [breaker('b-shop', 1, { id: 'shop', label: 'Workbench' })],
      },
    ],
    electrodes: [
      {
        id: 'rod',
        name: 'Rod',
        type: 'rod',
        landsIn: 'service',
        landsOn: 'neutral bar',
        size: '6',
        metal: 'copper',
        ohms: 25,
      },
    ],
    bonds: [
      {
        id: 'water',
        to: 'water piping',
        landsIn: 'service',
        landsOn: 'ground bar',
        size: '6',
        metal: 'copper',
      },
    ],
    outlets: [
      outlet('o-left', 'left', 'Counter left'),
      outlet('o-right', 'right', 'Counter right'),
      outlet('o-old', 'old', 'Bedroom', { slots: 'three', ground: 'none', lamps: 'open ground' }),
      outlet('o-shop', 'shop', 'Workbench'),
    ],
  }
}
