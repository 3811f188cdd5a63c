import {
  assess,
  findingsTable,
  Ledger,
  LiveAssessment,
  looksOf,
  panelSchedule,
  paperText,
  REPORT_VOICES,
  reportPaper,
  resultKey,
  STAGES,
  type Observation,
  type SpokenResult,
} from '#core'
import { hillside } from '#core/examples/hillside'
import { PaperOut } from '#shared/api'
import { observe, type Node } from '../../support/house'

const log = observe(hillside() as Node)
const { house } = new Ledger(log)

describe('reports', () => {
  const inspector = reportPaper(house, 'inspector')
  const electrician = reportPaper(house, 'electrician')
  it('fit the schema they cross the wire in', () => {
    for (const voice of REPORT_VOICES) {
      const paper = reportPaper(house, voice)
      expect(PaperOut.parse(JSON.parse(JSON.stringify(paper)))).toEqual(
        JSON.parse(JSON.stringify(paper)),
      )
    }
  })
  it('tell every finding once, with every thing it stands at', () => {
    const found = assess(house).results.filter(r => r.outcome === 'fault' || r.leans)
    for (const paper of [inspector, electrician]) {
      const told = paper.blocks.flatMap(b =>
        'finding' in b && b.finding ? b.finding.subjects.map(s => `${b.finding?.rule} ${s}`) : [],
      )
      expect(told).toHaveLength(found.length)
      expect(new Set(told)).toEqual(new Set(found.map(r => `${r.rule} ${r.subject.id}`)))
    }
  })
  it('an electrician says why not', () => {
    expect(paperText(electrician)).toMatch(/Not here: .+ \(.{10,}\)/)
    expect(paperText(inspector)).not.toContain('Not here:')
  })
  it('print every limitation with its reason', () => {
    const blocked = log.filter(o => o.act === 'block')
    expect(blocked.length).toBeGreaterThan(10)
    const text = paperText(inspector)
    for (const o of blocked) expect(o.act === 'block' && text.includes(o.reason)).toBe(true)
  })
})

it('looks come once each, in the order of the walk', () => {
  const looks = looksOf(assess(house).results)
  const keys = looks.map(l => `${l.subject} ${l.field}`)
  expect(new Set(keys).size).toBe(keys.length)
  const stages = looks.map(l => STAGES.indexOf(l.stage))
  expect(stages).toEqual([...stages].sort((a, b) => a - b))
  expect(looks.some(l => l.settles > 1)).toBe(true)
})

it('a finding names its evidence, its weakest grade and the earlier value', () => {
  const ledger = new Ledger(log)
  ledger.append([
    {
      id: 'z',
      at: '2026-09-01T08:00:00.000Z',
      by: 'Ann',
      act: 'note',
      subject: 'main/7',
      field: 'ratingAmps',
      value: 25,
      grade: 'told',
    },
  ])
  const finding = assess(ledger.house).results.find(
    r => r.rule === 'overfused-conductor' && r.subject.id === 'kiln-lights/conductors-2',
  )!
  expect(finding.grade).toBe('told')
  expect(finding.evidence.find(e => e.field === 'ratingAmps')).toMatchObject({
    value: '25 A',
    grade: 'told',
    earlier: [{ value: '20 A' }],
  })
})

it('tables never leave an unseen cell empty', () => {
  const rows = panelSchedule(house)
  expect(rows.length).toBeGreaterThan(30)
  expect(rows.some(r => r['size AWG'] === 'not seen')).toBe(true)
  expect(
    findingsTable(house)
      .filter(r => r.outcome === 'undecided')
      .every(r => r['look at next'] !== ''),
  ).toBe(true)
})

describe('live assessment', () => {
  it('after any sequence of steps says the same as judging afresh', () => {
    const live = new LiveAssessment()
    const shown = new Map<string, SpokenResult>()
    for (let i = 0; i < log.length; i += 137) {
      const change = live.append(log.slice(i, i + 137))
      for (const key of change.gone) shown.delete(key)
      for (const r of change.changed) {
        if (r.outcome === 'n/a') shown.delete(resultKey(r.rule, r.subject.id))
        else shown.set(resultKey(r.rule, r.subject.id), r)
      }
    }
    const afresh = assess(house).results.filter(r => r.outcome !== 'n/a')
    expect(shown.size).toBe(afresh.length)
    for (const r of afresh)
      expect(JSON.stringify(shown.get(resultKey(r.rule, r.subject.id)))).toBe(JSON.stringify(r))
  })
  /** Each is put into words whole after it, so that fewer are tried where every test has to be quick. */
  const EDITS = process.env.CORVIT_TRIALS ? 260 : 45
  it('after single edits of any kind says the same as judging afresh', () => {
    const live = new LiveAssessment()
    const shown = new Map<string, SpokenResult>()
    const take = (change: ReturnType<typeof live.append>) => {
      for (const key of change.gone) shown.delete(key)
      for (const r of change.changed) {
        if (r.outcome === 'n/a') shown.delete(resultKey(r.rule, r.subject.id))
        else shown.set(resultKey(r.rule, r.subject.id), r)
      }
      return change.totals
    }
    take(live.append(log))
    const notes = log.filter(o => o.act === 'note' && o.subject !== 'premises')
    for (let i = 0; i < EDITS; i++) {
      const o = notes[(i * 37) % notes.length]!
      if (o.act !== 'note') continue
      // Another value seen elsewhere for the same field, a block, or a retraction of what was seen.
      const other = notes.find(
        n =>
          n.act === 'note' &&
          n.field === o.field &&
          n.subject.split('-')[0] !== o.subject.split('-')[0] &&
          typeof n.value === typeof o.value,
      )
      const stamp = {
        id: `x${i}`,
        at: new Date(Date.UTC(2026, 8, 1, 0, 0, i)).toISOString(),
        by: 'x',
      }
      const step: Observation =
        i % 5 === 0
          ? { ...stamp, act: 'retract', target: o.id }
          : {
              ...stamp,
              act: 'note',
              subject: o.subject,
              field: o.field,
              value: other?.act === 'note' ? other.value : o.value,
              grade: i % 7 === 0 ? 'assumed' : 'seen',
            }
      const totals = take(live.append([step]))
      if (i % 13 !== 0 && i < 240) continue
      const afresh = assess(live.ledger.house)
      expect(totals).toEqual(afresh.totals)
      const wrong = afresh.results
        .filter(
          r =>
            r.outcome !== 'n/a' &&
            JSON.stringify(shown.get(resultKey(r.rule, r.subject.id))) !== JSON.stringify(r),
        )
        .map(
          r =>
            `step ${i} (${step.act} ${'field' in step ? `${step.subject} ${step.field}` : ''}): ` +
            `${r.rule} ${r.subject.id}`,
        )
      expect(wrong).toEqual([])
      expect(shown.size).toBe(afresh.results.filter(r => r.outcome !== 'n/a').length)
    }
  })
  it('says little when little changes', () => {
    const live = new LiveAssessment()
    live.append(log)
    const { changed } = live.append([
      {
        id: 'zz',
        at: '2026-09-01T08:00:00.000Z',
        by: 'x',
        act: 'note',
        subject: 'main/7',
        field: 'ratingAmps',
        value: 15,
        grade: 'read',
      },
    ])
    expect(changed.length).toBeLessThan(16)
    expect(
      changed.find(
        r => r.subject.id === 'kiln-lights/conductors-2' && r.rule === 'overfused-conductor',
      )!.outcome,
    ).toBe('clear')
  })
})
