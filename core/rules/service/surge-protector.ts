import type { FactRef, Subject } from '../../model/house'
import { roleOf } from '../../derive/service-role'
import { ALWAYS } from '../../tables/years'
import { defineRule } from '../../engine/rule'

export const surgeProtector = defineRule({
  id: 'surge-protector',
  family: 'service',
  subject: 'enclosure',
  title: 'A new or replaced dwelling service has a surge protector that works',
  fault: 'Surge protector missing or failed',
  consequence: 'Electronics and protective devices can be destroyed by surges.',
  cites: [
    { section: '230.67', from: 2020 },
    { section: '242.13', from: 2020 },
    { section: '285', until: 2019 },
  ],
  checks: {
    'signals-failure': {
      danger: 1,
      says: 'The surge protector signals failure: it protects nothing',
    },
    'no-protector': { danger: 1, says: 'No surge protector' },
  },
  since: 2020,
  triggers: ['replaced', 'new'],
  remedies: ['fit-surge'],
  traps: [
    'Before the 2020 edition it is a recommendation',
    'One whose light signals failure protects nothing',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'service') return c.na('Not the service disconnect')
    const surge = c.ask(enclosure.facts.surge)
    if (surge === undefined) return c.undecided('Nobody has looked for it')
    if (surge === 'signals failed') return c.fault('signals-failure', {}, { since: ALWAYS })
    if (surge === 'present') return c.clear('Present, and signals well')
    // It may stand at the next panel toward the load instead; a panel nobody traced may be that one.
    const next = c.site.all.enclosure.filter(
      e => e.id !== enclosure.id && (c.ask(e.facts.type) ?? 'panel') === 'panel',
    )
    const isFedHere = (e: Subject<'enclosure'>): boolean | undefined => {
      const source = c.ask(e.facts.fedFrom)
      if (source === undefined) return undefined
      const feeder = c.site.get(source, 'feeder')
      if (!feeder) return false
      const start = c.ask(feeder.facts.from)
      if (start === undefined) return undefined
      return start === enclosure.id || c.site.get(start, 'breaker')?.parent === enclosure.id
    }
    const open: FactRef[] = []
    for (const panel of next) {
      const isNext = isFedHere(panel)
      if (isNext === false) continue
      const there = c.ask(panel.facts.surge)
      if (there === 'present' && isNext) return c.clear('Present at the next panel')
      if (there === undefined) open.push(panel.facts.surge)
      else if (there === 'present') open.push(panel.facts.fedFrom)
    }
    if (open.length > 0)
      return c.undecided('None here; the next panel has not been looked at', open)
    return c.fault('no-protector')
  },
})
