import { z } from 'zod'
import { isAbsolute, join, dirname } from 'node:path'
import { problemsOf, Site, understand, type Understood } from '#core'
import { houseOf, readJson, readText, refuse, unreadable } from './input'

const utterance = z.strictObject({
  /** A job file: its content, or its path beside this file. */
  job: z.union([z.string().max(1000), z.looseObject({})]).optional(),
  context: z
    .strictObject({
      place: z.string().max(200).optional(),
      selected: z.string().max(200).optional(),
    })
    .default({}),
  say: z.string().max(2000),
})
const input = z.union([utterance, z.array(utterance).max(10_000)])

/** `corvit understand FILE`: what was said beside a thing, as facts of the record. */
export function understandCommand(args: readonly string[]): void {
  const [file, ...more] = args
  if (more.length > 0) refuse('one file at a time')
  const from = file ?? '-'
  if (from.startsWith('--')) refuse(`unknown option ${from}`)
  const raw = readJson(from)
  const parsed = input.safeParse(raw)
  if (!parsed.success) return unreadable(from, problemsOf(parsed.error, raw))
  const { data } = parsed
  const sites = new Map<unknown, Site>()
  const answers = (Array.isArray(data) ? data : [data]).map(u => {
    const { job, context, say } = u
    let site = job === undefined ? undefined : sites.get(job)
    if (job !== undefined && !site) sites.set(job, (site = siteOf(job, from)))
    const { place, selected } = context
    for (const id of selected === undefined ? [] : [selected])
      if (site && !site.house.subjects.has(id))
        refuse(`context.selected names ${JSON.stringify(id)}, which is not in the job`)
    return plain(understand(site, { place, selected }, say))
  })
  console.log(JSON.stringify(Array.isArray(data) ? answers : answers[0], null, 2))
}

function siteOf(job: string | object, from: string): Site {
  if (typeof job !== 'string') return new Site(houseOf(from, job))
  const path = isAbsolute(job) || from === '-' ? job : join(dirname(from), job)
  return new Site(houseOf(path, readText(path)))
}

const plain = ({ said, heard, means, notUnderstood, asks }: Understood) => ({
  say: said,
  heard,
  means: means.map(({ thing, kind, field, value, unit, blocked, from, isNew, was }) => ({
    thing,
    kind,
    field,
    value,
    unit,
    ...(blocked !== undefined && { blocked }),
    from,
    isNew,
    ...(was !== undefined && { was }),
  })),
  notUnderstood,
  asks,
})
