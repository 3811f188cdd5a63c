import { readFileSync, statSync } from 'node:fs'
import { Ledger, MAX_FILE_BYTES, readJob, readJobFile, UnreadableFile, type House } from '#core'

/** Why a command could not answer; printed to the error stream, exit code 2. */
export class Refused extends Error {}
export const refuse = (message: string): never => {
  throw new Refused(`corvit: ${message}`)
}

/** The text of a file, or of standard input where it is `-`. */
export function readText(file: string): string {
  try {
    if (file !== '-' && statSync(file).size > MAX_FILE_BYTES)
      return refuse(`${file}: larger than ${MAX_FILE_BYTES / 1024 / 1024} MB`)
    return readFileSync(file === '-' ? 0 : file, 'utf8')
  } catch (error) {
    if (error instanceof Refused) throw error
    const { code, message } = error as NodeJS.ErrnoException
    return refuse(`${file}: ${code === 'ENOENT' ? 'no such file' : message}`)
  }
}

/** The JSON of a file. */
export function readJson(file: string): unknown {
  const text = readText(file)
  try {
    return JSON.parse(text)
  } catch (error) {
    return refuse(`${file}: not JSON: ${(error as Error).message}`)
  }
}

export const unreadable = (file: string, problems: readonly unknown[]): never => {
  throw new Refused(JSON.stringify({ error: 'unreadable-input', file, problems }, null, 2))
}

/** Stamps what a file turns into: the same file always gives the same log. */
const stamper = () => {
  let n = 0
  return {
    at: '2000-01-01T00:00:00.000Z',
    by: 'file',
    nextId: () => `f${String(n++).padStart(7, '0')}`,
  }
}

/** The house of a job file, by its text or already parsed. */
export function houseOf(file: string, job: string | object): House {
  try {
    const { observations } =
      typeof job === 'string' ? readJobFile(job, stamper()) : readJob(job, stamper())
    return new Ledger(observations).house
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    return unreadable(file, error.problems)
  }
}
