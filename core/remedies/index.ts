import type { Result } from '../engine/evaluate'
import type { Site } from '../derive/site'
import type { FactRef } from '../model/house'
import { CONDUCTOR_REMEDIES } from './conductors'
import { PANEL_REMEDIES } from './panels'
import { RECEPTACLE_REMEDIES } from './receptacles'
import { OUTLET_REMEDIES } from './outlets'
import { SERVICE_REMEDIES } from './service'
import { RemedyDesk, type Advice, type Remedy } from './remedy'

export type { Advice, Remedy, RemedyVerdict } from './remedy'

/** Every remedy Corvit knows. */
export const REMEDIES: readonly Remedy[] = [
  ...CONDUCTOR_REMEDIES,
  ...PANEL_REMEDIES,
  ...RECEPTACLE_REMEDIES,
  ...SERVICE_REMEDIES,
  ...OUTLET_REMEDIES,
]
const BY_ID = new Map(REMEDIES.map(r => [r.id, r]))
export const remedyById = (id: string): Remedy | undefined => BY_ID.get(id)

/**
 * The remedies of a fault, of what is allowed to remain, or of what leans to a fault, each offered,
 * conditional or refused in this house, in the order of the rule; those without any bearing here are left out.
 */
export function remediesFor(
  result: Result,
  site: Site,
): { remedy: Remedy; advice: Advice; asked: readonly FactRef[] }[] {
  if (result.standing === undefined) return []
  return result.rule.remedies.flatMap(id => {
    const remedy = BY_ID.get(id)
    if (!remedy) throw new Error(`Rule ${result.rule.id} names an unknown remedy: ${id}`)
    const desk = new RemedyDesk(site, result)
    const advice = remedy.judge(desk)
    return advice ? [{ remedy, advice, asked: desk.asked }] : []
  })
}
