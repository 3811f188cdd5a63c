import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { holdsNoDevice } from '../../derive/box'
import { groundOf, openGround } from '../../derive/ground'

export const groundCarriedFromUngroundedGfci = defineRule({
  id: 'ground-carried-from-ungrounded-gfci',
  family: 'points',
  subject: 'point',
  title: 'No ground runs on from a protected device that has none',
  fault: 'Ground carried on from an ungrounded device',
  cites: [{ section: '406.4(D)(2)' }],
  triggers: ['replaced', 'new'],
  remedies: ['cut-ground-on'],
  traps: [
    'It ties the frames of further appliances together and to nothing: one fault makes all of them live',
  ],
  judge(point, c) {
    if (holdsNoDevice(c.ask(point.facts.type))) return c.na(say('No device here'))
    const protection = c.ask(point.facts.protection)
    if (protection !== undefined && protection !== 'GFCI' && protection !== 'dual')
      return c.na(say('No ground-fault device here'))
    const ground = groundOf(c.site, point)
    c.rest(ground.rests)
    if (ground.value === 'good') return c.na(say('It has a ground'))
    const carries = c.ask(point.facts.carriesGroundOn)
    if (protection === undefined || ground.value === undefined || carries === undefined)
      return c.undecided(
        say('Whether it has a ground, or one runs on from it, has not been seen'),
        [],
        [...openGround(ground.rests, point), ...c.asked].filter(f => f.state !== 'known'),
      )
    return carries
      ? c.fault(say('A grounding conductor runs on from a device that has no ground'), {
          danger: 3,
        })
      : c.clear(say('None runs on'))
  },
})
