import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Context } from '../../engine/context'
import type { Verdict } from '../../engine/verdict'
import { CO_ALR_SINCE } from '../../tables/years'
import { tableMetals } from '../../derive/allowed'

/** Aluminum may land only on devices marked for it, and never in a push-in terminal. */
export const aluminumAtUnmarkedDevice = defineRule({
  id: 'aluminum-at-unmarked-device',
  family: 'outlets',
  subject: 'outlet',
  title: 'Aluminum conductors land only on devices marked for aluminum',
  fault: 'Aluminum on a device not marked for it',
  consequence: 'The joint can loosen and heat over the years until it burns.',
  cites: [{ section: '406.3(C)' }, { section: '404.14(C)' }, { section: '110.14' }],
  checks: {
    'aluminum-in-push-in': {
      danger: 4,
      says: 'Aluminum or copper-clad aluminum in a push-in terminal',
    },
    'device-not-marked': { danger: 3, says: 'Aluminum on a device not marked for it: {reason}' },
  },
  triggers: ['replaced', 'extended'],
  remedies: [
    'co-alr-device',
    'crimped-pigtail',
    'lug-pigtail',
    'gel-connector-pigtail',
    'twist-on-pigtail',
    'copper-rewire',
  ],
  traps: [
    'Copper-clad aluminum may land on ordinary binding screws, never in push-in terminals',
    'Devices of 30 A and more need AL-CU',
    'AL-CU devices of 1965 to 1971 were lawful when made',
    'Silver-looking is not yet aluminum: tinned copper looks the same on the surface',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'receptacle' && type !== 'switch')
      return c.na('No device terminals')
    const metal = c.ask(outlet.facts.metal)
    if (metal === undefined)
      return c.undecided('The conductor metal at the device has not been seen')
    const kinds = tableMetals(metal)
    if (kinds.every(k => k.metal === 'copper'))
      return c.na('What lands on it is copper; a splice to aluminum is judged on its own')
    if (type === undefined) return c.undecided()
    const landing = c.ask(outlet.facts.termination)
    // A color alone may still be copper.
    if (kinds.length > 1)
      return c.undecided(
        'Surface color does not tell the metal: look at a cut end',
        outlet.facts.metal,
      )
    if (landing === 'push-in') {
      return c.fault(
        'aluminum-in-push-in',
        {},
        { working: [say('push-in terminals are listed for small solid copper only')] },
      )
    }
    const rated = kinds[0]?.isCopperClad ? c.ask(outlet.facts.deviceAmps) : undefined
    if (kinds[0]?.isCopperClad && rated === undefined)
      return c.undecided('The device rating decides whether copper-clad may land on it')
    if (kinds[0]?.isCopperClad && rated !== undefined && rated < 30) {
      if (landing === undefined) return c.undecided('Binding screw or push-in has not been seen')
      return c.clear(
        say('Copper-clad aluminum on a {landing}: ordinary devices take it', { landing }),
      )
    }
    const marking = c.ask(outlet.facts.aluminumMarking)
    const amps = c.ask(outlet.facts.deviceAmps)
    if (marking === 'none') return unmarked(c, 'the device carries no marking for aluminum')
    if (marking === undefined) return c.undecided('The marking on the device has not been read')
    if (amps === undefined) return c.undecided('The device rating decides which marking is needed')
    const isRight = amps >= 30 ? marking === 'AL-CU' : marking === 'CO/ALR'
    if (isRight) {
      if (landing === undefined) return c.undecided('Binding screw or push-in has not been seen')
      return c.clear(say('Marked {marking}, right for {amps} A', { marking, amps }))
    }
    if (marking === 'AL-CU')
      return unmarked(
        c,
        'AL-CU on a 15 or 20 A device is the older marking; CO/ALR is needed since about 1971',
        CO_ALR_SINCE,
      )
    return unmarked(c, `${marking} is not the marking for a ${amps} A device`)
  },
})

const unmarked = (c: Context, reason: string, lawfulBefore?: number): Verdict =>
  c.fault('device-not-marked', { reason }, { lawfulBefore })
