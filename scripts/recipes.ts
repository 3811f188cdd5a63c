/**
 * npm run simulate -- recipes: tries every value of every fact on sound houses, one at a time, and writes down which
 * make a thing faulty. The simulated houses take their visible faults from this list.
 */
import { writeFileSync } from 'node:fs'
import {
  FIELDS,
  LiveAssessment,
  READING_FIELDS,
  RULES,
  type AnyValue,
  type Field,
  type Kind,
  type Noted,
} from '../core'
import type { Recipe } from '../core/simulate/recipe'
import { likeness } from '../core/simulate/drafts'
import { readingsOfHouse, simulateHouse, wholeSite } from '../core/simulate/simulated'
import { HouseMeters } from '../core/simulate/meters'

/** Houses with everything they may have, ordinary ones, a small one, and one with a split bus. */
const HOUSES = [
  { seed: 1, isWhole: true },
  { seed: 2 },
  { seed: 3 },
  { seed: 4, isSmall: true },
  { seed: 7 },
]
/** Ways kept of each rule: enough to be surprised, few enough to read. */
const MOST = 8
const KINDS: readonly Kind[] = [
  'premises',
  'building',
  'room',
  'enclosure',
  'bar',
  'screw',
  'breaker',
  'feeder',
  'circuit',
  'segment',
  'electrode',
  'bond',
  'outlet',
]
/** Said of the visit or the house as a whole, not of how it is wired. */
const NOT_WIRING = new Set<string>([
  // What instruments read follows from what is wrong; it is not what is wrong. A jumper is.
  ...Object.values(READING_FIELDS).filter(f => f !== 'hasNeutralGroundJumper'),
  'groundClampA',
  'temperatureC',
  'legAToNeutralV',
  'legBToNeutralV',
  'polesV',
  'currentA',
  'loadAmps',
  'rescan',
  'runFt',

  'edition',
  'supply',
  'purpose',
  'alsoUse',
  'use',
  'work',
  'floorAreaFt2',
])

function values(field: Field, now: AnyValue | undefined): AnyValue[] {
  if (field.type === 'flag') return [true, false]
  if (field.type === 'choice') return [...field.options]
  if (field.type !== 'number') return []
  const around = typeof now === 'number' ? [now / 4, now / 2, now * 1.5, now * 2, now * 3] : []
  return [...around, 0, 1, 2, 3, 5, 8, 12, 20, 30, 45, 60, 90]
    .map(v => (field.integer ? Math.round(v) : Math.round(v * 10) / 10))
    .filter(v => v >= field.min && v <= field.max)
}

interface Found extends Recipe {
  readonly others: number
}

export function findRecipes(): Recipe[] {
  const found = new Map<string, Found[]>()
  const seen = new Set<string>()
  for (const { seed, ...options } of HOUSES) {
    const house = simulateHouse(seed, { faults: 0, ...options })
    const { log, site } = wholeSite(house.seen, house.hidden, house.supplyVolts)
    const measured = new Set(
      readingsOfHouse(new HouseMeters(site, house.hidden)).map(r => `${r.subject} ${r.field}`),
    )
    const live = new LiveAssessment()
    live.append([...log])
    let n = 0
    for (const kind of KINDS)
      for (const thing of site.all[kind]) {
        const like = likeness(site, thing)
        for (const [name, field] of Object.entries(FIELDS[kind]) as [string, Field][]) {
          if (NOT_WIRING.has(name) || measured.has(`${thing.id} ${name}`)) continue
          const now = (thing.facts as Record<string, { state: string; value?: AnyValue }>)[name]
          for (const value of values(field, now?.value)) {
            const key = `${kind} ${like} ${name} ${String(value)}`
            if (seen.has(key) || now?.value === value) continue
            seen.add(key)
            const note: Noted = {
              id: `try${n++}`,
              at: '2027-01-01T00:00:00.000Z',
              by: 'recipes',
              clock: `9${String(n).padStart(14, '0')}`,
              act: 'note',
              subject: thing.id,
              field: name,
              value,
              grade: 'seen',
            }
            const { changed } = live.append([note])
            const faulty = changed.filter(r => r.outcome === 'fault' || r.outcome === 'allowed')
            for (const r of faulty) {
              const list = found.get(r.rule) ?? []
              list.push({ rule: r.rule, kind, like, field: name, value, others: faulty.length })
              found.set(r.rule, list)
            }
            live.append([
              {
                ...note,
                id: `undo${n}`,
                clock: `9${String(++n).padStart(14, '0')}`,
                act: 'retract',
                target: note.id,
              } as never,
            ])
          }
        }
      }
    console.log(`house ${seed}: ${found.size} of ${RULES.length} rules`)
  }
  const rules = [...found.keys()].sort()
  console.log(
    'not reached:',
    RULES.map(r => r.id)
      .filter(id => !found.has(id))
      .join(' '),
  )
  return rules.flatMap(rule => {
    const list = found.get(rule) ?? []
    list.sort((a, b) => a.others - b.others)
    // Different facts before different values of the same one.
    const kept: Found[] = []
    for (const pass of [1, 3])
      for (const r of list)
        if (
          kept.length < MOST &&
          !kept.includes(r) &&
          kept.filter(k => k.field === r.field && k.like === r.like).length < pass
        )
          kept.push(r)
    return kept.map(({ others: _, ...recipe }) => recipe)
  })
}

export function writeRecipes(): void {
  const lines = findRecipes().map(
    r => `  ${JSON.stringify([r.rule, r.kind, r.like, r.field, r.value])},`,
  )
  writeFileSync(
    new URL('../core/simulate/recipes.ts', import.meta.url),
    [
      '/** Written by `npm run simulate -- recipes`: facts that make a sound thing faulty. Do not edit. */',
      "import type { RecipeRow } from './recipe'",
      '',
      '/** Rule, kind of thing, things alike, fact, value. */',
      'export const RECIPE_ROWS: readonly RecipeRow[] = [',
      ...lines,
      ']',
      '',
    ].join('\n'),
  )
  console.log(`${lines.length} recipes`)
}
