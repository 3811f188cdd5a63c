import sharp from 'sharp'
import { DEMO_HOUSES } from '#core/examples/index'
import { Ledger, reportPaper, type Paper, type ReportVoice } from '#core'
import { markedPicture } from '../../server/pdf/pictures'
import { printable } from '../../server/pdf/printable'
import { renderPdf } from '../../server/pdf/render'
import { readType } from '../../server/pdf/type'
import { observe, type Node } from '../support/house'
import { boxesOf, pagesOf } from '../support/pdf'

const FONTS = readType()
const house = new Ledger(observe(DEMO_HOUSES[0]?.file() as unknown as Node)).house
const squeezed = (text: string) => printable(text).replace(/\s+/g, '')

/** Pages, as text without blanks, without what stands in the margins. */
async function pagesOfPaper(paper: Paper): Promise<readonly string[]> {
  const running = squeezed(paper.running)
  return pagesOf(await renderPdf(paper, FONTS)).map(page =>
    squeezed(page)
      .replace(/Corvit\.Localcodeandlicensedpracticedecide\.page\d+of\d+/, '')
      .replace(running, ''),
  )
}

describe('papers as PDF', () => {
  it.each(['inspector', 'electrician'] as const)(
    '%s: no heading stands alone at the foot of a page',
    async (voice: ReportVoice) => {
      const paper = reportPaper(house, voice)
      const heads = paper.blocks.flatMap(b =>
        b.kind === 'heading' || (b.kind === 'text' && b.tone === 'strong') ? squeezed(b.text) : [],
      )
      expect(heads.length).toBeGreaterThan(50)
      const pages = await pagesOfPaper(paper)
      const alone = pages.slice(0, -1).filter(page => heads.some(h => page.endsWith(h)))
      expect(alone).toEqual([])
    },
    60_000,
  )
  it('a box to tick stands with all of its words, and a photograph with what it shows', async () => {
    const words = 'many words that fill more than a line, '.repeat(5)
    const items = Array.from({ length: 90 }, (_, n) => `begin${n} ${words.slice(0, 40 * (n % 7))}.`)
    const finding = (n: number): Paper['blocks'] => [
      { kind: 'text', tone: 'strong', text: `Finding ${n}` },
      { kind: 'text', text: words.slice(0, 60 * (n % 4)) || 'few' },
      { kind: 'text', tone: 'soft', text: 'Repair.' },
      { kind: 'picture', hash: 'x', caption: `shown ${n}.`, marks: '' },
    ]
    const paper: Paper = {
      id: 'x',
      title: 'Paper',
      subtitle: '',
      running: 'Paper',
      blocks: [
        { kind: 'heading', level: 1, text: 'To tick' },
        { kind: 'checks', items },
        ...Array.from({ length: 60 }, (_, n) => finding(n)).flat(),
      ],
    }
    const photograph = await sharp({
      create: { width: 320, height: 240, channels: 3, background: 'gray' },
    })
      .jpeg()
      .toBuffer()
    const pdf = await renderPdf(paper, FONTS, { pictureOf: () => Promise.resolve(photograph) })
    const pages = pagesOf(pdf).map(squeezed)
    expect(pages.length).toBeGreaterThan(8)
    const begun = pages.map(page => page.match(/begin\d+/g)?.length ?? 0)
    expect(boxesOf(pdf)).toEqual(begun)
    for (let n = 0; n < 60; n++) {
      const on = pages.filter(page => page.includes(`shown${n}.`))
      expect([n, on.length, on[0]?.includes(`Finding${n}`)]).toEqual([n, 1, true])
    }
  }, 60_000)
  it('a table that runs on says its rows once each, in order', async () => {
    const rows = Array.from({ length: 9 }, (_, n) => [`row${n}.`, 'answer'])
    const paper: Paper = {
      id: 'x',
      title: 'Paper',
      subtitle: '',
      running: 'Paper',
      blocks: [
        { kind: 'heading', level: 1, text: 'Questions' },
        { kind: 'table', head: ['Question', 'Answer'], rows, widths: [1, 1] },
      ],
    }
    const text = (await pagesOfPaper(paper)).join('')
    expect(text.match(/row\d\./g)).toEqual(rows.map(r => r[0]))
    expect(text.split('Question').length).toBe(3)
  }, 60_000)
  it('a letterhead stands at the head, and a photograph that is not here is told', async () => {
    const paper: Paper = {
      id: 'x',
      title: 'Paper',
      subtitle: '',
      running: '',
      blocks: [{ kind: 'picture', hash: 'a'.repeat(64), caption: 'The panel', marks: '' }],
    }
    const head = { letterhead: { lines: ['Ambersley Wiring', 'License 1'] } }
    const [page = ''] = pagesOf(await renderPdf(paper, FONTS, head))
    expect(page).toContain('Ambersley Wiring')
    expect(page).toContain('Photograph, not in this file')
    expect(page).toContain('The panel')
  })
})

describe('photographs for print', () => {
  const plain = () =>
    sharp({ create: { width: 400, height: 300, channels: 3, background: '#ffffff' } })
      .jpeg()
      .toBuffer()
  const isRedAt = async (bytes: Uint8Array, x: number, y: number) => {
    const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true })
    const at = (Math.round(y * info.height) * info.width + Math.round(x * info.width)) * 3
    return (data[at] ?? 0) - (data[at + 1] ?? 0) > 60
  }
  it('carry their marks where they were drawn', async () => {
    const marks = JSON.stringify([{ kind: 'circle', x: 0.5, y: 0.5, r: 0.25 }])
    const marked = await markedPicture(await plain(), marks)
    expect(await isRedAt(marked, 0.75, 0.5)).toBe(true)
    expect(await isRedAt(marked, 0.5, 0.5)).toBe(false)
  })
  it('stay as they are where the marks cannot be read', async () => {
    for (const marks of ['', 'nonsense', '[{"kind":"bomb"}]'])
      expect(await isRedAt(await markedPicture(await plain(), marks), 0.75, 0.5)).toBe(false)
  })
  it('words in a mark are words, whatever they hold', async () => {
    const marks = JSON.stringify([{ kind: 'text', x: 0.2, y: 0.5, text: '<script>&"' }])
    expect((await markedPicture(await plain(), marks)).length).toBeGreaterThan(500)
  })
})
