import { isolationPlan } from '#core'
import { bakehouse } from '#core/examples/bakehouse'
import { hillside } from '#core/examples/hillside'
import { panel, siteOf, type Node } from '../../support/house'

const hill = siteOf(hillside() as Node)
const bake = siteOf(bakehouse() as Node)
const plan = (site: typeof hill, id: string) => isolationPlan(site, site.house.subjects.get(id)!)
const offs = (p: ReturnType<typeof plan>) =>
  p.steps.filter(s => s.act === 'switch off').map(s => s.subject)

describe('isolation plan', () => {
  it('one half of a multiwire circuit takes both breakers', () => {
    expect(offs(plan(hill, 'counter-left')).sort()).toEqual(['main/5', 'main/9'])
    expect(plan(hill, 'counter-left').steps.some(s => s.text.includes('shared neutral'))).toBe(true)
  })
  it('work in a sub-panel takes the breaker its feeder starts at, not its own main', () => {
    const p = plan(hill, 'studio-panel')
    expect(offs(p)).toEqual(['main/2'])
    expect(p.steps.some(s => s.text.includes('its own main off would not'))).toBe(true)
    expect(p.staysLive.some(l => l.subject === 'studio-panel')).toBe(false)
  })
  it('work at a breaker means the whole panel dead; in the service panel the line side stays live', () => {
    const p = plan(hill, 'main/7')
    expect(offs(p)).toEqual(['main'])
    expect(p.staysLive[0]!.what).toContain('line lugs')
  })
  it('a meter is for the utility', () =>
    expect(plan(hill, 'meter').open.join()).toContain('only the utility'))
  it('the other half of a twin stays live', () =>
    expect(plan(bake, 'shop-lights').staysLive.some(l => l.why.includes('twin'))).toBe(true))
  it('a jumpered third bar and the upper half of a split bus stay live', () => {
    expect(plan(bake, 'shop').staysLive.some(l => l.what.includes('third bar'))).toBe(true)
    expect(plan(bake, 'flat-rooms').staysLive.some(l => l.what.includes('upper half'))).toBe(true)
  })
  it('what nobody has traced makes it not to be relied on', () => {
    const site = siteOf({
      ...panel([]),
      circuits: [{ id: 'c', label: 'shed' }],
      outlets: [{ id: 'p', type: 'receptacle' }],
    })
    expect(plan(site, 'c').open.join()).toContain('which breaker feeds')
    expect(plan(site, 'p').open.join()).toContain('which circuit')
    expect(plan(hill, 'attic-disconnect').open.length).toBeGreaterThan(0)
  })
  it('a second source not looked for, or its breaker not found, is said', () => {
    const open = (more: Node) =>
      plan(
        siteOf(
          panel(
            [{ id: 'b', space: 1, poles: 1, circuit: { id: 'c', sharesNeutralWith: [] } }],
            more,
          ),
        ),
        'c',
      ).open.join()
    expect(open({ hasSecondSource: { blocked: 'cover painted shut' } })).toContain(
      'generator, solar or battery',
    )
    expect(open({ hasSecondSource: true })).toContain('where the second source')
    expect(open({ hasSecondSource: false })).toBe('')
  })
  it('every plan proves the tester before and after, and ends with a tag', () => {
    for (const site of [hill, bake]) {
      for (const subject of [
        ...site.all.enclosure,
        ...site.all.breaker,
        ...site.all.circuit,
        ...site.all.outlet,
        ...site.all.feeder,
      ]) {
        const p = isolationPlan(site, subject)
        const text = p.steps.map(s => s.text).join('|')
        expect(text).toMatch(/Prove the tester on.*Prove the tester again/)
        expect(p.tag[0]).toBe('DO NOT SWITCH ON')
        expect(offs(p).length > 0 || p.open.length > 0).toBe(true)
      }
    }
  })
})
