import type { ErrorCode } from '../../shared/api'
import type { Problem } from '../../core'

const STATUS: Record<ErrorCode, number> = {
  'invalid-input': 422,
  'unreadable-file': 422,
  'no-job': 404,
  'no-photo': 404,
  'no-route': 404,
  gone: 410,
  'wrong-method': 405,
  'too-large': 413,
  conflict: 409,
  'not-a-photo': 415,
  'wrong-type': 415,
  'wrong-host': 421,
  'wrong-origin': 403,
  forbidden: 403,
  'not-demo': 403,
  'sign-in': 401,
  'wrong-code': 403,
  'wrong-password': 403,
  'too-often': 429,
  'took-too-long': 503,
  'storage-full': 507,
  server: 500,
}

/** A typed error: the code says what kind, the problems say what and where. */
export function refuse(code: ErrorCode, message: string, problems: readonly Problem[] = []) {
  return createError({
    statusCode: STATUS[code],
    statusMessage: code,
    message,
    data: { code, problems },
  })
}

/** A file that cannot be read: every problem in a sentence, and as data. */
export const unreadableFile = (problems: readonly Problem[]) =>
  refuse(
    'unreadable-file',
    problems.map(p => `${p.path}: expected ${p.expected}, found ${p.found}`).join('; '),
    problems,
  )

const FULL_CODES = new Set(['SQLITE_FULL', 'ENOSPC', 'EDQUOT', 'SQLITE_IOERR_WRITE'])
/** The disk or the room given to Corvit is used up. */
export const isFull = (error: unknown): boolean =>
  FULL_CODES.has((error as { code?: string } | null)?.code ?? '')
export const diskFull = () =>
  refuse(
    'storage-full',
    'The disk is full. Nothing of this was stored; what was stored before is safe',
  )
