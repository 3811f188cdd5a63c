import { IS, N, phrase, reads, type Phrase } from './phrases'
import type { Focus } from './reader'

const O: readonly Focus[] = ['outlet']

/** What is said of outlets. */
export const OUTLET_WORDS: readonly Phrase[] = [
  phrase(
    '(?:three|3) (?:slots?|prongs?|holes?)|grounding type|3 wire type',
    'outlet.slots',
    'three',
    O,
  ),
  phrase('(?:two|2) (?:slots?|prongs?|holes?)|ungrounded type|old style', 'outlet.slots', 'two', O),
  phrase('t slots?', 'outlet.slots', 'T-slot', O),
  phrase(
    '240 volts? (?:receptacle|outlet)|(?:dryer|range) (?:receptacle|outlet)',
    'outlet.slots',
    '240 V',
    O,
  ),
  phrase(
    [
      `(?:(?:the )?(?:three lamp |3 lamp |lamp |plug in )?tester ${IS}|tests? |tested |reads |` +
        `wired )(?:correct(?:ly)?|good|ok|fine|right)`,
      `correct(?: wiring)?(?: on the tester)?`,
    ],
    'outlet.lamps',
    'correct',
    O,
  ),
  phrase(
    `(?:tester ${IS}|reads |tests |shows )?open ground(?: on the (?:lamp )?tester)?`,
    'outlet.lamps',
    'open ground',
    O,
  ),
  phrase(
    `(?:tester ${IS}|reads |tests |shows )?(?:reversed?(?: polarity)?|hot (?:and )?neutral ` +
      `(?:are )?(?:reversed?|swapped|flipped)|polarity reversed|reverse polarity)`,
    'outlet.lamps',
    'reversed',
    O,
  ),
  phrase(`(?:tester ${IS}|reads |tests |shows )?open neutral`, 'outlet.lamps', 'open neutral', O),
  phrase(`(?:tester ${IS}|reads |tests |shows )?open hot`, 'outlet.lamps', 'open hot', O),
  phrase(
    `(?:tester ${IS}|reads |tests |shows )?hot (?:and |to )?ground (?:are )?(?:reversed?|swapped)`,
    'outlet.lamps',
    'hot and ground reversed',
    O,
  ),
  reads(
    '(?:is |are )?(?:dead|no power|no voltage)',
    (_, r) => r.ask('Dead: does no lamp of the tester light, and is its breaker on?'),
    O,
  ),
  phrase(
    '(?:box has )?no ground (?:wire )?in the box|(?:box has )?no ground wire|ground (?:is )?missing in the box',
    'outlet.ground',
    'none',
    O,
  ),
  phrase(
    `ground (?:wire )?(?:is )?(?:there |present )?(?:but )?(?:it )?(?:is )?(?:not ` +
      `(?:connected|hooked up|landed)|cut off|cut back|folded back|disconnected|loose)`,
    'outlet.ground',
    'present, not connected',
    O,
  ),
  phrase(
    'ground (?:wire )?(?:is )?(?:connected|landed|on the (?:green )?screw)|(?:has |with )a ground wire',
    'outlet.ground',
    'connected',
    O,
  ),
  phrase(
    'grounded (?:by|through) (?:the )?(?:metal )?(?:pipe|conduit|armor|raceway|box)',
    'outlet.ground',
    'metal raceway or armor',
    O,
  ),
  reads(
    'no ground|ungrounded|not grounded',
    (_, r) => r.ask('No ground: by the tester, or seen in the opened box?'),
    O,
  ),
  reads(
    '(?:is |are )?grounded',
    (_, r) => r.ask('Grounded: by the tester, or seen in the opened box?'),
    O,
  ),
  // Whose it is, is said by where one stands; that it trips is what is said of it.
  reads('(?:the|this) gfci(?= (?:trips|tripped|will not trip|does not trip))', () => true, O),
  reads(
    'gfci protected',
    (_, r) => r.ask('Protected by its own device, or by one ahead of it?'),
    O,
  ),
  phrase('(?:is |are )?(?:a )?dual(?: (?:receptacle|device|outlet))?', 'protection', 'dual', O),
  phrase('(?:is |are )?(?:a )?gfci(?: (?:receptacle|outlet|device)s?)?', 'protection', 'GFCI', O),
  phrase('(?:is |are )?(?:an? )?afci(?: (?:receptacle|outlet|device)s?)?', 'protection', 'AFCI', O),
  phrase(
    [
      '(?:no|not (?:a )?) ?(?:gfci|afci)(?: protection)?',
      '(?:is |are )?(?:plain|ordinary|regular|standard)(?: (?:receptacle|outlet)s?)?',
      'no (?:test )?buttons?',
    ],
    'protection',
    'none',
    O,
  ),
  phrase(
    [
      '(?:it )?(?:trips|tripped),? (?:and |but )?(?:it )?(?:stays live|still (?:live|hot)|does ' +
        'not go dead|stays hot)',
      'stays live (?:when|after) (?:tripped|it trips)',
    ],
    'outlet.gfciButton',
    'trips, stays live',
    O,
  ),
  phrase(
    [
      '(?:it )?(?:trips|tripped)(?:,? (?:and )?(?:it )?(?:goes|went) dead| and kills ' +
        'power)?(?: on (?:its|the) (?:test )?button)?',
      'test(?:s|ed)? (?:and )?trips',
      'button works',
    ],
    'outlet.gfciButton',
    'trips, goes dead',
    O,
  ),
  phrase(
    [
      '(?:does not|will not|did not|never) trips?(?: when i (?:push|press|hit) (?:the |its ' +
        ')?(?:test )?button)?',
      '(?:test )?button (?:is dead|does nothing|does not work)',
      '(?:failed|fails) (?:its |the )?(?:test|button)',
    ],
    'outlet.gfciButton',
    'does not trip',
    O,
  ),
  phrase(
    'goes dead (?:with|when) the (?:gfci|one|1) ahead(?: (?:is )?tripped| trips)?',
    'outlet.gfciTest',
    'goes dead',
    O,
  ),
  phrase(
    'stays live (?:with|when) the (?:gfci|one|1) ahead(?: (?:is )?tripped| trips)?',
    'outlet.gfciTest',
    'stays live',
    O,
  ),
  phrase(
    '(?:the )?(?:arc|arc fault|afci) tester (?:trips|tripped|kills|killed|drops|dropped) (?:it|this 1|this one)',
    'outlet.afciTest',
    'goes dead',
    O,
  ),
  phrase(
    '(?:the )?(?:arc|arc fault|afci) tester (?:does not|did not|will not) (?:trip|kill|drop) ' +
      '(?:it|this 1|this one)',
    'outlet.afciTest',
    'stays live',
    O,
  ),
  phrase(
    'not tamper resistant|no tamper resistant|no (?:shutters|tr)|not tr',
    'outlet.isTamperResistant',
    false,
    O,
  ),
  phrase(
    '(?:is |are )?(?:tamper resistant|tr)(?: type)?|has shutters|with shutters',
    'outlet.isTamperResistant',
    true,
    O,
  ),
  phrase('not weather resistant|not wr', 'outlet.isWeatherResistant', false, O),
  phrase('(?:is |are )?(?:weather resistant|wr)(?: type)?', 'outlet.isWeatherResistant', true, O),
  phrase(
    '(?:has )?(?:an? )?(?:in use|bubble|while in use) cover',
    'outlet.wetCover',
    'covers the plug in use',
    O,
  ),
  phrase(
    [
      'flip (?:lid|cover)|(?:flat|snap) (?:wet )?cover',
      '(?:no|not an?|without an?) (?:in use|bubble|while in use) cover',
    ],
    'outlet.wetCover',
    'covers only without a plug',
    O,
  ),
  phrase(
    [
      `no (?:cover plate|wall plate|cover|plate)`,
      `(?:the )?(?:cover plate|wall plate|cover|plate) ${IS}(?:missing|gone|off)`,
      `missing (?:cover plate|cover|plate)`,
    ],
    'cover',
    'missing',
    O,
  ),
  phrase(
    [
      `(?:the )?(?:cover plate|wall plate|cover|plate) ${IS}(?:broken|cracked)`,
      `(?:broken|cracked) (?:cover plate|cover|plate)`,
    ],
    'cover',
    'broken',
    O,
  ),
  phrase(
    `(?:the )?(?:cover plates?|covers?|plates?) ${IS}(?:in place|on|fine|ok|good|there)`,
    'cover',
    'in place',
    O,
  ),
  phrase(
    [
      '(?:is |are )?loose (?:in the (?:wall|box))',
      '(?:box|device|receptacle) (?:is )?loose',
      'loose (?:box|device|receptacle)',
    ],
    'outlet.isLooseInBox',
    true,
    O,
  ),
  phrase(
    'loose grip|(?:will not|does not) (?:hold|grip) (?:a |the )?(?:plug|cord)|worn(?: out)?',
    'outlet.condition',
    'loose grip',
    O,
  ),
  phrase(
    '(?:the )?(?:face |receptacle )?(?:is )?cracked(?: face)?',
    'outlet.condition',
    'cracked',
    O,
  ),
  phrase('painted(?: over| shut)?', 'outlet.condition', 'painted over', O),
  phrase('(?:it )?(?:is )?buzz(?:es|ing)', 'outlet.condition', 'buzzing', O),
  phrase(
    'scorched|burn(?:t|ed)(?: marks?)?|burn marks?|scorch marks?|discolored',
    'outlet.condition',
    'scorched',
    O,
  ),
  phrase('(?:in )?(?:good|sound) (?:shape|condition)', 'outlet.condition', 'sound', O),
  reads(
    `(?:within |about )?${N} (feet|inches) (?:away )?(?:from|to|of) (?:the )?(?:edge of the ` +
      `)?(?:sink|basin|tub|shower|bowl|water)`,
    (m, r) => r.put('outlet.sinkFt', Number(m[1]) / (m[2] === 'inches' ? 12 : 1), 'ft'),
    O,
  ),
  reads(
    `(?:the )?(?:sink|basin|tub|shower) ${IS}${N} (feet|inches) (?:away|off|from (?:it|here))`,
    (m, r) => r.put('outlet.sinkFt', Number(m[1]) / (m[2] === 'inches' ? 12 : 1), 'ft'),
    O,
  ),
  reads(
    `${N} (feet|inches) (?:up|high|above the floor|off the floor)`,
    (m, r) => r.put('outlet.heightFt', Number(m[1]) / (m[2] === 'inches' ? 12 : 1), 'ft'),
    O,
  ),
  phrase(
    '(?:serves?|on|at|above|over) (?:the )?(?:kitchen )?counter(?:top)?|counter(?:top)? (?:receptacle|outlet)s?',
    'outlet.servesCounter',
    true,
    O,
  ),
  phrase(
    '(?:does not serve|not on|not at) (?:the )?counter(?:top)?',
    'outlet.servesCounter',
    false,
    O,
  ),
  reads(
    '(?:behind|for) (?:the |a )?(refrigerator|fridge|freezer|washer|dishwasher|disposer|' +
      'microwave|sump pump|dryer|range|aquarium)(?: (?:only|outlet))?',
    (m, r) => {
      r.put('outlet.isDedicated', true)
      return r.put('outlet.appliance', APPLIANCES[m[1] ?? ''] ?? '')
    },
    O,
  ),
  reads(
    '(?:a |the )?(refrigerator|fridge|freezer|washer|dishwasher|disposer|microwave|sump pump|' +
      'dryer|range|aquarium|computer|window air conditioner)(?: (?:is )?(?:plugged in|plugs in|receptacles? in|' +
      'on it|there|in it))(?: here| this| it)?',
    (m, r) => r.put('outlet.appliance', APPLIANCES[m[1] ?? ''] ?? ''),
    O,
  ),
  reads(
    [
      `(?:the )?(?:switch )?box ${IS}no neutral`,
      'no neutral (?:in (?:the|this) (?:switch )?box|at (?:the|this) switch)',
    ],
    (_, r) =>
      r.ask('No neutral at the switch: is there a raceway or open framing to add one through?'),
    O,
  ),
  phrase('(?:at|on|in) the ceiling', 'outlet.isOutOfReach', true, O),
  phrase(
    'opened(?: the box)?|box opened|box (?:is )?open|pulled (?:it|the device)(?: out)?',
    'outlet.isBoxOpened',
    true,
    O,
  ),
  phrase('(?:box )?not opened|did not open(?: it| the box)?', 'outlet.isBoxOpened', false, O),
  phrase(
    '(?:(?:neutral|hot) )?(?:neutral to ground jumper|neutral ground jumper|bootleg(?: ' +
      'ground)?|jumper (?:from )?neutral to ground)',
    'outlet.hasNeutralGroundJumper',
    true,
    O,
  ),
  phrase(
    'no (?:neutral to ground jumper|neutral ground jumper|bootleg(?: ground)?|jumper)',
    'outlet.hasNeutralGroundJumper',
    false,
    O,
  ),
  phrase(
    [
      '(?:aluminum to copper|copper to aluminum) splices?',
      '(?:aluminum and copper|copper and aluminum)(?: spliced)?(?: together)?',
    ],
    'outlet.splice',
    'aluminum to copper',
    O,
  ),
  phrase('copper to copper(?: splices?)?', 'outlet.splice', 'copper to copper', O),
  phrase('(?:with |under )?(?:a )?twist on connectors?', 'outlet.connector', 'twist-on', O),
  phrase('(?:with )?push in connectors?', 'outlet.connector', 'push-in', O),
  phrase('(?:with )?lever connectors?', 'outlet.connector', 'lever', O),
  phrase(
    '(?:with )?(?:crimped |cold weld )(?:connectors?|pigtails?)',
    'outlet.connector',
    'crimped cold-weld',
    O,
  ),
  phrase('solder(?:ed)? and taped?', 'outlet.connector', 'solder and tape', O),
  phrase(
    '(?:back ?stabbed|stabbed|push in(?: terminals)?|wires pushed in)',
    'outlet.termination',
    'push-in',
    O,
  ),
  phrase(
    '(?:on )?(?:binding |side |terminal )screws?|side wired|under (?:the )?screws?',
    'outlet.termination',
    'binding screw',
    O,
  ),
  phrase('clamp plates?|back wired under plates?', 'outlet.termination', 'clamp plate', O),
  phrase('(?:marked |labeled )(?:with )?no equipment ground', 'outlet.isMarkedNoGround', true, O),
  phrase('(?:marked |labeled )gfci protected', 'outlet.isMarkedGfci', true, O),
  phrase('(?:not marked|no (?:label|sticker|marking))', 'outlet.isMarkedNoGround', false, O),
  phrase('co ?alr(?: marked| device)?|marked co ?alr', 'outlet.aluminumMarking', 'CO/ALR', O),
  phrase('in (?:a )?box(?:es)?', 'outlet.splicePlace', 'in a box', O),
  phrase(
    '(?:splice |spliced )?outside (?:of )?(?:a |the )?box|flying splice|splice in the open',
    'outlet.splicePlace',
    'outside a box',
    O,
  ),
  phrase(
    '(?:is |are )?(?:metal|steel) (?:box|plate|cover)(?:es|s)?|(?:box|plate|cover) (?:is )?(?:of )?(?:metal|steel)',
    'outlet.hasMetalParts',
    true,
    O,
  ),
  phrase('(?:is |are )?plastic (?:box|plate|cover)(?:es|s)?', 'outlet.hasMetalParts', false, O),
  phrase('(?:duplex|two in one)', 'outlet.isSingle', false, O),
  phrase('(?:is )?(?:a )?single (?:receptacle|outlet)', 'outlet.isSingle', true, O),
  reads(
    `(15|20|30|50) amp(?: (?:receptacle|outlet|device|face)s?)?`,
    (m, r) => r.put('outlet.deviceAmps', Number(m[1]), 'A'),
    O,
  ),
  reads(
    [
      `(?:(?:the )?box ${IS})?set ?back ${IS}${N} inches`,
      `(?:(?:the )?box ${IS})?${N} inches (?:set ?back|back|too deep|behind the (?:wall|surface|finish|drywall|tile))`,
    ],
    (m, r) => r.put('outlet.setbackIn', Number(m[1] ?? m[2]), 'in'),
    O,
  ),
]

const HN = 'hot (?:to |and )?neutral'
const HG = 'hot (?:to |and )?ground'
const NG = 'neutral (?:to |and )?ground'
const GR = 'ground (?:terminal |slot |pin )?to (?:the )?reference'
const NR = '(?:hot|narrow slot|small slot) to (?:the )?reference'
const volts = (what: string, field: string): Phrase =>
  reads(
    `${what} ${IS}${N}(?: volts)?|${N}(?: volts)? (?:from )?${what}`,
    (m, r) => r.put(`outlet.${field}`, Number(m[1] ?? m[2]), 'V'),
    O,
  )

/** What an outlet of 120 V may read without a load. */
const MAINS_V = 100
const MOST_MAINS_V = 140

/** Readings at an outlet. */
export const READING_WORDS: readonly Phrase[] = [
  reads(
    `${NG} (?:rise|rises|voltage under load) ${IS}${N}(?: volts)?|${N} volts ${NG} (?:under|with) load`,
    (m, r) => r.put('outlet.neutralGroundRiseV', Number(m[1] ?? m[2]), 'V'),
    O,
  ),
  // Two voltages of one outlet, without and with a load: the drop follows from them.
  reads(
    `(?:reads? |at )?${N}(?: volts)?(?: ,)? (?:then )?(?:drops?|falls?|sags?|goes down) ` +
      `(?:down )?to ${N}(?: volts)?(?: (?:under|with) (?:a )?load)?`,
    (m, r) => {
      const [open, loaded] = [Number(m[1]), Number(m[2])]
      if (open < MAINS_V || open > MOST_MAINS_V || loaded >= open) return false
      r.put('outlet.hotNeutralV', open, 'V')
      r.put('outlet.dropPercent', Math.round((1000 * (open - loaded)) / open) / 10, '%')
      return true
    },
    O,
  ),
  volts(HN, 'hotNeutralV'),
  volts(HG, 'hotGroundV'),
  volts(NG, 'neutralGroundV'),
  volts(GR, 'groundToReferenceV'),
  volts(NR, 'narrowToReferenceV'),
  reads(
    [
      `(?:ground(?:ing)? (?:impedance|resistance|path)|impedance|ground) ${IS}${N}(?: ohms)?`,
      `${N} ohms(?: (?:of )?(?:ground|ground impedance|impedance|to ground|on the ground))?`,
    ],
    (m, r) => r.put('outlet.groundOhms', Number(m[1] ?? m[2]), 'Ω'),
    O,
  ),
  reads(
    `(?:voltage )?drops? ${IS}${N} percent|${N} percent(?: (?:voltage )?drop)?`,
    (m, r) => r.put('outlet.dropPercent', Number(m[1] ?? m[2]), '%'),
    O,
  ),
  reads(
    `(?:at|with|under) (?:a )?${N} amp(?: (?:test )?load)?`,
    (m, r) => r.put('outlet.testLoadA', Number(m[1]), 'A'),
    O,
  ),
  reads(
    `(?:run is |run of )?${N} feet (?:of wire )?(?:back )?(?:to|from) the panel`,
    (m, r) => r.put('outlet.runFt', Number(m[1]), 'ft'),
    O,
  ),
  phrase('(?:loads? (?:is |are )?on|with (?:the )?loads? on)', 'outlet.hasLoadsOn', true, O),
  phrase('(?:loads? (?:is |are )?off|nothing on|everything off)', 'outlet.hasLoadsOn', false, O),
  phrase(
    '(?:detector|ticker|pen|non contact) (?:alarms|beeps|lights|chirps) on (?:the )?ground',
    'outlet.isGroundDetected',
    true,
    O,
  ),
]

const APPLIANCES: Readonly<Record<string, string>> = {
  refrigerator: 'refrigerator or freezer',
  fridge: 'refrigerator or freezer',
  freezer: 'refrigerator or freezer',
  washer: 'washer',
  dishwasher: 'dishwasher',
  disposer: 'disposer',
  microwave: 'microwave',
  'sump pump': 'sump pump',
  dryer: 'dryer',
  range: 'range, oven or cooktop',
  aquarium: 'aquarium',
  computer: 'computer',
  'window air conditioner': 'room air conditioner',
}
