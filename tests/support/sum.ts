// In a test every global is looked up in a context of its own, which costs more than the sum of a letter.
const { imul } = Math

/** FNV-1a over all lines: the same text, the same sum, on every machine. */
export function sumOf(lines: readonly string[]): string {
  let sum = 0x811c9dc5
  for (const line of lines) {
    for (let i = 0; i < line.length; i++) sum = imul(sum ^ line.charCodeAt(i), 0x01000193)
    sum = imul(sum ^ 10, 0x01000193)
  }
  return (sum >>> 0).toString(16).padStart(8, '0')
}
