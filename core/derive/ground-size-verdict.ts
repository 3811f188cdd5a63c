import type { Conclusion } from '../conclusions/truth'
import type { Context } from '../engine/context'
import { say } from '../engine/say'
import type { Failure, Verdict } from '../engine/verdict'
import type { groundSizing } from './ground-size'

const CHECKS = {
  'too-small': {
    danger: 2,
    says: 'Grounding conductor of {size} AWG behind a {amps} A device; {least} AWG required',
  },
} as const
/** What the rules on grounding wires have in common. */
export const GROUND_SIZE = {
  family: 'conductors',
  title: 'The grounding conductor is of full size for the device ahead',
  fault: 'Equipment grounding conductor too small',
  consequence: 'In a fault it can burn through before the breaker opens, and leave metal live.',
  tags: ['bond'],
  cites: [{ section: '250.122' }, { section: '250.118' }],
  checks: CHECKS,
  triggers: ['replaced', 'extended', 'new'],
  remedies: ['larger-ground'],
} as const

/** What the size of a grounding wire means. */
export function groundSizeVerdict(
  sizing: ReturnType<typeof groundSizing>,
  amps: Conclusion<number>,
  detail: Partial<Pick<Failure, 'lawfulBefore'>>,
  c: Context,
): Verdict {
  c.rest(sizing.rests)
  switch (sizing.is) {
    case 'made with the cable':
      return c.na('The grounding conductor is part of the cable')
    case 'open':
      return c.undecided(
        'The grounding conductor or the device ahead has not been read',
        sizing.missing,
      )
    case 'enough':
      return c.clear(
        say('{size} AWG; {least} AWG is enough', { size: sizing.size, least: sizing.least }),
      )
    case 'too small':
      return c.fault(
        'too-small',
        {
          size: sizing.size,
          least: sizing.least,
          amps: amps.state === 'settled' ? amps.value : '?',
        },
        detail,
      )
  }
}
