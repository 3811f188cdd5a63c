import { panel, type Node } from './house'

/** A two-wire wing: three ungrounded three-slot receptacles in a row, boxes with room. */
export const BOX = {
  ground: 'none',
  boxVolumeIn3: 22.5,
  conductorsInBox: 4,
  groundsInBox: 0,
  largestInBox: '14',
  hasInternalClamps: true,
  throughInBox: 0,
  fittingsInBox: 0,
  yokesInBox: 1,
  isTamperResistant: true,
  protection: 'none',
  work: 'none',
  year: 1955,
}
export const wing = (
  more: Node = {},
  outlets: readonly Node[] = [{}, {}, {}],
  use = 'living',
): Node => ({
  ...panel(
    [
      {
        id: 'b',
        space: 1,
        poles: 1,
        ratingAmps: 15,
        device: 'breaker',
        protection: 'standard',
        circuit: {
          id: 'c',
          sharesNeutralWith: [],
          supplies: 'receptacles',
          work: 'none',
          year: 1955,
          outlets: outlets.map((o, i) => ({
            id: `p${i + 1}`,
            type: 'receptacle',
            slots: 'three',
            room: 'r',
            after: i === 0 ? 'panel' : `p${i}`,
            ...BOX,
            ...o,
          })),
        },
      },
    ],
    { protectiveBreakers: 'available', ...more },
    { yearBuilt: 1955 },
  ),
  rooms: [{ id: 'r', use, hasSink: false }],
})
export const OPEN = ['p1', 'p2', 'p3'].map(subject => ({ rule: 'open-ground-three-slot', subject }))
