import { asTyped, assess, Ledger, quantity, render, say, typedIn, US_UNITS } from '#core'
import { hillside } from '#core/examples/hillside'
import { observe, type Node } from '../support/house'

const CELSIUS = { celsius: true }

describe('quantities as they are shown', () => {
  it.each([
    [50, '°C', '122 °F', '50 °C'],
    [-10, '°C', '14 °F', '-10 °C'],
    [40, 'Δ°C', '72 °F', '40 °C'],
    [6, 'ft', '6 ft', '6 ft'],
    [7.5, 'ft', '7 ft 6 in', '7 ft 6 in'],
    [0.5, 'ft', '6 in', '6 in'],
    [23, 'in', '23 in', '23 in'],
    [24, 'in', '2 ft', '2 ft'],
    [78, 'in', '6 ft 6 in', '6 ft 6 in'],
    [20, 'A', '20 A', '20 A'],
    [3, '', '3', '3'],
  ])('%p %s is %s, or %s', (value, unit, us, celsius) => {
    expect([quantity(value, unit), quantity(value, unit, CELSIUS)]).toEqual([us, celsius])
  })
  it('a sentence carries them', () => {
    const step = say('{air|°C}, {rise|Δ°C} over it, {n} scans', { air: 25, rise: 10, n: 2 })
    expect([render(step), render(step, CELSIUS)]).toEqual([
      '77 °F, 18 °F over it, 2 scans',
      '25 °C, 10 °C over it, 2 scans',
    ])
  })
  it('what is typed becomes the declared unit, and back', () => {
    for (const c of [-20, 0, 22, 25.5, 60]) {
      const there = typedIn('°C', US_UNITS)
      expect(there.unit).toBe('°F')
      expect(Math.abs(there.declared(asTyped(c, '°C')) - c)).toBeLessThan(0.3)
    }
    expect(typedIn('°C', CELSIUS).declared(40)).toBe(40)
    expect(typedIn('ft').declared(6)).toBe(6)
  })
})

it('a house is spoken in °F unless its settings say °C; files and comparisons keep the declared unit', () => {
  const spoken = (temperatures: string | undefined) => {
    const file = hillside() as Node & { premises: Node }
    if (temperatures) file.premises.temperatures = temperatures
    return assess(new Ledger(observe(file)).house).results.filter(r => r.rule === 'breaker-hot')
  }
  const [us, celsius] = [spoken(undefined), spoken('°C')].map(list => ({
    text: JSON.stringify(list.map(r => [r.why, r.working, r.evidence.map(e => e.value)])),
    compare: list.map(r => r.compare),
  }))
  expect(us!.text).toContain('°F')
  expect(us!.text).not.toContain('°C')
  expect(celsius!.text).toContain('°C')
  expect(celsius!.text).not.toContain('°F')
  expect(us!.compare).toEqual(celsius!.compare)
})
