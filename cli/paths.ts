import { dirname, resolve } from 'node:path'
import {
  clampRead,
  PathsInput,
  problemsOf,
  PropertyInput,
  Site,
  tracePaths,
  traceProperty,
  UndrawableProperty,
  UnsolvablePaths,
} from '#core'
import { houseOf, readJson, readText, refuse, unreadable } from './input'

/** `corvit paths FILE`: where the current goes, in a plain network or in a property with changes. */
export function pathsCommand(args: readonly string[]): void {
  const [file = '-', ...more] = args
  if (file.startsWith('--')) return refuse(`unknown option ${file}`)
  if (more.length > 0) return refuse(`one file at a time; found also ${JSON.stringify(more[0])}`)
  const raw = readJson(file)
  const isProperty = typeof raw === 'object' && raw !== null && 'job' in raw
  try {
    const answer = isProperty ? ofProperty(file, raw) : ofNetwork(file, raw)
    if (answer) console.log(JSON.stringify(answer, null, 2))
  } catch (error) {
    if (error instanceof UndrawableProperty)
      return unreadable(file, [
        {
          path: `job: ${error.subject}.${error.field}`,
          expected: 'another supply',
          found: error.message,
        },
      ])
    if (!(error instanceof UnsolvablePaths)) throw error
    return unreadable(file, [
      { path: error.path, expected: 'a network that can be solved', found: error.message },
    ])
  }
}

function ofNetwork(file: string, raw: unknown) {
  const parsed = PathsInput.safeParse(raw)
  if (parsed.success) return tracePaths(parsed.data)
  return unreadable(file, problemsOf(parsed.error, raw))
}

function ofProperty(file: string, raw: object) {
  const parsed = PropertyInput.safeParse(raw)
  if (!parsed.success) return unreadable(file, problemsOf(parsed.error, raw))
  const { job, changes, clamps } = parsed.data
  // A name is looked up from where the file lies, so that a folder can be moved as a whole.
  const at = typeof job === 'string' && file !== '-' ? resolve(dirname(file), job) : job
  const house = typeof at === 'string' ? houseOf(at, readText(at)) : houseOf(`${file}: job`, at)
  const site = new Site(house)
  const answer = traceProperty(site, changes)
  return {
    ...answer,
    clamps: clamps.map((around, i) => ({
      around,
      amperes: clampRead(answer, around, `clamps[${i}]`),
    })),
  }
}
