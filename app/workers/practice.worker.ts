/** Makes a practice house beside the screen: faults are put in one by one until they show. */
import {
  authorHouse,
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

/** A house drawn from a number, or a recorded one with faults put in beside its own. */
export type PracticeAsk = { readonly seed: number; readonly theme: Theme } & (
  | { readonly difficulty: Difficulty }
  | { readonly log: readonly Observation[]; readonly faults: number }
)
export type PracticeSay =
  | { kind: 'made'; log: readonly Observation[]; injected: readonly Injected[] }
  | { kind: 'failed'; message: string }

function make(ask: PracticeAsk): PracticeSay {
  const rules = rulesOf(ask.theme)
  if ('log' in ask)
    return { kind: 'made', ...authorHouse(ask.log, ask.seed, { faults: ask.faults, rules }) }
  const { faults, isSmall } = BUDGETS[ask.difficulty]
  const house = simulateHouse(ask.seed, { faults, isSmall, rules })
  const { log } = recorded(house, seeded(ask.seed + 1))
  return { kind: 'made', log, injected: house.injected }
}

self.onmessage = ({ data }: MessageEvent<PracticeAsk>) => {
  try {
    self.postMessage(make(data))
  } catch (error) {
    self.postMessage({ kind: 'failed', message: (error as Error).message })
  }
}
