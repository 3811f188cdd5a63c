import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const spliceOutsideBox = defineRule({
  id: 'splice-outside-box',
  family: 'points',
  subject: 'point',
  isHazard: true,
  title: 'Splices are in boxes',
  fault: 'Splice outside a box',
  cites: [{ section: '300.15' }, { section: '334.40(B)' }],
  triggers: [],
  remedies: ['box-for-splice'],
  traps: ['Listed tap devices for concealed repair of NM cable are allowed'],
  judge(point, c) {
    const place = c.ask(point.facts.splicePlace)
    if (place === undefined) return c.undecided(say('Where cables meet has not been seen'))
    return place === 'outside a box'
      ? c.fault(say('Splice outside a box'), { danger: 3 })
      : c.clear(say('Splices {place}', { place }))
  },
})
