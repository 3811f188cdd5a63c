import { readFileSync, readdirSync } from 'node:fs'
import {
  assess,
  Ledger,
  readJob,
  readJobFile,
  UnreadableFile,
  writeHouse,
  writeLog,
  type Problem,
} from '#core'
import { hillside } from '#core/examples/hillside'
import { observe, panel, run, type Node } from '../../support/house'

const stamper = () => {
  let n = 0
  return {
    at: '2026-01-01T08:00:00.000Z',
    by: 'test',
    nextId: () => `t${String(n++).padStart(6, '0')}`,
  }
}
function problems(input: unknown): readonly Problem[] {
  try {
    if (typeof input === 'string') readJobFile(input, stamper())
    else readJob(input, stamper())
  } catch (error) {
    if (error instanceof UnreadableFile) return error.problems
    throw error
  }
  return []
}
const house = (more: Node): Node => ({ corvit: 1, form: 'house', ...more })

describe('a file that cannot be read names path, expected and found', () => {
  it.each<[string, unknown, string, RegExp, RegExp]>([
    ['broken JSON', '{"corvit": 1,', '(file)', /JSON/, /./],
    ['not an object', '[1]', '(top)', /object/, /list of 1/],
    ['no version', house({ corvit: undefined }), 'corvit', /1/, /nothing/],
    ['a newer version', house({ corvit: 7 }), 'corvit', /version 2/, /7, written by a newer/],
    ['an unknown form', house({ form: 'plan' }), 'form', /house/, /plan/],
    [
      'a wrong unit',
      panel([run(20, { size: '14' }, {}, { ratingAmps: { value: 20, unit: 'V' } })]),
      'enclosures[0].breakers[0].ratingAmps.unit',
      /the unit A/,
      /"V"/,
    ],
    [
      'a wrong word',
      panel([run(20, { metal: 'cupper' })]),
      'enclosures[0].breakers[0].circuit.segments[0].metal',
      /one of "copper"/,
      /cupper/,
    ],
    [
      'an unknown name',
      panel([run(20, { gauge: '14' })]),
      'enclosures[0].breakers[0].circuit.segments[0].gauge',
      /a name this place knows/,
      /gauge/,
    ],
    [
      'out of range',
      panel([run(9000, {})]),
      'enclosures[0].breakers[0].ratingAmps',
      /from 5 to 400 A/,
      /9000/,
    ],
    [
      'a text where a number belongs',
      panel([run(20, {}, {}, { ratingAmps: '20' })]),
      'enclosures[0].breakers[0].ratingAmps',
      /a number/,
      /"20"/,
    ],
    [
      'an id used twice',
      panel([run(20, {}), { id: 'b' }]),
      'enclosures[0].breakers[1].id',
      /used once/,
      /"b", also at/,
    ],
    ['an id with markup', panel([{ id: '<b>' }]), 'enclosures[0].breakers[0].id', /letters/, /<b>/],
    [
      'a reference to nothing',
      panel([run(20, {}, { sharesNeutralWith: ['ghost'] })]),
      'c.sharesNeutralWith',
      /ids of circuit/,
      /ghost/,
    ],
    [
      'a reference to the wrong kind',
      house({ enclosures: [{ id: 'm' }], circuits: [{ id: 'c', fedBy: 'm' }] }),
      'c.fedBy',
      /breaker/,
      /enclosure/,
    ],
    [
      'a circle in the chain',
      panel([
        {
          id: 'b',
          circuit: {
            id: 'c',
            outlets: [
              { id: 'p', after: 'q' },
              { id: 'q', after: 'p' },
            ],
          },
        },
      ]),
      'p.after',
      /leads to the supply/,
      /circle through p, q/,
    ],
    [
      'a circle in the supply',
      house({
        enclosures: [
          { id: 'x', feeder: { id: 'f1', from: 'y' } },
          { id: 'y', feeder: { id: 'f2', from: 'x' } },
        ],
      }),
      'x.fedFrom',
      /leads to the supply/,
      /circle/,
    ],
    [
      'an oversized text',
      house({ premises: { name: 'x'.repeat(300) } }),
      'premises.name',
      /200 characters/,
      /x…/,
    ],
    ['control characters', house({ premises: { name: 'a\u0007b' } }), 'premises.name', /./, /./],
    [
      'a backward interval',
      house({ premises: { yearBuilt: [1990, 1980] } }),
      'premises.yearBuilt',
      /\[from, to\]/,
      /list of 2/,
    ],
    [
      'an empty reason',
      house({ premises: { yearBuilt: { blocked: '' } } }),
      'premises.yearBuilt.blocked',
      /./,
      /./,
    ],
    [
      'an unknown kind in a log',
      {
        corvit: 1,
        form: 'log',
        observations: [
          {
            id: 'a',
            at: '2026-01-01T00:00:00Z',
            by: 'x',
            act: 'add',
            subject: 's',
            kind: 'dragon',
            parent: null,
          },
        ],
      },
      'observations[0].kind',
      /premises/,
      /dragon/,
    ],
    [
      'a field the kind has not',
      {
        corvit: 1,
        form: 'log',
        observations: [
          {
            id: 'a',
            at: '2026-01-01T00:00:00Z',
            by: 'x',
            act: 'add',
            subject: 'premises',
            kind: 'premises',
            parent: null,
          },
          {
            id: 'b',
            at: '2026-01-01T00:00:00Z',
            by: 'x',
            act: 'note',
            subject: 'premises',
            field: 'size',
            value: '14',
            grade: 'seen',
          },
        ],
      },
      'observations[1].field',
      /a field of a premises/,
      /size/,
    ],
    [
      'a fact about nothing',
      {
        corvit: 1,
        form: 'log',
        observations: [
          {
            id: 'b',
            at: '2026-01-01T00:00:00Z',
            by: 'x',
            act: 'note',
            subject: 'ghost',
            field: 'size',
            value: '14',
            grade: 'seen',
          },
        ],
      },
      'observations[0].subject',
      /was added/,
      /ghost/,
    ],
    [
      'a date that is none',
      {
        corvit: 1,
        form: 'log',
        observations: [{ id: 'a', at: 'yesterday', by: 'x', act: 'drop', subject: 's' }],
      },
      'observations[0].at',
      /ISO 8601/,
      /yesterday/,
    ],
  ])('%s', (_name, input, path, expected, found) => {
    const [first] = problems(typeof input === 'object' ? JSON.parse(JSON.stringify(input)) : input)
    expect(first?.path).toBe(path)
    expect(first?.expected).toMatch(expected)
    expect(first?.found).toMatch(found)
  })
  it('refuses 50 MB before parsing it', () => {
    expect(problems('x'.repeat(50 * 1024 * 1024))[0]).toMatchObject({
      path: '(file)',
      expected: 'at most 20 MB',
    })
  })
  it('takes prototype names as nothing special', () => {
    expect(problems('{"corvit":1,"form":"house","__proto__":{"a":1}}')[0]?.path).toBe('__proto__')
    expect(problems('{"corvit":1,"form":"house","premises":{"constructor":1}}')[0]?.path).toBe(
      'premises.constructor',
    )
  })
})

describe('round trips', () => {
  const ledger = new Ledger(observe(hillside() as Node))
  it('the log comes back identical', () => {
    const text = JSON.stringify(writeLog(ledger))
    const again = new Ledger(readJobFile(text, stamper()).observations)
    expect(JSON.stringify(writeLog(again)) === text).toBe(true)
  })
  it('the house comes back identical, and judged the same', () => {
    const text = JSON.stringify(writeHouse(ledger.house, id => ledger.find(id)))
    const again = new Ledger(readJobFile(text, stamper()).observations)
    expect(JSON.stringify(writeHouse(again.house, id => again.find(id))) === text).toBe(true)
    const outcomes = (l: Ledger) =>
      assess(l.house)
        .results.map(r => `${r.rule} ${r.subject.id} ${r.outcome} ${r.severity} ${r.standing}`)
        .sort()
        .join('\n')
    expect(outcomes(again) === outcomes(ledger)).toBe(true)
  })
  it('keeps how a fact is known, and why it could not be seen', () => {
    const source = house({
      premises: { yearBuilt: { value: 1961, grade: 'told', remark: 'owner' } },
      enclosures: [{ id: 'm', cover: { blocked: 'locked' } }],
    })
    const own = new Ledger(observe(source))
    expect(writeHouse(own.house, id => own.find(id))).toMatchObject({
      premises: { yearBuilt: { value: 1961, grade: 'told', remark: 'owner' } },
      enclosures: [{ cover: { blocked: 'locked' } }],
    })
  })
  it('takes other spellings of a choice, by hand, and a number for a size', () => {
    const own = new Ledger(
      observe(
        panel([
          run(
            20,
            { size: 12, metal: 'Aluminum', wiring: 'nm-b' },
            {},
            { protection: { value: 'gfci', grade: 'read' } },
          ),
        ]),
      ),
    )
    expect(own.house.subjects.get('s')!.facts).toMatchObject({
      size: { value: '12' },
      metal: { value: 'aluminum' },
      wiring: { value: 'NM-B' },
    })
    expect(own.house.subjects.get('b')!.facts).toMatchObject({
      protection: { value: 'GFCI', grade: 'read' },
    })
  })
  it('brings other units to the declared one', () => {
    const own = new Ledger(
      observe(
        panel(
          [
            run(20, {
              exposures: [{ id: 'x', what: 'hot', ambientC: { value: 122, unit: '°F' } }],
            }),
          ],
          { workingDepthIn: { value: 3, unit: 'ft' } },
        ),
      ),
    )
    expect(own.house.subjects.get('x')!.facts).toMatchObject({ ambientC: { value: 50 } })
    expect(own.house.subjects.get('main')!.facts).toMatchObject({ workingDepthIn: { value: 36 } })
  })
})

it('every example of docs/FORMATS.md is readable and says what it shows', () => {
  const files = readdirSync('docs/examples')
  expect(files.length).toBeGreaterThanOrEqual(4)
  const judged = Object.fromEntries(
    files.map(file => {
      const results = assess(
        new Ledger(
          readJobFile(readFileSync(`docs/examples/${file}`, 'utf8'), stamper()).observations,
        ).house,
      ).results
      return [
        file.replace('.corvit.json', ''),
        results
          .filter(r => r.outcome === 'fault' || r.leans)
          .map(r => [r.rule, r.subject.id, ...(r.leans ? [r.leans.to] : [])].join(' ')),
      ]
    }),
  )
  expect(judged['breaker-against-conductor']).toContain(
    'overfused-conductor main/7/circuit/conductors-1',
  )
  expect(judged['sub-panel-bonding']).toContain('neutral-bonded-downstream hall')
  expect(judged.multiwire).toEqual(
    expect.arrayContaining([
      'multiwire-no-common-trip main/1/circuit',
      'multiwire-same-leg main/1/circuit',
    ]),
  )
  expect(judged['outlet-chain']).toContain('missing-marking p2 allowed or fault by year')
})
