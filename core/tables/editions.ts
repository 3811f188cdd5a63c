/** Code editions Corvit knows, oldest first. An edition is named by its year. */
export const EDITIONS = [2008, 2011, 2014, 2017, 2020, 2023] as const
export type Edition = (typeof EDITIONS)[number]

/** The edition whose text Corvit uses for a year in force; years before 2008 use the 2008 text. */
export function editionFor(year: number): Edition {
  let found: Edition = EDITIONS[0]
  for (const edition of EDITIONS) if (edition <= year) found = edition
  return found
}

/** A section number, and the editions in which the rule stands under that number. */
export interface Citation {
  section: string
  from?: number
  until?: number
}

/** A part of the code that stood under another number in some editions. */
interface Renumbering {
  readonly section: string
  readonly from?: number
  readonly until?: number
  readonly is: string
}

/**
 * Sections that moved as they are, by today's usual number. In 2011 article 406 got definitions at its head and every
 * section after them moved up by one; in 2023 the electrode conductor of a service moved down by one.
 */
export const RENUMBERED: readonly Renumbering[] = [
  ...Array.from({ length: 10 }, (_, i) => ({
    section: `406.${i + 3}`,
    until: 2010,
    is: `406.${i + 2}`,
  })),
  { section: '250.24(D)', from: 2023, is: '250.24(E)' },
]

const covers = (c: { from?: number; until?: number }, edition: number): boolean =>
  (c.from ?? -Infinity) <= edition && edition <= (c.until ?? Infinity)

/**
 * A section by the number it has in an edition.
 * @example sectionIn('406.4(D)(3)', 2008) // '406.3(D)(3)'
 */
export function sectionIn(section: string, edition: number): string {
  for (const moved of RENUMBERED) {
    const rest = section.slice(moved.section.length)
    const isPart = section.startsWith(moved.section) && (rest === '' || rest.startsWith('('))
    if (isPart && covers(moved, edition)) return moved.is + rest
  }
  return section
}

/** Section numbers as the given edition numbers them. */
export function citeIn(citations: readonly Citation[], edition: number): string[] {
  return citations
    .filter(c => covers(c, edition))
    .map(c =>
      c.from === undefined && c.until === undefined ? sectionIn(c.section, edition) : c.section,
    )
}

/** The ampacity table was 310.16 in 2008, 310.15(B)(16) from 2011 to 2017, and 310.16 again from 2020. */
export const AMPACITY_TABLE: readonly Citation[] = [
  { section: '310.16', until: 2010 },
  { section: '310.15(B)(16)', from: 2011, until: 2019 },
  { section: '310.16', from: 2020 },
]
