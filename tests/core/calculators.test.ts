import { CALCULATORS, calculatorById } from '#core'

const run = (id: string, input: unknown) =>
  calculatorById(id)!.run(calculatorById(id)!.input.parse(input)) as Record<string, unknown>
describe('the sums on their own', () => {
  it.each(CALCULATORS.map(s => [s.id, s] as const))(
    '%s: its example runs, and unknown or missing input is refused',
    (_id, sum) => {
      expect(JSON.stringify(sum.run(sum.input.parse(sum.example))).length).toBeGreaterThan(10)
      expect(sum.input.safeParse({ ...(sum.example as object), surprise: 1 }).success).toBe(false)
      expect(sum.input.safeParse('').success).toBe(false)
    },
  )
  it.each<[object, [number, number], string?]>([
    [{ size: '14', metal: 'copper', wiring: 'NM-B' }, [15, 15]],
    [{ size: '6', metal: 'copper', wiring: 'NM-B', feedsSeveralReceptacles: false }, [60, 60]],
    [
      { size: '8', metal: 'copper-clad aluminum', wiring: 'NM-B', feedsSeveralReceptacles: false },
      [35, 35],
    ],
    [
      {
        size: '12',
        metal: 'copper',
        wiring: 'raceway',
        insulationC: 90,
        terminalsC: 60,
        currentCarrying: 9,
        feedsSeveralReceptacles: true,
      },
      [20, 20],
    ],
    [
      {
        size: '6',
        metal: 'aluminum',
        wiring: 'SE',
        insulationC: 75,
        feedsSeveralReceptacles: false,
        breakerAmps: 50,
      },
      [40, 50],
      'undecided',
    ],
    [{ size: '12', breakerAmps: 30 }, [15, 20], 'fault'],
    [{ size: '10', metal: 'copper', wiring: 'NM-B', breakerAmps: 30 }, [30, 30], 'clear'],
  ])('ampacity %j', (input, allowed, ...[breaker]) => {
    const out = run('ampacity', input)
    expect(out.allowed).toEqual(allowed)
    if (breaker) expect(out.breaker).toBe(breaker)
    if (allowed[0] !== allowed[1]) expect((out.lookAt as string[]).length).toBeGreaterThan(0)
  })
  it('box fill of the worked lines', () => {
    expect(
      run('boxfill', {
        box: 'device 3 x 2 x 2',
        conductors: [{ size: '14', count: 4 }],
        hasInternalClamps: true,
        devices: [{ largest: '14' }],
      }),
    ).toMatchObject({ total: 14, fits: false })
    expect(
      run('boxfill', {
        box: 'device 3 x 2 x 3-1/2',
        conductors: [{ size: '10', count: 4 }],
        hasInternalClamps: true,
        devices: [{ largest: '10' }],
        grounds: { size: '10', count: 2 },
      }),
    ).toMatchObject({ total: 20, fits: false })
  })
  it('voltage drop and bolted fault of the worked line', () =>
    expect(
      run('voltage-drop', { size: '12', metal: 'copper', lengthFt: 100, amps: 15 }),
    ).toMatchObject({ ohms: 0.386, faultAmps: 311 }))
  it('the trip time and the working space', () => {
    expect(run('gfci-time', { milliamperes: 20, measuredSeconds: 1.2 })).toMatchObject({
      longestSeconds: 1,
      verdict: 'too slow',
    })
    expect(
      run('working-space', { depthIn: 36, widthIn: 34, heightIn: 80, equipmentWidthIn: 36 })
        .verdict,
    ).toBe('fault')
  })
})
