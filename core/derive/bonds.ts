import { absent } from '../model/house'
import { roleOf } from './service-role'
import type { Context } from '../engine/context'
import { say } from '../engine/say'
import type { Verdict } from '../engine/verdict'
import { electrodeConductorSize, equipmentGroundSize } from '../tables/grounding'
import { sizeIndex, type Size } from '../tables/ampacity'
import { sizeName } from '../tables/allowed-device'
import type { Subject } from '../model/house'

/**
 * Judges the bond to a piping system that was found: sound, and large enough. Water piping is sized by the service
 * conductors (250.104(A), 250.102), gas by the circuit that may energize it, or by a least size.
 */
/** The checks of a bond to piping; the rules that judge one carry them. */
export const BOND_CHECKS = {
  connection: { danger: 2, says: 'Bond to the {what}: {connection}' },
  'not-copper': { danger: 2, says: 'The bond is {metal}; copper {least} or larger is required' },
  'too-small': { danger: 2, says: 'Bond of {size} {metal}; {required} required' },
} as const

export function bondTo(what: 'water piping' | 'gas piping', c: Context, least?: Size): Verdict {
  const bonds = c.site.all.bond.filter(b => c.ask(b.facts.to) === what)
  const bond = bonds[0]
  if (!bond) {
    const unread = c.site.all.bond.filter(b => c.ask(b.facts.to) === undefined)
    return c.undecided(
      say('A bond was found; its size and clamp have not been recorded'),
      [],
      unread.length
        ? unread.map(b => b.facts.to)
        : [absent(c.site.premises, what === 'water piping' ? 'waterBond' : 'gasBond')],
    )
  }
  const connection = c.ask(bond.facts.connection)
  const size = c.ask(bond.facts.size)
  const metal = c.ask(bond.facts.metal)
  if (connection !== undefined && connection !== 'sound')
    c.fails('connection', { what, connection })
  const required = least ?? (what === 'water piping' ? waterSize(c, metal) : gasSize(metal))
  if (least && metal !== undefined && metal !== 'copper')
    c.fails('not-copper', { metal, least: sizeName(least) })
  if (size && metal && required && sizeIndex(size) < sizeIndex(required))
    c.fails('too-small', { size: sizeName(size), metal, required: sizeName(required) })
  if (!connection || !size || !metal || !required)
    return c.undecided(say('The bond has not been looked at closely'))
  return c.clear(say('Bonded with {size} {metal}', { size: sizeName(size), metal }))
}

function waterSize(c: Context, metal: 'copper' | 'aluminum' | undefined): Size | undefined {
  const service: Subject<'enclosure'> | undefined = c.site.all.enclosure.find(
    e => roleOf(c.site, e).value === 'service',
  )
  if (!service) return undefined
  c.rest(roleOf(c.site, service).rests)
  const size = c.ask(service.facts.serviceSize)
  const of = c.ask(service.facts.serviceMetal)
  return size && of && metal ? electrodeConductorSize(size, of, metal, 'water pipe') : undefined
}

/** Sized by the circuit likely to energize it: an ordinary 20 A circuit. 250.104(B), 250.122. */
const gasSize = (metal: 'copper' | 'aluminum' | undefined): Size | undefined =>
  metal && equipmentGroundSize(20, metal)
