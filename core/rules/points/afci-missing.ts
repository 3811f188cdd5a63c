import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { afciOf } from '../../derive/protection'
import { afciSince, EXTENSION_EXEMPT } from '../../tables/protection-years'

/** Arc-fault protection in the listed rooms, by the edition that bears on the outlet and on what is done to it now. */
export const afciMissing = defineRule({
  id: 'afci-missing', family: 'points', subject: 'point',
  title: 'Outlets in the listed rooms have arc-fault protection', fault: 'Arc-fault protection missing',
  cites: [{ section: '210.12' }, { section: '406.4(D)(4)' }], triggers: ['replaced', 'extended', 'new'], triggersSince: { replaced: 2011, extended: 2011 }, remedies: ['afci-breaker', 'afci-first-outlet', 'protect-beside-panel'],
  traps: ['Bathrooms, garages, outdoors, unfinished basements, utility rooms and attics are not listed', 'An extension of 6 ft or less that adds no outlet is exempt from the 2014 edition on; replacing a receptacle is not', 'The test button on the device decides; hand testers only indicate'],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type === 'junction box') return c.na(say('Not an outlet'))
    const afci = afciOf(c.site, point)
    c.rest(afci.rests)
    if (afci.value !== undefined && afci.value !== 'none') return c.clear(afci.value === 'breaker' ? say('Protection in the breaker') : say('Protected by a device'))
    const room = c.site.get(c.ask(point.facts.room), 'room')
    const use = room && c.ask(room.facts.use)
    if (use !== undefined && afciSince(use, 'receptacle') === undefined) return c.na(say('{use}: not a listed room', { use }))
    if (type === undefined || use === undefined) return c.undecided(say('What it is, or the use of the room, has not been seen'))
    const since = afciSince(use, type)!
    if (since > c.site.edition) return c.na(say('Required from the {since} edition', { since }))
    const circuit = c.site.get(c.ask(point.facts.circuit), 'circuit')
    const ownWork = c.ask(point.facts.work)
    if (circuit && c.ask(circuit.facts.work) === 'extended' && ownWork !== 'replaced' && c.site.edition >= EXTENSION_EXEMPT.since) {
      const ft = c.ask(circuit.facts.extensionFt)
      const adds = c.ask(circuit.facts.addsOutlets)
      if (ft !== undefined && ft <= EXTENSION_EXEMPT.feet && adds === false && ownWork !== undefined) return c.na(say('An extension of {ft} ft that adds no outlet', { ft }))
      if ((ft === undefined || ft <= EXTENSION_EXEMPT.feet) && adds !== true) return c.undecided(say('An extension of 6 ft or less that adds no outlet would be exempt'))
    }
    if (afci.value === undefined) return c.undecided(say('Required here since {since}; whether it is there has not been settled', { since }), [], afci.rests.filter(f => f.state !== 'known'))
    return c.fault(say('{use}: required since {since}, and nothing protects it', { use, since }), { danger: 2, since })
  },
})
