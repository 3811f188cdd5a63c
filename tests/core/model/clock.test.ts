import fc from 'fast-check'
import { CLOCK_SHAPE, clockAfter, clockOfInstant, HybridClock, readClock, writeClock } from '#core'

const AT = Date.UTC(2026, 2, 4, 10, 15)

describe('the hybrid clock', () => {
  it('writes time, counter and device so that text order is event order', () => {
    expect(writeClock({ ms: AT, count: 3, device: 'tablet' })).toBe(
      '2026-03-04T10:15:00.000Z~000003~tablet',
    )
    expect(readClock('2026-03-04T10:15:00.000Z~000003~tablet')).toEqual({
      ms: AT,
      count: 3,
      device: 'tablet',
    })
    expect(readClock('2026-03-04 10:15')).toBeUndefined()
  })
  it('goes on counting where the device clock stands still or goes back', () => {
    const clock = new HybridClock('a')
    const given = [AT, AT, AT - 5000, AT + 1].map(ms => clock.next(ms))
    expect(given.map(c => c.slice(11, 31))).toEqual([
      '10:15:00.000Z~000000',
      '10:15:00.000Z~000001',
      '10:15:00.000Z~000002',
      '10:15:00.001Z~000000',
    ])
  })
  it('stamps later than whatever it has seen, a day ahead or not', () => {
    const ahead = new HybridClock('ahead').next(AT + 86_400_000)
    const clock = new HybridClock('b')
    clock.see(ahead)
    expect(clock.next(AT) > ahead).toBe(true)
    expect(new HybridClock('c', ahead).next(AT) > ahead).toBe(true)
  })
  it('grows with any mixture of times and clocks seen', () => {
    const step = fc.oneof(
      fc.record({ now: fc.integer({ min: 0, max: 4e12 }) }),
      fc.record({
        ms: fc.integer({ min: 0, max: 4e12 }),
        count: fc.integer({ min: 0, max: 999_999 }),
      }),
    )
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), steps => {
        const clock = new HybridClock('a')
        let last = ''
        for (const s of steps) {
          if ('now' in s) {
            const next = clock.next(s.now)
            expect(next > last).toBe(true)
            expect(next).toMatch(CLOCK_SHAPE)
            last = next
          } else {
            const seen = writeClock({ ...s, device: 'z' })
            clock.see(seen)
            if (seen > last) last = seen.slice(0, 31)
          }
        }
      }),
      { seed: 7, numRuns: 300 },
    )
  })
  it('reads an instant with any offset, and carries over a full counter', () => {
    expect(clockOfInstant('2026-03-04T15:15:00+05:00')).toBe('2026-03-04T10:15:00.000Z~000000~none')
    expect(clockAfter('2026-03-04T10:15:00.000Z~999999~a')).toBe(
      '2026-03-04T10:15:00.001Z~000000~a',
    )
    expect(() => clockAfter('now')).toThrow('not a clock')
  })
})
