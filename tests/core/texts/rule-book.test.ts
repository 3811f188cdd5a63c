import { findRules, ruleBook, RULES } from '#core'

const book = ruleBook()
const ids = (query: Parameters<typeof findRules>[1]) => findRules(book, query).map(p => p.id)

describe('the rule book', () => {
  it('has a page for every rule, with what a reader needs', () => {
    expect(book.map(p => p.id)).toEqual(RULES.map(r => r.id))
    for (const p of book) {
      expect(p.sections.length).toBeGreaterThan(0)
      expect(p.remedies.length).toBeGreaterThan(0)
      // A remedy is named in words, never by its id.
      expect(p.remedies.filter(r => /^[a-z-]+$/.test(r) && r.includes('-'))).toEqual([])
    }
  })
  it('puts the rules first whose title has the words', () => {
    expect(ids({ words: 'surge' })[0]).toBe('surge-protector')
    expect(ids({ words: 'surge' }).length).toBeGreaterThan(1)
  })
  it('is found by section, by thing and by a word of a trap, and by all words together', () => {
    expect(ids({ words: '240.4' })).toContain('overfused-conductor')
    expect(ids({ words: 'copper-clad' })).toContain('aluminum-at-unmarked-device')
    expect(ids({ words: 'copper-clad 250.122' })).not.toContain('aluminum-at-unmarked-device')
    expect(ids({ kind: 'bar' }).every(id => book.find(p => p.id === id)?.kind === 'bar')).toBe(true)
    expect(ids({ words: '  ' })).toEqual(book.map(p => p.id))
    expect(ids({ words: 'no such words anywhere' })).toEqual([])
  })
  it('an edition leaves out what came later, and keeps what is dangerous whatever the year', () => {
    expect(ids({ edition: 2017 })).not.toContain('surge-protector')
    expect(ids({ edition: 2020 })).toContain('surge-protector')
    expect(ids({ edition: 2008 })).toContain('bootleg-ground')
  })
  it('names the editions of a section that was renumbered', () => {
    const page = book.find(p => p.id === 'surge-protector')
    expect(page?.sections).toEqual(['230.67 (from 2020)', '242.13 (from 2020)', '285 (until 2019)'])
  })
})
