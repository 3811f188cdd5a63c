import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { DEPTH_IN, HEIGHT_IN, LESS_HEIGHT_AMPS, WIDTH_IN } from '../../tables/working-space'

/** Room to stand, to work and to get away: depth, width, height, a door that opens, kept clear. */
export const workingSpace = defineRule({
  id: 'working-space',
  family: 'panels',
  subject: 'enclosure',
  title: 'There is room to work in front: 36 in deep, 30 in wide, 6½ ft high, kept clear',
  fault: 'Not enough working space',
  consequence: 'Whoever works there, or must shut off in a hurry, cannot do it safely.',
  cites: [{ section: '110.26(A)' }, { section: '110.26(B)' }],
  checks: {
    'space-too-small': { danger: 2, says: '{what} {left} in, {right} in required' },
    'door-under-90': { danger: 2, says: 'The door opens less than 90°' },
    'no-room-to-stand': { danger: 2, says: 'Nobody can stand upright in front of it' },
    'no-way-out': { danger: 2, says: 'No way out past it if something goes wrong' },
    'space-used': { danger: 1, says: 'Something stands in the space' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['clear-space', 'relocate-panel'],
  traps: [
    'The width may lie to either side: the enclosure need not be in the middle',
    'In existing dwellings service equipment and panels up to 200 A may have less height',
    'Depth counts from the face, or from the cover where it is enclosed',
  ],
  judge(enclosure, c) {
    const type = c.ask(enclosure.facts.type)
    if (type === 'meter') return c.na('Utility meter enclosure')
    const depth = c.ask(enclosure.facts.workingDepthIn)
    const width = c.ask(enclosure.facts.workingWidthIn)
    const height = c.ask(enclosure.facts.workingHeightIn)
    const own = c.ask(enclosure.facts.widthIn)
    const door = c.ask(enclosure.facts.door)
    const isClear = c.ask(enclosure.facts.isKeptClear)
    const escape = c.ask(enclosure.facts.escape)
    if (type === undefined) return c.undecided()
    const short = (what: string, left: number, right: number) =>
      c.fails(
        'space-too-small',
        { what, left, right },
        {
          compare: { left, leftLabel: what, sign: '<', right, rightLabel: 'required', unit: 'in' },
        },
      )
    if (depth !== undefined && depth < DEPTH_IN) short('depth', depth, DEPTH_IN)
    const wide = Math.max(WIDTH_IN, own ?? WIDTH_IN)
    if (width !== undefined && width < wide) short('width', width, wide)
    if (door === 'less than 90°') c.fails('door-under-90')
    if (escape === 'must sit or kneel' || escape === 'no way out past it')
      c.fails(escape === 'must sit or kneel' ? 'no-room-to-stand' : 'no-way-out')
    if (height !== undefined && height < HEIGHT_IN) {
      const amps =
        type === 'panel' ? c.ask(enclosure.facts.busAmps) : c.ask(enclosure.facts.mainAmps)
      if (amps === undefined)
        return c.undecided(
          say('{height} in high: enough only for an existing panel of 200 A or less', { height }),
        )
      const work = c.ask(enclosure.facts.work)
      if (amps > LESS_HEIGHT_AMPS || work === 'new') short('height', height, HEIGHT_IN)
      if (work === undefined)
        return c.undecided(say('{height} in high: enough only for an existing panel', { height }))
    }
    if (isClear === false) c.fails('space-used')
    if (
      depth === undefined ||
      width === undefined ||
      height === undefined ||
      own === undefined ||
      door === undefined ||
      isClear === undefined ||
      escape === undefined
    )
      return c.undecided('Not all of it has been measured')
    return c.clear(
      say('{depth} in deep, {width} in wide, {height} in high, clear', { depth, width, height }),
    )
  },
})
