import type { InjectionKey } from 'vue'
import { watchDebounced } from '@vueuse/core'
import {
  atBudget,
  SAMPLE_PRICES,
  type Aim,
  type FixPreset,
  type Forbid,
  type House,
  type FrontierPoint,
  type Lock,
  type PriceBook,
  type SchoolChoice,
  type WorkChange,
} from '#core'
import type { Alternative, PlainPlan, PlanAsk, PlanSay } from '~/workers/plan.worker'

/** A plan is worked out anew this long after the last change of what it is asked for. */
const REST_MS = 250

/** Asks without their run: each gets one. */
type Ask = PlanAsk extends infer A ? (A extends PlanAsk ? Omit<A, 'run'> : never) : never

/** The plan of the open job: what is asked for, and what the worker answers. */
export function usePlanner() {
  const job = useJobStore()
  const fix = ref<FixPreset>('make-safe')
  const aim = ref<Aim>('least-cost')
  /** Cents, where somebody said how much there is. */
  const budget = ref<number>()
  const schools = ref<readonly SchoolChoice[]>([])
  const locks = ref<readonly Lock[]>([])
  const forbids = ref<readonly Forbid[]>([])
  const prices = shallowRef<PriceBook>(SAMPLE_PRICES)

  const progress = ref<number>()
  const isPlanning = ref(false)
  const problem = ref('')
  const frontier = shallowRef<readonly FrontierPoint[]>()
  const findings = ref(0)
  /** Of all that is to be fixed, with what nothing here cures. */
  const danger = ref(0)
  const plan = shallowRef<PlainPlan>()
  const tasks = shallowRef<readonly WorkChange[]>([])
  const alternatives = shallowRef<readonly Alternative[]>([])
  /** The house that what is shown was worked out for. */
  const plannedFor = shallowRef<House>()
  /** What the dragged budget buys, looked up at once; the plan itself follows, judged again. */
  const bought = computed(() =>
    frontier.value && budget.value !== undefined
      ? atBudget(frontier.value, budget.value)
      : undefined,
  )

  let worker: Worker | undefined
  let run = 0
  let turn = 0
  const waiting = new Map<number, (answer: PlanSay) => void>()
  function ask(request: Ask): Promise<PlanSay> {
    worker ??= start()
    const mine = ++run
    return new Promise(resolve => {
      waiting.set(mine, resolve)
      worker?.postMessage({
        ...JSON.parse(JSON.stringify(without(request))),
        ...withHouse(request),
        run: mine,
      })
    })
  }
  /** Reactive lists cannot be handed over as they are; the house is plain, and its maps survive only as they are. */
  const without = (request: Ask) => ({
    ...request,
    ...('house' in request && { house: undefined }),
  })
  const withHouse = (request: Ask) => ('house' in request ? { house: request.house } : {})
  function start(): Worker {
    const made = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), {
      type: 'module',
    })
    made.onmessage = ({ data }: MessageEvent<PlanSay>) => {
      if (data.kind === 'progress') {
        progress.value = data.share
        return
      }
      if (data.kind === 'failed') problem.value = data.message
      waiting.get(data.run)?.(data)
      waiting.delete(data.run)
    }
    return made
  }
  /** Ends what is being worked out. */
  function end(): void {
    worker?.terminate()
    worker = undefined
    waiting.clear()
    progress.value = undefined
    isPlanning.value = false
  }
  /** Ended by hand: what was shown is of another question, and is taken away. */
  function cancel(): void {
    turn++
    end()
    plan.value = undefined
    frontier.value = undefined
    alternatives.value = []
  }
  onScopeDispose(end)

  const scope = () => ({
    fix: fix.value,
    prices: prices.value,
    locks: [...locks.value],
    forbids: [...forbids.value],
    schools: [...schools.value],
  })
  async function open(): Promise<void> {
    // A house that has not arrived has no fault to plan for; what is asked meanwhile is answered when it has.
    if (!job.isReady) return
    const mine = ++turn
    end()
    problem.value = ''
    progress.value = 0
    isPlanning.value = true
    plannedFor.value = job.house
    const opened = await ask({ kind: 'open', house: job.house, scope: scope() })
    if (mine !== turn) return
    if (opened.kind !== 'opened') {
      // What went wrong stands on the page; nothing of another question stays beside it.
      cancel()
      return
    }
    progress.value = undefined
    frontier.value = opened.frontier
    findings.value = opened.findings
    danger.value = opened.danger
    await draw()
    const others = await ask({ kind: 'alternatives', house: job.house, scope: scope() })
    if (mine === turn && others.kind === 'alternatives') alternatives.value = others.list
  }
  let drawn = 0
  async function draw(): Promise<void> {
    if (!frontier.value) return
    const mine = ++drawn
    isPlanning.value = true
    const answer = await ask({
      kind: 'plan',
      aim: aim.value,
      ...(budget.value !== undefined && { budget: budget.value }),
    })
    if (mine !== drawn) return
    isPlanning.value = false
    if (answer.kind !== 'planned') return
    plan.value = answer.plan
    tasks.value = answer.tasks
  }
  // From the first change on, what is shown is no longer what is asked for, and cannot be accepted.
  watch([fix, schools, locks, forbids, prices, aim, budget], () => {
    isPlanning.value = true
  })
  watchDebounced([fix, schools, locks, forbids, prices], () => void open(), { debounce: REST_MS })
  // What arrives while a plan is being worked out, as when a job is still being read, belongs into it.
  watchDebounced(
    () => job.house,
    house => {
      if (isPlanning.value && house !== plannedFor.value) void open()
    },
    { debounce: REST_MS },
  )
  watchDebounced([aim, budget], () => void draw(), { debounce: REST_MS })

  /** What one work would change now, and what has to be tested after it. */
  async function workAt(of: { rule: string; subject: string; remedy: string }) {
    const answer = await ask({ kind: 'work', house: job.house, ...of })
    return answer.kind === 'work' ? answer : undefined
  }
  return {
    fix,
    aim,
    budget,
    schools,
    locks,
    forbids,
    prices,
    progress,
    isPlanning,
    problem,
    frontier,
    findings,
    danger,
    plan,
    tasks,
    alternatives,
    plannedFor,
    bought,
    open,
    cancel,
    workAt,
  }
}

/** The planner of the page, for the parts of it. */
export const PLANNER: InjectionKey<ReturnType<typeof usePlanner>> = Symbol('planner')
