import Papa from 'papaparse'
import {
  priceBookSchema,
  problemsOf,
  REMEDIES,
  remedyById,
  type PriceBook,
  type Problem,
} from '../core'

const GENERAL = [
  'hourly',
  'callOut',
  'permit',
  'wallPerFt',
  'cablePerFt',
  'contingencyPermille',
  'taxPermille',
] as const
const HEAD = ['entry', 'title', 'cents', 'minutes'] as const
const TITLES: Readonly<Record<(typeof GENERAL)[number], string>> = {
  hourly: 'Hourly rate',
  callOut: 'Call-out',
  permit: 'Permit',
  wallPerFt: 'Wall opened and closed, per foot',
  cablePerFt: 'Cable, per foot',
  contingencyPermille: 'Contingency, per thousand',
  taxPermille: 'Tax on materials, per thousand',
}
export const PRICE_TITLES = TITLES

/** A price book as a sheet: one line for each figure, cents and minutes as whole numbers. */
export function pricesToCsv(book: PriceBook): string {
  const rows: Record<(typeof HEAD)[number], string | number>[] = [
    { entry: 'name', title: book.name, cents: '', minutes: '' },
    ...GENERAL.map(g => ({ entry: g, title: TITLES[g], cents: book[g], minutes: '' })),
    {
      entry: 'other',
      title: 'Any other work',
      cents: book.other.material,
      minutes: book.other.minutes,
    },
    ...REMEDIES.flatMap(r => {
      const line = book.remedies[r.id]
      return line
        ? { entry: r.id, title: r.title, cents: line.material, minutes: line.minutes }
        : []
    }),
  ]
  return Papa.unparse(rows, { columns: [...HEAD], escapeFormulae: true })
}

/**
 * Reads a sheet back. Figures that are not there keep those of the book given.
 * @returns the book, or what is wrong with the sheet and in which line
 */
export function pricesFromCsv(
  text: string,
  base: PriceBook,
): { readonly book: PriceBook } | { readonly problems: readonly Problem[] } {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: h => h.trim().toLowerCase(),
  })
  const missing = HEAD.filter(h => h !== 'title' && !parsed.meta.fields?.includes(h))
  if (missing.length > 0) {
    const found = (parsed.meta.fields ?? []).join(', ') || 'nothing'
    return { problems: [{ path: 'line 1', expected: `columns ${HEAD.join(', ')}`, found }] }
  }
  const problems: Problem[] = []
  const raw: Record<string, unknown> = { ...base, isSample: false }
  const remedies: Record<string, { material: number; minutes: number }> = { ...base.remedies }
  const whole = (cell: string | undefined, line: number, column: string): number => {
    const number = Number((cell ?? '').trim())
    const isWhole = /^\d+$/.test((cell ?? '').trim())
    if (isWhole) return number
    problems.push({
      path: `line ${line}, ${column}`,
      expected: 'a whole number, 0 or more',
      found: JSON.stringify(cell ?? ''),
    })
    return 0
  }
  parsed.data.forEach((row, i) => {
    const line = i + 2
    const entry = (row.entry ?? '').trim()
    const general = GENERAL.find(g => g === entry)
    if (entry === 'name') raw.name = (row.title ?? '').trim()
    else if (general) raw[general] = whole(row.cents, line, 'cents')
    else if (entry === 'other' || remedyById(entry)) {
      const figures = {
        material: whole(row.cents, line, 'cents'),
        minutes: whole(row.minutes, line, 'minutes'),
      }
      if (entry === 'other') raw.other = figures
      else remedies[entry] = figures
    } else
      problems.push({
        path: `line ${line}, entry`,
        expected: 'name, a general figure, other, or the id of a remedy',
        found: JSON.stringify(entry),
      })
  })
  if (problems.length > 0) return { problems }
  const book = priceBookSchema.safeParse({ ...raw, remedies })
  return book.success
    ? { book: book.data }
    : { problems: problemsOf(book.error, { ...raw, remedies }) }
}
