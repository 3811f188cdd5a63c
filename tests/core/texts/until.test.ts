import { assess, Ledger, RULES } from '#core'
import { worstOf } from '#core/engine/rule'
import { observe, oneOutlet, panel } from '../../support/house'

const results = (house: Parameters<typeof observe>[0]) =>
  assess(new Ledger(observe(house)).house).results

describe('the safe act while a judgment is open', () => {
  const all = [...results(oneOutlet({})), ...results(panel([], { hasSecondSource: undefined }))]
  it('is said of every open judgment that could be dangerous, and of no other', () => {
    const worst = new Map(RULES.map(r => [r.id, worstOf(r)]))
    const open = all.filter(r => r.outcome === 'undecided')
    expect(open.length).toBeGreaterThan(40)
    for (const r of all) {
      const isDangerous = r.outcome === 'undecided' && (worst.get(r.rule) ?? 0) >= 3
      expect([r.rule, r.until !== undefined]).toEqual([r.rule, isDangerous])
    }
  })
  it('is the rule’s own where it has one, else that of the thing', () => {
    const bond = all.find(r => r.rule === 'main-bond-missing' && r.outcome === 'undecided')
    expect(bond?.until).toContain('metal enclosure and pipe')
    const outlet = all.find(r => r.rule === 'bootleg-ground' && r.outcome === 'undecided')
    expect(outlet?.until).toContain('Plug in nothing')
  })
})
