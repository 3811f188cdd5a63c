import { spawnSync } from 'node:child_process'
import { inflateSync } from 'node:zlib'

/** The text of a PDF, page by page, read by a program that did not write it. */
export function pagesOf(pdf: Uint8Array): readonly string[] {
  const { stdout, stderr, status } = spawnSync(process.execPath, ['tests/support/pdf-text.mjs'], {
    input: Buffer.from(pdf),
    maxBuffer: 64 * 1024 * 1024,
  })
  if (status !== 0) throw new Error(`That is no PDF: ${String(stderr)}`)
  return (JSON.parse(String(stdout)) as { pages: string[] }).pages
}

/** Squares to tick on each page: rectangles nine points wide and high, in the drawing of the page itself. */
export function boxesOf(pdf: Uint8Array): readonly number[] {
  const file = Buffer.from(pdf).toString('latin1')
  return [...file.matchAll(/stream\n([\s\S]*?)\nendstream/g)].flatMap(([, packed = '']) => {
    let drawn: string
    try {
      drawn = inflateSync(Buffer.from(packed, 'latin1')).toString('latin1')
    } catch {
      return []
    }
    return /\bBT\b/.test(drawn) ? [drawn.match(/\b9 9 re\b/g)?.length ?? 0] : []
  })
}
