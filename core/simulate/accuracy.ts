import { originsOf } from '../diagnosis/chain'
import { rank, type Ranking } from '../diagnosis/outlet'
import {
  HYPOTHESES,
  JOINT_STATES,
  nameOf,
  STATES,
  type OutletState,
  type ReadingName,
  type Readings,
} from '../diagnosis/states'
import { simulateCircuit } from './chain'
import { seeded } from './random'

export interface Accuracy {
  readonly circuits: number
  readonly outlets: number
  /** Outlets where two states show at once. */
  readonly twice: number
  /** Rows the true state, columns the state ranked first, with every reading taken; outlets with one state. */
  readonly confusion: Readonly<Record<OutletState, Readonly<Record<string, number>>>>
  /** Outlets with two states: how many, and how many of them both were ranked first. */
  readonly pairs: readonly {
    readonly name: string
    readonly outlets: number
    readonly first: number
  }[]
  readonly whole: Rates
  /** Readings left out at random, about six in ten. */
  readonly some: Rates
  /** Only the lamp tester and the voltages without a load: what most people take. */
  readonly quick: Rates
  /** Joints put in that every outlet behind them showed, and how many the chain named. */
  readonly joints: { readonly put: number; readonly named: number }
}
export interface Rates {
  readonly first: number
  readonly notRuledOut: number
  readonly single: number
  readonly wrongSingle: number
}

const QUICK: readonly ReadingName[] = ['hotNeutral', 'hotGround', 'neutralGround', 'lamps']

/**
 * Puts faults into circuits until so many outlets have been read, diagnoses the readings, and
 * counts how often the faults come back.
 */
export function accuracyOf(outlets: number, seed: number): Accuracy {
  const key = `${outlets} ${seed}`
  const known = COUNTED.get(key)
  if (known) return known
  const counted = count(outlets, seed)
  COUNTED.set(key, counted)
  return counted
}
/** The same seed gives the same circuits, so they are counted once. */
const COUNTED = new Map<string, Accuracy>()

function count(least: number, seed: number): Accuracy {
  const random = seeded(seed)
  const confusion = Object.fromEntries(
    STATES.map(s => [s, {} as Record<string, number>]),
  ) as Record<OutletState, Record<string, number>>
  const pairs = new Map(
    HYPOTHESES.filter(h => h.length === 2).map(h => [nameOf(h), { outlets: 0, first: 0 }]),
  )
  const tally = () => ({ first: 0, notRuledOut: 0, single: 0, wrongSingle: 0 })
  const counts = { whole: tally(), some: tally(), quick: tally() }
  const joints = { put: 0, named: 0 }
  let circuits = 0
  let outlets = 0
  let twice = 0
  while (outlets < least) {
    const circuit = simulateCircuit(random)
    circuits++
    const said = new Map<string, Ranking>()
    for (const o of circuit.outlets) {
      const truth = nameOf(o.truth)
      // Most outlets of a circuit have nothing wrong: of these one in six is counted, so that the
      // rates speak of faults.
      if (truth === 'good' && random() > 1 / 6) {
        said.set(o.id, rank(o.readings, o.setting))
        continue
      }
      outlets++
      const names = Object.keys(o.readings) as ReadingName[]
      const take = (keep: (n: ReadingName) => boolean): Readings =>
        Object.fromEntries(names.filter(keep).map(n => [n, o.readings[n]]))
      for (const [kind, readings] of [
        ['whole', o.readings],
        ['some', take(() => random() < 0.4)],
        ['quick', take(n => QUICK.includes(n))],
      ] as const) {
        const d = rank(readings, o.setting)
        const c = counts[kind]
        const first = d.states[0]!.state
        if (kind === 'whole') {
          said.set(o.id, d)
          const pair = pairs.get(truth)
          if (pair) {
            twice++
            pair.outlets++
            if (first === truth) pair.first++
          } else confusion[o.truth[0]][first] = (confusion[o.truth[0]][first] ?? 0) + 1
        }
        if (first === truth) c.first++
        if (!o.truth.some(s => d.ruledOut.includes(s))) c.notRuledOut++
        if (d.answer) c.single++
        if (d.answer && d.answer !== truth) c.wrongSingle++
      }
    }
    const [fault] = circuit.faults
    if (circuit.faults.length === 1 && JOINT_STATES.has(fault!.state)) {
      joints.put++
      const list = circuit.outlets.map(({ id, after }) => {
        const d = said.get(id)!
        return { id, after, state: d.states[0]!.state, fitting: d.fitting }
      })
      if (originsOf(list).some(o => o.state === fault!.state && o.first === fault!.at))
        joints.named++
    }
  }
  const rates = (c: ReturnType<typeof tally>): Rates => ({
    first: c.first / outlets,
    notRuledOut: c.notRuledOut / outlets,
    single: c.single / outlets,
    wrongSingle: c.wrongSingle,
  })
  return {
    circuits,
    outlets,
    twice,
    confusion,
    pairs: [...pairs].map(([name, p]) => ({ name, ...p })),
    whole: rates(counts.whole),
    some: rates(counts.some),
    quick: rates(counts.quick),
    joints,
  }
}
