import type { Outside } from './scope'
import type { Presumption } from './presumed'

/** What a visit did not cover, said once for each class, with how much hangs on it. */
export interface Limitation {
  readonly class: string
  readonly text: string
  /** Things at which it bears. */
  readonly things: number
  /** Judgments that stay undecided for it. */
  readonly judgments: number
  /** What is not judged there, in the words of the checks, the most frequent first. */
  readonly topics: readonly string[]
}

const AT: Readonly<Record<string, readonly [text: string, thing: string]>> = {
  'cover off': ['Covers of panels were not taken off', 'part'],
  'device pulled': ['Devices were not pulled out of their boxes', 'outlet'],
  'box opened': ['Boxes were not opened, and nothing was worked on with the power off', 'part'],
  'attic or crawl space': ['Attic and crawl space were not entered', 'part'],
  record: ['No permits, invoices or makers’ papers were asked for', 'part'],
  'loaded test': ['No circuit was loaded to measure it', 'part'],
  'utility side': ['What the utility has sealed was not opened', 'part'],
  sample: ['Outlets beside the sample were not looked at', 'outlet'],
  area: ['Only a part of the property was looked at', 'thing'],
}

/** The class of a limitation, for putting those of one class together. */
export function classOf(outside: Outside | Presumption | { readonly by: 'not seen' }): string {
  if ('id' in outside) return `presumed: ${outside.id}`
  switch (outside.by) {
    case 'access':
      return outside.access
    case 'instrument':
      return `no ${outside.instrument}`
    default:
      return outside.by
  }
}

const withArticle = (thing: string) => `${/^[aeiou]/.test(thing) ? 'an' : 'a'} ${thing}`
const plural = (count: number, thing: string) => `${count} ${thing}${count === 1 ? '' : 's'}`

/** One sentence for a class: what was not done, at how many things, and what is not judged for it. */
export function limitationText(
  name: string,
  presumption: Presumption | undefined,
  things: number,
  topics: readonly string[],
): string {
  const named = topics.slice(0, 4).join(', ')
  const more = topics.length > 4 ? ` and ${topics.length - 4} more checks` : ''
  if (presumption) return presumption.says
  const [text, thing] = AT[name] ?? [
    name === 'not seen' ? 'Some things could not be seen' : `Without ${withArticle(name.slice(3))}`,
    'part',
  ]
  return `${text}, at ${plural(things, thing)}; not judged there: ${named}${more}`
}
