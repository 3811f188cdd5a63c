import { absent, whereSeen, type Subject } from '../model/house'
import { roleOf } from './service-role'
import { soundnessOf } from './electrode'
import { serviceConductors } from './service-conductors'
import type { Context } from '../engine/context'
import { say } from '../engine/say'
import type { Verdict } from '../engine/verdict'
import { electrodeConductorSize, equipmentGroundSize } from '../tables/grounding'
import { sizeIndex, type Size } from '../tables/ampacity'
import { sizeName } from '../tables/allowed-device'

/** The checks of a bond to piping; the rules that judge one carry them. */
export const BOND_CHECKS = {
  connection: { danger: 2, says: 'Bond to the {what}: {connection}' },
  'lands-elsewhere': {
    danger: 3,
    says: 'The bond ends on {where}: that is no bond to the service',
  },
  'too-small': { danger: 2, says: 'Bond of {size} {metal}; {required} required' },
  'clamp-hidden': { danger: 1, says: 'The clamp of the bond is behind a finish, out of reach' },
  'clamp-on-paint': { danger: 2, says: 'The clamp of the bond sits on paint or a coating' },
  'aluminum-near-earth': { danger: 2, says: 'Aluminum bond within 18 in. of the earth' },
  unprotected: { danger: 1, says: '8 AWG bond without raceway or armor' },
  spliced: { danger: 2, says: 'Bond spliced other than with a listed connector' },
} as const

/** Ends that reach the neutral and the electrode of the service. 250.104(A), (B). */
const AT_SERVICE = new Set([
  'neutral bar',
  'ground bar',
  'enclosure',
  'grounding electrode conductor',
  'electrode of the service',
])

type Piping = 'water piping' | 'gas piping'
/** What is bonded to the service itself. */
type Bonded = Piping | 'building steel'
/** Whether a bond to the piping was found: as somebody says, or because one is on record. */
export function bondFound(what: Piping, c: Context): 'found' | 'none found' | undefined {
  const { facts } = c.site.premises
  const said = what === 'water piping' ? facts.waterBond : facts.gasBond
  if (whereSeen(said) === undefined) {
    const [bond] = c.site.all.bond.filter(b => whereSeen(b.facts.to)?.value === what)
    if (bond) {
      c.ask(bond.facts.to)
      return 'found'
    }
  }
  return c.ask(said)
}

/**
 * Judges every bond to a piping system that was found: sound, large enough, and landing where it ties the pipe to the
 * service. Water piping is sized by the service conductors (250.104(A), 250.102), gas by the circuit that may energize
 * it, or by a least size.
 * @param least least size by metal, where a code of its own gives one
 */
export function bondTo(
  what: Piping,
  c: Context,
  least?: Readonly<Record<'copper' | 'aluminum', Size>>,
): Verdict {
  const bonds = c.site.all.bond.filter(b => c.ask(b.facts.to) === what)
  if (bonds.length === 0) {
    const unread = c.site.all.bond.filter(b => c.ask(b.facts.to) === undefined)
    return c.undecided(
      'A bond was found; its size and clamp have not been recorded',
      unread.length
        ? unread.map(b => b.facts.to)
        : [absent(c.site.premises, what === 'water piping' ? 'waterBond' : 'gasBond')],
    )
  }
  let isOpen = false
  for (const bond of bonds) if (!isSettled(bond, what, c, least)) isOpen = true
  if (isOpen) return c.undecided('The bond has not been looked at closely')
  const [first] = bonds
  const size = first && c.ask(first.facts.size)
  const metal = first && c.ask(first.facts.metal)
  return size && metal
    ? c.clear(say('Bonded with {size} {metal}', { size: sizeName(size), metal }))
    : c.undecided()
}

/**
 * What somebody saw against the run of a bond, from its clamp to its other end. Whoever looked at the clamp and
 * followed the bond would have said so: nothing of it is asked for. 250.8, 250.12, 250.64(A), (B), 250.104.
 */
export function noteRun(bond: Subject<'bond'>, c: Context): void {
  const { facts } = bond
  const what = c.ask(facts.to)
  const place = whereSeen(facts.clampPlace) && c.ask(facts.clampPlace)
  if (place === 'behind a finish' && what !== 'communications') c.fails('clamp-hidden')
  if (place === 'on paint or a coating') c.fails('clamp-on-paint')
  if (whereSeen(facts.isSpliced) && c.ask(facts.isSpliced)) c.fails('spliced')
  if (what !== 'water piping' && what !== 'building steel') return
  const isNear = whereSeen(facts.isNearEarth) && c.ask(facts.isNearEarth)
  if (isNear && c.ask(facts.metal) === 'aluminum') c.fails('aluminum-near-earth')
  const isProtected = whereSeen(facts.isProtected) === undefined || c.ask(facts.isProtected)
  if (isProtected === false && c.ask(facts.size) === '8') c.fails('unprotected')
}

/** Notes what is wrong with one bond; false where something about it has not been seen. */
export function isSettled(
  bond: Subject<'bond'>,
  what: Bonded,
  c: Context,
  least?: Readonly<Record<'copper' | 'aluminum', Size>>,
): boolean {
  const connection = c.ask(bond.facts.connection)
  const size = c.ask(bond.facts.size)
  const metal = c.ask(bond.facts.metal)
  if (connection !== undefined && connection !== 'sound')
    c.fails('connection', { what, connection })
  const required = !metal
    ? undefined
    : least
      ? least[metal]
      : what === 'gas piping'
        ? gasSize(metal)
        : bySupply(c, metal)
  if (size && metal && required && sizeIndex(size) < sizeIndex(required))
    c.fails('too-small', { size: sizeName(size), metal, required: sizeName(required) })
  const lands = landing(bond, c)
  noteRun(bond, c)
  return Boolean(connection && size && metal && required) && lands
}

/** Where the other end is; notes the failure where it ties the pipe to something else than the service. */
function landing(bond: Subject<'bond'>, c: Context): boolean {
  const on = c.ask(bond.facts.landsOn)
  if (on !== undefined && !AT_SERVICE.has(on)) {
    c.fails('lands-elsewhere', { where: on })
    return true
  }
  if (on === 'grounding electrode conductor' || on === 'electrode of the service') return true
  const enclosure = c.site.get(c.ask(bond.facts.landsIn), 'enclosure')
  if (!enclosure) return false
  const role = roleOf(c.site, enclosure)
  c.rest(role.rests)
  if (role.value === 'load') c.fails('lands-elsewhere', { where: 'a panel after the service' })
  return role.value !== undefined
}

/**
 * A grounding electrode conductor to the water pipe that is sound and of full size bonds the piping too: nothing more
 * is asked for. 250.104(A), 250.53(D).
 */
export function isBondedByElectrode(c: Context): boolean {
  return c.site.all.electrode.some(electrode => {
    if (c.ask(electrode.facts.type) !== 'water pipe') return false
    const enclosure = c.site.get(c.ask(electrode.facts.landsIn), 'enclosure')
    if (!enclosure) return false
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined || role.value === 'load') return false
    const { value, rests } = soundnessOf(c.site, electrode, enclosure)
    c.rest(rests)
    return value.isSeen && value.faults.length === 0
  })
}

/** Sized by the service conductors, as for water piping. 250.104(A)(1), (C), 250.102(C). */
function bySupply(c: Context, metal: 'copper' | 'aluminum'): Size | undefined {
  const service = c.site.all.enclosure.find(e => roleOf(c.site, e).value === 'service')
  if (!service) return undefined
  c.rest(roleOf(c.site, service).rests)
  const conductors = serviceConductors(c.site, service, c)
  const size = conductors.size()
  const of = conductors.metal()
  return size && of
    ? electrodeConductorSize(size, of, metal, 'water pipe', conductors.sets())
    : undefined
}

/** Sized by the circuit likely to energize it: an ordinary 20 A circuit. 250.104(B), 250.122. */
const gasSize = (metal: 'copper' | 'aluminum'): Size | undefined => equipmentGroundSize(20, metal)
