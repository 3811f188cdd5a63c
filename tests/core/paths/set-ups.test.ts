import {
  bondMapOf,
  currentLayout,
  isSetUp,
  networkOf,
  PropertyTracer,
  setUpsOf,
  SET_UPS,
  sweepOf,
  teaching,
  type SetUp,
  type SetUpId,
} from '#core'
import { tarn } from '#core/examples/tarn'
import { siteOf, type Node } from '../../support/house'

const site = siteOf(teaching() as Node)
const network = networkOf(site)
const all = setUpsOf(site, network)
const of = (id: SetUpId): SetUp => {
  const found = all.find(s => s.id === id)
  if (!found || !isSetUp(found)) throw new Error(`no ${id}`)
  return found
}
const shown = (id: SetUpId, turned = of(id).slider.start) => {
  const setUp = of(id)
  const tracer = new PropertyTracer(site, setUp.changes(turned), network)
  const answer = tracer.trace()
  return { setUp, tracer, answer, says: setUp.explain(answer, turned).join(' ') }
}

describe('the set-ups of the teaching house', () => {
  it('are all there, each with a question and one right guess', () => {
    expect(all.map(s => s.id)).toEqual([...SET_UPS])
    for (const s of all.filter(isSetUp)) {
      expect(s.guesses.length).toBeGreaterThan(1)
      expect(s.guesses[s.right]).toBeDefined()
      expect(s.caution.length).toBeGreaterThan(20)
    }
  })
  it.each<[SetUpId, RegExp]>([
    ['normal', /only the difference, 3\.[5-9] A/],
    ['second-bond', /5\.\d A come back in the neutral, 4\.\d A in the grounding conductor/],
    [
      'ground-fault',
      /through Service panel.* times its 20 A: .*magnet.* \(a band, not a promise\)/,
    ],
    ['no-ground', /stands at 1(19|20) V.*flow 1\d\d mA/],
    ['only-a-rod', /4\.1 A through .* holds.*stays at 10\d V/],
    ['lost-neutral', /large one gets 48 V, the small one 19\d V/],
    ['one-leg', /add up: 2[45] A/],
    ['bad-joint', /14 A in 0\.2 Ω: 2\.8 V lost and (39|40) W/],
  ])('%s says what is seen in the numbers of the house', (id, words) => {
    expect(shown(id).says).toMatch(words)
  })
  it('a rod of better soil carries more, and still opens nothing', () => {
    const { answer } = shown('only-a-rod', 5)
    expect(answer.trips.every(t => t.withinSeconds === null)).toBe(true)
    expect(shown('only-a-rod', 1).says).toMatch(/2\d A through/)
  })
  it('what a slider turns is turned: twice the load, four times the heat', () => {
    const heat = (x: number) => {
      const { answer, setUp } = shown('bad-joint', x)
      const part = answer.branches.find(b => b.id === setUp.clamp[0])
      return (part?.amperes ?? 0) ** 2
    }
    expect(heat(16) / heat(8)).toBeCloseTo(4, 0)
  })
})

describe('their curves', () => {
  it.each(SET_UPS)('%s: from end to end of its slider, every point a number', id => {
    const setUp = of(id)
    const sweep = sweepOf(site, network, setUp)
    expect(sweep.points[0]?.x).toBe(setUp.slider.min)
    expect(sweep.points.at(-1)?.x).toBeCloseTo(setUp.slider.max, 9)
    for (const p of sweep.points) {
      expect(p.y).toHaveLength(sweep.series.length)
      expect(p.y.every(Number.isFinite)).toBe(true)
    }
  })
  it('shares add up to a hundred, and the neutral gives way as it gets worse', () => {
    const { points } = sweepOf(site, network, of('second-bond'))
    for (const p of points) expect((p.y[0] ?? 0) + (p.y[1] ?? 0)).toBeCloseTo(100, 6)
    expect(points.every((p, i) => i === 0 || (p.y[0] ?? 0) < (points[i - 1]?.y[0] ?? 0))).toBe(true)
  })
  it('halves of a lost neutral add up to 240 V, but for the wires', () => {
    for (const p of sweepOf(site, network, of('lost-neutral')).points)
      expect((p.y[0] ?? 0) + (p.y[1] ?? 0)).toBeGreaterThan(230)
  })
  it('a fault current falls with the length, from at once by the magnet to heat, and is told as a band', () => {
    const { points } = sweepOf(site, network, of('ground-fault'))
    expect(points.every((p, i) => i === 0 || (p.y[0] ?? 0) < (points[i - 1]?.y[0] ?? 0))).toBe(true)
    expect(points[0]?.says).toContain('magnet')
    expect(points.at(-1)?.says).toContain('heat')
  })
})

describe('a house that has no place for one', () => {
  const other = siteOf(tarn() as Node)
  it('says why, and never tries', () => {
    const found = setUpsOf(other, networkOf(other)).find(s => s.id === 'second-bond')
    expect(found).toMatchObject({ why: expect.stringContaining('No sub-panel') })
  })
  it('takes no load on a breaker of two poles for one on one leg', () => {
    const fault = setUpsOf(other, networkOf(other)).find(s => s.id === 'ground-fault')
    if (!fault || !isSetUp(fault)) throw new Error('no fault')
    const answer = new PropertyTracer(other, fault.changes(60)).trace()
    expect(Math.max(...answer.trips.map(t => t.amperes))).toBeGreaterThan(200)
  })
})

describe('where its conductors are drawn', () => {
  const layoutOf = (id: SetUpId, isWhole = false) => {
    const { setUp, tracer } = shown(id)
    return currentLayout(site, bondMapOf(site, []), tracer.network, setUp.focus, isWhole)
  }
  it('only what is on the way, or the whole house', () => {
    const labels = (isWhole: boolean) =>
      layoutOf('normal', isWhole)
        .nodes.map(n => n.node.label)
        .sort()
    expect(labels(false)).not.toContain('Sub-panel')
    expect(labels(true)).toContain('Sub-panel')
    expect(labels(false)).toEqual(expect.arrayContaining(['Utility', 'Service panel', 'Rod']))
  })
  it('each conductor once, beside the others, within the drawing', () => {
    const layout = layoutOf('second-bond')
    const parts = layout.lines.map(l => l.part)
    expect(new Set(parts).size).toBe(parts.length)
    expect(parts).toEqual(
      expect.arrayContaining(['feeder feed A', 'feeder feed N', 'feeder feed G']),
    )
    expect(new Set(layout.lines.map(l => `${l.tx} ${l.ty}`)).size).toBe(parts.length)
    for (const l of layout.lines) {
      expect(l.d).not.toContain('NaN')
      expect(l.tx).toBeLessThan(layout.width)
      expect(l.ty).toBeLessThan(layout.height)
    }
  })
  it('a bond to be switched in every panel, and metal to be told at outlets', () => {
    const { nodes } = layoutOf('second-bond')
    expect(nodes.filter(n => n.bond).map(n => n.bond)).toEqual(
      expect.arrayContaining(['bond service', 'bond sub']),
    )
    expect(nodes.find(n => n.isOutlet)?.frame).toBe('o-shop g')
  })
})
