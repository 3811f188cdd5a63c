/** Ink of a printed drawing: it has to read in black and white. */
export const INK = '#1d2733'
export const SOFT = '#55606c'
export const PAPER = '#ffffff'
export const TINT = '#eceae4'

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
}
export const escaped = (text: string): string => text.replace(/[&<>"]/g, c => ESCAPES[c] ?? c)
export const cut = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text

/** Attributes of an element; what is undefined is left away. */
type Attributes = Readonly<Record<string, string | number | undefined>>
const attributesOf = (attributes: Attributes): string =>
  Object.entries(attributes)
    .flatMap(([name, value]) => (value === undefined ? [] : ` ${name}="${escaped(String(value))}"`))
    .join('')

export const element = (name: string, attributes: Attributes): string =>
  `<${name}${attributesOf(attributes)}/>`

export const words = (
  text: string,
  x: number,
  y: number,
  {
    size = 12,
    isBold = false,
    anchor = 'start',
    fill = INK,
  }: { size?: number; isBold?: boolean; anchor?: string; fill?: string } = {},
): string => {
  const attributes = attributesOf({
    x,
    y,
    'font-size': size,
    'font-weight': isBold ? 'bold' : undefined,
    'text-anchor': anchor,
    fill,
  })
  return `<text${attributes}>${escaped(text)}</text>`
}
export const drawing = (width: number, height: number, parts: readonly string[]): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" ` +
  `viewBox="0 0 ${width} ${height}">${parts.join('')}</svg>`
