import { sizeIndex } from '../../tables/ampacity'
import { sizeName } from '../../tables/allowed-device'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** A single-gang plastic box needs no clamp where the cable is fastened within this, inches. 314.17(C). */
const FASTENED_IN = 8

/** Cables enter through a fitting that spares them the edge of the metal. */
export const cableUnprotectedAtEntry = defineRule({
  id: 'cable-unprotected-at-entry',
  family: 'conductors',
  subject: 'segment',
  title: 'Every cable enters through a clamp, connector or bushing',
  fault: 'Cable entry without a fitting',
  consequence: 'The metal edge can cut the cable.',
  cites: [{ section: '312.5(C)' }, { section: '300.4(G)' }, { section: '314.17' }],
  checks: {
    'no-clamp-or-bushing': { danger: 2, says: 'No clamp or bushing where it enters' },
    'jacket-ends-early': {
      danger: 2,
      says: 'The jacket ends before the fitting: ¼ in of it belongs inside',
    },
    'fastened-too-far': { danger: 1, says: 'No clamp, and fastened only {inches} in from the box' },
    'no-insulating-bushing': { danger: 2, says: '{size} in pipe without an insulating bushing' },
  },
  triggers: ['extended', 'new'],
  remedies: ['entry-fitting'],
  traps: [
    'A single-gang plastic box needs no clamp where the cable is fastened within 8 in',
    'In pipe, 4 AWG and larger need an insulating bushing; smaller do not',
    'A quarter inch of jacket belongs inside',
  ],
  judge(segment, c) {
    const entry = c.ask(segment.facts.entry)
    if (entry === undefined) return c.undecided('The entry has not been looked at')
    switch (entry) {
      case 'none':
        return c.fault('no-clamp-or-bushing')
      case 'jacket ends before the fitting':
        return c.fault('jacket-ends-early')
      case 'none, single-gang plastic box': {
        const inches = c.ask(segment.facts.fastenedAtBoxIn)
        if (inches === undefined)
          return c.undecided(
            say(
              'A single-gang plastic box needs no clamp if the cable is fastened within {most} in',
              { most: FASTENED_IN },
            ),
          )
        const compare = {
          left: inches,
          leftLabel: 'fastened at',
          sign: inches > FASTENED_IN ? '>' : inches < FASTENED_IN ? '<' : '=',
          right: FASTENED_IN,
          rightLabel: 'allowed',
          unit: 'in',
        } as const
        return inches > FASTENED_IN
          ? c.fault('fastened-too-far', { inches }, { compare })
          : c.clear(
              say('A single-gang plastic box, fastened {inches} in from it', { inches }),
              [],
              compare,
            )
      }
      case 'pipe end without insulating bushing': {
        const size = c.ask(segment.facts.size)
        if (size === undefined)
          return c.undecided(
            'An insulating bushing is required from 4 AWG on, and the conductor has not been gauged',
          )
        return sizeIndex(size) >= sizeIndex('4')
          ? c.fault('no-insulating-bushing', { size: sizeName(size) })
          : c.clear(
              say('{size}: no insulating bushing required below 4 AWG', { size: sizeName(size) }),
            )
      }
      default:
        return c.clear(say('Entry: {entry}', { entry }))
    }
  },
})
