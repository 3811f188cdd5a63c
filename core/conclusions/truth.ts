import type { FactRef } from '../model/house'

/**
 * What follows from facts: settled on a value, or open with the values it can still have and what is missing.
 * Conclusions are combined only by the functions of this folder, so that an unknown never turns into an answer.
 */
export type Conclusion<V> = Settled<V> | Open<V>
export interface Settled<V> {
  readonly state: 'settled'
  readonly value: V
  /** Everything it rests on. */
  readonly rests: readonly FactRef[]
}
export interface Open<V> {
  readonly state: 'open'
  /** The values it can still have, where they can be counted; undefined where they cannot. */
  readonly can: readonly V[] | undefined
  readonly rests: readonly FactRef[]
  /** Facts that would narrow it; never empty. */
  readonly missing: readonly FactRef[]
}
/** Kleene's third value is a truth that is open. */
export type Truth = Conclusion<boolean>

const BOTH: readonly boolean[] = [true, false]

export const settled = <V>(value: V, rests: readonly FactRef[] = []): Settled<V> => ({
  state: 'settled',
  value,
  rests,
})

/**
 * An open conclusion. With one value left it is settled on that, since nothing it waits for can turn it.
 * @param can the values it can still have; leave out where they cannot be counted
 */
export function open<V>(
  missing: readonly FactRef[],
  can?: readonly V[],
  rests: readonly FactRef[] = [],
): Conclusion<V> {
  if (missing.length === 0) throw new Error('an open conclusion names what it waits for')
  const distinct = can && [...new Set(can)]
  if (distinct?.length === 1) return settled(distinct[0]!, rests)
  return { state: 'open', can: distinct, rests, missing: unique(missing) }
}

/** A truth nobody can tell yet. */
export const unknown = (missing: readonly FactRef[], rests: readonly FactRef[] = []): Truth =>
  open(missing, BOTH, rests)

/** The conclusion that a fact is what was seen; open while nobody has looked or could look. */
export function of<V>(fact: FactRef, can?: readonly V[]): Conclusion<V> {
  return fact.state === 'known' ? settled(fact.value as V, [fact]) : open<V>([fact], can, [fact])
}

/** True where all are; false as soon as one is false, whatever else is open. */
export function all(...truths: readonly Truth[]): Truth {
  return decide(truths, false)
}
/** True as soon as one is, whatever else is open; false where all are. */
export function any(...truths: readonly Truth[]): Truth {
  return decide(truths, true)
}

/** `all` and `any` are one rule: a value that decides alone, and its opposite where nothing is open. */
function decide(truths: readonly Truth[], decisive: boolean): Truth {
  const deciding = truths.find(t => t.state === 'settled' && t.value === decisive)
  // The one that decides is enough; what the others rest on does not bear on the answer.
  if (deciding) return settled(decisive, deciding.rests)
  const rests = unique(truths.flatMap(t => t.rests))
  const waiting = truths.filter((t): t is Open<boolean> => t.state === 'open')
  if (waiting.length === 0) return settled(!decisive, rests)
  return unknown(
    waiting.flatMap(t => t.missing),
    rests,
  )
}

/** The opposite; what is open stays open. */
export const not = (truth: Truth): Truth => map(truth, value => !value)

/** What follows from a conclusion by a plain function; candidates follow along. */
export function map<V, W>(from: Conclusion<V>, follow: (value: V) => W): Conclusion<W> {
  if (from.state === 'settled') return settled(follow(from.value), from.rests)
  return open(from.missing, from.can?.map(follow), from.rests)
}

/**
 * What follows from a conclusion by another one. Where every candidate leads to the same settled value, that is the
 * answer, although nobody knows which candidate it is.
 */
export function pick<V, W>(
  from: Conclusion<V>,
  follow: (value: V) => Conclusion<W>,
): Conclusion<W> {
  if (from.state === 'settled') {
    const next = follow(from.value)
    const rests = unique([...from.rests, ...next.rests])
    return next.state === 'settled'
      ? settled(next.value, rests)
      : open(next.missing, next.can, rests)
  }
  if (from.can === undefined) return open<W>(from.missing, undefined, from.rests)
  const branches = from.can.map(follow)
  const rests = unique([...from.rests, ...branches.flatMap(b => b.rests)])
  const missing = [...from.missing, ...branches.flatMap(b => (b.state === 'open' ? b.missing : []))]
  const can: W[] = []
  for (const b of branches) {
    if (b.state === 'settled') can.push(b.value)
    else if (b.can === undefined) return open<W>(missing, undefined, rests)
    else can.push(...b.can)
  }
  return open(missing, can, rests)
}

/** Each fact once, in the order it was first named. */
export function unique(facts: readonly FactRef[]): FactRef[] {
  return facts.length <= FEW ? uniqueOfFew(facts) : uniqueOfMany(facts)
}
/** Up to so many are compared with each other sooner than a table of them is made. */
const FEW = 12

function uniqueOfFew(facts: readonly FactRef[]): FactRef[] {
  return facts.filter((fact, at) => {
    for (let i = 0; i < at; i++) if (isSame(facts[i] as FactRef, fact)) return false
    return true
  })
}
const isSame = (a: FactRef, b: FactRef) => a.subject === b.subject && a.field === b.field

function uniqueOfMany(facts: readonly FactRef[]): FactRef[] {
  const named = new Map<string, FactRef>()
  for (const fact of facts) {
    const key = `${fact.subject} ${fact.field}`
    if (!named.has(key)) named.set(key, fact)
  }
  return [...named.values()]
}
