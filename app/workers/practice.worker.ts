/** Makes a practice house beside the screen: faults are put in one by one until they show. */
import {
  BUDGETS,
  recorded,
  rulesOf,
  seeded,
  simulateHouse,
  type Difficulty,
  type Injected,
  type Observation,
  type Theme,
} from '#core'

export interface PracticeAsk {
  readonly seed: number
  readonly difficulty: Difficulty
  readonly theme: Theme
}
export type PracticeSay =
  | { kind: 'made'; log: readonly Observation[]; injected: readonly Injected[] }
  | { kind: 'failed'; message: string }

function make({ seed, difficulty, theme }: PracticeAsk): PracticeSay {
  const { faults, isSmall } = BUDGETS[difficulty]
  const house = simulateHouse(seed, { faults, isSmall, rules: rulesOf(theme) })
  const { log } = recorded(house, seeded(seed + 1))
  return { kind: 'made', log, injected: house.injected }
}

self.onmessage = ({ data }: MessageEvent<PracticeAsk>) => {
  try {
    self.postMessage(make(data))
  } catch (error) {
    self.postMessage({ kind: 'failed', message: (error as Error).message })
  }
}
