import { valueOf } from '../model/house'
import { equipmentGroundSize } from '../tables/grounding'
import { GROUND_RUN_SINCE } from '../tables/years'
import { gfciOf } from '../derive/fault-protection'
import { GOOD_GROUND_OHMS, groundOf } from '../derive/ground'
import { atFirstOutlet, fillWithDevice, sharesNeutral } from './places'
import { defineRemedy, always, type Advice, type Remedy, type RemedyDesk } from './remedy'

const outletOf = (desk: RemedyDesk) => desk.on('outlet')
const circuitOf = (desk: RemedyDesk) =>
  desk.site.get(desk.ask(outletOf(desk).facts.circuit), 'circuit')
const breakerOf = (desk: RemedyDesk) => {
  const circuit = circuitOf(desk)
  return circuit && desk.site.get(desk.ask(circuit.facts.fedBy), 'breaker')
}

/** What the box says about a ground: the first question of every remedy here. */
function groundInBox(desk: RemedyDesk) {
  return desk.ask(outletOf(desk).facts.ground)
}

function gfciHere(desk: RemedyDesk): Advice {
  const loose = looseGround(desk)
  if (loose === 'reconnect only') return reconnectOnly(desk)
  const fill = fillWithDevice(outletOf(desk), desk.site.edition, fact => desk.ask(fact))
  if (!fill)
    return desk.conditional(
      'The box has to take the device: count what is in it, and see that it is deep enough',
    )
  if (!fill.fits)
    return desk.refused('The box is too full: {total} in³ in {volume} in³', {
      total: fill.total,
      volume: fill.volume,
    })
  return desk.offered(
    loose
      ? 'The box takes it: {total} in³ of {volume} in³; reconnect the loose ground as well'
      : 'The box takes it: {total} in³ of {volume} in³',
    { total: fill.total, volume: fill.volume },
  )
}

/** Where a ground is in the box and missing is the ground, reconnecting is all there is to do; else it comes along. */
function looseGround(desk: RemedyDesk): 'reconnect only' | 'reconnect too' | undefined {
  if (groundInBox(desk) !== 'present, not connected') return undefined
  return desk.result.rule.remedies.includes('reconnect-ground') ? 'reconnect only' : 'reconnect too'
}
const reconnectOnly = (desk: RemedyDesk): Advice =>
  desk.refused('A ground is in the box: reconnect it, nothing else')

function firstOutlet(desk: RemedyDesk): Advice {
  const outlet = outletOf(desk)
  const loose = looseGround(desk)
  if (loose === 'reconnect only') return reconnectOnly(desk)
  if (desk.ask(outlet.facts.after) === 'panel')
    return desk.refused('This is the first outlet itself')
  return atFirstOutlet(desk, first =>
    desk.offered(
      loose
        ? 'One device at {first} protects this one too; reconnect the loose ground here as well'
        : 'One device at {first} protects this one too',
      { first: valueOf(first, 'name') ?? first.id },
    ),
  )
}

function breakerDevice(desk: RemedyDesk): Advice {
  const loose = looseGround(desk)
  if (loose === 'reconnect only') return reconnectOnly(desk)
  const breaker = breakerOf(desk)
  const circuit = circuitOf(desk)
  if (!breaker || !circuit) return desk.conditional('The breaker has to be found')
  const panel = desk.site.get(breaker.parent ?? undefined, 'enclosure')
  const made = panel && desk.ask(panel.facts.protectiveBreakers)
  if (made === 'none made') return desk.refused('No protective breakers are made for this panel')
  const device = desk.ask(breaker.facts.device)
  if (device !== undefined && device !== 'breaker')
    return desk.refused('The circuit is behind a fuse')
  const shares = sharesNeutral(desk, circuit)
  if (made === undefined || shares === undefined)
    return desk.conditional('The panel must take one, and the neutral must be the circuit’s own')
  const too = loose ? '; reconnect the loose ground as well' : ''
  return shares
    ? desk.offered(`A two-pole type: the neutral is shared${too}`)
    : desk.offered(`The neutral is the circuit’s own${too}`)
}

function groundingConductor(desk: RemedyDesk): Advice {
  if (groundInBox(desk) === 'present, not connected')
    return desk.refused('A ground is in the box: reconnect it, nothing else')
  const breaker = breakerOf(desk)
  const rating = breaker && desk.ask(breaker.facts.ratingAmps)
  if (rating === undefined) return desk.conditional('The rating sets its size')
  const size = equipmentGroundSize(rating, 'copper')
  return size === undefined
    ? desk.refused('Too large a circuit for this table')
    : desk.offered(
        '{size} AWG copper for {rating} A, from the ground bar of the panel where this circuit starts',
        { size, rating },
      )
}

function raceway(desk: RemedyDesk): Advice {
  const outlet = outletOf(desk)
  const ground = desk.ask(outlet.facts.ground)
  if (ground === undefined)
    return desk.conditional('See whether the box is fed by metal raceway or armor')
  if (ground !== 'metal raceway or armor')
    return desk.refused('No metal raceway or armor at this box')
  const path = groundOf(desk.site, outlet)
  desk.rest(path.rests)
  const ohms = desk.ask(outlet.facts.groundOhms)
  if (path.value === 'good')
    return desk.offered('{ohms} Ω: it serves as the ground', { ohms: ohms ?? 0 })
  if (path.value === 'none')
    return ohms !== undefined && ohms > GOOD_GROUND_OHMS
      ? desk.refused('{ohms} Ω is too much', { ohms })
      : desk.refused(
          'Of a type that never serves as a ground, however it measures: old spiral armor, or too long',
        )
  return desk.conditional(
    'Prove it: measure the ground impedance, and see of which type every run is',
  )
}

const AFCI_DUTY = 'AFCI where the room and the edition ask for it at replacement'
const TR = 'Tamper-resistant; weather-resistant outdoors'

export const RECEPTACLE_REMEDIES: readonly Remedy[] = [
  defineRemedy({
    id: 'reconnect-ground',
    title: 'Reconnect the ground that is there',
    gives: 'A real ground',
    steps: ['Bond box and device to the conductor'],
    tests: ['Ground impedance 1 Ω or less'],
    judge(desk) {
      const ground = groundInBox(desk)
      if (ground === undefined)
        return desk.conditional('Open the box: is a grounding conductor there?')
      return ground === 'present, not connected'
        ? desk.offered('A ground is in the box')
        : ground === 'connected'
          ? desk.offered('It is on the device: find where it is open along the chain')
          : desk.refused('No grounding conductor in the box')
    },
  }),
  defineRemedy({
    id: 'two-slot-device',
    title: 'Put back a two-slot receptacle',
    gives: 'A face that promises nothing',
    lacks: 'Three-slot use; ground',
    duties: ['GFCI still where the place asks for it', AFCI_DUTY],
    steps: ['Fit a two-slot receptacle'],
    judge(desk) {
      const ground = groundInBox(desk)
      if (ground === undefined)
        return desk.conditional('Only where no ground is in the box: open it')
      const years = desk.site.yearsOf(outletOf(desk))
      if (ground === 'none' && years.from >= GROUND_RUN_SINCE)
        return desk.refused('A circuit of {year} needs a ground: a face without one hides it', {
          year: years.from,
        })
      return ground === 'none'
        ? desk.offered('No ground in the box')
        : desk.refused('A ground is in the box: it must be a grounding type')
    },
  }),
  defineRemedy({
    id: 'gfci-here',
    title: 'GFCI receptacle here',
    gives: 'Shock protection',
    lacks: 'Ground',
    duties: [TR, AFCI_DUTY, 'No ground carried onward from it'],
    markings: ['No Equipment Ground, where there is none'],
    steps: ['Line side only', 'Fit, label'],
    tests: ['Its own test button; a plug-in tester cannot trip it without a ground'],
    judge: gfciHere,
  }),
  defineRemedy({
    id: 'gfci-first-outlet',
    title: 'GFCI at the first outlet, three-slot after it',
    gives: 'Shock protection for all after it',
    lacks: 'Ground',
    duties: [
      TR,
      AFCI_DUTY,
      'First outlet readily accessible',
      'Maker’s limit on outlets downstream',
    ],
    markings: [
      'First: No Equipment Ground, where there is none',
      'Each after: GFCI Protected, and No Equipment Ground where there is none',
    ],
    steps: ['Fit at the first outlet, onward cable on the load terminals', 'Label each'],
    tests: ['Test button, then each outlet dead'],
    judge: firstOutlet,
  }),
  defineRemedy({
    id: 'gfci-breaker',
    title: 'GFCI or dual-function breaker',
    gives: 'Shock protection for the whole circuit; with dual-function the AFCI duty too',
    lacks: 'Ground',
    duties: [TR],
    markings: ['Each outlet without a ground: GFCI Protected and No Equipment Ground'],
    steps: ['Fit the listed breaker, circuit neutral on it', 'Label each outlet'],
    tests: ['Test button, then each outlet dead'],
    judge: breakerDevice,
  }),
  defineRemedy({
    id: 'run-grounding-conductor',
    title: 'Run a grounding conductor',
    gives: 'A real ground',
    duties: [
      TR,
      AFCI_DUTY,
      'From the ground bar of the panel where this circuit starts, the electrode system, or from ' +
        '2014 another circuit of that same panel',
      'Protected; never to a rod of its own, never to a water pipe beyond its first 5 ft inside',
    ],
    needsPermit: true,
    steps: [
      'From a permitted point (250.130(C))',
      'Along the route, protected',
      'Bond box and device',
    ],
    tests: ['Ground impedance 1 Ω or less'],
    judge: groundingConductor,
  }),
  defineRemedy({
    id: 'use-raceway',
    title: 'Use the metal raceway or bonded armor',
    gives: 'A real ground',
    steps: ['Prove the impedance', 'Bond the device to the box'],
    tests: ['Ground impedance 1 Ω or less'],
    judge: raceway,
  }),
  defineRemedy({
    id: 'new-cable',
    title: 'New cable from the panel',
    gives: 'Ground, and everything else',
    duties: ['Rules of a new circuit: AFCI, GFCI, TR, box fill'],
    needsPermit: true,
    steps: ['Route', 'Pull', 'Land, label'],
    judge: always('Always possible; access decides the cost'),
  }),
  defineRemedy({
    id: 'own-ground-rod',
    title: 'Ground it to a rod of its own',
    gives: 'Nothing against a fault',
    steps: [],
    judge: desk =>
      desk.refused(
        'Earth alone never opens a breaker; not permitted as the ground of a circuit (250.4(A)(5))',
      ),
  }),
  defineRemedy({
    id: 'mark-receptacle',
    title: 'Put the marking on',
    gives: 'People know there is no ground',
    markings: ['No Equipment Ground', 'GFCI Protected where the device is elsewhere'],
    steps: ['Label visible after installation'],
    judge(desk) {
      const path = groundOf(desk.site, outletOf(desk))
      if (path.value === 'good')
        return desk.refused('There is a ground here: the marking would say what is not so')
      const source = gfciOf(desk.site, outletOf(desk))
      desk.rest(source.rests)
      return desk.offered(
        source.value === 'own'
          ? 'No Equipment Ground on the plate'
          : 'GFCI Protected and No Equipment Ground on the plate',
      )
    },
  }),
  defineRemedy({
    id: 'remove-jumper',
    title: 'Remove the jumper, then choose again',
    gives: 'No neutral on frames',
    lacks: 'Ground: the outlet is then ungrounded and is judged as such',
    steps: [
      'Power off and proved off',
      'Remove the jumper',
      'Check the polarity',
      'Then the remedies of a missing ground',
    ],
    tests: ['Ground terminal to reference: 0 V'],
    judge: always('First, before anything else'),
  }),
  defineRemedy({
    id: 'replace-device',
    title: 'Replace the device',
    gives: 'Grip, and a whole face',
    duties: [TR, AFCI_DUTY, 'GFCI where the place asks for it'],
    steps: ['Power off and proved off', 'Look along the chain for the same', 'Replace'],
    judge(desk) {
      const ground = groundInBox(desk)
      if (ground === undefined)
        return desk.conditional('What may go in its place depends on the ground in the box')
      return ground === 'none'
        ? desk.offered('Two-slot, or GFCI with marking: no ground in the box')
        : desk.offered('A grounding type')
    },
  }),
]
