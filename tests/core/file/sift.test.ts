import { BOUNDS, Ledger, readJobFile, sift, withClocks, type RawObservation } from '#core'

const NOW = Date.UTC(2026, 5, 1)
const stamp = (id: string) => ({ id, at: '2026-05-01T10:00:00.000Z', by: 'Ann' })
const add = (
  subject: string,
  kind: 'premises' | 'enclosure' | 'breaker' | 'outlet',
  parent: string | null,
): RawObservation => ({ ...stamp(`add-${subject}`), act: 'add', subject, kind, parent })
const note = (
  id: string,
  subject: string,
  field: string,
  value: string | number,
): RawObservation => ({ ...stamp(id), act: 'note', subject, field, value, grade: 'seen' })
const base = [add('premises', 'premises', null), add('e', 'enclosure', 'premises')]
const take = (batch: RawObservation[], before: RawObservation[] = base) => {
  const { fit, refused } = sift(withClocks(batch), new Ledger(before), NOW)
  return {
    fit: fit.map(o => o.id),
    refused: refused.map(r => [r.observation.id, r.problems[0]!.path] as const),
  }
}

describe('one bad observation does not hold up the rest', () => {
  it('of another kind, out of range, about nothing, or of an unknown field', () => {
    expect(
      take([
        add('b', 'breaker', 'e'),
        note('ok', 'b', 'ratingAmps', 20),
        note('far', 'b', 'ratingAmps', -4),
        note('ghost', 'g', 'ratingAmps', 20),
        note('odd', 'b', 'charm', 1),
      ]),
    ).toEqual({
      fit: ['add-b', 'ok'],
      refused: [
        ['far', 'value'],
        ['ghost', 'subject'],
        ['odd', 'field'],
      ],
    })
  })
  it('but takes along what hangs on it', () => {
    expect(
      take([
        add('b', 'breaker', 'premises'),
        note('n', 'b', 'ratingAmps', 20),
        note('name', 'e', 'name', 'Main'),
      ]),
    ).toEqual({
      fit: ['name'],
      refused: [
        ['add-b', 'parent'],
        ['n', 'subject'],
      ],
    })
  })
  it('pointing at nothing, or closing a circle', () => {
    const outlets = [
      ...base,
      add('p', 'outlet', 'premises'),
      add('q', 'outlet', 'premises'),
      note('a', 'p', 'after', 'q'),
    ]
    expect(
      take(
        [
          note('c', 'q', 'after', 'p'),
          note('g', 'q', 'circuit', 'ghost'),
          note('n', 'q', 'name', 'North'),
        ],
        outlets,
      ),
    ).toEqual({
      fit: ['n'],
      refused: [
        ['g', 'value'],
        ['c', 'value'],
      ],
    })
  })
  it('from the year 9999 or from before electricity, while a day ahead is believed', () => {
    const at = (id: string, when: string): RawObservation => ({
      ...note(id, 'e', 'name', id),
      at: when,
    })
    const latest = NOW + 48 * 3600 * 1000
    const batch = withClocks([
      at('far', '9999-01-01T00:00:00Z'),
      at('old', '1899-01-01T00:00:00Z'),
      at('ahead', '2026-06-02T00:00:00Z'),
      {
        ...at('shown', '9999-01-01T00:00:00Z'),
        clock: '2026-05-01T10:00:00.000Z~000000~x',
      } as RawObservation,
    ])
    const { fit, refused } = sift(batch, new Ledger(base), latest)
    expect([fit.map(o => o.id), refused.map(r => r.observation.id)]).toEqual([
      ['ahead'],
      ['far', 'old', 'shown'],
    ])
  })
  it('further from the supply than any outlet is, while what is just near enough is taken', () => {
    const outlets = Array.from({ length: BOUNDS.chain + 1 }, (_, i) =>
      add(`p${i}`, 'outlet', 'premises'),
    )
    const links = Array.from({ length: BOUNDS.chain }, (_, i) =>
      note(`n${i + 1}`, `p${i + 1}`, 'after', `p${i}`),
    )
    const { fit, refused } = take(links, [...base, ...outlets])
    expect([fit.length, refused]).toEqual([BOUNDS.chain - 1, [[`n${BOUNDS.chain}`, 'value']]])
  })
  it('stamped earlier than what it claims to have seen', () => {
    const before = [...base, note('n', 'e', 'name', 'Main')]
    const stale = {
      ...note('m', 'e', 'name', 'Sub'),
      clock: '2026-01-01T00:00:00.000Z~000000~x',
      over: ['n'],
    } as RawObservation
    expect(take([stale], before)).toEqual({ fit: [], refused: [['m', 'clock']] })
  })
})

describe('a file made to stop readers', () => {
  let made = 0
  const stamper = { at: '2026-05-01T10:00:00.000Z', by: 'x', nextId: () => `x${made++}` }
  const readText = (text: string) => () => readJobFile(text, stamper)
  const read = (raw: unknown) => readText(JSON.stringify(raw))
  const DEEP = `${'['.repeat(5000)}${']'.repeat(5000)}`
  it.each<[string, () => unknown, string]>([
    [
      'with 800 000 unknown names',
      read({
        corvit: 1,
        form: 'house',
        premises: Object.fromEntries(Array.from({ length: 800_000 }, (_, i) => [`k${i}`, 1])),
      }),
      'premises: expected at most 400 names',
    ],
    [
      'with 190 000 bad observations',
      read({ corvit: 1, form: 'log', observations: Array(190_000).fill({ id: 4 }) }),
      'observations[0]',
    ],
    [
      'with too many observations',
      read({ corvit: 1, form: 'log', observations: Array(BOUNDS.observations + 1).fill(1) }),
      'observations',
    ],
    [
      'with brackets in brackets',
      readText(`{"corvit":1,"form":"house","premises":${DEEP}}`),
      'at most 24 levels',
    ],
    [
      'with a chain of 400 outlets',
      read({
        corvit: 1,
        form: 'house',
        outlets: Array.from({ length: 400 }, (_, i) => ({
          id: `p${i}`,
          type: 'receptacle',
          after: i === 0 ? 'panel' : `p${i - 1}`,
        })),
      }),
      'after',
    ],
    ['of no version', read({ corvit: 'one', form: 'house' }), 'corvit'],
  ])('%s is given up at once, saying where', (_name, run, where) => {
    expect(run).toThrow(where)
  })
  it('is answered in our own words, never in those of the validator', () => {
    const wrong = {
      corvit: 2,
      form: 'log',
      observations: [
        { id: '', at: 3, by: 'x'.repeat(200), act: 'note', value: {}, grade: 'hoped' },
        { act: 'explode' },
      ],
    }
    expect(read(wrong)).toThrow(/a list of ids|an id cannot be empty/)
    try {
      read(wrong)()
    } catch (error) {
      expect((error as Error).message).not.toMatch(
        /Invalid|Too big|Too small|received|Unrecognized/,
      )
    }
  })
})
