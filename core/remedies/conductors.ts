import { valueOf, type Subject } from '../model/house'
import { allowedBand } from '../derive/allowed'
import { loadOf } from '../derive/load'
import { Site } from '../derive/site'
import { standardRatings } from '../tables/ampacity'
import { always, defineRemedy, type Advice, type Remedy, type RemedyDesk } from './remedy'

/** The school the desk follows for aluminum: strict takes rewiring, crimped pigtails and lug pigtails only. */
function bySchool(desk: RemedyDesk, isStrict: boolean, note: string): Advice {
  const school = desk.ask(desk.site.premises.facts.aluminumSchool)
  if (isStrict) return desk.offered(note)
  if (school === undefined)
    return desk.conditional(
      'Your settings do not say which school you follow for aluminum: strict, or listed connectors',
    )
  return school === 'listed connectors'
    ? desk.offered(note)
    : desk.refused('The desk follows the strict school: rewiring, crimped or lug pigtails only')
}

/** A device small enough for the conductor, unless the load or the use of the circuit forbids it. */
function smallerBreaker(desk: RemedyDesk): Advice {
  const { site, subject } = desk
  if (subject.kind === 'feeder') {
    const band = allowedBand(
      site,
      subject,
      { value: false, fact: undefined },
      {
        value: valueOf(subject, 'carriesWholeDwelling') ?? false,
        fact: undefined,
      },
    )
    if (!band.isKnown) return desk.conditional('The conductor has to be identified first')
    const amps = largestUpTo(site, band.low.allowed)
    return amps === undefined
      ? desk.refused('No standard breaker is small enough for this conductor')
      : desk.conditional(
          'A {amps} A breaker, if the load of what it feeds has been calculated and fits',
          {
            amps,
          },
        )
  }
  const segment = desk.on('segment')
  const circuit = site.get(segment.parent ?? undefined, 'circuit')
  if (!circuit) return desk.conditional('The circuit has not been traced')
  const band = allowedBand(
    site,
    segment,
    { value: true, fact: undefined },
    { value: false, fact: undefined },
  )
  if (!band.isKnown) return desk.conditional('The conductor has to be identified first')
  const amps = largestUpTo(site, band.low.allowed)
  if (amps === undefined)
    return desk.refused('No standard breaker is small enough for this conductor')
  const unfit = tooSmallFor(desk, circuit, amps)
  if (unfit) return unfit
  const breaker = site.get(desk.ask(circuit.facts.fedBy), 'breaker')
  const isPlugFuse = breaker && desk.ask(breaker.facts.device) === 'plug fuse'
  const use = desk.ask(circuit.facts.requiredUse)
  if (use !== undefined && use !== 'none' && amps < 20)
    return desk.refused('A {use} circuit must be 20 A', { use })
  const load = desk.ask(circuit.facts.loadAmps)
  if (load !== undefined && load > 0.8 * amps)
    return desk.refused('The measured load of {load} A is above 80 % of {amps} A', { load, amps })
  if (use === undefined || load === undefined)
    return desk.conditional('A {amps} A breaker, once load and use are known', { amps })
  return isPlugFuse
    ? desk.offered('A Type S adapter and a {amps} A fuse: load {load} A fits', { amps, load })
    : desk.offered(
        'A {amps} A breaker: load {load} A fits, and it is not a circuit that must be 20 A',
        {
          amps,
          load,
        },
      )
}

/** The largest standard device that is no larger than this. */
const largestUpTo = (site: Site, amps: number): number | undefined =>
  standardRatings(site.edition)
    .filter(r => r <= amps)
    .at(-1)

/** Why a device of this rating is too small for what hangs on the circuit; nothing where it may fit. 210.3, 210.20. */
function tooSmallFor(
  desk: RemedyDesk,
  circuit: Subject<'circuit'>,
  amps: number,
): Advice | undefined {
  const supplies = desk.ask(circuit.facts.supplies)
  if (amps < 15 && (supplies === undefined || supplies.includes('receptacles')))
    return supplies === undefined
      ? desk.conditional('Below 15 A only where no receptacle hangs on it')
      : desk.refused('A circuit of {amps} A may feed no receptacles', { amps })
  const load = loadOf(desk.site, circuit)
  if (!load) return undefined
  desk.rest(load.device.rests)
  if (load.device.from > amps)
    return desk.refused('{why}: {least} A at least, and the conductor takes {amps} A', {
      why: load.why,
      least: Math.round(10 * load.device.from) / 10,
      amps,
    })
  return load.device.to > amps
    ? desk.conditional('Only if what it supplies needs no more than {amps} A', { amps })
    : undefined
}

/** A cure of a stretch, where one of this kind was recorded and makes the device too large. 310.15(B), (C). */
function exposed(desk: RemedyDesk, kind: 'hot' | 'crowded', why: string): Advice | undefined {
  const stretches = desk.site.children(desk.subject, 'exposure')
  const is = stretches.map(x => desk.ask(x.facts.what)?.includes(kind))
  if (is.includes(true)) return withoutStretches(desk) ?? desk.offered(why)
  return is.includes(undefined)
    ? desk.conditional('What the recorded stretch is exposed to has not been said')
    : undefined
}
/** Why it is not enough: the device is too large for the conductor even where nothing heats it. */
function withoutStretches(desk: RemedyDesk): Advice | undefined {
  const over = desk.failure('device-over-conductor')
  const subjects = new Map(desk.site.house.subjects)
  for (const x of desk.site.children(desk.subject, 'exposure')) subjects.delete(x.id)
  const site = new Site({ subjects })
  const run = site.get(desk.subject.id, 'segment')
  const no = { value: false, fact: undefined }
  const band = run && allowedBand(site, run, no, no)
  if (!over || !band?.isKnown || band.high.allowed >= Number(over.data.rating)) return undefined
  return desk.refused('Cool and by itself it takes {allowed} A, and {rating} A stand ahead of it', {
    allowed: band.high.allowed,
    rating: Number(over.data.rating),
  })
}

const ALUMINUM_DUTIES = [
  'Treat every device on the chain, not this one only',
  'Re-check box fill with the added splices',
  'Torque as the maker prints it',
]
const splice = (
  id: string,
  title: string,
  isStrict: boolean,
  note: string,
  extra: Partial<Remedy> = {},
): Remedy =>
  defineRemedy({
    id,
    title,
    gives: 'A copper end for the device',
    duties: [...ALUMINUM_DUTIES, 'Pigtail size follows the breaker, not the conductor it joins'],
    steps: [
      'Power off and proved off',
      'Cut back to bright metal, at least 6 in. free',
      'Make the splice with the listed connector',
      'Land the copper on the device',
    ],
    needsPermit: true,
    tests: ['Loaded voltage drop at the device', 'Infrared look after an hour of load'],
    judge: desk => bySchool(desk, isStrict, note),
    ...extra,
  })

export const CONDUCTOR_REMEDIES: readonly Remedy[] = [
  defineRemedy({
    id: 'smaller-breaker',
    title: 'Smaller breaker',
    gives: 'Protection that opens before the conductor overheats',
    duties: ['Continuous load at most 80 % of the new rating', 'A type listed for the panel'],
    steps: [
      'Find the thinnest segment first',
      'Measure the load with everything running',
      'Fit the listed breaker, torque the terminal',
    ],
    tests: ['Load again and watch for nuisance trips'],
    judge: smallerBreaker,
  }),
  defineRemedy({
    id: 'nameplate-breaker',
    title: 'Breaker or fuse at the nameplate maximum or below',
    gives: 'The protection the unit was tested with',
    duties: ['Large enough to start the unit', 'Fuses where the nameplate names only fuses'],
    steps: ['Read the nameplate again, photograph it', 'Fit the device, torque the terminal'],
    tests: ['Start the unit'],
    judge(desk) {
      const over = desk.failure('over-nameplate-maximum')
      if (!over)
        return desk.failure('nameplate-fuses-only')
          ? desk.offered('Fuses, at the start of the circuit or in the disconnect of the unit')
          : desk.refused(
              'The device is small enough: a smaller one does not make the conductor larger',
            )
      // What the finding compared with: the smallest of several units, where they share the circuit.
      const mocp = Number(over.data.mocp)
      const amps = standardRatings(desk.site.edition)
        .filter(r => r <= mocp)
        .at(-1)
      return amps === undefined
        ? desk.refused('No standard device is small enough')
        : desk.offered('At most {amps} A', { amps })
    },
  }),
  defineRemedy({
    id: 'replace-conductor',
    title: 'Replace the thin or damaged run',
    gives: 'A conductor rated for the breaker',
    duties: ['Rules of an altered circuit: AFCI, GFCI, box fill'],
    steps: [
      'Map every box on the run',
      'Pull the new cable',
      'Re-check box fill with the larger conductors',
    ],
    needsPermit: true,
    tests: ['Loaded voltage drop', 'Ground impedance'],
    judge(desk) {
      if (
        desk.failure('over-nameplate-maximum', 'nameplate-fuses-only') &&
        !desk.failure('conductor-under-nameplate')
      )
        return desk.refused('The conductor is large enough: the device ahead is what is wrong')
      if (desk.failure('over-appliance-maximum'))
        return desk.refused('The device is larger than the appliance allows')
      if (desk.failure('nothing-ahead'))
        return desk.refused('Nothing ahead protects it, whatever its size: it needs a device')
      if (desk.failure('measured-over-device') && !desk.failure('conductor-too-small'))
        return desk.conditional('With a larger device, where what hangs on it may stand behind it')
      return desk.failure('device-too-small') && !desk.failure('conductor-too-small')
        ? desk.offered('With the larger device; where the conductors carry it, the device alone')
        : desk.offered('Always possible; access decides the cost')
    },
  }),
  defineRemedy({
    id: 'separate-bundles',
    title: 'Take the bundle apart',
    gives: 'Conductors that lose their heat again',
    steps: ['Space the cables over the whole length', 'Or part of them by another way'],
    judge: desk =>
      exposed(desk, 'crowded', 'More than three current-carrying conductors lie together'),
  }),
  defineRemedy({
    id: 'cooler-route',
    title: 'Raise or shade the raceway, or take it out of the heat',
    gives: 'Conductors at the temperature they are rated for',
    steps: ['Off the roof by the height the table asks for', 'Or by another way'],
    judge: desk => exposed(desk, 'hot', 'A stretch of it lies in the heat'),
  }),
  defineRemedy({
    id: 'leave-and-label',
    title: 'Leave it and label it',
    gives: 'Nothing',
    steps: [],
    judge: desk => desk.refused('A label does not protect a conductor or a person'),
  }),
  defineRemedy({
    id: 'restore-20a',
    title: '12 AWG and a 20 A breaker',
    gives: 'The circuit the room needs',
    steps: [
      'Check every segment is 12 AWG or larger',
      'Replace what is not',
      'Fit the 20 A breaker',
    ],
    needsPermit: true,
    judge(desk) {
      const sizes = desk.site.children(desk.subject, 'segment').map(s => desk.ask(s.facts.size))
      if (sizes.length > 0 && sizes.every(s => s !== undefined && s !== '14'))
        return desk.offered('The conductors seen are large enough: only the breaker is small')
      if (sizes.includes('14'))
        return desk.offered(
          'With new 12 AWG conductors; a larger breaker alone would overfuse the 14 AWG',
        )
      return desk.conditional('Every segment has to be gauged first')
    },
  }),
  defineRemedy({
    id: 'co-alr-device',
    title: 'CO/ALR device',
    gives: 'A device marked for aluminum',
    lacks: 'Does nothing for splices elsewhere on the chain',
    duties: ALUMINUM_DUTIES,
    needsPermit: true,
    steps: ['Power off and proved off', 'Clean, hook clockwise, torque'],
    tests: ['Loaded voltage drop at the device'],
    judge(desk) {
      if (desk.subject.kind === 'outlet') {
        const outlet = desk.subject
        if ((desk.ask(outlet.facts.deviceAmps) ?? 15) >= 30)
          return desk.refused('Devices of 30 A and more are marked AL-CU instead')
        if (desk.ask(outlet.facts.metal) === 'copper-clad aluminum')
          return desk.offered('Or any ordinary binding screw')
      }
      return bySchool(desk, false, 'Marked for aluminum on 15 and 20 A devices')
    },
  }),
  splice(
    'crimped-pigtail',
    'Crimped cold-weld copper pigtail',
    true,
    'By an installer certified for the tool',
  ),
  splice(
    'lug-pigtail',
    'Set-screw Al/Cu lug pigtail',
    true,
    'Torque each screw with a torque screwdriver',
  ),
  splice(
    'gel-connector-pigtail',
    'Gel-filled Al/Cu connector pigtail',
    false,
    'Where the print lists both metals and both sizes',
  ),
  splice(
    'twist-on-pigtail',
    'Twist-on Al/Cu connector pigtail',
    false,
    'Disputed: consumer-safety guidance does not accept it',
  ),
  defineRemedy({
    id: 'copper-rewire',
    title: 'Rewire in copper',
    gives: 'No aluminum left',
    duties: ['Rules of new circuits throughout'],
    needsPermit: true,
    steps: ['Plan by circuit', 'Pull new copper', 'Abandon the old runs visibly'],
    judge: always('Always possible; the dearest'),
  }),
  defineRemedy({
    id: 'marked-breaker',
    title: 'Breaker with a terminal marked for aluminum',
    gives: 'A terminal listed for the metal',
    steps: ['Fit a listed breaker marked AL or CU-AL', 'Torque as printed'],
    judge: always('Of a type listed for the panel'),
  }),
  defineRemedy({
    id: 'mark-white',
    title: 'Re-mark the white at every visible end',
    gives: 'A hot that says it is hot',
    markings: ['Tape or paint all round the white conductor, any color but white, gray or green'],
    steps: ['Open every box where it shows', 'Encircle with tape or paint'],
    judge(desk) {
      const wiring = desk.ask(desk.on('segment').facts.wiring)
      if (wiring === undefined)
        return desk.conditional('Allowed in cables only; the wiring method has not been read')
      return wiring.includes('conduit')
        ? desk.refused('In conduit a white conductor may never be a hot: pull another color')
        : desk.offered('Allowed in a cable')
    },
  }),
  defineRemedy({
    id: 'entry-fitting',
    title: 'Listed connector or bushing at the entry',
    gives: 'No sheet-metal edge on the jacket',
    steps: ['Loosen enough cable to slip the fitting on', 'Leave a quarter inch of jacket inside'],
    judge: always('A split or retrofit fitting where the cable cannot be withdrawn'),
  }),
]
