import { useLocalStorage } from '@vueuse/core'
import {
  actionsAt,
  debrief as toDebrief,
  HINT_SECONDS,
  hintFor,
  keyOf,
  knownFacts,
  NEW_ROUND,
  isShut,
  practiceAct,
  practiceCost,
  practicePlaces,
  Site,
  Ledger,
  type PracticeAction,
  type PracticeThing,
  type Call,
  type Debrief,
  type Injected,
  type Observation,
  type Round,
} from '#core'

/** A round that was played to its end, as it is kept on this device. */
export interface PlayedRound {
  readonly at: string
  readonly what: string
  readonly score: number
  readonly found: number
  readonly wanted: number
  readonly invented: number
}
export interface PracticeHouse {
  readonly title: string
  readonly log: readonly Observation[]
  /** What was put in; undefined where all faults of a recorded house are wanted. */
  readonly injected: readonly Injected[] | undefined
  readonly minutes: number
  readonly covers: number
}
const MOST_KEPT = 200

export const usePlayed = () => useLocalStorage<readonly PlayedRound[]>('corvit-practice', [])

/** One round in one house. */
export function usePractice(house: PracticeHouse) {
  const answers = new Site(new Ledger(house.log).house)
  const key = keyOf(answers, house.injected)
  const round = ref<Round>(NEW_ROUND)
  const told = ref('')
  const result = shallowRef<Debrief>()
  const played = usePlayed()
  const places = practicePlaces(answers)
  const secondsLeft = computed(() => Math.max(0, house.minutes * 60 - round.value.seconds))
  const coversLeft = computed(() => Math.max(0, house.covers - round.value.opened.length))
  const facts = computed(() => knownFacts(answers, round.value))

  /** Why an action cannot be taken any more; empty where it can. */
  const barred = (action: PracticeAction): string =>
    practiceCost(round.value, action) > secondsLeft.value
      ? 'no time left for this'
      : isShut(round.value, action) && coversLeft.value === 0
        ? 'no more covers to open'
        : ''
  function act(thing: string, action: PracticeAction, safetyDone: number): void {
    if (barred(action)) return
    round.value = practiceAct(round.value, thing, action, safetyDone)
  }
  const isDone = (thing: string, action: PracticeAction) =>
    round.value.done.some(d => d.thing === thing && d.action === action.id)
  function hint(): void {
    const found = hintFor(house.log, answers, round.value)
    told.value = found
      ? `${found.label}: ${found.look}`
      : 'Nothing more to look at: call what you found.'
    round.value = {
      ...round.value,
      hints: round.value.hints + 1,
      seconds: round.value.seconds + HINT_SECONDS,
    }
  }
  function call(made: Call): void {
    const others = round.value.calls.filter(c => c.rule !== made.rule || c.subject !== made.subject)
    round.value = { ...round.value, calls: [...others, made] }
  }
  const uncall = (made: Call) =>
    (round.value = { ...round.value, calls: round.value.calls.filter(c => c !== made) })
  function finish(): void {
    const done = toDebrief(answers, key, round.value)
    result.value = done
    const kept: PlayedRound = {
      at: new Date().toISOString(),
      what: house.title,
      score: done.score,
      found: done.found.length,
      wanted: done.found.length + done.missed.length,
      invented: done.invented.length,
    }
    played.value = [...played.value, kept].slice(-MOST_KEPT)
  }
  return {
    answers,
    places,
    round,
    told,
    result,
    facts,
    secondsLeft,
    coversLeft,
    barred,
    act,
    isDone,
    hint,
    call,
    uncall,
    finish,
    isShut: (action: PracticeAction) => isShut(round.value, action),
    costOf: (action: PracticeAction) => practiceCost(round.value, action),
    actionsOf: (thing: PracticeThing) => actionsAt(answers, thing),
  }
}
