import { valueOf } from '../model/house'
import { atFirstOutlet, sharesNeutral } from './places'
import { groundOf, LIVE_GROUND_VOLTS } from '../derive/ground'
import { readStateOf } from '../derive/readings'
import type { OutletState } from '../diagnosis/states'
import { always, defineRemedy, type Advice, type Remedy, type RemedyDesk } from './remedy'

/** Where it goes: the first outlet of this circuit, if the order along it is known and a device can stand there. */
const afciFirst = (desk: RemedyDesk): Advice =>
  atFirstOutlet(desk, first => {
    const unfit = unfitForNew(desk)
    if (unfit) return unfit
    if (first !== desk.subject)
      return desk.offered('At {first}, the first outlet on the circuit', {
        first: valueOf(first, 'name') ?? first.id,
      })
    return valueOf(first, 'type') === 'receptacle'
      ? desk.offered('This is the first outlet')
      : desk.offered('This is the first outlet, and no receptacle: a blank-face device in its box')
  })

/** A new circuit is protected from its start: a device only where the run to it is armored, or a listed one. 210.12. */
function unfitForNew(desk: RemedyDesk): Advice | undefined {
  const circuit = desk.site.get(desk.ask(desk.on('outlet').facts.circuit), 'circuit')
  const isNew = circuit && desk.ask(circuit.facts.work) === 'new'
  if (!isNew) return undefined
  const run = desk.ask(circuit.facts.homeRun)
  if (run === undefined)
    return desk.conditional('On a new circuit only with metal raceway to it, or as listed')
  return run === 'other wiring'
    ? desk.refused('The circuit is new, and the run to its first outlet is not protected')
    : undefined
}

/** Remedies at outlets, boxes and equipment. */
export const OUTLET_REMEDIES: readonly Remedy[] = [
  defineRemedy({
    id: 'afci-breaker',
    title: 'Combination AFCI or dual-function breaker',
    gives: 'The whole circuit protected, the run from the panel too',
    duties: ['A type listed for the panel', 'On a shared neutral the two-pole type'],
    tests: ['Own button, then the circuit dead'],
    steps: [
      'Read the panel label for a listed one',
      'Neutral of this circuit to the breaker',
      'Test by its own button',
    ],
    judge(desk) {
      const circuit = desk.site.get(desk.ask(desk.on('outlet').facts.circuit), 'circuit')
      const breaker = desk.site.get(circuit && desk.ask(circuit.facts.fedBy), 'breaker')
      const panel = desk.site.get(breaker?.parent ?? undefined, 'enclosure')
      const state = panel && desk.ask(panel.facts.protectiveBreakers)
      if (state === 'none made') return desk.refused('None are made for this panel line')
      const device = breaker && desk.ask(breaker.facts.device)
      if (device !== undefined && device !== 'breaker')
        return desk.refused(
          'The circuit starts at a fuse: a device at the first outlet, or beside the panel',
        )
      const shares = sharesNeutral(desk, circuit)
      if (shares === true && breaker && desk.ask(breaker.facts.poles) === 1)
        return desk.offered('Of the two-pole type: the circuit shares its neutral')
      if (shares === undefined)
        return desk.conditional('The neutral must be the circuit’s own, or the type two-pole')
      return state === undefined
        ? desk.conditional('If one is listed for this panel')
        : desk.offered('One listed for this panel')
    },
  }),
  defineRemedy({
    id: 'afci-receptacle-here',
    title: 'AFCI receptacle in place of this one',
    gives: 'What a replaced receptacle must have, from here on',
    lacks: 'The wiring ahead of it',
    duties: [
      'GFCI too where the place asks for it: a dual-function receptacle',
      'Box fill with the device in it',
      'Tamper-resistant',
    ],
    steps: ['Incoming cable on line, onward cable on load', 'Test by its own button'],
    tests: ['Own button, then this outlet and those after it dead'],
    judge(desk) {
      const outlet = desk.on('outlet')
      const type = desk.ask(outlet.facts.type)
      if (type !== undefined && type !== 'receptacle')
        return desk.refused('It is no receptacle: a device ahead of it, or the breaker')
      const work = desk.ask(outlet.facts.work)
      if (work === undefined) return desk.conditional('Enough only where a receptacle is replaced')
      if (work !== 'replaced')
        return desk.refused(
          'Enough only where a receptacle is replaced: a new or extended circuit needs more',
        )
      const circuit = desk.site.get(desk.ask(outlet.facts.circuit), 'circuit')
      const shares = sharesNeutral(desk, circuit)
      return shares === true
        ? desk.offered('With the onward neutral on the line side: the neutral is shared')
        : desk.offered('At this receptacle, or at one ahead of it')
    },
  }),
  defineRemedy({
    id: 'pull-switch-neutral',
    title: 'A neutral to the switch box',
    gives: 'A switch of any kind that sends nothing into the ground',
    steps: ['Three-wire cable in place of the two-wire switch loop', 'Box fill counted again'],
    judge: always('With the wall open, or from an open attic or basement'),
  }),
  defineRemedy({
    id: 'own-circuit',
    title: 'A circuit of its own',
    gives: 'An appliance that shares its circuit with nothing',
    duties: ['Rules of a new circuit: AFCI, GFCI, TR, box fill', 'A free space in the panel'],
    steps: [
      'Conductor and breaker for the load as the code counts it',
      'From the panel, without any other outlet on it',
      'Label the directory',
    ],
    needsPermit: true,
    judge: always('If the panel has a space and the service carries it'),
  }),
  defineRemedy({
    id: 'circuit-per-unit',
    title: 'One circuit for each unit',
    gives: 'Each unit behind the device its own nameplate allows',
    duties: ['A free space for each', 'Disconnect within sight of each'],
    steps: ['Conductors for the minimum of each nameplate', 'Device within its maximum'],
    needsPermit: true,
    judge(desk) {
      const units = desk.site.outletsOf(desk.on('circuit')).filter(p => {
        const type = desk.ask(p.facts.type)
        return type === undefined || type === 'hard-wired outlet'
      })
      if (units.length > 1)
        return desk.offered('{n} units hang on this circuit', { n: units.length })
      return undefined
    },
  }),
  defineRemedy({
    id: 'knob-and-tube-stages',
    title: 'Replace it by stages, the buried parts first',
    gives: 'Less of it each time a wall is open',
    lacks: 'Until the last stage, a ground on what is left',
    duties: ['Rules of new circuits for each part', 'Never a new part fed from the old'],
    steps: [
      'Map it, single conductor by single conductor',
      'Buried in insulation, damaged or extended parts first',
      'Then kitchen, bath and laundry, then what is left',
    ],
    needsPermit: true,
    judge: always('Each stage leaves a whole that is safe and written down'),
  }),
  defineRemedy({
    id: 'afci-first-outlet',
    title: 'AFCI or dual-function receptacle as first outlet',
    gives: 'Arc-fault protection for everything after it',
    lacks: 'The run from the panel to it, unless the listed conditions hold',
    duties: [
      'On a new circuit only with steel raceway or armor to it, or at most 50 ft of 14 AWG or ' +
        '70 ft of 12 AWG with the listed breaker and a marked first box',
      'Readily accessible',
      'Box fill with the device in it',
      'GFCI too where the device itself stands in a place that asks for it',
    ],
    markings: ['First box of the circuit marked'],
    steps: [
      'Find the first outlet on the circuit',
      'Line and load by the print',
      'Test by its own button',
    ],
    tests: ['Own button, then every outlet after it dead'],
    judge: afciFirst,
  }),
  defineRemedy({
    id: 'swap-line-load',
    title: 'Put line on line and load on load',
    gives: 'A device that is dead when it trips',
    steps: [
      'Find which cable comes from the panel: one live with all others apart',
      'That one on the line terminals, onward cable on load',
      'Press its button with a load plugged in',
    ],
    tests: ['Tripped: its own outlet dead, outlets after it dead'],
    judge: always('The cable from the panel has to be found first'),
  }),
  defineRemedy({
    id: 'move-protection',
    title: 'Move the protection where it can be reached',
    gives: 'A reset that can be reached',
    duties: ['The old place gets an ordinary receptacle, on the load side of the new device'],
    steps: [
      'Blank-face device or protected outlet at a reachable box ahead of this one, or a breaker',
      'Label where it is reset',
    ],
    markings: ['Where it is reset, at each outlet in another room'],
    tests: ['Own button, then this outlet dead'],
    judge(desk) {
      const after = desk.ask(desk.on('outlet').facts.after)
      return after === undefined
        ? desk.conditional('Which box stands ahead of it has to be known')
        : after === 'panel'
          ? desk.offered('It is the first outlet: a breaker, or a box between it and the panel')
          : desk.offered('At the box ahead of it, or as a breaker')
    },
  }),
  defineRemedy({
    id: 'cut-ground-on',
    title: 'Take the onward ground off',
    gives: 'No frame tied to nothing',
    duties: ['Every outlet after it is then without a ground, and is marked so'],
    markings: ['Each after: GFCI Protected and No Equipment Ground'],
    steps: [
      'Separate and cap the onward grounding conductor in this box',
      'Mark every outlet after it',
    ],
    tests: ['No continuity between the ground terminals of two outlets'],
    judge: always('A real ground at this device would end the fault as well'),
  }),
  defineRemedy({
    id: 'rewire-device',
    title: 'Find the joint, and wire it right',
    gives: 'Hot, neutral and ground in their places',
    steps: [
      'Where the state begins along the circuit: the joint before the first outlet that shows it',
      'Open that box first',
      'Land hot on the narrow side, neutral on the wide, ground on green',
    ],
    tests: [
      'Narrow slot to a proved reference 120 V, wide slot 0 V',
      'Drop and ground impedance under load',
    ],
    judge(desk) {
      const outlet = desk.on('outlet')
      const read = readStateOf(desk.site, outlet)
      desk.rest(read?.rests ?? [])
      const proven: readonly OutletState[] = read?.ranking.proven ?? []
      if (proven.includes('open service neutral'))
        return desk.refused('The neutral of the service is open: no device in the house cures it')
      const isOneOfTwo = read?.ways().some(w => w.parts.includes('open service neutral')) ?? false
      if (proven.length === 0 && isOneOfTwo)
        return desk.conditional('Read both halves at the panel first: the service may be at fault')
      if (proven.includes('lost shared neutral'))
        return desk.offered('In the neutral ahead of both circuits of the pair: both off first')
      if (proven.includes('floating ground energized'))
        return desk.offered('The appliance first, then the ground that floats')
      const lamps = desk.ask(outlet.facts.lamps)
      if (lamps === 'open hot')
        return desk.offered('See first whether the breaker or a device ahead has tripped')
      if (lamps === 'hot and ground reversed') {
        // The same lamps are shown by an open neutral under load and by a supply on the ground terminal.
        const toEarth = desk.ask(outlet.facts.groundToReferenceV)
        if (toEarth === undefined)
          return desk.conditional('Measure the ground terminal to a proved reference first')
        return toEarth >= LIVE_GROUND_VOLTS
          ? desk.offered('Off now, and at this device: hot stands on its ground terminal')
          : desk.offered('The neutral is open in a joint ahead: this device is likely right')
      }
      return lamps === 'open neutral'
        ? desk.offered('The neutral is open in a joint ahead: this device is likely right')
        : desk.offered('At this device')
    },
  }),
  defineRemedy({
    id: 'tr-receptacle',
    title: 'Tamper-resistant receptacle',
    gives: 'Shutters',
    duties: ['What a replacement brings along: GFCI and AFCI where room and edition ask'],
    steps: [
      'Of the rating and grounding this box allows',
      'Try the shutters with one blade, then two',
    ],
    judge: replacement,
  }),
  defineRemedy({
    id: 'wr-receptacle',
    title: 'Weather-resistant receptacle, in-use cover',
    gives: 'A device made for outdoors',
    duties: ['GFCI outdoors', 'Tamper-resistant as well'],
    steps: ['WR and TR on one face', 'Cover that closes over a plugged-in cord in wet places'],
    judge: replacement,
  }),
  defineRemedy({
    id: 'larger-box',
    title: 'Larger box, extension, or the device elsewhere',
    gives: 'Room for what is in it',
    duties: ['Count again with the device that goes in'],
    steps: [
      'Old-work box of the volume the calculation asks for',
      'Or a surface extension ring',
      'Or protection at the breaker, so that no deep device is needed here',
    ],
    tests: ['The calculation again, written down'],
    judge(desk) {
      const outlet = desk.on('outlet')
      const volume = desk.ask(outlet.facts.boxVolumeIn3)
      return volume === undefined
        ? desk.conditional('The volume decides how much larger')
        : desk.offered('More than {volume} in³, by the sum above', { volume })
    },
  }),
  defineRemedy({
    id: 'box-extender',
    title: 'Listed box extender',
    gives: 'A box that comes to the surface',
    steps: ['Extender of the depth measured, metal on a metal box', 'Bond it with the box'],
    judge: always('Of the depth measured'),
  }),
  defineRemedy({
    id: 'fit-cover',
    title: 'Fit the cover',
    gives: 'Nothing live in reach',
    steps: [
      'Look at what is behind it while it is open',
      'Plate that covers the opening; in-use cover outdoors',
    ],
    judge: always('A minute’s work once the power is off'),
  }),
  defineRemedy({
    id: 'box-for-splice',
    title: 'Put the splice in a box that stays accessible',
    gives: 'A failing splice kept in, and found',
    duties: ['Box fill', 'At least 6 in free at the splice'],
    steps: [
      'Box fastened to the structure, cables clamped',
      'Splice remade with a listed connector',
      'Cover',
    ],
    judge: always('Or a tap device listed for concealed repair, for NM cable only'),
  }),
  defineRemedy({
    id: 'open-up-box',
    title: 'Make the box accessible, or move the splice',
    gives: 'A splice that can be found',
    steps: [
      'Blank plate in the finish over it',
      'Or pull the splice back to a box that can be reached',
    ],
    judge: always('A blank plate is the least work'),
  }),
  defineRemedy({
    id: 'closet-light',
    title: 'Enclosed luminaire with its clearance',
    gives: 'Nothing hot near what is stored',
    steps: [
      'Enclosed surface LED 12 in, or recessed enclosed 6 in from the storage space',
      'Measure to the nearest shelf or hanging space',
    ],
    judge: always('Or no luminaire in the closet at all'),
  }),
  defineRemedy({
    id: 'fit-disconnect',
    title: 'Disconnect within sight',
    gives: 'A unit that can be made safe where it stands',
    duties: ['Its own working space', 'Fuses in it where the nameplate names fuses only'],
    steps: ['Visible from the unit and within 50 ft', 'Not behind the unit’s own panels'],
    needsPermit: true,
    judge: always('Between breaker and unit'),
  }),
  defineRemedy({
    id: 'split-circuit',
    title: 'Give the other outlets a circuit of their own',
    gives: 'A required circuit for itself',
    duties: ['Rules of a new circuit: AFCI, GFCI, TR, box fill', 'A free space in the panel'],
    steps: [
      'Find where the others branch off',
      'Feed them from a new circuit or from one that may serve them',
    ],
    needsPermit: true,
    judge: desk =>
      desk.failure('conductor-too-small', 'device-too-small')
        ? desk.refused('What it supplies is too much for it by itself')
        : desk.offered('If the panel has a space'),
  }),
  defineRemedy({
    id: 'add-outlet',
    title: 'Add the outlet',
    gives: 'No extension cords',
    duties: [
      'An extension: AFCI in listed rooms beyond 6 ft or with outlets added, GFCI by place, TR',
      'Box fill where it is tapped',
    ],
    steps: [
      'From a circuit that may serve the place',
      'Counter receptacles from a small-appliance circuit only',
    ],
    needsPermit: true,
    judge: always('From a circuit that may serve it'),
  }),
  defineRemedy({
    id: 'fit-alarms',
    title: 'Alarms where required',
    gives: 'Somebody is woken',
    duties: [
      'AFCI as other outlets of the room; no GFCI and no local switch ahead of them without checking the local rule',
    ],
    steps: ['Each bedroom, outside them, each level', 'Interconnected where wired'],
    tests: ['Press each: all sound'],
    judge: always('Local law says where'),
  }),
  defineRemedy({
    id: 'knob-and-tube-care',
    title: 'Leave it free, protect it, write the conditions down',
    gives: 'Lawful to stay',
    lacks: 'A ground; insurance in many cases',
    duties: [
      'At most 15 A behind it, GFCI or AFCI ahead',
      'Never buried in insulation, never extended, splices soldered or in boxes',
    ],
    steps: [
      'Take insulation off it, or replace that part first',
      'Put the neutral back unfused and unswitched',
      'Map before cutting anything',
    ],
    judge(desk) {
      const run = desk.on('segment')
      if (desk.ask(run.facts.isNeutralFused) === true)
        return desk.offered('After the fuse or switch has come out of the neutral')
      return desk.ask(run.facts.isBuried) === true
        ? desk.offered('After it has been freed of insulation')
        : desk.offered('As it is, with the extension taken back or put in boxes')
    },
  }),
  defineRemedy({
    id: 'four-wire-circuit',
    title: 'Four-wire circuit and outlet',
    gives: 'A frame on a grounding conductor',
    duties: [
      'Bonding strap between frame and neutral comes off at the appliance',
      'A new cord of four wires',
    ],
    steps: [
      'Four conductors from the panel, or a grounding conductor run to the outlet',
      'Four-slot receptacle, strap off, new cord',
    ],
    needsPermit: true,
    tests: ['Frame to a proved reference 0 V with the appliance running'],
    judge: always('Needed once the circuit or its panel changes'),
  }),
]

/** The device that replaces one: what the box offers for a ground decides which kind may go in. 406.4(D). */
function replacement(desk: RemedyDesk): Advice {
  const outlet = desk.on('outlet')
  const ground = groundOf(desk.site, outlet)
  desk.rest(ground.rests)
  if (ground.value === undefined) {
    // Where all that was looked at leaves it open, a reading to a proved reference settles it.
    desk.ask(outlet.facts.groundToReferenceV)
    desk.ask(outlet.facts.groundOhms)
    return desk.conditional('Which kind may go in depends on the ground in the box')
  }
  return ground.value === 'good'
    ? desk.offered('A grounding type')
    : desk.offered('No ground in the box: two-slot, or GFCI-protected and marked')
}
