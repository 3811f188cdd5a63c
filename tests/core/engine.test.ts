import { evaluate, RULES, Site, type Result, type Subject } from '#core'
import { siteOf, judge, oneOutlet, panel, run, type Node } from '../support/house'
import { render } from '#core/engine/say'
import { defineRule } from '#core/engine/rule'
import { judgeEach } from '#core/engine/evaluate'
import { hillside } from '#core/examples/hillside'

const multiwire = (year: unknown, edition = 2020, more: Node = {}, yearBuilt: unknown = 1970) => ({
  ...panel(
    [
      {
        id: 'b1',
        space: 1,
        poles: 1,
        ratingAmps: 20,
        handleTie: 'not tied',
        circuit: {
          id: 'c1',
          sharesNeutralWith: ['c2'],
          isOnOneYoke: false,
          ...(year !== undefined && { year }),
          ...more,
        },
      },
      {
        id: 'b2',
        space: 3,
        poles: 1,
        ratingAmps: 20,
        handleTie: 'not tied',
        circuit: { id: 'c2' },
      },
    ],
    {},
    { edition, yearBuilt },
  ),
})
const standing = (house: Node): Result => judge('multiwire-no-common-trip', house, 'c1')

describe('standing', () => {
  it.each<[string, Node, string]>([
    ['put in the year before the rule', multiwire(2007), 'allowed to remain'],
    ['put in the year of the rule', multiwire(2008), 'violation when installed'],
    ['an interval before it', multiwire([1990, 2007]), 'allowed to remain'],
    ['an interval across it', multiwire([2000, 2010]), 'depends on the year'],
    ['year not known in an old house', multiwire(undefined), 'depends on the year'],
    [
      'year not known in a house newer than the rule',
      multiwire(undefined, 2020, {}, 2012),
      'violation when installed',
    ],
    [
      'old, but being extended now',
      multiwire(1990, 2020, { work: 'extended' }),
      'required by this work',
    ],
    ['old, and no work on it', multiwire(1990, 2020, { work: 'none' }), 'allowed to remain'],
  ])('%s', (_name, house, kind) => {
    expect(standing(house).standing?.kind).toBe(kind)
  })
  it('names the year that would turn it', () => {
    expect(standing(multiwire(undefined)).standing?.turningYears).toEqual([2008])
  })
  it.each([
    [2014, 'n/a'],
    [2017, 'fault'],
    [2023, 'fault'],
  ])('a garage circuit under the %s edition: %s', (edition, outcome) => {
    expect(
      judge(
        'required-20A-circuit-downsized',
        panel([run(15, { size: '14' }, { requiredUse: 'garage' })], {}, { edition }),
        'c',
      ).verdict.outcome,
    ).toBe(outcome)
  })
  it('AL-CU devices of before 1971 were lawful when made, later ones not', () => {
    const device = (year: number) =>
      judge(
        'aluminum-at-unmarked-device',
        oneOutlet({
          metal: 'aluminum',
          termination: 'binding screw',
          deviceAmps: 15,
          aluminumMarking: 'AL-CU',
          year,
        }),
        'p',
      ).standing?.kind
    expect([device(1969), device(1971), device(1985)]).toEqual([
      'allowed to remain',
      'violation when installed',
      'violation when installed',
    ])
  })
  it('a hazard needs no rule', () => {
    expect(
      judge('insulation-failed', panel([run(15, { insulation: 'brittle' })]), 's').standing?.kind,
    ).toBe('hazard')
  })
})

describe('severity', () => {
  it('is danger times exposure, said in words', () => {
    const at = (use: string) =>
      judge(
        'device-worn',
        oneOutlet({ condition: 'cracked', room: 'r' }, { rooms: [{ id: 'r', use }] }),
        'p',
      )
    expect(at('bedroom').severity).toBe('upgrade')
    expect(at('bathroom').severity).toBe('repair')
    expect(render(at('bathroom').severityWhy!)).toBe(
      'It weakens a protection, where people stand on wet or grounded floors (bathroom)',
    )
  })
  it('grossly overfused is to be made safe now, a little overfused repaired', () => {
    const amps = (a: number) =>
      judge(
        'overfused-conductor',
        panel([run(a, { size: '14', metal: 'copper', wiring: 'NM-B' })]),
        's',
      ).severity
    expect([amps(20), amps(25), amps(30)]).toEqual(['repair', 'make safe now', 'make safe now'])
  })
  it('what may stay is an upgrade or a mention, as the settings say', () => {
    const desk = (allowedToRemain: string) =>
      judge(
        'multiwire-no-common-trip',
        { ...multiwire(1990), premises: { yearBuilt: 1970, edition: 2020, allowedToRemain } },
        'c1',
      ).severity
    expect([desk('recommend upgrade'), desk('mention')]).toEqual(['upgrade', 'note'])
  })
})

describe('the engine', () => {
  it('makes a rule that throws undecided, with its error attached, never a pass', () => {
    const broken = defineRule({
      ...RULES.find(r => r.id === 'device-worn')!,
      subject: 'outlet',
      judge() {
        throw new Error('boom')
      },
    })
    const [result] = evaluate(siteOf(oneOutlet({ condition: 'sound' })), [broken])
    expect(result!.verdict).toMatchObject({ outcome: 'undecided', defect: 'Error: boom' })
  })
  it.each<[string, Node, string]>([
    ['what is seen', { condition: 'sound' }, 'clear'],
    ['what is assumed', { condition: { value: 'sound', grade: 'assumed' } }, 'undecided'],
    ['what is assumed and bad', { condition: { value: 'cracked', grade: 'assumed' } }, 'fault'],
    ['another thing', { type: 'luminaire' }, 'n/a'],
    [
      'what is assumed to be another thing',
      { type: { value: 'luminaire', grade: 'assumed' } },
      'undecided',
    ],
  ])('a look-up that one verdict answers for all things: %s', (_, outlet, outcome) => {
    const result = judge('device-worn', oneOutlet(outlet), 'p')
    expect(result.outcome).toBe(outcome)
    if (outcome === 'undecided')
      expect(result.missing.map(f => f.field)).toEqual([Object.keys(outlet)[0]])
  })
  it('of a rule that throws lists what it had asked for, also when others were judged since', () => {
    const broken = defineRule({
      ...RULES.find(r => r.subject === 'outlet')!,
      judge(outlet, c) {
        c.ask((outlet as Subject<'outlet'>).facts.type)
        throw new Error('boom')
      },
    })
    const [first, second] = evaluate(siteOf(oneOutlet({}, { others: [{ id: 'q' }] })), [broken])
    expect(first?.asked.map(f => `${f.subject} ${f.field}`)).toEqual([`${first?.subject.id} type`])
    expect(second?.asked.map(f => f.subject)).toEqual([second?.subject.id])
    expect(first?.missing).toEqual([])
  })
  it('a run of conductors that hangs on no circuit is no defect of the program', () => {
    const whole = siteOf(panel([run(20, { size: '12', metal: 'copper', wiring: 'NM-B' })]))
    const subjects = new Map(whole.house.subjects)
    subjects.delete('c')
    const site = new Site({ subjects })
    const results = evaluate(site, RULES).filter(r => r.subject.id === 's')
    expect(results.length).toBeGreaterThan(5)
    for (const { verdict } of results)
      if (verdict.outcome === 'undecided') expect(verdict.defect).toBeUndefined()
  })
  it.each<[string, boolean, string]>([
    ['a small fault before a great one that may stay', true, 'small'],
    ['a great fault before a small one', false, 'great'],
  ])('of two failures decides %s', (_, mayStay, decides) => {
    const rule = defineRule({
      id: 'directory',
      family: 'panels',
      subject: 'enclosure',
      title: 'two checks',
      fault: 'two failures',
      consequence: 'none',
      checks: { great: { danger: 3, says: 'great' }, small: { danger: 1, says: 'small' } },
      cites: [],
      triggers: [],
      remedies: [],
      traps: [],
      judge(_thing, c) {
        c.fails('great', {}, mayStay ? { since: 2017 } : {})
        c.fails('small')
        return c.undecided()
      },
    })
    const [result] = evaluate(siteOf(panel([], { year: 2000 })), [rule])
    expect([result?.outcome, result?.failure?.id]).toEqual(['fault', decides])
  })
  it('judges nothing where there is nothing', () => {
    expect(evaluate(new Site({ subjects: new Map() }), RULES)).toEqual([])
  })
  it('hands over each judgment as it is made, and lists the same for it afterwards', () => {
    const site = siteOf(hillside() as Node)
    const all = evaluate(site, RULES)
    const atHand: string[] = []
    const told = (r: Result) =>
      [r.rule.id, r.subject.id, r.outcome, ...r.asked.map(f => f.field)].join(' ')
    judgeEach(site, RULES, r => atHand.push(told(r)))
    // Judged long before: what was asked for is found by judging again.
    expect(all.map(told)).toEqual(atHand)
  })
  it.each([
    ['open-ground-three-slot', { ground: 'none', protection: 'none' }, 'It breaks a protection'],
    ['bootleg-ground', { groundToReferenceV: 119 }, 'It can kill or start a fire'],
  ])('%s says how dangerous it is in words', (rule, outlet, words) => {
    const circuit = { gfciTest: 'stays live' }
    const { severityWhy } = judge(rule, oneOutlet({ ...outlet, ...circuit }), 'p')
    expect(severityWhy?.text).toContain(words)
  })
  it('a part of no known year is said to be so', () => {
    const house = oneOutlet(
      { slots: 'three', isTamperResistant: false, isDedicated: false, isHigh: false },
      { premises: { yearBuilt: undefined } },
    )
    const { standing } = judge('tamper-resistant', house, 'p')
    expect(standing?.kind).toBe('depends on the year')
    expect(standing?.why.slots).toMatchObject({ span: 'year not known' })
  })
  it('what began no later than an edition asks, in the year of it, for when that was law here', () => {
    const house = {
      ...panel([], {}, { areAdoptionsRecorded: undefined }),
      bonds: [
        {
          id: 'bond',
          to: 'communications',
          landsOn: 'grounding electrode conductor',
          connection: 'sound',
          lengthFt: 21,
          year: 2002,
        },
      ],
    }
    expect(judge('bond-unsound', house, 'bond').standing?.ask).toBeDefined()
  })
  it('keeps what each verdict rests on', () => {
    const { asked } = judge(
      'overfused-conductor',
      panel([run(20, { size: { value: '14', grade: 'gauge' }, metal: 'copper', wiring: 'NM-B' })]),
      's',
    )
    expect(asked.filter(f => f.state === 'known').map(f => f.field)).toEqual(
      expect.arrayContaining(['fedBy', 'ratingAmps', 'size', 'metal', 'wiring', 'supplies']),
    )
  })
  it('shows a sum somebody could check on paper', () => {
    const { verdict } = judge(
      'overfused-conductor',
      panel([run(20, { size: '14', metal: 'copper', wiring: 'NM-B' })]),
      's',
    )
    const text = verdict.working.map(render).join('; ')
    expect(text).toContain('this cable: 60 °C column, not above 15 A')
    expect(text).toContain('small-conductor limit: 15 A (240.4(D))')
    expect(text).toContain('20 A > 15 A')
  })
})

describe('an edition nobody has said (second reading, A24)', () => {
  const house = (edition?: number): Node => ({
    ...panel([], { surge: 'none', work: 'replaced' }),
    premises: { visitedOn: '2026-01-01', ...(edition !== undefined && { edition }) },
  })
  const open = judge('surge-protector', house(), 'main')
  it('leans to a fault unless the edition is older than the first that asks', () => {
    expect(open.leaning?.to).toBe('fault')
    expect(open.leaning?.unless.map(u => u.text)).toEqual([
      'the edition in force here is older than 2020',
    ])
    expect(open.leaning?.ask).toMatchObject({ subject: 'premises', field: 'edition' })
  })
  it.each([
    [2017, 'n/a'],
    [2020, 'fault'],
    [2023, 'fault'],
  ])('under %i it is %s', (edition, outcome) =>
    expect(judge('surge-protector', house(edition), 'main').outcome).toBe(outcome),
  )
})
