/** Folds and judges beside the screen, so that typing never waits for a judgment. */
import {
  assess,
  LiveAssessment,
  reportPaper,
  unsettledOf,
  type Change,
  type Observation,
  type Paper,
  type ReportVoice,
  type Unsettled,
} from '#core'

export type JudgeRequest =
  | { kind: 'log'; run: number; start: boolean; observations: Observation[] }
  | { kind: 'report'; run: number; voice: ReportVoice }
export type JudgeAnswer =
  | (Change & { kind: 'judged'; run: number; start: boolean; ms: number })
  | { kind: 'report'; run: number; report: Written }
/** A report, and what has to be closed or disclosed before it is signed. */
export interface Written {
  readonly paper: Paper
  readonly unsettled: Unsettled
}

let live = new LiveAssessment()

self.onmessage = ({ data }: MessageEvent<JudgeRequest>) => {
  if (data.kind === 'report') {
    const { house } = live.ledger
    const judged = assess(house)
    const report = {
      paper: reportPaper(house, data.voice, judged),
      unsettled: unsettledOf(house, judged),
    }
    self.postMessage({ kind: 'report', run: data.run, report } satisfies JudgeAnswer)
    return
  }
  const began = performance.now()
  if (data.start) live = new LiveAssessment()
  const change = live.append(data.observations)
  const ms = performance.now() - began
  self.postMessage({
    ...change,
    kind: 'judged',
    run: data.run,
    start: data.start,
    ms,
  } satisfies JudgeAnswer)
}
