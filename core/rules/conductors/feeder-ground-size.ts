import { settled, open as openOn, type Conclusion } from '../../conclusions/truth'
import { aheadOf } from '../../derive/ahead'
import { feederGroundOf } from '../../derive/feeder-ground'
import { groundSizing } from '../../derive/ground-size'
import { GROUND_SIZE, groundSizeVerdict } from '../../derive/ground-size-verdict'
import { defineRule } from '../../engine/rule'
import { absent } from '../../model/house'

/** The grounding wire of a feeder against the device ahead. */
export const feederGroundSize = defineRule({
  ...GROUND_SIZE,
  id: 'feeder-ground-size',
  subject: 'feeder',
  traps: [
    'In a cable the ground is made with it; what was pulled into a pipe is gauged',
    'It need not be larger than the conductors it runs with',
  ],
  judge(feeder, c) {
    const ground = feederGroundOf(c.site, feeder)
    c.rest(ground.rests)
    if (ground.state === 'open')
      return c.undecided('Whether a grounding wire runs with it has not been seen')
    if (ground.value !== 'wire') return c.na('No grounding wire runs with it')
    const ahead = aheadOf(c.site, feeder)
    const { value, rests } = ahead
    if (value && value.amps === undefined) return c.na('Service conductors: no device ahead')
    const amps: Conclusion<number> =
      value?.amps === undefined
        ? openOn(
            rests.some(f => f.state !== 'known')
              ? rests.filter(f => f.state !== 'known')
              : [absent(feeder, 'from')],
            undefined,
            rests,
          )
        : settled(value.amps, rests)
    return groundSizeVerdict(groundSizing(feeder, amps), amps, {}, c)
  },
})
