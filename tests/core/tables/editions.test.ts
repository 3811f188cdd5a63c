import { citeIn, sectionIn } from '#core'

describe('sections by edition (second reading, C5)', () => {
  it.each([
    ['406.4(D)', 2008, '406.3(D)'],
    ['406.9(B)(1)', 2008, '406.8(B)(1)'],
    ['406.12', 2008, '406.11'],
    ['406.12', 2011, '406.12'],
    ['406.4(D)(3)', 2023, '406.4(D)(3)'],
    ['250.24(D)', 2020, '250.24(D)'],
    ['250.24(D)', 2023, '250.24(E)'],
    ['250.24(A)(4)', 2023, '250.24(A)(4)'],
    ['406.40', 2008, '406.40'],
  ])('%s in %i is %s', (section, edition, is) => expect(sectionIn(section, edition)).toBe(is))
  it('what a rule cites by years of its own is left alone', () => {
    expect(citeIn([{ section: '406.9', until: 2010 }, { section: '406.9' }], 2008)).toEqual([
      '406.9',
      '406.8',
    ])
  })
})
