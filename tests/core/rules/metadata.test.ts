import { readFileSync, writeFileSync } from 'node:fs'
import { citeIn, EDITIONS, RULES, type Rule } from '#core'
import { seeded } from '#core/simulate/random'
import { severityOf } from '#core/engine/severity'
import { panel, siteOf, oneOutlet } from '../../support/house'

/**
 * What stands in the rules besides their judging, written out in metadata.json to be held beside the code book:
 * sections by edition, the dangers of every check, since when, what work brings it along. After a change that is
 * meant, CORVIT_ANSWERS=1 writes the file anew, and the difference is read before it is kept.
 */
const FILE = 'tests/core/rules/metadata.json'
const metadataOf = (rule: Rule) => ({
  about: `${rule.family}, ${rule.subject}`,
  sections: Object.fromEntries(EDITIONS.map(e => [e, citeIn(rule.cites, e).join(', ')])),
  checks: Object.fromEntries(
    Object.entries(rule.checks).map(([id, c]) => [id, [c.danger].flat().join(' to ')]),
  ),
  since: rule.since ?? (rule.isHazard ? 'hazard' : 'always'),
  triggers: rule.triggers
    .map(t => (rule.triggersSince?.[t] ? `${t} from ${rule.triggersSince[t]}` : t))
    .join(', '),
  remedies: rule.remedies.join(', '),
  tags: rule.tags?.join(', ') ?? '',
  ...(rule.look && {
    look: rule.look.field,
    values: Object.fromEntries(
      Object.entries(rule.look.values).map(([value, meaning]) => [value, JSON.stringify(meaning)]),
    ),
    only: rule.look.only.map(o => JSON.stringify(o)),
  }),
})

describe('the metadata of the rules', () => {
  const now = Object.fromEntries(RULES.map(r => [r.id, metadataOf(r)]))
  if (process.env.CORVIT_ANSWERS === '1') writeFileSync(FILE, `${JSON.stringify(now, null, 1)}\n`)
  const kept = JSON.parse(readFileSync(FILE, 'utf8')) as typeof now
  it.each(RULES.map(r => r.id))('%s', id => {
    expect(now[id]).toEqual(kept[id])
  })
  it('nothing is kept of rules that are gone', () => {
    expect(Object.keys(kept).sort()).toEqual(RULES.map(r => r.id).sort())
  })
})

describe('severity', () => {
  const dry = siteOf(oneOutlet({ room: 'r' }, { rooms: [{ id: 'r', use: 'bedroom' }] }))
  const wet = siteOf(oneOutlet({ room: 'r' }, { rooms: [{ id: 'r', use: 'bathroom' }] }))
  const inBox = siteOf(panel([], { place: 'outdoors' }))
  const violation = { kind: 'violation when installed', turningYears: [], rests: [] } as never
  const old = { kind: 'allowed to remain', turningYears: [], rests: [] } as never
  const of = (site: typeof dry, danger: number, standing: never) => {
    const subject = site.get('p', 'outlet') ?? site.get('main', 'enclosure')!
    return severityOf({ danger } as never, standing, subject as never, site).severity
  }
  it('goes by danger, and one step up where people stand on wet or grounded floors', () => {
    expect([1, 2, 3, 4].map(d => of(dry, d, violation))).toEqual([
      'note',
      'upgrade',
      'repair',
      'make safe now',
    ])
    expect([1, 2, 3, 4].map(d => of(wet, d, violation))).toEqual([
      'note',
      'repair',
      'repair',
      'make safe now',
    ])
    expect([1, 2].map(d => of(inBox, d, violation))).toEqual(['note', 'repair'])
  })
  it('of what is allowed to remain is an upgrade, unless somebody may die of it', () => {
    expect([1, 2, 3, 4].map(d => of(dry, d, old))).toEqual([
      'note',
      'upgrade',
      'upgrade',
      'make safe now',
    ])
  })
  it('the random numbers of the simulations are the same on every machine', () => {
    const r = seeded(1)
    expect([r(), r()].map(x => x.toFixed(6))).toEqual(['0.627074', '0.002736'])
  })
})
