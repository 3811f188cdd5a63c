import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const clothCable = defineRule({
  id: 'cloth-cable',
  family: 'points',
  subject: 'segment',
  isHazard: true,
  title: 'Old cloth-covered cable is sound and known of',
  fault: 'Cloth-covered cable',
  cites: [{ section: '334' }],
  triggers: [],
  remedies: ['replace-conductor'],
  traps: [
    'It may stay if sound; many insurers refuse it',
    'Look all the way down to where it enters',
  ],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring === undefined) return c.undecided(say('The wiring method has not been seen'))
    if (wiring !== 'cloth NM') return c.na(say('Not cloth-covered cable'))
    const purpose = c.ask(c.site.premises.facts.purpose)
    const insulation = c.ask(segment.facts.insulation)
    if (purpose === undefined || insulation === undefined)
      return c.undecided(say('Its condition, or who asks, is not known'))
    if (purpose === 'insurance')
      return c.fault(say('Cloth-covered cable: many insurers refuse it'), { danger: 1 })
    if (insulation !== 'sound')
      return c.fault(say('Cloth-covered cable, insulation {insulation}', { insulation }), {
        danger: 2,
      })
    return c.mayStay(
      say('Sound: may stay'),
      say(
        'Cloth-covered cable counts as 60 °C and has mostly no ground; its rubber dries out, and ' +
          'many insurers refuse it',
      ),
    )
  },
})
