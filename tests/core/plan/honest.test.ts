import {
  compare,
  consequencesOf,
  effectsOf,
  Judged,
  Ledger,
  planHouse,
  priceBookSchema,
  remedyById,
  SAMPLE_PRICES,
  valueOf,
  withChanges,
  Work,
  type House,
  type Result,
  type WorkChange,
} from '#core'
import { observe, panel, type Node } from '../../support/house'
import { OPEN, wing } from '../../support/wing'

const houseOf = (node: Node): House => new Ledger(observe(node)).house
const judged = (node: Node) => new Judged(houseOf(node))
const key = (t: { rule: string; subject: string }) => `${t.rule} ${t.subject}`
/** What the work of a remedy would write, as `thing.field` with its value. */
function writes(
  node: Node,
  rule: string,
  subject: string,
  remedy: string,
): Record<string, unknown> {
  const before = judged(node)
  const finding = before.resultOf(rule, subject)
  if (!finding) throw new Error(`no ${rule} on ${subject}`)
  const [changes = []] = effectsOf(remedy, new Work(before.site, finding))
  const notes = changes.filter((c): c is WorkChange & { act: 'note' } => c.act === 'note')
  return Object.fromEntries(notes.map(c => [`${c.subject}.${c.field}`, c.value]))
}

describe('what is not known is not cured', () => {
  const known = judged(wing({}, [{}]))
  const unknown = judged(wing({}, [{ ground: undefined }]))
  it('a fault that is merely open afterwards is not fixed', () => {
    expect(known.resultOf('open-ground-three-slot', 'p1')?.outcome).toBe('fault')
    expect(unknown.resultOf('open-ground-three-slot', 'p1')?.outcome).toBe('undecided')
    const turned = compare(known, unknown)
    expect(turned.fixed.map(key)).not.toContain('open-ground-three-slot p1')
    expect(turned.undecided.map(key)).toContain('open-ground-three-slot p1')
  })
  it('what leans to a fault afterwards is not decided', () => {
    const leaning = judged(wing({}, [{ ground: undefined, lamps: 'open ground' }]))
    const plain = judged(wing({}, [{ ground: undefined }]))
    for (const [k, is] of leaning.results) {
      if (is.outcome !== 'undecided' || is.standing === undefined) continue
      const was = plain.results.get(k)
      if (was?.outcome !== 'undecided' || was.standing !== undefined) continue
      expect(compare(plain, leaning).decided.map(key)).not.toContain(k)
    }
    // Nothing open before and open after is ever called decided.
    for (const t of compare(plain, leaning).decided) expect(t.after).not.toBe('undecided')
  })
  it('a plan says so where its work leaves something open that was decided', () => {
    const { newlyUndecided } = planHouse(houseOf(wing({}, undefined, 'attic')), {
      fix: OPEN,
      forbids: [{ remedy: 'two-slot-device' }],
    })
    expect(Array.isArray(newlyUndecided)).toBe(true)
  })
})

describe('what a work makes so is only what it makes so', () => {
  it('a device beside the panel does not make protective breakers for it', () => {
    const house = wing({ protectiveBreakers: 'none made' })
    const after = writes(house, 'panel-no-protective-breakers', 'main', 'protect-beside-panel')
    expect(after['main.protectiveBreakers']).toBeUndefined()
  })
  it('a cover on a dry wall says nothing of wet places', () => {
    const after = writes(wing({}, [{ cover: 'missing' }]), 'cover-missing', 'p1', 'fit-cover')
    expect(after).toEqual({ 'p1.cover': 'in place' })
  })
  it('a device moved within reach says nothing of tubs', () => {
    const house = wing({}, [{ protection: 'GFCI', resetAccess: 'locked away' }])
    const after = writes(house, 'gfci-not-readily-accessible', 'p1', 'move-protection')
    expect(after).toEqual({ 'p1.resetAccess': 'readily accessible' })
  })
  it('a protective breaker marks no outlet that has a ground', () => {
    const grounded = {
      ground: 'connected',
      groundOhms: 0.2,
      lamps: 'correct',
      groundToReferenceV: 0,
      hasNeutralGroundJumper: false,
    }
    const after = writes(wing({}, [{}, grounded]), 'open-ground-three-slot', 'p1', 'gfci-breaker')
    expect(after['p1.isMarkedNoGround']).toBe(true)
    expect(after['p2.isMarkedNoGround']).toBeUndefined()
  })
  const rule = 'unidentified-conductor-metal'
  const run12 = (seen: Node) =>
    panel([
      {
        id: 'b',
        space: 1,
        poles: 1,
        ratingAmps: 20,
        device: 'breaker',
        circuit: {
          id: 'c',
          supplies: 'receptacles',
          segments: [{ id: 's', size: '12', wiring: 'NM-B', ...seen }],
        },
      },
    ])
  it('no metal is written where nobody saw the surface: it may be a coated one', () => {
    const house = run12({ metal: 'copper', core: 'silver color' })
    expect(writes(house, rule, 's', 'identify-metal')).toEqual({})
  })
  it.each([
    ['copper', 'silver color', 'silver color', 'aluminum'],
    ['copper', 'copper color', 'silver color', 'copper-clad aluminum'],
    ['aluminum', 'silver color', 'copper color', 'tinned copper'],
    ['aluminum', 'copper color', 'copper color', 'copper'],
  ])('taken for %s, %s outside and %s inside, is put right as %s', (metal, surface, core, is) => {
    const house = run12({ metal, surface, core })
    expect(writes(house, rule, 's', 'identify-metal')).toEqual({ 's.metal': is })
    const before = judged(house)
    const done = consequencesOf(before, before.resultOf(rule, 's')!, 'identify-metal')
    expect(done.isCured).toBe(true)
    // 12 AWG of aluminum carries no 20 A: the true metal brings the true faults.
    expect(done.broken.some(t => t.rule === 'overfused-conductor')).toBe(
      is === 'aluminum' || is === 'copper-clad aluminum',
    )
  })
  it('on a shared neutral both breakers are one two-pole breaker', () => {
    const half = (id: string, space: number, other: string, outlets: Node[]) => ({
      id: `b-${id}`,
      space,
      poles: 1,
      ratingAmps: 20,
      device: 'breaker',
      circuit: { id, sharesNeutralWith: [other], outlets },
    })
    const p = { id: 'p', type: 'receptacle', slots: 'three', ground: 'none', after: 'panel' }
    const house = panel([half('a', 1, 'b', [p]), half('b', 3, 'a', [])], {
      protectiveBreakers: 'available',
    })
    const after = writes(house, 'open-ground-three-slot', 'p', 'gfci-breaker')
    expect(after['b-a.protection']).toBe('dual')
    expect(after['b-a.poles']).toBe(2)
    expect(after['b-a.handleTie']).toBe('common trip')
    expect([after['a.fedBy'], after['b.fedBy']]).toEqual(['b-a', 'b-a'])
  })
})

describe('works on what is not one outlet', () => {
  const twins = (more: Node, spaces: number) =>
    panel(
      [
        {
          id: 'a',
          space: 1,
          half: 'a',
          poles: 1,
          ratingAmps: 15,
          device: 'breaker',
          circuit: { id: 'ca' },
        },
        {
          id: 'b',
          space: 1,
          half: 'b',
          poles: 1,
          ratingAmps: 20,
          device: 'breaker',
          circuit: { id: 'cb' },
        },
        { id: 'c', space: 2, poles: 1, ratingAmps: 20, device: 'breaker', circuit: { id: 'cc' } },
      ],
      { tandems: 'none', spaces, ...more },
    )
  const cure = (node: Node, rule: string, subject: string, remedy: string) => {
    const before = judged(node)
    const finding = before.resultOf(rule, subject)
    if (!finding) throw new Error(`no ${rule} on ${subject}`)
    const done = consequencesOf(before, finding, remedy)
    return { before, done, house: withChanges(before.house, done.changes ?? []) }
  }
  it('a twin becomes two full-size breakers, one in a free space, each with its circuit', () => {
    const { done, house } = cure(twins({}, 4), 'tandem-misplaced', 'a', 'untwin')
    expect(done.isCured).toBe(true)
    // Of both halves: the plan then pays it once.
    expect(done.fixed.map(key)).toEqual(
      expect.arrayContaining(['tandem-misplaced a', 'tandem-misplaced b']),
    )
    const site = new Judged(house).site
    const spaces = site.all.breaker.map(b => [valueOf(b, 'space'), valueOf(b, 'half')])
    expect(spaces.sort()).toEqual([
      [1, undefined],
      [2, undefined],
      [3, undefined],
    ])
    const ratings = ['ca', 'cb'].map(id => {
      const circuit = site.get(id, 'circuit')
      return valueOf(site.get(circuit && valueOf(circuit, 'fedBy'), 'breaker'), 'ratingAmps')
    })
    expect(ratings).toEqual([15, 20])
  })
  it('two works that want a space get one each, or are not called a plan', () => {
    const half = (id: string, space: number, part: string) => ({
      id,
      space,
      half: part,
      poles: 1,
      ratingAmps: 15,
      device: 'breaker',
      circuit: { id: `c${id}` },
    })
    const four = [half('a', 1, 'a'), half('b', 1, 'b'), half('d', 3, 'a'), half('e', 3, 'b')]
    const fix = ['a', 'd'].map(subject => ({ rule: 'tandem-misplaced', subject }))
    const spacesAfter = (spaces: number) => {
      const house = houseOf(panel(four, { tandems: 'none', spaces }))
      const plan = planHouse(house, { fix })
      const { site } = new Judged(
        withChanges(
          house,
          plan.choices.flatMap(c => c.option.changes),
        ),
      )
      return { plan, spaces: site.all.breaker.map(b => valueOf(b, 'space')).sort() }
    }
    const roomy = spacesAfter(6)
    expect(roomy.plan.proof.holds).toBe(true)
    expect(roomy.plan.choices).toHaveLength(2)
    expect(new Set(roomy.spaces).size).toBe(4)
    // One free space for two works.
    const tight = spacesAfter(3)
    expect(tight.plan.status).not.toBe('planned')
  })
  it('without a free space nobody can say where it goes', () => {
    const { done } = cure(twins({}, 2), 'tandem-misplaced', 'a', 'untwin')
    expect(done.changes).toBeUndefined()
  })
  it('what does not belong on a required circuit gets a breaker of its own, where there is a space', () => {
    const other = { id: 'x', space: 2, poles: 1, ratingAmps: 15, device: 'breaker' }
    const shared = (spaces: number) =>
      panel(
        [
          {
            id: 'a',
            space: 1,
            poles: 1,
            ratingAmps: 20,
            device: 'breaker',
            circuit: { id: 'laundry', requiredUse: 'laundry', isSharedOutside: true },
          },
          other,
        ],
        { spaces },
      )
    const { done, house } = cure(shared(4), 'dedicated-circuits', 'laundry', 'split-circuit')
    expect(done.isCured).toBe(true)
    expect(new Judged(house).site.all.breaker.map(b => valueOf(b, 'space'))).toEqual([1, 2, 3])
    expect(cure(shared(2), 'dedicated-circuits', 'laundry', 'split-circuit').done.changes).toBe(
      undefined,
    )
  })
  it('the utility mends the neutral for every enclosure and outlet that shows it', () => {
    const node = panel([], { legAToNeutralV: 137, legBToNeutralV: 103, wereLoadsOn: true })
    const { done, house } = cure(node, 'service-neutral', 'main', 'call-utility')
    expect(done.isCured).toBe(true)
    const main = new Judged(house).site.get('main', 'enclosure')
    expect([valueOf(main, 'legAToNeutralV'), valueOf(main, 'legBToNeutralV')]).toEqual([120, 120])
  })
})

describe('what the utility does not mend', () => {
  it('the neutral of a feeder, where the service reads alike', () => {
    const node = panel([], { legAToNeutralV: 121, legBToNeutralV: 120, wereLoadsOn: true })
    const sub = {
      id: 'sub',
      type: 'panel',
      legAToNeutralV: 138,
      legBToNeutralV: 102,
      feeder: { id: 'f', from: 'main' },
    }
    const before = judged({ ...node, enclosures: [...(node.enclosures as Node[]), sub] })
    const finding = before.resultOf('service-neutral', 'sub') as Result
    expect(finding.outcome).toBe('fault')
    expect(consequencesOf(before, finding, 'call-utility').changes).toBeUndefined()
  })
  it('an outlet at which a joint fits as well', () => {
    const node = panel(
      [
        {
          id: 'b',
          space: 1,
          poles: 1,
          ratingAmps: 15,
          circuit: {
            id: 'c',
            outlets: [
              {
                id: 'p',
                type: 'receptacle',
                slots: 'three',
                hotNeutralV: 114,
                hotGroundV: 115,
                neutralGroundV: 0.4,
                dropPercent: 21,
              },
            ],
          },
        },
      ],
      { legAToNeutralV: 137, legBToNeutralV: 103, wereLoadsOn: true },
    )
    const before = judged(node)
    const finding = before.resultOf('service-neutral', 'main') as Result
    const { changes = [] } = consequencesOf(before, finding, 'call-utility')
    expect(changes.length).toBeGreaterThan(0)
    expect(changes.filter(c => c.subject === 'p')).toEqual([])
  })
})

describe('a plan claims no more than it has', () => {
  const keep = { fix: OPEN, forbids: [{ remedy: 'two-slot-device' }] }
  it('does not lean on a follow-up that depends on a look', () => {
    const before = judged(wing({ protectiveBreakers: undefined }))
    const finding = before.resultOf('open-ground-three-slot', 'p1') as Result
    const { required } = consequencesOf(before, finding, 'run-grounding-conductor')
    const afci = required.find(r => r.rule === 'afci-missing')
    expect(afci?.remedies).not.toContain('afci-breaker')
    expect(afci?.conditional).toContain('afci-breaker')
  })
  it('tells the runner-up in cents whatever the aim, and a flip only where cents decide', () => {
    const house = houseOf(wing({}, undefined, 'attic'))
    const cheap = planHouse(house, keep)
    const quiet = planHouse(house, { ...keep, aim: 'fewest-tests' })
    for (const { choices, total } of [cheap, quiet])
      for (const { runnerUp } of choices) {
        if (!runnerUp) continue
        const other = planHouse(house, {
          ...keep,
          forbids: [
            ...keep.forbids,
            ...choices.flatMap(c => c.option.steps.map(s => ({ remedy: s.remedy.id }))),
          ],
        })
        if (other.status === 'planned') expect(Math.abs(runnerUp.more)).toBeLessThan(total * 50)
      }
    expect(quiet.choices.every(c => c.runnerUp === undefined || c.runnerUp.more % 1 === 0)).toBe(
      true,
    )
  })
  it('is proven only where it holds when judged again', () => {
    const { proof, status, newlyRequired } = planHouse(houseOf(wing()), keep)
    expect([status, proof.holds, proof.gap]).toEqual(['planned', true, 0])
    expect(newlyRequired).toEqual([])
  })
  it('says which lock has no work to keep it', () => {
    const made = planHouse(houseOf(wing()), {
      ...keep,
      locks: [{ subject: 'p1', remedy: 'use-raceway' }],
    })
    expect(made.unmetLocks).toEqual([{ subject: 'p1', remedy: 'use-raceway' }])
    expect(made.status).toBe('infeasible')
  })
})

describe('prices', () => {
  it('name remedies there are, in the book that ships and in one that is read', () => {
    for (const id of Object.keys(SAMPLE_PRICES.remedies)) expect(remedyById(id)?.id).toBe(id)
    const line = { material: 100, minutes: 5 }
    const wrong = { ...SAMPLE_PRICES, remedies: { 'no-such-work': line } }
    const parsed = priceBookSchema.safeParse(wrong)
    expect(parsed.error?.issues[0]?.path).toEqual(['remedies', 'no-such-work'])
  })
})
