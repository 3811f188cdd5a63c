import type { z } from 'zod'

/** One thing wrong with input: where, what was expected, what was found. */
export interface Problem { path: string, expected: string, found: string }

/** Input that cannot be read. Nothing has been changed. */
export class UnreadableFile extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(p => `${p.path}: expected ${p.expected}, found ${p.found}`).join('\n'))
    this.name = 'UnreadableFile'
  }
}

/** A path as people write it: enclosures[0].breakers[2].ratingAmps. */
export function pathText(path: readonly PropertyKey[]): string {
  return path.reduce<string>((text, key) => typeof key === 'number' ? `${text}[${key}]` : text ? `${text}.${String(key)}` : String(key), '') || '(top)'
}

/** What was found, short enough for one line. */
export function found(value: unknown): string {
  if (value === undefined) return 'nothing'
  const text = typeof value === 'string' ? JSON.stringify(value) : Array.isArray(value) ? `a list of ${value.length}` : typeof value === 'object' && value !== null ? `an object with ${Object.keys(value).slice(0, 5).join(', ') || 'nothing in it'}` : String(value)
  return text.length > 80 ? `${text.slice(0, 77)}…` : text
}

function at(input: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>((value, key) => value !== null && typeof value === 'object' ? (value as Record<PropertyKey, unknown>)[key] : undefined, input)
}

/** Zod's issues as problems with paths; `expectedAt` may know better what belongs there. */
export function problemsOf(error: z.ZodError, input: unknown, expectedAt?: (path: readonly PropertyKey[]) => string | undefined): Problem[] {
  const problems = error.issues.flatMap((issue): Problem[] => {
    if (issue.code === 'unrecognized_keys') {
      return issue.keys.map(key => ({ path: pathText([...issue.path, key]), expected: 'a name this place knows (see docs/FORMATS.md)', found: `${JSON.stringify(key)}` }))
    }
    return [{ path: pathText(issue.path), expected: expectedAt?.(issue.path) ?? messageOf(issue), found: found(at(input, issue.path)) }]
  })
  return problems.slice(0, 20)
}

function messageOf(issue: z.core.$ZodIssue): string {
  if (issue.code === 'invalid_type') return issue.expected
  if (issue.code === 'invalid_value') return `one of ${issue.values.map(v => JSON.stringify(v)).join(', ')}`
  return issue.message
}
