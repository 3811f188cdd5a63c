import { DEMO_HOUSES } from '#core/examples/index'
import {
  effectsOf,
  FIELDS,
  Judged,
  Ledger,
  remediesFor,
  withChanges,
  Work,
  type Field,
  type House,
  type WorkChange,
} from '#core'
import { CASE_HOUSES } from '../../support/cases'
import { observe, type Node } from '../../support/house'

const LAWS = ['premises', 'override', 'amendment', 'adoption', 'visit']

/** Works offered in a house, each with what it would change. */
function offered(before: Judged): (readonly WorkChange[])[] {
  const works: (readonly WorkChange[])[] = []
  for (const r of before.results.values()) {
    if (r.outcome !== 'fault') continue
    for (const { remedy, advice } of remediesFor(r, before.site))
      if (advice.verdict === 'offered')
        works.push(...effectsOf(remedy.id, new Work(before.site, r)).slice(0, 2))
  }
  return works
}
/** What two judgments of one house say differently. */
function differences(partly: Judged, house: House): string[] {
  const whole = new Judged(house)
  const found: string[] = []
  for (const [key, is] of whole.results) {
    const was = partly.result(key)
    if (was?.outcome !== is.outcome || was.severity !== is.severity || was.why.text !== is.why.text)
      found.push(`${key}: ${was?.outcome} instead of ${is.outcome}`)
  }
  return found
}

/** Each is judged whole beside it: every one with CORVIT_TRIALS. */
const EVERY = process.env.CORVIT_TRIALS ? 1 : 3
describe.each(DEMO_HOUSES.slice(0, 2).map(d => [d.id, d] as const))('in %s', (_id, demo) => {
  const house = new Ledger(observe(demo.file() as Node)).house
  const before = new Judged(house)
  const works = offered(before)
  it('judging again what a work can turn says what judging everything says', () => {
    let partly = 0
    const some = works.filter((_, i) => i % EVERY === 0)
    for (const changes of some) {
      const after = before.after(changes)
      if (after.isPartly) partly++
      expect(differences(after, withChanges(house, changes))).toEqual([])
    }
    // Most works leave the shape of the house alone, and are the ones this is for.
    expect(partly).toBeGreaterThan(some.length / 2)
  })
  it('whatever single fact turns, of those that give no new shape', () => {
    const things = [...house.subjects.values()].filter(t => !LAWS.includes(t.kind))
    let tried = 0
    for (const [i, thing] of things.entries()) {
      if (i % EVERY !== 0) continue
      const fields = Object.entries(FIELDS[thing.kind] as Record<string, Field>).filter(
        ([, f]) => f.type === 'choice' || f.type === 'flag',
      )
      const [field, declared] = fields[(i * 7) % fields.length] ?? []
      if (field === undefined || declared === undefined) continue
      const value = declared.type === 'choice' ? (declared.options.at(i % 3) ?? true) : i % 2 === 0
      const changes: WorkChange[] = [{ act: 'note', subject: thing.id, field, value }]
      const after = before.after(changes)
      expect(after.isPartly).toBe(true)
      expect(differences(after, withChanges(house, changes))).toEqual([])
      tried++
    }
    expect(tried).toBeGreaterThan(60 / EVERY)
  })
  it('and so it does for one work after another', () => {
    let now = before
    let copy = house
    for (const changes of works.filter((_, i) => i % 7 === 0)) {
      now = now.after(changes)
      copy = withChanges(copy, changes)
    }
    expect(differences(now, copy)).toEqual([])
  })
})

describe('over every house of the case sets', () => {
  it('what is judged again partly is what is judged again whole', () => {
    let tried = 0
    for (const { house } of CASE_HOUSES) {
      const before = new Judged(house)
      for (const changes of offered(before)) {
        const after = before.after(changes)
        if (!after.isPartly) continue
        tried++
        expect(differences(after, withChanges(house, changes))).toEqual([])
      }
    }
    expect(tried).toBeGreaterThan(450)
  })
})
