import { assess, fieldOf, Ledger, readJob, RULES, type Rule } from '#core'
import type { Node } from '../../support/house'

/**
 * Every row of the rules that one look settles: each value of its field says what the row says, nothing seen is open,
 * what it does not bear on is left alone, and what can be done about a fault is offered without a slip.
 */
type Meaning = { fine?: string; na?: string; stays?: string; danger?: number; check?: string }
type Only = {
  field?: string
  is?: readonly unknown[]
  roomUse?: readonly string[]
  isPresumed?: boolean
  onMultiwire?: true
}

/** A house with one thing of the kind, and these facts. */
function houseOf(kind: string, facts: Node, roomUse = 'living'): { house: Node; on: string } {
  const at = (id: string, more: Node) => ({ id, ...(id === 'x' && facts), ...more })
  const is = (k: string) => (k === kind ? 'x' : k)
  const premises = {
    edition: 2023,
    yearBuilt: 2024,
    visitedOn: '2026-01-01',
    ...(kind === 'premises' && facts),
  }
  const building = at(is('building'), { name: 'barn' })
  const outlet = at(is('outlet'), { room: is('room') })
  const circuit = {
    sharesNeutralWith: ['other'],
    ...at(is('circuit'), {}),
    segments: [at(is('segment'), {})],
    outlets: [outlet],
  }
  const breaker = { ...at(is('breaker'), {}), circuit }
  return {
    on: kind === 'premises' ? 'premises' : 'x',
    house: {
      corvit: 2,
      form: 'house',
      premises,
      buildings: [building],
      rooms: [{ ...(kind !== 'room' && { use: roomUse }), ...at(is('room'), {}) }],
      enclosures: [{ fedFrom: 'utility', ...at(is('enclosure'), {}), breakers: [breaker] }],
      circuits: [{ id: 'other' }],
    },
  }
}

function answer(rule: Rule, facts: Node, roomUse?: string) {
  const { house, on } = houseOf(rule.subject, facts, roomUse)
  let n = 0
  const { observations } = readJob(house, {
    at: '2026-01-01T08:00:00.000Z',
    by: 'test',
    nextId: () => `t${String(n++).padStart(6, '0')}`,
  })
  const { results } = assess(new Ledger(observations).house, { rules: [rule] })
  const found = results.find(r => r.subject.id === on)
  if (!found) throw new Error(`${rule.id} did not judge ${on}`)
  return found
}

const valueOf = (word: string) => (word === 'true' ? true : word === 'false' ? false : word)

describe.each(RULES.filter(r => r.look).map(r => [r.id, r] as const))('%s', (_id, rule) => {
  const look = rule.look ?? { field: '', values: {}, only: [] }
  const only = look.only as Only[]
  const held: Node = {}
  for (const o of only) if (o.field) held[o.field] = o.is?.[0]
  const use = only.find(o => o.roomUse)?.roomUse?.[0]

  it.each(Object.entries(look.values as Record<string, Meaning>))('%s', (word, meaning) => {
    const found = answer(rule, { ...held, [look.field]: valueOf(word) }, use)
    if (meaning.stays !== undefined) {
      expect([found.outcome, found.checks]).toEqual(['allowed', []])
    } else if (meaning.danger === undefined) {
      expect(found.outcome).toBe(meaning.fine === undefined ? 'n/a' : 'clear')
      expect(found.checks).toEqual([])
    } else {
      expect(found.outcome).toBe('fault')
      expect(found.checks).toHaveLength(1)
      if (meaning.check) expect(found.checks[0]?.id).toBe(meaning.check)
      expect(found.remedies.length).toBeGreaterThan(0)
    }
  })
  it('says something of every value there is', () => {
    const field = fieldOf(rule.subject, look.field)
    const all = field?.type === 'choice' ? field.options.map(String) : ['false', 'true']
    expect(Object.keys(look.values).sort()).toEqual([...all].sort())
  })
  it('is open while nobody has looked, and names the look', () => {
    const found = answer(rule, held, use)
    expect(found.outcome).toBe('undecided')
    expect(found.missing.map(m => m.field)).toContain(look.field)
  })
  const first = Object.keys(look.values)[0] ?? ''
  for (const o of only.filter(x => x.field && !x.isPresumed)) {
    it(`is open while ${o.field} is unknown`, () => {
      const { [o.field ?? '']: _gone, ...rest } = held
      expect(answer(rule, { ...rest, [look.field]: valueOf(first) }, use).outcome).toBe('undecided')
    })
    it(`is left alone by another ${o.field}`, () => {
      const field = fieldOf(rule.subject, o.field ?? '')
      const all =
        field?.type === 'choice' ? field.options : field?.type === 'number' ? [1] : [true, false]
      const other = (all as readonly unknown[]).find(v => !o.is?.includes(v))
      const facts = { ...held, [o.field ?? '']: other, [look.field]: valueOf(first) }
      expect(answer(rule, facts, use).outcome).toBe('n/a')
    })
  }
})
