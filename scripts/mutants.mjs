// npm run mutants [-- --all | --again FILE | --sample N --seed S]: plants errors in the core one at a time (every
// number and comparison of its tables, rules and derivations, every check and exception left out) and runs the
// tests on each. Survivors are listed with their place. The last line: N mutants, K killed.
import { readFileSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { mutantsIn } from './lib/mutate.mjs'
import { quickTests } from './lib/quick-tests.mjs'
import { ROOT } from './setup.mjs'

process.env.CORVIT_QUICK = '1'
const LIMIT_MS = 90_000
const option = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`)
  return at > 0 ? Number(process.argv[at + 1]) : otherwise
}
const isAll = process.argv.includes('--all')
const againAt = process.argv.indexOf('--again')
const againFile = againAt > 0 ? process.argv[againAt + 1] : undefined
const unplaced = text => text.replace(/:\d+ /, ' ')
const least = option('least', 0)

/** The same numbers for the same seed, on every machine. */
function random(seed) {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}
function sample(list, count, seed) {
  const next = random(seed)
  const left = [...list]
  return Array.from(
    { length: Math.min(count, left.length) },
    () => left.splice(Math.floor(next() * left.length), 1)[0],
  )
}

const every = mutantsIn(ROOT)
const place = m => `${m.file}:${m.line}`
const line = m =>
  `${place(m)} ${m.kind}: ${m.before.replace(/\s+/g, ' ').slice(0, 80)} → ${m.instead}`
const chosen = isAll
  ? every
  : againFile
    ? every.filter(isListed(againFile))
    : sample(every, option('sample', 40), option('seed', 1))
/** Those a page or an earlier run lists as survivors, wherever their lines have moved to. */
function isListed(file) {
  const listed = new Set(
    readFileSync(file, 'utf8')
      .split('\n')
      .map(l => unplaced(l.replace(/^(survived {2}|- `)|`$/g, ''))),
  )
  return mutant => listed.has(unplaced(line(mutant)))
}

const sound = await quickTests(ROOT)(undefined)
if (sound.failed) {
  console.error(`The tests fail without any planted error: ${sound.failed}`)
  process.exit(1)
}

const queue = [...chosen]
const survivors = []
let done = 0
await Promise.all(Array.from({ length: Math.min(availableParallelism(), 4) }, worker))

async function worker() {
  let thread = await start()
  for (let mutant = queue.shift(); mutant; mutant = queue.shift()) {
    const answer = await ask(thread, mutant)
    done++
    if (answer === 'took too long') {
      await thread.terminate()
      thread = await start()
    } else if (!answer.failed) survivors.push(mutant)
    if (done % 100 === 0) console.log(`${done} of ${chosen.length}, ${survivors.length} survived`)
  }
  await thread.terminate()
}
function start() {
  const thread = new Worker(new URL('./lib/mutants-worker.mjs', import.meta.url), {
    workerData: { root: ROOT },
  })
  return new Promise((resolve, reject) => {
    thread.once('message', () => resolve(thread))
    thread.once('error', reject)
  })
}
function ask(thread, mutant) {
  return new Promise(resolve => {
    const timer = setTimeout(() => resolve('took too long'), LIMIT_MS)
    thread.once('message', answer => {
      clearTimeout(timer)
      resolve(answer)
    })
    thread.postMessage(mutant)
  })
}

survivors.sort((a, b) => (place(a) < place(b) ? -1 : 1))
for (const m of survivors) console.log(`survived  ${line(m)}`)
const killed = chosen.length - survivors.length
const share = ((100 * killed) / chosen.length).toFixed(1)
if (isAll) writeFileSync(join(ROOT, 'docs', 'MUTANTS.md'), page())
console.log(`${share} % killed`)
console.log(`${chosen.length} mutants, ${killed} killed`)
if (killed < (least / 100) * chosen.length) process.exit(1)

function page() {
  return [
    '# Planted errors',
    '',
    'Written by `npm run mutants -- --all`. One error at a time is planted in the core (each number, size and',
    'comparison of its tables, rules, derivations and engine one off; each check and each exception left out), and',
    'the quick unit tests are run on it: the tables of the rules with their answers, the tables of the code, the',
    'algebra, derivations, engine, remedies and calculators. An error that no test notices has survived.',
    '',
    `**${chosen.length} mutants, ${killed} killed: ${share} %.**`,
    '',
    survivors.length > 0 ? 'Survivors:' : 'None survived.',
    '',
    ...survivors.map(m => `- \`${line(m)}\``),
    '',
  ].join('\n')
}
