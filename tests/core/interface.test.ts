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
