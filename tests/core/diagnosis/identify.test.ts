import fc from 'fast-check'
import { identify, type Evidence } from '#core'

describe('identification of a conductor', () => {
  it.each<[string, Evidence, string]>([
    ['copper through', { surface: 'copper color', core: 'copper color' }, 'copper'],
    [
      'silver outside, copper inside, of the rubber years',
      {
        surface: 'silver color',
        core: 'copper color',
        insulation: 'rubber or cloth',
        year: 1948,
      },
      'tinned copper',
    ],
    [
      'silver throughout',
      { surface: 'silver color', core: 'silver color', year: 1968 },
      'aluminum',
    ],
    [
      'copper outside, silver inside',
      { surface: 'copper color', core: 'silver color', year: 1972 },
      'copper-clad aluminum',
    ],
    [
      'silver core and its print',
      { core: 'silver color', surface: 'silver color', legend: 'AL', isSoft: true },
      'aluminum',
    ],
  ])('%s is settled', (_name, evidence, metal) => {
    const found = identify(evidence)
    expect(found.metal).toBe(metal)
    expect(found.metals[0]!.metal).toBe(metal)
    expect(found.conflicts).toEqual([])
  })
  it.each<[string, Evidence]>([
    ['nothing', {}],
    ['the surface alone', { surface: 'copper color', year: 2005 }],
    ['a silver surface of 1968', { surface: 'silver color', year: 1968 }],
    ['the year alone', { year: 1970 }],
    ['the core alone', { core: 'silver color' }],
    ['softness alone', { isSoft: true, year: 1968 }],
  ])('%s decides nothing, and the core is asked for or its surface', (_name, evidence) => {
    const found = identify(evidence)
    expect(found.metal).toBeUndefined()
    expect(['core', 'surface']).toContain(found.next?.evidence)
  })
  it('evidence that contradicts itself decides nothing and says so', () => {
    const found = identify({ surface: 'copper color', core: 'silver color', legend: 'CU' })
    expect(found.metal).toBeUndefined()
    expect(found.conflicts.join()).toContain('but not')
  })
  it('what speaks against each candidate is named', () => {
    const copper = identify({ surface: 'silver color', core: 'silver color' }).metals.find(
      m => m.metal === 'copper',
    )
    expect(copper?.against).toEqual(
      expect.arrayContaining(['core of silver color', 'surface of silver color']),
    )
  })
  it('sizes come from bare diameter, and a reading half way is neither', () => {
    expect(identify({ bareMm: 2.05 }).size).toBe('12')
    expect(identify({ bareMm: 1.84 })).toMatchObject({
      size: undefined,
      sizes: expect.arrayContaining(['14', '12']),
    })
    expect(identify({ bareMm: 2.05, size: '14' }).conflicts.join()).toContain('slide gauge says 14')
  })
  it('never names one metal where a look that decides was not made', () => {
    fc.assert(
      fc.property(
        fc.record({
          surface: fc.option(fc.constantFrom('copper color' as const, 'silver color' as const), {
            nil: undefined,
          }),
          legend: fc.option(fc.constantFrom('CU' as const, 'AL' as const, 'CU-CLAD' as const), {
            nil: undefined,
          }),
          isSoft: fc.option(fc.boolean(), { nil: undefined }),
          insulation: fc.option(fc.constantFrom('rubber or cloth' as const, 'plastic' as const), {
            nil: undefined,
          }),
          year: fc.option(fc.integer({ min: 1900, max: 2026 }), { nil: undefined }),
        }),
        evidence => {
          const found = identify(evidence as Evidence)
          expect(found.metal).toBeUndefined()
          expect(found.next).toBeDefined()
          expect(found.metals.reduce((sum, m) => sum + m.share, 0)).toBeCloseTo(1, 1)
        },
      ),
      { numRuns: 300 },
    )
  })
})
