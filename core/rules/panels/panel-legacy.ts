import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** A panel line on record for breakers that fail to open under overload. */
export const panelTripRecord = defineRule({
  id: 'panel-trip-record', family: 'panels', subject: 'enclosure', isHazard: true,
  title: 'The panel line has no record of breakers that fail to trip', fault: 'Panel line known for failing to trip',
  cites: [{ section: '110.3(B)' }], triggers: [], remedies: ['replace-panel', 'leave-and-label'],
  traps: ['A separate matter from whether protective breakers can still be bought: two findings, two answers'],
  judge(enclosure, c) {
    const type = c.ask(enclosure, 'type')
    if (type !== undefined && type !== 'panel') return c.na(say('Not a panel'))
    const hasRecord = c.ask(enclosure, 'hasTripRecord')
    if (hasRecord === undefined || type === undefined) return c.undecided(say('The panel line has not been identified'))
    return hasRecord ? c.fault(say('Breakers of this panel line are on record for not opening'), { danger: 3 }) : c.clear(say('No such record'))
  },
})

/** No AFCI or GFCI breakers are made for this panel line any more. Not a fault of safety: it limits the remedies. */
export const panelNoProtective = defineRule({
  id: 'panel-no-protective-breakers', family: 'panels', subject: 'enclosure', isHazard: true,
  title: 'AFCI and GFCI breakers can be had for the panel', fault: 'No protective breakers made for this panel',
  cites: [{ section: '110.3(B)' }], triggers: [], remedies: ['protect-beside-panel', 'replace-panel'],
  traps: ['It limits the remedies; it does not condemn the panel'],
  judge(enclosure, c) {
    const type = c.ask(enclosure, 'type')
    if (type !== undefined && type !== 'panel') return c.na(say('Not a panel'))
    const state = c.ask(enclosure, 'protectiveBreakers')
    if (state === undefined || type === undefined) return c.undecided(say('Nobody has found out whether they are made'))
    return state === 'available' ? c.clear(say('Available')) : c.fault(say('None are made: protection goes beside the panel, or the panel is replaced'), { danger: 1 })
  },
})
