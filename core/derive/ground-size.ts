import { of, type Conclusion } from '../conclusions/truth'
import type { FactRef, Subject } from '../model/house'
import { whereSeen } from '../model/house'
import { SIZES, type Size, type TableMetal } from '../tables/ampacity'
import { equipmentGroundSize } from '../tables/grounding'
import { Trail } from './trail'

/** Sizes a grounding conductor may be gauged at, thinnest first. */
const GROUND_SIZES = ['18', '16', ...SIZES] as const
export type GroundSize = (typeof GROUND_SIZES)[number]
const indexOf = (size: GroundSize): number => GROUND_SIZES.indexOf(size)

/** Raceways into which somebody pulled the grounding conductor; in a cable it comes with the cable. */
const PULLED: ReadonlySet<string> = new Set([
  'steel conduit',
  'aluminum conduit',
  'flexible conduit',
  'plastic conduit',
  // A ground beside it was run later, by somebody.
  'knob-and-tube',
])

/** How a grounding wire compares with what the device ahead of it asks for. */
export type GroundSizing =
  | { readonly is: 'made with the cable' }
  | { readonly is: 'enough' | 'too small'; readonly size: GroundSize; readonly least: Size }
  | { readonly is: 'open'; readonly missing: readonly FactRef[] }

/**
 * The size of a grounding wire against the device ahead. It need not be larger than the conductors it runs with. In a
 * cable it is made with it, unless somebody gauged it. 250.122(A).
 * @param amps the device ahead
 */
export function groundSizing(
  run: Subject<'segment'> | Subject<'feeder'>,
  amps: Conclusion<number>,
): GroundSizing & { readonly rests: readonly FactRef[] } {
  const trail = new Trail()
  const { egcSize, egcMetal, size: hotSize, wiring } = run.facts
  const wasGauged = whereSeen(egcSize) !== undefined
  if (!wasGauged) {
    const method = trail.ask(wiring)
    if (method === undefined) return { is: 'open', missing: [wiring], rests: trail.rests }
    if (!PULLED.has(method)) return { is: 'made with the cable', rests: trail.rests }
  }
  const size = trail.ask(egcSize)
  const metal = of<TableMetal>(egcMetal)
  const hot = trail.ask(hotSize)
  const rests = [...trail.rests, ...metal.rests, ...amps.rests]
  const missing: FactRef[] = []
  if (size === undefined) missing.push(egcSize)
  if (metal.state === 'open') missing.push(...metal.missing)
  if (amps.state === 'open') missing.push(...amps.missing)
  if (size === undefined || amps.state === 'open') return { is: 'open', missing, rests }
  const metals: readonly TableMetal[] =
    metal.state === 'open' ? ['copper', 'aluminum'] : [metal.value]
  const leasts = metals.map(m => {
    const least = equipmentGroundSize(amps.value, m)
    // It need be no larger than the hots.
    const [smaller] = [hot, least].flatMap(s => s ?? []).sort((a, b) => indexOf(a) - indexOf(b))
    return least && smaller
  })
  const [least] = leasts
  if (least === undefined) return { is: 'open', missing: [egcSize], rests }
  const small = leasts.map(l => l !== undefined && indexOf(size) < indexOf(l))
  if (small.every(Boolean)) {
    // It need be no larger than the hots, and those nobody has gauged; none is thinner than 14 AWG.
    const mayBeAsLarge = hot === undefined && indexOf(size) >= indexOf('14')
    return mayBeAsLarge
      ? { is: 'open', missing: [hotSize, ...missing], rests }
      : { is: 'too small', size, least, rests }
  }
  if (small.some(Boolean)) return { is: 'open', missing, rests }
  return { is: 'enough', size, least, rests }
}
