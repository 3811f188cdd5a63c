/** Works out options and plans beside the screen; a run that nobody wants any more is ended with the worker. */
import {
  acceptanceTests,
  builtFacts,
  changesOfWork,
  dangerOf,
  Judged,
  fieldOf,
  namesAfter,
  plainPlan,
  Planner,
  planHouse,
  remedyById,
  tasksOf,
  valueText,
  type AcceptanceTest,
  type BuiltFact,
  type Aim,
  type FrontierPoint,
  type GeneralSolver,
  type House,
  type Plan,
  type PlanScope,
  type WorkChange,
} from '#core'

import { generalSolverOf } from '#shared/general-solver'

export type PlainPlan = ReturnType<typeof plainPlan>
export interface Alternative {
  readonly id: 'cheapest' | 'rewire' | 'nothing'
  readonly total: number
  readonly cured: number
  readonly wallFt: number
  readonly buttons: number
  readonly status: Plan['status']
}
/** One thing that will be recorded as built, in words. */
export interface BuiltLine extends BuiltFact {
  readonly label: string
  readonly says: string
}
export type PlanAsk =
  | { kind: 'open'; run: number; house: House; scope: Omit<PlanScope, 'onProgress'> }
  | { kind: 'plan'; run: number; aim: Aim; budget?: number }
  | { kind: 'alternatives'; run: number; house: House; scope: Omit<PlanScope, 'onProgress'> }
  | { kind: 'work'; run: number; house: House; rule: string; subject: string; remedy: string }
export type PlanSay =
  | { kind: 'progress'; run: number; share: number }
  | {
      kind: 'opened'
      run: number
      findings: number
      danger: number
      frontier: readonly FrontierPoint[]
      ms: number
    }
  | { kind: 'planned'; run: number; plan: PlainPlan; tasks: readonly WorkChange[]; ms: number }
  | { kind: 'alternatives'; run: number; list: readonly Alternative[] }
  | {
      kind: 'work'
      run: number
      changes: readonly WorkChange[]
      tests: readonly (AcceptanceTest & { readonly label: string })[]
      built: readonly BuiltLine[]
    }
  | { kind: 'failed'; run: number; message: string }

let planner: Planner | undefined
const say = (answer: PlanSay) => {
  self.postMessage(answer)
}

/** More than a megabyte, so that only a house that needs it waits for it. */
async function loadGeneral(): Promise<GeneralSolver | undefined> {
  try {
    return await fetchGeneral()
  } catch {
    // Without a line it cannot be had: the plan then says that its gap is not known.
    return undefined
  }
}
async function fetchGeneral(): Promise<GeneralSolver> {
  const [{ default: load }, { default: url }] = await Promise.all([
    import('highs'),
    import('highs/runtime?url'),
  ])
  return generalSolverOf(await load({ locateFile: () => url }))
}

async function answer(ask: PlanAsk): Promise<void> {
  const { run } = ask
  const began = performance.now()
  if (ask.kind === 'open') {
    let said = 0
    planner = new Planner(ask.house, {
      ...ask.scope,
      onProgress: share => {
        if (share - said > 0.02) say({ kind: 'progress', run, share })
        if (share - said > 0.02) said = share
        return true
      },
    })
    say({
      kind: 'opened',
      run,
      findings: planner.findings.length,
      danger: planner.findings.reduce((n, f) => n + dangerOf(f), 0),
      frontier: planner.frontier.points,
      ms: performance.now() - began,
    })
  } else if (ask.kind === 'plan') {
    if (!planner) return
    const asked = planner
    let plan = asked.plan(ask.aim, ask.budget)
    if (plan.proof.gap === null && !asked.general) {
      asked.general = await loadGeneral()
      if (asked.general) plan = asked.plan(ask.aim, ask.budget)
    }
    say({
      kind: 'planned',
      run,
      plan: plainPlan(plan, asked.before.site, asked.book),
      tasks: tasksOf(plan, () => crypto.randomUUID()),
      ms: performance.now() - began,
    })
  } else if (ask.kind === 'alternatives')
    say({ kind: 'alternatives', run, list: alternatives(ask) })
  else {
    const now = new Judged(ask.house)
    const remedy = remedyById(ask.remedy)
    const changes = remedy ? changesOfWork(now, { ...ask, remedy }) : []
    const named = namesAfter(ask.house, changes)
    const tests = acceptanceTests(ask.house, changes).map(t => ({ ...t, label: named(t.subject) }))
    const built = builtFacts(ask.house, changes).flatMap((b): readonly BuiltLine[] => {
      const field = fieldOf(b.kind, b.field)
      // Where a thing stands in the house is drawn, not asked.
      if (!field || field.type === 'ref' || field.type === 'refs') return []
      const says = `${field.label}: ${valueText(field, b.value, now.site.units)}`
      return [{ ...b, label: named(b.subject), says }]
    })
    say({ kind: 'work', run, changes, tests, built })
  }
}

/** What else could be done about the same findings: the cheapest there is, new cable wherever it serves, nothing. */
function alternatives({ house, scope }: PlanAsk & { kind: 'alternatives' }): Alternative[] {
  const told = (id: Alternative['id'], plan: Plan): Alternative => ({
    id,
    total: plan.total,
    cured: new Set(plan.choices.flatMap(c => c.findings)).size,
    wallFt: plan.choices.reduce((n, c) => n + c.option.wallFt, 0),
    buttons: plan.choices.reduce((n, c) => n + c.option.buttons, 0),
    status: plan.status,
  })
  const { fix, prices } = scope
  const rewire = ['ungrounded-rewire', 'aluminum-rewire'].map(school => ({ school }))
  return [
    told('cheapest', planHouse(house, { fix, prices })),
    told('rewire', planHouse(house, { fix, prices, schools: rewire })),
    { id: 'nothing', total: 0, cured: 0, wallFt: 0, buttons: 0, status: 'planned' },
  ]
}

// One after another, as they were asked: an answer may wait for the general solver.
let answered = Promise.resolve()
self.onmessage = ({ data }: MessageEvent<PlanAsk>) => {
  answered = answered
    .then(() => answer(data))
    .catch((error: unknown) => {
      say({ kind: 'failed', run: data.run, message: (error as Error).message })
    })
}
