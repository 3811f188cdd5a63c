/** Breakers moved, parted and put in, with what hangs on them. */
import { isKind, valueOf, type Subject } from '../model/house'
import { neutralGroupOf } from '../derive/neutrals'
import type { Site } from '../derive/site'
import type { AnyValue } from '../model/fields'
import type { Change } from './change'
import { knownOf, type Work } from './work'

/** Spaces of the panel nothing stands in. */
export function freeSpaces(w: Work, breaker: Subject<'breaker'>): readonly number[] {
  const panel = w.site.get(breaker.parent ?? undefined, 'enclosure')
  return panel ? freeSpacesOf(w.site, panel, new Set()) : []
}
/** The same, once some breakers are taken out. */
export function freeSpacesOf(
  site: Site,
  panel: Subject<'enclosure'>,
  gone: ReadonlySet<string>,
): readonly number[] {
  const most = valueOf(panel, 'spaces') ?? 0
  const taken = new Set<number>()
  for (const b of site.children(panel, 'breaker')) {
    if (gone.has(b.id)) continue
    const space = valueOf(b, 'space')
    const poles = valueOf(b, 'poles') ?? 1
    for (let k = 0; space !== undefined && k < poles; k++) taken.add(space + 2 * k)
  }
  return Array.from({ length: most }, (_, k) => k + 1).filter(n => !taken.has(n))
}
/** Changes places with a single-pole breaker of a circuit of its own, where no space is free. */
export function swapped(w: Work, breaker: Subject<'breaker'>): readonly Change[][] {
  const panel = w.site.get(breaker.parent ?? undefined, 'enclosure')
  const space = valueOf(breaker, 'space')
  if (!panel || space === undefined) return []
  return w.site.children(panel, 'breaker').flatMap(other => {
    const there = valueOf(other, 'space')
    const isAlone =
      valueOf(other, 'poles') === 1 &&
      valueOf(other, 'half') === undefined &&
      w.site.circuitsOf(other).every(c => neutralGroupOf(w.site, c).circuits.length === 1)
    if (there === undefined || other.id === breaker.id || !isAlone) return []
    const legs = [valueOf(breaker, 'measuredLeg'), valueOf(other, 'measuredLeg')] as const
    return [
      [
        ...w.so(breaker, { space: there, ...(legs[1] && { measuredLeg: legs[1] }) }),
        ...w.so(other, { space, ...(legs[0] && { measuredLeg: legs[0] }) }),
      ],
    ]
  })
}

/** Facts of a breaker that belong to its place, or to what it was as a half; a full-size one has its own. */
export const OF_THE_HALF = new Set([
  'space',
  'half',
  'measuredLeg',
  'isTwinSpace',
  'temperatureC',
  'rescan',
])
export const NEW_BREAKER: Readonly<Record<string, AnyValue>> = {
  fitsPanel: 'listed',
  termination: 'sound',
  handleTie: 'not tied',
  conductorsOnTerminal: 1,
}

/** A full-size breaker for each half of a twin: one where the twin stood, the other in a free space. */
export function untwinned(w: Work): readonly Change[][] {
  const { subject, site } = w
  if (!isKind(subject, 'breaker')) return []
  const panel = site.get(subject.parent ?? undefined, 'enclosure')
  const space = valueOf(subject, 'space')
  if (!panel || space === undefined) return []
  const halves = site
    .children(panel, 'breaker')
    .filter(b => valueOf(b, 'space') === space && valueOf(b, 'half') !== undefined)
  const [stays, ...others] = halves
  if (!stays || others.length > 1) return []
  const free = others.length === 0 ? [space] : freeSpaces(w, subject)
  return free.map(to =>
    halves.flatMap(half => fullSize(w, half, half === stays ? space : to, panel.id)),
  )
}
function fullSize(w: Work, half: Subject<'breaker'>, space: number, panel: string): Change[] {
  const id = `${half.id}/full-size`
  return [
    { act: 'add', subject: id, kind: 'breaker', parent: panel },
    ...w.so(
      { id },
      { ...knownOf(half, field => !OF_THE_HALF.has(field)), ...NEW_BREAKER, space, year: w.year },
    ),
    ...w.site.circuitsOf(half).flatMap(c => w.so(c, { fedBy: id })),
    { act: 'drop', subject: half.id },
  ]
}

/** What does not belong on a required circuit gets one of its own, from a free space of the same panel. */
export function ownCircuitForOthers(w: Work): readonly Change[][] {
  const { circuit, breaker } = w
  const panel = breaker && w.site.get(breaker.parent ?? undefined, 'enclosure')
  // Which loads would go over nobody has said, so that a load is not halved by it.
  if (!circuit || !panel || w.result.rule.id !== 'dedicated-circuits') return []
  const amps = valueOf(breaker, 'ratingAmps')
  const id = `${circuit.id}/others`
  return freeSpaces(w, breaker).map(space => [
    ...w.so(circuit, { isSharedOutside: false }),
    { act: 'add', subject: `${id}-breaker`, kind: 'breaker', parent: panel.id },
    ...w.so(
      { id: `${id}-breaker` },
      { ...NEW_BREAKER, space, poles: 1, role: 'branch', year: w.year, ratingAmps: amps ?? 20 },
    ),
    { act: 'add', subject: id, kind: 'circuit', parent: w.site.premises.id },
    ...w.so({ id }, { fedBy: `${id}-breaker`, requiredUse: 'none', work: 'new' }),
  ])
}
