import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { main } from '../../cli/main'

/** The command line, in a process of its own. */
export const corvit = (...args: string[]) =>
  spawnSync('node', ['cli/corvit.mjs', ...args], { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 })
/** The same without a process of its own, for what needs none to be shown. */
export async function here(
  ...args: string[]
): Promise<{ stdout: string; stderr: string; status: number }> {
  let stdout = ''
  let stderr = ''
  const spies = [
    jest.spyOn(console, 'error').mockImplementation((line: string) => void (stderr += `${line}\n`)),
    jest.spyOn(console, 'log').mockImplementation((line: string) => void (stdout += `${line}\n`)),
    jest.spyOn(process.stdout, 'write').mockImplementation((text: unknown) => {
      stdout += String(text)
      return true
    }),
  ]
  try {
    return { status: await main(args), stdout, stderr }
  } finally {
    for (const spy of spies) spy.mockRestore()
  }
}
/** A file of the test's own. */
export const scratch = (name: string, text: string) => {
  const path = join(mkdtempSync(join(tmpdir(), 'corvit-cli-')), name)
  writeFileSync(path, text)
  return path
}
