import { FIELDS, type Field } from '../model/fields'

/** Other spellings people write by hand, by field. */
const ALIASES: Record<string, Record<string, string>> = {
  metal: {
    cu: 'copper',
    al: 'aluminum',
    aluminum: 'aluminum',
    cca: 'copper-clad aluminum',
    'copper-clad aluminum': 'copper-clad aluminum',
    'copper-clad': 'copper-clad aluminum',
  },
  wiring: {
    nmb: 'NM-B',
    ac: 'armored cable',
    emt: 'steel conduit',
    'rigid conduit': 'steel conduit',
    pvc: 'plastic conduit',
    'knob and tube': 'knob-and-tube',
    'armored cable': 'armored cable',
    'aluminum conduit': 'aluminum conduit',
  },
  egc: { yes: 'wire', no: 'none' },
}

const OPTIONS = new Map<string, Set<string | number>>()
for (const fields of Object.values(FIELDS)) {
  for (const [name, field] of Object.entries(fields as Record<string, Field>)) {
    if (field.type !== 'choice') continue
    const set = OPTIONS.get(name) ?? new Set()
    for (const option of field.options) set.add(option)
    OPTIONS.set(name, set)
  }
}

function spell(name: string, value: unknown): unknown {
  const options = OPTIONS.get(name)
  if (!options || (typeof value !== 'string' && typeof value !== 'number') || options.has(value))
    return value
  if (typeof value === 'number') return options.has(String(value)) ? String(value) : value
  const low = value.trim().toLowerCase()
  for (const option of options) if (String(option).toLowerCase() === low) return option
  return ALIASES[name]?.[low] ?? value
}

/**
 * A hand-written house with words of choices brought to their declared spelling: capitals, `14` for `"14"`,
 * `"aluminum"`, `"EMT"`. Anything not known stays as it is, for the schema to refuse.
 */
export function respell(raw: unknown, depth = 0): unknown {
  if (depth > 12 || typeof raw !== 'object' || raw === null) return raw
  if (Array.isArray(raw)) return raw.map(item => respell(item, depth + 1))
  return Object.fromEntries(
    Object.entries(raw).map(([key, value]) => {
      if (typeof value !== 'object' || value === null) return [key, spell(key, value)]
      if (!Array.isArray(value) && 'value' in value && OPTIONS.has(key))
        return [key, { ...value, value: spell(key, value.value) }]
      return [key, respell(value, depth + 1)]
    }),
  )
}
