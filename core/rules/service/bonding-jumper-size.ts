import { serviceConductors } from '../../derive/service-conductors'
import { roleOf } from '../../derive/service-role'
import type { Context } from '../../engine/context'
import { defineRule } from '../../engine/rule'
import { whereSeen, type Fact, type Subject, type Unseen } from '../../model/house'
import { sizeName } from '../../tables/allowed-device'
import { sizeIndex, type Size, type TableMetal } from '../../tables/ampacity'
import { electrodeConductorSize } from '../../tables/grounding'

/** Wires that carry a fault back at the service: the main bonding jumper, and the jumper of a bonding bushing. */
export const bondingJumperSize = defineRule({
  id: 'bonding-jumper-size',
  family: 'service',
  subject: 'enclosure',
  title: 'Bonding jumpers of the service are sound and of full size',
  fault: 'Bonding jumper of the service too small or unsound',
  consequence: 'In a fault the jumper can melt before anything opens, and leave the metal live.',
  tags: ['bond'],
  cites: [
    { section: '250.28(D)' },
    { section: '250.102(C)' },
    { section: '250.92(B)' },
    { section: '250.8' },
  ],
  checks: {
    'main-too-small': {
      danger: 3,
      says: 'Main bonding jumper of {size} {metal}; {least} required for {service}',
    },
    'supply-too-small': {
      danger: 3,
      says: 'Jumper of the bonding bushing {size} {metal}; {least} required for {service}',
    },
    'main-connection': { danger: 3, says: 'Main bonding jumper: {connection}' },
    'supply-connection': { danger: 3, says: 'Jumper of the bonding bushing: {connection}' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['larger-bonding-jumper'],
  traps: [
    'The screw or strap that came with the panel is not gauged: it is made for it',
    'Sized by the service conductors; several in parallel count by their areas together',
    'Never smaller than the grounding electrode conductor would have to be without its exceptions',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value === 'load') return c.na('After the service disconnect')
    const { facts } = enclosure
    let isOpen = false
    let jumpers = 0
    const judgeOne = (
      id: 'main-too-small' | 'supply-too-small',
      size: Fact<Size> | Unseen,
      metal: Fact<TableMetal> | Unseen,
    ) => {
      jumpers++
      if (!isSettled(enclosure, id, c.ask(size), c.ask(metal), c)) isOpen = true
    }
    if (role.value === 'service') {
      const means = c.ask(facts.bondMeans)
      if (means === undefined) isOpen = true
      if (means === 'wire jumper') {
        judgeOne('main-too-small', facts.jumperSize, facts.jumperMetal)
        noteEnds('main-connection', facts.jumperConnection, c)
      }
    }
    const raceway = c.ask(facts.serviceRaceway)
    const bond = raceway === 'metal raceway' ? c.ask(facts.racewayBond) : undefined
    if (raceway === undefined || (raceway === 'metal raceway' && bond === undefined)) isOpen = true
    if (bond === 'bonding bushing or jumper') {
      judgeOne('supply-too-small', facts.supplyJumperSize, facts.supplyJumperMetal)
      noteEnds('supply-connection', facts.supplyJumperConnection, c)
    }
    if (isOpen) return c.undecided('Not every bonding jumper of the service has been gauged')
    return jumpers === 0
      ? c.na('No bonding jumper of wire')
      : c.clear('Bonding jumpers large enough for the service conductors')
  },
})

/** What somebody saw at the ends of a jumper; whoever gauges it looks at them. 250.8. */
function noteEnds(
  id: 'main-connection' | 'supply-connection',
  ends: Fact<string> | Unseen,
  c: Context,
): void {
  const connection = whereSeen(ends) && c.ask(ends)
  if (connection !== undefined && connection !== 'sound') c.fails(id, { connection })
}

/** Judges one jumper; false where something about it has not been seen, or lies beyond the table. */
function isSettled(
  enclosure: Subject<'enclosure'>,
  id: 'main-too-small' | 'supply-too-small',
  size: Size | undefined,
  metal: TableMetal | undefined,
  c: Context,
): boolean {
  const conductors = serviceConductors(c.site, enclosure, c)
  const service = conductors.size()
  const serviceMetal = conductors.metal()
  const sets = conductors.sets()
  if (size === undefined || service === undefined) return false
  // What is not known of the metals is taken both ways.
  const metals: readonly TableMetal[] = metal ? [metal] : ['copper', 'aluminum']
  const services: readonly TableMetal[] = serviceMetal ? [serviceMetal] : ['copper', 'aluminum']
  const leasts = metals.flatMap(m =>
    services.map(s => electrodeConductorSize(service, s, m, 'jumper', sets)),
  )
  const small = leasts.map(l => (l === undefined ? undefined : sizeIndex(size) < sizeIndex(l)))
  const [least] = leasts
  if (small.every(s => s === true) && least !== undefined) {
    c.fails(id, {
      size: sizeName(size),
      metal: metal ?? 'conductor',
      least: sizeName(least),
      service: `${sets > 1 ? `${sets} × ` : ''}${sizeName(service)}`,
    })
    return true
  }
  return small.every(s => s === false)
}
