import { randomUUID } from 'node:crypto'
import { mkdirSync, renameSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import sharp from 'sharp'
import { z } from 'zod'
import { UnreadableFile, type Observation } from '../../core'
import { SignedName } from '../../shared/files'
import { connect } from '../database/open'
import { foreignPhotos, sha256, type Bundle } from './bundle'

const THUMB_EDGE = 360
/** All photographs together may take this much. */
export const photoQuota = (): number =>
  Number(process.env.CORVIT_PHOTO_QUOTA_MB ?? 4096) * 1024 * 1024
const MAX_PIXELS = 80_000_000

/** The head of a signed paper; the rest is kept as it is. */
const SignedPaper = z.looseObject({
  id: z.string(),
  title: z.string(),
  blocks: z.array(z.looseObject({ kind: z.string() })),
})

const problem = (path: string, expected: string, found: string): UnreadableFile =>
  new UnreadableFile([{ path, expected, found }])

/** Hashes of the photographs that a log speaks of. */
export function hashesIn(observations: readonly Observation[]): ReadonlySet<string> {
  const photos = new Set(
    observations.flatMap(o => (o.act === 'add' && o.kind === 'photo' ? o.subject : [])),
  )
  return new Set(
    observations.flatMap(o =>
      o.act === 'note' && o.field === 'hash' && photos.has(o.subject) ? String(o.value) : [],
    ),
  )
}

/**
 * Looks through a bundle before anything of it is kept: pictures that are ones, that the log speaks of, and that the
 * camera has written nothing into; signed reports that come as paper and PDF, both with the seal that the log names.
 * @throws UnreadableFile naming the file in the bundle
 */
export async function checkBundle(
  bundle: Bundle,
  observations: readonly Observation[],
): Promise<void> {
  const foreign = foreignPhotos(bundle, hashesIn(observations))
  if (foreign.length > 0) throw new UnreadableFile(foreign.slice(0, 20))
  for (const [hash, bytes] of bundle.photos) await checkPicture(`photos/${hash}.jpg`, bytes)
  const names = new Set([...bundle.signed.keys()].map(name => name.replace(/\.(json|pdf)$/, '')))
  for (const name of names) {
    const paper = bundle.signed.get(`${name}.json`)
    const pdf = bundle.signed.get(`${name}.pdf`)
    if (!paper || !pdf || !SignedName.safeParse(name).success)
      throw problem(`signed/${name}`, 'a .json and a .pdf', 'one of them')
    if (Buffer.from(pdf.subarray(0, 5)).toString('latin1') !== '%PDF-')
      throw problem(`signed/${name}.pdf`, 'a PDF', 'something else')
    let raw: unknown
    try {
      raw = JSON.parse(new TextDecoder().decode(paper))
    } catch (error) {
      throw problem(`signed/${name}.json`, 'JSON', (error as Error).message.slice(0, 120))
    }
    if (!SignedPaper.safeParse(raw).success)
      throw problem(`signed/${name}.json`, 'a paper', 'something else')
    checkSeal(`signed/${name}.json`, paper, sealIn(observations, name, 'hash'))
    checkSeal(`signed/${name}.pdf`, pdf, sealIn(observations, name, 'fileHash'))
  }
}

/** What the log says that a signed report was sealed with, when it was signed. */
const sealIn = (observations: readonly Observation[], name: string, field: string) =>
  observations.find(
    o => o.act === 'note' && o.subject === `signing-${name}` && o.field === field,
  ) as (Observation & { act: 'note' }) | undefined
/** A signed report that was changed since has another seal, whatever the list of checksums says. */
function checkSeal(
  path: string,
  bytes: Uint8Array,
  seal: (Observation & { act: 'note' }) | undefined,
): void {
  if (!seal) throw problem(path, 'a signature in the log that it belongs to', 'none')
  const own = sha256(bytes)
  if (seal.value !== own)
    throw problem(path, `the seal ${String(seal.value).slice(0, 12)}… it was signed with`, own)
}

async function checkPicture(path: string, bytes: Uint8Array): Promise<void> {
  try {
    const meta = await sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata()
    if (meta.format !== 'jpeg') throw problem(path, 'a JPEG picture', meta.format)
    if (meta.exif ?? meta.xmp ?? meta.iptc)
      throw problem(path, 'a picture as Corvit keeps it', 'one with the camera’s remarks in it')
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw problem(path, 'a JPEG picture', (error as Error).message.slice(0, 120))
  }
}

interface Into {
  readonly file: string
  readonly jobId: string
  readonly photos: string
  readonly now: string
}
/** Puts the pictures and signed reports of a bundle in their places. Call after `checkBundle`. */
export async function unpackInto(into: Into, bundle: Bundle): Promise<void> {
  const db = connect(into.file)
  try {
    const more = [...bundle.photos.values()].reduce((sum, bytes) => sum + bytes.length, 0)
    const kept = db
      .prepare('SELECT sum(bytes) AS n FROM (SELECT DISTINCT hash, bytes FROM photos)')
      .get() as { n: number | null }
    if (more > 0 && (kept.n ?? 0) + more > photoQuota())
      throw Object.assign(new Error('the room kept for photographs is used up'), { code: 'ENOSPC' })
    const addPhoto = db.prepare(
      `INSERT OR IGNORE INTO photos (job_id, hash, stored_at, width, height, bytes)
       VALUES (?, ?, ?, ?, ?, ?)`,
    )
    for (const [hash, bytes] of bundle.photos) {
      const thumb = await sharp(bytes)
        .resize({ width: THUMB_EDGE, height: THUMB_EDGE, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 74 })
        .toBuffer()
      const { width, height } = await sharp(bytes).metadata()
      place(join(into.photos, hash.slice(0, 2), `${hash}.thumb.jpg`), thumb)
      place(join(into.photos, hash.slice(0, 2), `${hash}.jpg`), bytes)
      addPhoto.run(into.jobId, hash, into.now, width, height, bytes.length)
    }
    const addSigned = db.prepare(
      `INSERT OR IGNORE INTO signed (job_id, name, number, voice, hash, signed_by, signed_on, paper, pdf)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    )
    for (const [file, bytes] of bundle.signed) {
      if (!file.endsWith('.json')) continue
      const name = file.replace(/\.json$/, '')
      const [number = '1', voice = 'inspector'] = name.split('-')
      const paper = new TextDecoder().decode(bytes)
      const [, by = '', on = ''] = /signed by (.{1,120}?) on (\d{4}-\d{2}-\d{2})/.exec(paper) ?? []
      const pdf = Buffer.from(bundle.signed.get(`${name}.pdf`) ?? [])
      const hash = sha256(bytes)
      addSigned.run(into.jobId, name, Number(number), voice, hash, by, on, paper, pdf)
    }
  } finally {
    db.close()
  }
}

/** Written beside, then put in place whole. */
function place(path: string, bytes: Uint8Array): void {
  mkdirSync(dirname(path), { recursive: true })
  const beside = `${path}.${randomUUID()}.part`
  writeFileSync(beside, bytes, { flush: true })
  renameSync(beside, path)
}
