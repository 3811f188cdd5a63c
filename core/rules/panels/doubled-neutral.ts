import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'

/** One neutral, and nothing else, under one terminal screw. */
export const doubledNeutral = defineRule({
  id: 'doubled-neutral',
  family: 'panels',
  subject: 'bar',
  title: 'Each neutral lands alone under its terminal screw',
  fault: 'Two neutrals, or a neutral and a ground, under one screw',
  consequence: 'Loosening one neutral can open another, and appliances can see too much voltage.',
  cites: [{ section: '408.41' }, { section: '110.14(A)' }, { section: '110.3(B)' }],
  checks: {
    'neutral-shares-screw': {
      danger: 2,
      says: 'More than one conductor with a neutral under screw {screws}',
    },
    'too-many-grounds': {
      danger: 1,
      says: 'More grounds under screw {screws} than the label allows ({allowed})',
    },
  },
  triggers: ['replaced'],
  remedies: ['one-per-terminal', 'extra-bar'],
  traps: [
    'Grounds may share a screw as far as the panel label allows',
    'Before 2002 the listing of the panel said the same',
  ],
  judge(bar, c) {
    const screws = c.site.children(bar, 'screw')
    const doubled: string[] = []
    const tooMany: string[] = []
    let isOpen = false
    let perScrew: number | undefined
    for (const screw of screws) {
      const neutrals = c.ask(screw.facts.neutrals)
      const grounds = c.ask(screw.facts.grounds)
      const name = String(c.ask(screw.facts.position) ?? '?')
      const [n, g] = [neutrals ?? 0, grounds ?? 0]
      if (n >= 2 || (n >= 1 && g >= 1)) doubled.push(name)
      else if (neutrals === undefined || grounds === undefined) isOpen = true
      else if (grounds >= 2) {
        perScrew = c.ask(bar.facts.groundsPerScrew)
        if (perScrew === undefined) isOpen = true
        else if (grounds > perScrew) tooMany.push(name)
      }
    }
    if (doubled.length > 0)
      c.fails(
        'neutral-shares-screw',
        {
          screws: doubled.join(', '),
        },
        {
          working: [
            say(
              'a neutral shares its terminal with nothing: loosening one conductor opens the other',
            ),
            say('said outright since the 2002 edition; before that by the listing of the terminal'),
          ],
        },
      )
    if (tooMany.length > 0)
      c.fails('too-many-grounds', {
        screws: tooMany.join(', '),
        allowed: perScrew!,
      })
    const areAllSeen = c.ask(bar.facts.areAllScrewsSeen)
    if (isOpen || areAllSeen !== true)
      return c.undecided(
        'Not every screw has been looked at',
        areAllSeen === false
          ? [...c.asked.filter(f => f.state !== 'known'), bar.facts.areAllScrewsSeen]
          : undefined,
      )
    return c.clear('Every screw looked at; no neutral shares one')
  },
})
