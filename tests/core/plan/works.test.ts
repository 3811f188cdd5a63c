import {
  acceptanceTests,
  changesOfWork,
  Judged,
  labelsOf,
  Ledger,
  paperText,
  passesTest,
  pickList,
  planHouse,
  planPaper,
  PLAN_PAPERS,
  remedyById,
  SAMPLE_PRICES,
  SCHOOLS,
  tasksInOrder,
  tasksOf,
  withChanges,
  worksOf,
  type House,
  type PlanRequest,
} from '#core'
import { pricesFromCsv, pricesToCsv } from '#shared/price-csv'
import { observe, type Node } from '../../support/house'
import { OPEN, wing } from '../../support/wing'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const ids = () => {
  let n = 0
  return () => `task-${n++}`
}
const works = (node: Node, request: PlanRequest = {}) =>
  planHouse(houseOf(node), request).choices.flatMap(c =>
    c.option.steps.map(s => `${s.remedy.id}@${s.subject}`),
  )
function accepted(node: Node, request: PlanRequest = {}) {
  const house = houseOf(node)
  const plan = planHouse(house, request)
  return { plan, house: withChanges(house, tasksOf(plan, ids())) }
}

describe('schools', () => {
  it('name remedies there are, each once for its question', () => {
    for (const q of SCHOOLS)
      for (const s of q.schools) {
        expect(s.remedies.filter(r => !remedyById(r))).toEqual([])
        expect(s.why.length).toBeGreaterThan(20)
      }
    const all = SCHOOLS.flatMap(q => q.schools.map(s => s.id))
    expect(new Set(all).size).toBe(all.length)
  })
  it('go before what would be cheaper', () => {
    const fix = OPEN
    expect(works(wing({}, undefined, 'attic'), { fix }).every(w => w.startsWith('two-slot'))).toBe(
      true,
    )
    const breaker = { fix, schools: [{ school: 'ungrounded-breaker' }] }
    expect(works(wing({}, undefined, 'attic'), breaker)).toEqual([
      expect.stringMatching(/^gfci-breaker@/),
    ])
    const first = { fix, schools: [{ school: 'ungrounded-first' }] }
    expect(works(wing({}, undefined, 'attic'), first)).toEqual([
      expect.stringMatching(/^gfci-first-outlet@/),
    ])
  })
  it('of a circuit go before those of the house', () => {
    const schools = [{ school: 'ungrounded-breaker' }, { school: 'ungrounded-each', circuit: 'c' }]
    const chosen = works(wing({}, undefined, 'attic'), { fix: OPEN, schools })
    expect(chosen.map(w => w.split('@')[0])).toEqual(['gfci-here', 'gfci-here', 'gfci-here'])
  })
  it('that have no way here say so, and another way is let in', () => {
    const none = wing({ protectiveBreakers: 'none made' }, undefined, 'attic')
    const schools = [{ school: 'ungrounded-breaker' }]
    const plan = planHouse(houseOf(none), { fix: OPEN, schools })
    expect(plan.status).toBe('planned')
    expect(plan.departures.map(d => d.subject)).toEqual(['p1', 'p2', 'p3'])
  })
})

describe('an accepted plan', () => {
  const { plan, house } = accepted(wing({}, undefined, 'attic'), {
    fix: OPEN,
    schools: [{ school: 'ungrounded-first' }],
  })
  it('is things of the record, in the order of its stages', () => {
    const tasks = tasksInOrder(house)
    const steps = plan.choices.flatMap(c => c.option.steps)
    expect(tasks).toHaveLength(steps.length)
    const [work] = worksOf(house)
    expect(work).toMatchObject({ rule: 'open-ground-three-slot', state: 'planned' })
    expect(['p1', 'p2', 'p3']).toContain(work?.label)
    expect(work?.remedy.id).toBe('gfci-first-outlet')
    expect(work?.cents).toBe(steps[0]?.cost.cents)
  })
  it('turns nothing by itself: a plan is not work', () => {
    const before = new Judged(houseOf(wing({}, undefined, 'attic')))
    const after = new Judged(house)
    for (const [key, r] of before.results) expect(after.result(key)?.outcome).toBe(r.outcome)
  })
  it('marks the pair each outlet needs: the first its own, the others both', () => {
    const labels = labelsOf(worksOf(house))
    const at = (where: string) => labels.filter(l => l.where === where).map(l => l.text)
    expect(at('p1')).toEqual(['No Equipment Ground'])
    expect(at('p2')).toEqual(['GFCI Protected', 'No Equipment Ground'])
    expect(at('p3')).toEqual(['GFCI Protected', 'No Equipment Ground'])
  })
  it('is put on the truck by count', () => {
    const { parts, tools } = pickList(worksOf(house))
    const count = (what: string) => parts.find(p => p.what.includes(what))?.count
    expect(count('No Equipment Ground')).toBe(3)
    expect(count('GFCI Protected')).toBe(2)
    expect(count('GFCI receptacle')).toBe(1)
    expect(tools).toContain('torque screwdriver')
  })
  it('has papers that name each place, and none that is empty', () => {
    for (const id of PLAN_PAPERS) {
      const text = paperText(planPaper(house, id))
      expect(text.split('\n').length).toBeGreaterThan(3)
      // Ids and programmer words have no place on paper.
      expect(text).not.toMatch(/undefined|\[object|isMarked|gfci-first-outlet/)
    }
    expect(paperText(planPaper(house, 'lockout'))).toContain('Proved dead')
    const scope = paperText(planPaper(house, 'scope-of-work'))
    expect(scope).toContain('GFCI at the first outlet')
    // The fault may be elsewhere than the work: every place that is touched is named.
    expect(scope).toContain('Work at: p1, p2, p3')
  })
  it('says where nothing is accepted', () => {
    const bare = houseOf(wing())
    expect(paperText(planPaper(bare, 'scope-of-work'))).toContain('No plan has been accepted')
  })
})

describe('tests after the work', () => {
  const house = houseOf(wing({}, undefined, 'attic'))
  const now = new Judged(house)
  const remedy = remedyById('run-grounding-conductor')
  const changes = remedy
    ? changesOfWork(now, { rule: 'open-ground-three-slot', subject: 'p1', remedy })
    : []
  const tests = acceptanceTests(house, changes)
  it('are of what only a reading proves', () => {
    const fields = tests.map(t => t.field)
    expect(fields).toContain('groundOhms')
    expect(fields).toContain('lamps')
    expect(fields).not.toContain('slots')
    expect(fields).not.toContain('year')
  })
  it('pass up to their limit', () => {
    const ohms = tests.find(t => t.field === 'groundOhms')
    expect(ohms && [0.4, 1, 1.2].map(v => passesTest(ohms, v))).toEqual([true, true, false])
    const lamps = tests.find(t => t.field === 'lamps')
    expect(lamps && passesTest(lamps, 'open ground')).toBe(false)
  })
  it('a line voltage has to be there: none is no pass', () => {
    const note = { act: 'note', subject: 'p1', field: 'narrowToReferenceV', value: 120 } as const
    const [volts] = acceptanceTests(house, [note])
    expect(volts && [0, 107, 108, 120, 132, 133].map(v => passesTest(volts, v))).toEqual([
      false,
      false,
      true,
      true,
      true,
      false,
    ])
  })
  it('are none where the fault is gone already', () => {
    const gone = now.after([{ act: 'note', subject: 'p1', field: 'slots', value: 'two' }])
    const mine = remedy && { rule: 'no-such-rule', subject: 'p1', remedy }
    expect(mine && changesOfWork(gone, mine)).toEqual([])
  })
})

describe('a price book as a sheet', () => {
  it('comes back as it was', () => {
    const read = pricesFromCsv(pricesToCsv(SAMPLE_PRICES), SAMPLE_PRICES)
    expect('book' in read && read.book).toEqual({ ...SAMPLE_PRICES, isSample: false })
  })
  it('keeps figures that are not in the sheet', () => {
    const read = pricesFromCsv(
      'entry,cents,minutes\nhourly,11000,\ngfci-here,3100,20\n',
      SAMPLE_PRICES,
    )
    expect('book' in read && read.book).toMatchObject({
      hourly: 11_000,
      permit: SAMPLE_PRICES.permit,
      remedies: { 'gfci-here': { material: 3100, minutes: 20 } },
    })
  })
  it.each([
    ['entry,cents\nhourly,1\n', 'line 1'],
    ['entry,cents,minutes\nhourly,12.50,\n', 'line 2, cents'],
    ['entry,cents,minutes\nhourly,1,\nno-such-remedy,1,1\n', 'line 3, entry'],
    ['entry,cents,minutes\ngfci-here,100,\n', 'line 2, minutes'],
    ['', 'line 1'],
  ])('says where %j is wrong', (sheet, where) => {
    const read = pricesFromCsv(sheet, SAMPLE_PRICES)
    expect('problems' in read && read.problems[0]?.path).toBe(where)
  })
})
