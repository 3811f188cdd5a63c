import type { Site } from '../derive/site'
import { valueOf } from '../model/house'
import { labelOf } from '../texts/labels'
import { ROOM_NAMES, ROOM_PATTERN } from './names'
import { normalize } from './normalize'
import { reads, SIZE, type Phrase } from './phrases'
import type { Focus, Reader } from './reader'
import type { JobThings } from './things'

const ORDINALS: Readonly<Record<string, number>> = {
  first: 1,
  second: 2,
  third: 3,
  fourth: 4,
  fifth: 5,
  sixth: 6,
  seventh: 7,
  eighth: 8,
}
const TYPES: readonly (readonly [RegExp, string])[] = [
  [/^(?:receptacle|outlet)/, 'receptacle'],
  [/^switch/, 'switch'],
  [/^(?:light|fixture|luminaire)/, 'luminaire'],
  [/^(?:smoke )?(?:alarm|detector)/, 'alarm'],
  [/^junction/, 'junction box'],
]
const NOUNS =
  '(receptacles?|outlets?|switch(?:es)?|lights?|fixtures?|luminaires?|(?:smoke ' +
  ')?(?:alarms?|detectors?)|junction box(?:es)?)'
const ADJECTIVES =
  '(?:(?:3|2) (?:slots?|prongs?)|gfci|grounded|tamper resistant|weather resistant|duplex|' +
  'old|plain|regular|ungrounded|new|single|afci|counter|kitchen counter)'

/** Words that say what is spoken of next. */
export function focusPhrases(
  things: JobThings,
  site: Site | undefined,
  turn: (focus: Focus) => void,
): readonly Phrase[] {
  const inRoom: readonly Focus[] = ['property', 'room', 'outlet']
  const breaker = (m: RegExpExecArray, r: Reader): boolean => {
    const space = Number(m[1])
    if (space < 1 || space > 84) {
      r.ask(`Space ${m[1]}: there is no such space`)
      return true
    }
    const half = (m[2] ?? m[3] ?? m[4]) as 'a' | 'b' | undefined
    if (!things.breakerAt(space, half)) {
      r.ask('Which panel?')
      return true
    }
    r.isNarrow = false
    if (things.of('breaker')[0]?.isNew) {
      r.put('breaker.space', space)
      if (half) r.put('breaker.half', half)
    }
    turn('breaker')
    return true
  }
  const outlets = (count: number, type: string | undefined, r: Reader): boolean => {
    if (!things.room) {
      r.ask('Which room?')
      return true
    }
    if (count < 1 || count > 40) {
      r.ask(`${count} outlets in one room: how many are there?`)
      return true
    }
    things.group(count)
    r.isNarrow = false
    turn('outlet')
    r.put('outlet.room', things.room.id)
    if (type) r.put('outlet.type', type)
    return true
  }
  const typeOf = (noun: string) => TYPES.find(([p]) => p.test(noun))?.[1]
  const room = (name: string, r: Reader): boolean => {
    const use = ROOM_NAMES[name.replace(/ \d+$/, '')] ?? name
    if (things.roomCalled(name) || (site && things.roomCalled(use))) {
      r.isNarrow = false
      turn('room')
      return true
    }
    r.ask(`Which room is “${name}”?`)
    return true
  }
  return [
    reads(
      '(?:in |on |at )?(?:the )?(?:space|slot|position|breaker|circuit)s? (?:number ' +
        ')?(\\d{1,2})(?:([ab])| (b)| (a)(?= ?(?:[,.;]|$)))?(?! (?:amp|gauge|volts|pole|ohms|' +
        'spaces?))',
      breaker,
      undefined,
    ),
    reads(
      '(?:in |on |at )?(?:the )?number (\\d{1,2})([ab])?(?= (?:\\d+ amp|is|has|[123] pole)\\b)',
      breaker,
      ['enclosure', 'main', 'breaker'],
    ),
    reads(
      '(?:the )?(?:breaker|fuse) (?:in|at|on) (?:space |slot |position |number )?(\\d{1,2})([ab])?',
      breaker,
    ),
    // A number that a sentence begins with is the space it speaks of.
    reads(
      '(\\d{1,2})(?= (?:is|has|feeds|could not|runs|feels|serves|[123] pole|\\d+ amp)\\b)',
      (m, r) => (/(?:^|[.;:] ?)$/.test(m.input.slice(0, m.index)) ? breaker(m, r) : false),
      ['enclosure', 'main', 'breaker'],
    ),
    reads(
      '(\\d{1,2})(?= is (?:a |an )?(?:\\d+ amp|\\d+ on|spare|gfci|afci|doubletapped|melted))',
      breaker,
      ['enclosure', 'main', 'breaker'],
    ),
    reads(
      '(?:the )?(?:breakers?|spaces?|slots?|positions?|circuits?) (\\d{1,2}) (?:and|plus|' +
        'through|to) (?:space )?(\\d{1,2})(?! (?:amp|gauge|volts))',
      (m, r) => {
        const [a, b] = [Number(m[1]), Number(m[2])]
        if (!things.breakerAt(a, undefined)) {
          r.ask('Which panel?')
          return true
        }
        if (things.of('breaker')[0]?.isNew) r.put('breaker.space', a)
        turn('breaker')
        // Two spaces of one side below each other: one breaker of two poles, unless two are spoken of.
        if (b - a === 2 && !/breakers|circuits/.test(m[0])) r.put('breaker.poles', 2)
        else if (!/share/.test(m.input.slice(m.index)))
          r.ask(`Spaces ${a} and ${b}: one breaker, or two?`)
        return true
      },
    ),
    reads(
      '(?:circuits? |breakers? |spaces? )?(\\d{1,2}) and (?:circuit |breaker |space ' +
        ')?(\\d{1,2}) (?:share|are sharing) (?:a |one |the )?neutral',
      (m, r) => {
        if (!things.breakerAt(Number(m[1]), undefined)) return false
        if (things.of('breaker')[0]?.isNew) r.put('breaker.space', Number(m[1]))
        turn('breaker')
        const other = things.circuitAt(Number(m[2]))
        return other ? r.put('circuit.sharesNeutralWith', [other]) : false
      },
    ),
    reads(
      [
        '(?:shares?|sharing) (?:a |its |the )?neutral with (?:the )?(?:space |breaker |circuit |' +
          'number )?(\\d{1,2})',
        'multiwire with (?:space |breaker |circuit )?(\\d{1,2})',
      ],
      (m, r) => {
        const other = things.circuitAt(Number(m[1] ?? m[2]))
        return other ? r.put('circuit.sharesNeutralWith', [other]) : false
      },
      ['breaker'],
    ),
    reads(
      '(?:has )?(?:its )?own neutral|(?:does not|not) shar(?:e|ing)(?: a| its)? neutral',
      (_, r) => r.put('circuit.sharesNeutralWith', []),
      ['breaker'],
    ),
    reads(
      '(?:(\\d+|two|three) )neutrals (?:are )?(?:under|on|in) (?:(?:one|1|a|the same|a single) ' +
        '(?:screw|terminal|lug)|screw (?:number )?(\\d+))',
      (m, r) => {
        things.screwAt(m[2] === undefined ? undefined : Number(m[2]))
        return r.put('screw.neutrals', Number(m[1]))
      },
      ['enclosure', 'main', 'service', 'breaker'],
    ),
    reads(
      '(?:a )?neutral and (?:a )?ground (?:are )?(?:under|on|in) (?:(?:one|1|a|the same|a ' +
        'single) (?:screw|terminal|lug)|screw (?:number )?(\\d+))',
      (m, r) => {
        things.screwAt(m[1] === undefined ? undefined : Number(m[1]))
        return r.put('screw.neutrals', 1) && r.put('screw.grounds', 1)
      },
      ['enclosure', 'main', 'service', 'breaker'],
    ),
    reads(
      '(?:the )?main(?: disconnect)?(?! lugs)',
      () => {
        if (!things.hasEnclosure) return false
        turn('main')
      },
      ['enclosure', 'main', 'breaker', 'service'],
    ),
    reads(
      '(?:the |this |main )*(?:panel|load center|enclosure)',
      () => {
        if (!things.hasEnclosure) return false
        turn('enclosure')
      },
      ['enclosure', 'main', 'breaker', 'service', 'feeder'],
    ),
    reads(
      '(?:the )?service(?: entrance)? (?:conductors?|wires?|cable|entrance)|(?:the )?service entrance',
      () => {
        if (!things.hasEnclosure) return false
        turn('service')
      },
    ),
    reads(
      `(?:${SIZE} )?(copper|aluminum) service(?: (?:conductors?|entrance|wires?))?`,
      (m, r) => {
        if (m[1]) r.put('enclosure.serviceSize', m[1])
        return r.put('enclosure.serviceMetal', m[2] ?? '')
      },
      ['enclosure', 'main', 'service', 'property'],
    ),
    reads(
      '(?:the )?feeder(?: (?:is|wires?|conductors?|cable))?|fed (?:by|with)(?: a)?',
      () => {
        if (!things.feederHere()) return false
        turn('feeder')
      },
      ['enclosure', 'main', 'service', 'feeder'],
    ),
    reads(
      `(?:in |at )?(?:the )?(${ROOM_PATTERN})(?! (?:${'light|lights|circuit|breaker|panel'}))`,
      (m, r) => room(m[1] ?? '', r),
      inRoom,
    ),
    reads(
      `(\\d+|an|a|another) (?:more |of )?${NOUNS}`,
      (m, r) => outlets(/^an?/.test(m[1] ?? '') ? 1 : Number(m[1]), typeOf(m[2] ?? ''), r),
      inRoom,
    ),
    reads(
      `(\\d+|an|a|another)(?= ${ADJECTIVES}(?: ${ADJECTIVES})* ${NOUNS})`,
      (m, r) => {
        const noun = new RegExp(`${NOUNS}`).exec(m.input.slice(m.index))
        return outlets(/^an?/.test(m[1] ?? '') ? 1 : Number(m[1]), typeOf(noun?.[1] ?? ''), r)
      },
      inRoom,
    ),
    reads(
      `(?:the )?(first|second|third|fourth|fifth|sixth|seventh|eighth|last)` +
        `(?! (?:year|month|week|time|spring|summer|fall|winter|owner|floor))(?: (?:one|1|` +
        `receptacle|outlet|switch|light))?`,
      (m, r) => {
        const which = m[1] === 'last' ? 'last' : (ORDINALS[m[1] ?? ''] ?? 0)
        if (!things.nth(which)) r.ask(`The ${m[1]} of which outlets?`)
        r.isNarrow = true
        turn('outlet')
      },
      ['room', 'outlet'],
    ),
    reads(
      '(?:the )?(first|last) (\\d)(?: (?:ones|receptacles|outlets))?',
      (m, r) => {
        if (!things.several(Number(m[2]), m[1] === 'last'))
          r.ask(`The ${m[1]} ${m[2]} of which outlets?`)
        r.isNarrow = true
        turn('outlet')
      },
      ['room', 'outlet'],
    ),
    reads(
      '(\\d+) of (?:them|these|those|the (?:receptacles|outlets))',
      (m, r) => {
        things.none()
        r.ask(`${m[1]} of which outlets?`)
        turn('outlet')
      },
      ['room', 'outlet'],
    ),
    reads(
      '(?:the )?(?:others?|rest|remaining)(?: (?:ones?|two|three|receptacles?|outlets?|are|of them))?',
      (_, r) => {
        if (!things.all(true)) return false
        r.isNarrow = true
        turn('outlet')
      },
      ['room', 'outlet'],
    ),
    reads(
      '(?:all|both|each|every one)(?: of (?:them|these|those))?(?: (?:receptacles?|outlets?))?(?: alike)?',
      (_, r) => {
        if (!things.all(false)) r.ask('All of which outlets?')
        r.isNarrow = false
        turn('outlet')
      },
      ['room', 'outlet'],
    ),
    reads('(?:(\\d+|one|a|an) )?(?:ground )?rods?', (m, r) => {
      things.electrodeOf('rod')
      turn('electrode')
      electrode('rod', r)
      const count = m[1] === undefined ? undefined : /^an?$/.test(m[1]) ? 1 : Number(m[1])
      if (count !== undefined) r.put('electrode.rods', count)
    }),
    reads(
      '(?:(?:clamped |grounded |bonded |runs |goes )?to )?(?:the )?(?:cold )?water pipe(?: (?:electrode|ground))',
      (_, r) => water(r),
    ),
    reads('(?:the )?(?:cold )?water pipe(?= (?:ground )?clamp)', (_, r) => water(r)),
    reads(
      '(?:gec|ground(?:ing)? electrode conductor|ground wire|ground goes|clamped|runs|goes|grounded) to ' +
        '(?:the )?(?:cold )?water pipe',
      (_, r) => water(r),
    ),
    reads('(?:clamped |runs |goes )?to (?:the )?(?:cold )?water pipe', (_, r) => water(r), [
      'property',
      'enclosure',
      'main',
      'service',
      'electrode',
    ]),
    reads('(?:concrete encased(?: electrode)?|footing steel|rebar in the footing)', (_, r) => {
      things.electrodeOf('concrete-encased')
      turn('electrode')
      electrode('concrete-encased', r)
    }),
    reads('(?:gec|ground(?:ing)? electrode conductor)', (m, r) => {
      // The electrode it runs to may be named further on.
      const rest = m.input.slice(m.index)
      if (things.of('electrode').length > 0) turn('electrode')
      else if (!/rods?|water pipe|concrete|footing/.test(rest)) r.ask('To which electrode?')
    }),
    reads(
      '(?:no (?:ground rod|rods?|grounding electrode|electrode|gec)(?: (?:found|anywhere))?)',
      (_, r) => r.put('enclosure.electrodes', 'none found'),
      ['enclosure', 'main', 'service', 'property'],
    ),
    reads(
      [
        '(?:the )?(gas|water) bond(?: wire| conductor)?',
        'bond(?:ing)? (?:wire |conductor |jumper )?(?:to|on|of) (?:the )?(gas|water)(?: pipes?| ' +
          'piping| line)?',
      ],
      (m, r) => {
        const to = `${m[1] ?? m[2]} piping`
        things.bondTo(to)
        turn('bond')
        if (things.of('bond')[0]?.isNew) r.put('bond.to', to)
      },
    ),
    ...named(site, things, turn),
  ]

  function electrode(type: string, r: Reader): void {
    if (things.of('electrode')[0]?.isNew) r.put('electrode.type', type)
  }
  function water(r: Reader): void {
    things.electrodeOf('water pipe')
    turn('electrode')
    electrode('water pipe', r)
  }
}

/** Things of the job by their own names, longest first. */
function named(
  site: Site | undefined,
  things: JobThings,
  turn: (focus: Focus) => void,
): readonly Phrase[] {
  if (!site) return []
  const phrases: Phrase[] = []
  const escape = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  for (const enclosure of site.all.enclosure) {
    const name = normalize(labelOf(site, enclosure))
    if (!/^[a-z]/.test(name) || PLAIN_NAMES.has(name)) continue
    phrases.push(
      reads(`(?:the )?${escape(name)}(?: panel)?`, (_, r) => {
        things.select(enclosure)
        r.isNarrow = false
        turn('enclosure')
      }),
    )
  }
  for (const room of site.all.room) {
    const name = normalize(valueOf(room, 'name') ?? '')
    if (!/^[a-z]/.test(name)) continue
    phrases.push(
      reads(
        `(?:in |at )?(?:the )?${escape(name)}`,
        (_, r) => {
          things.roomCalled(name)
          r.isNarrow = false
          turn('room')
        },
        ['property', 'room', 'outlet'],
      ),
    )
  }
  for (const outlet of site.all.outlet) {
    const name = normalize(valueOf(outlet, 'name') ?? '')
    if (!/^[a-z]/.test(name) || name.length < 4) continue
    phrases.push(
      reads(
        `(?:the )?${escape(name)}`,
        (_, r) => {
          things.select(outlet)
          r.isNarrow = true
          turn('outlet')
        },
        ['property', 'room', 'outlet'],
      ),
    )
  }
  return phrases
}
/** Names that are words of their own. */
const PLAIN_NAMES: ReadonlySet<string> = new Set([
  'panel',
  'main',
  'main panel',
  'meter',
  'disconnect',
])
