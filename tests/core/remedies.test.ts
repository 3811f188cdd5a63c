import type { Site } from '#core'
import { remedyById, remediesFor, render } from '#core'
import { judge, oneOutlet, panel, run, siteOf, type Node } from '../support/house'

function advice(
  rule: string,
  house: Node,
  subject: string,
): Record<string, { verdict: string; why: string; missing: string[] }> {
  const site: Site = siteOf(house)
  return Object.fromEntries(
    remediesFor(judge(rule, house, subject), site).map(({ remedy, advice: a }) => [
      remedy.id,
      { verdict: a.verdict, why: render(a.why), missing: a.missing.map(m => m.field) },
    ]),
  )
}
const thin = (circuit: Node) =>
  panel([run(20, { size: '14', metal: 'copper', wiring: 'NM-B' }, circuit)])

describe('a device beside the panel is an outlet itself', () => {
  const house = (use: string | undefined, more: Node = {}): Node => {
    const base = oneOutlet(
      { room: 'r', after: 'panel', protection: 'none' },
      {
        premises: { edition: 2020 },
        rooms: [{ id: 'r', use: 'bedroom' }, ...(use ? [{ id: 'where', use }] : [])],
        circuit: { sharesNeutralWith: [], ...more },
      },
    )
    const main = (base.enclosures as Node[])[0]!
    return {
      ...base,
      enclosures: [
        {
          ...main,
          ...(use && { room: 'where' }),
          breakers: [
            ...(main.breakers as Node[]),
            { id: 'other', space: 2, circuit: { id: 'c9' } },
          ],
        },
      ],
    }
  }
  const advice = (h: Node) => {
    const result = judge('afci-missing', h, 'p')
    return remediesFor(result, result.site).find(r => r.remedy.id === 'protect-beside-panel')!
      .advice
  }
  it.each<[string, Node, string, string]>([
    ['in a garage it needs GFCI too', house('garage'), 'offered', 'GFCI'],
    ['in a hallway AFCI', house('hallway'), 'offered', 'AFCI'],
    ['in a laundry both', house('laundry'), 'offered', 'Dual'],
    ['in the attic nothing more', house('attic'), 'offered', 'nothing more'],
    ['where nobody said where the panel is', house(undefined), 'conditional', 'place'],
    [
      'where nobody looked for a second hot',
      house('garage', { sharesNeutralWith: undefined }),
      'conditional',
      'neutral',
    ],
    [
      'on a shared neutral not at all',
      house('garage', { sharesNeutralWith: ['c9'] }),
      'refused',
      'shared',
    ],
  ])('%s', (_name, h, verdict, words) => {
    expect(advice(h).verdict).toBe(verdict)
    expect(advice(h).why.text).toContain(words)
  })
})

describe('a smaller breaker', () => {
  it('is offered where load and use allow', () =>
    expect(
      advice('overfused-conductor', thin({ requiredUse: 'none', loadAmps: 6.2 }), 's')[
        'smaller-breaker'
      ],
    ).toMatchObject({ verdict: 'offered', why: expect.stringContaining('15 A breaker') }))
  it('is refused on a circuit that must be 20 A', () =>
    expect(
      advice('overfused-conductor', thin({ requiredUse: 'laundry', loadAmps: 2 }), 's')[
        'smaller-breaker'
      ]!.verdict,
    ).toBe('refused'))
  it('is refused above 80 % load', () =>
    expect(
      advice('overfused-conductor', thin({ requiredUse: 'none', loadAmps: 12.5 }), 's')[
        'smaller-breaker'
      ]!.verdict,
    ).toBe('refused'))
  it('is conditional on what has not been looked at', () =>
    expect(advice('overfused-conductor', thin({}), 's')['smaller-breaker']).toMatchObject({
      verdict: 'conditional',
      missing: ['device', 'requiredUse', 'loadAmps'],
    }))
  it('a label is always refused', () =>
    expect(advice('overfused-conductor', thin({}), 's')['leave-and-label']!.verdict).toBe(
      'refused',
    ))
})

function sub(feeder: Node): Node {
  const house = panel([{ id: 'fb', space: 1, poles: 2, ratingAmps: 60 }], { bondMeans: 'screw' })
  return {
    ...house,
    enclosures: [
      ...(house.enclosures as Node[]),
      {
        id: 'sub',
        type: 'panel',
        place: 'indoors',
        bondMeans: 'screw',
        feeder: { id: 'f', from: 'fb', ...feeder },
      },
    ],
  }
}
describe('separating neutral and ground in a sub-panel', () => {
  it('is offered where the feeder brings a ground', () =>
    expect(advice('neutral-bonded-downstream', sub({ egc: 'wire' }), 'sub')).toMatchObject({
      'separate-neutral': { verdict: 'offered' },
      'new-four-wire-feeder': { verdict: 'refused' },
    }))
  it('is refused where it would leave no fault path', () =>
    expect(advice('neutral-bonded-downstream', sub({ egc: 'none' }), 'sub')).toMatchObject({
      'separate-neutral': { verdict: 'refused', why: expect.stringContaining('no fault path') },
      'new-four-wire-feeder': { verdict: 'offered' },
      'leave-three-wire-feeder': { verdict: 'refused' },
    }))
  it('is conditional where nobody looked at the feeder', () =>
    expect(advice('neutral-bonded-downstream', sub({}), 'sub')['separate-neutral']).toMatchObject({
      verdict: 'conditional',
      missing: ['egc'],
    }))
})

const bare = { lamps: 'open ground', ground: 'none', protection: 'none', after: 'panel' }
const box = {
  boxVolumeIn3: 18,
  conductorsInBox: 4,
  groundsInBox: 0,
  largestInBox: '14',
  hasInternalClamps: true,
  throughInBox: 0,
  fittingsInBox: 0,
  yokesInBox: 1,
}
const open = (outlet: Node, more: Parameters<typeof oneOutlet>[1] = {}) =>
  advice('open-ground-three-slot', oneOutlet(outlet, more), 'p')
describe('a missing ground', () => {
  it('a GFCI here depends on the box', () => {
    expect(open({ ...bare, ...box })['gfci-here']!.verdict).toBe('offered')
    expect(open({ ...bare, ...box, boxVolumeIn3: 10 })['gfci-here']).toMatchObject({
      verdict: 'refused',
      why: expect.stringContaining('14 in³ in 10 in³'),
    })
    expect(open(bare)['gfci-here']!.verdict).toBe('conditional')
    // C6: what passes through and a second yoke take room too.
    expect(open({ ...bare, ...box, throughInBox: 3, boxVolumeIn3: 18 })['gfci-here']!.verdict).toBe(
      'refused',
    )
    expect(open({ ...bare, ...box, yokesInBox: 3 })['gfci-here']!.verdict).toBe('refused')
    expect(open({ ...bare, ...box, fittingsInBox: 3 })['gfci-here']!.verdict).toBe('refused')
  })
  it('a ground that is there is reconnected, nothing else', () => {
    expect(open({ ...bare, ground: 'present, not connected' })).toMatchObject({
      'reconnect-ground': { verdict: 'offered' },
      'gfci-here': { verdict: 'refused' },
      'gfci-breaker': { verdict: 'refused' },
      'two-slot-device': { verdict: 'refused' },
    })
  })
  it('a protective breaker is refused where none are made or fused, and two-pole where the neutral is shared', () => {
    const panelOf = (more: Node, breaker: Node = {}, circuit: Node = {}) => {
      const house = oneOutlet(bare, {
        breaker: { device: 'breaker', ...breaker },
        circuit: { sharesNeutralWith: [], ...circuit },
      }) as { enclosures: Node[] }
      Object.assign(house.enclosures[0]!, more)
      return advice('open-ground-three-slot', house as Node, 'p')['gfci-breaker']
    }
    expect(panelOf({ protectiveBreakers: 'none made' })!.verdict).toBe('refused')
    expect(panelOf({ protectiveBreakers: 'available' })!.verdict).toBe('offered')
    expect(panelOf({ protectiveBreakers: 'available' }, { device: 'plug fuse' })!.verdict).toBe(
      'refused',
    )
    expect(panelOf({})!.verdict).toBe('conditional')
  })
  it('a rod of its own is always refused', () =>
    expect(open(bare)['own-ground-rod']!.verdict).toBe('refused'))
  it('a grounding conductor is sized by the breaker', () =>
    expect(open(bare)['run-grounding-conductor']!.why).toContain('14 AWG copper for 15 A'))
  it('the first outlet cannot be protected by a first outlet', () =>
    expect(open(bare)['gfci-first-outlet']!.verdict).toBe('refused'))
})

describe('multiwire', () => {
  const pair = (space: number, more: Node = {}) =>
    panel([
      {
        id: 'b1',
        space: 1,
        poles: 1,
        ratingAmps: 20,
        handleTie: 'not tied',
        circuit: { id: 'c1', sharesNeutralWith: ['c2'], feedsLineToLine: false, ...more },
      },
      {
        id: 'b2',
        space,
        poles: 1,
        ratingAmps: 20,
        handleTie: 'not tied',
        circuit: { id: 'c2', feedsLineToLine: false },
      },
    ])
  const of = (house: Node) => advice('multiwire-no-common-trip', house, 'c1')
  it('side by side on different legs: tie or two-pole breaker', () =>
    expect(of(pair(3))).toMatchObject({
      'two-pole-breaker': { verdict: 'offered' },
      'listed-handle-tie': { verdict: 'offered' },
    }))
  it('a 240 V load refuses the tie', () =>
    expect(of(pair(3, { feedsLineToLine: true }))['listed-handle-tie']!.verdict).toBe('refused'))
  it('same leg or apart: move one first', () => {
    expect(of(pair(5))['two-pole-breaker']!.why).toContain('same leg')
    expect(of(pair(7))['two-pole-breaker']!.why).toContain('not side by side')
  })
})

it('aluminum follows the school of the desk', () => {
  const by = (aluminumSchool?: string) =>
    advice(
      'aluminum-at-unmarked-device',
      oneOutlet(
        {
          metal: 'aluminum',
          termination: 'binding screw',
          deviceAmps: 15,
          aluminumMarking: 'none',
        },
        { premises: { ...(aluminumSchool && { aluminumSchool }) } },
      ),
      'p',
    )
  expect(by('strict')).toMatchObject({
    'crimped-pigtail': { verdict: 'offered' },
    'lug-pigtail': { verdict: 'offered' },
    'twist-on-pigtail': { verdict: 'refused' },
    'co-alr-device': { verdict: 'refused' },
  })
  expect(by('listed connectors')['gel-connector-pigtail']!.verdict).toBe('offered')
  expect(by()['co-alr-device']).toMatchObject({
    verdict: 'conditional',
    missing: ['aluminumSchool'],
  })
})

describe('what a remedy may not be (second reading, C6)', () => {
  const screws = [{ id: 'x', neutrals: 2, grounds: 0 }]
  const bars = (role: string) => [{ id: 'bar', role, screws, areAllScrewsSeen: true }]
  const inSub = (role: string): Node => {
    const house = sub({ egc: 'wire' })
    const [main, other] = house.enclosures as Node[]
    return { ...house, enclosures: [main, { ...other, bars: bars(role) }] }
  }
  it('an added bar joins the neutral bar at the service, and never in a sub-panel', () => {
    const atService = panel([], {
      bondMeans: 'screw',
      marking: 'service disconnect',
      bars: bars('neutral'),
    })
    expect(advice('doubled-neutral', atService, 'bar')['extra-bar']!.why).toContain(
      'Joined to the neutral bar',
    )
    expect(advice('doubled-neutral', inSub('neutral'), 'bar')['extra-bar']!.why).toContain(
      'never to the neutral bar',
    )
  })
  it('a nonmetallic section is for another metal path, and for nothing else', () => {
    const by = (more: Node) =>
      advice('three-wire-feeder', sub({ egc: 'none', ...more }), 'f')['nonmetallic-section']
        ?.verdict
    expect(by({ hasOtherMetallicPath: true })).toBe('offered')
    expect(by({ hasOtherMetallicPath: false })).toBeUndefined()
    expect(by({})).toBe('conditional')
  })
  it('no jumper goes round a gas meter', () => {
    const steps = remedyById('bond-piping')!.steps.join()
    expect(steps).not.toContain('umper')
    expect(remedyById('bond-piping')!.cautions.join()).toContain(
      'Never a jumper round the gas meter',
    )
    expect(remedyById('bond-water')!.steps.join()).toContain('Jumper round the water meter')
  })
  it('a smaller feeder breaker waits for the load of what it feeds', () =>
    expect(
      advice(
        'overfused-feeder',
        sub({
          egc: 'wire',
          size: '8',
          metal: 'copper',
          wiring: 'NM-B',
          carriesWholeDwelling: false,
        }),
        'f',
      )['smaller-breaker'],
    ).toMatchObject({ verdict: 'conditional', why: expect.stringContaining('40 A breaker') }))
  it('a circuit of less than 15 A feeds no receptacles', () => {
    const by = (supplies: string) =>
      advice(
        'overfused-conductor',
        panel(
          [
            run(
              20,
              { size: '14', metal: 'copper-clad aluminum', wiring: 'NM-B' },
              { supplies, requiredUse: 'none', loadAmps: 3 },
            ),
          ],
          {},
          { edition: 2023 },
        ),
        's',
      )['smaller-breaker']!
    expect(by('receptacles')).toMatchObject({ verdict: 'refused' })
    expect(by('lighting')).toMatchObject({ verdict: 'offered' })
  })
})
