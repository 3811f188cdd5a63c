import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { once } from 'node:events'
import { Zip, ZipPassThrough } from 'fflate'
import type { Kysely } from 'kysely'
import type { Database } from '../database/types'
import { allJobs, listTrash } from '../queries/jobs'
import { auditBefore } from '../queries/people'

/** Writes everything into a scratch archive, one file after the other, and answers with its path. */
export async function packEverything(db: Kysely<Database>): Promise<string> {
  await mkdir(scratchFolder(), { recursive: true })
  const path = join(scratchFolder(), `${randomUUID()}.zip`)
  const out = createWriteStream(path)
  const checksums: string[] = []
  const zip = new Zip((error, chunk, isLast) => {
    if (error) out.destroy(error)
    else out.write(chunk)
    if (isLast) out.end()
  })
  const put = async (name: string, bytes: Uint8Array) => {
    checksums.push(`${createHash('sha256').update(bytes).digest('hex')}  ${name}`)
    const entry = new ZipPassThrough(name)
    zip.add(entry)
    entry.push(bytes, true)
    if (out.writableNeedDrain) await once(out, 'drain')
    await breathe()
  }
  for (const job of [...(await allJobs(db)), ...(await listTrash(db))]) {
    const folder = `jobs/${fileName(job.name)}-${job.id}`
    const log = await heavyText({
      kind: 'export',
      file: databaseFile(),
      jobId: job.id,
      form: 'log',
    })
    await put(`${folder}/job.log.corvit.json`, log)
    for (const hash of await photosOfJob(db, job.id)) {
      const picture = await readFile(photoPath(hash, false)).catch(() => undefined)
      if (picture) await put(`${folder}/photos/${hash}.jpg`, picture)
    }
  }
  const trail = await auditBefore(db, undefined, 1_000_000)
  await put('audit.json', new TextEncoder().encode(JSON.stringify(trail, null, 1)))
  const list = new ZipPassThrough('SHA256SUMS')
  zip.add(list)
  list.push(new TextEncoder().encode(`${checksums.join('\n')}\n`), true)
  zip.end()
  await once(out, 'close')
  return path
}
