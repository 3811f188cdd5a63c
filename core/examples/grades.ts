/** How a hand-written house says how a fact is known. */
export type Node = Record<string, unknown>
export const told = (value: unknown): Node => ({ value, grade: 'told' })
export const measured = (value: unknown, instrument: string): Node => ({
  value,
  grade: 'measured',
  instrument,
})
export const gauge = (value: unknown): Node => ({ value, grade: 'gauge', instrument: 'wire gauge' })
export const read = (value: unknown): Node => ({ value, grade: 'read' })
export const blocked = (reason: string): Node => ({ blocked: reason })
