/** New conductors of today's cable. */
import type { AnyValue } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import { SIZES, tableAmpacity, type Size } from '../tables/ampacity'
import { equipmentGroundSize } from '../tables/grounding'
import type { Change } from './change'
import type { Work } from './work'

/** The size the device ahead asks for. */
const sizeFor = (amps: number): Size =>
  amps <= 15 ? '14' : amps <= 20 ? '12' : amps <= 30 ? '10' : amps <= 40 ? '8' : '6'

/** What is so of a run of new cable behind a device of so many amperes. */
export const cableFacts = (
  w: Work,
  amps: number,
  size: Size = sizeFor(amps),
): Readonly<Record<string, AnyValue>> => ({
  size,
  metal: 'copper',
  core: 'copper color',
  surface: 'copper color',
  wiring: 'NM-B',
  insulationC: 90,
  insulation: 'sound',
  entry: 'clamp or bushing',
  workmanship: 'sound',
  tape: 'none',
  egc: 'wire',
  egcSize: equipmentGroundSize(amps, 'copper') ?? size,
  egcMetal: 'copper',
  isWhiteHot: false,
  year: w.year,
})
export const newCable = (w: Work, run: Subject<'segment'>, amps: number): Change[] =>
  w.so(run, cableFacts(w, amps))

/** Amperes of the device ahead; 20 where nobody has read it. */
export const ratingAhead = (w: Work): number =>
  (w.breaker && valueOf(w.breaker, 'ratingAmps')) ?? 20

/** A cable of its own for so many amperes of load, behind a device that may be larger than the load. */
export function cableFor(w: Work, loadAmps: number, deviceAmps: number): Size | undefined {
  const carries = (size: Size) => tableAmpacity(size, 'copper', 60, w.site.edition) ?? 0
  return SIZES.find(
    size =>
      carries(size) >= loadAmps && (carries(size) >= deviceAmps || size === sizeFor(deviceAmps)),
  )
}
