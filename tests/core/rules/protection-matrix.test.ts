import { afciSince, EDITIONS, evaluate, PLACES, requirementsOf, ruleById, TURNS } from '#core'
import { oneOutlet, siteOf } from '../../support/house'

/**
 * First edition of 2008 to 2023 that asks for it at an ordinary receptacle, no sink near, at the
 * counter in a kitchen; 0 where older ones do.
 */
const GFCI: Record<string, number | null> = {
  outdoors: 0,
  bathroom: 0,
  garage: 0,
  kitchen: 0,
  'basement, unfinished': 0,
  'basement, finished': 2020,
  'crawl space': 0,
  laundry: 2014,
  utility: null,
  workshop: null,
  bedroom: null,
  living: null,
  hallway: null,
  closet: null,
  attic: null,
  stairs: null,
  office: null,
  boathouse: 0,
  'food preparation': 2023,
  'damp or wet room': 2020,
}
const AFCI: Record<string, number | null> = {
  outdoors: null,
  bathroom: null,
  garage: null,
  kitchen: 2014,
  'basement, unfinished': null,
  'basement, finished': 2008,
  'crawl space': null,
  laundry: 2014,
  utility: null,
  workshop: null,
  bedroom: 0,
  living: 2008,
  hallway: 2008,
  closet: 2008,
  attic: null,
  stairs: 2008,
  office: 2008,
  boathouse: null,
  'food preparation': null,
  'damp or wet room': null,
}
const TRIGGERS = ['existing', 'replaced', 'new'] as const

const rows = [['gfci-missing', GFCI] as const, ['afci-missing', AFCI] as const].flatMap(
  ([rule, table]) =>
    Object.entries(table).flatMap(([use, since]) =>
      EDITIONS.flatMap(edition =>
        TRIGGERS.map(
          trigger => [rule, use, edition, trigger, since !== null && since <= edition] as const,
        ),
      ),
    ),
)

describe('ground-fault and arc-fault protection: every room, edition and trigger', () => {
  it('covers every room', () =>
    expect([Object.keys(GFCI).sort(), Object.keys(AFCI).sort()]).toEqual([
      [...PLACES].sort(),
      [...PLACES].sort(),
    ]))
  it.each(rows)(
    '%s in %s, %i edition, %s: required %s',
    (rule, use, edition, trigger, isRequired) => {
      const site = siteOf(
        oneOutlet(
          {
            room: 'r',
            after: 'panel',
            protection: 'none',
            servesCounter: true,
            isDedicated: false,
            isOutOfReach: false,
            hasGradeAccess: true,
            year: trigger === 'new' ? edition : 1958,
            appliance: 'none that needs a ground',
            work: trigger === 'existing' ? 'none' : trigger,
          },
          { premises: { edition, yearBuilt: 1958 }, rooms: [{ id: 'r', use, hasSink: false }] },
        ),
      )
      const result = evaluate(site, [ruleById(rule)!]).find(r => r.subject.id === 'p')!
      expect(result.verdict.outcome).toBe(isRequired ? 'fault' : 'n/a')
      if (!isRequired) return
      // Replacing a receptacle brings arc-fault protection along only from the 2011 text; when
      // boathouses began is not settled.
      const stays = use === 'boathouse' ? 'depends on the year' : 'allowed to remain'
      expect(result.standing!.kind).toBe(
        trigger === 'new'
          ? 'violation when installed'
          : trigger === 'existing' || (rule === 'afci-missing' && edition < 2011)
            ? stays
            : 'required by this work',
      )
    },
  )
  it('the years shown on the timeline agree with the rules', () => {
    for (const [use, since] of Object.entries(GFCI))
      if (since)
        expect(requirementsOf(use).some(r => r.protection === 'GFCI' && r.since === since)).toBe(
          true,
        )
    expect([
      afciSince('bedroom', 'receptacle'),
      afciSince('bedroom', 'luminaire'),
      afciSince('bedroom', 'switch'),
      afciSince('bathroom', 'receptacle'),
    ]).toEqual([1999, 2002, 2014, undefined])
    for (const turn of TURNS) expect(ruleById(turn.rule)).toBeDefined()
  })
})
