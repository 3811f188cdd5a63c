import { readFileSync } from 'node:fs'
import { diagnosisDoc } from '../../../scripts/generate-docs'
import { diagnose, doubtsOf, jointOf, originsOf, refereeDevice, STATES, type OutletState, type Readings, type Setting } from '#core'
import { accuracyOf } from '#core/simulate/accuracy'
import { seeded, simulateOutlet } from '#core/simulate/outlets'

const low: Setting = { meter: 'low', runFt: 70, testAmps: 13 }
describe('diagnosis of an outlet', () => {
  it.each<[OutletState, Readings, Setting?]>([
    ['good', { hotNeutral: 120, hotGround: 120, neutralGround: 0.4, neutralGroundLoaded: 2.1, dropPercent: 3.2, groundOhms: 0.4, groundEarth: 0, groundClampAmps: 0, detectorOnGround: false }],
    ['ground missing', { hotNeutral: 120, hotGround: 2, neutralGround: 1, lamps: 'open ground', groundOhms: 100000 }],
    ['bootleg', { hotNeutral: 120, hotGround: 120, neutralGround: 0, neutralGroundLoaded: 0, dropPercent: 3.6, groundEarth: 0.2, detectorOnGround: false }],
    ['reversed bootleg', { hotNeutral: 120, hotGround: 120, neutralGround: 0, lamps: 'correct', groundEarth: 119 }],
    ['reversed polarity', { hotNeutral: 120, hotGround: 0.2, neutralGround: 120, lamps: 'reversed' }],
    ['open neutral', { hotNeutral: 0, hotGround: 120, neutralGround: 119, groundEarth: 0 }],
    ['hot and ground swapped', { hotNeutral: 0, hotGround: 120, neutralGround: 120, groundEarth: 120 }],
    ['open hot', { hotNeutral: 0, hotGround: 0, neutralGround: 0, lamps: 'open hot' }],
    ['neutral and ground swapped', { hotNeutral: 120, hotGround: 120, neutralGroundLoaded: 2, groundClampAmps: 12.8, groundEarth: 0.2 }],
    ['lost shared neutral', { hotNeutral: 138, otherHalf: 102, hotGround: 120 }],
    ['high-resistance joint', { hotNeutral: 120, hotGround: 120, dropPercent: 14, neutralGroundLoaded: 2, groundEarth: 0, groundClampAmps: 0, lamps: 'correct' }],
  ])('%s', (state, readings, setting = low) => {
    const d = diagnose(readings, setting)
    expect(d.states[0]!.state).toBe(state)
    expect(d.fitting).toContain(state)
    expect(d.ruledOut).not.toContain(state)
  })
  it.each<[string, Readings, OutletState[], Setting?]>([
    ['a lamp tester that says correct', { lamps: 'correct' }, ['good', 'bootleg', 'reversed bootleg']],
    ['hot and ground reversed on the lamps', { lamps: 'hot and ground reversed' }, ['open neutral', 'hot and ground swapped']],
    ['the voltages of an open neutral with a load on', { hotNeutral: 0, hotGround: 120, neutralGround: 119 }, ['open neutral', 'hot and ground swapped']],
    ['no voltage under load near the panel', { hotNeutral: 120, hotGround: 120, neutralGround: 0, neutralGroundLoaded: 0.1, groundEarth: 0, detectorOnGround: false }, ['good', 'bootleg'], { meter: 'low', runFt: 8, testAmps: 13 }],
    ['nothing at all', {}, [...STATES]],
  ])('%s leaves more than one, and one more reading is named', (_name, readings, fitting, setting = low) => {
    const d = diagnose(readings, setting)
    expect(d.answer).toBeUndefined()
    expect(d.fitting).toEqual(expect.arrayContaining(fitting))
    expect(d.next).toBeDefined()
    expect(readings).not.toHaveProperty(d.next!.reading)
  })
  it('names the reading that rules a state out', () => {
    const d = diagnose({ hotNeutral: 0, hotGround: 120, neutralGround: 120, groundEarth: 0 }, low)
    expect(d.states.find(s => s.state === 'hot and ground swapped')!.ruledOutBy).toContain('groundEarth')
  })
  it('following the next reading leads to the one true state', () => {
    const random = seeded(11)
    let steps = 0
    for (let i = 0; i < 120; i++) {
      const o = simulateOutlet(random)
      let taken: Readings = { lamps: o.readings.lamps }
      for (let k = 0; k < 12; k++) {
        const d = diagnose(taken, o.setting)
        if (d.answer) {
          expect(d.answer).toBe(o.state)
          break
        }
        if (!d.next || o.readings[d.next.reading] === undefined) break
        taken = { ...taken, [d.next.reading]: o.readings[d.next.reading] }
        steps++
      }
    }
    expect(steps / 120).toBeLessThan(8)
  })
  it('gives faults put into 10 000 outlets back', () => {
    const a = accuracyOf(10_000, 2026)
    console.log(`diagnosis of ${a.outlets} outlets: first ${(100 * a.whole.first).toFixed(2)} % with every reading, ${(100 * a.some.first).toFixed(1)} % with some, true state not ruled out ${(100 * Math.min(a.whole.notRuledOut, a.some.notRuledOut, a.quick.notRuledOut)).toFixed(2)} %, wrong single answers ${a.whole.wrongSingle + a.some.wrongSingle + a.quick.wrongSingle}`)
    expect(a.whole.first).toBeGreaterThanOrEqual(0.98)
    for (const r of [a.whole, a.some, a.quick]) {
      expect(r.notRuledOut).toBeGreaterThanOrEqual(0.999)
      expect(r.wrongSingle).toBe(0)
    }
    expect(a.whole.single).toBeGreaterThan(0.8)
    expect(readFileSync('docs/DIAGNOSIS.md', 'utf8')).toBe(diagnosisDoc())
  }, 120_000)
})

describe('the referee', () => {
  it.each<[string, Readings, Setting, string]>([
    ['a lamp tester on its own', { lamps: 'correct' }, low, 'jumper'], ['60 V on a high-impedance meter', { hotGround: 60 }, { meter: 'high' }, 'floating'], ['near line voltage on a high-impedance meter', { hotGround: 118 }, { meter: 'high' }, 'Coupled'], ['neutral to ground without a load', { neutralGround: 0 }, low, 'without a load'], ['0 V under load near the panel', { neutralGroundLoaded: 0 }, { runFt: 10 }, 'Near the panel'], ['open ground', { lamps: 'open ground' }, low, 'loose'],
  ])('%s proves nothing, and what would is said', (_name, readings, setting, why) => {
    const doubts = doubtsOf(readings, setting)
    expect(doubts.map(d => d.why).join()).toContain(why)
    for (const d of doubts) expect(d.instead.length).toBeGreaterThan(5)
  })
  it('nothing is doubted that proves something', () => expect(doubtsOf({ hotNeutral: 120, hotGround: 120, groundOhms: 0.3 }, low)).toEqual([]))
  it.each([
    [{ what: 'GFCI', by: 'plug-in tester', trips: false }, false], [{ what: 'GFCI', by: 'plug-in tester', trips: false, isGroundProved: true }, true], [{ what: 'GFCI', by: 'own button', trips: true }, false], [{ what: 'GFCI', by: 'own button', trips: true, isOutletDead: true }, true], [{ what: 'GFCI', by: 'own button', trips: false }, true], [{ what: 'AFCI', by: 'plug-in tester', trips: true }, false], [{ what: 'GFCI', by: 'indicator light', trips: true }, false],
  ] as const)('%j', (test, proves) => expect(refereeDevice(test).proves).toBe(proves))
})

describe('along a chain', () => {
  const chain = (...list: [string, string, string?, number?][]) => list.map(([id, after, state, dropPercent]) => ({ id, after, ...state && { state }, ...dropPercent !== undefined && { dropPercent } }))
  it('a state that holds for all after lies in the joint before the first', () => {
    const [origin] = originsOf(chain(['a', 'panel', 'good'], ['b', 'a', 'open neutral'], ['c', 'b', 'open neutral'], ['d', 'a', 'good']), 'good')
    expect(origin).toMatchObject({ first: 'b', before: 'a', affects: ['c'] })
    expect(origin!.text).toContain('between a and b')
  })
  it('a state at one outlet alone lies in its box', () => expect(originsOf(chain(['a', 'panel', 'good'], ['b', 'a', 'reversed polarity'], ['c', 'b', 'good']), 'good')[0]!.text).toContain('alone'))
  it('the drop jumps at the joint', () => {
    expect(jointOf(chain(['a', 'panel', '', 1.2], ['b', 'a', '', 2.1], ['c', 'b', '', 9.8], ['d', 'c', '', 10.4]))).toEqual({ between: ['b', 'c'], jump: 7.7 })
    expect(jointOf(chain(['a', 'panel', '', 1.2], ['b', 'a', '', 2.1]))).toBeUndefined()
  })
})
