import fc from 'fast-check'
import { Network } from '#core/paths/network'

/** Volts at the nodes asked for. */
function solved(build: (net: Network) => number[]): number[] {
  const net = new Network()
  const asked = build(net)
  const volts = net.solve()
  return asked.map(n => Math.round(volts[n]! * 1000) / 1000)
}
const between = (net: Network, a: number, b: number, ohms: number) => net.join(a, b, 1 / ohms)

describe('resistive networks, by hand', () => {
  it('halves', () =>
    expect(
      solved(n => {
        const [s, e, m] = [n.node(120), n.node(0), n.node()]
        between(n, s, m, 100)
        between(n, m, e, 100)
        return [m]
      }),
    ).toEqual([60]))
  it('lost neutral, 1200 W and 300 W: 48 and 192 V', () => {
    const [mid] = solved(n => {
      const [a, b, m] = [n.node(120), n.node(-120), n.node()]
      between(n, a, m, 12)
      between(n, m, b, 48)
      return [m]
    })
    expect([120 - mid!, mid! + 120]).toEqual([48, 192])
  })
  it('fault to a frame on a 25 Ω rod, 5 Ω at the utility: 100 V on the frame, 4 A', () => {
    const [frame] = solved(n => {
      const [s, u, f] = [n.node(120), n.node(0), n.node()]
      const earth = n.node()
      n.join(s, f, 1e6)
      between(n, f, earth, 25)
      between(n, earth, u, 5)
      return [f, earth]
    })
    expect(frame).toBeCloseTo(120, 2)
  })
  it('10 A over neutral and ground of equal resistance: 5 and 5; with steel of twice that, 4, 4 and 2', () => {
    const shares = (...ohms: number[]) => {
      const net = new Network()
      const [far, home] = [net.node(), net.node(0)]
      for (const r of ohms) between(net, far, home, r)
      // 10 A sent in by a stiff source: 10 000 V through 1000 Ω less what the paths take.
      const source = net.node(10_000)
      between(net, source, far, 1000)
      const v = net.solve()[far]!
      const total = ohms.reduce((sum, r) => sum + v / r, 0)
      return ohms.map(r => Math.round((100 * v) / r / total) / 10)
    }
    expect(shares(0.1, 0.1)).toEqual([5, 5])
    expect(shares(0.1, 0.1, 0.2)).toEqual([4, 4, 2])
  })
  it('a nearly floating part keeps its volts', () => {
    const [floating] = solved(n => {
      const [s, e, f, g] = [n.node(120), n.node(0), n.node(), n.node()]
      n.join(s, f, 1e-12)
      n.join(f, g, 1e4)
      n.join(g, e, 3e-12)
      return [f]
    })
    expect(floating).toBeCloseTo(30, 3)
  })
  it('what nothing holds reads nothing', () =>
    expect(
      solved(n => {
        n.node(120)
        const lone = n.node()
        return [lone]
      }),
    ).toEqual([0]))
})

it('current into every free node is the current out of it, whatever the network', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(7), fc.nat(7), fc.double({ min: -9, max: 4, noNaN: true })), {
        minLength: 4,
        maxLength: 30,
      }),
      links => {
        const net = new Network()
        for (let i = 0; i < 8; i++) net.node(i === 0 ? 120 : i === 1 ? 0 : undefined)
        const joined = links
          .filter(([a, b]) => a !== b)
          .map(([a, b, power]) => [a, b, 10 ** power] as const)
        for (const [a, b, conductance] of joined) net.join(a, b, conductance)
        const v = net.solve()
        for (let node = 2; node < 8; node++) {
          const flows = joined
            .filter(([a, b]) => a === node || b === node)
            .map(([a, b, conductance]) => conductance * (v[a === node ? b : a]! - v[node]!))
          const size = flows.reduce((sum, f) => sum + Math.abs(f), 0)
          expect(Math.abs(flows.reduce((sum, f) => sum + f, 0))).toBeLessThanOrEqual(
            1e-9 + 1e-7 * size + 1e-11 * 120 * 1e4,
          )
          expect(v[node]!).toBeGreaterThanOrEqual(-1e-9)
          expect(v[node]!).toBeLessThanOrEqual(120 + 1e-9)
        }
      },
    ),
    { numRuns: 200, seed: 7 },
  )
})
