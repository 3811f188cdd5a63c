import pino from 'pino'

/** One line of JSON an event, on standard output. Never a body, a password, a token or a value somebody recorded. */
export const log = pino({
  level: process.env.CORVIT_LOG ?? 'info',
  base: undefined,
  timestamp: pino.stdTimeFunctions.isoTime,
})
