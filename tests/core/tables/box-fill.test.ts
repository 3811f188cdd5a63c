import { BOX_VOLUME, boxFill } from '#core/tables/box-fill'

describe('box fill', () => {
  it('3×2×2 box, two 14-2 without ground, clamps, one receptacle: 14.0 > 10.0', () => {
    const fill = boxFill(
      {
        conductors: [{ size: '14', count: 4 }],
        hasInternalClamps: true,
        devices: [{ largest: '14' }],
      },
      BOX_VOLUME['device 3 x 2 x 2'],
      2020,
    )
    expect(fill).toMatchObject({ total: 14, volume: 10, fits: false })
    expect(fill.lines.map(l => l.volume)).toEqual([8, 2, 4])
  })
  const twelve = {
    conductors: [{ size: '12', count: 4 }],
    hasInternalClamps: true,
    devices: [{ largest: '12' }],
    grounds: { size: '12', count: 2 },
  } as const
  it('3×2×3½ box, two 12-2 with ground: 18.0, exactly full', () => {
    expect(boxFill(twelve, BOX_VOLUME['device 3 x 2 x 3-1/2'], 2020)).toMatchObject({
      total: 18,
      fits: true,
    })
  })
  it('the same with 10 CCA: 20.0 > 18.0', () => {
    const ten = {
      conductors: [{ size: '10', count: 4 }],
      hasInternalClamps: true,
      devices: [{ largest: '10' }],
      grounds: { size: '10', count: 2 },
    } as const
    expect(boxFill(ten, 18, 2020)).toMatchObject({ total: 20, fits: false })
  })
  it('counts grounds beyond four from 2020 only', () => {
    const box = { conductors: [], grounds: { size: '14', count: 6 } } as const
    expect(boxFill(box, 18, 2017).total).toBe(2)
    expect(boxFill(box, 18, 2020).total).toBe(3)
  })
  it('counts a looped pass-through twice and a plain one once, and a wide device by its gangs', () => {
    expect(
      boxFill(
        {
          conductors: [],
          through: [
            { size: '12', count: 2, looped: true },
            { size: '12', count: 1 },
          ],
        },
        18,
        2020,
      ).total,
    ).toBe(11.25)
    expect(
      boxFill(
        { conductors: [], devices: [{ largest: '10', gangs: 2 }], supportFittings: 1 },
        18,
        2020,
      ).total,
    ).toBe(10)
  })
  it('B10: a size of which there is none is not the largest', () => {
    const box = {
      conductors: [
        { size: '14', count: 4 },
        { size: '6', count: 0 },
      ],
      through: [{ size: '8', count: 0 }],
      hasInternalClamps: true,
    } as const
    expect(boxFill(box, 18, 2020).total).toBe(10)
  })
})
