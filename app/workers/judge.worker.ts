/** Folds and judges beside the screen, so that typing never waits for a judgment. */
import {
  LiveAssessment,
  writeReport,
  type Change,
  type Observation,
  type Report,
  type Voice,
} from '#core'

export type JudgeRequest =
  | { kind: 'log'; run: number; start: boolean; observations: Observation[] }
  | { kind: 'report'; run: number; voice: Voice }
export type JudgeAnswer =
  | (Change & { kind: 'judged'; run: number; start: boolean; ms: number })
  | { kind: 'report'; run: number; report: Report }

let live = new LiveAssessment()

self.onmessage = ({ data }: MessageEvent<JudgeRequest>) => {
  if (data.kind === 'report') {
    const report = writeReport(live.ledger.house, data.voice)
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
