import { createHash } from 'node:crypto'
import { unzipSync, zipSync, type Zippable } from 'fflate'
import { MAX_FILE_BYTES, UnreadableFile, type Problem } from '../../core'

/** Everything of one job in one archive: its log, its photographs, its signed reports, and a checksum of each. */
export interface Bundle {
  /** The job file, form "log", byte for byte. */
  readonly log: Uint8Array
  /** JPEG files by hash. */
  readonly photos: ReadonlyMap<string, Uint8Array>
  /** Signed reports: `2-inspector.json` and `2-inspector.pdf`. */
  readonly signed: ReadonlyMap<string, Uint8Array>
}

export const BUNDLE_LOG = 'job.log.corvit.json'
const SUMS = 'SHA256SUMS'
const PHOTO = /^photos\/([0-9a-f]{64})\.jpg$/
const SIGNED = /^signed\/(\d{1,3}-[a-z]{3,20}\.(?:json|pdf))$/
/** A bundle is no larger than this, packed or unpacked, and holds no more files. */
export const MAX_BUNDLE_BYTES = 400 * 1024 * 1024
const MAX_FILES = 6000
const MAX_ENTRY = 60 * 1024 * 1024
/** The same content makes the same archive. */
const MADE = new Date('2000-01-01T00:00:00Z')

export const sha256 = (bytes: Uint8Array): string =>
  createHash('sha256').update(bytes).digest('hex')

/** Packs a bundle; photographs and reports are packed already, so they are only put in. */
export function writeBundle({ log, photos, signed }: Bundle): Uint8Array {
  const files = new Map<string, Uint8Array>([[BUNDLE_LOG, log]])
  for (const [hash, bytes] of [...photos].sort()) files.set(`photos/${hash}.jpg`, bytes)
  for (const [name, bytes] of [...signed].sort()) files.set(`signed/${name}`, bytes)
  const sums = [...files].map(([name, bytes]) => `${sha256(bytes)}  ${name}`)
  const zip: Zippable = {}
  for (const [name, bytes] of files)
    zip[name] = [bytes, { level: name.endsWith('.json') ? 6 : 0, mtime: MADE }]
  zip[SUMS] = [new TextEncoder().encode(`${sums.join('\n')}\n`), { level: 6, mtime: MADE }]
  return zipSync(zip)
}

const problem = (path: string, expected: string, found: string): UnreadableFile =>
  new UnreadableFile([{ path, expected, found }])

/** Whether some bytes are an archive at all. */
export const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

/**
 * Unpacks a bundle and holds every file of it against its checksum.
 * @throws UnreadableFile naming the file in the archive, what was expected and what was found
 */
export function readBundle(bytes: Uint8Array): Bundle {
  if (bytes.length > MAX_BUNDLE_BYTES)
    throw problem('(file)', `at most ${MAX_BUNDLE_BYTES / 1024 / 1024} MB`, `${bytes.length} bytes`)
  const files = unpack(bytes)
  const sums = readSums(files)
  const bundle = { photos: new Map<string, Uint8Array>(), signed: new Map<string, Uint8Array>() }
  let log: Uint8Array | undefined
  for (const [name, content] of files) {
    if (name === SUMS) continue
    const sum = sums.get(name)
    if (sum === undefined) throw problem(name, `a checksum in ${SUMS}`, 'none')
    const own = sha256(content)
    if (own !== sum) throw problem(name, `content with the checksum ${sum.slice(0, 12)}…`, own)
    const photo = PHOTO.exec(name)?.[1]
    const signed = SIGNED.exec(name)?.[1]
    if (name === BUNDLE_LOG) log = content
    else if (photo !== undefined) {
      if (own !== photo) throw problem(name, 'a picture named by its own checksum', own)
      bundle.photos.set(photo, content)
    } else if (signed !== undefined) bundle.signed.set(signed, content)
  }
  for (const name of sums.keys())
    if (!files.has(name)) throw problem(name, `the file that ${SUMS} names`, 'nothing')
  if (!log) throw problem(BUNDLE_LOG, 'the job file', 'nothing')
  return { ...bundle, log }
}

/** Names and sizes are looked at before anything is unpacked: no path out of the archive, no bomb. */
function unpack(bytes: Uint8Array): ReadonlyMap<string, Uint8Array> {
  let total = 0
  const seen = new Set<string>()
  let found: Record<string, Uint8Array>
  try {
    found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const limit = name === BUNDLE_LOG ? MAX_FILE_BYTES : MAX_ENTRY
        total += originalSize
        if (!isKnown(name))
          throw problem(
            shown(name),
            `${BUNDLE_LOG}, ${SUMS}, photos/HASH.jpg or signed/…`,
            'another',
          )
        if (seen.has(name)) throw problem(name, 'each name once', 'it again')
        if (originalSize > limit) throw problem(name, `at most ${limit} bytes`, `${originalSize}`)
        if (total > MAX_BUNDLE_BYTES)
          throw problem(name, `at most ${MAX_BUNDLE_BYTES} bytes in all`, `${total}`)
        if (seen.add(name).size > MAX_FILES)
          throw problem(name, `at most ${MAX_FILES} files`, `${seen.size}`)
        return true
      },
    })
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw problem('(file)', 'a whole zip archive', String((error as Error).message).slice(0, 120))
  }
  return new Map(Object.entries(found))
}
const isKnown = (name: string): boolean =>
  name === BUNDLE_LOG || name === SUMS || PHOTO.test(name) || SIGNED.test(name)
const shown = (name: string): string => JSON.stringify(name).slice(0, 120)

function readSums(files: ReadonlyMap<string, Uint8Array>): ReadonlyMap<string, string> {
  const list = files.get(SUMS)
  if (!list) throw problem(SUMS, 'the list of checksums', 'nothing')
  const sums = new Map<string, string>()
  const lines = new TextDecoder().decode(list).split('\n').filter(Boolean)
  lines.forEach((line, i) => {
    const [, sum, name] = /^([0-9a-f]{64}) {2}(.+)$/.exec(line) ?? []
    if (sum === undefined || name === undefined)
      throw problem(`${SUMS}, line ${i + 1}`, 'a checksum, two blanks and a name', shown(line))
    sums.set(name, sum)
  })
  return sums
}

/** Photographs that nothing in the log speaks of do not belong to the job. */
export function foreignPhotos(bundle: Bundle, hashes: ReadonlySet<string>): readonly Problem[] {
  return [...bundle.photos.keys()]
    .filter(hash => !hashes.has(hash))
    .map(hash => ({
      path: `photos/${hash}.jpg`,
      expected: 'a photograph that the log speaks of',
      found: 'one it does not',
    }))
}
