import { createHash, randomUUID } from 'node:crypto'
import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import type { Kysely } from 'kysely'
import sharp from 'sharp'
import { MAX_PHOTO_BYTES, PhotoHash, type StoredPhoto } from '../../shared/api'
import type { Database } from '../database/types'
import { photoQuota } from '../files/unpack'
import { addPhoto, bytesOfPhotos, findPhoto, hashesOf, isPhotoUsed } from '../queries/photos'

type Db = Kysely<Database>

const LONG_EDGE = 2000
const THUMB_EDGE = 360
/** A small file can claim a picture of any size; more pixels than this are not unpacked. */
const MAX_PIXELS = 80_000_000
const KINDS: ReadonlySet<string> = new Set(['jpeg', 'png', 'webp', 'tiff', 'avif', 'heif', 'svg'])
/** What a phone or a camera makes. */
const TAKEN: ReadonlySet<string> = new Set(['jpeg', 'png', 'webp'])

export const photoPath = (hash: string, isThumb: boolean): string =>
  join(photoFolder(), hash.slice(0, 2), `${hash}${isThumb ? '.thumb' : ''}.jpg`)

/**
 * Stores a photograph: judged by its content and never by its name, turned upright, made no larger than needed, freed
 * of what the camera wrote into it, named by the hash of what is kept.
 * @param drawn true where the picture is one of our own drawings
 */
export async function storePhoto(
  db: Db,
  jobId: string,
  bytes: Buffer,
  drawn = false,
): Promise<StoredPhoto> {
  const refuseKind = (found: string) =>
    refuse('not-a-photo', 'This is not a photograph Corvit can keep: JPEG, PNG or WebP are', [
      { path: '(body)', expected: 'a JPEG, PNG or WebP picture', found },
    ])
  if (bytes.length === 0) throw refuseKind('nothing')
  let kind: string | undefined
  let picture: Buffer
  let thumb: Buffer
  let size: { width: number; height: number }
  try {
    const meta = await sharp(bytes, { limitInputPixels: MAX_PIXELS }).metadata()
    kind = meta.format
    if (!kind || !KINDS.has(kind) || (!drawn && !TAKEN.has(kind)))
      throw refuseKind(kind ?? 'something else')
    if (meta.width * meta.height > MAX_PIXELS)
      throw refuse('too-large', 'The picture unpacks to more than 80 million points', [
        {
          path: '(body)',
          expected: `at most ${MAX_PIXELS} points`,
          found: `${meta.width} × ${meta.height}`,
        },
      ])
    const upright = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' }).rotate()
    const full = await upright
      .clone()
      .resize({ width: LONG_EDGE, height: LONG_EDGE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true })
    picture = full.data
    size = { width: full.info.width, height: full.info.height }
    thumb = await upright
      .clone()
      .resize({ width: THUMB_EDGE, height: THUMB_EDGE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 74 })
      .toBuffer()
  } catch (error) {
    if ((error as { statusCode?: number }).statusCode) throw error
    if (/pixel limit/i.test(String(error)))
      throw refuse('too-large', 'The picture unpacks to more than 80 million points', [
        { path: '(body)', expected: `at most ${MAX_PIXELS} points`, found: 'more' },
      ])
    throw refuseKind(kind ? `a ${kind} that cannot be read whole` : found(bytes))
  }
  const hash = createHash('sha256').update(picture).digest('hex')
  return oneAtATime(async () => {
    if (!(await findPhoto(db, jobId, hash))) {
      if ((await bytesOfPhotos(db)) + picture.length > photoQuota())
        throw full('the room kept for photographs is used up')
      try {
        await mkdir(dirname(photoPath(hash, false)), { recursive: true })
        await place(photoPath(hash, true), thumb)
        await place(photoPath(hash, false), picture)
        const row = {
          job_id: jobId,
          hash,
          stored_at: new Date().toISOString(),
          ...size,
          bytes: picture.length,
        }
        await addPhoto(db, row)
      } catch (error) {
        if (isFull(error)) throw full('the disk is full')
        throw error
      }
    }
    return { hash, ...size, bytes: picture.length }
  })
}

let tail: Promise<unknown> = Promise.resolve()
/**
 * Storing and taking away happen one after the other: two uploads cannot both take the last room, and a picture that
 * one job no longer needs is not removed while another stores it.
 */
function oneAtATime<T>(run: () => Promise<T>): Promise<T> {
  const turn = tail.then(run)
  tail = turn.catch(() => undefined)
  return turn
}
const full = (why: string) =>
  refuse(
    'storage-full',
    `No room for the photograph: ${why}. Everything recorded is kept; remove jobs or photographs and try again`,
  )
const found = (bytes: Buffer): string =>
  /^\s*(<!doctype|<html|<\?xml|<svg)/i.test(bytes.subarray(0, 200).toString('latin1'))
    ? 'a page or drawing'
    : bytes.subarray(0, 2).toString('latin1') === 'PK'
      ? 'an archive'
      : 'something that is no picture'

/** Written beside, then put in place whole: a killed server leaves no half a photograph. */
async function place(path: string, bytes: Buffer): Promise<void> {
  const beside = `${path}.${randomUUID()}.part`
  try {
    await writeFile(beside, bytes, { flush: true })
    await rename(beside, path)
  } catch (error) {
    await rm(beside, { force: true })
    throw error
  }
}

export async function readPhoto(
  db: Db,
  jobId: string,
  hash: string | undefined,
  isThumb: boolean,
): Promise<Buffer> {
  const missing = () => refuse('no-photo', 'There is no such photograph in this job')
  if (!PhotoHash.safeParse(hash).success || !(await findPhoto(db, jobId, hash!))) throw missing()
  return readFile(photoPath(hash!, isThumb)).catch(() => {
    throw missing()
  })
}

/** Takes the files of a job away that no other job uses; call after its rows are gone. */
export const sweepPhotos = (db: Db, hashes: readonly string[]): Promise<void> =>
  oneAtATime(async () => {
    for (const hash of hashes) {
      if (await isPhotoUsed(db, hash)) continue
      await rm(photoPath(hash, false), { force: true })
      await rm(photoPath(hash, true), { force: true })
    }
  })
export const photosOfJob = hashesOf
export { MAX_PHOTO_BYTES }
