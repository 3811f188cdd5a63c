/** Electrodes and bonds put in. */
import { isForbidden } from '../derive/electrode'
import type { AnyValue } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import type { Change } from './change'
import type { Work } from './work'

type Facts = Readonly<Record<string, AnyValue>>

/** Two rods with their conductor, landed where the neutral is; what never may be an electrode is taken off. */
export const newElectrodes = (w: Work): Change[] => [
  ...w.here({ electrodes: 'found' }),
  ...electrodesOf(w)
    .filter(e => isForbidden(valueOf(e, 'type')))
    .map((e): Change => ({ act: 'drop', subject: e.id })),
  {
    act: 'add',
    subject: `${w.subject.id}/new-rods`,
    kind: 'electrode',
    parent: w.site.premises.id,
  },
  ...w.so(
    { id: `${w.subject.id}/new-rods` },
    {
      type: 'rod',
      rods: 2,
      spacingFt: 8,
      landsIn: w.subject.id,
      landsOn: 'neutral bar',
      size: '6',
      metal: 'copper',
      connection: 'sound',
      isProtected: true,
      isSpliced: false,
    },
  ),
]

export const electrodesOf = (w: Work): readonly Subject<'electrode'>[] =>
  w.site.all.electrode.filter(e => valueOf(e, 'landsIn') === w.subject.id)
/** The run of a bond that is made anew. */
const RUN: Facts = {
  connection: 'sound',
  clampPlace: 'bare metal, in reach',
  isNearEarth: false,
  isProtected: true,
  isSpliced: false,
  lengthFt: 20,
}
/** A bond of steel or communications made anew, with a conductor large enough for any dwelling. */
export const remadeBond = (w: Work): Change[] => {
  const service = w.site.all.enclosure.find(e => valueOf(e, 'marking') === 'service disconnect')
  return w.here({
    ...RUN,
    size: valueOf(w.subject as Subject<'bond'>, 'to') === 'communications' ? '6' : '3/0',
    metal: 'copper',
    landsOn: 'grounding electrode conductor',
    ...(service && { landsIn: service.id }),
  })
}

/** A bond that is there, or is put in: sound, and landed on the neutral bar of the service. */
export function bonded(w: Work, to: string, size: string): Change[] {
  const service = w.site.all.enclosure.find(e => valueOf(e, 'marking') === 'service disconnect')
  const facts: Facts = {
    to,
    size,
    metal: 'copper',
    landsOn: 'neutral bar',
    ...RUN,
    ...(service && { landsIn: service.id }),
  }
  const known = w.site.all.bond.filter(b => valueOf(b, 'to') === to)
  if (known.length > 0) return known.flatMap(b => w.so(b, facts))
  const id = `new-bond-${to.replace(/ /g, '-')}`
  return [
    { act: 'add', subject: id, kind: 'bond', parent: w.site.premises.id },
    ...w.so({ id }, facts),
  ]
}
