import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { mergeLogs, readJobFile, UnreadableFile, writeLog, type Observation } from '#core'
import {
  isArchive,
  MAX_BUNDLE_BYTES,
  readBundle,
  writeBundle,
  type Bundle,
} from '../server/files/bundle'
import { refuse, unreadable } from './input'

interface Copy {
  readonly observations: readonly Observation[]
  readonly bundle: Bundle | undefined
}

/** A job file in either form, or a bundle. */
function readCopy(file: string): Copy {
  let bytes: Buffer
  try {
    if (statSync(file).size > MAX_BUNDLE_BYTES)
      return refuse(`${file}: larger than ${MAX_BUNDLE_BYTES / 1024 / 1024} MB`)
    bytes = readFileSync(file)
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException
    return refuse(`${file}: ${code === 'ENOENT' ? 'no such file' : message}`)
  }
  try {
    const bundle = isArchive(bytes) ? readBundle(bytes) : undefined
    const text = new TextDecoder().decode(bundle?.log ?? bytes)
    // A house by hand has no ids of its own: those of one file never meet those of another.
    const sum = createHash('sha256').update(text).digest('hex').slice(0, 12)
    let n = 0
    const read = readJobFile(text, {
      at: '2000-01-01T00:00:00.000Z',
      by: file,
      nextId: () => `f${sum}-${String(n++).padStart(7, '0')}`,
    })
    // Two houses by hand know nothing of each other: what differs in them is two opinions.
    const observations =
      read.form === 'log'
        ? read.observations
        : read.observations.map(o => (o.act === 'note' ? { ...o, over: [] } : o))
    return { observations, bundle }
  } catch (error) {
    if (!(error instanceof UnreadableFile)) throw error
    return unreadable(file, error.problems)
  }
}

/** `corvit merge A B --out C`: two copies of one job put together; C is a bundle where its name ends in .zip. */
export function mergeCommand(args: readonly string[]): void {
  const files: string[] = []
  let out: string | undefined
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--out') out = args[++i] ?? refuse('--out takes a file')
    else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else files.push(arg)
  }
  const [a, b] = files
  if (a === undefined || b === undefined || files.length > 2) return refuse('merge takes two files')
  if (out === undefined) return refuse('--out says where the merged job goes')
  const [first, second] = [readCopy(a), readCopy(b)]
  const merged = mergeLogs(first.observations, second.observations)
  if ('clashes' in merged) {
    const [clash] = merged.clashes
    return refuse(
      `${merged.clashes.length} observations have one id and different content, the first is ` +
        `${JSON.stringify(clash?.id)}: these are not copies of one job; nothing was written`,
    )
  }
  const log = `${JSON.stringify(writeLog(merged.ledger), null, 1)}\n`
  const signed = new Map([...(first.bundle?.signed ?? []), ...(second.bundle?.signed ?? [])])
  for (const [name, bytes] of first.bundle?.signed ?? []) {
    const other = second.bundle?.signed.get(name)
    if (other && !Buffer.from(other).equals(Buffer.from(bytes)))
      return refuse(`signed/${name} differs in the two: nothing was written`)
  }
  const photos = new Map([...(first.bundle?.photos ?? []), ...(second.bundle?.photos ?? [])])
  const content = out.endsWith('.zip')
    ? writeBundle({ log: new TextEncoder().encode(log), photos, signed })
    : log
  try {
    writeFileSync(out, content)
  } catch (error) {
    return refuse(`${out} cannot be written: ${(error as Error).message}`)
  }
  const { onlyFirst, onlySecond, shared, conflicts, ledger } = merged
  console.log(
    JSON.stringify(
      { corvit: 1, out, observations: ledger.size, shared, onlyFirst, onlySecond, conflicts },
      null,
      2,
    ),
  )
  if (shared === 0 && first.bundle === undefined && second.bundle === undefined)
    console.error('corvit: the two share no observation; look whether they are copies of one job')
}
