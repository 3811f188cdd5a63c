import { pathText, type Problem } from './problems'

/** What a job file may hold at most; also said in docs/FORMATS.md. */
export const BOUNDS = {
  /** Bytes of the file. */
  bytes: 20 * 1024 * 1024,
  /** Observations of a log. */
  observations: 200_000,
  /** Things of a house by hand. */
  subjects: 20_000,
  /** Names in one object. */
  keys: 400,
  /** Things in one list of a house by hand. */
  list: 20_000,
  /** Outlets one after the other on a circuit, and enclosures fed one from the other. */
  chain: 150,
  /** Brackets within brackets. */
  depth: 24,
  /** Values altogether. */
  values: 3_000_000,
} as const

/** Looks over parsed JSON before anything else reads it, without recursion: a file made to stop readers stops here. */
export function outOfBounds(raw: unknown): Problem | undefined {
  const open: { value: object; path: (string | number)[] }[] = []
  let values = 0
  const enter = (value: unknown, above: (string | number)[], step: string | number) => {
    if (typeof value === 'object' && value !== null) open.push({ value, path: [...above, step] })
  }
  if (typeof raw === 'object' && raw !== null) open.push({ value: raw, path: [] })
  while (open.length > 0) {
    const { value, path } = open.pop()!
    if (path.length > BOUNDS.depth) return tooMuch(path, `at most ${BOUNDS.depth} levels`, 'more')
    if (Array.isArray(value)) {
      const most =
        path.length === 1 && path[0] === 'observations' ? BOUNDS.observations : BOUNDS.list
      if (value.length > most) return tooMuch(path, `at most ${most}`, `${value.length}`)
      values += value.length
      value.forEach((item, i) => enter(item, path, i))
    } else {
      const keys = Object.keys(value)
      if (keys.length > BOUNDS.keys)
        return tooMuch(path, `at most ${BOUNDS.keys} names`, `${keys.length}`)
      values += keys.length
      for (const key of keys) enter((value as Record<string, unknown>)[key], path, key)
    }
    if (values > BOUNDS.values) return tooMuch([], `at most ${BOUNDS.values} values`, 'more')
  }
  return undefined
}

const tooMuch = (path: readonly (string | number)[], expected: string, found: string): Problem => ({
  path: pathText(path.map(p => (typeof p === 'string' ? p.slice(0, 60) : p)).slice(0, 8)),
  expected,
  found,
})
