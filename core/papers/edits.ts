import type { SpokenResult } from '../assess/assess'
import { isKind, valueOf, type House } from '../model/house'

/** What a person changed about one finding in the report. The judgment itself stays as it was made. */
export interface Edit {
  readonly words?: string
  readonly order?: number
  /** Left out of the findings: it is kept, and disclosed with this reason. */
  readonly leftOut?: string
}
/** A finding as the report tells it. */
export interface Told extends SpokenResult {
  /** The person's own wording, in place of the composed one. */
  readonly own?: string
  readonly order?: number
}
export interface LeftOut {
  readonly finding: SpokenResult
  readonly reason: string
}

/** The edit on record of one finding: its id, where there is one. */
export const editOf = (house: House, rule: string, of: string): string | undefined =>
  [...house.subjects.values()].findLast(
    s => isKind(s, 'edit') && valueOf(s, 'rule') === rule && valueOf(s, 'of') === of,
  )?.id
const keyOf = (rule: string, subject: string) => `${rule} ${subject}`

/** The edits on record, by `rule thing`. What is left out without a reason is not left out. */
export function editsOf(house: House): ReadonlyMap<string, Edit> {
  const edits = new Map<string, Edit>()
  for (const s of house.subjects.values()) {
    if (!isKind(s, 'edit')) continue
    const rule = valueOf(s, 'rule')
    const of = valueOf(s, 'of')
    if (rule === undefined || of === undefined) continue
    const words = valueOf(s, 'words')?.trim()
    const order = valueOf(s, 'order')
    const reason = valueOf(s, 'reason')?.trim()
    edits.set(keyOf(rule, of), {
      ...(words && { words }),
      ...(order !== undefined && { order }),
      ...(valueOf(s, 'isLeftOut') === true && reason && { leftOut: reason }),
    })
  }
  return edits
}

/**
 * The findings as they are told: worded, in the order wished, without those left out. What is to be made safe now is
 * never left out, whatever the record says.
 */
export function tellFindings(
  house: House,
  findings: readonly SpokenResult[],
): { readonly told: readonly Told[]; readonly leftOut: readonly LeftOut[] } {
  const edits = editsOf(house)
  if (edits.size === 0) return { told: findings, leftOut: [] }
  const told: Told[] = []
  const leftOut: LeftOut[] = []
  for (const f of findings) {
    const edit = edits.get(keyOf(f.rule, f.subject.id))
    // Weighed down by hand it is as urgent as it was computed.
    const isUrgent = [f.severity, f.byHand?.computed].includes('make safe now')
    if (edit?.leftOut !== undefined && !isUrgent) leftOut.push({ finding: f, reason: edit.leftOut })
    else if (edit === undefined) told.push(f)
    else
      told.push({
        ...f,
        // The wording stands where the sentence stood, so that only what reads alike is told as one.
        ...(edit.words && { own: edit.words, why: edit.words }),
        ...(edit.order !== undefined && { order: edit.order }),
      })
  }
  const last = Number.MAX_SAFE_INTEGER
  return { told: told.sort((a, b) => (a.order ?? last) - (b.order ?? last)), leftOut }
}
