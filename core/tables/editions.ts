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

/** Section numbers as the given edition numbers them. */
export function citeIn(citations: readonly Citation[], edition: number): string[] {
  return citations
    .filter(c => (c.from ?? 0) <= edition && edition <= (c.until ?? 9999))
    .map(c => c.section)
}

/** The ampacity table was 310.16 in 2008, 310.15(B)(16) from 2011 to 2017, and 310.16 again from 2020. */
export const AMPACITY_TABLE: readonly Citation[] = [
  { section: '310.16', until: 2010 },
  { section: '310.15(B)(16)', from: 2011, until: 2019 },
  { section: '310.16', from: 2020 },
]
