import { readFileSync, statSync } from 'node:fs'
import {
  assess,
  Ledger,
  MAX_FILE_BYTES,
  OUTCOMES,
  problemsOf,
  readJobFile,
  ruleNow,
  calculatorById,
  CALCULATORS,
  UnreadableFile,
  type Outcome,
  type SpokenResult,
} from '#core'
import { Refused } from './input'
import { understandCommand } from './understand'
import { reportCommand } from './report'
import { mergeCommand } from './merge'
import { pathsCommand } from './paths'
import { roundTripCommand, simulateCommand } from './simulate'
import { consequencesCommand, papersCommand, planCommand } from './plan'
import { walkCommand } from './walk'

const USAGE = `corvit: a second opinion on existing residential wiring

  corvit assess FILE [--only fault,undecided] [--rule ID] [--brief]
      Judges a job file (form "house" or "log", see docs/FORMATS.md) and prints one JSON document.
      FILE may be - for standard input. --only keeps some outcomes, --rule one rule,
      --brief one line of text per result instead of JSON.
  corvit walk FILE [--purpose P] [--scope FILE]
      What to look at within the scope of the visit, stop by stop, the most worth first; how many judgments are
      settled, open in scope, and outside; and the limitations. P is one of purchase, insurance, rental, service,
      remodel, final. A scope file is JSON: docs/FORMATS.md.
  corvit plan FILE [--aim least-cost|most-protection|least-opening|fewest-tests] [--budget CENTS]
              [--fix all|make-safe|before-sale|ungrounded|aluminum|RULE@SUBJECT,…] [--prices FILE]
              [--lock SUBJECT=REMEDY] [--forbid REMEDY[@SUBJECT]] [--school SCHOOL[@CIRCUIT]]
      The best set of remedies for the faults of a house: what it costs, why each, in which order, and what it
      leaves. Every plan is judged again with all of it done. docs/FORMATS.md.
  corvit consequences FILE --remedy ID --of SUBJECT [--rule ID]
      What the work of one remedy would fix, break, require and leave open. docs/FORMATS.md.
  corvit papers FILE --paper scope-of-work|pick-list|labels|directory|lockout|permit-note|acceptance
      A paper of the accepted plan, as text.
  corvit report FILE --voice inspector|electrician|corrections|household|insurance|rental [--out F.pdf] [--text]
      The report in one voice: as text, or as PDF with --out; both with both. FILE may be a bundle (.zip), whose
      photographs come into the PDF.
  corvit merge A B --out C
      Two copies of one job put together: the union of both logs. Prints what only one had, and what two people
      recorded differently, with both values. A, B and C are job files, or bundles where the name ends in .zip.
  corvit paths [FILE]
      Where the current goes in a network of sources, conductors, loads and ties to the earth, or in a property
      ({ "job", "changes" }): volts of every node, amperes and watts of every part, what breakers do, what a hand on
      a frame feels. docs/FORMATS.md.
  corvit simulate [--seed N] [--faults K] [--small] [--out FILE]
      A made-up house with K faults put in, as eyes and instruments record it: a job file, with the faults listed
      apart under "simulated" (or, with --out, in a file beside it).
  corvit roundtrip [--houses N] [--seed S]
      Puts faults into N houses, inspects them, and prints found, missed and invented. Exit code 1 where anything
      was missed, invented, or left undecided with nothing left to look at.
  corvit understand [FILE]
      What was said beside a thing, as facts: { "job"?, "context": { "place"?, "selected"? }, "say" }, or a list of
      them, in; per utterance "means", "notUnderstood" and "asks" out. docs/FORMATS.md.
  corvit SUM [FILE]
      One sum on its own: JSON in (FILE, or standard input), JSON out. SUM is one of
      ${CALCULATORS.map(s => s.id).join(', ')}.
      corvit SUM --example prints an input to start from; docs/FORMATS.md has them all.
  corvit help

Exit code: 0 answered, 1 a round trip that did not come back whole, 2 input that cannot be read.
Corvit's answers are a second opinion, not an approval.`

/** Runs the command line; returns the exit code. */
export async function main(args: readonly string[]): Promise<number> {
  const [command, ...rest] = args
  if (command === undefined || command === 'help' || command === '--help' || command === '-h') {
    console.log(USAGE)
    return command === undefined ? 2 : 0
  }
  if (command === 'assess') return assessCommand(rest)
  if (command === 'understand') return answered(() => understandCommand(rest))
  if (command === 'walk') return answered(() => walkCommand(rest))
  if (command === 'plan') return answeredLater(() => planCommand(rest))
  if (command === 'report') return answeredLater(() => reportCommand(rest))
  if (command === 'merge') return answered(() => mergeCommand(rest))
  if (command === 'paths') return answered(() => pathsCommand(rest))
  if (command === 'simulate') return answered(() => simulateCommand(rest))
  if (command === 'roundtrip') return answered(() => roundTripCommand(rest))
  if (command === 'papers') return answered(() => papersCommand(rest))
  if (command === 'consequences') return answered(() => consequencesCommand(rest))
  if (calculatorById(command)) return sumCommand(command, rest)
  console.error(`corvit: unknown command ${JSON.stringify(command)}\n\n${USAGE}`)
  return 2
}

/** The same for a command that takes a while. */
async function answeredLater(run: () => Promise<void>): Promise<number> {
  try {
    await run()
    return 0
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    console.error(error.message)
    return 2
  }
}

/** Runs a command that refuses by throwing; one that says no has exit code 1. */
function answered(run: () => unknown): number {
  try {
    return run() === false ? 1 : 0
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    console.error(error.message)
    return 2
  }
}

function assessCommand(args: readonly string[]): number {
  let file: string | undefined
  let only: Outcome[] | undefined
  let rule: string | undefined
  let isBrief = false
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!
    if (arg === '--only') {
      const words = (args[++i] ?? '').split(',')
      const bad = words.find(w => !(OUTCOMES as readonly string[]).includes(w))
      if (bad !== undefined)
        return refuse(`--only takes ${OUTCOMES.join(', ')}; found ${JSON.stringify(bad)}`)
      only = words as Outcome[]
    } else if (arg === '--rule') rule = ruleNow(args[++i] ?? '')
    else if (arg === '--brief') isBrief = true
    else if (arg.startsWith('--')) return refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else return refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  let text: string
  try {
    if (file !== '-' && statSync(file).size > MAX_FILE_BYTES)
      return refuse(`${file}: larger than ${MAX_FILE_BYTES / 1024 / 1024} MB`)
    text = readFileSync(file === '-' ? 0 : file, 'utf8')
  } catch (error) {
    return refuse(
      `${file}: ${(error as NodeJS.ErrnoException).code === 'ENOENT' ? 'no such file' : (error as Error).message}`,
    )
  }
  try {
    let n = 0
    const { observations } = readJobFile(text, {
      at: '2000-01-01T00:00:00.000Z',
      by: 'file',
      nextId: () => `f${String(n++).padStart(7, '0')}`,
    })
    const assessment = assess(new Ledger(observations).house)
    const results = assessment.results.filter(
      r => (!only || only.includes(r.outcome)) && (!rule || r.rule === rule),
    )
    if (isBrief)
      for (const r of results)
        console.log(
          `${r.outcome.padEnd(9)} ${r.rule.padEnd(30)} ${r.subject.label}: ${r.why}${unlessOf(r)}`,
        )
    else console.log(JSON.stringify({ ...assessment, results }, null, 2))
    return 0
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    console.error(
      JSON.stringify({ error: 'unreadable-input', file, problems: error.problems }, null, 2),
    )
    return 2
  }
}

/** What an undecided result leans to, for a line of its own. */
function unlessOf({ leans }: SpokenResult): string {
  if (!leans) return ''
  const words = leans.unless.join(', or ')
  return leans.to === 'fault' ? ` (a fault unless ${words})` : ` (allowed to remain if ${words})`
}

function unreadable(error: NodeJS.ErrnoException): string {
  if (error.code === 'ENOENT') return 'no such file'
  return error instanceof SyntaxError ? `not JSON: ${error.message}` : error.message
}

function sumCommand(id: string, args: readonly string[]): number {
  const sum = calculatorById(id)!
  if (args.length > 1) return refuse('one file at a time')
  if (args[0] === '--example') {
    console.log(JSON.stringify(sum.example, null, 2))
    return 0
  }
  if (args[0]?.startsWith('--')) return refuse(`unknown option ${args[0]}`)
  const file = args[0] ?? '-'
  let raw: unknown
  try {
    if (file !== '-' && statSync(file).size > MAX_FILE_BYTES)
      return refuse(`${file}: larger than ${MAX_FILE_BYTES / 1024 / 1024} MB`)
    raw = JSON.parse(readFileSync(file === '-' ? 0 : file, 'utf8'))
  } catch (error) {
    return refuse(`${file}: ${unreadable(error as NodeJS.ErrnoException)}`)
  }
  const parsed = sum.input.safeParse(raw)
  if (!parsed.success) {
    console.error(
      JSON.stringify(
        { error: 'unreadable-input', file, problems: problemsOf(parsed.error, raw) },
        null,
        2,
      ),
    )
    return 2
  }
  console.log(JSON.stringify(sum.run(parsed.data), null, 2))
  return 0
}

function refuse(message: string): number {
  console.error(`corvit: ${message}`)
  return 2
}
