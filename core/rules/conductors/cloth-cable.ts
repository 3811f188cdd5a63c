import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const clothCable = defineRule({
  id: 'cloth-cable',
  family: 'conductors',
  subject: 'segment',
  isHazard: true,
  title: 'Old cloth-covered cable is sound and known of',
  fault: 'Cloth-covered cable',
  consequence: 'Old insulation crumbles when it is moved; some insurers will not take it.',
  cites: [{ section: '334' }],
  checks: {
    cloth: { danger: 1, says: 'Cloth-covered cable: many insurers refuse it' },
    'cloth-damaged': { danger: 2, says: 'Cloth-covered cable, insulation {insulation}' },
  },
  triggers: [],
  remedies: ['replace-conductor'],
  traps: [
    'It is allowed to remain if sound; many insurers refuse it',
    'Look all the way down to where it enters',
  ],
  judge(segment, c) {
    const wiring = c.ask(segment.facts.wiring)
    if (wiring === undefined) return c.undecided('The wiring method has not been seen')
    if (wiring !== 'cloth NM') return c.na('Not cloth-covered cable')
    const purpose = c.ask(c.site.premises.facts.purpose)
    const insulation = c.ask(segment.facts.insulation)
    if (purpose === undefined || insulation === undefined)
      return c.undecided('Its condition, or who asks, is not known')
    if (purpose === 'insurance') return c.fault('cloth')
    if (insulation !== 'sound') return c.fault('cloth-damaged', { insulation })
    return c.mayStay(
      say('Sound: allowed to remain'),
      say(
        'Cloth-covered cable counts as 60 °C and has mostly no ground; its rubber dries out, and ' +
          'many insurers refuse it',
      ),
    )
  },
})
