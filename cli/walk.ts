import {
  assess,
  problemsOf,
  PURPOSES,
  recordedScope,
  scopeSchema,
  Site,
  visitOf,
  type Purpose,
  type Scope,
  type ScopeInput,
  type Visit,
} from '#core'
import { houseOf, readJson, readText, refuse, unreadable } from './input'

/** `corvit walk FILE [--purpose P] [--scope FILE]`: what to look at, in order, and what the visit leaves open. */
export function walkCommand(args: readonly string[]): void {
  let file: string | undefined
  let scope: ScopeInput = {}
  let purpose: Purpose | undefined
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--purpose') purpose = readPurpose(args[++i])
    else if (arg === '--scope') scope = readScope(args[++i])
    else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  const house = houseOf(file, readText(file))
  const site = new Site(house)
  const input = purpose === undefined ? scope : { ...scope, purpose }
  for (const key of ['named', 'area', 'widened'] as const)
    for (const id of input[key] ?? [])
      if (!house.subjects.has(id))
        refuse(`scope: ${key} names ${JSON.stringify(id)}, which is not in the job`)
  const visit = visitOf(site, assess(house).results, recordedScope(site, input))
  console.log(JSON.stringify(plain(visit), null, 2))
}

function readPurpose(word: string | undefined): Purpose {
  const found = PURPOSES.find(p => p === word)
  return (
    found ?? refuse(`--purpose takes ${PURPOSES.join(', ')}; found ${JSON.stringify(word ?? '')}`)
  )
}

function readScope(file: string | undefined): ScopeInput {
  if (file === undefined) return refuse('--scope takes a file')
  const raw = readJson(file)
  const parsed = scopeSchema.safeParse(raw)
  return parsed.success ? parsed.data : unreadable(file, problemsOf(parsed.error, raw))
}

/** A visit as plain data. */
function plain(visit: Visit) {
  const { scope, counts, stops, limitations, notSeen, answers, seconds } = visit
  return {
    corvit: 1,
    scope: plainScope(scope),
    counts,
    answers,
    seconds,
    stops: stops.map(s => ({
      stage: s.stage,
      place: s.place,
      cautions: s.cautions,
      instruments: s.instruments,
      answers: s.answers,
      seconds: s.seconds,
      attestation: s.attestation ?? null,
      looks: s.questions.map(q => ({ ...q, with: q.with ?? null })),
    })),
    limitations,
    notSeen,
  }
}

const plainScope = (scope: Scope) => ({
  purpose: scope.purpose,
  access: [...scope.access],
  instruments: [...scope.instruments],
  sample: scope.sample,
  named: [...scope.named],
  area: [...scope.area],
  widened: [...scope.widened],
})
