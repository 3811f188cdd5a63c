import type { Result } from '../engine/evaluate'
import { PREMISES_ID, valueOf, type House, type Subject } from '../model/house'
import type { RULE_IDS } from '../model/rule-ids'
import { remedyById, type Remedy } from '../remedies'
import { labelOf } from '../texts/labels'
import { Site } from '../derive/site'
import { withChanges, type Change } from './change'
import { consequencesOf, Judged } from './consequences'
import { runFt } from './options'
import type { Plan } from './plan'
import { Work } from './work'

type RuleId = (typeof RULE_IDS)[number]

/** One work of the accepted plan, as the record holds it, with what it would change now. */
export interface PlannedWork {
  readonly task: string
  readonly order: number
  readonly choice: number
  readonly rule: string
  readonly subject: string
  readonly label: string
  readonly remedy: Remedy
  readonly stage: string
  readonly cents: number
  /** Length of the run it pulls, in feet, where anybody measured it. */
  readonly runFt: number | undefined
  readonly state: 'planned' | 'done' | 'given up'
  /** The house it finds: as the works before it leave it. */
  readonly before: House
  /** Amperes of the device ahead, where it has been read: sizes go by it. */
  readonly amps: number | undefined
  /** What it makes so; empty where the fault is gone already, or where that cannot be said before it is done. */
  readonly changes: readonly Change[]
}

/** An accepted plan as things of the record: one task for each work, in the order of its stages. */
export function tasksOf(plan: Plan, nextId: () => string): readonly Change[] {
  const changes: Change[] = []
  let order = 0
  for (const stage of plan.stages)
    for (const number of stage.choices)
      for (const step of plan.choices[number]?.option.steps ?? []) {
        const id = nextId()
        changes.push({ act: 'add', subject: id, kind: 'task', parent: PREMISES_ID })
        const facts = {
          order: order++,
          choice: number,
          rule: step.rule as RuleId,
          of: step.subject,
          remedy: step.remedy.id,
          stage: stage.title,
          cents: step.cost.cents,
          state: 'planned',
        }
        for (const [field, value] of Object.entries(facts))
          changes.push({ act: 'note', subject: id, field, value })
      }
  return changes
}

/** The tasks of a record in the order in which they are done; one without remedy or place is left out. */
export const tasksInOrder = (house: House): readonly Subject<'task'>[] =>
  [...house.subjects.values()]
    .filter((s): s is Subject<'task'> => s.kind === 'task')
    .filter(t => remedyById(valueOf(t, 'remedy') ?? '') && valueOf(t, 'of') !== undefined)
    .sort((a, b) => (valueOf(a, 'order') ?? 0) - (valueOf(b, 'order') ?? 0))

/**
 * What each planned work would change, worked out one after another: a later work finds the house as the earlier ones
 * leave it.
 */
export function worksOf(house: House): readonly PlannedWork[] {
  let now = new Judged(house)
  return tasksInOrder(house).flatMap(task => {
    const remedy = remedyById(valueOf(task, 'remedy') ?? '')
    const subject = valueOf(task, 'of') ?? ''
    const rule = valueOf(task, 'rule') ?? ''
    const thing = now.house.subjects.get(subject)
    if (!remedy) return []
    const state = valueOf(task, 'state') ?? 'planned'
    const changes = state === 'planned' ? changesOfWork(now, { rule, subject, remedy }) : []
    const finding = now.resultOf(rule, subject)
    const feet = finding && runFt(now, finding)
    const label = thing ? labelOf(now.site, thing) : subject
    const before = now.house
    const breaker = finding && new Work(now.site, finding).breaker
    const amps = breaker && valueOf(breaker, 'ratingAmps')
    if (changes.length > 0) now = now.after(changes)
    return {
      task: task.id,
      order: valueOf(task, 'order') ?? 0,
      choice: valueOf(task, 'choice') ?? 0,
      rule,
      subject,
      label,
      remedy,
      stage: valueOf(task, 'stage') ?? '',
      cents: valueOf(task, 'cents') ?? 0,
      runFt: feet,
      state,
      before,
      amps,
      changes,
    }
  })
}

/** What one work makes so in a house as it is now; nothing where its fault is gone. */
export function changesOfWork(
  now: Judged,
  work: { readonly rule: string; readonly subject: string; readonly remedy: Remedy },
): readonly Change[] {
  const finding: Result | undefined = now.resultOf(work.rule, work.subject)
  if (finding?.standing === undefined) return []
  return consequencesOf(now, finding, work.remedy.id).changes ?? []
}

/** What things are called once a work is done: those it adds have a name too. */
export function namesAfter(house: House, changes: readonly Change[]): (id: string) => string {
  const site = new Site(withChanges(house, changes))
  return id => {
    const thing = site.house.subjects.get(id) ?? house.subjects.get(id)
    return thing ? labelOf(site, thing) : id
  }
}
