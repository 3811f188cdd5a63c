import type { Context } from '../engine/context'
import { say } from '../engine/say'
import type { Verdict } from '../engine/verdict'
import { electrodeConductorSize, equipmentGroundSize } from '../tables/grounding'
import { sizeIndex, type Size } from '../tables/ampacity'
import { sizeName } from '../tables/allowed-device'
import type { Subject } from '../model/house'

/**
 * Judges the bond to a piping system that was found: sound, and large enough. Water piping is sized by the service
 * conductors (250.104(A), 250.102), gas by the circuit that may energise it, or by a least size.
 */
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
        : [
            {
              state: 'unseen',
              subject: 'premises',
              field: what === 'water piping' ? 'waterBond' : 'gasBond',
            },
          ],
    )
  }
  const connection = c.ask(bond.facts.connection)
  const size = c.ask(bond.facts.size)
  const metal = c.ask(bond.facts.metal)
  if (connection !== undefined && connection !== 'sound')
    return c.fault(say('Bond to the {what}: {connection}', { what, connection }), { danger: 2 })
  const wanted = least ?? (what === 'water piping' ? waterSize(c, metal) : gasSize(metal))
  if (connection === undefined || size === undefined || metal === undefined || wanted === undefined)
    return c.undecided(say('The bond has not been looked at closely'))
  if (least && metal !== 'copper')
    return c.fault(
      say('The bond is {metal}; copper {least} or larger is wanted', {
        metal,
        least: sizeName(least),
      }),
      { danger: 2 },
    )
  if (sizeIndex(size) < sizeIndex(wanted))
    return c.fault(
      say('Bond of {size} {metal}; {wanted} wanted', {
        size: sizeName(size),
        metal,
        wanted: sizeName(wanted),
      }),
      { danger: 2 },
    )
  return c.clear(say('Bonded with {size} {metal}', { size: sizeName(size), metal }))
}

function waterSize(c: Context, metal: 'copper' | 'aluminium' | undefined): Size | undefined {
  const service: Subject<'enclosure'> | undefined = c.site.all.enclosure.find(
    e => c.site.roleOf(e).value === 'service',
  )
  if (!service) return undefined
  c.rest(c.site.roleOf(service).rests)
  const size = c.ask(service.facts.serviceSize)
  const of = c.ask(service.facts.serviceMetal)
  return size && of && metal ? electrodeConductorSize(size, of, metal, 'water pipe') : undefined
}

/** Sized by the circuit likely to energise it: an ordinary 20 A circuit. 250.104(B), 250.122. */
const gasSize = (metal: 'copper' | 'aluminium' | undefined): Size | undefined =>
  metal && equipmentGroundSize(20, metal)
