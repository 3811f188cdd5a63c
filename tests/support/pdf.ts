import { spawnSync } from 'node:child_process'

/** The text of a PDF, page by page, read by a program that did not write it. */
export function pagesOf(pdf: Uint8Array): readonly string[] {
  const { stdout, stderr, status } = spawnSync(process.execPath, ['tests/support/pdf-text.mjs'], {
    input: Buffer.from(pdf),
    maxBuffer: 64 * 1024 * 1024,
  })
  if (status !== 0) throw new Error(`That is no PDF: ${String(stderr)}`)
  return (JSON.parse(String(stdout)) as { pages: string[] }).pages
}
