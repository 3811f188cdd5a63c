import {
  ACCESS,
  accessAt,
  allAccess,
  assess,
  fieldOf,
  INSTRUMENTS,
  Ledger,
  ordinaryFields,
  ordinaryOf,
  PRESETS,
  PURPOSES,
  readJob,
  recordedScope,
  scopeOf,
  scopeSchema,
  Site,
  visitOf,
  type Kind,
  type Observation,
  type Scope,
  type Visit,
} from '#core'
import { DEMO_HOUSES } from '#core/examples/index'
import { observe, siteOf, type Node } from '../../support/house'

let n = 0
const stamp = () => `v${String(n++).padStart(6, '0')}`
const note = (subject: string, field: string, value: unknown): Observation =>
  ({
    id: stamp(),
    at: '2026-01-02T08:00:00.000Z',
    by: 't',
    act: 'note',
    subject,
    field,
    value,
    grade: 'seen',
  }) as Observation
const block = (subject: string, field: string): Observation =>
  ({
    id: stamp(),
    at: '2026-01-02T08:00:00.000Z',
    by: 't',
    act: 'block',
    subject,
    field,
    reason: 'locked',
  }) as Observation

const visit = (ledger: Ledger, scope: Scope): Visit =>
  visitOf(new Site(ledger.house), assess(ledger.house).results, scope)
const demo = (id: string): Ledger => {
  const file = DEMO_HOUSES.find(d => d.id === id)
  return new Ledger(observe((file?.file() ?? {}) as Node))
}
const asked = (v: Visit): string[] =>
  v.stops.flatMap(s => [
    ...s.questions.flatMap(q => q.things.map(t => `${t.id} ${q.field}`)),
    ...(s.attestation?.writes.map(w => `${w.thing} ${w.field}`) ?? []),
  ])

/** A house of the 1970s: 30 circuits, 14 rooms, 60 outlets; only what stands on the panel face is recorded. */
function seventies(): Ledger {
  const uses = [
    'kitchen',
    'living',
    'bedroom',
    'bedroom',
    'bedroom',
    'bathroom',
    'bathroom',
    'laundry',
    'hallway',
    'garage',
    'basement, unfinished',
    'outdoors',
    'closet',
    'utility',
  ]
  const breakers = Array.from({ length: 30 }, (_, i) => {
    const isLarge = i % 10 === 9
    return {
      id: `b${i}`,
      space: i + 1,
      poles: isLarge ? 2 : 1,
      ratingAmps: isLarge ? 30 : i % 2 ? 15 : 20,
      circuit: {
        id: `c${i}`,
        label: `circuit ${i}`,
        segments: [{ id: `s${i}` }],
        outlets: [0, 1].map(k => ({
          id: `p${i}-${k}`,
          room: `r${(i + k) % uses.length}`,
          type: isLarge ? 'hard-wired outlet' : k && i % 3 === 0 ? 'luminaire' : 'receptacle',
        })),
      },
    }
  })
  return new Ledger(
    observe({
      corvit: 1,
      form: 'house',
      premises: { yearBuilt: 1974, edition: 2020, visitedOn: '2026-05-01', purpose: 'purchase' },
      rooms: uses.map((use, i) => ({ id: `r${i}`, name: `${use} ${i}`, use })),
      enclosures: [{ id: 'main', type: 'panel', fedFrom: 'utility', breakers }],
    }),
  )
}

/** Something one could answer; where a thing is asked for, that there is none. */
function answer(kind: Kind, field: string): unknown {
  if (['waterBond', 'gasBond', 'electrodes'].includes(field)) return 'none found'
  const f = fieldOf(kind, field)
  switch (f?.type) {
    case 'choice':
      return f.options[0]
    case 'flag':
      return false
    case 'number':
      return Math.min(f.max, Math.max(f.min, field.includes('Amps') ? 100 : 40))
    case 'refs':
      return []
    case 'year':
      return 1974
    case 'ref':
      return f.words[0]
    default:
      return undefined
  }
}

describe('what a look takes', () => {
  it('every field has a class and a cost', () => {
    for (const { kind, field, access } of allAccess()) {
      expect({ kind, field, count: access.classes.length }).toEqual({
        kind,
        field,
        count: expect.any(Number),
      })
      expect(access.classes.length).toBeGreaterThan(0)
      for (const c of access.classes) expect(ACCESS).toContain(c)
      expect(access.seconds).toBeGreaterThan(0)
    }
  })
  it.each([
    ['outlet', 'cover', ['seen']],
    ['segment', 'size', ['cover off']],
    ['outlet', 'splice', ['device pulled']],
    ['exposure', 'ambientC', ['box opened', 'measured']],
    ['segment', 'isBuried', ['attic or crawl space']],
    ['circuit', 'year', ['record']],
    ['enclosure', 'year', ['seen']],
    ['outlet', 'lamps', ['measured']],
    ['outlet', 'dropPercent', ['loaded test', 'measured']],
    ['segment', 'core', ['cover off', 'box opened']],
  ] as const)('%s %s', (kind, field, classes) => {
    const found = allAccess().find(a => a.kind === kind && a.field === field)
    expect([...(found?.access.classes ?? [])].sort()).toEqual([...classes].sort())
  })
  it('the cover of a meter is the utility’s', () => {
    const site = siteOf({
      corvit: 1,
      form: 'house',
      premises: {},
      enclosures: [
        { id: 'm', type: 'meter' },
        { id: 'p', type: 'panel' },
      ],
    })
    const at = (id: string) => accessAt(site, site.get(id, 'enclosure')!, 'bondMeans').classes
    expect(at('m')).toEqual(['utility side'])
    expect(at('p')).toEqual(['cover off'])
  })
  it('an outlet in the attic is reached through it, and a fixture has no device to pull', () => {
    const site = siteOf({
      corvit: 1,
      form: 'house',
      premises: {},
      rooms: [
        { id: 'a', use: 'attic' },
        { id: 'l', use: 'living' },
      ],
      outlets: [
        { id: 'x', room: 'a', type: 'receptacle' },
        { id: 'y', room: 'l', type: 'luminaire' },
      ],
    })
    expect(accessAt(site, site.get('x', 'outlet')!, 'cover').classes).toEqual([
      'seen',
      'attic or crawl space',
    ])
    expect(accessAt(site, site.get('y', 'outlet')!, 'splice').classes).toEqual(['box opened'])
  })
})

describe('what is recorded by exception', () => {
  it.each(ordinaryFields())(
    '%s is told by eye, and its ordinary value is one it can have',
    name => {
      const [kind, field] = name.split('.') as [Kind, string]
      const value = ordinaryOf(kind, field)
      expect(value).toBeDefined()
      const f = fieldOf(kind, field)
      if (f?.type === 'choice') expect(f.options).toContain(value)
      else expect(typeof value).toBe(f?.type === 'flag' ? 'boolean' : 'number')
    },
  )
  it.each([
    ['breaker', 'termination'],
    ['enclosure', 'cover'],
    ['segment', 'workmanship'],
    ['outlet', 'lamps'],
    ['outlet', 'splice'],
  ] as const)('%s %s takes a hand, a tool or power off, and is never attested', (kind, field) => {
    expect(ordinaryOf(kind, field)).toBeUndefined()
  })
  it('an attestation writes only what it says, and leaves alone what was recorded', () => {
    const ledger = demo('demo-sorrel-bank')
    const before = visit(ledger, scopeOf({ purpose: 'purchase' }))
    const writes = before.stops.flatMap(s => s.attestation?.writes ?? [])
    for (const w of writes) {
      const site = new Site(ledger.house)
      const thing = site.house.subjects.get(w.thing)!
      expect((thing.facts as Record<string, { state: string }>)[w.field]?.state).toBe('unseen')
    }
    for (const s of before.stops)
      if (s.attestation) expect(s.attestation.says.every(t => t.length > 4)).toBe(true)
    ledger.append(writes.map(w => note(w.thing, w.field, w.value)))
    const after = visit(ledger, scopeOf({ purpose: 'purchase' }))
    expect(after.stops.some(s => s.attestation)).toBe(false)
    expect(after.counts.settled).toBeGreaterThan(before.counts.settled)
  })
  it('of a receptacle made for an appliance nothing of a plain face is attested', () => {
    const house = (outlet: Node, breaker: Node = {}) =>
      siteOf({
        corvit: 1,
        form: 'house',
        premises: {},
        rooms: [{ id: 'r', use: 'laundry' }],
        enclosures: [
          {
            id: 'main',
            type: 'panel',
            breakers: [
              {
                id: 'b',
                poles: 1,
                ...breaker,
                circuit: {
                  id: 'c',
                  outlets: [{ id: 'p', room: 'r', type: 'receptacle', ...outlet }],
                },
              },
            ],
          },
        ],
      })
    const plain = ['appliance', 'deviceAmps', 'isDedicated', 'isSingle']
    const written = (site: Site) =>
      visitOf(site, assess(site.house).results, scopeOf())
        .stops.flatMap(s => s.attestation?.writes ?? [])
        .filter(w => plain.includes(w.field))
        .map(w => w.field)
        .sort()
    expect(written(house({ slots: 'three' }))).toContain('isDedicated')
    expect(written(house({ slots: '240 V' }))).toEqual([])
    expect(written(house({ slots: 'T-slot' }))).toEqual([])
    expect(written(house({ slots: 'three' }, { poles: 2 }))).toEqual([])
    expect(written(house({ slots: 'three', deviceAmps: 30 }))).toEqual([])
    // While nobody has said what face it is, nothing at all is attested there.
    const site = house({})
    const stops = visitOf(site, assess(site.house).results, scopeOf()).stops
    expect(stops.find(s => s.stage === 'rooms' && s.place.id === 'r')?.attestation).toBeUndefined()
  })
  it('what is looked at all the way is presumed in nothing', () => {
    const site = siteOf({
      corvit: 1,
      form: 'house',
      premises: {},
      enclosures: [
        {
          id: 'main',
          type: 'panel',
          breakers: [
            { id: 'b', poles: 1, circuit: { id: 'c', segments: [{ id: 's', conductors: 2 }] } },
          ],
        },
      ],
    })
    const results = assess(site.house).results
    expect(asked(visitOf(site, results, scopeOf()))).not.toContain('c sharesNeutralWith')
    expect(asked(visitOf(site, results, scopeOf({ widened: ['c'] })))).toContain(
      'c sharesNeutralWith',
    )
  })
  it('without it nothing is settled by silence', () => {
    const ledger = demo('demo-sorrel-bank')
    const a = assess(ledger.house)
    visitOf(new Site(ledger.house), a.results, scopeOf())
    expect(assess(ledger.house).totals).toEqual(a.totals)
  })
})

describe('scope', () => {
  it.each(PURPOSES)('the preset of %s counts every judgment once', purpose => {
    const ledger = demo('demo-bakehouse')
    const results = assess(ledger.house).results
    const v = visitOf(new Site(ledger.house), results, scopeOf({ purpose }))
    const { total, settled, inScope, outside } = v.counts
    expect(settled + inScope + outside).toBe(total)
    expect(total).toBe(results.filter(r => r.outcome !== 'n/a').length)
    expect(settled).toBe(results.filter(r => !['n/a', 'undecided'].includes(r.outcome)).length)
    expect(v.limitations.reduce((sum, l) => sum + l.judgments, 0)).toBe(outside)
    expect(PRESETS[purpose].title.length).toBeGreaterThan(10)
  })
  it('nothing outside is asked for', () => {
    const ledger = demo('demo-sorrel-bank')
    const v = visit(ledger, scopeOf({ purpose: 'rental' }))
    const site = new Site(ledger.house)
    const things = v.stops.flatMap(s => s.questions)
    for (const q of things) {
      expect(q.access.filter(c => c !== 'seen' && c !== 'measured')).toEqual([])
      for (const t of q.things) expect(site.house.subjects.has(t.id)).toBe(true)
    }
    expect(asked(v).length).toBe(new Set(asked(v)).size)
  })
  it('each class and each instrument taken in asks more, and leaves less outside', () => {
    const ledger = demo('demo-bakehouse')
    const results = assess(ledger.house).results
    const site = new Site(ledger.house)
    const outside = (
      access: readonly (typeof ACCESS)[number][],
      instruments: readonly (typeof INSTRUMENTS)[number][],
    ) =>
      visitOf(
        site,
        results,
        scopeOf({ purpose: 'remodel', access: [...access], instruments: [...instruments] }),
      ).counts.outside
    let last = outside(['seen'], [])
    for (let i = 1; i <= ACCESS.length; i++) {
      const now = outside(ACCESS.slice(0, i), INSTRUMENTS)
      expect(now).toBeLessThanOrEqual(last)
      last = now
    }
    const without = outside(ACCESS, [])
    expect(outside(ACCESS, INSTRUMENTS)).toBeLessThan(without)
  })
  it('the sample: one of a room, each ground-fault place, what the client named', () => {
    const site = siteOf({
      corvit: 1,
      form: 'house',
      premises: { yearBuilt: 1990 },
      rooms: [
        { id: 'bed', use: 'bedroom' },
        { id: 'bath', use: 'bathroom' },
      ],
      outlets: [
        { id: 'a', room: 'bed', type: 'receptacle' },
        { id: 'b', room: 'bed', type: 'receptacle' },
        { id: 'c', room: 'bed', type: 'receptacle' },
        { id: 'd', room: 'bath', type: 'receptacle' },
        { id: 'e', room: 'bath', type: 'receptacle' },
      ],
    })
    const results = assess(site.house).results
    const lamps = (scope: Scope) =>
      asked(visitOf(site, results, scope))
        .filter(k => k.endsWith(' lamps'))
        .sort()
    expect(lamps(scopeOf({ purpose: 'purchase' }))).toEqual(['a lamps', 'd lamps', 'e lamps'])
    expect(lamps(scopeOf({ purpose: 'purchase', named: ['c'] }))).toEqual([
      'c lamps',
      'd lamps',
      'e lamps',
    ])
    expect(
      lamps(scopeOf({ purpose: 'purchase', sample: 'only those named', named: ['b'] })),
    ).toEqual(['b lamps'])
    expect(lamps(scopeOf({ purpose: 'purchase', sample: 'every outlet' }))).toHaveLength(5)
  })
  it('in a house of two-wire years each receptacle with three slots', () => {
    const house = (yearBuilt: number) =>
      siteOf({
        corvit: 1,
        form: 'house',
        premises: { yearBuilt },
        rooms: [{ id: 'bed', use: 'bedroom' }],
        outlets: ['a', 'b', 'c'].map(id => ({
          id,
          room: 'bed',
          type: 'receptacle',
          slots: 'three',
        })),
      })
    const lamps = (site: Site) =>
      asked(visitOf(site, assess(site.house).results, scopeOf())).filter(k => k.endsWith(' lamps'))
        .length
    expect(lamps(house(1950))).toBe(3)
    expect(lamps(house(1980))).toBe(1)
  })
  it('a call for one circuit asks about it, its panel and its rooms, and nothing else', () => {
    const ledger = seventies()
    const v = visit(ledger, scopeOf({ purpose: 'service', area: ['c0'] }))
    const things = new Set(v.stops.flatMap(s => s.questions.flatMap(q => q.things.map(t => t.id))))
    expect(things.has('p0-0')).toBe(true)
    expect(things.has('b0')).toBe(true)
    expect(things.has('main')).toBe(true)
    expect([...things].some(id => /^(b|c|s)([1-9]|p5)/.test(id))).toBe(false)
    expect(v.limitations.find(l => l.class === 'area')?.judgments).toBeGreaterThan(100)
  })
  it('widening for one thing brings back its looks and no others', () => {
    const ledger = demo('demo-sorrel-bank')
    const outlet = new Site(ledger.house).all.outlet[0]!.id
    const plainVisit = asked(visit(ledger, scopeOf({ purpose: 'purchase' })))
    const wide = asked(visit(ledger, scopeOf({ purpose: 'purchase', widened: [outlet] })))
    const added = wide.filter(k => !plainVisit.includes(k))
    expect(added.length).toBeGreaterThan(3)
    expect(added.every(k => k.startsWith(`${outlet} `))).toBe(true)
  })
  it('is read from the job, and what is asked for now goes on top', () => {
    const site = siteOf({
      corvit: 1,
      form: 'house',
      premises: { purpose: 'purchase' },
      visits: [{ id: 'v', coverOff: false, multimeter: true, sample: 'every outlet' }],
    })
    const scope = recordedScope(site)
    expect(scope.access.has('cover off')).toBe(false)
    expect(scope.instruments.has('multimeter')).toBe(true)
    expect(scope.sample).toBe('every outlet')
    expect(recordedScope(site, { sample: 'one per room' }).sample).toBe('one per room')
    // Asked for as another kind of visit, its own preset holds.
    expect(recordedScope(site, { purpose: 'remodel' }).access.has('cover off')).toBe(true)
  })
  it('a scope file with an unknown word is refused', () => {
    expect(scopeSchema.safeParse({ purpose: 'holiday' }).success).toBe(false)
    expect(scopeSchema.safeParse({ access: ['cover off'], colour: 1 }).success).toBe(false)
    expect(scopeSchema.safeParse({ access: ['cover off'] }).success).toBe(true)
  })
})

describe('what cannot be seen', () => {
  it('is told with its reason and asked for no more', () => {
    const ledger = seventies()
    const scope = scopeOf({ purpose: 'purchase' })
    const before = visit(ledger, scope)
    expect(asked(before)).toContain('main mainKind')
    ledger.append([block('main', 'mainKind')])
    const after = visit(ledger, scope)
    expect(asked(after)).not.toContain('main mainKind')
    expect(after.notSeen).toContainEqual(
      expect.objectContaining({ thing: 'main', reason: 'locked' }),
    )
  })
})

describe('the next look', () => {
  it('is worth more where a judgment leans on it', () => {
    const v = visit(demo('demo-sorrel-bank'), scopeOf({ purpose: 'remodel' }))
    for (const s of v.stops) {
      const worths = s.questions.map(q => q.worth)
      expect(worths).toEqual([...worths].sort((a, b) => b - a))
    }
    expect(v.stops.some(s => s.questions.some(q => q.leans))).toBe(true)
  })
  it('what is alike is one question with many things', () => {
    const v = visit(seventies(), scopeOf({ purpose: 'purchase' }))
    const shutters = v.stops.flatMap(s => s.questions).filter(q => q.field === 'isTamperResistant')
    expect(shutters).toHaveLength(1)
    expect(shutters[0]!.things.length).toBeGreaterThan(20)
  })
  it('a two-wire cable is not asked for a second hot, and the limitations say so', () => {
    const house = (conductors: number) =>
      siteOf({
        corvit: 1,
        form: 'house',
        premises: {},
        enclosures: [
          {
            id: 'main',
            type: 'panel',
            breakers: [
              { id: 'b', poles: 1, circuit: { id: 'c', segments: [{ id: 's', conductors }] } },
            ],
          },
        ],
      })
    const ask = (site: Site) => visitOf(site, assess(site.house).results, scopeOf())
    expect(asked(ask(house(2)))).not.toContain('c sharesNeutralWith')
    expect(ask(house(2)).limitations.some(l => l.class === 'presumed: one-hot')).toBe(true)
    expect(asked(ask(house(3)))).toContain('c sharesNeutralWith')
  })
})

it('a purchase of a 1970s house of 30 circuits ends, with every question answered, in 150 answers', () => {
  const ledger = seventies()
  const scope = scopeOf({ purpose: 'purchase' })
  let answers = 0
  for (let round = 0; round < 60; round++) {
    const v = visit(ledger, scope)
    if (v.answers === 0) break
    const attested = v.stops.filter(s => s.attestation)
    const notes: Observation[] = []
    for (const s of attested) {
      answers++
      for (const w of s.attestation!.writes) notes.push(note(w.thing, w.field, w.value))
    }
    if (attested.length === 0)
      for (const s of v.stops) {
        const [q] = s.questions
        if (!q) continue
        answers++
        for (const t of q.things) {
          const value = answer(q.kind, q.field)
          notes.push(value === undefined ? block(t.id, q.field) : note(t.id, q.field, value))
        }
      }
    ledger.append(notes)
  }
  expect(visit(ledger, scope).counts.inScope).toBe(0)
  expect(answers).toBeLessThanOrEqual(150)
  expect(answers).toBeGreaterThan(60)
})

it('a fact of a visit that does not exist is refused', () => {
  expect(() =>
    readJob({ corvit: 1, form: 'house', premises: {}, visits: [{ colour: 1 }] } as object, {
      at: '2026-01-01T08:00:00.000Z',
      by: 't',
      nextId: stamp,
    }),
  ).toThrow()
})

describe('the house the screens show', () => {
  it('asks for 150 checks at most with purpose "purchase"', () => {
    const house = new Ledger(observe(DEMO_HOUSES[0]?.file() as Node)).house
    const site = new Site(house)
    const { counts, answers } = visitOf(site, assess(house).results, recordedScope(site))
    expect(recordedScope(site).purpose).toBe('purchase')
    expect(counts.inScope).toBeLessThanOrEqual(150)
    expect(counts.inScope).toBeGreaterThan(100)
    expect(answers).toBeLessThan(100)
  })
})
