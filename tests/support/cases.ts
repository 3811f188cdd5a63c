import { readdirSync, readFileSync } from 'node:fs'
import { Ledger, type House } from '#core'
import { observe, type Node } from './house'

interface Case {
  readonly name: string
  readonly house: Node
}
/** Every house of the case sets that can be read by itself, with the name of its case. */
export const CASE_HOUSES: readonly { readonly name: string; readonly house: House }[] = readdirSync(
  'tests/cases',
)
  .filter(f => f.endsWith('.json'))
  .flatMap(f => {
    const read = JSON.parse(readFileSync(`tests/cases/${f}`, 'utf8')) as { cases?: Case[] } | Case[]
    return Array.isArray(read) ? read : (read.cases ?? [])
  })
  .flatMap(({ name, house }) => {
    try {
      return [{ name, house: new Ledger(observe(house)).house }]
    } catch {
      return []
    }
  })
