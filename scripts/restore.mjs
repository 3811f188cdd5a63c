// npm run restore -- FOLDER: puts a backup in the place of the data, after checking all of it. Corvit must not run.
import { createHash } from 'node:crypto'
import {
  cpSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
} from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import SQLite from 'better-sqlite3'
import { databaseFile, photoFolder } from './lib/places.mjs'

async function checksum(path) {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(path)) hash.update(chunk)
  return hash.digest('hex')
}

/** The same lock a running server holds. */
function takeLock() {
  mkdirSync(dirname(databaseFile), { recursive: true })
  const lock = new SQLite(`${databaseFile}.lock`, { timeout: 300 })
  try {
    lock.exec('BEGIN EXCLUSIVE')
  } catch {
    throw new Error('Corvit is running with these data; stop it first')
  }
  return lock
}

async function main() {
  if (!process.argv[2])
    throw new Error('name the folder of the backup: npm run restore -- backups/…')
  const folder = resolve(process.argv[2])
  const manifestPath = join(folder, 'manifest.json')
  if (!existsSync(manifestPath)) throw new Error(`${folder} is no backup: it has no manifest.json`)
  const manifest = JSON.parse(readFileSync(manifestPath, 'utf8'))
  if (manifest.corvit !== 'backup' || manifest.version !== 1)
    throw new Error('manifest.json is not one this version can read')
  for (const { path, sha256 } of manifest.files) {
    const file = join(folder, path)
    // A path that leads out of the folder is not followed.
    if (!resolve(file).startsWith(`${folder}/`)) throw new Error(`${path} leads out of the backup`)
    if (!existsSync(file)) throw new Error(`${path} is missing from the backup`)
    if ((await checksum(file)) !== sha256)
      throw new Error(`${path} is not what it was when the backup was made`)
  }
  const check = new SQLite(join(folder, 'corvit.db'), { readonly: true })
  const verdict = check.pragma('integrity_check', { simple: true })
  check.close()
  if (verdict !== 'ok') throw new Error(`the database in the backup is damaged: ${verdict}`)
  const lock = takeLock()
  // What is there now is moved aside, not overwritten.
  const aside = `${dirname(databaseFile)}/before-restore-${Date.now()}`
  mkdirSync(aside, { recursive: true })
  for (const path of [databaseFile, `${databaseFile}-wal`, `${databaseFile}-shm`, photoFolder]) {
    if (existsSync(path)) renameSync(path, join(aside, path.split('/').at(-1)))
  }
  cpSync(join(folder, 'corvit.db'), databaseFile)
  if (existsSync(join(folder, 'photos')))
    cpSync(join(folder, 'photos'), photoFolder, { recursive: true })
  lock.close()
  rmSync(`${databaseFile}.lock`, { force: true })
  const { jobs, observations, photos } = manifest.counts
  console.log(
    `Restored ${jobs} jobs, ${observations} observations, ${photos} photographs. What was there before is in ${aside}`,
  )
}
main().catch(error => {
  console.error(`Nothing was changed: ${error.message}`)
  process.exit(1)
})
