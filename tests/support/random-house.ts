import { fieldOf, FIELDS, withChanges, type AnyValue, type House, type WorkChange } from '#core'
import { pick, type Random } from '#core/simulate/random'
import { CASE_HOUSES } from './cases'

/** A house of the case sets in which a handful of things are otherwise: looked at, mistaken, or not seen at all. */
export function mistakenHouse(random: Random): House {
  const { house } = pick(random, CASE_HOUSES)
  const things = [...house.subjects.values()].filter(t => t.kind !== 'premises')
  if (things.length === 0) return house
  const changes = Array.from({ length: 6 }, (): WorkChange[] => {
    const thing = pick(random, things)
    const field = pick(random, Object.keys(FIELDS[thing.kind]))
    const declared = fieldOf(thing.kind, field)
    if (!declared) return []
    let value: AnyValue | undefined
    if (declared.type === 'choice') value = pick(random, declared.options as readonly AnyValue[])
    if (declared.type === 'flag') value = random() < 0.5
    if (declared.type === 'number') {
      const share = random() ** 3
      value = Math.round(declared.min + share * (declared.max - declared.min))
    }
    return value === undefined ? [] : [{ act: 'note', subject: thing.id, field, value }]
  })
  return withChanges(house, changes.flat())
}
