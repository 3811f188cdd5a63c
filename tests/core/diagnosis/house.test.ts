import { commonCausesOf, originsOf, type ChainOutlet } from '#core'
import { rank } from '#core/diagnosis/outlet'
import { HOUSE_FAULTS, houseTrial } from '#core/simulate/house-trial'

/** More by hand: `npm run simulate -- diagnosis` tries 600. */
const HOUSES = Number(process.env.CORVIT_HOUSES ?? 18)

/** The first outlet of a circuit, as it was read. */
const first = (
  circuit: string,
  readings: NonNullable<ChainOutlet['readings']>,
  state = 'high-resistance joint',
): ChainOutlet => ({
  id: `${circuit}-1`,
  after: 'panel',
  circuit,
  state,
  fitting: [state],
  readings,
})
const named = (outlets: readonly ChainOutlet[]) =>
  commonCausesOf(outlets).map(c => `${c.state}: ${c.circuits.join(' ')}`)

describe('whole houses', () => {
  it(`${HOUSES} of them: nothing true is ruled out, no single answer is wrong, causes and origins are found`, () => {
    const trial = houseTrial(HOUSES, 5)
    expect(trial.amiss).toEqual([])
    expect(HOUSES).toBeGreaterThanOrEqual(2 * HOUSE_FAULTS.length)
    expect(trial.outlets).toBeGreaterThan(HOUSES)
    expect(trial.single).toBeGreaterThan(3 * HOUSES)
    expect(trial.causes.named).toBe(trial.causes.put)
    expect(trial.causes.put).toBeGreaterThan(2)
    expect(trial.origins.named).toBe(trial.origins.put)
    expect(trial.origins.put).toBeGreaterThan(HOUSES / 3)
  })
})

describe('what circuits show together', () => {
  const dropping = (volts: number) => ({ hotNeutral: volts, dropPercent: 20 })
  const sound = { hotNeutral: 121, dropPercent: 3 }
  it('all drop, some stand high and some low: the neutral of the service', () =>
    expect(
      named([first('a', dropping(115)), first('b', dropping(129)), first('c', dropping(116))]),
    ).toEqual(['open service neutral: a b c']))
  it('all drop and stand alike: something they share, and no neutral is blamed', () =>
    expect(named([first('a', dropping(120)), first('b', dropping(121))])).toEqual([
      'high-resistance joint: a b',
    ]))
  it('two drop beside a sound one, and add to twice what it stands at: the neutral of a pair', () =>
    expect(
      named([first('a', dropping(108)), first('b', dropping(134)), first('c', sound, 'good')]),
    ).toEqual(['lost shared neutral: a b']))
  it('all drop and none is lifted: joints with loads on, and no neutral is blamed', () =>
    expect(named([first('a', dropping(104)), first('b', dropping(119))])).toEqual([
      'high-resistance joint: a b',
    ]))
  it('what is proven at one outlet stays, though another was read while the halves were in balance', () => {
    const outlets: ChainOutlet[] = [
      {
        id: 'p',
        after: 'panel',
        circuit: 'c',
        state: 'open service neutral',
        fitting: ['open service neutral'],
      },
      { id: 'q', after: 'p', circuit: 'c', state: 'good', fitting: ['good'] },
    ]
    expect(named(outlets)).toEqual(['open service neutral: c'])
  })
  it('two circuits that die for themselves are told beside a pair', () =>
    expect(
      named([
        first('a', { hotNeutral: 0, neutralGround: 119 }, 'open neutral'),
        first('b', { hotNeutral: 238, neutralGround: 118 }, '240 V across the slots'),
        first('c', { hotNeutral: 0 }, 'open neutral'),
        first('d', { hotNeutral: 0 }, 'open neutral'),
      ]),
    ).toEqual(['lost shared neutral: a b', 'open neutral: c d']))
  it('two drop that are no pair are two joints, or share one', () =>
    expect(
      named([first('a', dropping(100)), first('b', dropping(112)), first('c', sound, 'good')]),
    ).toEqual(['high-resistance joint: a b']))
  it('a dead half beside one at 238 V, both neutrals at the voltage of a hot: they share it', () =>
    expect(
      named([
        first('a', { hotNeutral: 0, neutralGround: 119 }, 'open neutral'),
        first('b', { hotNeutral: 238, neutralGround: 118 }, '240 V across the slots'),
      ]),
    ).toEqual(['lost shared neutral: a b']))
  it('a dead half beside a sound one is one open neutral', () =>
    expect(
      named([
        first('a', { hotNeutral: 0, neutralGround: 119 }, 'open neutral'),
        first('b', sound, 'good'),
      ]),
    ).toEqual([]))
  it('what one outlet of a circuit rules out does not lead at the next', () => {
    const outlets: ChainOutlet[] = [
      { id: 'p', after: 'panel', circuit: 'c', state: 'good', fitting: ['good'] },
      {
        id: 'q',
        after: 'p',
        circuit: 'c',
        state: 'lost shared neutral',
        fitting: ['lost shared neutral', 'high-resistance joint'],
      },
    ]
    expect(originsOf(outlets)).toMatchObject([
      { state: 'high-resistance joint', first: 'q', before: 'p' },
    ])
    expect(commonCausesOf(outlets)).toEqual([])
  })
})

it('a joint in the hot with loads on is not taken for a lost neutral of the service', () => {
  const said = rank(
    {
      hotNeutral: 103.6,
      hotGround: 106.8,
      neutralGround: 0.88,
      narrowEarth: 104.5,
      groundEarth: 0.2,
      dropPercent: 25.75,
      lamps: 'correct',
      groundOhms: 0.17,
      neutralGroundLoaded: 2.57,
    },
    { meter: 'low', loadsOn: true, runFt: 72, testAmps: 13 },
  )
  expect(said.answer).not.toBe('open service neutral')
  expect(said.fitting).toContain('high-resistance joint')
  expect(said.ruledOut).not.toContain('high-resistance joint')
})
