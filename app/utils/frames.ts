import {
  factAt,
  FIELDS,
  gradeRank,
  valueText,
  type AnyValue,
  type Field,
  type Grade,
  type Subject,
} from '#core'

/** The frame that shows the size by gauge and the rating as printed. */
export const PROVING_FRAME = 'gauge, conductor and breaker rating together'
/** What such a frame proves, and how well. */
const PROVES: readonly (readonly [kind: Subject['kind'], field: string, grade: Grade])[] = [
  ['segment', 'size', 'gauge'],
  ['feeder', 'size', 'gauge'],
  ['breaker', 'ratingAmps', 'read'],
]

export interface Raise {
  readonly subject: string
  readonly field: string
  readonly value: AnyValue
  readonly grade: Grade
  readonly words: string
}

/**
 * Facts a proving picture of a thing would raise: known, and on weaker evidence than the picture gives. A picture at
 * the breaker shows the run that lands there: of several, which one that is was not recorded, and none is raised.
 */
export function raisedBy(subject: Subject, things: readonly Subject[]): readonly Raise[] {
  const runs = things.filter(t => t.kind === 'segment')
  const shown = things.filter(t => t.kind !== 'segment' || t.id === subject.id || runs.length === 1)
  return [subject, ...shown.filter(t => t.id !== subject.id)].flatMap(thing =>
    PROVES.filter(([kind]) => kind === thing.kind).flatMap(([kind, name, grade]) => {
      const fact = factAt(thing, name)
      if (fact?.state !== 'known' || gradeRank(fact.grade) <= gradeRank(grade)) return []
      const field = (FIELDS[kind] as Record<string, Field>)[name]
      const words = field ? `${field.label} ${valueText(field, fact.value)}` : name
      return { subject: thing.id, field: name, value: fact.value, grade, words }
    }),
  )
}
