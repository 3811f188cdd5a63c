import { LuDecomposition, Matrix } from 'ml-matrix'
import { PathSolver } from '#core/paths/solve'
import { StarMesh, type Link } from '#core/paths/star-mesh'
import { seeded, type Random } from '#core/simulate/random'

interface Net {
  readonly count: number
  readonly links: readonly Link[]
  readonly conductances: readonly number[]
}
/** Node 0 is the earth, node 1 the source; a tree with cross links over so many decades of 1/Ω. */
function randomNet(random: Random, count: number, least: number, decades: number): Net {
  // A load at the source, so that something flows in any case.
  const links: Link[] = [{ from: 1, to: 0 }]
  for (let i = 2; i < count; i++) links.push({ from: i, to: Math.floor(random() * i) })
  for (let i = 0; i < count; i++) {
    const [from, to] = [Math.floor(random() * count), Math.floor(random() * count)]
    if (from !== to) links.push({ from, to })
  }
  return { count, links, conductances: links.map(() => least * 10 ** (random() * decades)) }
}
const solved = ({ count, links, conductances }: Net): Float64Array => {
  const volts = new Float64Array(count)
  volts[1] = 120
  return new StarMesh(count, links, [0, 1]).solve(conductances, volts)
}

const BITS = 120n
/** A double as a whole number of 2⁻¹²⁰. */
function exact(x: number): bigint {
  let shift = 0n
  let whole = x
  while (!Number.isInteger(whole)) {
    whole *= 2
    shift++
  }
  return BigInt(whole) << (BITS - shift)
}
/** Volts in whole numbers throughout (fraction-free elimination): nothing is rounded before the last division. */
function exactVolts({ count, links, conductances }: Net): number[] {
  const free = count - 2
  const a = Array.from({ length: free }, () => new Array<bigint>(free + 1).fill(0n))
  const row = (i: number) => a[i] as bigint[]
  const put = (i: number, j: number, value: bigint) => {
    row(i)[j] = (row(i)[j] as bigint) + value
  }
  links.forEach(({ from, to }, e) => {
    const g = exact(conductances[e] as number)
    for (const [i, j] of [
      [from - 2, to - 2],
      [to - 2, from - 2],
    ] as const) {
      if (i < 0) continue
      put(i, i, g)
      if (j >= 0) put(i, j, -g)
      else if (j === -1) put(i, free, 120n * g)
    }
  })
  let last = 1n
  for (let k = 0; k < free; k++)
    for (let i = 0; i < free; i++) {
      if (i === k) continue
      const [pivot, factor] = [row(k)[k] as bigint, row(i)[k] as bigint]
      if (i > k || factor !== 0n)
        for (let j = 0; j <= free; j++)
          row(i)[j] = (pivot * (row(i)[j] as bigint) - factor * (row(k)[j] as bigint)) / last
      if (i === free - 1 || (k === free - 1 && i === free - 2)) last = pivot
    }
  const scale = 300n
  return [
    0,
    120,
    ...Array.from(
      { length: free },
      (_, i) => Number(((row(i)[free] as bigint) << scale) / (row(i)[i] as bigint)) / 2 ** 300,
    ),
  ]
}

describe('true error, not residual', () => {
  it('over fifteen decades every node keeps twelve figures, against whole-number arithmetic', () => {
    const random = seeded(15)
    let worst = 0
    for (let k = 0; k < 300; k++) {
      const net = randomNet(random, 4 + Math.floor(random() * 9), 1e-12, 15)
      const [is, should] = [solved(net), exactVolts(net)]
      should.forEach((volts, i) => {
        if (volts !== 0) worst = Math.max(worst, Math.abs((is[i] as number) - volts) / volts)
      })
    }
    console.log(`300 networks over 15 decades: largest true error ${worst.toExponential(1)}`)
    expect(worst).toBeLessThan(1e-12)
  })

  it.each([1e-9, 1e-12])(
    'an isolated run of sixty heavy wires held by leaks of %s S to hot and to earth sits at 60 V',
    leak => {
      const links: Link[] = []
      for (let i = 2; i < 61; i++) links.push({ from: i, to: i + 1 })
      const conductances = links.map(() => 1000)
      links.push({ from: 1, to: 2 }, { from: 61, to: 0 })
      const volts = solved({ count: 62, links, conductances: [...conductances, leak, leak] })
      // Half way along sixty wires and two leaks; to either side the milliohms of the wires, at the leaking current.
      const amps = 120 / (2 / leak + 59 / 1000)
      for (let i = 2; i < 62; i++) {
        const should = 60 + (31.5 - i) * amps * 1e-3
        expect(Math.abs((volts[i] as number) - should)).toBeLessThan(60e-12)
      }
    },
  )

  it('a switch of 1000 S that opens to a thousand megohms keeps its digits', () => {
    // 1 (120 V) - switch - 2, with 1 µS to earth: 120 × 1e-9 / (1e-9 + 1e-6).
    const net = {
      count: 3,
      links: [
        { from: 1, to: 2 },
        { from: 2, to: 0 },
      ],
    }
    const mesh = new StarMesh(net.count, net.links, [0, 1])
    const volts = Float64Array.of(0, 120, 0)
    mesh.solve([1000, 1e-6], volts)
    mesh.solve([1e-9, 1e-6], volts)
    expect(volts[2]).toBeCloseTo((120 * 1e-9) / (1e-9 + 1e-6), 14)
  })
})

describe('against an independent solver', () => {
  it('1 000 random networks agree with a dense LU where that is accurate, and add up at every node', () => {
    const random = seeded(7)
    let apart = 0
    let worst = 0
    for (let k = 0; k < 1000; k++) {
      const net = randomNet(random, 4 + Math.floor(random() * 22), 1e-2, 5)
      const n = net.count
      const a = Matrix.zeros(n, n)
      const b = Matrix.zeros(n, 1)
      net.links.forEach(({ from, to }, e) => {
        const g = net.conductances[e] as number
        for (const [i, j] of [
          [from, to],
          [to, from],
        ] as const) {
          a.set(i, i, a.get(i, i) + g)
          a.set(i, j, a.get(i, j) - g)
        }
      })
      for (const [node, volts] of [
        [0, 0],
        [1, 120],
      ] as const) {
        for (let j = 0; j < n; j++) a.set(node, j, j === node ? 1 : 0)
        b.set(node, 0, volts)
      }
      const other = new LuDecomposition(a).solve(b).to1DArray()
      const solver = new PathSolver(n, 0, net.links, [{ from: 0, to: 1, volts: 120 }])
      const answer = solver.solve(net.conductances.map(g => 1 / g))
      worst = Math.max(worst, answer.residual)
      other.forEach((volts, i) => {
        apart = Math.max(apart, Math.abs(volts - (answer.volts[i] as number)))
      })
    }
    console.log(`residual ${worst.toExponential(1)}, apart ${apart.toExponential(1)} V`)
    expect(worst).toBeLessThan(1e-9)
    expect(apart).toBeLessThan(1e-8)
  })
})

describe('one edge dragged', () => {
  it('reads what a whole solution reads, at every position of the slider', () => {
    const random = seeded(3)
    for (let k = 0; k < 50; k++) {
      const net = randomNet(random, 20, 1e-2, 4)
      const link = Math.floor(random() * net.links.length)
      const mesh = new StarMesh(net.count, net.links, [0, 1])
      const held = Float64Array.from({ length: net.count }, (_, i) => (i === 1 ? 120 : 0))
      const at = mesh.drag(link, net.conductances, held)
      for (const factor of [0.1, 0.5, 1, 3, 10]) {
        const conductances = [...net.conductances]
        conductances[link] = (conductances[link] as number) * factor
        const whole = solved({ ...net, conductances })
        const dragged = at(conductances[link] as number)
        whole.forEach((volts, i) =>
          expect(Math.abs(volts - (dragged[i] as number))).toBeLessThan(1e-9),
        )
      }
    }
  })
})
