import { assess, bondMapOf, openLoopsOf, Site, STAGES, timelineOf, walkOf, Ledger } from '#core'
import { bakehouse } from '#core/examples/bakehouse'
import { hillside } from '#core/examples/hillside'
import { tarn } from '#core/examples/tarn'
import { observe, panel, siteOf, type Node } from '../../support/house'

const at = (file: () => object) => {
  const house = new Ledger(observe(file() as Node)).house
  return { site: new Site(house), results: assess(house).results }
}
const [hill, bake, sound] = [at(hillside), at(bakehouse), at(tarn)]

describe('the walk as a route', () => {
  const walk = walkOf(hill.site, hill.results)
  it('keeps to the order of work and names every open look once', () => {
    const stages = walk.stops.map(s => STAGES.indexOf(s.stage))
    expect(stages).toEqual([...stages].sort((a, b) => a - b))
    const looks = walk.stops.flatMap(s => s.looks.map(l => `${l.subject} ${l.field}`))
    expect(new Set(looks).size).toBe(looks.length)
    const open = new Set(
      hill.results
        .flatMap(r => r.missing)
        .filter(m => m.state !== 'blocked')
        .map(m => `${m.subject} ${m.field}`),
    )
    expect(new Set(looks)).toEqual(open)
  })
  it('what could not be seen is told apart, with its reason, and stays unsettled', () => {
    expect(walk.blocked.map(b => b.reason)).toContain('attic hatch painted shut')
    expect(walk.settled).toBe(
      hill.results.filter(r => ['fault', 'allowed', 'clear'].includes(r.outcome)).length,
    )
    expect(walk.total - walk.settled).toBe(
      hill.results.filter(r => r.outcome === 'undecided').length,
    )
  })
  it('coverage adds up, place by place', () => {
    expect(walk.coverage.reduce((n, c) => n + c.total, 0)).toBe(walk.total)
    expect(walk.coverage.reduce((n, c) => n + c.settled, 0)).toBe(walk.settled)
  })
  it('a stage at the open panel carries its cautions', () =>
    expect(walk.stops.find(s => s.stage === 'cover off')!.cautions.join()).toContain(
      'line side stays live',
    ))
})

describe('the bond map', () => {
  const tie = (m: ReturnType<typeof bondMapOf>, id: string) => m.ties.find(t => t.id === id)?.state
  const map = bondMapOf(hill.site, hill.results)
  it('finds the missing, the second and the lawful old bond', () => {
    expect(tie(map, 'bond well-panel')).toBe('missing')
    expect(tie(map, 'bond studio-panel')).toBe('second')
    expect(tie(map, 'bond green-panel')).toBe('lawful old')
    expect(tie(map, 'bond garden')).toBe('not seen')
    expect(tie(map, 'bond main')).toBe('sound')
    expect(tie(map, 'egc green-feeder')).toBe('lawful old')
  })
  it('asks first which is the service disconnect, as long as that is open', () => {
    expect(map.firstQuestion?.subject).toBe('attic-disconnect')
    expect(bondMapOf(sound.site, sound.results).firstQuestion).toBeUndefined()
  })
  it('draws an isolated bar as unsound', () => {
    const site = siteOf(
      panel([], {
        bondMeans: 'screw',
        bars: [{ id: 'g', role: 'ground', isTiedToNeutral: false, isBondedToEnclosure: false }],
      }),
    )
    expect(tie(bondMapOf(site, assess(site.house).results), 'bond main')).toBe('unsound')
  })
  it('draws the steel and the block of the telephone by what their bonds land on', () => {
    const m = bondMapOf(bake.site, bake.results)
    const drawn = (id: string) => {
      const { what } = m.nodes.find(n => n.id === id)!
      const { to, text, state } = m.ties.find(t => t.from === id)!
      return { what, to, text, state }
    }
    expect(drawn('building steel')).toEqual({
      what: 'building steel',
      to: 'oven',
      text: 'clamp on paint',
      state: 'unsound',
    })
    expect(drawn('communications telephone')).toMatchObject({
      what: 'communications',
      text: 'on its own electrode',
      state: 'missing',
    })
  })
  it.each<[string, Node, string, string]>([
    ['ends on nothing', { landsOn: 'nothing' }, 'ends on nothing', 'missing'],
    [
      'is clamped behind a finish, where it need not be reached',
      { landsOn: 'ground bar', connection: 'sound', clampPlace: 'behind a finish' },
      'sound',
      'sound',
    ],
    [
      'is one of steel, clamped behind a finish',
      { to: 'building steel', landsOn: 'ground bar', clampPlace: 'behind a finish' },
      'clamp behind a finish',
      'unsound',
    ],
    [
      'is loose, on an electrode of its own that is joined to the others',
      { landsOn: 'an electrode of its own', connection: 'loose' },
      'loose',
      'unsound',
    ],
    [
      'is one of steel, on an electrode of its own',
      { to: 'building steel', landsOn: 'an electrode of its own' },
      'on its own electrode',
      'missing',
    ],
    ['is loose', { landsOn: 'ground bar', connection: 'loose' }, 'loose', 'unsound'],
    [
      'is whole',
      { landsOn: 'ground bar', connection: 'sound', size: '6' },
      '6 AWG, sound',
      'sound',
    ],
    ['was seen and not followed', { connection: 'sound' }, 'follow it to its end', 'not seen'],
  ])('draws a bond that %s', (_, bond, text, state) => {
    const bonds = [{ id: 'block', to: 'communications', ...bond }]
    const site = siteOf({
      ...panel([], {}, { edition: 2020, electrodesTogether: 'joined' }),
      bonds,
    })
    const m = bondMapOf(site, assess(site.house).results)
    expect(m.ties.find(t => t.subject === 'block')).toMatchObject({ text, state })
  })
  it('says of a pipe bond that it ends on nothing, and draws it unsound', () => {
    const water = { to: 'water piping', landsOn: 'nothing', connection: 'sound', size: '6' }
    const premises = { edition: 2020, waterPiping: 'metal' }
    const site = siteOf({ ...panel([], {}, premises), bonds: [{ id: 'w', ...water }] })
    const m = bondMapOf(site, assess(site.house).results)
    expect(m.ties.find(t => t.subject === 'w')).toMatchObject({
      text: 'ends on nothing',
      state: 'unsound',
    })
  })
  it('looks for the termination of the communications where no bond of theirs is drawn', () => {
    const look = (m: ReturnType<typeof bondMapOf>) => m.nodes.some(n => n.id === 'communications')
    expect(look(bondMapOf(bake.site, bake.results))).toBe(false)
    const bare = siteOf(panel([], {}, {}))
    expect(look(bondMapOf(bare, assess(bare.house).results))).toBe(true)
  })
  it('every tie ends at things that are drawn, and every problem is a fault', () => {
    for (const { site, results } of [hill, bake, sound]) {
      const m = bondMapOf(site, results)
      const ids = new Set(m.nodes.map(n => n.id))
      for (const t of m.ties) expect([ids.has(t.from), ids.has(t.to)]).toEqual([true, true])
      for (const p of m.problems)
        expect(
          results.find(r => r.rule === p.rule && r.subject.id === p.subject)?.severity,
        ).not.toBe(null)
    }
    expect(bondMapOf(sound.site, sound.results).problems).toEqual([])
  })
})

describe('open loops and years', () => {
  it('a loop is closed by recording or disclosed by a reason', () => {
    const loops = openLoopsOf(hill.site)
    expect(
      loops.find(l => l.subject === 'attic-disconnect' && l.field === 'fedFrom')?.disclosed,
    ).toBe('attic hatch painted shut')
    expect(loops.find(l => l.subject === 'fan')?.disclosed).toBe('nameplate behind the duct')
    expect(openLoopsOf(sound.site)).toEqual([])
    const bare = siteOf({
      ...panel([{ id: 'b', space: 1, ratingAmps: 20 }]),
      outlets: [{ id: 'p', type: 'receptacle' }],
    })
    expect(
      openLoopsOf(bare)
        .map(l => l.subject)
        .sort(),
    ).toEqual(['b', 'p'])
  })
  it('the years of a room show what was required in it and what was put in', () => {
    const garage = hill.site.get('room-garage', 'room')!
    const moments = timelineOf(hill.site, { room: garage })
    expect(moments.filter(m => m.lane === 'required').map(m => m.year)).toEqual([1978, 2008])
    expect(timelineOf(hill.site).map(m => m.year)).toEqual(
      [...timelineOf(hill.site).map(m => m.year)].sort((a, b) => a - b),
    )
    expect(
      timelineOf(hill.site, { rule: 'surge-protector' })
        .filter(m => m.lane === 'required')
        .map(m => m.year),
    ).toEqual([2020])
  })
})
