import { PathsInput, problemsOf, tracePaths, UnsolvablePaths } from '#core'
import { readJson, refuse, unreadable } from './input'

/** `corvit paths FILE`: where the current goes in a network. */
export function pathsCommand(args: readonly string[]): void {
  const [file = '-', ...more] = args
  if (file.startsWith('--')) return refuse(`unknown option ${file}`)
  if (more.length > 0) return refuse(`one file at a time; found also ${JSON.stringify(more[0])}`)
  const raw = readJson(file)
  const parsed = PathsInput.safeParse(raw)
  if (!parsed.success) return unreadable(file, problemsOf(parsed.error, raw))
  try {
    console.log(JSON.stringify(tracePaths(parsed.data), null, 2))
  } catch (error) {
    if (!(error instanceof UnsolvablePaths)) throw error
    return unreadable(file, [
      { path: error.path, expected: 'a network that can be solved', found: error.message },
    ])
  }
}
