import type { H3Event } from 'h3'

/** Headers of a download; nothing a browser could take for a page. */
export function sendAs(event: H3Event, type: string, name: string): void {
  setHeader(event, 'content-type', type)
  setHeader(event, 'content-disposition', `attachment; filename="${name}"`)
  setHeader(event, 'x-content-type-options', 'nosniff')
}

/** A job name as a file name: letters, digits and dashes only. */
export const fileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'job'
