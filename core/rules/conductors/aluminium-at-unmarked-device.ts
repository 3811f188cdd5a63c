import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { CO_ALR_SINCE } from '../../tables/years'
import { tableMetals } from '../../derive/allowed'

/** Aluminium may land only on devices marked for it, and never in a push-in terminal. */
export const aluminiumAtUnmarkedDevice = defineRule({
  id: 'aluminium-at-unmarked-device',
  family: 'conductors',
  subject: 'point',
  title: 'Aluminium conductors land only on devices marked for aluminium',
  fault: 'Aluminium on a device not marked for it',
  cites: [{ section: '406.3(C)' }, { section: '404.14(C)' }, { section: '110.14' }],
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
    'Copper-clad aluminium may land on ordinary binding screws, never in push-in terminals',
    'Devices of 30 A and more need AL-CU',
    'AL-CU devices of 1965 to 1971 were lawful when made',
    'Silver-looking is not yet aluminium: tinned copper looks the same on the surface',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'receptacle' && type !== 'switch')
      return c.na(say('No device terminals'))
    const metal = c.ask(point.facts.metal)
    if (metal === undefined)
      return c.undecided(say('The conductor metal at the device has not been seen'))
    const kinds = tableMetals(metal)
    if (kinds.every(k => k.metal === 'copper'))
      return c.na(say('What lands on it is copper; a splice to aluminium is judged on its own'))
    if (type === undefined) return c.undecided()
    const landing = c.ask(point.facts.termination)
    // A colour alone may still be copper.
    if (kinds.length > 1)
      return c.undecided(
        say('Surface colour does not tell the metal: look at a cut end'),
        [],
        [point.facts.metal],
      )
    if (landing === 'push-in') {
      return c.fault(say('Aluminium or copper-clad aluminium in a push-in terminal'), {
        danger: 4,
        working: [say('push-in terminals are listed for small solid copper only')],
      })
    }
    if (kinds[0]!.isCopperClad) {
      if (landing === undefined)
        return c.undecided(say('Binding screw or push-in has not been seen'))
      return c.clear(
        say('Copper-clad aluminium on a {landing}: ordinary devices take it', { landing }),
      )
    }
    const marking = c.ask(point.facts.aluminiumMarking)
    const amps = c.ask(point.facts.deviceAmps)
    if (marking === 'none') return unmarked('the device carries no marking for aluminium')
    if (marking === undefined)
      return c.undecided(say('The marking on the device has not been read'))
    if (amps === undefined)
      return c.undecided(say('The device rating decides which marking is needed'))
    const isRight = amps >= 30 ? marking === 'AL-CU' : marking === 'CO/ALR'
    if (isRight) {
      if (landing === undefined)
        return c.undecided(say('Binding screw or push-in has not been seen'))
      return c.clear(say('Marked {marking}, right for {amps} A', { marking, amps }))
    }
    if (amps < 30 && marking === 'AL-CU')
      return unmarked(
        'AL-CU on a 15 or 20 A device is the older marking; CO/ALR is needed since about 1971',
        CO_ALR_SINCE,
      )
    return unmarked(`${marking} is not the marking for a ${amps} A device`)

    function unmarked(reason: string, lawfulBefore?: number) {
      return c.fault(say('Aluminium on a device not marked for it: {reason}', { reason }), {
        danger: 3,
        lawfulBefore,
      })
    }
  },
})
