import { FIELDS, Ledger, readJob, ruleById, type Kind } from '#core'
import {
  OLD_FIELDS,
  OLD_KINDS,
  OLD_VALUES,
  RENAMED_RULES,
  ruleNow,
  upcastFacts,
  upcastObservation,
} from '#core/file/upcast'

/** One row for every word of version 1: each kind, field and value, as a stored log and as a house by hand. */
const kindsOf = (field: string): Kind[] =>
  (Object.keys(FIELDS) as Kind[]).filter(kind => Object.hasOwn(FIELDS[kind], field))
const note = (field: string, value: unknown) => ({ act: 'note', subject: 'x', field, value })

describe('kinds of version 1', () => {
  it.each(Object.entries(OLD_KINDS))('%s is %s', (old, now) => {
    expect(FIELDS).toHaveProperty(now)
    expect(upcastObservation({ act: 'add', kind: old, subject: 'x' })).toEqual({
      act: 'add',
      kind: now,
      subject: 'x',
    })
  })
})

describe('fields of version 1', () => {
  it.each(Object.entries(OLD_FIELDS))('%s is %s', (old, now) => {
    expect(kindsOf(now).length).toBeGreaterThan(0)
    expect(kindsOf(old)).toEqual([])
    expect(upcastObservation(note(old, 1))).toEqual(note(now, 1))
    expect(upcastObservation({ act: 'block', field: old })).toEqual({ act: 'block', field: now })
    expect(upcastFacts({ a: [{ [old]: 1 }] })).toEqual({ a: [{ [now]: 1 }] })
  })
})

const VALUES = Object.entries(OLD_VALUES).flatMap(([field, words]) =>
  Object.entries(words).map(([old, now]) => [field, old, now] as const),
)
describe('values of version 1', () => {
  it.each(VALUES)('%s: %s is %s', (field, old, now) => {
    const choices = kindsOf(field).flatMap(kind => {
      const described = (
        FIELDS[kind] as Record<string, { type: string; options?: readonly unknown[] }>
      )[field]
      return described?.options ?? []
    })
    expect(choices).toContain(now)
    expect(choices).not.toContain(old)
    expect(upcastObservation(note(field, old))).toEqual(note(field, now))
    expect(upcastFacts({ [field]: old })).toEqual({ [field]: now })
    expect(upcastFacts({ [field]: { value: old, grade: 'read' } })).toEqual({
      [field]: { value: now, grade: 'read' },
    })
    // The same word in a text of a person is left alone.
    expect(upcastObservation(note('name', old))).toEqual(note('name', old))
  })
  it.each(VALUES.filter(([field]) => field !== 'rule' && field !== 'severity'))(
    '%s: %s is read from a house by hand as %s',
    (field, old, now) => {
      const [kind] = kindsOf(field)
      const { observations } = readJob(houseWith(kind!, field, old), {
        at: '2026-01-01T08:00:00.000Z',
        by: 'test',
        nextId: (() => {
          let n = 0
          return () => `t${String(n++).padStart(4, '0')}`
        })(),
      })
      const things = [...new Ledger(observations).house.subjects.values()].filter(
        s => s.kind === kind,
      )
      expect(
        things.map(s => (s.facts as Record<string, { value?: unknown }>)[field]?.value),
      ).toContain(now)
    },
  )
})

describe('rules of version 1', () => {
  it.each(Object.entries(RENAMED_RULES))('%s is %s', (old, now) => {
    expect([ruleById(old), ruleNow(old)]).toEqual([undefined, now])
    expect(ruleById(now)).toBeDefined()
  })
})

/** A house with one thing of each kind; the field on that of one kind. */
function houseWith(kind: Kind, field: string, value: unknown): Record<string, unknown> {
  const of = (k: Kind) => (k === kind ? { [field]: value } : {})
  return {
    corvit: 1,
    form: 'house',
    premises: { edition: 2020, ...of('premises') },
    electrodes: [{ id: 'e', ...of('electrode') }],
    enclosures: [
      {
        id: 'main',
        fedFrom: 'utility',
        ...of('enclosure'),
        breakers: [
          {
            id: 'b',
            ...of('breaker'),
            circuit: {
              id: 'c',
              ...of('circuit'),
              segments: [{ id: 's', ...of('segment') }],
              outlets: [{ id: 'p', ...of('outlet') }],
            },
          },
        ],
      },
      { id: 'sub', feeder: { id: 'f', from: 'b', ...of('feeder') } },
    ],
  }
}
