import type { House } from '../model/house'
import type { Paper } from './paper'
import { PLAN_PAPERS, planPaper } from './plan-papers'
import { REPORT_VOICES, reportPaper } from './report-papers'

/** Every paper there is: those of the accepted plan, and the report in each voice. */
export const PAPERS = [
  ...PLAN_PAPERS,
  'report-inspector',
  'report-electrician',
  'report-corrections',
  'report-household',
  'report-insurance',
  'report-rental',
] as const
export type PaperId = (typeof PAPERS)[number]

export function paperOf(house: House, id: PaperId): Paper {
  const voice = REPORT_VOICES.find(v => id === `report-${v}`)
  if (voice) return reportPaper(house, voice)
  const plan = PLAN_PAPERS.find(p => p === id)
  if (!plan) throw new Error(`no paper is called ${id}`)
  return planPaper(house, plan)
}
