import { understand } from '#core'
import { siteOf, type Node } from '../../support/house'

const house: Node = {
  corvit: 1,
  form: 'house',
  premises: {},
  rooms: [
    { id: 'k', name: 'Kitchen', use: 'kitchen' },
    { id: 'b1', name: 'North bedroom', use: 'bedroom' },
    { id: 'b2', name: 'South bedroom', use: 'bedroom' },
  ],
  enclosures: [
    {
      id: 'main',
      name: 'Cellar panel',
      type: 'panel',
      fedFrom: 'utility',
      place: 'indoors',
      mainKind: 'main breaker',
      bars: [{ id: 'nb', role: 'neutral', screwList: [{ id: 'n1', position: 1 }] }],
      breakers: [
        {
          id: 'b-seven',
          space: 7,
          circuit: { id: 'lights', segments: [{ id: 'wire' }] },
        },
        { id: 'fb', space: 2, role: 'feeder' },
      ],
    },
    { id: 'sub', name: 'Garage panel', type: 'panel', fedFrom: 'f' },
  ],
  feeders: [{ id: 'f', from: 'fb' }],
  outlets: [
    { id: 'o1', name: 'north wall', room: 'k', type: 'receptacle' },
    { id: 'o2', name: 'by the window', room: 'k', type: 'receptacle' },
    { id: 'o3', room: 'b1', type: 'receptacle' },
  ],
  electrodes: [{ id: 'rod', type: 'rod', landsIn: 'main' }],
}
const site = siteOf(house)
const hear = (place: string | undefined, say: string, selected?: string) => {
  const { means, asks, notUnderstood } = understand(site, { place, selected }, say)
  return {
    facts: means.map(
      m => `${m.isNew ? 'new ' : ''}${m.thing} ${m.field} ${JSON.stringify(m.value)}`,
    ),
    asks: asks.map(a => a.text),
    left: notUnderstood,
  }
}

describe('in a job the things have their own ids', () => {
  it.each<[string, string | undefined, string, string[], string?]>([
    [
      'a breaker by its space',
      'main',
      'space seven twenty amp twelve gauge',
      ['b-seven ratingAmps 20', 'wire size "12"'],
    ],
    [
      'what is selected',
      'main',
      'twenty amp copper',
      ['b-seven ratingAmps 20', 'wire metal "copper"'],
      'b-seven',
    ],
    ['from its wire', 'main', 'twenty amp', ['b-seven ratingAmps 20'], 'wire'],
    [
      'a space nobody has recorded',
      'main',
      'space nine fifteen amp',
      ['new main/9 space 9', 'new main/9 ratingAmps 15'],
    ],
    [
      'another panel by its name',
      'main',
      'garage panel, no bonding screw',
      ['sub bondMeans "none"'],
    ],
    ['its feeder', 'sub', 'feeder six gauge copper', ['f size "6"', 'f metal "copper"']],
    [
      'the service panel where no place is given',
      undefined,
      'two hundred amp main',
      ['main mainAmps 200'],
    ],
    ['an outlet by its name', 'k', 'by the window open ground', ['o2 lamps "open ground"']],
    [
      'all outlets of a room',
      'k',
      'all tamper resistant',
      ['o1 isTamperResistant true', 'o2 isTamperResistant true'],
    ],
    ['the last of the room', 'k', 'last one cracked', ['o2 condition "cracked"']],
    ['a room by its name', 'k', 'north bedroom last one two slot', ['o3 slots "two"']],
    [
      'more outlets of a room',
      'k',
      'one light',
      ['new k/outlet-3 room "k"', 'new k/outlet-3 type "luminaire"'],
    ],
    ['a rod that is there', 'main', 'ground rod eighteen ohms', ['rod ohms 18']],
    ['a screw of the bar by its number', 'main', 'two neutrals under screw one', ['n1 neutrals 2']],
    [
      'a screw nobody has recorded',
      'main',
      'two neutrals under screw five',
      ['new nb/screw-5 neutrals 2'],
    ],
    [
      'a shared neutral',
      'main',
      'space seven shares neutral with two',
      ['lights sharesNeutralWith ["fb/circuit"]'],
    ],
  ])('%s', (_, place, say, facts, ...[selected]) => {
    const heard = hear(place, say, selected)
    expect(heard.facts).toEqual(facts)
    expect(heard.left).toEqual([])
  })
  it('a word that fits two rooms is asked', () => {
    expect(hear('k', 'bedroom two receptacles').asks).toEqual(['Which room is “bedroom”?'])
  })
  it('a breaker spoken of beside no panel is asked', () => {
    expect(understand(undefined, {}, 'space seven twenty amp').asks[0]?.text).toBe('Which panel?')
  })
  it('what is said wrong and corrected keeps both', () => {
    const { means } = understand(site, { place: 'main' }, 'space seven fifteen amp, no, twenty amp')
    expect(means).toContainEqual(
      expect.objectContaining({ field: 'ratingAmps', value: 20, was: 15 }),
    )
  })
  it('units are turned into those of the field', () => {
    const { means } = understand(
      site,
      { place: 'k', selected: 'o1' },
      'eighteen inches from the sink',
    )
    expect(means[0]).toMatchObject({ field: 'sinkFt', value: 1.5, unit: 'ft' })
  })
  it('of nothing it makes nothing', () => {
    expect(understand(site, {}, '   ')).toMatchObject({ means: [], notUnderstood: [], asks: [] })
    expect(understand(site, {}, ', . ;')).toMatchObject({ means: [], notUnderstood: [], asks: [] })
  })
  it('a long jumble ends, and nothing of it is kept', () => {
    const jumble = 'wurble snark flim '.repeat(100)
    const { means, notUnderstood } = understand(site, { place: 'main' }, jumble)
    expect(means).toEqual([])
    expect(notUnderstood.length).toBeGreaterThan(0)
  })
})
