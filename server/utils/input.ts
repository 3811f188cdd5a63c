import type { H3Event } from 'h3'
import type { z } from 'zod'
import { MAX_FILE_BYTES, problemsOf } from '../../core'
import { MAX_BUNDLE_BYTES } from '../files/bundle'

/** Reads and checks the body as JSON. */
export async function readInput<S extends z.ZodType>(
  event: H3Event,
  schema: S,
  maxBytes = 2 * 1024 * 1024,
): Promise<z.output<S>> {
  const text = await readText(event, maxBytes)
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    throw refuse('invalid-input', 'The body is not JSON', [
      { path: '(body)', expected: 'JSON', found: (error as Error).message.slice(0, 160) },
    ])
  }
  return check(schema, raw)
}

export function readQuery<S extends z.ZodType>(event: H3Event, schema: S): z.output<S> {
  return check(schema, getQuery(event))
}

export function check<S extends z.ZodType>(schema: S, raw: unknown): z.output<S> {
  const parsed = schema.safeParse(raw)
  if (parsed.success) return parsed.data
  const problems = problemsOf(parsed.error, raw)
  throw refuse(
    'invalid-input',
    problems.map(p => `${p.path}: expected ${p.expected}, found ${p.found}`).join('; '),
    problems,
  )
}

/** Reads the body as text and stops as soon as it is too large, whatever the headers claim. */
export async function readText(event: H3Event, maxBytes: number): Promise<string> {
  return (await readBytes(event, maxBytes)).toString('utf8')
}

/** Reads a job file or a bundle: an archive may be larger than a file that is read at once. */
export const readJobBody = (event: H3Event): Promise<Buffer> =>
  readBytes(
    event,
    (getHeader(event, 'content-type') ?? '').startsWith('application/zip')
      ? MAX_BUNDLE_BYTES
      : MAX_FILE_BYTES,
  )

/** Reads the body whole, up to the limit, whatever the headers claim. */
export async function readBytes(event: H3Event, maxBytes: number): Promise<Buffer> {
  const tooLarge = (size: number) => {
    const problem = {
      path: '(body)',
      expected: `at most ${maxBytes} bytes`,
      found: `${size} bytes`,
    }
    return refuse('too-large', `At most ${Math.round(maxBytes / 1024 / 1024)} MB`, [problem])
  }
  const claimed = Number(getHeader(event, 'content-length') ?? 0)
  if (claimed > maxBytes) throw tooLarge(claimed)
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req) {
    size += (chunk as Buffer).length
    if (size > maxBytes) throw tooLarge(size)
    chunks.push(chunk as Buffer)
  }
  return Buffer.concat(chunks)
}
