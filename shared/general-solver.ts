/** The general solver of the planner: HiGHS, compiled to WebAssembly; loaded only where the own search gives up. */
import type { GeneralSolver } from '#core'

/** What is used of the package: a fresh model for each program, gone when it is solved. */
interface Highs {
  solve(
    program: string,
    options: { mip_rel_gap: number },
  ): { Status: string; Columns: Record<string, object> }
}
export class GeneralSolverError extends Error {
  override readonly name = 'GeneralSolverError'
  constructor(readonly status: string) {
    super(`the general solver ended with "${status}" instead of an answer`)
  }
}

/** @throws GeneralSolverError where it ends without an answer */
export const generalSolverOf = (highs: Highs): GeneralSolver => ({
  name: 'HiGHS',
  solve(program) {
    const { Status, Columns } = highs.solve(program, { mip_rel_gap: 0 })
    if (Status === 'Infeasible') return undefined
    if (Status !== 'Optimal') throw new GeneralSolverError(Status)
    const isOne = (column: object) => 'Primal' in column && Number(column.Primal) > 0.5
    return new Set(Object.entries(Columns).flatMap(([name, c]) => (isOne(c) ? [name] : [])))
  },
})
