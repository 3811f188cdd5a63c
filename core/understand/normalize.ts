/**
 * A sentence as it was said or dictated, made plain: numbers in digits, units and trade words in one spelling,
 * usual mishearings put right, fillers gone. Commas and stops stay, since they part what belongs together.
 */
export function normalize(said: string): string {
  let text = ` ${said.toLowerCase()} `
  for (const [pattern, by] of SPELLINGS) text = text.replace(pattern, by)
  text = numbers(text)
  for (const [pattern, by] of AFTER_NUMBERS) text = text.replace(pattern, by)
  return text
    .replace(/\s*([,;]|\.(?!\d))\s*/g, ' $1 ')
    .replace(/\s+/g, ' ')
    .trim()
}

type Change = readonly [RegExp, string]

/** One spelling for one and for several of a thing. */
const words = (pattern: string, word: string): Change[] => [
  [new RegExp(`\\b(?:${pattern})s\\b`, 'g'), `${word}s`],
  [new RegExp(`\\b(?:${pattern})\\b`, 'g'), word],
]

/** Before numbers are read: marks, hyphens, fillers, mishearings, short forms. */
const SPELLINGS: readonly Change[] = [
  [/[’‘]/g, "'"],
  [/[“”"]/g, ' '],
  [/…|\.\.\.|[–—]| - /g, ' , '],
  [/[?!:]/g, ' , '],
  [/\.(?=\s)/g, ' . '],
  [/&/g, ' and '],
  [/°\s*([fc])\b/g, ' degrees $1'],
  [/°/g, ' degrees'],
  [/Ω/gi, ' ohms'],
  [/%/g, ' percent '],
  [
    /\b(uh+|um+|er+|hmm+|okay|ok so|alright|let's see|let me see|you know|i think it's|please|well)\b/g,
    ' ',
  ],
  [/\bwon't\b/g, 'will not'],
  [/\bcan't\b|\bcannot\b/g, 'could not'],
  [/\bcouldn't\b|\bunable to\b|\bcan not\b/g, 'could not'],
  [/\b(is|was|does|did|are|were|do|has|have)n't\b/g, '$1 not'],
  [/\blet's\b/g, ' '],
  [/(\w)'s\b/g, '$1 is'],
  [/(\w)'re\b/g, '$1 are'],
  [/(\w)'ve\b/g, '$1 have'],
  [/\bi'm\b/g, 'i am'],
  [/\bnm-b\b|\bn m b\b|\bnm b\b/g, 'nmb'],
  [/\bn\.?m\.?(?= cable\b|\s)/g, 'nm'],
  [/\bco\s*\/?\s*alr\b/g, 'coalr'],
  [/\b(al[- ]cu|cu[- ]al)\b/g, 'alcu'],
  [/\be\.?m\.?t\b\.?/g, 'emt'],
  [/\bp\.?v\.?c\b\.?/g, 'pvc'],
  [/\bc\.?s\.?s\.?t\b\.?|\bc s s t\b/g, 'csst'],
  [
    /\bg[ .]*f[ .]*c?[ .]*i\b\.?(?!\w)|\b(?:f c i|fci)\b|\bground fault(?: (?:circuit )?interrupter)?\b/g,
    'gfci',
  ],
  [/\ba[ .]*f[ .]*c[ .]*i\b\.?(?!\w)|\bafi\b|\barc[ -]?fault\b/g, 'afci'],
  [/\bgfcis\b/g, 'gfci'],
  [/\bdual[ -]function\b|\bdual protection\b/g, 'dual'],
  [/\bg\.?e\.?c\b\.?/g, 'gec'],
  [/\b(two|double|2|to|too)[- ](pole|poll|bowl)\b/g, 'two pole'],
  [/\b(one|single|1|won)[- ](pole|poll|bowl)\b/g, 'one pole'],
  [/\b(three|triple|3)[- ](pole|poll|bowl)\b/g, 'three pole'],
  [/\b(\w+)[- ]?inch(?= (breaker|fuse|main)\b)/g, '$1 amp'],
  [/\bwalnuts?\b|\bwire[- ]?nuts?\b|\bwire nets?\b/g, 'twist on connector'],
  [/\bgages?\b|\bgauges\b|\bgouge\b/g, 'gauge'],
  [/\bcooper\b|\bcoper\b|\bcopper's\b/g, 'copper'],
  [/\baluminium\b|\balluminum\b|\balum\b/g, 'aluminum'],
  [/\bcopper[- ]clad( aluminum)?\b|\bcca\b/g, 'copperclad'],
  ...words('nutral|new troll', 'neutral'),
  ...words('recept(?:i|a)c(?:le|al)|recept', 'receptacle'),
  [/\bplugs\b/g, 'receptacles'],
  [/\boutlet's\b/g, 'outlets'],
  [/\bground(?:ing)? rot\b|\bgrounding rod\b/g, 'ground rod'],
  [/\bopen (?:grown|crowned|round)\b/g, 'open ground'],
  [/\bbonding (?:crew|school)\b/g, 'bonding screw'],
  [
    /\btemper[- ]resistan(?:t|ce)\b|\btamper[- ]resistan(?:t|ce)\b|\btamper proof\b/g,
    'tamper resistant',
  ],
  [/\bweather[- ]resistan(?:t|ce)\b/g, 'weather resistant'],
  [/\bsub[- ]?panel\b/g, 'subpanel'],
  [/\bdead[- ]front\b/g, 'deadfront'],
  ...words('knock[- ]?out', 'knockout'),
  [/\bknob[- ]and[- ]tube\b|\bk and t\b/g, 'knobtube'],
  [/\bback[- ]?fed\b/g, 'backfed'],
  [/\bdouble[- ]tap(?:s|ped)?\b/g, 'doubletapped'],
  [/\bmulti[- ]?wire\b/g, 'multiwire'],
  [/\b(?:number|no\.|#)\s*(?=\d|\w+\b)/g, 'number '],
  [/(\d)\s*amps?\b/g, '$1 amp'],
  // A letter right after the number of a space is its half.
  [/(?<!(?:space|slot|position|breaker) )\b(\d{2,3})\s?a\b/g, '$1 amp'],
  [/(\d)\s*v(?:olts?|ac)?\b/g, '$1 volts'],
  [/(\d)\s*(?:ft|')(?=\s|$|,)/g, '$1 feet'],
  [/(\d)\s*(?:in\.?|")(?=\s|$|,)/g, '$1 inches'],
  [/(\d)p\b/g, '$1 pole'],
  [/(\d)\s*(?:awg|ga)\b/g, '$1 gauge'],
  [/([a-z])-(?=[a-z])/g, '$1 '],
  // After a word for a place in the panel a homophone is a number.
  [/\b(space|slot|position|breaker|circuit) for\b/g, '$1 four'],
  [/\b(space|slot|position|breaker|circuit) (?:to|too)\b/g, '$1 two'],
  [/\b(space|slot|position|breaker|circuit) ate\b/g, '$1 eight'],
  [/\b(space|slot|position|breaker|circuit) won\b/g, '$1 one'],
]

/** After numbers are read. */
const AFTER_NUMBERS: readonly Change[] = [
  [/\b([1-4]) (?:aught|ought|ot|oh)\b(?! \d)/g, '$1/0'],
  [/\b(\d+(?:\.\d+)?) (?:amps|ants|amperes?|hamps|amp's)\b/g, '$1 amp'],
  [/\b(\d+(?:\.\d+)?) (?:volt|bolts|vaults|vac)\b/g, '$1 volts'],
  [/\b(\d+(?:\.\d+)?) (?:ohm|homes|owns)\b/g, '$1 ohms'],
  [/\b(\d+(?:\.\d+)?) (?:foot|feed)\b/g, '$1 feet'],
  [/\b(\d+(?:\.\d+)?) inch\b/g, '$1 inches'],
  [/\b(\d+) (?:and a half|1\/2)\b/g, '$1.5'],
  [/\b(?:a |1 )?half (?:an |of an )?inch(?:es)?\b/g, '0.5 inches'],
  [/\b(?:a |1 )?quarter (?:of an )?inch(?:es)?\b/g, '0.25 inches'],
  [/\b3 quarters? (?:of an )?inch(?:es)?\b/g, '0.75 inches'],
  [/\b(\d+)(?:st|nd|rd|th)\b/g, 'ordinal $1'],
  // A cable is called by its size and its wires: twelve two, 12/2, 14-3.
  [
    /\b(14|12|10|8|6)\s*[-/ ]\s*([234])\b(?! (?:amp|volts|ohms|feet|inches|pole|recep|outlet|slot|prong|space))/g,
    '$1-$2',
  ],
]

const UNITS = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
  'seventeen',
  'eighteen',
  'nineteen',
] as const
const TENS = ['twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety'] as const

const unitOf = (word: string | undefined): number | undefined => {
  const at = (UNITS as readonly string[]).indexOf(word ?? '')
  return at < 0 ? undefined : at
}
const tensOf = (word: string | undefined): number | undefined => {
  const at = (TENS as readonly string[]).indexOf(word === 'fourty' ? 'forty' : (word ?? ''))
  return at < 0 ? undefined : (at + 2) * 10
}
/** Words before a number that are a place in the panel: what follows is another number. */
const PLACES: ReadonlySet<string> = new Set([
  'space',
  'slot',
  'position',
  'breaker',
  'circuit',
  'number',
  'spaces',
])

/** Number words in digits. What is said in pairs, as one twenty, is 120 where no place in the panel comes before it. */
function numbers(text: string): string {
  const words: readonly string[] = text
    .replace(/([,.;])(?=\s|$)/g, ' $1 ')
    .trim()
    .split(/\s+/)
  const out: string[] = []
  let i = 0
  while (i < words.length) {
    const read = numberAt(words, i, out.at(-1))
    if (!read) {
      out.push(words[i] ?? '')
      i++
      continue
    }
    out.push(read.text)
    i = read.next
  }
  return ` ${out.join(' ')} `
}

function numberAt(
  words: readonly string[],
  at: number,
  before: string | undefined,
): { text: string; next: number } | undefined {
  let i = at
  let value = smallAt(words, i)
  if (!value) {
    if (/^(a|an)$/.test(words[i] ?? '') && words[i + 1] === 'hundred')
      value = { value: 1, next: i + 1 }
    else if (words[i] === 'hundred') value = { value: 1, next: i }
    else if (words[i] === 'point' && smallAt(words, i + 1)) value = { value: 0, next: i }
    else return undefined
  }
  let total = value.value
  i = value.next
  if (words[i] === 'hundred') {
    total *= 100
    i++
    const and = words[i] === 'and' ? i + 1 : i
    const rest = smallAt(words, and)
    if (rest && !isPlaceOfItsOwn(words, rest)) {
      total += rest.value
      i = rest.next
    }
  } else if (total >= 1 && total <= 9 && !PLACES.has(before ?? '')) {
    // One twenty, two forty one, one eighteen, two oh eight.
    const oh = /^(oh|o)$/.test(words[i] ?? '') ? unitOf(words[i + 1]) : undefined
    const rest = smallAt(words, i)
    if (oh !== undefined && oh < 10) {
      total = total * 100 + oh
      i += 2
    } else if (rest && rest.value >= 10 && isVoltsOrAmps(words, rest.next)) {
      total = total * 100 + rest.value
      i = rest.next
    }
  } else if (total >= 18 && total <= 20 && value.value === total) {
    // Nineteen sixty one, twenty twenty, twenty oh five: years.
    const rest = smallAt(words, i)
    const oh = /^(oh|o)$/.test(words[i] ?? '') ? unitOf(words[i + 1]) : undefined
    if (oh !== undefined && oh < 10) {
      total = total * 100 + oh
      i += 2
    } else if (rest && rest.value >= 10 && isYear(words, at, before)) {
      total = total * 100 + rest.value
      i = rest.next
    }
  } else if (words[i] === 'thousand') {
    total *= 1000
    i++
    const rest = smallAt(words, words[i] === 'and' ? i + 1 : i)
    if (rest) {
      total += rest.value
      i = rest.next
    }
  }
  if (words[i] === 'thousand') {
    total *= 1000
    i++
    const rest = smallAt(words, words[i] === 'and' ? i + 1 : i)
    if (rest) {
      total += rest.value
      i = rest.next
    }
  }
  let text = String(total)
  if (words[i] === 'point') {
    let digits = ''
    let j = i + 1
    for (;;) {
      const digit = /^\d+$/.test(words[j] ?? '') ? words[j] : unitOf(words[j])?.toString()
      if (digit === undefined) break
      digits += digit
      j++
    }
    if (digits) {
      text += `.${digits}`
      i = j
    }
  }
  return { text, next: i }
}

/** A number below a hundred in words: seven, forty, forty two. Digits are left as they are. */
function smallAt(
  words: readonly string[],
  at: number,
): { value: number; next: number } | undefined {
  const tens = tensOf(words[at])
  if (tens !== undefined) {
    const unit = unitOf(words[at + 1])
    return unit !== undefined && unit > 0 && unit < 10
      ? { value: tens + unit, next: at + 2 }
      : { value: tens, next: at + 1 }
  }
  const unit = unitOf(words[at])
  return unit === undefined ? undefined : { value: unit, next: at + 1 }
}
/** A number that has a unit of its own is not the rest of a hundred. */
const isPlaceOfItsOwn = (words: readonly string[], rest: { next: number }): boolean =>
  /^(gauge|pole|slot|prong|wire)$/.test(words[rest.next] ?? '')
const isVoltsOrAmps = (words: readonly string[], at: number): boolean =>
  words[at] === undefined ||
  /^(volts?|bolts|vaults|vac|amps?|[,.;]|and|hot|neutral|ground|between|leg|across|on)$/.test(
    words[at] ?? '',
  )
const isYear = (words: readonly string[], at: number, before: string | undefined): boolean =>
  /^(in|from|of|built|since|year|about|around|edition|is)$/.test(before ?? '') ||
  /^(code|edition|house|built)$/.test(words[at + 2] ?? '') ||
  /^(code|edition|house|built)$/.test(words[at + 3] ?? '')
