import type { Kind } from '../model/fields'
import type { Result } from '../engine/evaluate'
import { worstOf } from '../engine/rule'

/** What could be wrong from this danger on is not left to itself while nobody knows. */
const DANGEROUS = 3

/** The safe act while something about a thing of this kind is open, where the rule has none of its own. */
const UNTIL: Readonly<Partial<Record<Kind, string>>> = {
  outlet: 'Plug in nothing with a metal frame, and touch none of its metal, until it is measured',
  segment:
    'Keep the load on this circuit small, and switch it off if wire or cover is warm, until it is looked at',
  feeder:
    'Keep the load on it small, and take its metal for live at both ends, until it is looked at',
  circuit: 'Take every conductor of it for live, whatever is switched off, until it is traced',
  breaker: 'Leave its handle alone under load, and the cover on, until it is looked at',
  enclosure: 'Take its metal for live: test before touching, cover on, until it is settled',
  building: 'Take metal in the building for live until it is settled',
  room: 'Use no outlet there that has not been tested, until it is settled',
  premises: 'Keep people away from it until somebody qualified has looked',
}

/**
 * What to do until an open judgment is settled; undefined where nothing dangerous is open. An answer that leans to a
 * fault is open like the others.
 */
export function untilSettled(result: Result): string | undefined {
  if (result.outcome !== 'undecided' || worstOf(result.rule) < DANGEROUS) return undefined
  return result.rule.until ?? UNTIL[result.subject.kind]
}
