import type { Site } from '../derive/site'
import { parseLine } from '../shorthand/parse'
import { normalize } from './normalize'
import { focusPhrases } from './focus-words'
import { OUTLET_WORDS, READING_WORDS } from './outlet-words'
import { BREAKER_WORDS, CONDUCTOR_WORDS, PANEL_WORDS } from './panel-words'
import type { Phrase } from './phrases'
import { RATINGS, Reader, type Ask, type Focus, type Meaning } from './reader'
import { ELECTRODE_WORDS, PROPERTY_WORDS } from './service-words'
import { JobThings, type Where } from './things'
import { BLOCKED_NOUNS, isLabelWord, suppliesOf } from './names'

/** What one utterance means, and what has to be asked or said again. */
export interface Understood {
  readonly said: string
  /** As it was taken: numbers in digits, mishearings put right. */
  readonly heard: string
  readonly means: readonly Meaning[]
  readonly notUnderstood: readonly string[]
  readonly asks: readonly Ask[]
}

/** Words that carry nothing by themselves. */
const EMPTY = new RegExp(
  `(?:${[
    'the',
    'a',
    'an',
    'and',
    'is',
    'are',
    'it',
    'its',
    'with',
    'has',
    'have',
    'there',
    'this',
    'that',
    'these',
    'on',
    'at',
    'in',
    'of',
    'to',
    'for',
    'here',
    'also',
    'then',
    'they',
    'was',
    'were',
    'by',
    'but',
    'as',
    'one is',
    'i see',
    'i have',
    'we have',
    'we got',
    'got',
    'looks like',
    'so',
    'now',
    'next',
    'just',
    'only',
    'about',
    'circuit',
    'breaker',
    'wire',
    'wires',
    'cable',
    'conductor',
    'conductors',
    'receptacle',
    'receptacles',
    'outlet',
    'outlets',
    'gauge',
    'panel',
    'subpanel',
    'which',
    'from',
    'please',
    'type',
    'them',
    'ones',
    'each',
    'connector',
    'connectors',
  ].join('|')})(?![\\w/])`,
  'y',
)
const NUMBER = /(\d+(?:\.\d+)?(?:\/0)?)(?![\w/])/y
/** A point within a number does not end it. */
const WORD = /(?:[^\s,.;]|\.(?=\d))+/y
const STOP = /[,.;]/y
const CORRECTION = anyOf(
  'no wait|no sorry|oh no|no|sorry|wait|correction|correct that|i mean|i meant|make (?:that|it)',
  'actually|rather|or rather|excuse me',
  '(?: ,)?',
)
const BARE_NO = /no (?=[a-z])(?!wait|sorry|it |that |make |i )/y
const TAKE_BACK = /(?:scratch|strike|delete|forget|cancel|undo) (?:that|it)(?![\w/])/y

/** Words of conductors: what they say "on 9" of is the breaker in space 9. */
const OF_CONDUCTORS =
  /\b(?:wires?|hots?|screw|aluminum|copper|cloth|insulation|doubletapped|melted|scorched)\b/
/** "Cloth wire in 12" speaks of space 12: the space comes first, as what is said of it belongs to it. */
function spaceFirst(heard: string, focus: Focus): string {
  if (!['enclosure', 'main', 'breaker'].includes(focus)) return heard
  const first = (whole: string, what: string, space: string) =>
    /\b(?:spaces?|breakers?|main|lugs?|feeders?)\b/.test(what) ? whole : `space ${space} ${what}`
  return heard
    .replace(/(?<=^|[.;] ?)([^.;,\d]+) in (?:space )?(\d{1,2})(?= ?(?:$|[.;]))/g, first)
    .replace(
      /(?<=^|[.;] ?)((?:[1-4] )?[^.;,\d]+) on (?:space )?(\d{1,2})(?= ?(?:$|[.;,]| is\b| are\b))/g,
      // "Aluminum on 20" may be a breaker of 20 A; with one in hand it is what is said of that one.
      (whole, what: string, space: string) =>
        focus !== 'breaker' && OF_CONDUCTORS.test(what) && !RATINGS.has(Number(space))
          ? first(whole, what, space)
          : whole,
    )
}
/**
 * Reads a sentence said or typed beside the thing it speaks of. Nothing is guessed: what fits no field is given back as
 * not understood, what could be two things is asked. A correction in the same breath counts, and the first word is kept
 * with it.
 * @param site the job, where there is one; ids are otherwise those a house file would give
 * @example understand(undefined, { place: 'main' }, 'space seven twenty amp, no, fifteen').means
 */
export function understand(site: Site | undefined, where: Where, say: string): Understood {
  const things = new JobThings(site, where)
  const r = new Reader(things)
  r.focus = things.firstFocus
  const short = shorthand(say, r, things)
  if (short) return { said: say, heard: say.trim(), ...short }
  const heard = spaceFirst(normalize(say), r.focus)
  const left: string[] = []
  new Scan(heard, r, things, site, left).run()
  return { said: say, heard, means: r.meanings, notUnderstood: left, asks: r.asks }
}

interface Pending {
  readonly phrase: Phrase
  readonly match: RegExpExecArray
  readonly words: string
}

class Scan {
  #at = 0
  #loose: string[] = []
  #pending: Pending[] = []
  #lastWasSpace = false
  readonly #phrases: readonly Phrase[]

  constructor(
    private readonly text: string,
    private readonly r: Reader,
    private readonly things: JobThings,
    private readonly site: Site | undefined,
    private readonly left: string[],
  ) {
    this.#phrases = [
      ...focusPhrases(things, site, focus => this.#turn(focus)),
      ...CONDUCTOR_WORDS,
      ...BREAKER_WORDS,
      ...PANEL_WORDS,
      ...OUTLET_WORDS,
      ...READING_WORDS,
      ...PROPERTY_WORDS,
      ...ELECTRODE_WORDS,
    ]
  }

  run(): void {
    while (this.#at < this.text.length) {
      if (this.text[this.#at] === ' ') {
        this.#at++
        continue
      }
      if (this.#take(STOP)) {
        this.#drop()
        this.#giveUp()
        continue
      }
      if (this.#blocked() || this.#phrase() || this.#correction() || this.#label()) continue
      if (this.#denied() || this.#number()) continue
      if (this.#take(EMPTY)) continue
      const word = this.#take(WORD)
      if (word) this.#loose.push(word[0])
    }
    this.#drop()
    this.#giveUp()
  }

  /** Facts whose thing was not named in the same clause. */
  #giveUp(): void {
    // What is corrected in the same breath was never meant.
    CORRECTION.lastIndex = this.#at
    while (this.text[CORRECTION.lastIndex] === ' ') CORRECTION.lastIndex++
    if (CORRECTION.exec(this.text)) this.#pending = []
    for (const { phrase, words } of this.#pending) {
      this.r.words = words
      if (BREAKER_WORDS.includes(phrase) && this.things.hasEnclosure) this.r.ask('Which breaker?')
      else this.left.push(words)
    }
    this.#pending = []
  }

  /** What could not be read since the last thing that could. */
  #drop(): void {
    if (this.#loose.length > 0) this.left.push(this.#loose.join(' '))
    this.#loose = []
  }

  #match(pattern: RegExp): RegExpExecArray | undefined {
    pattern.lastIndex = this.#at
    return pattern.exec(this.text) ?? undefined
  }
  #take(pattern: RegExp): RegExpExecArray | undefined {
    const match = this.#match(pattern)
    if (match) this.#at += match[0].length
    return match
  }

  /** Something else is spoken of now: facts that waited for their thing are read again. */
  #turn(focus: Focus): void {
    this.r.focus = focus
    const waiting = this.#pending
    this.#pending = []
    for (const p of waiting) {
      const before = this.r.words
      this.r.words = p.words
      if (p.phrase.on?.includes(focus) === false || p.phrase.read(p.match, this.r) === false)
        this.#pending.push(p)
      this.r.words = before
    }
  }

  /** The longest phrase that holds here. */
  #phrase(): boolean {
    const found: { phrase: Phrase; match: RegExpExecArray }[] = []
    const waits: { phrase: Phrase; match: RegExpExecArray }[] = []
    for (const phrase of this.#phrases) {
      const match = this.#match(phrase.pattern)
      if (!match || match[0].length === 0) continue
      if (!phrase.on || phrase.on.includes(this.r.focus)) found.push({ phrase, match })
      else waits.push({ phrase, match })
    }
    const longest = (a: { match: RegExpExecArray }, b: { match: RegExpExecArray }) =>
      b.match[0].length - a.match[0].length
    for (const { phrase, match } of found.sort(longest)) {
      const words = match[0].trim()
      const before = this.r.words
      this.r.words = words
      if (phrase.read(match, this.r) === false) {
        this.r.words = before
        continue
      }
      this.#drop()
      this.#at += match[0].length
      this.#lastWasSpace = SPACE.test(words)
      return true
    }
    // A size or a metal before the thing it is of waits for it: number six copper to the rod.
    const [first] = waits.filter(w => WAITING.has(w.phrase)).sort(longest)
    if (first && CAN_WAIT.has(this.r.focus)) {
      this.#pending.push({ ...first, words: first.match[0].trim() })
      this.#at += first.match[0].length
      return true
    }
    // In a room, what is said of an outlet waits for nobody: which one is asked.
    const [outlet] = waits.filter(w => w.phrase.on?.includes('outlet')).sort(longest)
    if (!outlet || this.r.focus !== 'room') return false
    const words = outlet.match[0].trim()
    this.r.words = words
    this.r.ask('Which outlet?')
    this.#drop()
    this.#at += outlet.match[0].length
    return true
  }

  /** A denial that no phrase holds: what it denies is no fact, whatever the words after it would say alone. */
  #denied(): boolean {
    const match = this.#take(COULD_NOT_DO) ?? this.#take(DENIAL)
    if (!match) return false
    this.#drop()
    this.left.push(match[0].trim())
    return true
  }

  #correction(): boolean {
    if (this.#take(TAKE_BACK)) {
      this.#drop()
      if (!this.r.takeBack()) this.r.ask('What is to be taken back?')
      this.r.isCorrecting = true
      return true
    }
    if (this.#deniesNext()) return false
    if (!this.#take(CORRECTION)) return false
    this.#drop()
    this.r.isCorrecting = true
    return true
  }
  /**
   * "Copper, no aluminum" corrects the metal; "no dishwasher here" corrects nothing, and is no dishwasher. A bare no
   * corrects only where the words after it take the place of something said.
   */
  #deniesNext(): boolean {
    const no = this.#match(BARE_NO)
    if (!no) return false
    const [at, loose, pending, wasSpace] = [
      this.#at,
      this.#loose,
      this.#pending,
      this.#lastWasSpace,
    ] as const
    const count = this.left.length
    const goBack = this.r.keep()
    this.#loose = []
    this.#pending = [...pending]
    this.#at += no[0].length
    this.r.isCorrecting = true
    const isDenied = this.#phrase() && goBack()
    if (!isDenied) goBack()
    this.#at = at
    this.#loose = loose
    this.#pending = pending
    this.#lastWasSpace = wasSpace
    this.left.length = count
    return isDenied
  }

  /** A number without a unit: after a space its rating, after a correction what it corrects; else nobody knows. */
  #number(): boolean {
    const match = this.#match(NUMBER)
    if (!match) return false
    const [text] = match
    const before = this.r.words
    this.r.words = text
    // After its space, or as people say it: is a twenty, on a thirty.
    const isNamed = /(?:^|\s)(?:a|an) $/.test(this.text.slice(0, this.#at))
    const isRating =
      (this.#lastWasSpace || isNamed) && this.r.focus === 'breaker' && RATINGS.has(Number(text))
    const isRead =
      (this.r.isCorrecting && this.r.correct(text)) ||
      (isRating && this.r.put('amps', Number(text), 'A'))
    this.#lastWasSpace = false
    if (!isRead) {
      this.r.words = before
      return false
    }
    this.#drop()
    this.#at += text.length
    return true
  }

  /** Could not be seen, and why. */
  #blocked(): boolean {
    const match =
      this.#match(COULD_NOT) ??
      this.#match(
        /(?:the )?([a-z][a-z ]*?) could not be (?:seen|read|opened|reached|found|measured|tested|checked)(?![\w/])/y,
      ) ??
      this.#match(WAS_NOT)
    if (!match || match[0].trim() === '') return false
    const noun = (match[1] ?? '').trim()
    const field = nounField(noun, this.r.focus, match[0])
    if (!field) return false
    const from = this.#at
    this.#at += match[0].length
    const reason = this.#take(
      /(?:\s*(?:,|because|since|due to|as|it is|it was|they are))*\s*([^.;]*)/y,
    )
    this.#drop()
    this.r.words = this.text.slice(from, this.#at).trim()
    this.r.block(field, reason?.[1]?.trim() || 'could not be seen')
    return true
  }

  /** What a breaker feeds, as the directory says it. */
  #label(): boolean {
    if (this.r.focus !== 'breaker') return false
    const verb = this.#match(FEEDS)
    const start = this.#at + (verb?.[0].length ?? 0)
    const words: string[] = []
    let at = start
    for (;;) {
      while (this.text[at] === ' ') at++
      WORD.lastIndex = at
      const word = WORD.exec(this.text)
      if (!word) break
      const isLoose = words.length === 0 || !this.#isStrongAt(at)
      if (!isLoose) break
      words.push(word[0])
      at += word[0].length
    }
    while (words.length > 0 && /^(?:and|the|a|is|with|on|in|of|to|for)$/.test(words.at(-1) ?? ''))
      words.pop()
    const text = words.join(' ').slice(0, 200)
    if (text === '' || (!verb && !words.some(isLabelWord))) return false
    // Without a verb, a word that means something else begins no label.
    if (!verb && !words.every(w => isLabelWord(w) || BESIDE_LABELS.has(w) || /^\d$/.test(w)))
      return false
    this.#drop()
    this.r.words = this.text.slice(this.#at, at).trim()
    this.#at = at
    if (verb?.[2]) {
      this.r.put('circuit.label', text)
      const supplies = suppliesOf(text)
      if (supplies) this.r.put('circuit.supplies', supplies)
    } else this.r.put('breaker.label', text)
    return true
  }

  /** Whether something with a meaning of its own begins here. */
  #isStrongAt(at: number): boolean {
    const here = this.#at
    this.#at = at
    const is =
      /^\d/.test(this.text.slice(at)) ||
      this.#match(/(?:no|sorry|wait|scratch|actually|i mean|make that)(?![\w/])/y) !== undefined ||
      this.#phrases.some(
        p =>
          (!p.on || p.on.includes(this.r.focus)) &&
          !WEAK.has(p) &&
          this.#match(p.pattern) !== undefined,
      )
    this.#at = here
    return is
  }
}

/** A pattern of alternatives, with what may follow them, ending where a word ends. */
function anyOf(...parts: readonly [...string[], tail: string]): RegExp {
  const tail = parts.at(-1) ?? ''
  return new RegExp(`(?:${parts.slice(0, -1).join('|')})${tail}(?![\\w/])`, 'y')
}
const COULD_NOT = new RegExp(
  '(?:i |we )?could not (?:be )?' +
    '(?:see|seen|read|open|opened|reach|reached|get (?:in)?to|find|measure|gauge|test|tell|look at|look in|check)' +
    '(?: (?:the |any |its |into )?([a-z ]*?))?' +
    '(?= (?:because|since|due to|behind|it is|they are|too)\\b|,|\\.|;|$)',
  'y',
)
/** Something that could not be done: the rest of the sentence tells of that. */
const COULD_NOT_DO = /(?:i |we )?could not(?![\w/])(?:[^.;]|\.(?=\d))*/y
/** A denial, to the end of its clause. */
const DENIAL = new RegExp(
  '(?:(?:will|would|does|did|do) not|no|not|never|without|nothing|none|nobody|neither|hardly)(?![\\w/])' +
    '(?:[^.,;]|\\.(?=\\d))*?(?= (?:and|but|or)\\b|[.,;](?!\\d)|$)',
  'y',
)
const WAS_NOT = new RegExp(
  '(?:the )?([a-z][a-z ]*?)?(?: (?:is|was|were|are))? ?' +
    '(?:not (?:seen|visible|readable|legible|accessible|opened|read|reached|measured|tested|looked at|checked)' +
    '|inaccessible|not accessible|unreadable|illegible)(?![\\w/])',
  'y',
)
const FEEDS = new RegExp(
  '(?:(labeled|label says|directory says|marked|called|named)' +
    '|(feeds|feeding|serves|serving|supplies|goes to|is for|for))(?: (?:the|a|an))? ',
  'y',
)
/** Words that stand beside those of a label and say where. */
const BESIDE_LABELS: ReadonlySet<string> = new Set(
  (
    'and the of in front back rear left right upper lower north south east west upstairs downstairs ' +
    'master main new old first second floor spare extra'
  ).split(' '),
)
const SPACE = /^(?:in |on |at )?(?:the )?(?:space|slot|position|breaker|circuit|number)\b.*\d/
/** What may be said before the thing it is of: number six copper to the rod; a 20 A breaker in space 4. */
const WAITING: ReadonlySet<Phrase> = new Set([...CONDUCTOR_WORDS, ...BREAKER_WORDS])
/** While one of these is spoken of, a size said before its thing waits for it. */
const CAN_WAIT: ReadonlySet<Focus> = new Set([
  'property',
  'enclosure',
  'main',
  'room',
  'outlet',
  'electrode',
  'bond',
])
/** Phrases of one plain word that may stand in a name: none so far. */
const WEAK: ReadonlySet<Phrase> = new Set()

/** Which field somebody could not see. */
function nounField(noun: string, focus: Focus, words: string): string | undefined {
  const table = BLOCKED_NOUNS[focus] ?? []
  for (const [pattern, field] of table) if (pattern.test(noun === '' ? words : noun)) return field
  for (const [pattern, field] of BLOCKED_NOUNS.property ?? [])
    if (pattern.test(noun === '' ? words : noun)) return field
  return undefined
}

/** A line of shorthand, as typed at the panel: 7 20 14cu nm porch lights. */
function shorthand(
  say: string,
  r: Reader,
  things: JobThings,
): Pick<Understood, 'means' | 'notUnderstood' | 'asks'> | undefined {
  const isLine =
    /^\s*\d{1,2}[ab]?\s+(?:[123]p\b|\d{1,3}a?\b(?!\s*(?:amp|volt|ohm|feet|foot|inch|slot|prong|degree|v\b))|=)/i
  const isWordy =
    /\b(?:amps?|gauge|volts?|ohms?|space|pole|receptacles?|outlets?|slots?|no|sorry)\b/i
  if (!isLine.test(say) || isWordy.test(say)) return undefined
  const isSelected = things.of('breaker').length > 0
  if (!things.hasEnclosure || (r.focus !== 'enclosure' && r.focus !== 'breaker')) return undefined
  const { line, pieces } = parseLine(say, isSelected ? (things.space?.number ?? 0) : undefined)
  r.words = say.trim()
  if (line.space !== undefined) things.breakerAt(line.space, line.half)
  r.focus = 'breaker'
  const put = (slot: string, value: unknown) => {
    if (value !== undefined) r.put(slot, value as string | number)
  }
  if (things.of('breaker')[0]?.isNew) {
    put('breaker.space', line.space)
    put('breaker.half', line.half)
  }
  put('breaker.poles', line.poles)
  if (line.ratingAmps !== undefined && !RATINGS.has(line.ratingAmps))
    r.ask(`${line.ratingAmps} A is no standard rating; what does the handle say?`)
  else put('amps', line.ratingAmps)
  put('breaker.role', line.role)
  put('breaker.handleTie', line.handleTie)
  put('protection', line.protection)
  put('size', line.size)
  put('metal', line.metal)
  put('wiring', line.wiring)
  put('conductors', line.conductors)
  put('breaker.label', line.label)
  if (line.sharesWith !== undefined) {
    const other = things.circuitAt(line.sharesWith)
    if (other) r.put('circuit.sharesNeutralWith', [other])
  }
  return {
    means: r.meanings,
    notUnderstood: pieces.filter(p => !p.isRead).map(p => p.text),
    asks: r.asks,
  }
}
