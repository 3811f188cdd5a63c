import type { ErrorCode } from '../../shared/api'
import type { Problem } from '../../core'

const STATUS: Record<ErrorCode, number> = { 'invalid-input': 422, 'no-job': 404, 'too-large': 413, 'conflict': 409, 'not-demo': 403, 'unreadable-file': 422, 'storage-full': 507, 'not-a-photo': 415, 'no-photo': 404 }

/** A typed error: the code says what kind, the problems say what and where. */
export function refuse(code: ErrorCode, message: string, problems: readonly Problem[] = []) {
  return createError({ statusCode: STATUS[code], statusMessage: code, message, data: { code, problems } })
}
