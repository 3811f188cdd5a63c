import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Context } from '../../engine/context'
import type { Subject } from '../../model/house'
import { electrodeConductorSize, ROD_SPACING_FT, SINGLE_ROD_OHMS } from '../../tables/grounding'
import { sizeIndex } from '../../tables/ampacity'
import { sizeName } from '../../tables/allowed-device'
import type { Danger } from '../../engine/verdict'
import type { Step } from '../../engine/say'

type Found = { fault: Step; danger: Danger } | 'open' | undefined

/** The service has an electrode, and a conductor to it that is whole, large enough and lands where the neutral is. */
export const electrodeConductor = defineRule({
  id: 'electrode-conductor',
  family: 'service',
  subject: 'enclosure',
  title: 'A sound electrode conductor of full size runs to an electrode',
  fault: 'Electrode conductor missing, too small or unsound',
  cites: [
    { section: '250.24(D)' },
    { section: '250.50' },
    { section: '250.53(A)(2)' },
    { section: '250.53(B)' },
    { section: '250.53(D)(2)' },
    { section: '250.64' },
    { section: '250.66' },
    { section: '250.70' },
  ],
  triggers: ['replaced', 'new'],
  remedies: ['electrode-conductor', 'second-rod', 'ground-rod-only'],
  traps: [
    'The sole connection to a rod need not be larger than 6 Cu, to a concrete-encased electrode ' +
      'than 4 Cu; larger is no fault',
    'One rod or plate is enough only at 25 Ω or less',
    'A water pipe alone is not enough: it wants another electrode beside it',
    'A rod never makes a fault trip: the bond to the neutral does',
  ],
  judge(enclosure, c) {
    const role = c.site.roleOf(enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided(say('Which enclosure is the service disconnect is not settled'))
    if (role.value !== 'service') return c.na(say('Not the service disconnect'))
    const seen = c.ask(enclosure.facts.electrodes)
    if (seen === 'none found')
      return c.fault(say('No electrode conductor found at the service'), { danger: 3 })
    if (seen === undefined) return c.undecided(say('Nobody has looked for the electrode conductor'))
    const landings = c.site.all.electrode.map(e => ({ electrode: e, at: c.ask(e.facts.landsIn) }))
    const electrodes = landings.filter(x => x.at === enclosure.id).map(x => x.electrode)
    // One whose landing nobody has followed may land here: it opens the judgement, and turns nothing.
    const adrift = landings.filter(x => x.at === undefined).map(x => x.electrode.facts.landsIn)
    if (electrodes.length === 0)
      return c.undecided(
        say('It is there, and where it goes has not been recorded'),
        [],
        adrift.length ? adrift : [{ state: 'unseen', subject: enclosure.id, field: 'electrodes' }],
      )
    let isOpen = adrift.length > 0
    for (const electrode of electrodes) {
      const found = look(electrode, enclosure, c)
      if (found === 'open') isOpen = true
      else if (found) return c.fault(found.fault, { danger: found.danger })
    }
    const types = electrodes.map(e => c.ask(e.facts.type))
    if (adrift.length === 0 && types.every(t => t === 'water pipe'))
      return c.fault(say('The water pipe is the only electrode: it wants another beside it'), {
        danger: 2,
      })
    // Rods, plates and pipes of one's own driving are enough alone only at a low resistance; others need no measuring.
    const driven = electrodes.filter((_, i) => types[i] === 'rod' || types[i] === 'plate')
    if (
      types.every(t => t === 'rod' || t === 'plate' || t === 'water pipe' || t === undefined) &&
      driven.length > 0 &&
      types.filter(t => t !== 'water pipe').length === driven.length
    ) {
      const ohms = driven.map(e => c.ask(e.facts.ohms))
      if (!ohms.some(o => o !== undefined && o <= SINGLE_ROD_OHMS)) {
        const counts = driven.map(
          e => c.ask(e.facts.rods) ?? (types[electrodes.indexOf(e)] === 'plate' ? 1 : undefined),
        )
        const spacings = driven.map(e => c.ask(e.facts.spacingFt))
        const near = spacings.find(x => x !== undefined && x < ROD_SPACING_FT)
        const count = counts.reduce<number>((n, x) => n + (x ?? 1), 0)
        if (count > 1 && near !== undefined)
          return c.fault(
            say('Rods {spacing} ft apart: less than {least} ft', {
              spacing: near,
              least: ROD_SPACING_FT,
            }),
            { danger: 1 },
          )
        if (counts.includes(undefined)) isOpen = true
        else if (count === 1) {
          const only = ohms[0]
          if (only === undefined)
            return c.undecided(
              say(
                'One rod, and its resistance has not been measured: measure it or drive a second',
              ),
              [],
              [driven[0]!.facts.ohms, ...adrift],
            )
          if (adrift.length === 0)
            return c.fault(
              say('One rod of {ohms} Ω: more than {most} Ω wants a second', {
                ohms: only,
                most: SINGLE_ROD_OHMS,
              }),
              { danger: 2 },
            )
        } else if (spacings.every(x => x === undefined)) isOpen = true
      }
    } else if (types.includes(undefined)) isOpen = true
    return isOpen
      ? c.undecided(say('Not all of the electrode and its conductor has been looked at'))
      : c.clear(say('Electrode conductor whole and large enough'))
  },
})

function look(electrode: Subject<'electrode'>, enclosure: Subject<'enclosure'>, c: Context): Found {
  const type = c.ask(electrode.facts.type)
  const connection = c.ask(electrode.facts.connection)
  const isSpliced = c.ask(electrode.facts.isSpliced)
  const landsOn = c.ask(electrode.facts.landsOn)
  const size = c.ask(electrode.facts.size)
  const metal = c.ask(electrode.facts.metal)
  const service = c.ask(enclosure.facts.serviceSize)
  const serviceMetal = c.ask(enclosure.facts.serviceMetal)
  if (landsOn === 'isolated bar' || landsOn === 'nothing')
    return {
      fault: say('The electrode conductor lands on {where}: it ties nothing', {
        where: landsOn === 'nothing' ? 'nothing' : 'an isolated bar',
      }),
      danger: 3,
    }
  if (connection === 'loose' || connection === 'corroded' || connection === 'not a listed clamp')
    return { fault: say('Electrode connection: {connection}', { connection }), danger: 2 }
  if (isSpliced)
    return { fault: say('Electrode conductor spliced other than by crimp or weld'), danger: 2 }
  if (type === 'water pipe') {
    const isJumpered = c.ask(electrode.facts.isJumpered)
    if (isJumpered === false)
      return {
        fault: say('No jumper round the meter or filter: taking it out opens the electrode'),
        danger: 2,
      }
    if (isJumpered === undefined) return 'open'
  }
  if (
    size === undefined ||
    metal === undefined ||
    service === undefined ||
    serviceMetal === undefined ||
    type === undefined ||
    landsOn === undefined ||
    isSpliced === undefined ||
    connection === undefined
  )
    return 'open'
  const least = electrodeConductorSize(service, serviceMetal, metal, type)
  if (least === undefined) return 'open'
  return sizeIndex(size) < sizeIndex(least)
    ? {
        fault: say('{size} {metal} to the {type}; {least} wanted for {service} {serviceMetal}', {
          size: sizeName(size),
          metal,
          type,
          least: sizeName(least),
          service: sizeName(service),
          serviceMetal,
        }),
        danger: 2,
      }
    : undefined
}
