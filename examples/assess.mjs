// Judges a job file with the built core, as any program could: npm run build:core && node examples/assess.mjs FILE
import { readFileSync } from 'node:fs'
import { assess, defineRule, Ledger, readJobFile, RULES, say, UnreadableFile } from '@corvit/core'

/** A rule of one's own, beside those of the catalog. */
const spareIsMarked = defineRule({
  id: 'example-spare-is-marked',
  family: 'panels',
  subject: 'breaker',
  title: 'A spare breaker says that it is one',
  fault: 'Spare breaker without a label',
  consequence: 'In an emergency somebody looks for what it feeds.',
  cites: [{ section: '408.4(A)' }],
  checks: { unmarked: { danger: 1, says: 'The directory says nothing' } },
  triggers: [],
  remedies: [],
  traps: [],
  judge(breaker, c) {
    const role = c.ask(breaker.facts.role)
    if (role === undefined) return c.undecided('Nobody has said what this breaker is for')
    if (role !== 'spare') return c.na('Not a spare')
    const label = c.ask(breaker.facts.label)
    if (label === undefined) return c.undecided('The directory has not been read')
    return label === '' ? c.fault('unmarked') : c.clear(say('Marked {label}', { label }))
  },
})

let n = 0
const stamp = {
  at: '2026-01-01T08:00:00.000Z',
  by: 'example',
  nextId: () => `o${String(n++).padStart(6, '0')}`,
}
try {
  const { observations } = readJobFile(readFileSync(process.argv[2] ?? 0, 'utf8'), stamp)
  const { house } = new Ledger(observations)
  const { results, totals } = assess(house, { rules: [...RULES, spareIsMarked] })
  for (const r of results)
    if (r.outcome === 'fault' || r.leans) {
      const unless = r.leans ? `, unless ${r.leans.unless.join(' or ')}` : ''
      console.log(`${r.severity}: ${r.title} (${r.subject.label}): ${r.why}${unless}`)
    }
  console.log(
    `${totals.fault} faults, ${totals.allowed} allowed to remain, ${totals.clear} clear, ` +
      `${totals.undecided} undecided, ${totals.leaning} of them leaning`,
  )
} catch (error) {
  if (!(error instanceof UnreadableFile)) throw error
  for (const p of error.problems)
    console.error(`${p.path}: expected ${p.expected}, found ${p.found}`)
  process.exitCode = 2
}
