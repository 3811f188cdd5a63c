import {
  acceptanceTests,
  builtFacts,
  consequencesOf,
  effectsOf,
  fieldOf,
  Judged,
  KITS,
  Ledger,
  pickList,
  planHouse,
  recordOf,
  remedyById,
  remediesFor,
  RUNS,
  tasksOf,
  withChanges,
  Work,
  worksOf,
  type AnyValue,
  type DoneRecord,
  type House,
  type Result,
  type WorkChange,
} from '#core'
import { accessOf } from '#core/visit/access'
import { CASE_HOUSES } from '../../support/cases'
import { observe, panel, type Node } from '../../support/house'
import { OPEN, wing } from '../../support/wing'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const nothing = { readings: new Map<string, AnyValue>(), otherwise: new Set<string>() }
const at = (records: readonly DoneRecord[], subject: string, field: string) =>
  records.find(r => 'field' in r && r.subject === subject && r.field === field)
/** The house once something is recorded: what is blocked is not known. */
function recorded(house: House, records: readonly DoneRecord[]): Judged {
  const changes = records.flatMap((r): WorkChange[] => (r.act === 'block' ? [] : [r]))
  const copy = withChanges(house, changes)
  const subjects = new Map(copy.subjects)
  for (const r of records) {
    if (r.act !== 'block') continue
    const thing = subjects.get(r.subject)
    const fact = { state: 'blocked', subject: r.subject, field: r.field, reason: r.reason }
    if (thing)
      subjects.set(thing.id, { ...thing, facts: { ...thing.facts, [r.field]: fact } } as never)
  }
  return new Judged({ subjects })
}
function workOf(node: Node, rule: string, subject: string, remedy: string) {
  const house = houseOf(node)
  const before = new Judged(house)
  const { changes = [] } = consequencesOf(before, before.resultOf(rule, subject) as Result, remedy)
  return { house, changes }
}

describe('a work that is done', () => {
  const { house, changes } = workOf(
    wing({}, undefined, 'attic'),
    OPEN[0]?.rule ?? '',
    'p1',
    'run-grounding-conductor',
  )
  it('records what was put in as seen, and what was read as measured', () => {
    const readings = new Map<string, AnyValue>([
      ['p1 groundOhms', 0.4],
      ['p1 lamps', 'correct'],
      ['p1 groundToReferenceV', 0],
    ])
    const records = recordOf(house, { ...nothing, changes, readings })
    expect(at(records, 'p1', 'slots')).toMatchObject({ act: 'note', value: 'three', grade: 'seen' })
    expect(at(records, 'p1', 'groundOhms')).toMatchObject({
      act: 'note',
      value: 0.4,
      grade: 'measured',
      instrument: 'branch analyzer',
    })
    expect(recorded(house, records).resultOf('open-ground-three-slot', 'p1')?.outcome).toBe('clear')
  })
  it('nobody tested is not fine: the planned reading is never recorded, and the fault is open', () => {
    const records = recordOf(house, { ...nothing, changes })
    expect(at(records, 'p1', 'groundOhms')).toMatchObject({ act: 'block' })
    expect(at(records, 'p1', 'lamps')).toMatchObject({ act: 'block' })
    expect(recorded(house, records).resultOf('open-ground-three-slot', 'p1')?.outcome).toBe(
      'undecided',
    )
  })
  it('a reading that does not pass is recorded as read, and judged', () => {
    const readings = new Map<string, AnyValue>([['p1 lamps', 'open ground']])
    const records = recordOf(house, { ...nothing, changes, readings })
    expect(recorded(house, records).resultOf('open-ground-three-slot', 'p1')?.outcome).toBe('fault')
  })
  it('what was built otherwise is open, whatever was planned', () => {
    const records = recordOf(house, { ...nothing, changes, otherwise: new Set(['p1 slots']) })
    expect(at(records, 'p1', 'slots')).toMatchObject({ act: 'block' })
  })
})

describe('what is asked for after a work', () => {
  it('is asked of things the work adds too: the button of a device beside the panel', () => {
    const { house, changes } = workOf(
      wing({ protectiveBreakers: 'none made', room: 'r' }, undefined, 'living'),
      'open-ground-three-slot',
      'p1',
      'protect-beside-panel',
    )
    const tests = acceptanceTests(house, changes)
    const beside = changes.find(c => c.act === 'add')?.subject
    expect(beside).toBeDefined()
    expect(tests.filter(t => t.subject === beside).map(t => t.field)).toContain('gfciButton')
    const records = recordOf(house, { ...nothing, changes })
    expect(at(records, beside ?? '', 'gfciButton')).toMatchObject({ act: 'block' })
    // A thing is there before anything is said of it.
    expect(records.findIndex(r => r.subject === beside)).toBe(
      records.findIndex(r => r.act === 'add'),
    )
  })
  it('is every dimension: a panel that was moved is measured where it hangs', () => {
    const cramped = panel([], {
      workingDepthIn: 27,
      workingWidthIn: 30,
      workingHeightIn: 78,
      widthIn: 15,
    })
    const { house, changes } = workOf(cramped, 'working-space', 'main', 'relocate-panel')
    const asked = acceptanceTests(house, changes)
    for (const field of ['workingDepthIn', 'workingWidthIn', 'workingHeightIn', 'topHandleIn'])
      expect(asked.find(t => t.field === field)?.passes).toMatchObject({ kind: 'read', unit: 'in' })
    const records = recordOf(house, { ...nothing, changes })
    expect(recorded(house, records).resultOf('working-space', 'main')?.outcome).not.toBe('clear')
    const readings = new Map<string, AnyValue>([['main workingDepthIn', 30]])
    const short = recorded(house, recordOf(house, { ...nothing, changes, readings }))
    expect(short.resultOf('working-space', 'main')?.outcome).toBe('fault')
  })
  it('over every house: nothing an instrument tells is recorded without a reading', () => {
    let works = 0
    const bad: string[] = []
    for (const { name, house } of CASE_HOUSES) {
      const before = new Judged(house)
      for (const r of before.results.values()) {
        if (r.outcome !== 'fault') continue
        for (const { remedy, advice } of remediesFor(r, before.site)) {
          if (advice.verdict !== 'offered') continue
          const [changes] = effectsOf(remedy.id, new Work(before.site, r))
          if (!changes || changes.length === 0) continue
          works++
          const after = withChanges(house, changes)
          for (const record of recordOf(house, { ...nothing, changes })) {
            if (record.act !== 'note') continue
            const kind = after.subjects.get(record.subject)?.kind
            if (kind && accessOf(kind, record.field).instrument)
              bad.push(`${name}: ${remedy.id} writes ${record.field}`)
          }
        }
      }
    }
    expect(works).toBeGreaterThan(350)
    expect(bad).toEqual([])
  })
  it('and everything else is listed before it is recorded', () => {
    const { house, changes } = workOf(wing(), 'open-ground-three-slot', 'p1', 'new-cable')
    const told = new Set([
      ...acceptanceTests(house, changes).map(t => `${t.subject} ${t.field}`),
      ...builtFacts(house, changes).map(b => `${b.subject} ${b.field}`),
    ])
    for (const c of changes) if (c.act === 'note') expect(told).toContain(`${c.subject} ${c.field}`)
    for (const b of builtFacts(house, changes)) expect(fieldOf(b.kind, b.field)).toBeDefined()
  })
})

describe('the truck', () => {
  it('has a run for every work that pulls one, and for no other', () => {
    const kits = Object.entries(KITS).flatMap(([id, kit]) => (kit.run ? id : []))
    expect(kits.sort()).toEqual([...RUNS].sort())
    expect(Object.keys(KITS).filter(id => !remedyById(id))).toEqual([])
  })
  it.each([
    [15, '14 AWG grounding conductor'],
    [20, '12 AWG grounding conductor'],
    [30, '10 AWG grounding conductor'],
  ])('takes the grounding conductor of the device ahead: %s A', (ratingAmps, words) => {
    // 250.122: 15 A 14, 20 A 12, 30 A 10 copper.
    const node = wing({}, [{}], 'attic')
    const main = (node.enclosures as Node[])[0] as { breakers: Node[] }
    for (const b of main.breakers) b.ratingAmps = ratingAmps
    const house = houseOf(node)
    const schools = [{ school: 'ungrounded-ground' }]
    const plan = planHouse(house, { fix: OPEN.slice(0, 1), schools })
    let n = 0
    const accepted = withChanges(
      house,
      tasksOf(plan, () => `t${n++}`),
    )
    const { parts } = pickList(worksOf(accepted))
    expect(parts.find(p => p.unit === 'ft')?.what).toContain(words)
  })
})
