import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Block, Label, Paper } from '../../core'
import { printable } from './printable'

const INK = '#1d2733'
const SOFT = '#55606c'
const LINE = '#b9b2a4'
/** Labels across a letter page, and down it: the grid of a common sheet of thirty. */
const ACROSS = 3

/** The type a paper is set in: the bytes of two font files. */
export interface Fonts {
  readonly regular: Uint8Array
  readonly bold: Uint8Array
}
let known: readonly string[] = []
/** The type lies in two files of our own: drawings can only take it from there. */
function know({ regular, bold }: Fonts): void {
  if (known.length > 0) return
  const folder = mkdtempSync(join(tmpdir(), 'corvit-type-'))
  const [normal, strong] = [join(folder, 'regular.ttf'), join(folder, 'bold.ttf')]
  writeFileSync(normal, regular)
  writeFileSync(strong, bold)
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }))
  known = [normal, strong]
  pdfmake.addFonts({ Corvit: { normal, bold: strong, italics: normal, bolditalics: strong } })
}
// A paper is made of what the record holds: nothing in it may make the server fetch or read anything.
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy(path => known.includes(path))

/** What stands at the head of the first page, and who sends it; of the reader's own. */
export interface Letterhead {
  /** Name, address, license: a line each. */
  readonly lines: readonly string[]
  /** Picture of a signature, as a data address; set at the end of a signed report. */
  readonly signature?: string
}
export interface Dress {
  /** JPEG bytes of a photograph, with its marks; undefined where the file is not here. */
  readonly pictureOf?: (picture: Picture) => Promise<Uint8Array | undefined>
  readonly letterhead?: Letterhead
}
type Picture = Block & { kind: 'picture' }

/** A paper as PDF, US letter, with the property at the head of each page and "page x of y" at its foot. */
export async function renderPdf(
  paper: Paper,
  fonts: Fonts,
  { pictureOf, letterhead }: Dress = {},
): Promise<Uint8Array> {
  know(fonts)
  const images = new Map<Picture, string>()
  for (const b of paper.blocks)
    if (b.kind === 'picture') {
      const bytes = await pictureOf?.(b)
      if (bytes) images.set(b, `data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}`)
    }
  const signature = letterhead?.signature
  const isSigned = paper.blocks.some(b => b.kind === 'heading' && b.text === 'Signed')
  const content: Content[] = [
    ...(letterhead?.lines.length
      ? [
          {
            stack: letterhead.lines.map((line, i) => ({ text: printable(line), bold: i === 0 })),
            style: 'soft',
            fontSize: 9.5,
            margin: [0, 0, 0, 10],
          } as Content,
        ]
      : []),
    { text: printable(paper.title), style: 'title' },
    { text: printable(paper.subtitle), style: 'soft', margin: [0, 0, 0, 12] },
    ...contentsOf(paper.blocks, images),
    ...(signature && isSigned ? [{ image: signature, fit: [180, 60] } as Content] : []),
  ]
  const definition: TDocumentDefinitions = {
    pageSize: 'LETTER',
    pageMargins: [54, 56, 54, 48],
    info: { title: printable(`${paper.title}: ${paper.subtitle}`), creator: 'Corvit' },
    defaultStyle: { font: 'Corvit', fontSize: 10.5, lineHeight: 1.15, color: INK },
    styles: {
      title: { fontSize: 22, bold: true },
      h1: { fontSize: 14, bold: true, margin: [0, 9, 0, 3] },
      h2: { fontSize: 11.5, bold: true, margin: [0, 8, 0, 2] },
      soft: { color: SOFT },
      strong: { bold: true },
      head: { bold: true, color: SOFT, fontSize: 9 },
    },
    header: page =>
      page === 1
        ? null
        : { text: printable(paper.running), style: 'soft', fontSize: 8.5, margin: [54, 28, 54, 0] },
    footer: (page, pages) => ({
      columns: [
        { text: 'Corvit. Local code and licensed practice decide.', style: 'soft', fontSize: 8.5 },
        { text: `page ${page} of ${pages}`, alignment: 'right', style: 'soft', fontSize: 8.5 },
      ],
      margin: [54, 12, 54, 0],
    }),
    content,
  }
  return new Uint8Array(await pdfmake.createPdf(definition).getBuffer())
}

/** A line that names what comes: it never stands alone at the foot of a page. */
const isHead = (b: Block | undefined): boolean =>
  b?.kind === 'heading' || (b?.kind === 'text' && b.tone === 'strong')
/** Rows of a list or table that go with their heading; the rest may run on to the next page. */
const WITH_HEAD = 3
/** Fewer than these are not left to stand alone on the next page. */
const FEW = 3
/** A table of more rows says its columns again on each page; a short one runs on without. */
const SHORT_TABLE = 14

/** Headings with the first of what they head in one piece; pictures that follow each other side by side. */
function contentsOf(
  blocks: readonly Block[],
  images: ReadonlyMap<Picture, string>,
): readonly Content[] {
  const contents: Content[] = []
  let i = 0
  while (i < blocks.length) {
    const heads: Content[] = []
    while (isHead(blocks[i])) heads.push(contentOf(blocks[i++] as Exclude<Block, Picture>))
    const block = blocks[i]
    if (heads.length > 0) {
      const [first, rest] = block ? split(block) : [undefined, undefined]
      if (first) i++
      const stack = [...heads]
      if (first)
        stack.push({
          ...(contentOf(first) as object),
          ...(rest && { margin: 0 }),
        } as unknown as Content)
      // Who should look at a finding goes with what it is.
      const after = blocks[i]
      if (first?.kind === 'text' && after?.kind === 'text' && after.tone === 'soft') {
        stack.push(contentOf(after))
        i++
        // And so does what it looks like.
        const [row, taken] = pictureRow(blocks, i, images)
        if (row) stack.push(row)
        i += taken
      }
      contents.push({ stack, unbreakable: true } as Content)
      if (rest) contents.push(contentOf(rest))
      continue
    }
    const [row, taken] = pictureRow(blocks, i, images)
    contents.push(row ?? contentOf(block as Plain))
    i += Math.max(1, taken)
  }
  return contents
}
type Plain = Exclude<Block, Picture>
/** The picture at a place of a paper, with the next one beside it; and how many those are. */
function pictureRow(
  blocks: readonly Block[],
  at: number,
  images: ReadonlyMap<Picture, string>,
): readonly [Content | undefined, number] {
  const [block, next] = [blocks[at], blocks[at + 1]]
  if (block?.kind !== 'picture') return [undefined, 0]
  const pair: readonly Picture[] = next?.kind === 'picture' ? [block, next] : [block]
  return [
    {
      columns: pair.map(p => pictureContent(p, images.get(p))),
      columnGap: 14,
      margin: [0, 2, 0, 8],
    } as Content,
    pair.length,
  ]
}
/** What of a block stays with the heading above it, and what may go on without it. */
function split(block: Block): readonly [Plain | undefined, Plain | undefined] {
  if (block.kind === 'text') return [block, undefined]
  if (block.kind === 'table') {
    const { rows } = block
    if (rows.length > SHORT_TABLE) return [undefined, undefined]
    if (rows.length < WITH_HEAD + FEW) return [block, undefined]
    return [
      { ...block, rows: rows.slice(0, WITH_HEAD) },
      { ...block, head: [], rows: rows.slice(WITH_HEAD) },
    ]
  }
  if (block.kind !== 'list' && block.kind !== 'checks') return [undefined, undefined]
  const { items } = block
  if (items.length < WITH_HEAD + FEW) return [block, undefined]
  return [
    { ...block, items: items.slice(0, WITH_HEAD) },
    { ...block, items: items.slice(WITH_HEAD) },
  ]
}
const PICTURE_W = 244
function pictureContent({ caption }: Picture, image: string | undefined): Content {
  const text = { text: printable(caption), style: 'soft', fontSize: 8.5 }
  return {
    width: PICTURE_W,
    stack: image
      ? [{ image, fit: [PICTURE_W, 200] }, text]
      : [{ text: 'Photograph, not in this file', style: 'soft' }, text],
    unbreakable: true,
  } as Content
}

/** Width between the margins, in points; a drawing is never taller than a page can hold. */
const TEXT_W = 504
const TEXT_H = 610
function drawingContent({ svg, caption, share }: Block & { kind: 'drawing' }): Content {
  const [, w = '1', h = '1'] = /width="([\d.]+)" height="([\d.]+)"/.exec(svg) ?? []
  const scale = Math.min((TEXT_W * share) / Number(w), TEXT_H / Number(h))
  return {
    stack: [
      { text: printable(caption), style: 'strong', margin: [0, 8, 0, 3] },
      {
        svg: printable(svg).replace('<svg ', '<svg font-family="Corvit" '),
        width: Number(w) * scale,
        height: Number(h) * scale,
      },
    ],
    unbreakable: true,
    margin: [0, 0, 0, 8],
  } as Content
}

function contentOf(block: Exclude<Block, { kind: 'picture' }>): Content {
  switch (block.kind) {
    case 'heading':
      return {
        text: printable(block.text),
        style: block.level === 1 ? 'h1' : 'h2',
        outline: block.level === 1,
      } as Content
    case 'text':
      return {
        text: printable(block.text),
        ...(block.tone && { style: block.tone }),
        margin: [0, 0, 0, 4],
      }
    case 'list':
      return { ul: block.items.map(printable), margin: [0, 0, 0, 6] }
    case 'checks':
      return {
        stack: block.items.map(item => ({
          // A box stands with its words.
          unbreakable: true,
          stack: [
            {
              columns: [
                { width: 16, canvas: [{ type: 'rect', x: 0, y: 2, w: 9, h: 9, lineColor: INK }] },
                { text: printable(item) },
              ],
            },
          ],
          margin: [0, 1, 0, 2],
        })),
        margin: [0, 0, 0, 6],
      } as Content
    case 'table':
      return tableOf(block)
    case 'labels':
      return labelsOf(block.items)
    case 'drawing':
      return drawingContent(block)
    case 'break':
      return { text: '', pageBreak: 'after' }
  }
}

function tableOf({ head, rows, widths, figures = [] }: Block & { kind: 'table' }): Content {
  const total = widths.reduce((a, b) => a + b, 0)
  const cell = (text: string, column: number, style?: string): TableCell => ({
    text: printable(text),
    ...(style && { style }),
    ...(figures.includes(column) && { alignment: 'right' }),
  })
  return {
    table: {
      headerRows: head.length > 0 ? 1 : 0,
      dontBreakRows: true,
      widths: widths.map(w => `${(100 * w) / total}%`),
      body: [
        ...(head.length > 0 ? [head.map((t, i) => cell(t, i, 'head'))] : []),
        ...rows.map(r => r.map((t, i) => cell(t, i))),
      ],
    },
    layout: {
      hLineWidth: (i: number) => (i === 0 ? 0 : 0.5),
      vLineWidth: () => 0,
      hLineColor: () => LINE,
      paddingTop: () => 3,
      paddingBottom: () => 3,
    },
    margin: [0, 2, 0, 8],
  }
}

function labelsOf(labels: readonly Label[]): Content {
  const cells: TableCell[] = labels.map(l => ({
    stack: [
      { text: printable(l.text), bold: true, fontSize: 12, alignment: 'center' },
      { text: printable(l.where), fontSize: 7.5, alignment: 'center', color: SOFT },
    ],
    margin: [2, 8, 2, 8],
  }))
  while (cells.length % ACROSS !== 0) cells.push({ text: '' })
  const body: TableCell[][] = []
  for (let i = 0; i < cells.length; i += ACROSS) body.push(cells.slice(i, i + ACROSS))
  return {
    table: { widths: Array.from({ length: ACROSS }, () => '*'), dontBreakRows: true, body },
    layout: {
      hLineWidth: () => 0.5,
      vLineWidth: () => 0.5,
      hLineColor: () => LINE,
      vLineColor: () => LINE,
    },
  }
}
