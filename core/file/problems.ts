import type { z } from 'zod'

/** One thing wrong with input: where, what was expected, what was found. */
export interface Problem {
  path: string
  expected: string
  found: string
}

/** Input that cannot be read. Nothing has been changed. */
export class UnreadableFile extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(p => `${p.path}: expected ${p.expected}, found ${p.found}`).join('\n'))
    this.name = 'UnreadableFile'
  }
}

/** A path as people write it: enclosures[0].breakers[2].ratingAmps. */
export function pathText(path: readonly PropertyKey[]): string {
  return (
    path
      .slice(0, 12)
      .reduce<string>(
        (text, key) =>
          typeof key === 'number'
            ? `${text}[${key}]`
            : text
              ? `${text}.${String(key)}`
              : String(key),
        '',
      ) || '(top)'
  )
}

/** What was found, short enough for one line. */
export function found(value: unknown): string {
  if (value === undefined) return 'nothing'
  const text =
    typeof value === 'string'
      ? JSON.stringify(value)
      : Array.isArray(value)
        ? `a list of ${value.length}`
        : typeof value === 'object' && value !== null
          ? `an object with ${Object.keys(value).slice(0, 5).join(', ') || 'nothing in it'}`
          : String(value)
  return text.length > 80 ? `${text.slice(0, 77)}…` : text
}

function at(input: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (value, key) =>
      value !== null && typeof value === 'object'
        ? (value as Record<PropertyKey, unknown>)[key]
        : undefined,
    input,
  )
}

/**
 * Zod's issues as problems with paths, in words of our own.
 * @param expectedAt may know better what belongs at a path
 * @param under where the input stands in the whole
 */
export function problemsOf(
  error: z.ZodError,
  input: unknown,
  expectedAt?: (path: readonly PropertyKey[]) => string | undefined,
  under: readonly PropertyKey[] = [],
): Problem[] {
  const problems: Problem[] = []
  for (const issue of error.issues) {
    if (problems.length >= 20) break
    const path = [...under, ...issue.path]
    if (issue.code === 'unrecognized_keys') {
      for (const key of issue.keys.slice(0, 20)) {
        const name = key.slice(0, 80)
        const expected = 'a name this place knows (see docs/FORMATS.md)'
        problems.push({ path: pathText([...path, name]), expected, found: JSON.stringify(name) })
      }
      continue
    }
    const expected = expectedAt?.(issue.path) ?? expectedOf(issue)
    problems.push({ path: pathText(path), expected, found: found(at(input, issue.path)) })
  }
  return problems.slice(0, 20)
}

const TYPES: Record<string, string> = {
  string: 'text',
  number: 'a number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  int: 'a whole number',
  null: 'nothing (null)',
  tuple: 'a list',
  record: 'an object',
  nan: 'a number',
}
/** What was expected, in plain words: a validator's own English never reaches a person. */
function expectedOf(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return TYPES[issue.expected] ?? issue.expected
    case 'invalid_value':
      return `one of ${issue.values.map(v => JSON.stringify(v)).join(', ')}`
    case 'too_big':
      return ownWords(issue) ?? `at most ${issue.maximum}${LENGTHS[issue.origin] ?? ''}`
    case 'too_small':
      return ownWords(issue) ?? `at least ${issue.minimum}${LENGTHS[issue.origin] ?? ''}`
    case 'invalid_format':
      return ownWords(issue) ?? `text in the form of a ${issue.format}`
    case 'not_multiple_of':
      return `a multiple of ${issue.divisor}`
    case 'invalid_union':
      return unionWords(issue)
    default:
      return ownWords(issue) ?? 'something that fits here'
  }
}
const LENGTHS: Record<string, string> = {
  string: ' characters',
  array: ' entries',
  set: ' entries',
  file: ' bytes',
}

/** The message a schema of ours gave; undefined where it is the validator's own. */
function ownWords(issue: z.core.$ZodIssue): string | undefined {
  return /^(Invalid|Too (big|small)|Unrecognized|Expected|Required)/.test(issue.message)
    ? undefined
    : issue.message
}

function unionWords(issue: z.core.$ZodIssueInvalidUnion): string {
  if (issue.discriminator) return `one of the known values of "${issue.discriminator}"`
  const options = issue.errors.flatMap(list =>
    list.filter(i => i.path.length === 0).map(expectedOf),
  )
  return [...new Set(options)].slice(0, 4).join(', or ') || 'something that fits here'
}
