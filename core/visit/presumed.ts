import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import type { Covering, Scope } from './scope'

/**
 * Looks the trade does not take: what follows from what was seen well enough that nobody is sent for it. Presumed is
 * not settled: the judgment stays undecided, and the limitations say what was presumed.
 */
export interface Presumption {
  readonly id: 'no-work' | 'one-hot' | 'no-tap' | 'hidden'
  readonly says: string
}

const NO_WORK: Presumption = {
  id: 'no-work',
  says: 'No work is under way: what work would bring with it is not judged',
}
const ONE_HOT: Presumption = {
  id: 'one-hot',
  says: 'A cable of two conductors brings one hot: whether it borrows a neutral elsewhere was not traced',
}
const NO_TAP: Presumption = {
  id: 'no-tap',
  says: 'Runs are taken to be no taps with limits of their own',
}

const HIDDEN: Presumption = {
  id: 'hidden',
  says: 'How cable is fastened and bored through framing inside walls and ceilings was not seen',
}
const RUNS_HIDDEN: ReadonlySet<string> = new Set(['support', 'boring', 'isFished'])

/** Purposes at which work is what the visit is about. */
const ABOUT_WORK: ReadonlySet<string> = new Set(['service', 'remodel', 'final'])

/** Whether a visit asks for a fact of a thing: it lies in its scope, and the trade presumes nothing in its place. */
export const isAsked = (covering: Covering, subject: Subject, field: string): boolean =>
  presumedAt(covering.site, subject, field, covering.scope) === undefined &&
  covering.outside(subject, field) === undefined

/** What the trade presumes in place of a look, or undefined where the look is taken. */
export function presumedAt(
  site: Site,
  subject: Subject,
  field: string,
  scope: Scope,
): Presumption | undefined {
  // What is looked at all the way is presumed in nothing.
  if (scope.widened.has(subject.id)) return undefined
  if (field === 'work' || field === 'addsOutlets' || field === 'extensionFt')
    return ABOUT_WORK.has(scope.purpose) ? undefined : NO_WORK
  if (subject.kind === 'segment' && RUNS_HIDDEN.has(field))
    return ABOUT_WORK.has(scope.purpose) ? undefined : HIDDEN
  if (field === 'isTap' && (subject.kind === 'segment' || subject.kind === 'feeder')) return NO_TAP
  if (subject.kind === 'circuit' && field === 'sharesNeutralWith') {
    const runs = site.children(subject, 'segment')
    return runs.length > 0 && runs.every(r => valueOf(r, 'conductors') === 2) ? ONE_HOT : undefined
  }
  return undefined
}
