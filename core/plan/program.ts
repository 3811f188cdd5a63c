/**
 * What the planner's own search cannot express or bound is put as a program of yes and no, for a general solver that
 * is handed in: the core itself loads none.
 */
import type { Action } from './cover'
import type { Option } from './options'

/** A solver of programs in LP format whose columns are all 0 or 1; exact. */
export interface GeneralSolver {
  readonly name: string
  /** @returns the names of the columns that are 1, or undefined where there is no solution */
  solve(program: string): ReadonlySet<string> | undefined
}
/** A set that was found wanting: of these actions exactly those are not taken again. */
export interface Refused {
  readonly set: readonly number[]
  readonly among: readonly number[]
}

const sum = (terms: readonly string[]): string => terms.join('\n + ')
const lines = (
  aim: string,
  objective: readonly string[],
  rows: readonly string[],
  columns: readonly string[],
): string =>
  [
    aim,
    ` obj: ${sum(objective)}`,
    'Subject To',
    ...rows.map((r, n) => ` r${n}: ${r}`),
    'Binary',
    ` ${columns.join('\n ')}`,
    'End',
  ].join('\n')
/** At least one of the set is left out, or another is taken. */
function refusal({ set, among }: Refused): string {
  const inside = new Set(set)
  const others = among.filter(i => !inside.has(i)).map(i => ` - x${i}`)
  return `${sum(set.map(i => `x${i}`))}${others.join('\n')} <= ${set.length - 1}`
}
const leaning = (needs: number | undefined, i: number): readonly string[] =>
  needs === undefined ? [] : [`x${i} - x${needs} <= 0`]
const numbersOf = (ones: ReadonlySet<string>): number[] =>
  [...ones]
    .filter(name => /^x\d+$/.test(name))
    .map(name => Number(name.slice(1)))
    .sort((a, b) => a - b)

/**
 * The lightest of these actions that cover all these faults.
 * @returns numbers of the actions, or undefined where a fault has none left
 */
export function lightestByProgram(
  faults: readonly number[],
  own: readonly number[],
  actions: readonly Action[],
  refused: readonly Refused[],
  general: GeneralSolver,
): readonly number[] | undefined {
  const usable = [...new Set(own.flatMap(i => [actions[i]?.needs ?? i, i]))].filter(
    i => (actions[i]?.weight ?? Infinity) < Infinity,
  )
  const covering = new Map(faults.map(f => [f, [] as string[]]))
  for (const i of usable) for (const f of actions[i]?.covers ?? []) covering.get(f)?.push(`x${i}`)
  if ([...covering.values()].some(list => list.length === 0)) return undefined
  if (faults.length === 0) return []
  const rows = [
    ...[...covering.values()].map(list => `${sum(list)} >= 1`),
    ...usable.flatMap(i => leaning(actions[i]?.needs, i)),
    ...refused.map(refusal),
  ]
  const objective = usable.map(i => `${actions[i]?.weight ?? 0} x${i}`)
  const ones = general.solve(
    lines(
      'Minimize',
      objective,
      rows,
      usable.map(i => `x${i}`),
    ),
  )
  return ones && numbersOf(ones)
}

export interface BudgetQuestion {
  readonly options: readonly Option[]
  /** Key and danger of what can be taken away. */
  readonly worths: readonly { readonly key: string; readonly danger: number }[]
  readonly mustHave: readonly string[]
  readonly callOut: number
  readonly permit: number
  readonly budget: number
}
/**
 * The most danger a budget takes away, for the least money that does it.
 * @returns numbers of the options; none where the budget reaches for nothing, or not for what must be there
 */
export function budgetByProgram(
  { options, worths, mustHave, callOut, permit, budget }: BudgetQuestion,
  refused: readonly Refused[],
  general: GeneralSolver,
): readonly number[] {
  const covering = new Map([...worths.map(w => w.key), ...mustHave].map(k => [k, [] as string[]]))
  options.forEach((o, i) => {
    for (const key of o.fixes) covering.get(key)?.push(`x${i}`)
  })
  if (mustHave.some(key => covering.get(key)?.length === 0)) return []
  const reachable = worths
    .map((w, n) => ({ ...w, name: `y${n}`, by: covering.get(w.key) ?? [] }))
    .filter(w => w.by.length > 0)
  if (reachable.length === 0) return []
  const spent = [
    ...options.map((o, i) => `${o.cents} x${i}`),
    `${callOut} called`,
    `${permit} permitted`,
  ]
  const rows = [
    ...reachable.map(w => `${w.name} ${w.by.map(x => `- ${x}`).join('\n ')} <= 0`),
    ...mustHave.map(key => `${sum(covering.get(key) ?? [])} >= 1`),
    ...options.flatMap((o, i) => [
      `x${i} - called <= 0`,
      ...(o.needsPermit ? [`x${i} - permitted <= 0`] : []),
      ...leaning(o.needs, i),
    ]),
    `${sum(spent)} <= ${budget}`,
    ...refused.map(refusal),
  ]
  const columns = [
    ...reachable.map(w => w.name),
    ...options.map((_, i) => `x${i}`),
    'called',
    'permitted',
  ]
  const gone = reachable.map(w => `${w.danger} ${w.name}`)
  const most = general.solve(lines('Maximize', gone, rows, columns))
  if (!most) return []
  const danger = reachable.reduce((n, w) => n + (most.has(w.name) ? w.danger : 0), 0)
  const cheapest = general.solve(
    lines('Minimize', spent, [...rows, `${sum(gone)} >= ${danger}`], columns),
  )
  return numbersOf(cheapest ?? most)
}
