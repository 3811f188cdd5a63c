import {
  evaluate,
  FIELDS,
  LiveAssessment,
  resultKey,
  RULES,
  Site,
  type Kind,
  type Observation,
} from '#core'
import { hillside } from '#core/examples/hillside'
import { bakehouse } from '#core/examples/bakehouse'
import { observe, type Node } from '../support/house'

/**
 * What is judged while one records is what is judged when the file is opened: for every field there is, on a thing of
 * every kind, each value recorded where nobody had seen one before.
 */
interface Described {
  readonly type: string
  readonly options?: readonly (string | number)[]
  readonly min?: number
  readonly max?: number
}
const valuesOf = (field: Described): readonly unknown[] => {
  switch (field.type) {
    case 'choice':
      return [field.options?.[0], field.options?.at(-1)]
    case 'flag':
      return [true, false]
    case 'number':
      return [field.min, field.max]
    default:
      return []
  }
}

/** Every answer after each of them with CORVIT_TRIALS; else after some, where what went stale still is. */
const EVERY = process.env.CORVIT_TRIALS ? 1 : 31

/** The first and the last of a kind: one that much hangs on, and one at the end. Both of each with CORVIT_TRIALS. */
const [FIRST, LAST] = process.env.CORVIT_TRIALS
  ? [
      [0, -1],
      [0, -1],
    ]
  : [[0], [-1]]

const HOUSES: [string, () => object, readonly number[]][] = [
  ['hillside', hillside, FIRST],
  ['bakehouse', bakehouse, LAST],
]
describe.each(HOUSES)('recording in %s', (_name, house, tried) => {
  const log = observe(house() as Node)
  const kinds = Object.keys(FIELDS) as Kind[]
  // Everything hangs on the premises: with their facts the smaller house will do.
  const some = house === hillside && !process.env.CORVIT_TRIALS
  it.each(kinds.filter(k => !some || k !== 'premises'))('a fact of a %s', kind => {
    const live = new LiveAssessment()
    const shown = new Map<string, string>()
    let n = 0
    const stale: string[] = []
    const take = (observations: readonly Observation[]): void => {
      const { changed, gone } = live.append(observations)
      for (const key of gone) shown.delete(key)
      for (const r of changed)
        shown.set(resultKey(r.rule, r.subject.id), `${r.outcome} ${r.severity ?? undefined}`)
    }
    take(log)
    const append = (subject: string, field: string, value: unknown): void => {
      n++
      const noted = {
        id: `zz${String(n).padStart(6, '0')}`,
        at: '2027-01-01T08:00:00.000Z',
        by: 'test',
        act: 'note',
        subject,
        field,
        value,
        grade: 'seen',
      } as Observation
      take([noted])
    }
    const things = [...live.ledger.house.subjects.values()].filter(s => s.kind === kind)
    for (const thing of new Set(tried.map(at => things.at(at))))
      for (const [field, described] of Object.entries(FIELDS[kind]))
        for (const value of valuesOf(described as Described)) {
          if (!thing) continue
          append(thing.id, field, value)
          if (n % EVERY > 0) continue
          for (const r of evaluate(new Site(live.ledger.house), RULES)) {
            const key = resultKey(r.rule.id, r.subject.id)
            const answer = shown.get(key) ?? 'n/a undefined'
            if (answer !== `${r.outcome} ${r.severity}`)
              stale.push(`${field} = ${String(value)}: ${key} is ${answer}`)
          }
        }
    expect([...new Set(stale.map(s => s.split(':')[0]))]).toEqual([])
  })
})

it('a run that turns out to be the service is read as soon as it is known to start at the meter', () => {
  const log = observe({
    corvit: 1,
    form: 'house',
    premises: { edition: 2020, yearBuilt: 1990 },
    enclosures: [
      { id: 'm', place: 'outdoors', fedFrom: 'utility' },
      {
        id: 'main',
        type: 'panel',
        marking: 'service disconnect',
        mainKind: 'main breaker',
        mainAmps: 100,
        feeder: { id: 'sv', from: 'm', size: '8', metal: 'copper', insulationC: 75 },
      },
    ],
  })
  const live = new LiveAssessment()
  live.append(log)
  const { changed } = live.append([
    {
      id: 'zz1',
      at: '2027-01-01T08:00:00.000Z',
      by: 'test',
      act: 'note',
      subject: 'm',
      field: 'type',
      value: 'meter',
      grade: 'seen',
    } as Observation,
  ])
  const result = changed.find(r => r.rule === 'service-conductor' && r.subject.id === 'main')
  expect(result?.outcome).toBe('fault')
})
