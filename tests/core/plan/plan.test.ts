import {
  consequencesOf,
  Judged,
  Ledger,
  plainPlan,
  planHouse,
  priceBookSchema,
  remediesFor,
  SAMPLE_PRICES,
  withChanges,
  type House,
  type PlanRequest,
  type Result,
} from '#core'
import { CASE_HOUSES } from '../../support/cases'
import { observe, panel, type Node } from '../../support/house'
import { OPEN, wing } from '../../support/wing'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const plan = (node: Node, request: PlanRequest = {}) => planHouse(houseOf(node), request)
const works = (node: Node, request: PlanRequest = {}) =>
  plan(node, request).choices.flatMap(c => c.option.steps.map(s => `${s.remedy.id}@${s.subject}`))
/** Is the finding, and no other judgment, gone from the copy? */
const after = (house: House, request: PlanRequest = {}) => {
  const { choices } = planHouse(house, request)
  return new Judged(
    withChanges(
      house,
      choices.flatMap(c => c.option.changes),
    ),
  )
}

describe('worked houses', () => {
  it('a lone two-wire receptacle: putting back two slots is the cheapest there is', () => {
    expect(works(wing({}, [{}], 'attic'), { fix: OPEN.slice(0, 1) })).toEqual([
      'two-slot-device@p1',
    ])
  })
  it('a wing in the attic that keeps its third slot: one device ahead beats three, and the breaker', () => {
    // First outlet: $30 and 41 minutes with its marks; the breaker $60 and 36; three devices $75 and 75.
    const keep = { fix: OPEN, forbids: [{ remedy: 'two-slot-device' }] }
    const [only, ...others] = plan(wing({}, undefined, 'attic'), keep).choices
    expect(others).toEqual([])
    expect(only?.option.steps.map(s => s.remedy.id)).toEqual(['gfci-first-outlet'])
    expect(only?.findings).toHaveLength(3)
    expect(only?.runnerUp?.remedies).toEqual(['GFCI or dual-function breaker'])
    expect(only?.runnerUp?.more).toBeGreaterThan(0)
  })
  it('the same in a living room: a new device asks for AFCI there, so that a combined one goes in at once', () => {
    const keep = { fix: OPEN, forbids: [{ remedy: 'two-slot-device' }] }
    // The combined device $40 and 41 minutes with its marks; the breaker $60 and 36.
    expect(works(wing(), keep)).toEqual([expect.stringMatching(/^gfci-first-outlet@/)])
    const house = houseOf(wing())
    const before = new Judged(house)
    const first = before.resultOf('open-ground-three-slot', 'p2') as Result
    const { changes, required } = consequencesOf(before, first, 'gfci-first-outlet')
    expect(required).toEqual([])
    expect(changes).toContainEqual({
      act: 'note',
      subject: 'p1',
      field: 'protection',
      value: 'dual',
    })
    // A plain one there would have to be changed again.
    const plain = before.after(
      (changes ?? []).map(c =>
        c.act === 'note' && c.field === 'protection' ? { ...c, value: 'GFCI' } : c,
      ),
    )
    expect(plain.resultOf('afci-missing', 'p1')?.outcome).toBe('fault')
  })
  it('the same where the first outlet is forbidden: the breaker', () => {
    const forbids = ['two-slot-device', 'gfci-first-outlet'].map(remedy => ({ remedy }))
    expect(works(wing(), { fix: OPEN, forbids })).toEqual([expect.stringMatching(/^gfci-breaker@/)])
  })
  it('a legacy panel that takes none: the breaker is no way, whatever it costs', () => {
    const forbids = ['two-slot-device', 'gfci-first-outlet'].map(remedy => ({ remedy }))
    const found = plan(wing({ protectiveBreakers: 'none made' }), { fix: OPEN, forbids })
    expect(found.choices.flatMap(c => c.option.steps.map(s => s.remedy.id))).not.toContain(
      'gfci-breaker',
    )
    expect(found.status).toBe('planned')
  })
  it('small full boxes take no device: it goes to the breaker', () => {
    const full = wing({}, [{ boxVolumeIn3: 8 }, { boxVolumeIn3: 8 }, { boxVolumeIn3: 8 }])
    const forbids = ['two-slot-device', 'gfci-first-outlet'].map(remedy => ({ remedy }))
    expect(works(full, { fix: OPEN, forbids })).toEqual([expect.stringMatching(/^gfci-breaker@/)])
  })
  it('an indoor panel that became a sub-panel: its bond comes out', () => {
    const sub = panel([{ id: 'f2', space: 1, poles: 2, ratingAmps: 60, role: 'feeder' }], {
      marking: 'service disconnect',
      bondMeans: 'screw',
    })
    const house = {
      ...sub,
      enclosures: [
        ...(sub.enclosures as Node[]),
        {
          id: 'sub',
          type: 'panel',
          place: 'indoors',
          bondMeans: 'screw',
          feeder: { id: 'f', from: 'f2', egc: 'wire', size: '6', metal: 'copper' },
          bars: [{ id: 'n', role: 'neutral', isBondedToEnclosure: true }],
        },
      ],
    }
    const fix = [{ rule: 'neutral-bonded-downstream', subject: 'sub' }]
    expect(works(house, { fix })).toEqual(['separate-neutral@sub'])
    const turned = after(houseOf(house), { fix }).resultOf('neutral-bonded-downstream', 'sub')
    expect(turned?.outcome).toBe('clear')
  })
  it('two neutrals under a screw: each gets its own', () => {
    const house = panel([], {
      bars: [
        {
          id: 'n',
          role: 'neutral',
          screws: 12,
          areAllScrewsSeen: true,
          screwList: [{ id: 's', position: 1, neutrals: 2, grounds: 0 }],
        },
      ],
    })
    const fix = [{ rule: 'doubled-neutral', subject: 'n' }]
    expect(works(house, { fix })).toEqual(['one-per-terminal@n'])
  })
})

describe('a plan', () => {
  const three = { fix: OPEN, forbids: [{ remedy: 'two-slot-device' }] }
  it('adds up to the cent, with what is paid once', () => {
    const { total, choices, shared } = plan(wing(), three)
    const works = choices.reduce((n, c) => n + c.option.cents, 0)
    expect(total).toBe(works + shared.reduce((n, s) => n + s.cents, 0))
    expect(shared.map(s => s.what)).toEqual(['Call-out'])
    expect(Number.isInteger(total)).toBe(true)
  })
  it('says what would flip a choice, and flips there', () => {
    const house = wing({}, undefined, 'attic')
    const [choice] = plan(house, three).choices
    const more = choice?.runnerUp?.more ?? 0
    expect(more).toBeGreaterThan(0)
    const dearer = structuredClone(SAMPLE_PRICES)
    const line = dearer.remedies['gfci-first-outlet']
    // Materials bear contingency and tax, so that as many cents more on the line are enough to pass it.
    if (line) line.material += more + 1
    expect(works(house, { ...three, prices: dearer })).toEqual([
      expect.stringMatching(/^gfci-breaker@/),
    ])
  })
  it('keeps what is locked, and says what cannot be cured at all', () => {
    const locks = [{ subject: 'p1', remedy: 'gfci-here' }]
    expect(works(wing(), { ...three, locks })).toContain('gfci-here@p1')
    const every = ['two-slot-device', 'gfci-here', 'gfci-first-outlet', 'gfci-breaker']
      .concat('run-grounding-conductor', 'new-cable')
      .map(remedy => ({ remedy }))
    const none = plan(wing({}, [{}], 'attic'), { fix: OPEN.slice(0, 1), forbids: every })
    expect(none.status).toBe('infeasible')
    expect(none.clash[0]?.finding.rule.id).toBe('open-ground-three-slot')
    expect(none.clash[0]?.others.map(o => o.remedy)).toContain('own-ground-rod')
  })
  it('keeps a locked work within a budget, and says where the budget does not reach it', () => {
    const locks = [{ subject: 'p2', remedy: 'gfci-here' }]
    const attic = wing({}, undefined, 'attic')
    const all = plan(attic, { fix: OPEN, locks })
    const short = plan(attic, { fix: OPEN, locks, budget: all.total - 1 })
    const chosen = short.choices.flatMap(c =>
      c.option.steps.map(s => `${s.remedy.id}@${s.subject}`),
    )
    expect(short.status).toBe('out of budget')
    expect(chosen).toContain('gfci-here@p2')
    const poor = plan(attic, { fix: OPEN, locks, budget: 13_000 })
    expect([poor.choices, poor.unmetLocks]).toEqual([[], locks])
  })
  it('within a budget takes the most danger away, and says what it leaves', () => {
    const house = wing({ cover: 'missing', openings: 1 })
    const all = plan(house)
    expect(all.status).toBe('planned')
    const tight = plan(house, { budget: all.total - 1 })
    expect(tight.status).toBe('out of budget')
    expect(tight.total).toBeLessThanOrEqual(all.total - 1)
    expect(tight.left.length).toBeGreaterThan(0)
    // What is left is never more dangerous than what was done.
    expect(tight.choices.some(c => c.findings.some(f => f.rule.id === 'dead-front-missing'))).toBe(
      true,
    )
    expect(plan(house, { budget: 0 }).choices).toEqual([])
  })
  it('has nothing to do in a sound house, and stops when it is told to', () => {
    expect(plan(panel([])).status).toBe('nothing to fix')
    expect(plan(wing(), { ...three, onProgress: () => false }).status).toBe('stopped')
  })
  it('reads as plain data, with why and the stages', () => {
    const house = houseOf(wing({ cover: 'missing' }))
    const { site } = new Judged(house)
    const text = plainPlan(planHouse(house), site, SAMPLE_PRICES)
    expect(text.prices.isSample).toBe(true)
    expect(text.stages[0]?.title).toBe('Make safe today')
    for (const c of text.choices) expect(c.why.length).toBeGreaterThan(10)
    expect(JSON.parse(JSON.stringify(text))).toEqual(text)
  })
  it('refuses a price book that is none, and says where', () => {
    const wrong = { ...SAMPLE_PRICES, hourly: 12.5 }
    const parsed = priceBookSchema.safeParse(wrong)
    expect(parsed.success).toBe(false)
    expect(parsed.error?.issues[0]?.path).toEqual(['hourly'])
  })
})

/** Works that end one of several failures, or after which something nobody has looked at is still open. */
const KNOWN_SHORT: readonly string[] = [
  'appliance-overcurrent / replace-conductor',
  'bonding-jumper-size / larger-bonding-jumper',
  'electrode-conductor / electrode-conductor',
  'electrode-conductor / install-electrodes',
  'knob-and-tube / knob-and-tube-care',
  'water-bond / bond-water',
]

describe('over every house of the case sets', () => {
  it('a plan judged again leaves no chosen fault and brings no new one', () => {
    const bad: string[] = []
    let planned = 0
    for (const { name, house } of CASE_HOUSES) {
      const made = planHouse(house)
      if (made.choices.length === 0) continue
      planned++
      for (const f of made.newlyRequired) bad.push(`${name}: new ${f.rule} at ${f.subject}`)
      const again = new Judged(
        withChanges(
          house,
          made.choices.flatMap(c => c.option.changes),
        ),
      )
      const clash = new Set(made.clash.map(c => `${c.finding.rule.id} ${c.finding.subject.id}`))
      for (const c of made.choices)
        for (const f of c.findings) {
          const now = again.resultOf(f.rule.id, f.subject.id)
          if (now?.outcome === 'fault' && !clash.has(`${f.rule.id} ${f.subject.id}`))
            bad.push(`${name}: still ${f.rule.id} at ${f.subject.id}`)
        }
    }
    expect(CASE_HOUSES.length).toBeGreaterThan(500)
    expect(planned).toBeGreaterThan(150)
    expect(bad).toEqual([])
  })
  it('what a remedy is offered for is gone when it is done, or part of it', () => {
    const bad = new Map<string, number>()
    const idle: string[] = []
    let tried = 0
    for (const { name, house } of CASE_HOUSES) {
      const before = new Judged(house)
      for (const r of before.results.values()) {
        if (r.outcome !== 'fault') continue
        for (const { remedy, advice } of remediesFor(r as Result, before.site)) {
          if (advice.verdict !== 'offered') continue
          const done = consequencesOf(before, r, remedy.id)
          if (done.changes === undefined) continue
          tried++
          const key = `${r.rule.id} / ${remedy.id}`
          if (!done.isCured) bad.set(key, (bad.get(key) ?? 0) + 1)
          const after = before.after(done.changes).resultOf(r.rule.id, r.subject.id)
          if (after?.outcome === 'fault' && after.failures.length >= r.failures.length)
            idle.push(`${name}: ${key} cures none of it`)
        }
      }
    }
    expect(tried).toBeGreaterThan(400)
    expect(idle).toEqual([])
    expect([...bad.keys()].sort()).toEqual(KNOWN_SHORT)
  })
})
