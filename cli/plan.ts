import {
  AIMS,
  consequencesOf,
  FIX_PRESETS,
  Judged,
  plainConsequences,
  paperText,
  PLAN_PAPERS,
  plainPlan,
  Planner,
  planPaper,
  priceBookSchema,
  problemsOf,
  remedyById,
  SAMPLE_PRICES,
  schoolById,
  SCHOOLS,
  type Aim,
  type PlanPaperId,
  type PlanRequest,
  type PriceBook,
  type SchoolChoice,
} from '#core'
import { generalSolverOf } from '#shared/general-solver'
import { pricesFromCsv } from '#shared/price-csv'
import { houseOf, readJson, readText, refuse, unreadable } from './input'

/** `corvit plan FILE …`: the best set of remedies for the faults of a house, with why. */
export async function planCommand(args: readonly string[]): Promise<void> {
  let file: string | undefined
  const request: { -readonly [K in keyof PlanRequest]: PlanRequest[K] } = {}
  const locks: { subject: string; remedy: string }[] = []
  const forbids: { remedy: string; subject?: string }[] = []
  const schools: SchoolChoice[] = []
  let prices: PriceBook = SAMPLE_PRICES
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--aim') request.aim = readAim(args[++i])
    else if (arg === '--budget') request.budget = readCents(args[++i])
    else if (arg === '--fix') request.fix = readFix(args[++i])
    else if (arg === '--prices') prices = readPrices(args[++i])
    else if (arg === '--lock') locks.push(readLock(args[++i]))
    else if (arg === '--forbid') forbids.push(readForbid(args[++i]))
    else if (arg === '--school') schools.push(readSchool(args[++i]))
    else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  const house = houseOf(file, readText(file))
  const { site, results } = new Judged(house)
  if (Array.isArray(request.fix))
    for (const { rule, subject } of request.fix)
      if (!results.has(`${rule} ${subject}`))
        refuse(`--fix: no judgment ${rule}@${subject} in this job`)
  for (const { circuit } of schools)
    if (circuit !== undefined && house.subjects.get(circuit)?.kind !== 'circuit')
      refuse(`--school: no circuit is called ${JSON.stringify(circuit)}`)
  for (const { subject } of locks)
    if (!house.subjects.has(subject)) refuse(`--lock: nothing is called ${JSON.stringify(subject)}`)
  const planner = new Planner(house, { ...request, prices, locks, forbids, schools })
  let plan = planner.plan(request.aim, request.budget)
  if (plan.proof.gap === null && plan.choices.length > 0) {
    // Loaded only where the own search has given up, or has nothing else to offer.
    const { default: load } = await import('highs')
    planner.general = generalSolverOf(await load())
    plan = planner.plan(request.aim, request.budget)
  }
  console.log(JSON.stringify(plainPlan(plan, site, prices), null, 2))
}

/** `corvit consequences FILE --remedy ID --of SUBJECT [--rule ID]`: what the work of one remedy would turn. */
export function consequencesCommand(args: readonly string[]): void {
  let file: string | undefined
  let remedy: string | undefined
  let subject: string | undefined
  let rule: string | undefined
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--remedy') remedy = args[++i]
    else if (arg === '--of') subject = args[++i]
    else if (arg === '--rule') rule = args[++i]
    else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  if (remedy === undefined || !remedyById(remedy))
    return refuse(`--remedy takes the id of a remedy; found ${JSON.stringify(remedy ?? '')}`)
  if (subject === undefined) return refuse('--of takes the id of a thing')
  const before = new Judged(houseOf(file, readText(file)))
  if (!before.house.subjects.has(subject))
    return refuse(`--of: nothing is called ${JSON.stringify(subject)}`)
  const finding = [...before.results.values()].find(
    r =>
      r.subject.id === subject &&
      r.standing !== undefined &&
      (rule === undefined || r.rule.id === rule) &&
      r.rule.remedies.includes(remedy),
  )
  if (!finding) return refuse(`no finding on ${subject} has the remedy ${remedy}`)
  console.log(JSON.stringify(plainConsequences(consequencesOf(before, finding, remedy)), null, 2))
}

function readAim(word: string | undefined): Aim {
  const found = AIMS.find(a => a === word)
  return found ?? refuse(`--aim takes ${AIMS.join(', ')}; found ${JSON.stringify(word ?? '')}`)
}
function readCents(word: string | undefined): number {
  const cents = Number(word)
  return Number.isSafeInteger(cents) && cents >= 0
    ? cents
    : refuse(`--budget takes whole cents; found ${JSON.stringify(word ?? '')}`)
}
function readFix(word: string | undefined): NonNullable<PlanRequest['fix']> {
  const preset = FIX_PRESETS.find(p => p === word)
  if (preset) return preset
  return (word ?? '').split(',').map(pair => {
    const at = pair.indexOf('@')
    if (at < 1 || at === pair.length - 1)
      refuse(
        `--fix takes ${FIX_PRESETS.join(', ')}, or RULE@SUBJECT,…; found ${JSON.stringify(pair)}`,
      )
    return { rule: pair.slice(0, at), subject: pair.slice(at + 1) }
  })
}
function readPrices(file: string | undefined): PriceBook {
  if (file === undefined) return refuse('--prices takes a file')
  if (/\.csv$/i.test(file)) {
    const read = pricesFromCsv(readText(file), SAMPLE_PRICES)
    return 'book' in read ? read.book : unreadable(file, read.problems)
  }
  const raw = readJson(file)
  const parsed = priceBookSchema.safeParse(raw)
  return parsed.success ? parsed.data : unreadable(file, problemsOf(parsed.error, raw))
}
function readLock(word: string | undefined): { subject: string; remedy: string } {
  const at = (word ?? '').lastIndexOf('=')
  const lock = { subject: word?.slice(0, at) ?? '', remedy: word?.slice(at + 1) ?? '' }
  return at > 0 && remedyById(lock.remedy)
    ? lock
    : refuse(`--lock takes SUBJECT=REMEDY; found ${JSON.stringify(word ?? '')}`)
}
function readForbid(word: string | undefined): { remedy: string; subject?: string } {
  const [remedy = '', ...rest] = (word ?? '').split('@')
  if (!remedyById(remedy))
    return refuse(`--forbid takes REMEDY or REMEDY@SUBJECT; found ${JSON.stringify(word ?? '')}`)
  return rest.length > 0 ? { remedy, subject: rest.join('@') } : { remedy }
}
function readSchool(word: string | undefined): SchoolChoice {
  const [school = '', ...rest] = (word ?? '').split('@')
  const known = SCHOOLS.flatMap(q => q.schools.map(s => s.id))
  if (!schoolById(school))
    return refuse(`--school takes one of ${known.join(', ')}; found ${JSON.stringify(word ?? '')}`)
  return rest.length > 0 ? { school, circuit: rest.join('@') } : { school }
}

/** `corvit papers FILE --paper P`: a paper of the accepted plan, as text. */
export function papersCommand(args: readonly string[]): void {
  let file: string | undefined
  let paper: PlanPaperId | undefined
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--paper') {
      const word = args[++i]
      paper =
        PLAN_PAPERS.find(p => p === word) ??
        refuse(`--paper takes ${PLAN_PAPERS.join(', ')}; found ${JSON.stringify(word ?? '')}`)
    } else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  if (paper === undefined) return refuse(`--paper takes ${PLAN_PAPERS.join(', ')}`)
  process.stdout.write(paperText(planPaper(houseOf(file, readText(file)), paper)))
}
