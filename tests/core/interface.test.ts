import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const views = readdirSync('app', { recursive: true })
  .map(f => join('app', String(f)))
  .filter(f => f.endsWith('.vue'))
const RAW = /<(button|input|select|textarea|table)\b/

describe('the interface', () => {
  it('has ten raw form elements at most, each with its reason in a comment above', () => {
    const found: string[] = []
    const bare: string[] = []
    for (const file of views) {
      const lines = readFileSync(file, 'utf8').split('\n')
      lines.forEach((line, i) => {
        if (!RAW.test(line)) return
        found.push(`${file}:${i + 1}`)
        const above = lines.slice(Math.max(0, i - 8), i).join('\n')
        if (!above.includes('<!--')) bare.push(`${file}:${i + 1}`)
      })
    }
    expect(views.length).toBeGreaterThan(40)
    expect(found.length).toBeGreaterThan(0)
    expect(found.length).toBeLessThanOrEqual(10)
    expect(bare).toEqual([])
  })
})

describe('the palette', () => {
  const css = readFileSync('app/assets/main.css', 'utf8')
  const SURFACES = ['paper', 'sheet', 'tint', 'touch-tint', 'cool-tint']
  const INKS = ['ink', 'soft', 'faint', 'touch', 'cool', 'now', 'repair', 'upgrade', 'record']
  const LEAST = 4.5

  const colorsOf = (selector: string): Map<string, string> => {
    const block = css.split(`\n${selector} {`)[1]?.split('\n}')[0] ?? ''
    return new Map([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map(m => [m[1]!, m[2]!]))
  }
  // Relative luminance and contrast as WCAG 2 defines them.
  const luminance = (color: string): number => {
    const [r, g, b] = [1, 3, 5]
      .map(i => parseInt(color.slice(i, i + 2), 16) / 255)
      .map(v => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
  }
  const contrast = (a: string, b: string): number => {
    const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y)
    return (high! + 0.05) / (low! + 0.05)
  }

  it.each([':root', '.dark'])('%s: every text color can be read on every surface', selector => {
    const colors = colorsOf(selector)
    const tooFaint = SURFACES.flatMap(s => INKS.map(ink => [ink, s] as const))
      .map(([ink, s]) => ({ ink, s, ratio: contrast(colors.get(ink)!, colors.get(s)!) }))
      .filter(({ ratio }) => !(ratio >= LEAST))
    expect(tooFaint).toEqual([])
  })
})
