import { allowedBand } from '../derive/allowed'
import { loadOf } from '../derive/load'
import { readStateOf } from '../derive/readings'
import { serviceLoadOf } from '../derive/service-load'
import { Site } from '../derive/site'
import { isKind, valueOf } from '../model/house'
import { standardRatings } from '../tables/ampacity'
import { always, defineRemedy, type Advice, type Remedy, type RemedyDesk } from './remedy'

/** What stores or charges can be held off without harm. */
export const CAN_WAIT: ReadonlySet<string> = new Set([
  'vehicle charger',
  'water heater',
  'space heating',
])
/** Whether the service carries the rest, with everything held off that can wait. 220.83, 750.30. */
function heldOffEnough(desk: RemedyDesk): Advice {
  const over = desk.failure('load-over-service')
  const subjects = new Map(desk.site.house.subjects)
  for (const c of desk.site.all.circuit)
    if (CAN_WAIT.has(valueOf(c, 'supplies') ?? '')) subjects.delete(c.id)
  const amps = serviceLoadOf(new Site({ subjects })).loads.map(l => l.amps)
  const rest = Math.max(...amps)
  return over && rest > Number(over.data.main)
    ? desk.refused('What cannot wait calculates to {rest} A by itself', { rest })
    : desk.offered('Where the largest loads need not run together')
}

/** A device the appliance asks for, where the conductors may stand behind it. 240.4, 422.11. */
function suitingBreaker(desk: RemedyDesk): Advice {
  const { subject, site } = desk
  const small = desk.failure('conductor-too-small')
  if (small)
    return desk.refused('The conductors carry {ampacity} A and the load asks for {least} A', {
      ampacity: Number(small.data.ampacity),
      least: Number(small.data.least),
    })
  if (desk.failure('measured-over-device'))
    return desk.conditional('If the conductors carry it, and what hangs on it may stand behind it')
  const load = isKind(subject, 'circuit') ? loadOf(site, subject) : undefined
  const breaker = isKind(subject, 'circuit')
    ? site.get(desk.ask(subject.facts.fedBy), 'breaker')
    : undefined
  const rating = breaker && desk.ask(breaker.facts.ratingAmps)
  const isTooSmall = load && rating !== undefined && rating < load.device.from
  if (!isTooSmall) return desk.offered('If the conductors are rated for it')
  desk.rest(load.device.rests)
  const least = standardRatings(site.edition).find(r => r >= load.device.from) ?? rating
  const runs = site.children(subject, 'segment')
  const no = { value: false, fact: undefined }
  const bands = runs.map(run => allowedBand(site, run, no, no))
  for (const band of bands) {
    desk.rest(band.rests)
    if (band.isKnown && band.high.allowed < least)
      return desk.refused(
        'The load asks for {least} A and the conductors take {allowed} A: both have to be larger',
        { least, allowed: band.high.allowed },
      )
  }
  const isOpen = runs.length === 0 || bands.some(b => !b.isKnown || b.low.allowed < least)
  return isOpen
    ? desk.conditional('{least} A, if the conductors carry it: they have not been gauged', {
        least,
      })
    : desk.offered('{least} A: the conductors carry it', { least })
}

/** Remedies for service, grounding, splices and workmanship. */
export const SERVICE_REMEDIES: readonly Remedy[] = [
  defineRemedy({
    id: 'cold-weld-splice',
    title: 'Crimped cold-weld pigtail',
    gives: 'A joint that stays tight, accepted by every school',
    needsPermit: true,
    steps: [
      'Certified installer with the tool of the system',
      'Copper pigtail sized to the breaker',
      'Box fill counted again',
    ],
    judge: always('Accepted by the strict school'),
  }),
  defineRemedy({
    id: 'lug-splice',
    title: 'Set-screw lug marked for aluminum to copper',
    gives: 'A joint with a torque that can be checked',
    steps: [
      'Read the lug for metals and sizes',
      'Antioxidant where the maker says',
      'Torque as marked',
      'Box fill counted again',
    ],
    judge: always('Accepted by the strict school'),
  }),
  defineRemedy({
    id: 'listed-twist-on',
    title: 'Twist-on or push-in connector marked for aluminum to copper',
    gives: 'A lawful joint',
    lacks: 'Disputed: consumer-safety guidance does not accept twist-ons',
    steps: ['Read the connector for metals, sizes, solid or stranded', 'Fit as marked'],
    judge(desk) {
      const school = desk.ask(desk.site.premises.facts.aluminumSchool)
      return school === undefined
        ? desk.conditional('The desk has not chosen a school')
        : school === 'strict'
          ? desk.refused('This desk accepts cold-weld crimps, set-screw lugs and CO/ALR only')
          : desk.offered('Where listed for these metals and sizes')
    },
  }),
  defineRemedy({
    id: 'identify-metal',
    title: 'Identify the metal, then judge everything on it again',
    gives: 'Ampacity and terminations judged on the true metal',
    steps: [
      'Scrape or cut back an end',
      'Correct the record',
      'Check devices and splices on the circuit',
    ],
    judge: always('Several judgments change with it'),
  }),
  defineRemedy({
    id: 're-land',
    title: 'Cut back and land again',
    gives: 'A whole conductor under a tight terminal',
    duties: ['At least 6 in free, 3 in past the box face'],
    steps: [
      'Cut back to a whole conductor',
      'Strip to the gauge of the terminal',
      'Hook clockwise under a screw, straight into a plate',
      'Torque as marked',
    ],
    judge: always('Where enough length is left; else splice a pigtail'),
  }),
  defineRemedy({
    id: 're-insulate',
    title: 'Listed insulation in place of the tape',
    gives: 'Insulation as good as the conductor’s own',
    steps: [
      'Take the tape off',
      'Listed connector, sleeve or electrical tape',
      'Look for heat under it',
    ],
    judge: always('After looking at what it covered'),
  }),
  defineRemedy({
    id: 'fasten-cable',
    title: 'Fasten, plate and seal',
    gives: 'Cable kept from pulling, nails and fire',
    steps: [
      'Staple within 12 in and every 4½ ft',
      'Steel plate where a hole is near the edge',
      'Seal fire-rated penetrations',
    ],
    cautions: [],
    judge: always('Where it can be reached'),
  }),
  defineRemedy({
    id: 'appliance-breaker',
    title: 'Breaker to suit the appliance',
    gives: 'Protection the appliance was tested with',
    steps: ['Read the nameplate', 'Fit the size it allows, at least 125 % for heaters'],
    judge: suitingBreaker,
  }),
  defineRemedy({
    id: 'replace-service-conductors',
    title: 'Larger service conductors',
    gives: 'A service as large as its main',
    needsPermit: true,
    duties: ['Rules of replaced service equipment'],
    steps: [
      'Permit and utility appointment',
      'Replace conductors, check meter enclosure and grounding electrode conductor',
    ],
    judge: always('With the utility'),
  }),
  defineRemedy({
    id: 'move-disconnect',
    title: 'Disconnect where the conductors enter',
    gives: 'A device that opens on a fault in what runs inside',
    needsPermit: true,
    duties: [
      'What comes after it is then a feeder: neutral and ground apart from there on',
      'Emergency disconnect outdoors from the 2020 edition',
    ],
    steps: [
      'Permit and utility appointment',
      'Disconnect outside or just inside',
      'Separate the old panel',
    ],
    judge: always('With the utility'),
  }),
  defineRemedy({
    id: 'join-electrodes',
    title: 'Join the electrodes',
    gives: 'One ground for the whole building',
    steps: [
      '6 AWG copper or larger from electrode to electrode',
      'Listed clamps, where they can be reached',
    ],
    cautions: ['Have buried services located first'],
    judge: always('To the electrode system of the service'),
  }),
  defineRemedy({
    id: 'pool-work',
    title: 'Bond, protect and clear it, by somebody who does this work',
    gives: 'Water in which no voltage stands',
    needsPermit: true,
    duties: ['Nobody in the water until it is inspected'],
    steps: [
      'Bonding of metal, water and deck',
      'Ground-fault protection',
      'Distances to receptacles and lines',
    ],
    tests: ['Own button of the protection', 'Continuity of the bonding from part to part'],
    judge: always('Licensed work in every place'),
  }),
  defineRemedy({
    id: 'larger-service',
    title: 'Larger service',
    gives: 'Room for what is there and what is to come',
    needsPermit: true,
    duties: [
      'Rules of replaced service equipment: surge protection and outdoor emergency disconnect from the 2020 edition',
      'Conductors, meter, grounding electrode conductor of the new size',
    ],
    steps: [
      'Permit and utility appointment',
      'The calculation, written down, for the next size up',
    ],
    judge: always('With the utility'),
  }),
  defineRemedy({
    id: 'fewer-loads',
    title: 'Less at once: a listed load controller, or gas in place of a heater',
    gives: 'A load within the service without changing it',
    duties: ['A listed controller counts in the calculation only as its listing says (750.30)'],
    steps: [
      'Find the two largest loads that need not run together',
      'Calculate again with the controller',
    ],
    judge: heldOffEnough,
  }),
  defineRemedy({
    id: 'electrode-conductor',
    title: 'Run a full-size grounding electrode conductor',
    gives: 'Surge and lightning a way into the soil',
    lacks: 'Makes no breaker trip',
    needsPermit: true,
    steps: [
      'Size by the service conductors',
      'Unspliced, listed clamp, to the bar where the neutral is',
    ],
    tests: ['Clamp reading near 0 A'],
    judge(desk) {
      if (
        !desk.failure('no-conductor', 'too-small', 'spliced', 'unprotected', 'aluminum-near-earth')
      )
        return desk.refused('The conductor itself is not what is wrong')
      return desk.failure('no-conductor') && desk.site.all.electrode.length === 0
        ? desk.offered('With the electrodes: none has been found yet')
        : desk.offered('To every electrode that is there')
    },
  }),
  defineRemedy({
    id: 'gec-to-neutral',
    title: 'Land it on the neutral bar',
    gives: 'Electrode and neutral joined without a screw between them',
    lacks: 'Makes no breaker trip',
    steps: [
      'With the utility: the bar stays live with the main off',
      'Under a lug of its own on the neutral bar, or on a bar a wire or busbar joins to it',
    ],
    tests: ['Neutral bar to electrode: continuity'],
    needsPermit: true,
    judge: desk =>
      desk.failure('lands-on-nothing', 'lands-on-enclosure', 'lands-behind-screw')
        ? desk.offered('Long enough, or spliced by irreversible crimp or weld')
        : desk.refused('It lands where it should'),
  }),
  defineRemedy({
    id: 'electrode-clamp',
    title: 'Listed clamp, made up bright, with its jumpers',
    gives: 'A connection that lasts in soil and damp',
    steps: [
      'Bright metal, a clamp listed for pipe or rod and for burial',
      'On a water pipe a jumper round meter and filters',
    ],
    tests: ['Clamp reading near 0 A'],
    judge: desk =>
      desk.failure('clamp-far-inside')
        ? desk.offered('Within 5 ft of where the pipe enters the building')
        : desk.failure('connection', 'no-jumper', 'clamp-hidden')
          ? desk.offered(
              'At the electrode that is loose, corroded, out of reach or without its jumper',
            )
          : desk.refused('The connections seen are sound'),
  }),
  defineRemedy({
    id: 'install-electrodes',
    title: 'Install the electrodes that are missing',
    gives: 'A way into the soil the code accepts',
    lacks: 'Makes no breaker trip',
    duties: [
      'Every electrode that is there is used: footing steel, ring, pipe, and rods where none is',
    ],
    steps: [
      'Two rods 6 ft or more apart, or footing steel',
      'Conductor of full size to the neutral',
    ],
    cautions: ['Have buried services located first'],
    needsPermit: true,
    judge: desk =>
      desk.failure(
        'no-conductor',
        'forbidden-electrode',
        'water-pipe-alone',
        'rods-too-near',
        'pipe-not-in-earth',
      )
        ? desk.offered('Two rods, where nothing better is there')
        : desk.refused('Electrodes of the right kind are there'),
  }),
  defineRemedy({
    id: 'second-rod',
    title: 'Second rod, 6 ft or more away',
    gives: 'No measurement needed any more',
    steps: ['Drive 8 ft in soil', 'Bond to the first with the same conductor'],
    cautions: ['Have buried services located first'],
    judge: desk =>
      desk.failure('rod-resistance')
        ? desk.offered('Where one rod stands alone above 25 Ω')
        : desk.refused('What is wrong here no further rod cures'),
  }),
  defineRemedy({
    id: 'building-electrode',
    title: 'Electrode at the separate building',
    gives: 'What the building with a feeder must have',
    lacks: 'Does not replace a grounding conductor in the feeder',
    needsPermit: true,
    steps: [
      'Rods or footing steel',
      'Conductor to the ground bar of its panel, or to the neutral where an old three-wire feeder is allowed to remain',
    ],
    judge: always('At its disconnect'),
  }),
  defineRemedy({
    id: 'bonding-bushing',
    title: 'Bonding bushing with jumper',
    gives: 'A sure path at service fault currents',
    steps: [
      'With the utility: the line side cannot be switched off here',
      'Bushing, jumper to the neutral bar',
    ],
    cautions: ['Line side stays live: the utility disconnects first'],
    judge: always('At each end of the raceway'),
  }),
  defineRemedy({
    id: 'larger-bonding-jumper',
    title: 'Bonding jumper of full size',
    gives: 'A way back for a fault that holds until the device opens',
    needsPermit: true,
    steps: [
      'Size by the service conductors; several in parallel by their areas together',
      'Both ends on bright metal under a listed lug',
    ],
    cautions: ['Line side stays live: the utility disconnects first'],
    tests: ['Neutral bar to enclosure: continuity'],
    judge(desk) {
      const failed = desk.failure('main-too-small', 'supply-too-small')
      if (failed) return desk.offered('{least} or larger', { least: String(failed.data.least) })
      return desk.failure('main-connection', 'supply-connection')
        ? desk.offered('Made up anew, both ends on bright metal under a listed lug')
        : undefined
    },
  }),
  defineRemedy({
    id: 'larger-ground',
    title: 'Grounding conductor of full size',
    gives: 'A way back for a fault that holds until the device opens',
    steps: [
      'Pull one of full size with the conductors of the circuit',
      'Or replace the run by a cable, whose ground is made with it',
    ],
    tests: ['Ground impedance 1 Ω or less at the far end'],
    judge(desk) {
      const failed = desk.failure('too-small')
      return failed
        ? desk.offered('{least} AWG or larger', { least: String(failed.data.least) })
        : undefined
    },
  }),
  defineRemedy({
    id: 'bond-water',
    title: 'Bond the water piping',
    gives: 'Pipes that cannot become live and stay so',
    steps: [
      'Listed clamp on bare metal pipe',
      'Conductor of full size to the service, the neutral bar or the grounding electrode conductor',
      'Jumper round the water meter and filters',
    ],
    tests: ['Clamp reading near 0 A'],
    judge: always('Clamp where it stays accessible'),
  }),
  defineRemedy({
    id: 'bond-piping',
    title: 'Bond the gas piping',
    gives: 'Pipes that cannot become live and stay so',
    steps: [
      'Listed clamp on bare rigid pipe or a fitting, on the house side of the gas meter',
      'Conductor of full size to the service or grounding electrode conductor',
    ],
    cautions: [
      'Never a jumper round the gas meter or its insulating joint: the supplier sees to that side',
    ],
    tests: ['Clamp reading near 0 A'],
    judge: always('Clamp where it stays accessible'),
  }),
  defineRemedy({
    id: 'remake-bond',
    title: 'Make the bond anew',
    gives: 'Steel and communications at the voltage of everything around them',
    steps: [
      'Listed clamp on bare metal, where it stays in reach',
      'To the service, its grounding electrode conductor or the bonding termination: short, without a splice',
    ],
    tests: ['Continuity from clamp to service'],
    judge: always('From the clamp to where it lands'),
  }),
  defineRemedy({
    id: 'appliance-ground-for-gas',
    title: 'Rely on the grounded appliance',
    gives: 'A bond through the appliance’s grounding conductor',
    steps: ['Prove the ground at the appliance'],
    judge(desk) {
      const piping = desk.ask(desk.site.premises.facts.gasPiping)
      const has = desk.ask(desk.site.premises.facts.doGasAppliancesHaveGround)
      if (piping === 'corrugated tubing')
        return desk.refused('Corrugated tubing needs a bond of its own')
      return has
        ? desk.offered('The appliance has a ground')
        : has === false
          ? desk.refused('No gas appliance has a grounded circuit')
          : desk.conditional('Look whether the appliance is grounded')
    },
  }),
  defineRemedy({
    id: 'fit-intersystem',
    title: 'Fit a communications bonding termination',
    gives: 'One ground for power, cable and telephone',
    steps: [
      'Listed termination with room for three near the service',
      '6 AWG copper to the grounding electrode conductor',
    ],
    judge: always('At the service, accessible'),
  }),
  defineRemedy({
    id: 'fewer-mains',
    title: 'Main breaker ahead of it, or fewer mains',
    gives: 'Everything off in six movements or one',
    needsPermit: true,
    steps: ['Main disconnect ahead, or move added breakers to a sub-panel'],
    judge: always('With the utility'),
  }),
  defineRemedy({
    id: 'fewer-circuits',
    title: 'Move circuits to a sub-panel',
    gives: 'A panel within its label',
    needsPermit: true,
    steps: ['Sub-panel beside it', 'Move the circuits in excess'],
    judge: always('Load calculation first'),
  }),
  defineRemedy({
    id: 'fit-interlock',
    title: 'Listed interlock or transfer switch',
    gives: 'Generator or utility, never both',
    steps: [
      'Switch the generator off and disconnect it',
      'Fit the interlock listed for this panel',
    ],
    needsPermit: true,
    tests: ['Neither handle can be on while the other is'],
    judge: always('Until then nobody runs a generator into this panel'),
  }),
  defineRemedy({
    id: 'fit-hold-down',
    title: 'Hold-down kit for the backfed breaker',
    gives: 'A breaker that cannot be pulled off the bus by hand',
    steps: ['Fit the fastener listed for this panel'],
    judge: always('The kit of the panel line'),
  }),
  defineRemedy({
    id: 'fit-surge',
    title: 'Surge protector at the service',
    gives: 'What a replaced service must have',
    steps: ['Type 1 or 2, listed, short leads', 'Mark it in the directory'],
    judge: always('At the service or the panel next to it'),
  }),
  defineRemedy({
    id: 'call-utility',
    title: 'Call the utility, keep away',
    gives: 'The only safe way',
    steps: [
      'Keep people away',
      'Report it',
      'Mast and attachment of the house are then repaired by an electrician',
    ],
    cautions: ['Do not touch the drop or anything it touches'],
    judge(desk) {
      if (desk.subject.kind !== 'outlet')
        return desk.offered('The drop is live and not the house’s own')
      // At an outlet only where what was read there proves that the neutral of the service is gone.
      const read = readStateOf(desk.site, desk.subject)
      desk.rest(read?.rests ?? [])
      const { proven = [], fitting = [] } = read?.ranking ?? {}
      if (proven.includes('open service neutral'))
        return desk.offered('Main off, and call now: every circuit shows it')
      return fitting.includes('open service neutral')
        ? desk.conditional('If both legs at the panel show it too')
        : undefined
    },
  }),
  defineRemedy({
    id: 'group-multiwire',
    title: 'Tie the group together',
    gives: 'The pair can be told at a glance',
    steps: ['Cable tie round the hots and their neutral inside the panel'],
    judge: desk =>
      desk.failure('separate-cables')
        ? desk.refused('They come in separate cables: a tie round them groups nothing')
        : desk.offered('In every panel it enters'),
  }),
  defineRemedy({
    id: 'single-phase-panel',
    title: 'Replace by a listed single-phase panel',
    gives: 'Every space on a true leg',
    needsPermit: true,
    steps: ['Permit', 'Replace', 'Land multiwire pairs on opposite legs'],
    judge: always('Nothing cheaper is honest'),
  }),
  defineRemedy({
    id: 'untwin',
    title: 'Full-size breaker, or another space',
    gives: 'A breaker the stab is made for',
    steps: ['Move one circuit to a free space, or to a sub-panel'],
    judge: always('If there is a free space'),
  }),
  defineRemedy({
    id: 'clear-space',
    title: 'Clear the space, rehang the door',
    gives: 'Room to work and to get away',
    steps: ['Move what is stored', 'Rehang the door to 90°', 'Mark the floor'],
    cautions: [],
    judge: desk =>
      desk.failure('space-too-small', 'no-room-to-stand')
        ? desk.refused('It is too small as it is built: clearing it makes no room')
        : desk.offered('Where only things or a door are in the way'),
  }),
  defineRemedy({
    id: 'raise-floor',
    title: 'Lower the enclosure or raise the floor',
    gives: 'A handle in reach',
    needsPermit: true,
    steps: ['A platform that is part of the building, not a step'],
    judge: always('If it keeps the working space'),
  }),
  defineRemedy({
    id: 'pull-white-neutral',
    title: 'Pull a white neutral',
    gives: 'A neutral anybody recognizes',
    steps: [
      'Pull a white or gray conductor in place of the re-marked one',
      'Or, where it is a cable assembly after all, correct the record',
    ],
    judge: always('In pipe a new conductor can be pulled'),
  }),
  defineRemedy({
    id: 'remake-splice',
    title: 'Cut back to bright metal and make the splice anew',
    gives: 'A joint that stays cool',
    duties: [
      'At least 6 in free, 3 in past the box face (300.14)',
      'The boxes before and after on the chain, too',
      'Box fill counted again',
    ],
    steps: [
      'Cut back until copper is bright and insulation supple',
      'Listed connector for metals, sizes and number of conductors',
      'Where the damage goes beyond the box, replace the run',
    ],
    tests: ['Drop under 12 to 15 A at the next outlet', 'Infrared after an hour of load'],
    judge: always('If enough sound conductor is left; else pigtails in a larger box'),
  }),
  defineRemedy({
    id: 'cooler-luminaire',
    title: 'A luminaire that takes 60 °C conductors, or a 90 °C run to a box apart',
    gives: 'Insulation that does not bake',
    steps: [
      'Fit a luminaire marked for 60 °C supply; cooler lamps alone do not change the marking',
      'Or set a junction box at least 1 ft away and run 90 °C conductors from it',
    ],
    judge: always('Look at the insulation in the canopy first: it may be baked already'),
  }),
  defineRemedy({
    id: 'add-required-circuit',
    title: 'Run the 20 A circuit',
    gives: 'A breaker that holds in ordinary use',
    duties: ['Rules of a new circuit: AFCI, GFCI, TR, box fill'],
    needsPermit: true,
    steps: ['A free space or a sub-panel', '12 AWG from the panel', 'Label the directory'],
    judge: always('At the next remodel of the room'),
  }),
]
