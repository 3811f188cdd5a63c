// npm run backup [-- FOLDER]: a consistent copy of database and photographs, also while Corvit runs, with checksums.
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  createReadStream,
  existsSync,
  mkdirSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { join, resolve } from 'node:path'
import SQLite from 'better-sqlite3'
import { databaseFile, photoFolder } from './lib/places.mjs'

const stamp = new Date().toISOString().replace(/[:.]/g, '-')
const folder = resolve(process.argv[2] ?? join('backups', stamp))
const part = `${folder}.part`

async function checksum(path) {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(path)) hash.update(chunk)
  return hash.digest('hex')
}

async function main() {
  if (!existsSync(databaseFile)) throw new Error(`There is no database at ${databaseFile}`)
  if (existsSync(folder)) throw new Error(`${folder} is there already`)
  mkdirSync(part, { recursive: true })
  const source = new SQLite(databaseFile, { readonly: true, fileMustExist: true })
  await source.backup(join(part, 'corvit.db'))
  source.close()
  const copy = new SQLite(join(part, 'corvit.db'))
  // One file without a log beside it.
  copy.pragma('journal_mode = DELETE')
  const verdict = copy.pragma('integrity_check', { simple: true })
  if (verdict !== 'ok') throw new Error(`the copy is damaged: ${verdict}`)
  const hashes = copy
    .prepare('SELECT DISTINCT hash FROM photos ORDER BY hash')
    .all()
    .map(r => r.hash)
  const counts = {
    jobs: copy.prepare('SELECT count(*) AS n FROM jobs').get().n,
    observations: copy.prepare('SELECT count(*) AS n FROM observations').get().n,
    photos: hashes.length,
  }
  copy.close()
  const files = ['corvit.db']
  const missing = []
  for (const hash of hashes) {
    for (const name of [`${hash}.jpg`, `${hash}.thumb.jpg`]) {
      const from = join(photoFolder, hash.slice(0, 2), name)
      const to = join('photos', hash.slice(0, 2), name)
      if (!existsSync(from)) {
        missing.push(name)
        continue
      }
      mkdirSync(join(part, 'photos', hash.slice(0, 2)), { recursive: true })
      copyFileSync(from, join(part, to))
      files.push(to)
    }
  }
  const listed = []
  for (const path of files) {
    listed.push({
      path,
      bytes: statSync(join(part, path)).size,
      sha256: await checksum(join(part, path)),
    })
  }
  const manifest = {
    corvit: 'backup',
    version: 1,
    madeAt: new Date().toISOString(),
    counts,
    missing,
    files: listed,
  }
  writeFileSync(join(part, 'manifest.json'), `${JSON.stringify(manifest, null, 1)}\n`)
  renameSync(part, folder)
  console.log(
    `${folder}: ${counts.jobs} jobs, ${counts.observations} observations, ${counts.photos} photographs`,
  )
  if (missing.length > 0) {
    console.error(
      `${missing.length} pictures were not on the disk: ${missing.slice(0, 3).join(', ')}`,
    )
    process.exitCode = 1
  }
}
main().catch(error => {
  console.error(`No backup was made: ${error.message}`)
  process.exit(1)
})
