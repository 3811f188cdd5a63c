import { execFileSync } from 'node:child_process'
import { DEMO_HOUSES } from '#core/examples/index'
import {
  assess,
  Ledger,
  PAPERS,
  paperOf,
  paperText,
  planHouse,
  REPORT_VOICES,
  reportPaper,
  tasksOf,
  withChanges,
  withinSentence,
} from '#core'
import { observe, panel, type Node } from '../../support/house'

const houseOf = (node: Node) => new Ledger(observe(node)).house
const demo = houseOf(DEMO_HOUSES[0]?.file() as unknown as Node)
const textOf = (voice: (typeof REPORT_VOICES)[number], house = demo) =>
  paperText(reportPaper(house, voice))

describe('one record, four texts', () => {
  it.each(REPORT_VOICES)(
    '%s speaks of every thing to be made safe, and says no programmer word',
    voice => {
      const text = textOf(voice)
      const urgent = assess(demo).results.filter(
        r => r.outcome === 'fault' && r.severity === 'make safe now',
      )
      expect(urgent.length).toBeGreaterThan(3)
      for (const f of urgent) expect(text.toLowerCase()).toContain(f.title.toLowerCase())
      expect(text).not.toMatch(/undefined|\[object|\{\w+\}|null/)
    },
  )
  it('the inspector cites only where the record says so, and prescribes nothing', () => {
    expect(textOf('inspector')).not.toMatch(/\d{3}\.\d+\(/)
    expect(textOf('inspector')).not.toContain('Smaller breaker')
    const cites = withChanges(demo, [
      { act: 'note', subject: 'premises', field: 'citeSections', value: true },
    ])
    expect(textOf('inspector', cites)).toMatch(/\d{3}\.\d+\(/)
    expect(textOf('electrician')).toMatch(/\d{3}\.\d+\(/)
  })
  it('what leans is worded as such, and is never among the corrections', () => {
    const leaning = assess(demo).results.filter(r => r.leans !== undefined)
    expect(leaning.length).toBeGreaterThan(0)
    expect(textOf('inspector')).toContain('A fault unless')
    const [corrections, shown] = textOf('corrections').split('To be shown at the next visit')
    expect(corrections).not.toContain('Settled by:')
    expect(shown).toContain('Settled by:')
  })
  it('what may remain is told once, every place of it, in sentences', () => {
    for (const voice of ['inspector', 'electrician'] as const) {
      const { blocks } = reportPaper(demo, voice)
      const from = blocks.findIndex(b => b.kind === 'heading' && b.text === 'Allowed to remain')
      const to = blocks.findIndex((b, i) => i > from && b.kind === 'heading')
      const chapter = blocks.slice(from, to)
      const titles = chapter.flatMap(b =>
        b.kind === 'text' && b.tone === 'strong' ? [b.text.replace(/:.*/, '')] : [],
      )
      expect(titles.length).toBeGreaterThan(8)
      expect(new Set(titles).size).toBe(titles.length)
      const told = chapter.flatMap(b =>
        b.kind === 'text' ? [b.text] : b.kind === 'list' ? b.items : [],
      )
      const allowed = assess(demo).results.filter(r => r.outcome === 'allowed')
      const short = allowed.filter(r => r.rule === 'multiwire-no-common-trip')
      expect(short.length).toBeGreaterThan(1)
      for (const r of short) expect(told.some(t => t.includes(r.subject.label))).toBe(true)
      for (const t of told) expect(t).toMatch(/^[A-Z0-9]/)
    }
  })
  it('what was found begins with a capital, in the words of the record', () => {
    const { blocks } = reportPaper(demo, 'inspector')
    const after = blocks.flatMap((b, i) => {
      const next = blocks[i + 1]
      return b.kind === 'text' && b.tone === 'strong' && next?.kind === 'text' ? [next.text] : []
    })
    expect(after.length).toBeGreaterThan(40)
    for (const text of after) expect(text).toMatch(/^[A-Z0-9]/)
  })
  it('what is open is never called fine', () => {
    const bare = houseOf(panel([{ id: 'b', space: 1 }]))
    for (const voice of REPORT_VOICES) {
      const text = textOf(voice, bare)
      expect(text).not.toMatch(/nothing is wrong|all is well|no faults?\b(?! there)/i)
    }
    expect(textOf('household', bare)).toContain('We did not see all of it')
    expect(textOf('corrections', bare)).not.toMatch(/\| pass/)
  })
  it('the electrician quotes the accepted plan to the cent', () => {
    const plan = planHouse(demo, { fix: 'make-safe' })
    let n = 0
    const accepted = withChanges(
      demo,
      tasksOf(plan, () => `task-${n++}`),
    )
    const text = textOf('electrician', accepted)
    const works = plan.choices.reduce((sum, c) => sum + c.option.cents, 0)
    const said = (works / 100).toLocaleString('en-US', { style: 'currency', currency: 'USD' })
    expect(text).toContain(`Works | ${said}`)
    expect(textOf('electrician')).not.toContain('Quote')
  })
  it('the household page reads at grade 8 or below', () => {
    const text = textOf('household').replace(/[=\-·]+/g, ' ')
    const script = 'tests/support/reading-grade.mjs'
    const grade = Number(execFileSync(process.execPath, [script], { input: text }))
    console.log(`household page: US school grade ${grade}`)
    expect(grade).toBeGreaterThan(3)
    expect(grade).toBeLessThanOrEqual(8)
  })
  it('abbreviations keep their capitals within a sentence', () => {
    expect(withinSentence('AFCI breaker')).toBe('AFCI breaker')
    expect(withinSentence('Two-pole breaker')).toBe('two-pole breaker')
    expect(textOf('household')).not.toMatch(/aFCI|gFCI/)
  })
  it('every paper has a name of its own', () => {
    const titles = PAPERS.map(id => paperOf(demo, id).title)
    expect(new Set(titles).size).toBe(PAPERS.length)
  })
})
