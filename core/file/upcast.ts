/**
 * Words of earlier versions. Files, stored logs and what a device has kept since then are brought to the words of
 * today when they are read, so that nothing else has to know them.
 */

/** Kinds of things by their former id. */
export const OLD_KINDS: Readonly<Record<string, string>> = { point: 'outlet' }

/** Fields by their former name. */
export const OLD_FIELDS: Readonly<Record<string, string>> = {
  allowedToStay: 'allowedToRemain',
  aluminiumSchool: 'aluminumSchool',
  isAluminiumMarked: 'isAluminumMarked',
  aluminiumMarking: 'aluminumMarking',
  isColourMadeWhite: 'isColorMadeWhite',
  groundToEarthV: 'groundToReferenceV',
  narrowToEarthV: 'narrowToReferenceV',
}

/** Rules that were renamed, and what they are called now. Their old ids are still taken. */
export const RENAMED_RULES: Readonly<Record<string, string>> = {
  'aluminium-at-unmarked-breaker': 'aluminum-at-unmarked-breaker',
  'aluminium-at-unmarked-device': 'aluminum-at-unmarked-device',
}

const METALS = { aluminium: 'aluminum', 'copper-clad aluminium': 'copper-clad aluminum' }
const GROUNDS = { 'metal raceway or armour': 'metal raceway or armor' }
const COLORS = { 'copper colour': 'copper color', 'silver colour': 'silver color' }

/** Values by their former words, under the name their field has today. */
export const OLD_VALUES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  metal: METALS,
  serviceMetal: { aluminium: 'aluminum' },
  wiring: {
    'armoured cable': 'armored cable',
    'old spiral armour': 'old spiral armor',
    'aluminium conduit': 'aluminum conduit',
  },
  egc: GROUNDS,
  ground: GROUNDS,
  surface: COLORS,
  core: COLORS,
  termination: { discoloured: 'discolored' },
  spliceState: { discoloured: 'discolored' },
  rescan: {
    'no warmer than a neighbour at like load': 'no warmer than similar breakers',
    'warmer than a neighbour at like load': 'warmer than similar breakers',
  },
  workmanship: {
    'wrapped anticlockwise': 'wrapped counterclockwise',
    'pulls loose on a gentle tug': 'fails a gentle pull test',
  },
  splice: {
    'aluminium to aluminium': 'aluminum to aluminum',
    'aluminium to copper': 'aluminum to copper',
  },
  connectorListing: { 'aluminium to copper': 'aluminum to copper' },
  severity: { 'upgrade at next work': 'upgrade', 'for the record': 'note' },
  rule: RENAMED_RULES,
}

const valueNow = (field: string, value: unknown): unknown =>
  typeof value === 'string' && Object.hasOwn(OLD_VALUES, field)
    ? nowOf(OLD_VALUES[field] ?? {}, value)
    : value
const nowOf = (table: Readonly<Record<string, string>>, word: string): string =>
  Object.hasOwn(table, word) ? (table[word] ?? word) : word

/** The rule an id means today. */
export const ruleNow = (id: string): string => nowOf(RENAMED_RULES, id)

/** An observation as it may have been recorded once, in the words of today. Anything else is given back as it is. */
export function upcastObservation(raw: unknown): unknown {
  if (typeof raw !== 'object' || raw === null) return raw
  const o = raw as { act?: unknown; kind?: unknown; field?: unknown; value?: unknown }
  if (o.act === 'add')
    return typeof o.kind === 'string' && Object.hasOwn(OLD_KINDS, o.kind)
      ? { ...o, kind: OLD_KINDS[o.kind] }
      : raw
  if ((o.act !== 'note' && o.act !== 'block') || typeof o.field !== 'string') return raw
  const field = nowOf(OLD_FIELDS, o.field)
  const value = valueNow(field, o.value)
  return field === o.field && value === o.value
    ? raw
    : { ...o, field, ...(o.act === 'note' && { value }) }
}

/**
 * A house by hand, or the input of a calculator, in the words of today: names of fields, and values under them.
 * Texts of people are left alone, since only a value that its field once had is touched.
 */
export function upcastFacts(raw: unknown, depth = 0): unknown {
  if (depth > 16 || typeof raw !== 'object' || raw === null) return raw
  if (Array.isArray(raw)) return raw.map(item => upcastFacts(item, depth + 1))
  return Object.fromEntries(
    Object.entries(raw).map(([key, value]) => {
      const field = nowOf(OLD_FIELDS, key)
      if (typeof value === 'object' && value !== null && !Array.isArray(value) && 'value' in value)
        return [field, { ...value, value: valueNow(field, value.value) }]
      return [
        field,
        typeof value === 'object' ? upcastFacts(value, depth + 1) : valueNow(field, value),
      ]
    }),
  )
}
