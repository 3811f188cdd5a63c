import type { z } from 'zod'
import { ErrorBody } from '#shared/api'
import type { Problem } from '#core'

/** An error the API answered with, or none at all (`offline`). */
export class ApiFailure extends Error {
  constructor(message: string, readonly code: string, readonly problems: readonly Problem[]) {
    super(message)
    this.name = 'ApiFailure'
  }
}

/** Asks the API and checks its answer against the schema both sides share. */
export async function api<S extends z.ZodType>(path: string, schema: S, init: RequestInit = {}): Promise<z.output<S>> {
  let response: Response
  try {
    response = await fetch(path, { ...init, headers: { 'content-type': 'application/json', ...init.headers } })
  } catch {
    throw new ApiFailure('No connection to Corvit on this network', 'offline', [])
  }
  if (!response.ok) {
    const body = await response.json().catch(() => ({})) as { message?: string, data?: unknown }
    const parsed = ErrorBody.safeParse(body.data)
    throw new ApiFailure(body.message ?? `The server answered ${response.status}`, parsed.success ? parsed.data.code : 'server', parsed.success ? parsed.data.problems : [])
  }
  return schema.parse(await response.json())
}
export const postJson = (body: unknown): RequestInit => ({ method: 'POST', body: JSON.stringify(body) })
