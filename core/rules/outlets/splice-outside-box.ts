import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

export const spliceOutsideBox = defineRule({
  id: 'splice-outside-box',
  family: 'outlets',
  subject: 'outlet',
  isHazard: true,
  title: 'Splices are in boxes',
  fault: 'Splice outside a box',
  consequence: 'A failing splice can light what is around it.',
  cites: [{ section: '300.15' }, { section: '334.40(B)' }],
  checks: { 'outside-box': { danger: 3, says: 'Splice outside a box' } },
  triggers: [],
  remedies: ['box-for-splice'],
  traps: ['Listed tap devices for concealed repair of NM cable are allowed'],
  judge(outlet, c) {
    const place = c.ask(outlet.facts.splicePlace)
    if (place === undefined) return c.undecided(say('Where cables meet has not been seen'))
    return place === 'outside a box'
      ? c.fault('outside-box')
      : c.clear(say('Splices {place}', { place }))
  },
})
