import { randomBytes } from 'node:crypto'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import type { PERMIT_STATES } from '../../shared/files'

export type PermitState = (typeof PERMIT_STATES)[number]
export interface Application {
  readonly property: string
  readonly street: string
  readonly applicant: string
  /** The permit note, as text. */
  readonly note: string
  readonly works: number
}
/** What a permit office is asked, and answers. One that is reached over a network would have the same. */
export interface PermitOffice {
  submit(application: Application): Promise<{ readonly reference: string }>
  status(reference: string): Promise<PermitState | undefined>
  /** What was decided: a permit number, or what is missing; nothing before it is decided. */
  result(reference: string): Promise<string | undefined>
}

const Case = z.object({
  property: z.string(),
  street: z.string(),
  applicant: z.string(),
  note: z.string(),
  works: z.number(),
  receivedAt: z.string(),
})
const Cases = z.record(z.string(), Case)
type Cases = z.infer<typeof Cases>

/** Seconds until the clerk looks at it, and until it is decided. */
const REVIEW_S = 2
const DECIDED_S = Number(process.env.CORVIT_PERMIT_SECONDS ?? 6)

/** A small office that ships with the application: it keeps its own file, takes its time, and sends back what lacks. */
export class LocalPermitOffice implements PermitOffice {
  #tail: Promise<unknown> = Promise.resolve()
  readonly #file: string

  constructor(
    folder: string,
    readonly now: () => number = Date.now,
  ) {
    this.#file = join(folder, 'permit-office.json')
  }

  async #read(): Promise<Cases> {
    const text = await readFile(this.#file, 'utf8').catch(() => '{}')
    return Cases.parse(JSON.parse(text))
  }

  submit(application: Application): Promise<{ reference: string }> {
    const turn = this.#tail.then(async () => {
      const cases = await this.#read()
      const reference = `E-${randomBytes(4).toString('hex').toUpperCase()}`
      cases[reference] = { ...application, receivedAt: new Date(this.now()).toISOString() }
      await mkdir(join(this.#file, '..'), { recursive: true })
      await writeFile(`${this.#file}.part`, JSON.stringify(cases, null, 1), { flush: true })
      await rename(`${this.#file}.part`, this.#file)
      return { reference }
    })
    this.#tail = turn.catch(() => undefined)
    return turn
  }

  async status(reference: string): Promise<PermitState | undefined> {
    const found = (await this.#read())[reference]
    if (!found) return undefined
    const seconds = (this.now() - Date.parse(found.receivedAt)) / 1000
    if (seconds < REVIEW_S) return 'received'
    if (seconds < DECIDED_S) return 'in review'
    return lacks(found).length > 0 ? 'returned' : 'issued'
  }

  async result(reference: string): Promise<string | undefined> {
    const state = await this.status(reference)
    const found = (await this.#read())[reference]
    if (state === 'issued') return `Permit ${reference.replace('E-', 'P-')}`
    return state === 'returned' && found ? `Missing: ${lacks(found).join(', ')}` : undefined
  }
}
/** What an application cannot be decided without. */
const lacks = ({ property, street, applicant, works }: z.infer<typeof Case>): readonly string[] => [
  ...(property.trim() ? [] : ['the property']),
  ...(street.trim() ? [] : ['the street']),
  ...(applicant.trim() ? [] : ['who applies']),
  ...(works > 0 ? [] : ['works that need a permit']),
]

let office: PermitOffice | undefined
/** The office that this server sends to. */
export const permitOffice = (): PermitOffice => (office ??= new LocalPermitOffice(dataFolder()))
