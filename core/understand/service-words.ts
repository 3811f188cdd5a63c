import { IS, N, phrase, reads, type Phrase } from './phrases'
import type { Focus } from './reader'

const E: readonly Focus[] = ['electrode', 'bond']

/** What is said of the property and its service. */
export const PROPERTY_WORDS: readonly Phrase[] = [
  reads(
    [
      '(?:house |home )?(?:was )?built (?:in )?(\\d{4})',
      '(?:house|home) (?:is )?(?:of|from) (\\d{4})',
      '(?:a )?(\\d{4}) house',
    ],
    (m, r) => r.put('premises.yearBuilt', Number(m[1] ?? m[2] ?? m[3])),
  ),
  reads(
    '(?:the )?(?:code )?edition ' + IS + '(\\d{4})|(\\d{4}) (?:code|edition)(?: in force)?',
    (m, r) => r.put('premises.edition', Number(m[1] ?? m[2])),
  ),
  reads(`${N} square feet`, (m, r) => r.put('premises.floorAreaFt2', Number(m[1]), 'ft²')),
  phrase(
    [
      `(?:service )?drop ${IS}(?:frayed|damaged|bare)(?: insulation)?`,
      `(?:frayed|damaged|bare) (?:service )?drop`,
      `(?:service )?drop insulation ${IS}(?:frayed|damaged|bare|gone)`,
    ],
    'premises.serviceDrop',
    'insulation damaged',
  ),
  phrase(
    `(?:service )?drop ${IS}taped(?: splices?)?|taped splices?(?: (?:on|at) the (?:service )?drop)?`,
    'premises.serviceDrop',
    'taped splices',
  ),
  phrase(
    `(?:mast|attachment|service drop) ${IS}loose|loose mast`,
    'premises.serviceDrop',
    'mast or attachment loose',
  ),
  phrase(
    `(?:service )?drop ${IS}(?:too )?(?:low|within reach)|low (?:service )?drop`,
    'premises.serviceDrop',
    'too low or within reach',
  ),
  phrase(
    `(?:service )?drop(?: and mast)? ${IS}(?:sound|good|fine|ok)`,
    'premises.serviceDrop',
    'sound',
  ),
  phrase(
    '(?:service (?:is )?underground|underground service)',
    'premises.serviceDrop',
    'underground',
  ),
  phrase(
    `weather ?head ${IS}(?:damaged|broken|cracked|missing)`,
    'premises.serviceEntrance',
    'weatherhead damaged',
  ),
  phrase(
    `(?:service (?:entrance )?cable|sheath|se cable) ${IS}(?:frayed|open|worn|split)`,
    'premises.serviceEntrance',
    'sheath frayed or open',
  ),
  phrase(
    `meter(?: base| socket| can)? ${IS}(?:loose|pulling (?:away|off)(?: the wall| from the wall)?)|loose meter`,
    'premises.serviceEntrance',
    'meter loose',
  ),
  phrase(
    `(?:weather ?head|service cable)(?: and meter)? ${IS}(?:sound|good|fine|ok)`,
    'premises.serviceEntrance',
    'sound',
  ),
  phrase(
    'no emergency disconnect(?: outside| outdoors)?',
    'premises.emergencyDisconnect',
    'none found',
  ),
  phrase(
    '(?:has (?:an )?)?emergency disconnect(?: is)? (?:outside|outdoors|there)',
    'premises.emergencyDisconnect',
    'there',
  ),
  phrase(
    [
      `water (?:pipes?|piping|lines?) ${IS}(?:copper|metal|galvanized|steel)`,
      `(?:copper|metal|galvanized) water (?:pipes?|piping)`,
    ],
    'premises.waterPiping',
    'metal',
  ),
  phrase(
    `water (?:pipes?|piping|lines?) ${IS}(?:all )?plastic|plastic water (?:pipes?|piping)`,
    'premises.waterPiping',
    'plastic',
  ),
  phrase(
    [
      `no (?:water (?:pipe )?bond|(?:bond|ground)(?: wire)? (?:on|to|at) the water(?: pipes?| piping)?)`,
      `water (?:pipes?|piping) ${IS}not bonded`,
      `(?:the )?water bond ${IS}(?:missing|none|not found|not there)`,
    ],
    'premises.waterBond',
    'none found',
  ),
  phrase(
    `(?:the )?water (?:pipes?|piping) ${IS}bonded|(?:the )?water bond ${IS}(?:there|present|found)`,
    'premises.waterBond',
    'found',
  ),
  phrase(`no gas(?: (?:piping|service|in the house))?`, 'premises.gasPiping', 'none'),
  phrase(
    `(?:gas (?:pipes?|piping|lines?) ${IS})?(?:csst|corrugated(?: stainless)?(?: tubing| gas ` +
      `tubing)?|yellow (?:flex|flexible|corrugated)(?: gas)?(?: tubing| line)?)`,
    'premises.gasPiping',
    'corrugated tubing',
  ),
  phrase(
    [
      `gas (?:pipes?|piping|lines?) ${IS}(?:black iron|rigid|steel|iron|rigid metal|black pipe)`,
      `black iron gas(?: pipe)?`,
    ],
    'premises.gasPiping',
    'rigid metal',
  ),
  phrase(
    [
      `no (?:gas bond|(?:bond|ground)(?: wire)? (?:on|to|at) the gas(?: pipe| piping| line)?)`,
      `gas (?:pipes?|piping|line) ${IS}not bonded`,
      `(?:the )?gas bond ${IS}(?:missing|none|not found|not there)`,
    ],
    'premises.gasBond',
    'none found',
  ),
  phrase(
    `(?:the )?gas (?:pipes?|piping|line) ${IS}bonded|(?:the )?gas bond ${IS}(?:there|present|found)`,
    'premises.gasBond',
    'found',
  ),
  phrase(
    'no (?:intersystem|communications?)(?: bonding)?(?: termination| bridge| bond)?',
    'premises.intersystem',
    'none found',
  ),
  phrase(
    `(?:has (?:an )?)?(?:intersystem)(?: bonding)?(?: termination| bridge)?(?: ${IS}(?:there|present))?`,
    'premises.intersystem',
    'termination with room for three',
  ),
  phrase(
    'no smoke (?:alarms?|detectors?)(?: (?:at all|anywhere))?',
    'premises.alarms',
    'none found',
  ),
  phrase(
    '(?:some )?smoke (?:alarms?|detectors?) (?:is |are )?missing(?: in (?:the |some )?bedrooms?)?',
    'premises.alarms',
    'some missing',
  ),
  phrase(
    'smoke (?:alarms?|detectors?)(?: and carbon monoxide(?: alarms?)?)? (?:is |are ' +
      ')?(?:there|in place|where required|good|ok)',
    'premises.alarms',
    'where required',
  ),
  phrase(
    'smoke (?:alarms?|detectors?) (?:are )?(?:over|more than|older than) (?:ten|10) years(?: old)?',
    'premises.alarmsAge',
    'ten years or more',
  ),
  reads(
    '(?:csst|corrugated tubing) (?:with|has|and) no bond|(?:csst|corrugated tubing) (?:is )?not bonded',
    (_, r) =>
      r.put('premises.gasPiping', 'corrugated tubing') && r.put('premises.gasBond', 'none found'),
  ),
  reads(
    `${N} volts (?:leg to leg|hot to hot|between (?:the )?legs|across (?:the )?legs)`,
    (m, r) => {
      const supply = supplyOf(Number(m[1]))
      return supply
        ? r.put('premises.supply', supply)
        : (r.ask(`${m[1]} V from leg to leg: neither 240 nor 208; measure again`), true)
    },
  ),
]

/** What is said of rods, pipes and bonds. */
export const ELECTRODE_WORDS: readonly Phrase[] = [
  reads(`${N} ohms`, (m, r) => r.put('ohms', Number(m[1]), 'Ω'), ['electrode']),
  reads(`${N} feet apart`, (m, r) => r.put('electrode.spacingFt', Number(m[1]), 'ft'), [
    'electrode',
  ]),
  reads(
    `clamp(?:ed)? ${IS}${N} feet (?:inside|in|from (?:the wall|where it enters))`,
    (m, r) => r.put('electrode.clampFt', Number(m[1]), 'ft'),
    ['electrode'],
  ),
  reads(
    `${N} feet (?:inside|in|from (?:the wall|where it enters))`,
    // Of a rod it would be how deep it is driven.
    (m, r) =>
      /water pipe $/.test(m.input.slice(0, m.index)) &&
      r.put('electrode.clampFt', Number(m[1]), 'ft'),
    ['electrode'],
  ),
  reads(
    `${N} amp(?: (?:in|on|through) (?:it|the (?:wire|conductor)))?`,
    (m, r) => r.put('electrode.currentA', Number(m[1]), 'A'),
    ['electrode'],
  ),
  phrase(
    `(?:(?:the )?(?:clamp|connection|acorn) ${IS})?loose(?: clamp| connection)?`,
    'connection',
    'loose',
    E,
  ),
  phrase(
    `(?:(?:the )?(?:clamp|connection) ${IS})?(?:corroded|rusted|rusty)(?: clamp| connection)?`,
    'connection',
    'corroded',
    E,
  ),
  phrase(
    [
      `(?:(?:the )?(?:clamp|connection|acorn) ${IS})(?:sound|good|tight|fine|ok)`,
      `(?:good|tight|sound) (?:clamp|connection)`,
    ],
    'connection',
    'sound',
    E,
  ),
  phrase(
    '(?:with |by )?(?:a )?(?:hose clamp|wrong clamp|pipe strap)|not a listed clamp|unlisted clamp',
    'connection',
    'not a listed clamp',
    E,
  ),
  phrase(
    'on the (?:corrugated )?tubing(?: itself)?',
    'bond.connection',
    'on the corrugated tubing itself',
    ['bond'],
  ),
  phrase('(?:lands |landed |goes |runs )?(?:on|to) the neutral bar', 'landsOn', 'neutral bar', E),
  phrase('(?:lands |landed |goes |runs )?(?:on|to) the ground bar', 'landsOn', 'ground bar', E),
  phrase(
    '(?:lands |landed |goes |runs )?(?:on|to) the (?:enclosure|can|box|case)',
    'landsOn',
    'enclosure',
    E,
  ),
  phrase(
    '(?:lands|goes) nowhere|(?:not connected|disconnected|cut)(?: at (?:the )?(?:other end|panel))?',
    'landsOn',
    'nothing',
    E,
  ),
  phrase('(?:is )?spliced', 'electrode.isSpliced', true, ['electrode']),
  phrase('(?:not spliced|unspliced|no splices?|one piece)', 'electrode.isSpliced', false, [
    'electrode',
  ]),
  phrase(
    '(?:has )?(?:a )?jumper (?:round|around|across|over) the (?:water )?meter',
    'electrode.isJumpered',
    true,
    ['electrode'],
  ),
  phrase(
    'no jumper(?: (?:round|around|across|over) the (?:water )?meter)?',
    'electrode.isJumpered',
    false,
    ['electrode'],
  ),
]

/** The supply by the voltage between its legs; undefined where it is neither. */
function supplyOf(volts: number): string | undefined {
  if (volts >= 225 && volts <= 252) return '120/240 V single phase'
  return volts >= 196 && volts <= 218 ? '208Y/120 V' : undefined
}
