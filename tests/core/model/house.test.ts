import { judgeOne, ruleById, Site, type House, type Subject } from '#core'
import { lacksGround } from '#core/derive/ground'
import { Context } from '#core/engine/context'
import { factIn, listReads, placeOf, watchReads } from '#core/model/house'
import { oneOutlet, siteOf } from '../../support/house'

const outletIn = (site: Site): Subject<'outlet'> => site.all.outlet[0]!
const site = siteOf(oneOutlet({ type: 'receptacle', condition: 'sound' }))
const outlet = outletIn(site)
const cracked = { ...outlet.facts.condition, value: 'cracked' as const }
const judged = (house: House, subject: Subject) => {
  const at = new Site(house)
  return judgeOne(ruleById('device-worn')!, subject, new Context(at)).outcome
}

describe('a fact by the place of its field', () => {
  it.each(['name', 'type', 'condition', 'groundOhms'] as const)(
    'is the one of the name: %s',
    field => {
      expect(factIn(outlet, placeOf('outlet', field), field)).toBe(outlet.facts[field])
    },
  )
  it('says which kind has no such field', () => {
    expect(() => placeOf('room', 'groundOhms')).toThrow('room has no field groundOhms')
  })
  it('is read by name on a copy with other facts, which is judged by those', () => {
    expect(judged(site.house, outlet)).toBe('clear')
    const copy = { ...outlet, facts: { ...outlet.facts, condition: cracked } } as Subject<'outlet'>
    const place = placeOf('outlet', 'condition')
    expect(factIn(copy, place, 'condition')).toBe(cracked)
    const subjects = new Map(site.house.subjects).set(outlet.id, copy)
    expect(judged({ subjects }, copy)).toBe('fault')
  })
  it('is read by name through a proxy, as a reactive view puts one before everything', () => {
    const behind = new Proxy(outlet, {})
    const place = placeOf('outlet', 'type')
    expect(behind.inOrder).toBeUndefined()
    expect(factIn(behind, place, 'type')).toBe(outlet.facts.type)
  })
})

describe('what a verdict lacks', () => {
  it('is found when somebody asks', () => {
    expect(typeof lacksGround([], outlet)).toBe('function')
  })
  it('is found at once while reads are listed or noted, so that a change of what it reads is noticed', () => {
    const listed: string[] = []
    listReads(listed, () => lacksGround([], outlet))
    expect(listed).toContain(`${outlet.id} groundOhms`)
    const noted = new Set<string>()
    watchReads(noted, () => lacksGround([], outlet))
    expect(noted).toContain('groundOhms')
  })
})
