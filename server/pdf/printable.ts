/** Signs the printing type has no glyph for, in words; a test holds every other sign of our texts against the type. */
const WORDS: Readonly<Record<string, string>> = {
  '\u03a9': 'ohm',
  '\u2126': 'ohm',
  µ: 'u',
  Δ: '',
  '≤': 'at most',
  '≥': 'at least',
  '→': 'to',
  '↔': 'to',
  '√': 'root of',
  '✓': 'yes',
  '✕': 'no',
  '\u202f': ' ',
  '\u00a0': ' ',
}
const SIGNS = new RegExp(`[${Object.keys(WORDS).join('')}]`, 'gu')

/** A text as the type can set it. */
export const printable = (text: string): string => text.replace(SIGNS, sign => WORDS[sign] ?? sign)
