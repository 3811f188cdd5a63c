import { readDropOf, readStateOf } from '../../derive/readings'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { absent } from '../../model/house'

/** A joint that takes this share of the supply is found and remade, whatever the whole drop is. */
const JOINT_PERCENT = 2
/** More than this under 12 to 15 A calls for finding where it is lost; it is no rule of the code. */
export const ORDINARY_PERCENT = 5

const WHERE = {
  hot: 'in the hot',
  neutral: 'in the neutral',
  both: 'in hot and neutral',
  unread: 'in hot or neutral',
} as const

/** What is lost under load is lost in the length of the wire, and not in a joint. */
export const voltageDrop = defineRule({
  id: 'voltage-drop',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'The drop under load is no more than the length of the run explains',
  fault: 'Joint with resistance ahead of the outlet',
  consequence: 'The joint heats inside a box or a wall whenever a large load runs.',
  cites: [{ section: '110.14' }],
  checks: {
    joint: {
      danger: 3,
      says:
        '{volts} V are lost under load and the run explains {most} V: a joint of about {ohms} Ω, ' +
        '{watts} W of heat, {side}',
    },
  },
  triggers: [],
  remedies: ['rewire-device'],
  traps: [
    'A long run of small wire loses more than 5 % without any bad joint',
    'Neutral to ground under the load shows which side it is on',
  ],
  judge(outlet, c) {
    const percent = c.ask(outlet.facts.dropPercent)
    if (percent === undefined) {
      const type = c.ask(outlet.facts.type)
      return type !== undefined && type !== 'receptacle'
        ? c.na('Nothing can be plugged in to load it')
        : c.undecided('No drop under load was recorded')
    }
    const { drop, size, rests } = readDropOf(c.site, outlet)
    c.rest(rests)
    if (!drop)
      return readStateOf(c.site, outlet)
        ? c.na('It carries no load: judged by the voltages read at it')
        : c.undecided(
            'It carries no load: what its voltages are has not been recorded',
            absent(outlet, 'hotNeutralV'),
          )
    if (percent <= ORDINARY_PERCENT)
      return c.clear(say('{percent} % lost under load is ordinary', { percent }))
    const { volts, ohms, watts, side } = drop
    const [least, most] = drop.ordinaryVolts
    if (drop.excessPercent >= JOINT_PERCENT)
      return c.fault('joint', { volts, most, ohms, watts, side: WHERE[side ?? 'unread'] })
    // What a long or a thin run explains, a short or a thick one does not.
    const runFt = c.ask(outlet.facts.runFt)
    const unexplained = (percent * (volts - least)) / volts
    if (unexplained >= JOINT_PERCENT && (runFt === undefined || size === undefined))
      return c.undecided(
        say(
          '{percent} % is ordinary on a long run of thin wire only, and that has not been measured',
          {
            percent,
          },
        ),
        [
          ...(runFt === undefined ? [outlet.facts.runFt] : []),
          ...(size === undefined ? [outlet.facts.size] : []),
        ],
      )
    return c.clear(say('{volts} V are lost under load, which the run explains', { volts }))
  },
})
