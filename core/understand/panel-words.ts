import { IS, N, phrase, reads, SIZE, type Phrase } from './phrases'
import { RATINGS, type Focus, type Reader } from './reader'

const WIRED: readonly Focus[] = ['breaker', 'feeder']
const PANEL: readonly Focus[] = ['enclosure', 'main', 'service', 'breaker']
const SIZED: readonly Focus[] = ['breaker', 'feeder', 'service', 'electrode', 'bond', 'outlet']

const rating = (text: string, r: Reader, slot = 'amps'): boolean => {
  const value = Number(text)
  if (RATINGS.has(value)) return r.put(slot, value, 'A')
  r.ask(`${text} A is no standard rating; what does the handle say?`)
  return true
}

/** Conductors, wherever they are spoken of. */
export const CONDUCTOR_WORDS: readonly Phrase[] = [
  reads(
    `${SIZE}-([234])(?: (?:wire|cable))?`,
    (m, r) => {
      if (!r.put('size', m[1] ?? '')) return false
      return r.put('conductors', Number(m[2])) || true
    },
    WIRED,
  ),
  reads(
    `(?:number )?${SIZE} (?:gauge|awg)(?: (?:wire|conductors?))?`,
    (m, r) => r.put('size', m[1] ?? ''),
    SIZED,
  ),
  reads(`number ${SIZE}(?: (?:wire|conductors?))?`, (m, r) => r.put('size', m[1] ?? ''), SIZED),
  reads(
    `${SIZE}(?= (?:copper|aluminum|copperclad|cu|al)\\b)`,
    (m, r) => r.put('size', m[1] ?? ''),
    SIZED,
  ),
  reads(`(1/0|2/0|3/0|4/0|250|350|500)(?: kcmil| mcm)`, (m, r) => r.put('size', m[1] ?? ''), SIZED),
  reads(`(1/0|2/0|3/0|4/0)`, (m, r) => r.put('size', m[1] ?? ''), SIZED),
  reads(`${SIZE} wire`, (m, r) => r.put('size', m[1] ?? ''), SIZED),
  phrase('(?:tinned copper|tinned)', 'metal', 'tinned copper', ['breaker', 'feeder', 'outlet']),
  phrase('copperclad', 'metal', 'copper-clad aluminum', ['breaker', 'feeder', 'outlet']),
  phrase('(?:all )?(?:copper|cu)(?: (?:wire|conductors?))?', 'metal', 'copper', SIZED),
  phrase(
    '(?:all )?(?:aluminum|al)(?: (?:branch )?(?:circuit )?(?:wire|wiring|conductors?))?',
    'metal',
    'aluminum',
    SIZED,
  ),
  phrase('silver(?:y)?(?: looking| colored)?(?: wire| conductors?)?', 'metal', 'silver-looking', [
    'breaker',
    'feeder',
    'outlet',
  ]),
  phrase('nmb(?: cable)?', 'wiring', 'NM-B', WIRED),
  phrase('cloth(?: covered)?(?: nm)?(?: cable| wire| wiring)?', 'wiring', 'cloth NM', WIRED),
  phrase('(?:nm|non ?metallic(?: sheathed)?)(?: cable)?', 'wiring', 'NM', WIRED),
  phrase('uf(?: cable)?', 'wiring', 'UF', WIRED),
  phrase('(?:old )?spiral armor(?:ed)?(?: cable)?', 'wiring', 'old spiral armor', WIRED),
  phrase('(?:armored cable|ac cable)', 'wiring', 'armored cable', WIRED),
  phrase('mc(?: cable)?', 'wiring', 'MC', WIRED),
  phrase(
    '(?:emt|(?:rigid )?steel (?:pipe|conduit)|rigid(?: pipe| conduit)|thin wall(?: pipe| conduit)?)',
    'wiring',
    'steel conduit',
    WIRED,
  ),
  phrase('aluminum (?:pipe|conduit)', 'wiring', 'aluminum conduit', WIRED),
  phrase('(?:pvc|plastic (?:pipe|conduit))(?: pipe| conduit)?', 'wiring', 'plastic conduit', WIRED),
  phrase('flex(?:ible)?(?: metal)?(?: conduit| pipe)?', 'wiring', 'flexible conduit', WIRED),
  phrase('(?:se(?: cable)?|service entrance cable)', 'wiring', 'SE', WIRED),
  phrase('knobtube(?: wiring)?', 'wiring', 'knob-and-tube', WIRED),
  phrase('(?:with|has)(?: a)? ground(?: wire)?|grounded', 'egc', 'wire', WIRED),
  phrase('(?:no|without(?: a)?) ground(?: wire)?|ungrounded', 'egc', 'none', WIRED),
  phrase(`(?:(?:the )?insulation ${IS})?brittle(?: insulation)?`, 'insulation', 'brittle', WIRED),
  phrase(
    `(?:(?:the )?insulation ${IS})?(?:frayed|bare)(?: insulation)?`,
    'insulation',
    'frayed or bare',
    WIRED,
  ),
  phrase(`(?:the )?insulation ${IS}melted|melted insulation`, 'insulation', 'melted', WIRED),
  phrase(
    `(?:the )?insulation ${IS}(?:sound|good|fine|ok|whole)|(?:sound|good) insulation`,
    'insulation',
    'sound',
    WIRED,
  ),
  phrase('(?:rated )?60 degrees?(?: c)? (?:insulation|wire)', 'insulationC', 60, [
    'breaker',
    'feeder',
    'service',
  ]),
  phrase('(?:rated )?75 degrees?(?: c)? (?:insulation|wire)', 'insulationC', 75, [
    'breaker',
    'feeder',
    'service',
  ]),
  phrase('(?:rated )?90 degrees?(?: c)? (?:insulation|wire)', 'insulationC', 90, [
    'breaker',
    'feeder',
    'service',
  ]),
  phrase('60 degrees?(?: c)? (?:terminals?|lugs?)', 'terminalsC', 60, WIRED),
  phrase('75 degrees?(?: c)? (?:terminals?|lugs?)', 'terminalsC', 75, WIRED),
  phrase('(?:se cable|cable)', 'enclosure.serviceRaceway', 'cable', ['service']),
  phrase(
    '(?:in )?(?:metal|steel|rigid) (?:pipe|conduit|raceway)',
    'enclosure.serviceRaceway',
    'metal raceway',
    ['service'],
  ),
  phrase('nicked(?: wire| conductor)?', 'segment.workmanship', 'nicked', ['breaker']),
  phrase(
    '(?:the )?white (?:wire )?(?:(?:is )?(?:used )?(?:as|for) (?:a |the )?|(?:is|was) (?:a |the )?)hot',
    'segment.isWhiteHot',
    true,
    ['breaker'],
  ),
  phrase(
    '(?:the )?(?:white )?(?:not |never )(?:re)?(?:marked|taped)',
    'segment.isWhiteMarked',
    false,
    ['breaker'],
  ),
  phrase(
    '(?:re)marked|white (?:is )?(?:re)?(?:marked|taped)|taped',
    'segment.isWhiteMarked',
    true,
    ['breaker'],
  ),
]

/** What is said of one breaker. */
export const BREAKER_WORDS: readonly Phrase[] = [
  phrase('one pole', 'breaker.poles', 1, ['breaker']),
  phrase('two pole', 'breaker.poles', 2, ['breaker']),
  phrase('three pole', 'breaker.poles', 3, ['breaker']),
  reads(
    '([123]) pole (\\d{2,3})(?: amp)?(?! (?:gauge|awg|volts|ohms|wire|degrees))',
    (m, r) => {
      const [, poles, amps = ''] = m
      if (!RATINGS.has(Number(amps))) return false
      return r.put('breaker.poles', Number(poles)) && rating(amps, r)
    },
    ['breaker'],
  ),
  reads('([123]) pole', (m, r) => r.put('breaker.poles', Number(m[1])), ['breaker']),
  reads(
    `(?:load|measured|measures|draws|drawing|pulls|pulling|carries|carrying|clamped at|clamp ` +
      `reads|clamp says|clamps at) ${IS}${N} amp`,
    (m, r) => r.put('circuit.loadAmps', Number(m[1]), 'A'),
    ['breaker'],
  ),
  reads(
    `${N} amp(?:s)? (?:of )?(?:load|on the clamp|measured|by clamp)`,
    (m, r) => r.put('circuit.loadAmps', Number(m[1]), 'A'),
    ['breaker'],
  ),
  reads(
    `at ${N} amp(?: (?:of )?load)?`,
    // Said beside a temperature, amperes are the load of that moment.
    (m, r) =>
      /degrees|warm|hot/.test(m.input.slice(0, m.index))
        ? r.put('circuit.loadAmps', Number(m[1]), 'A')
        : false,
    ['breaker'],
  ),
  reads(`${N} amp(?: (?:circuit )?breaker| fuse)?`, (m, r) => rating(m[1] ?? '', r), ['breaker']),
  reads(`(?:rated|rating) ${IS}${N}(?: amp)?`, (m, r) => rating(m[1] ?? '', r), ['breaker']),
  phrase(
    '(?:the )?(?:breaker )?(?:is )?(?:a )?gfci(?: breaker| protected)?',
    'protection',
    'GFCI',
    ['breaker'],
  ),
  phrase('(?:is )?(?:a )?(?:combination )?afci(?: breaker| protected)?', 'protection', 'AFCI', [
    'breaker',
  ]),
  phrase('(?:is )?(?:a )?dual(?: breaker)?', 'protection', 'dual', ['breaker']),
  phrase(
    '(?:is )?(?:a )?(?:plain|standard|regular|ordinary)(?: breaker)?',
    'protection',
    'standard',
    ['breaker'],
  ),
  phrase(
    '(?:a |with )?(?:listed|factory) (?:handle )?tie(?:d)?',
    'breaker.handleTie',
    'listed tie',
    ['breaker'],
  ),
  phrase(
    '(?:tied (?:together )?(?:with|by) (?:a |some )?(?:nail|wire|screw|bolt|solder)|' +
      'improvised tie|homemade tie|nail (?:as a |for a )?tie)',
    'breaker.handleTie',
    'improvised tie',
    ['breaker'],
  ),
  phrase('(?:not tied|untied|no (?:handle )?tie)', 'breaker.handleTie', 'not tied', ['breaker']),
  phrase('common trip', 'breaker.handleTie', 'common trip', ['breaker']),
  reads(
    '(?:a |with )?(?:handle tie|tied(?: together)?)',
    (_, r) => r.ask('Tied by what: a listed tie, or something put there?'),
    ['breaker'],
  ),
  reads(
    '(?:is )?(?:a )?(?:twin|tandem)(?: breaker)?',
    (_, r) => r.ask('A twin: which half of the space is it, a or b?'),
    ['breaker'],
  ),
  phrase('(?:is )?(?:a )?spare', 'breaker.role', 'spare', ['breaker']),
  phrase('(?:is )?backfed', 'breaker.role', 'backfed source', ['breaker']),
  phrase(
    'feeds (?:the |a )?(?:lower (?:section|bus|half))',
    'breaker.role',
    'main of the lower section',
    ['breaker'],
  ),
  phrase(
    '(?:feeds|feeding|for) (?:the |a )?(?:\\w+ )?(?:subpanel|sub|panel)|(?:is )?(?:a )?feeder',
    'breaker.role',
    'feeder',
    ['breaker'],
  ),
  phrase('plug fuse', 'breaker.device', 'plug fuse', ['breaker']),
  phrase('cartridge fuse', 'breaker.device', 'cartridge fuse', ['breaker']),
  phrase('type s(?: adapter)?', 'breaker.fuseBase', 'Type S adapter', ['breaker']),
  phrase('edison base', 'breaker.fuseBase', 'Edison base', ['breaker']),
  phrase(
    [
      '(?:the )?(?:test )?button (?:works|trips(?: it)?|is (?:ok|good|fine))',
      'trips (?:on|by) (?:its |the )?(?:test )?button',
      'tests? (?:ok|good|fine)',
      'tested (?:ok|good|fine)',
      '(?:it )?(?:trips|tripped)(?: (?:ok|good|fine))?',
    ],
    'testButton',
    'trips',
    ['breaker'],
  ),
  phrase(
    [
      '(?:does not|will not|did not) trip',
      '(?:the )?(?:test )?button (?:does nothing|is dead|does not work)',
      '(?:failed|fails) (?:its |the )?(?:test|button)',
    ],
    'testButton',
    'does not trip',
    ['breaker'],
  ),
  phrase(
    [
      '(?:it is )?doubletapped',
      '(?:two|2) (?:wires|hots|conductors)(?: are)? (?:on|under|in) (?:it|the (?:terminal|' +
        'breaker|screw|lug)|(?:one|1|a|the same) (?:terminal|breaker|screw|lug))',
      'two on the breaker',
    ],
    'breaker.conductorsOnTerminal',
    2,
    ['breaker'],
  ),
  reads(
    `(?:(\\d+|one|three)) (?:wire|wires|hots|conductor|conductors) (?:on|under|in) (?:it|the ` +
      `(?:terminal|breaker|screw|lug)|(?:one|1|a) (?:terminal|breaker|screw|lug))`,
    (m, r) => r.put('breaker.conductorsOnTerminal', Number(m[1])),
    ['breaker'],
  ),
  phrase('(?:is )?marked for (?:two|2)(?: (?:wires|conductors))?', 'breaker.isMarkedForTwo', true, [
    'breaker',
  ]),
  phrase('not marked for (?:two|2)(?: (?:wires|conductors))?', 'breaker.isMarkedForTwo', false, [
    'breaker',
  ]),
  phrase(
    `(?:(?:the )?(?:terminal|lug|screw|connection) ${IS})?discolored(?: terminal| lug)?`,
    'breaker.termination',
    'discolored',
    ['breaker'],
  ),
  phrase(
    `(?:(?:the )?(?:terminal|lug|screw|connection|breaker) ${IS})?(?:melted|burnt|burned|` +
      `scorched)(?: terminal| lug)?`,
    'breaker.termination',
    'melted',
    ['breaker'],
  ),
  phrase(
    `(?:(?:the )?(?:terminal|lug|screw|connection) ${IS})loose|loose (?:terminal|lug|screw|connection)`,
    'breaker.termination',
    'loose',
    ['breaker'],
  ),
  phrase('(?:it )?(?:is )?(?:buzz(?:es|ing)|smells)', 'breaker.termination', 'buzzes or smells', [
    'breaker',
  ]),
  phrase(
    [
      `(?:(?:the )?(?:terminal|lug|connection) ${IS})(?:good|fine|sound|ok|tight)`,
      `(?:good|sound) (?:terminal|connection)`,
    ],
    'breaker.termination',
    'sound',
    ['breaker'],
  ),
  reads(
    `${N} degrees?(?: (f|fahrenheit|c|celsius))?(?: (?:hot|warm))?`,
    (m, r) => r.put('temperatureC', Number(m[1]), m[2]?.startsWith('c') ? '°C' : '°F'),
    ['breaker'],
  ),
  reads('(?:is |feels |running )?(?:warm|hot)(?= ?,? ?\\d+ degrees)', () => true, ['breaker']),
  reads(
    '(?:is |feels |runs |running )?(?:warm|hot)(?: to the touch)?',
    (_, r) => r.ask('How warm, in degrees, and at what load?'),
    ['breaker'],
  ),
  reads(
    `${N} volts (?:between|across) (?:its |the )?(?:two |2 )?poles`,
    (m, r) => r.put('breaker.polesV', Number(m[1]), 'V'),
    ['breaker'],
  ),
  phrase(
    '(?:not |is not )listed(?: for (?:this|the) panel)?|wrong (?:brand|type)(?: (?:of )?breaker)?',
    'breaker.fitsPanel',
    'not listed',
    ['breaker'],
  ),
  reads(
    '(?:is )?(?:not (?:the )?same|(?:a |of )?(?:different|another|other)) make' +
      '(?: (?:as|than|from) (?:this |the )?panel)?',
    (_, r) =>
      r.ask('Another make: does the label of the breaker or of the panel list it for this panel?'),
    ['breaker'],
  ),
  phrase(
    '(?:is )?listed for (?:this|the) panel|right (?:brand|type)',
    'breaker.fitsPanel',
    'listed',
    ['breaker'],
  ),
  phrase('(?:in the |on the )?upper section', 'breaker.section', 'upper', ['breaker']),
  phrase('(?:in the |on the )?lower section', 'breaker.section', 'lower', ['breaker']),
  phrase('(?:on )?(?:leg|phase) a', 'breaker.measuredLeg', 'A', ['breaker']),
  phrase('(?:on )?(?:leg|phase) b', 'breaker.measuredLeg', 'B', ['breaker']),
]

/** What is said of an enclosure. */
export const PANEL_WORDS: readonly Phrase[] = [
  reads(
    `(?:the )?main (breaker )?${IS}${N}(?: amp)?`,
    (m, r) => {
      if (m[1]) r.put('enclosure.mainKind', 'main breaker')
      return rating(m[2] ?? '', r, 'enclosure.mainAmps')
    },
    PANEL,
  ),
  reads(`${N} amp main(?: (breaker|disconnect))?`, (m, r) => {
    if (m[2] === 'breaker') r.put('enclosure.mainKind', 'main breaker')
    return rating(m[1] ?? '', r, 'enclosure.mainAmps')
  }),
  phrase(
    '(?:main lugs(?: only)?|no main(?: breaker| disconnect)?|lugs only)',
    'enclosure.mainKind',
    'main lugs',
  ),
  phrase('(?:it is )?(?:a )?split bus(?: panel)?', 'enclosure.mainKind', 'split bus'),
  phrase(
    '(?:fused main|main fuses|fused pull ?out|pull ?out fuses)',
    'enclosure.mainKind',
    'fused main',
  ),
  phrase('(?:has )?(?:a )?main breaker', 'enclosure.mainKind', 'main breaker'),
  reads(
    `(?:the )?bus(?:bar| bar)? (?:is )?(?:rated |rating )?${IS}${N}(?: amp)?`,
    (m, r) => r.put('enclosure.busAmps', Number(m[1]), 'A'),
    PANEL,
  ),
  reads(
    `${N} amp (?:bus(?:bar)?|panel)(?: rating)?`,
    (m, r) =>
      /bus/.test(m[0])
        ? r.put('enclosure.busAmps', Number(m[1]), 'A')
        : (r.ask(`${m[1]} A panel: is that the main or the bus?`), true),
    PANEL,
  ),
  reads(`(?:has )?(\\d+) spaces`, (m, r) => r.put('enclosure.spaces', Number(m[1])), PANEL),
  reads(`(?:a )?(\\d+) space(?: panel)`, (m, r) => r.put('enclosure.spaces', Number(m[1])), PANEL),
  reads(
    `label allows (\\d+)(?: (?:circuits|poles))?`,
    (m, r) => r.put('enclosure.maxCircuits', Number(m[1])),
    PANEL,
  ),
  phrase(
    [
      `no (?:bonding|bond|green) screw`,
      `(?:the )?(?:bonding|bond|green) screw ${IS}(?:missing|not (?:in|there|installed|present)` +
        `|out|gone)`,
      `no (?:main bond(?:ing)?(?: jumper)?|bond(?:ing)? (?:at all|strap|jumper|means)|bonding)`,
      `(?:the )?neutral ${IS}(?:isolated|floating|not bonded|unbonded)`,
      `isolated neutral`,
      `neutral bar ${IS}(?:isolated|floating|not bonded)`,
    ],
    'enclosure.bondMeans',
    'none',
    PANEL,
  ),
  reads(
    'not bonded',
    (m, r) => {
      // Of what it is said stands before it: a pipe is not the panel.
      const before = m.input.slice(0, m.index)
      if (/\b(?:gas|csst|tubing)\b/.test(before)) return r.put('premises.gasBond', 'none found')
      if (/\bwater\b/.test(before)) return r.put('premises.waterBond', 'none found')
      if (/\b(?:pipes?|piping|steel|ducts?|raceway|conduit|bar|rod|box)\b/.test(before))
        return r.ask('What is not bonded?')
      return r.put('enclosure.bondMeans', 'none')
    },
    PANEL,
  ),
  phrase(
    [
      `(?:(?:has|with) )?(?:a |the )?(?:bonding|bond|green) screw ${IS}(?:in place|` +
        `in(?:stalled)?(?! (?:a|an|my|its|the (?!(?:neutral )?bar))\\b)|there|present)`,
      `(?:(?:the )?neutral (?:bar )?(?:is )?)?bonded (?:by|with|through) (?:a |the )?(?:green |` +
        `bonding )?screw`,
      `(?:has|with) (?:a |the )?(?:bonding|bond|green) screw`,
      '(?:the )?(?:panel |main )?bond (?:is|was) (?:by )?(?:a |the )?(?:green |bonding )?screw',
    ],
    'enclosure.bondMeans',
    'screw',
    PANEL,
  ),
  phrase(
    [
      `(?:has |with |bonded (?:by|with) )?(?:a |the )?(?:bonding|bond) strap(?: ${IS}(?:in ` +
        `place|in|there|present))?`,
      `bonded (?:by|with) (?:a )?strap`,
    ],
    'enclosure.bondMeans',
    'strap',
    PANEL,
  ),
  phrase(
    `(?:has |with |bonded (?:by|with) )?(?:a |the )?(?:bonding|bond|wire) jumper(?: ${IS}(?:in|there|present))?`,
    'enclosure.bondMeans',
    'wire jumper',
    PANEL,
  ),
  phrase(
    `(?:neutrals? and grounds?|grounds? and neutrals?)(?: ${IS}| land | landed | sit )*(?:on ` +
      `|share )?(?:separate|separated|different|apart|kept apart|not mixed)(?: bars?)?`,
    'enclosure.landings',
    'on separate bars',
    PANEL,
  ),
  phrase(
    [
      `(?:neutrals? and grounds?|grounds? and neutrals?)(?: ${IS}| land | landed )*(?:mixed|` +
        `together|share (?:a|the|one) bar|(?:on |share )(?:a |the |one )?(?:same|common|one|1) ` +
        `bar)(?: together)?`,
      `common bar`,
    ],
    'enclosure.landings',
    'on a common bar',
    PANEL,
  ),
  phrase(
    `(?:(?:dead ?front|inner cover|cover) ${IS}(?:missing|gone|off)|no (?:dead ?front|inner ` +
      `cover|cover)|missing (?:dead ?front|inner cover|cover))`,
    'enclosure.cover',
    'missing',
    ['enclosure', 'main'],
  ),
  phrase(
    `(?:dead ?front|inner cover|cover) ${IS}(?:damaged|bent|cracked|broken)`,
    'enclosure.cover',
    'damaged',
    ['enclosure', 'main'],
  ),
  phrase(
    `(?:dead ?front|inner cover|cover) ${IS}(?:in place|on|fine|good|ok|there)`,
    'enclosure.cover',
    'in place',
    ['enclosure', 'main'],
  ),
  phrase(
    [
      '(?:pointed|sharp|drywall|wood|sheet metal)(?: cover)? screws?(?: (?:in|on) (?:the )?cover)?',
      'cover screws? (?:is |are )?(?:pointed|sharp)',
    ],
    'enclosure.coverScrews',
    'pointed',
    PANEL,
  ),
  phrase(
    [
      '(?:some |two |2 |a |one |1 )?(?:cover )?screws? (?:is |are )?missing',
      '(?:(?:dead ?front|cover) (?:is )?)?missing (?:\\d+ |some |a few |a )?(?:cover )?screws?',
    ],
    'enclosure.coverScrews',
    'some missing',
    PANEL,
  ),
  phrase(
    '(?:all )?(?:cover )?screws? (?:are )?(?:all )?blunt|all blunt(?: screws?)?',
    'enclosure.coverScrews',
    'all blunt',
    PANEL,
  ),
  phrase(
    'no (?:open )?(?:knockouts?|holes?|openings?|blanks missing|missing blanks)(?: open)?',
    'enclosure.openings',
    0,
    PANEL,
  ),
  reads(
    `(\\d+|an|a|one|two|three) (?:open (?:knockouts?|holes?|spaces?|slots?)|(?:knockouts?|` +
      `holes?|openings?|blanks?|fillers?)(?: (?:is |are )?(?:open|missing))?|missing ` +
      `(?:blanks?|fillers?|knockouts?)|unclosed openings?)`,
    (m, r) => r.put('enclosure.openings', /^an?$/.test(m[1] ?? '') ? 1 : Number(m[1])),
    PANEL,
  ),
  phrase(
    '(?:rust|corrosion|rusty) (?:on|in|at) (?:the )?(?:bus|busbars?|terminals?|lugs?|breakers?)',
    'enclosure.corrosion',
    'on bus or terminals',
    PANEL,
  ),
  phrase(
    '(?:(?:some |light )?surface rust|rusty?|some rust|rust)',
    'enclosure.corrosion',
    'surface rust',
    PANEL,
  ),
  phrase(
    '(?:(?:full of )?debris|mouse (?:nest|droppings)|mice|wasps?(?: nest)?|insects?|' +
      'droppings|rodents?|pests?|spiders?)(?: in (?:it|the panel))?',
    'enclosure.corrosion',
    'debris or pests',
    PANEL,
  ),
  phrase(
    '(?:clean and dry|no (?:rust|corrosion)(?: or debris)?|dry and clean)',
    'enclosure.corrosion',
    'none',
    PANEL,
  ),
  phrase(
    [
      `(?:no|missing) (?:directory|circuit list|legend|index|(?:panel )?schedule)`,
      `(?:directory|circuit list|legend|(?:panel )?schedule) ${IS}(?:missing|gone|blank|empty)`,
      `not labeled`,
      `unlabeled`,
    ],
    'enclosure.directory',
    'missing',
    PANEL,
  ),
  phrase(
    [
      `(?:directory|circuit list|legend|(?:panel )?schedule|labels?) ${IS}(?:vague|poor|` +
        `incomplete|illegible|unreadable|wrong|useless|worthless|(?:a )?mess)`,
      `(?:vague|poor|incomplete|illegible) (?:directory|labels?)`,
    ],
    'enclosure.directory',
    'vague',
    PANEL,
  ),
  phrase(
    [
      `(?:directory|circuit list|legend|(?:panel )?schedule|labels?) ${IS}(?:good|legible|` +
        `clear|complete|fine|ok|specific)`,
      `(?:good|legible|clear) directory`,
    ],
    'enclosure.directory',
    'legible and specific',
    PANEL,
  ),
  phrase(
    '(?:(?:it )?(?:is |hangs |stands )?in (?:a|the) (?:clothes |bedroom )?closet)',
    'enclosure.location',
    'clothes closet',
    PANEL,
  ),
  phrase('(?:is |hangs |stands )?in (?:a|the) bathroom', 'enclosure.location', 'bathroom', [
    'enclosure',
  ]),
  phrase(
    '(?:is |hangs )?over (?:the )?(?:steps|stairs)',
    'enclosure.location',
    'over steps',
    PANEL,
  ),
  phrase('(?:is |hangs |stands |mounted )?(?:indoors|inside)', 'enclosure.place', 'indoors', [
    'enclosure',
  ]),
  phrase('(?:is |hangs |stands |mounted )?(?:outdoors|outside)', 'enclosure.place', 'outdoors', [
    'enclosure',
  ]),
  reads(
    [
      `${N} inches (?:deep|of (?:clear )?(?:depth|space|clearance|room)(?: in front)?|` +
        `clear(?:ance)?(?: in front)?|in front)`,
      `(?:clear )?depth ${IS}${N} inches`,
    ],
    (m, r) => r.put('enclosure.workingDepthIn', Number(m[1] ?? m[2]), 'in'),
    PANEL,
  ),
  reads(
    `${N} inches wide(?: clear)?|(?:clear )?width ${IS}${N} inches`,
    (m, r) => r.put('enclosure.workingWidthIn', Number(m[1] ?? m[2]), 'in'),
    PANEL,
  ),
  reads(
    `${N} feet (?:of clearance |clear )?in front`,
    (m, r) => r.put('enclosure.workingDepthIn', Number(m[1]) * 12, 'in'),
    PANEL,
  ),
  reads(
    `(?:top|highest) (?:handle|breaker) ${IS}${N} (inches|feet)(?: (?:up|high|above the floor))?`,
    (m, r) => r.put('enclosure.topHandleIn', Number(m[1]) * (m[2] === 'feet' ? 12 : 1), 'in'),
    PANEL,
  ),
  phrase(
    '(?:space|area) in front ${IS}(?:clear|kept clear)|clear in front'.replace('${IS}', IS),
    'enclosure.isKeptClear',
    true,
    PANEL,
  ),
  phrase(
    [
      '(?:stuff|things|boxes|storage|shelves?|washer|furniture) (?:stored |stands? |is |are ' +
        ')?in front(?: of it)?',
      'blocked by storage',
    ],
    'enclosure.isKeptClear',
    false,
    PANEL,
  ),
  phrase(
    `(?:marked |labeled |label says )(?:as )?(?:the )?service disconnect`,
    'enclosure.marking',
    'service disconnect',
    PANEL,
  ),
  phrase(
    `(?:marked |labeled |label says )?not service equipment`,
    'enclosure.marking',
    'not service equipment',
    PANEL,
  ),
  phrase('(?:no )?marking none|no (?:service )?marking', 'enclosure.marking', 'none', PANEL),
  phrase(`no surge (?:protector|protection|device|arrester)`, 'enclosure.surge', 'none', PANEL),
  phrase(
    `surge (?:protector |device )?(?:light )?${IS}(?:failed|dead|out|red)`,
    'enclosure.surge',
    'signals failed',
    PANEL,
  ),
  phrase(
    `(?:has (?:a )?)?surge (?:protector|protection|device)(?: ${IS}(?:there|present|installed|good|green))?`,
    'enclosure.surge',
    'present',
    PANEL,
  ),
  phrase(
    '(?:several|many|two|2|three|3) cables? (?:in|through) (?:one|1|a single|the same) ' +
      '(?:connector|clamp|hole|knockout)',
    'enclosure.entryConnectors',
    'several in one',
    PANEL,
  ),
  phrase(
    '(?:one|1) cable (?:per|to a|in each) (?:connector|clamp)|one each',
    'enclosure.entryConnectors',
    'one each, or as listed',
    PANEL,
  ),
  phrase(
    '(?:live )?abandoned (?:wires?|ends?|conductors?)(?: (?:is |are )?live)?|live ends',
    'enclosure.strayWiring',
    'live abandoned ends',
    PANEL,
  ),
  phrase(
    '(?:low voltage|doorbell|bell|network|alarm|thermostat) (?:wires?|wiring|cables?)(?: in (?:it|the panel))?',
    'enclosure.strayWiring',
    'low-voltage wiring',
    PANEL,
  ),
  phrase(
    '(?:has )?(?:a )?(?:listed )?(?:interlock|transfer switch)(?: kit)?',
    'enclosure.interlock',
    'listed interlock or transfer switch',
    PANEL,
  ),
  phrase('no (?:interlock|transfer switch)', 'enclosure.interlock', 'none', PANEL),
  phrase(
    '(?:a |the )?(?:generator|solar|battery|inverter) (?:feeds|backfeeds|connected|tied in|' +
      'hooked up)(?: (?:it|in|the panel))?',
    'enclosure.hasSecondSource',
    true,
    PANEL,
  ),
  phrase(
    'no (?:second source|generator|solar|battery)(?: or (?:generator|solar|battery))?',
    'enclosure.hasSecondSource',
    false,
    PANEL,
  ),
  phrase(
    `no (?:fed from )label|fed from label ${IS}missing`,
    'enclosure.fedFromLabel',
    'missing',
    PANEL,
  ),
  phrase(
    '(?:panel line with |has )?(?:a )?(?:documented )?record of (?:failing to trip|not tripping)',
    'enclosure.hasTripRecord',
    true,
    PANEL,
  ),
  phrase('(?:three|3) phase(?: (?:panel|bus))?', 'enclosure.bus', 'three phase', PANEL),
  phrase(
    '(?:twins?|tandems?) (?:are )?(?:not allowed|allowed nowhere)|no (?:twins?|tandems?) allowed',
    'enclosure.tandems',
    'none',
    PANEL,
  ),
  reads(
    `(?:leg )?(?:a|1)(?: leg)? (?:to neutral )?${IS}${N}(?: volts)?(?: ,)?(?: and)? (?:leg ` +
      `)?(?:b|2)(?: leg)? (?:to neutral )?${IS}${N}(?: volts)?`,
    (m, r) =>
      r.put('enclosure.legAToNeutralV', Number(m[1]), 'V') &&
      r.put('enclosure.legBToNeutralV', Number(m[2]), 'V'),
    PANEL,
  ),
  reads(
    `${N}(?: volts)? and ${N} volts(?: (?:on (?:the )?(?:two |2 )?legs|leg to neutral|to neutral))?`,
    (m, r) =>
      r.put('enclosure.legAToNeutralV', Number(m[1]), 'V') &&
      r.put('enclosure.legBToNeutralV', Number(m[2]), 'V'),
    PANEL,
  ),
  reads(
    `(?:one|1|a) leg ${IS}${N}(?: volts)?(?: ,)?(?: and| but)? (?:the )?other(?: leg| one| 1)? ${IS}${N}(?: volts)?`,
    (m, r) =>
      r.put('enclosure.legAToNeutralV', Number(m[1]), 'V') &&
      r.put('enclosure.legBToNeutralV', Number(m[2]), 'V'),
    PANEL,
  ),
  reads(
    'missing (?:a|1) (?:knockout|blank|filler)',
    (_, r) => r.put('enclosure.openings', 1),
    PANEL,
  ),
  reads(
    `(?:leg|phase) (?:a|1) (?:to neutral )?${IS}${N}(?: volts)?`,
    (m, r) => r.put('enclosure.legAToNeutralV', Number(m[1]), 'V'),
    ['enclosure', 'main', 'service'],
  ),
  reads(
    `(?:leg|phase) (?:b|2) (?:to neutral )?${IS}${N}(?: volts)?`,
    (m, r) => r.put('enclosure.legBToNeutralV', Number(m[1]), 'V'),
    ['enclosure', 'main', 'service'],
  ),
  phrase(
    '(?:with )?(?:the )?(?:large |big )?loads? (?:on|running)',
    'enclosure.wereLoadsOn',
    true,
    ['enclosure', 'main', 'service'],
  ),
  phrase(
    '(?:with )?(?:the )?(?:large |big )?loads? off|nothing running',
    'enclosure.wereLoadsOn',
    false,
    ['enclosure', 'main', 'service'],
  ),
  reads(
    `(?:air|ambient)(?: at the panel)? ${IS}${N} degrees?(?: (f|c)\\w*)?`,
    (m, r) => r.put('enclosure.ambientC', Number(m[1]), m[2] === 'c' ? '°C' : '°F'),
    PANEL,
  ),
]
