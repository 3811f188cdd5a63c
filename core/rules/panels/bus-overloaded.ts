import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { valueOf } from '../../model/house'

/** The bus is rated at least as high as the device protecting it: its own main or the feeder breaker, whichever is smaller. */
export const busOverloaded = defineRule({
  id: 'bus-overloaded', family: 'panels', subject: 'enclosure',
  title: 'The bus is rated for the device that protects it', fault: 'Bus rated below its protection',
  cites: [{ section: '408.36' }], triggers: ['replaced', 'new'], remedies: ['replace-panel', 'smaller-main'],
  traps: ['A sub-panel main larger than the feeder breaker is fine: the feeder breaker protects the bus'],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type !== undefined && type !== 'panel') return c.na(say('Not a panel'))
    const bus = c.ask(enclosure.facts.busAmps)
    const kind = c.ask(enclosure.facts.mainKind)
    if (kind === 'split bus') return c.na(say('A split bus has no single main; its lower section is judged by the device feeding it'))
    if (type === undefined || bus === undefined || kind === undefined) return c.undecided(say('The bus rating or the main has not been read'))
    const ratings: number[] = []
    let isOpen = false
    const take = (amps: number | undefined) => {
      if (amps === undefined) isOpen = true
      else ratings.push(amps)
    }
    if (kind !== 'main lugs') take(c.ask(enclosure.facts.mainAmps))
    const feeder = c.site.get(c.ask(enclosure.facts.fedFrom), 'feeder')
    if (feeder) {
      const from = c.ask(feeder.facts.from)
      const breaker = c.site.get(from, 'breaker')
      const source = c.site.get(from, 'enclosure')
      if (breaker) take(c.ask(breaker.facts.ratingAmps))
      else if (!source) isOpen = true
      else if (c.ask(source.facts.mainKind) !== 'main lugs' && c.ask(source.facts.type) !== 'meter') take(c.ask(source.facts.mainAmps))
    } else if (valueOf(enclosure, 'fedFrom') === undefined) isOpen = true
    const device = ratings.length ? Math.min(...ratings) : undefined
    if (device !== undefined && device <= bus) return c.clear(say('{device} A ahead of a {bus} A bus', { device, bus }), [], { left: device, leftLabel: 'protected by', sign: device < bus ? '<' : '=', right: bus, rightLabel: 'bus', unit: 'A' })
    if (isOpen || device === undefined) return isOpen ? c.undecided() : c.na(say('No device of its own ahead of it'))
    return c.fault(say('A {device} A device protects a {bus} A bus', { device, bus }), { danger: 3, compare: { left: device, leftLabel: 'protected by', sign: '>', right: bus, rightLabel: 'bus', unit: 'A' } })
  },
})
