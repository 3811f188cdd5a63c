import sharp from 'sharp'
import { PhotoMarks, type PhotoMark } from '../../shared/api'

/** Wide enough for print at half the width of a page. */
const WIDTH = 1000
const INK = '#d8352a'

const escaped = (text: string) => text.replace(/[&<>"]/g, c => `&#${c.charCodeAt(0)};`)

/** Marks as they are drawn on screen: arrows, circles, words, in shares of the picture. */
function marksSvg(marks: readonly PhotoMark[], w: number, h: number): string {
  const line = Math.max(3, w / 180)
  const shape = (m: PhotoMark): string => {
    const [x, y] = [m.x * w, m.y * h]
    const stroke = `fill="none" stroke="${INK}" stroke-width="${line}"`
    if (m.kind === 'circle') return `<circle cx="${x}" cy="${y}" r="${m.r * w}" ${stroke}/>`
    if (m.kind === 'text')
      return (
        `<text x="${x}" y="${y}" font-family="sans-serif" font-size="${w / 26}" font-weight="bold" ` +
        `fill="${INK}" stroke="#fff" stroke-width="${line}" paint-order="stroke">${escaped(m.text)}</text>`
      )
    const [x2, y2] = [m.x2 * w, m.y2 * h]
    const angle = Math.atan2(y2 - y, x2 - x)
    const wing = (by: number) =>
      `L${x2 - Math.cos(angle + by) * line * 5} ${y2 - Math.sin(angle + by) * line * 5}`
    const head = `M${x2} ${y2} ${wing(0.5)} M${x2} ${y2} ${wing(-0.5)}`
    return `<path d="M${x} ${y} L${x2} ${y2} ${head}" ${stroke} stroke-linecap="round"/>`
  }
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}">` +
    `${marks.map(shape).join('')}</svg>`
  )
}

/** A photograph for print, its marks drawn in. Marks that cannot be read are left away; the picture stays. */
export async function markedPicture(bytes: Uint8Array, marks: string): Promise<Uint8Array> {
  const { data, info } = await sharp(bytes)
    .resize({ width: WIDTH, height: WIDTH, fit: 'inside', withoutEnlargement: true })
    .toBuffer({ resolveWithObject: true })
  const parsed = PhotoMarks.safeParse(readMarks(marks))
  const drawn = parsed.success ? parsed.data : []
  const picture = sharp(data)
  if (drawn.length > 0)
    picture.composite([{ input: Buffer.from(marksSvg(drawn, info.width, info.height)) }])
  return picture.jpeg({ quality: 78 }).toBuffer()
}
function readMarks(marks: string): unknown {
  try {
    return JSON.parse(marks || '[]')
  } catch {
    return undefined
  }
}
