/**
 * The network solver against general linear algebra, on the same networks in one run: a house-like tree of wires with
 * five cross links in a hundred, loads and leaks to the earth, and the source behind its own resistance.
 */
import { lusolve, slu, sparse, type Matrix as Sparse } from 'mathjs'
import { CholeskyDecomposition, Matrix } from 'ml-matrix'
import { StarMesh, type Link } from '../../core/paths/star-mesh'
import { seeded } from '../../core/simulate/random'

interface Net {
  readonly count: number
  readonly links: readonly Link[]
  readonly conductances: Float64Array
}
/** Node 0 is the earth, node 1 the terminals of the source at 120 V. */
function houseLike(count: number, seed: number): Net {
  const random = seeded(seed)
  const links: Link[] = []
  const values: number[] = []
  const put = (from: number, to: number, ohms: number) => {
    links.push({ from, to })
    values.push(1 / ohms)
  }
  put(2, 1, 0.05)
  for (let i = 3; i < count; i++)
    put(i, random() < 0.75 ? i - 1 : 2 + Math.floor(random() * (i - 2)), 0.01 + 0.5 * random())
  for (let k = 0; k < count * 0.05; k++) {
    const [from, to] = [
      2 + Math.floor(random() * (count - 2)),
      2 + Math.floor(random() * (count - 2)),
    ]
    if (from !== to) put(from, to, 0.01 + 0.5 * random())
  }
  for (let i = 2; i < count; i++) if (random() < 0.3) put(i, 0, 10 + 1000 * random())
  return { count, links, conductances: Float64Array.from(values) }
}
/** Rows of the free nodes, and what the source puts in. */
function dense({ count, links, conductances }: Net): { rows: number[][]; right: number[] } {
  const n = count - 2
  const rows = Array.from({ length: n }, () => new Array<number>(n).fill(0))
  const right = new Array<number>(n).fill(0)
  links.forEach(({ from, to }, e) => {
    const g = conductances[e]!
    for (const [a, b] of [
      [from - 2, to - 2],
      [to - 2, from - 2],
    ] as const) {
      if (a < 0) continue
      rows[a]![a]! += g
      if (b >= 0) rows[a]![b]! -= g
      else if (b === -1) right[a]! += 120 * g
    }
  })
  return { rows, right }
}

const median = (times: number[]) =>
  times.sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? Infinity
const ROUNDS = 5
/** Milliseconds of one run each: warm, the ways in turn, so that a noisy moment meets them all. */
function compare(ways: readonly (() => unknown)[]): number[] {
  const laps = ways.map(run => {
    const began = performance.now()
    let n = 0
    while (performance.now() - began < 250) {
      run()
      n++
    }
    return Math.max(1, Math.ceil(n / 2))
  })
  const times: number[][] = ways.map(() => [])
  for (let round = 0; round < ROUNDS; round++)
    ways.forEach((run, w) => {
      const began = performance.now()
      for (let k = 0; k < laps[w]!; k++) run()
      times[w]!.push((performance.now() - began) / laps[w]!)
    })
  return times.map(median)
}

function main(): void {
  console.log('nodes   own        again      set up     mathjs slu          ml-matrix Cholesky')
  for (const count of [60, 200, 300, 500]) {
    const net = houseLike(count, 7 * count + 1)
    const { rows, right } = dense(net)
    const held = Float64Array.from({ length: count }, (_, i) => (i === 1 ? 120 : 0))
    const mesh = new StarMesh(count, net.links, [0, 1])
    const own = () => mesh.solve(net.conductances, held)
    const matrix = sparse(rows)
    const column = right.map(x => [x])
    const math = () => lusolve(slu(matrix, 1, 1e-3) as never, column) as unknown as Sparse
    const wide = new Matrix(rows)
    const tall = Matrix.columnVector(right)
    const cholesky = () => new CholeskyDecomposition(wide).solve(tall)
    const volts = Float64Array.from(own())
    const others = [(math().toArray() as number[][]).flat(), cholesky().to1DArray()]
    for (const other of others)
      other.forEach((v, i) => {
        if (Math.abs(v - volts[i + 2]!) > 1e-7)
          throw new Error(`they disagree at node ${i + 2} of ${count}`)
      })
    let step = 0
    const again = () => {
      const link = 1 + (step++ % (net.links.length - 1))
      const before = net.conductances[link]!
      net.conductances[link] = before * 0.5
      mesh.solve(net.conductances, held)
      net.conductances[link] = before
    }
    const setUp = () => new StarMesh(count, net.links, [0, 1]).solve(net.conductances, held)
    const [a, b, c, d, e] = compare([own, again, setUp, math, cholesky]) as [
      number,
      number,
      number,
      number,
      number,
    ]
    const ms = (x: number) => `${x.toFixed(4)} ms`.padEnd(11)
    console.log(
      String(count).padEnd(8) +
        ms(a) +
        ms(b) +
        ms(c) +
        `${ms(d)}${(d / a).toFixed(0).padStart(6)}x   ${ms(e)}${(e / a).toFixed(0).padStart(6)}x`,
    )
  }
  console.log('aims at 500 nodes: 65x and 3500x')
}
main()
