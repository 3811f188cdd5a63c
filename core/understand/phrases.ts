import type { Focus, Reader } from './reader'

/** Words that are read as one: where they hold, and what they mean. */
export interface Phrase {
  readonly pattern: RegExp
  /** Only while one of these is spoken of. */
  readonly on?: readonly Focus[]
  /** False where the words mean nothing here after all. */
  read(match: RegExpExecArray, r: Reader): boolean | undefined
}

/** Ways to say it: one pattern, or several. */
export type Words = string | readonly string[]
const patternOf = (words: Words): RegExp =>
  new RegExp(`(?:${typeof words === 'string' ? words : words.join('|')})(?![\\w/])`, 'y')

/** A phrase of words that always mean the same fact. */
export function phrase(
  words: Words,
  slot: string,
  value: string | number | boolean,
  on?: readonly Focus[],
): Phrase {
  return {
    pattern: patternOf(words),
    ...(on && { on }),
    read: (_, r) => r.put(slot, value),
  }
}
export function reads(
  words: Words,
  read: (match: RegExpExecArray, r: Reader) => unknown,
  on?: readonly Focus[],
): Phrase {
  return {
    pattern: patternOf(words),
    ...(on && { on }),
    read: (match, r) => (read(match, r) === false ? false : undefined),
  }
}

/** A number, with decimals. */
export const N = '(\\d+(?:\\.\\d+)?)'
/** A conductor size. */
export const SIZE = '(14|12|10|8|6|4|3|2|1|1/0|2/0|3/0|4/0|250|300|350|400|500|600|700|750)'
/** Is, are, reads, looks: words between a thing and what is said of it. */
export const IS =
  '(?:is |are |was |were |looks |look |seems |reads |read |shows |says |measures |' +
  'at |of |about |now |only |all |has |a |an )*'
