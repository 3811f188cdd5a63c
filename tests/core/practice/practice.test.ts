import {
  actionsAt,
  BUDGETS,
  callsFor,
  debrief,
  DIFFICULTIES,
  HINT_SECONDS,
  hintFor,
  keyOf,
  knownFacts,
  NEW_ROUND,
  practiceAct,
  practicePlaces,
  RULES,
  rulesOf,
  seeded,
  simulateHouse,
  recorded,
  THEMES,
  type Round,
} from '#core'

const house = simulateHouse(12, { faults: 2, isSmall: true })
const { log, site: answers } = recorded(house, seeded(12))
const key = keyOf(answers, house.injected)
const things = practicePlaces(answers).flatMap(p => p.things)
const thingOf = (id: string) => {
  const found = things.find(t => t.members.some(m => m.id === id))
  if (!found) throw new Error(`no ${id}`)
  return found
}
/** Calls every fault that was put in as it is. */
const called = (round: Round): Round => ({
  ...round,
  calls: key.wanted.flatMap(w => {
    const result = key.results.find(r => r.rule === w.rule && r.subject.id === w.subject)
    if (!result?.severity) return []
    const remedy = result.remedies.find(r => r.verdict !== 'refused')?.id
    return [{ rule: w.rule, subject: w.subject, severity: result.severity, remedy }]
  }),
})

describe('a round of practice', () => {
  it('begins with nothing known, and every place has something to look at', () => {
    expect(knownFacts(answers, NEW_ROUND).size).toBe(0)
    for (const t of things) expect(actionsAt(answers, t).length).toBeGreaterThan(0)
  })
  it('a breaker is looked at with its circuit and conductors, a bar with its screws', () => {
    expect(thingOf('main/1').members.map(m => m.kind)).toEqual(['breaker', 'circuit', 'segment'])
    expect(thingOf('main-neutral').members.length).toBe(7)
  })
  it('a look costs time and tells its facts once; opening counts a cover', () => {
    const panel = thingOf('main')
    const cover = actionsAt(answers, panel).find(a => a.opens === 'cover off')
    if (!cover) throw new Error('no cover')
    const round = practiceAct(NEW_ROUND, panel.id, cover, cover.safety.length)
    expect(round.opened).toHaveLength(1)
    expect(round.seconds).toBe(cover.seconds + (cover.opening?.seconds ?? NaN))
    expect(round.done[0]?.skipped).toBe(0)
    expect(knownFacts(answers, round).size).toBe(cover.facts.length)
    expect(practiceAct(round, panel.id, cover, 0)).toBe(round)
    expect(practiceAct(NEW_ROUND, panel.id, cover, 0).done[0]?.skipped).toBe(cover.safety.length)
    expect(practiceAct(NEW_ROUND, panel.id, cover, 1).done[0]?.skipped).toBe(1)
    // The cover is off: what lies behind it costs its look only, and nothing is to be done first.
    const breaker = thingOf('main/1')
    const behind = actionsAt(answers, breaker).find(a => a.opens === 'cover off')
    if (!behind) throw new Error('nothing behind')
    const more = practiceAct(round, breaker.id, behind, 0)
    expect([more.opened.length, more.seconds - round.seconds, more.done[1]?.skipped]).toEqual([
      1,
      behind.seconds,
      0,
    ])
  })
  it('all found and rightly weighed, with the safety steps, is 100', () => {
    const { score, found, missed, invented } = debrief(answers, key, called(NEW_ROUND))
    expect([score, found.length, missed.length, invented.length]).toEqual([100, 2, 0, 0])
  })
  it('nothing called is 0, and what was missed is told with its why', () => {
    const { score, missed } = debrief(answers, key, NEW_ROUND)
    expect([score, missed.length]).toEqual([0, 2])
    for (const m of missed) expect(m.why.length).toBeGreaterThan(5)
  })
  it('what nobody put in, a hint and a safety step left out each cost', () => {
    const [outlet] = answers.all.outlet
    if (!outlet) throw new Error('no outlet')
    const wrong = RULES.find(
      r =>
        r.subject === 'outlet' &&
        !key.results.some(x => x.rule === r.id && x.subject.id === outlet.id),
    )
    if (!wrong) throw new Error('no rule')
    const round = called(NEW_ROUND)
    const invented = {
      ...round,
      calls: [
        ...round.calls,
        { rule: wrong.id, subject: outlet.id, severity: 'note' as const, remedy: undefined },
      ],
    }
    expect(debrief(answers, key, invented)).toMatchObject({
      score: 85,
      invented: [{ rule: wrong.id }],
    })
    expect(debrief(answers, key, { ...round, hints: 1 }).score).toBe(95)
    const done = [{ thing: 'main', action: 'cover off', skipped: 2 }]
    expect(debrief(answers, key, { ...round, done })).toMatchObject({ score: 90, skipped: 2 })
  })
  it('a wrong severity and a wrong remedy cost less than a miss', () => {
    const round = called(NEW_ROUND)
    const calls = round.calls.map(c => ({ ...c, severity: 'note' as const, remedy: 'no such' }))
    const { score } = debrief(answers, key, { ...round, calls })
    expect(score).toBeLessThan(100)
    expect(score).toBeGreaterThan(80)
  })
  it('the shortest inspection tells the facts the faults rest on, and marks what was done of it', () => {
    const plain = debrief(answers, key, NEW_ROUND)
    expect(plain.shortest.length).toBeGreaterThan(0)
    expect(plain.shortest.every(s => !s.isDone)).toBe(true)
    let round = NEW_ROUND
    for (const s of plain.shortest) {
      const thing = things.find(t => t.id === s.thing)
      const action = thing && actionsAt(answers, thing).find(a => a.id === s.action)
      if (!thing || !action) throw new Error(`no ${s.thing} ${s.action}`)
      round = practiceAct(round, thing.id, action, action.safety.length)
    }
    const facts = knownFacts(answers, round)
    for (const w of key.wanted) {
      const result = key.results.find(r => r.rule === w.rule && r.subject.id === w.subject)
      const judged = result?.evidence.filter(e => actionsOfField(e.subject, e.field)) ?? []
      for (const e of judged) expect(facts).toContain(`${e.subject} ${e.field}`)
    }
    const replayed = debrief(answers, key, round)
    expect(replayed.shortest.every(s => s.isDone)).toBe(true)
    expect(replayed.yours).toEqual(replayed.shortest)
    expect(round.seconds).toBe(plain.shortestSeconds)
  })
  const actionsOfField = (subject: string, field: string) =>
    things.some(t =>
      actionsAt(answers, t).some(a => a.facts.some(f => f.thing === subject && f.field === field)),
    )
  it('a hint names a look that is not taken yet', () => {
    const hint = hintFor(log, answers, NEW_ROUND)
    expect(hint?.look.length).toBeGreaterThan(3)
    expect(HINT_SECONDS).toBeGreaterThan(0)
  })
  it('what can be called at a thing are the faults of its kinds', () => {
    const calls = callsFor(answers, thingOf('main/1'))
    expect(calls.some(c => c.rule === 'overfused-conductor')).toBe(true)
    expect(calls.every(c => thingOf('main/1').members.some(m => m.id === c.subject))).toBe(true)
  })
})

describe('levels and themes', () => {
  it('harder is more faults in less time', () => {
    const [first, ordinary, hard] = DIFFICULTIES.map(d => BUDGETS[d])
    expect(first?.faults).toBeLessThan(ordinary?.faults ?? 0)
    expect(hard?.minutes).toBeLessThan(ordinary?.minutes ?? 0)
  })
  it.each(THEMES)('%s makes houses whose faults are of it', theme => {
    const rules = rulesOf(theme)
    const made = simulateHouse(31, { faults: 2, isSmall: true, rules })
    for (const i of made.injected) expect(rules?.has(i.rule) ?? true).toBe(true)
  })
})
