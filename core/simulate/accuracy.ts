import { diagnose, STATES, type OutletState, type ReadingName, type Readings } from '../diagnosis/outlet'
import { seeded, simulateOutlet } from './outlets'

export interface Accuracy {
  readonly outlets: number
  /** Rows the true state, columns the state ranked first, with every reading taken. */
  readonly confusion: Readonly<Record<OutletState, Readonly<Record<OutletState, number>>>>
  readonly whole: Rates
  /** Readings left out at random, about six in ten. */
  readonly some: Rates
  /** Only the lamp tester and the voltages without a load: what most people take. */
  readonly quick: Rates
}
export interface Rates { readonly first: number, readonly notRuledOut: number, readonly single: number, readonly wrongSingle: number }

const QUICK: readonly ReadingName[] = ['hotNeutral', 'hotGround', 'neutralGround', 'lamps']

/** Puts faults into outlets, reads them, diagnoses the readings, and counts how often the fault comes back. */
export function accuracyOf(outlets: number, seed: number): Accuracy {
  const key = `${outlets} ${seed}`
  const known = COUNTED.get(key)
  if (known) return known
  const counted = count(outlets, seed)
  COUNTED.set(key, counted)
  return counted
}
/** The same seed gives the same outlets, so they are counted once. */
const COUNTED = new Map<string, Accuracy>()

function count(outlets: number, seed: number): Accuracy {
  const random = seeded(seed)
  const confusion = Object.fromEntries(STATES.map(s => [s, Object.fromEntries(STATES.map(t => [t, 0]))])) as Record<OutletState, Record<OutletState, number>>
  const tally = () => ({ first: 0, notRuledOut: 0, single: 0, wrongSingle: 0 })
  const counts = { whole: tally(), some: tally(), quick: tally() }
  for (let i = 0; i < outlets; i++) {
    const o = simulateOutlet(random)
    const names = Object.keys(o.readings) as ReadingName[]
    const take = (keep: (n: ReadingName) => boolean): Readings => Object.fromEntries(names.filter(keep).map(n => [n, o.readings[n]]))
    for (const [kind, readings] of [['whole', o.readings], ['some', take(() => random() < 0.4)], ['quick', take(n => QUICK.includes(n))]] as const) {
      const d = diagnose(readings, o.setting)
      const c = counts[kind]
      const first = d.states[0]!.state
      if (kind === 'whole') confusion[o.state][first]++
      if (first === o.state) c.first++
      if (!d.ruledOut.includes(o.state)) c.notRuledOut++
      if (d.answer) c.single++
      if (d.answer && d.answer !== o.state) c.wrongSingle++
    }
  }
  const rates = (c: ReturnType<typeof tally>): Rates => ({ first: c.first / outlets, notRuledOut: c.notRuledOut / outlets, single: c.single / outlets, wrongSingle: c.wrongSingle })
  return { outlets, confusion, whole: rates(counts.whole), some: rates(counts.some), quick: rates(counts.quick) }
}
