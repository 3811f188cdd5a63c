import { planRounds, readRounds, settle, reconcile, type Seen } from '#core'
import { hillside } from '#core/examples/hillside'
import { seeded } from '#core/simulate/random'
import { panel, siteOf, type Node } from '../../support/house'

const ids = (n: number) => Array.from({ length: n }, (_, i) => ({ id: `b${i + 1}` }))
describe('tracing', () => {
  it.each(Array.from({ length: 42 }, (_, i) => i + 1))(
    '%i breakers: no more than log₂ n and two trips, every outlet found, with one wrong look anywhere',
    n => {
      const random = seeded(n)
      const breakers = ids(n).map((b, i) => ({
        ...b,
        mustStayOn: n > 3 && i === n - 1 && random() < 0.5,
      }))
      const plan = planRounds(breakers)
      expect(plan.tripsAtMost).toBeLessThanOrEqual(Math.max(1, Math.ceil(Math.log2(n))) + 2)
      const fed = Object.fromEntries(
        Array.from({ length: 30 }, (_, i) => [`o${i}`, breakers[Math.floor(random() * n)]!.id]),
      )
      const honest = Object.fromEntries(
        Object.entries(fed).map(([o, b]) => [
          o,
          plan.rounds.map((r): Seen => (r.off.includes(b) ? 'dead' : 'live')),
        ]),
      )
      for (const t of readRounds(plan, honest)) {
        if (plan.together.includes(fed[t.outlet]!))
          expect(t).toMatchObject(plan.rounds.length ? { kind: 'one of' } : {})
        // D5: live in every round was never switched; dead in every round may be dead altogether.
        else if (honest[t.outlet]!.every(s => s === 'live'))
          expect(t).toMatchObject({ kind: 'one of', breakers: [fed[t.outlet]] })
        else if (honest[t.outlet]!.every(s => s === 'dead'))
          expect(t).toMatchObject({ kind: 'ask again', candidates: [fed[t.outlet]] })
        else expect(t).toEqual({ outlet: t.outlet, kind: 'found', breaker: fed[t.outlet] })
      }
      for (const [outlet, list] of Object.entries(honest)) {
        for (let k = 0; k < list.length; k++) {
          const wrong = list.map((s, i) =>
            i === k ? (s === 'live' ? ('dead' as const) : ('live' as const)) : s,
          )
          const [t] = readRounds(plan, { [outlet]: wrong })
          // A wrong look is always noticed, and the last trip finds the true breaker among the candidates.
          if (t!.kind === 'one of' || t!.kind === 'none') {
            // All alike: the plan says it was never switched, or is dead, and names no other breaker.
            expect(new Set(wrong).size).toBe(1)
            continue
          }
          expect(t!.kind).toBe('ask again')
          expect(settle(t!, fed[outlet])).toMatchObject({ kind: 'found', breaker: fed[outlet] })
        }
      }
    },
  )
  it('never switches off what must stay on', () => {
    const plan = planRounds([
      { id: 'a' },
      { id: 'b', mustStayOn: true },
      { id: 'c' },
      { id: 'd', mustStayOn: true },
    ])
    expect(plan.rounds.flatMap(r => r.off)).not.toContain('b')
    expect(readRounds(plan, { x: plan.rounds.map(() => 'live') })[0]).toMatchObject({
      kind: 'one of',
      breakers: ['b', 'd'],
    })
  })
  it('a look not made is asked for again', () =>
    expect(
      readRounds(planRounds(ids(5)), { x: ['dead', undefined, 'live', 'dead'] })[0]!.kind,
    ).toBe('ask again'))
  it('none of the candidates silencing it is an answer', () =>
    expect(
      settle({ outlet: 'x', kind: 'ask again', candidates: ['a'], why: '' }, undefined).kind,
    ).toBe('none'))
})

describe('the directory', () => {
  const site = siteOf(hillside() as Node)
  const main = reconcile(site, site.get('main', 'enclosure')!)
  it('is held against what was found, and a new card is written', () => {
    const at = (space: string) => main.entries.find(e => e.space === space)!
    expect(at('10')).toMatchObject({ written: 'Bedrooms east', state: 'agrees' })
    expect(at('2')).toMatchObject({ found: 'feeds Studio panel', state: 'agrees' })
    expect(at('28').state).toBe('spare')
    expect(at('16').found).toBe('Garage: 3 receptacles')
  })
  it('tells contradictions, missing entries, doubles and outlets without a breaker', () => {
    const s = siteOf({
      ...panel([
        {
          id: 'b1',
          space: 1,
          label: 'Dryer',
          circuit: {
            id: 'c1',
            outlets: [{ id: 'p1', name: 'Kitchen 1', type: 'receptacle', room: 'k' }],
          },
        },
        { id: 'b3', space: 3, circuit: { id: 'c3', outlets: [{ id: 'p3', type: 'receptacle' }] } },
        { id: 'b5', space: 5, label: 'Dryer', circuit: { id: 'c5' } },
      ]),
      rooms: [{ id: 'k', name: 'Kitchen' }],
      outlets: [{ id: 'lost', name: 'Porch', type: 'receptacle' }],
    })
    const r = reconcile(s, s.get('main', 'enclosure')!)
    expect(r.entries.map(e => e.state)).toEqual(['contradicted', 'no entry', 'nothing found on it'])
    expect(r.doubles).toEqual(['dryer'])
    expect(r.orphans).toEqual(['Porch'])
  })
})
