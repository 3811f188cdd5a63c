import type { z } from 'zod'
import { ErrorBody } from '#shared/api'
import type { Problem } from '#core'

/** An error the API answered with, or none at all (`offline`). */
export class ApiFailure extends Error {
  constructor(
    message: string,
    readonly code: string,
    readonly problems: readonly Problem[],
    readonly retryAfterMs = 0,
  ) {
    super(message)
    this.name = 'ApiFailure'
  }
}

const device = { name: '' }
/** Names this device in the audit trail of the server. */
export const nameDevice = (name: string): void => {
  device.name = name
}

/** Asks the API and checks its answer against the schema both sides share. */
export async function api<S extends z.ZodType>(
  path: string,
  schema: S,
  init: RequestInit = {},
): Promise<z.output<S>> {
  const response = await ask(path, init)
  return schema.parse(await response.json())
}
/** The same where nothing comes back. */
export async function apiDone(path: string, init: RequestInit): Promise<void> {
  await ask(path, init)
}

async function ask(path: string, init: RequestInit): Promise<Response> {
  let response: Response
  const own = {
    'content-type': 'application/json',
    ...(device.name && { 'x-corvit-device': device.name }),
  }
  try {
    response = await fetch(path, { ...init, headers: { ...own, ...init.headers } })
  } catch {
    throw new ApiFailure('No connection to Corvit on this network', 'offline', [])
  }
  if (response.ok) return response
  const body = (await response.json().catch(() => ({}))) as { message?: string; data?: unknown }
  const parsed = ErrorBody.safeParse(body.data)
  const { code, problems } = parsed.success ? parsed.data : { code: 'server', problems: [] }
  const retryAfterMs = Number(response.headers.get('retry-after') ?? 0) * 1000
  throw new ApiFailure(
    body.message ?? `The server answered ${response.status}`,
    code,
    problems,
    retryAfterMs,
  )
}
export const postJson = (body: unknown): RequestInit => ({
  method: 'POST',
  body: JSON.stringify(body),
})
