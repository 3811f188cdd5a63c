/** Folds and judges beside the screen, so that typing never waits for a judgement. */
import { LiveAssessment, type Change, type Observation } from '#core'

export interface JudgeRequest { run: number, start: boolean, observations: Observation[] }
export interface JudgeAnswer extends Change { run: number, start: boolean, ms: number }

let live = new LiveAssessment()

self.onmessage = ({ data }: MessageEvent<JudgeRequest>) => {
  const began = performance.now()
  if (data.start) live = new LiveAssessment()
  const change = live.append(data.observations)
  const answer: JudgeAnswer = { ...change, run: data.run, start: data.start, ms: performance.now() - began }
  self.postMessage(answer)
}
