/** A document as plain data: the same is put on screen, into a PDF, or out as text. */
export type Block =
  | {
      readonly kind: 'heading'
      readonly level: 1 | 2
      readonly text: string
      readonly finding?: FindingMark
    }
  | {
      readonly kind: 'text'
      readonly text: string
      readonly tone?: 'soft' | 'strong'
      readonly finding?: FindingMark
    }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  /** Lines with a box to tick. */
  | { readonly kind: 'checks'; readonly items: readonly string[] }
  | {
      readonly kind: 'table'
      readonly head: readonly string[]
      readonly rows: readonly (readonly string[])[]
      /** Shares of the width; the columns of figures are set to the right. */
      readonly widths: readonly number[]
      readonly figures?: readonly number[]
    }
  /** Cut along the lines: a sheet of labels. */
  | { readonly kind: 'labels'; readonly items: readonly Label[] }
  /** A photograph by the hash of its file, with the marks drawn on it. */
  | {
      readonly kind: 'picture'
      readonly hash: string
      readonly caption: string
      /** JSON of the marks, in shares of width and height; empty where there are none. */
      readonly marks: string
    }
  /** A drawing of our own, as SVG. */
  | {
      readonly kind: 'drawing'
      readonly svg: string
      readonly caption: string
      /** Share of the width of the page. */
      readonly share: number
    }
  | { readonly kind: 'break' }
/** Which finding a line tells, so that a person can change how it is told. */
export interface FindingMark {
  readonly rule: string
  readonly subjects: readonly string[]
}
export interface Label {
  readonly text: string
  /** Where it goes, in small letters under it. */
  readonly where: string
}
export interface Paper {
  readonly id: string
  readonly title: string
  readonly subtitle: string
  /** At the head of every page. */
  readonly running: string
  readonly blocks: readonly Block[]
}

/** Words as a sentence of a paper: a capital at its head, one full stop at its end. */
export const asSentence = (words: string): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1).replace(/[.\s]+$/, '')}.`
/** A title within a sentence: abbreviations keep their capitals. */
export const withinSentence = (title: string): string =>
  /^[A-Z][A-Z]/.test(title) ? title : title.charAt(0).toLowerCase() + title.slice(1)

/** The paper as plain text, for a terminal or a mail. */
export function paperText(paper: Paper): string {
  const lines = [paper.title, paper.subtitle, '']
  for (const b of paper.blocks) {
    if (b.kind === 'heading')
      lines.push('', b.text, (b.level === 1 ? '=' : '-').repeat(b.text.length))
    else if (b.kind === 'text') lines.push(b.text)
    else if (b.kind === 'list') lines.push(...b.items.map(i => `- ${i}`))
    else if (b.kind === 'checks') lines.push(...b.items.map(i => `[ ] ${i}`))
    else if (b.kind === 'picture') lines.push(`[photograph: ${b.caption}]`)
    else if (b.kind === 'drawing') lines.push(`[drawing: ${b.caption}]`)
    else if (b.kind === 'labels') lines.push(...b.items.map(l => `${l.text}  (${l.where})`))
    else if (b.kind === 'table') lines.push(b.head.join(' | '), ...b.rows.map(r => r.join(' | ')))
  }
  return `${lines
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim()}\n`
}
