import type { Truth } from '../conclusions/truth'
import { builtIn } from '../derive/fault-protection'
import { feederGroundOf, isGroundAdrift } from '../derive/feeder-ground'
import { oldFeederOf } from '../derive/old-feeder'
import { neutralGroupOf } from '../derive/neutrals'
import { valueOf, type Subject } from '../model/house'
import { afciSince, gfciRowsOf } from '../tables/protection-years'
import { defineRemedy, always, type Advice, type Remedy, type RemedyDesk } from './remedy'
import { sharesNeutral } from './places'
import { legsOf } from '../derive/legs'
import { roleOf } from '../derive/service-role'

const feederOf = (desk: RemedyDesk): Subject<'feeder'> | undefined =>
  desk.subject.kind === 'feeder'
    ? desk.subject
    : desk.site.get(desk.ask(desk.on('enclosure').facts.fedFrom), 'feeder')

/** Separating is right only where the feeder brings a ground of its own: without one it leaves no fault path. */
function separate(desk: RemedyDesk): Advice {
  const feeder = feederOf(desk)
  const path = feeder && feederGroundOf(desk.site, feeder)
  desk.rest(path?.rests ?? [])
  if (path === undefined || path.state === 'open')
    return desk.conditional(
      'Only where the feeder has a grounding conductor: look at the feeder first',
    )
  return path.value === 'none'
    ? desk.refused(
        'The feeder has no grounding conductor: separating would leave no fault path at all',
      )
    : desk.offered(
        'The feeder brings a ground: remove the bond, grounds to a listed bar on the enclosure',
      )
}

function leaveThreeWire(desk: RemedyDesk): Advice {
  const feeder = feederOf(desk)
  if (!feeder) return desk.conditional('The feeder has not been found')
  const target = desk.site.enclosuresOn(feeder)[0]
  if (!target) return desk.conditional('What it feeds has not been found')
  const old = oldFeederOf(desk.site, target, feeder)
  const isFalse = (truth: Truth) => {
    desk.rest(truth.rests)
    return truth.state === 'settled' && !truth.value
  }
  if (isFalse(old.isDetached)) return desk.refused('Allowed only to a detached building')
  if (isFalse(old.hasNoGround))
    return desk.refused('The feeder has a grounding conductor: the exception is not for it')
  if (isFalse(old.hasNoOtherPath))
    return desk.refused('Another metal path runs between the buildings')
  if (isFalse(old.hasNoGroundFault))
    return desk.refused('Ground-fault protection stands ahead of it')
  if (isFalse(old.isOld))
    return desk.refused('Allowed only for feeders from before the 2008 edition')
  return old.holds.state === 'open'
    ? desk.conditional('Allowed to remain if every condition of the old rule holds')
    : desk.offered(
        'Every condition of the old rule holds: keep the bond and the electrode at the building',
      )
}

/** What an added bar is joined to: in a sub-panel nothing joins neutrals and grounds. 250.24(A)(5), 408.40. */
function extraBar(desk: RemedyDesk): Advice {
  const panel = desk.site.get(desk.subject.parent ?? undefined, 'enclosure')
  const role = panel && roleOf(desk.site, panel)
  desk.rest(role?.rests ?? [])
  if (role?.value === undefined)
    return desk.conditional(
      'Whether this is the service or a sub-panel decides what it is joined to',
    )
  return role.value === 'service'
    ? desk.offered('Joined to the neutral bar, where the panel label lists an added bar')
    : desk.offered(
        'For grounds, on the enclosure and never to the neutral bar; an added neutral bar is insulated from it',
      )
}

/** Breakers on the shared neutral of the finding. */
function groupBreakers(desk: RemedyDesk): Subject<'breaker'>[] {
  const group = neutralGroupOf(desk.site, desk.on('circuit'))
  return group.circuits
    .map(x => desk.site.get(desk.ask(x.facts.fedBy), 'breaker'))
    .filter(b => b !== undefined)
}

/** The breakers hang side by side on different legs, so that one handle can throw both. */
function sideBySide(desk: RemedyDesk, breakers: readonly Subject<'breaker'>[]): Advice | undefined {
  const spaces = breakers.map(b => desk.ask(b.facts.space))
  const panels = new Set(breakers.map(b => b.parent))
  if (panels.size > 1) return desk.refused('The breakers are in different panels: move one first')
  const legs = breakers.map(b => legsOf(desk.site, b))
  for (const leg of legs) desk.rest(leg.rests)
  const known = legs.map(l => l.value?.[0])
  if (known.every(l => l !== undefined) && new Set(known).size < known.length)
    return desk.refused('They are on the same leg: move one to the other leg first')
  if (spaces.some(s => s === undefined) || known.some(l => l === undefined))
    return desk.conditional('The spaces and legs have to be known')
  const sorted = (spaces as number[]).slice().sort((a, b) => a - b)
  const panel = desk.site.get(breakers[0]!.parent ?? undefined, 'enclosure')
  const step = panel && desk.ask(panel.facts.numbering) === 'down each side' ? 1 : 2
  if (sorted.some((s, i) => i > 0 && s - sorted[i - 1]! !== step))
    return desk.refused('Spaces {spaces} are not side by side: move one first', {
      spaces: sorted.join(' and '),
    })
  return undefined
}

function handleTie(desk: RemedyDesk): Advice {
  const group = neutralGroupOf(desk.site, desk.on('circuit'))
  const breakers = groupBreakers(desk)
  const spaces = breakers.map(b => desk.ask(b.facts.space))
  const isTwin = breakers.some(b => desk.ask(b.facts.half) !== undefined)
  if (isTwin && spaces.some((s, i) => s !== undefined && spaces.indexOf(s) !== i))
    return desk.refused(
      'They are the halves of one twin, on one leg: a tie across them cures nothing',
    )
  const hasProtection = breakers.some(b => {
    const protection = builtIn(b, desk)
    return protection !== undefined && protection !== 'standard'
  })
  if (hasProtection)
    return desk.refused(
      'Single-pole GFCI or AFCI breakers do not work on a shared neutral, tied or not: a two-pole one',
    )
  const blocked = sideBySide(desk, breakers)
  const lines = group.circuits.map(x => desk.ask(x.facts.feedsLineToLine))
  if (lines.includes(true))
    return desk.refused('A 240 V load hangs on it: a common trip is needed, not a tie')
  if (blocked) return blocked
  if (lines.includes(undefined)) return desk.conditional('Only where nothing runs hot to hot')
  return desk.offered(
    'Identified tie of the breaker line; no AFCI or GFCI is possible on tied single poles',
  )
}

/** The remedy is an outlet itself: the place it stands in may ask for the other protection too. 210.8, 210.12. */
function besidePanel(desk: RemedyDesk): Advice {
  const { site, subject } = desk
  const circuit =
    subject.kind === 'outlet' ? site.get(desk.ask(subject.facts.circuit), 'circuit') : undefined
  const breaker = site.get(circuit && desk.ask(circuit.facts.fedBy), 'breaker')
  const panel =
    subject.kind === 'enclosure' ? subject : site.get(breaker?.parent ?? undefined, 'enclosure')
  if (!panel) return desk.conditional('The panel of this circuit has to be found')
  const shares = circuit ? sharesNeutral(desk, circuit) : false
  if (shares === true)
    return desk.refused('The neutral is shared: a device on one hot would trip on the other')
  if (shares === undefined)
    return desk.conditional(
      'Only where the neutral is the circuit’s own: see whether another hot shares it',
    )
  const use = valueOf(site.get(desk.ask(panel.facts.room), 'room'), 'use')
  if (use === undefined)
    return desk.conditional(
      'The place it would stand in decides what else it needs: say which room the panel is in',
    )
  const wantsGfci = gfciRowsOf(use).some(r => r.since <= site.edition && BESIDE.has(r.bears))
  const wantsAfci = (afciSince(use, 'receptacle') ?? Infinity) <= site.edition
  if (wantsGfci && wantsAfci)
    return desk.offered('Dual-function: in the {use} the device needs both', { use })
  if (wantsGfci)
    return desk.offered(
      'With GFCI in it too: an outlet in the {use} needs that, whatever it protects',
      { use },
    )
  return wantsAfci
    ? desk.offered('With AFCI in it too: an outlet in the {use} needs that, whatever it protects', {
        use,
      })
    : desk.offered('The {use} asks for nothing more', { use })
}
const BESIDE: ReadonlySet<string> = new Set([
  'all',
  'within reach, not dedicated',
  'not dedicated',
  'reached from grade',
])

export const PANEL_REMEDIES: readonly Remedy[] = [
  defineRemedy({
    id: 'one-per-terminal',
    title: 'One neutral per terminal',
    gives: 'Neutrals that stay on when another is loosened',
    steps: [
      'Find free screws',
      'Move one conductor at a time, with its circuit off',
      'Torque each',
    ],
    judge(desk) {
      const bar = desk.on('bar')
      const total = desk.ask(bar.facts.screws)
      const seen = desk.ask(bar.facts.areAllScrewsSeen)
      const screws = desk.site.children(bar, 'screw')
      if (total === undefined || seen !== true)
        return desk.conditional('Count the free screws first')
      const needed = screws.reduce(
        (sum, s) =>
          sum +
          Math.max(0, (desk.ask(s.facts.neutrals) ?? 0) + (desk.ask(s.facts.grounds) ?? 0) - 1),
        0,
      )
      const free = total - screws.length
      return free >= needed
        ? desk.offered('{free} screws free, {needed} needed', { free, needed })
        : desk.refused('{free} screws free, {needed} needed: add a bar', { free, needed })
    },
  }),
  defineRemedy({
    id: 'extra-bar',
    title: 'Add a listed bar',
    gives: 'Room for every conductor',
    duties: ['Listed for this panel; in a sub-panel neutrals and grounds stay apart'],
    steps: [
      'Mount the listed bar in its prepared holes',
      'Grounds: on the metal of the enclosure. Neutrals: to the neutral bar by a conductor of full size',
    ],
    judge: extraBar,
  }),
  defineRemedy({
    id: 'splice-and-pigtail',
    title: 'Splice the two and land one pigtail',
    gives: 'One conductor per terminal',
    steps: [
      'Splice in the gutter with a listed connector',
      'Land one pigtail sized for the breaker',
    ],
    judge: always('Two loads on one breaker stay one circuit'),
  }),
  defineRemedy({
    id: 'main-bond',
    title: 'Fit the listed bonding screw or strap',
    gives: 'A path that lets breakers open on a fault',
    duties: [
      'Grounding electrode conductor on the neutral bar, or on a bar joined to it by wire or busbar',
    ],
    steps: [
      'The utility disconnects, or the work waits',
      'Fit the screw or strap that belongs to this panel',
      'Prove neutral to enclosure below 0.1 Ω',
    ],
    tests: [
      'Neutral to enclosure: continuity',
      'Each grounding conductor and pipe by clamp: about 0 A',
    ],
    needsPermit: true,
    judge(desk) {
      const means = desk.ask(desk.on('enclosure').facts.bondMeans)
      const lands = desk.ask(desk.on('enclosure').facts.jumperLandsOn)
      const isAdrift = means === 'wire jumper' && lands === 'nothing'
      return means === 'none' || isAdrift
        ? desk.offered('The listed screw, strap or bar of this panel')
        : means === undefined
          ? desk.conditional('See first whether a bond is there')
          : desk.refused('A bond is there already; the isolated bar is the fault')
    },
  }),
  defineRemedy({
    id: 'jumper-isolated-bar',
    title: 'Tie the isolated bar to the neutral bar',
    gives: 'A bar that is connected to something',
    steps: [
      'Jumper of wire or busbar between the bars, sized as a bonding jumper',
      'Prove continuity',
    ],
    tests: ['Bar to neutral bar: continuity'],
    needsPermit: true,
    judge(desk) {
      const bars = desk.site
        .children(desk.subject, 'bar')
        .filter(b => ['ground', 'electrode'].includes(desk.ask(b.facts.role) ?? ''))
      if (
        bars.some(
          b =>
            desk.ask(b.facts.isTiedToNeutral) === false &&
            desk.ask(b.facts.isBondedToEnclosure) === false,
        )
      )
        return desk.offered('For the bar that is tied to nothing')
      if (bars.length === 0) return desk.refused('No separate ground bar here')
      const advice = desk.conditional('See whether each ground bar is tied')
      return advice.missing.length > 0
        ? advice
        : desk.refused('Every ground bar here is tied to the neutral or to the enclosure')
    },
  }),
  defineRemedy({
    id: 'ground-rod-only',
    title: 'Drive a ground rod instead',
    gives: 'Nothing against a fault',
    steps: [],
    judge: desk =>
      desk.refused(
        'A rod of 25 Ω passes about 5 A: no breaker opens; only the bond to the neutral clears a fault',
      ),
  }),
  defineRemedy({
    id: 'separate-neutral',
    title: 'Remove the bond, grounds to their own bar',
    gives: 'Neutral current on the neutral only',
    steps: [
      'Prove the feeder ground first',
      'Mount a listed ground bar on the enclosure and move the grounds',
      'Splice what does not reach with a listed connector, green or bare as it was',
      'Remove screw or strap',
    ],
    cautions: [
      'Order matters: grounds find their new bar before the bond comes off',
      'Incoming feeder lugs stay live with the sub-panel main off',
    ],
    tests: [
      'Neutral lifted, power off: no continuity from neutral bar to enclosure',
      'Clamp on the feeder ground: about 0 A',
    ],
    needsPermit: true,
    judge: separate,
  }),
  defineRemedy({
    id: 'new-four-wire-feeder',
    title: 'New four-wire feeder',
    gives: 'A ground of its own for the panel',
    duties: [
      'Then separate neutral and ground at the sub-panel',
      'Three-wire dryer and range cables fed from it change too',
    ],
    steps: ['Pull the feeder', 'Land ground on its bar, neutral isolated'],
    needsPermit: true,
    tests: ['Ground impedance at the sub-panel'],
    judge(desk) {
      const feeder = feederOf(desk)
      const path = feeder && feederGroundOf(desk.site, feeder)
      desk.rest(path?.rests ?? [])
      if (path === undefined || path.state === 'open')
        return desk.conditional('Needed only where the feeder has no ground')
      if (feeder && isGroundAdrift(feeder) && desk.ask(feeder.facts.egc) === 'wire')
        return desk.refused('A ground runs with the feeder: land it')
      return path.value === 'none'
        ? desk.offered('The feeder has no ground: this comes first')
        : desk.refused('The feeder has a ground already')
    },
  }),
  defineRemedy({
    id: 'land-feeder-ground',
    title: 'Land the ground of the feeder at both ends',
    gives: 'A way back for a fault, with what is there already',
    steps: [
      'Where it starts: on the ground bar, or at the service on the bar that is bonded',
      'Where it ends: on a ground bar bonded to the enclosure, apart from the neutral',
    ],
    cautions: ['Line side stays live: test before touching'],
    tests: ['Ground impedance at the sub-panel'],
    judge(desk) {
      const feeder = feederOf(desk)
      if (!feeder || desk.ask(feeder.facts.egc) !== 'wire') return undefined
      return isGroundAdrift(feeder)
        ? desk.offered('A ground runs with the feeder and lands on nothing at one end')
        : undefined
    },
  }),
  defineRemedy({
    id: 'leave-three-wire-feeder',
    title: 'Leave the old three-wire feeder, with its conditions written down',
    gives: 'A lawful old installation',
    lacks: 'A ground of its own',
    duties: ['Neutral bonded and an electrode connected at the building'],
    steps: ['Check every condition again at each visit'],
    judge: leaveThreeWire,
  }),
  defineRemedy({
    id: 'nonmetallic-section',
    title: 'A nonmetallic section in the other metal path',
    gives: 'Neutral current on the neutral alone, so that the old exception holds',
    lacks: 'A ground of its own',
    steps: [
      'In the pipe or raceway that joins the buildings, where it enters',
      'Bond what stays metal inside each building to that building’s own ground',
    ],
    tests: ['Clamp round the pipe on both sides: 0 A'],
    judge(desk) {
      const feeder = feederOf(desk)
      const other = feeder && desk.ask(feeder.facts.hasOtherMetallicPath)
      if (other === undefined) return desk.conditional('See whether metal joins the buildings')
      return other
        ? desk.offered('It is the other path that takes the old exception away')
        : undefined
    },
  }),
  defineRemedy({
    id: 'relieve-gutter',
    title: 'Take conductors out of the wiring space',
    gives: 'Room to bend and to cool',
    steps: [
      'Shorten what is slack',
      'Splices into a box beside the panel',
      'Or circuits into a sub-panel',
    ],
    judge: always('What is only slack is shortened first'),
  }),
  defineRemedy({
    id: 'own-neutral',
    title: 'Give the circuit its own neutral',
    gives: 'Current that goes out and home the same way',
    duties: ['Where the cable has none: a cable that has'],
    steps: [
      'Find the box where the neutrals of the two circuits meet',
      'Both circuits off and proved off, separate them there',
      'Each hot with its own neutral in the same cable',
    ],
    tests: ['Hot and neutral clamped together at the panel: 0 A, for both circuits'],
    judge: always('Both circuits off before a neutral is opened'),
  }),
  defineRemedy({
    id: 'own-breaker',
    title: 'A breaker of its own for the second conductor',
    gives: 'Each circuit behind its own device',
    duties: ['A free space, and a type listed for the panel'],
    steps: ['Find what each of the two feeds', 'Land one on a new breaker of its conductor’s size'],
    judge: always('Where a space is free'),
  }),
  defineRemedy({
    id: 'move-to-sound-space',
    title: 'Move the breaker to a sound space',
    gives: 'A stab that is not burned',
    duties: ['Multiwire partners move along, on opposite legs'],
    markings: ['The old space: do not use'],
    steps: [
      'Look at every stab with the bus dead',
      'Move, or replace bus or panel where none is sound',
    ],
    tests: ['Infrared at the same load, against a neighbor'],
    judge: always('Where the stab is pitted or marked by heat: it is never cleaned'),
  }),
  defineRemedy({
    id: 'bond-at-building',
    title: 'Bond the neutral at the building, with its electrode',
    gives: 'A way back for a fault, as the old rule has it',
    lacks: 'A ground of its own',
    duties: [
      'Electrode connected at the building',
      'Every condition of the old rule, checked again at each visit',
    ],
    steps: [
      'Prove there is no other metal path between the buildings',
      'Fit the listed bond, land the grounding electrode conductor on the neutral bar',
    ],
    tests: [
      'Neutral to enclosure: continuity',
      'Clamp on the grounding electrode conductor near 0 A',
    ],
    needsPermit: true,
    judge(desk) {
      const feeder = feederOf(desk)
      const target = feeder && desk.site.enclosuresOn(feeder)[0]
      const means = target && desk.ask(target.facts.bondMeans)
      if (means !== undefined && means !== 'none') return desk.refused('It is bonded there already')
      return leaveThreeWire(desk)
    },
  }),
  defineRemedy({
    id: 'two-pole-breaker',
    title: 'Two-pole breaker',
    gives: 'All hots off with one handle, and tripping together',
    steps: ['Two spaces side by side', 'Land both hots', 'Check 240 V between them'],
    tests: ['240 V between the hots', 'Both dead with the handle off'],
    judge: desk =>
      desk.failure('no-line-to-line')
        ? desk.refused('It is one already: it has to stand where its poles find two legs')
        : (sideBySide(desk, groupBreakers(desk)) ??
          desk.offered('A listed two-pole breaker in these spaces')),
  }),
  defineRemedy({
    id: 'listed-handle-tie',
    title: 'Identified handle tie',
    gives: 'All hots off together',
    lacks: 'Common trip; AFCI or GFCI on the circuit',
    steps: ['Fit the tie of the breaker line'],
    judge: handleTie,
  }),
  defineRemedy({
    id: 'move-to-other-leg',
    title: 'Move one hot to the other leg',
    gives: 'A neutral that carries the difference',
    steps: [
      'Both off and proved off',
      'Move one hot to a space of the other leg beside the first',
      'Two-pole breaker or tie',
    ],
    tests: ['240 V between the hots'],
    judge(desk) {
      const breakers = groupBreakers(desk)
      if (breakers.length > 2)
        return desk.refused(
          'Three hots on two legs always share one: give one a neutral of its own',
        )
      return desk.offered('Then a two-pole breaker or an identified tie')
    },
  }),
  defineRemedy({
    id: 'fit-dead-front',
    title: 'Fit the listed dead front (cover)',
    gives: 'Live parts out of reach',
    steps: ['Keep people away until it is done', 'Fit the cover listed for this panel'],
    judge: always('The cover that belongs to this panel'),
  }),
  defineRemedy({
    id: 'blunt-screws',
    title: 'All screws, blunt',
    gives: 'No point in the insulation',
    steps: ['Replace with the maker’s blunt machine screws'],
    judge: always('Of the right thread and length'),
  }),
  defineRemedy({
    id: 'close-openings',
    title: 'Close the openings',
    gives: 'An enclosure that holds an arc and keeps fingers out',
    steps: ['Listed knockout seals and filler plates'],
    judge: always('Listed seals of the right size'),
  }),
  defineRemedy({
    id: 'relabel',
    title: 'New directory',
    gives: 'A directory that tells the truth',
    steps: ['Trace every breaker', 'Print the card'],
    markings: ['Circuit directory, dated'],
    judge: always('After tracing'),
  }),
  defineRemedy({
    id: 'replace-corroded',
    title: 'Stop the water, replace what is corroded',
    gives: 'Sound metal',
    steps: [
      'Find the entry of water or pests',
      'Clean or replace parts; a corroded bus is replaced',
    ],
    judge: always('Bus or terminals: replace, do not polish'),
  }),
  defineRemedy({
    id: 'replace-panel',
    title: 'Replace the panel',
    gives: 'Breakers that open, and protective breakers to be had',
    duties: [
      'Rules of replaced service equipment: surge protection and outdoor emergency disconnect from the 2020 edition',
    ],
    needsPermit: true,
    steps: ['Permit and utility appointment', 'Replace', 'Label'],
    judge: always('A listed panel of the same or larger rating'),
  }),
  defineRemedy({
    id: 'protect-beside-panel',
    title: 'Protective device beside the panel',
    gives: 'AFCI or GFCI without changing the panel',
    lacks: 'Does not cure a panel known not to trip',
    duties: ['Readily accessible', 'The place it stands in may itself ask for protection'],
    markings: ['Panel directory and device name each other'],
    steps: [
      'Box beside the panel, the circuit taken out of it through the device',
      'Line and load by the print',
      'Label panel directory and device',
    ],
    tests: ['Own button, then every outlet of the circuit dead'],
    judge: besidePanel,
  }),
  defineRemedy({
    id: 'relocate-panel',
    title: 'Relocate the panel',
    gives: 'A lawful place',
    needsPermit: true,
    steps: [
      'Permit',
      'New location with its working space',
      'Old enclosure becomes a junction box, accessible',
    ],
    judge: always('Nothing cheaper is honest'),
  }),
  defineRemedy({
    id: 're-terminate',
    title: 'Cut back and re-terminate to torque',
    gives: 'A cool joint',
    duties: [
      'A pitted or heat-marked stab is not cleaned: move to a sound space and mark the other unusable',
    ],
    steps: [
      'Power off and proved off',
      'Cut back to bright metal',
      'Torque as marked',
      'Replace the breaker if its terminal is marked by heat',
    ],
    tests: ['Infrared at the same load, against a neighbor'],
    judge: always('If damage goes beyond the end, replace the run'),
  }),
  defineRemedy({
    id: 'listed-breaker',
    title: 'Breaker of a listed type',
    gives: 'A breaker tested with this bus',
    steps: ['Read the panel label', 'Fit one of its types'],
    judge(desk) {
      const panel = desk.site.get(desk.subject.parent ?? undefined, 'enclosure')
      const state = panel && desk.ask(panel.facts.protectiveBreakers)
      return state === 'none made'
        ? desk.offered('Standard types only; none with AFCI or GFCI are made')
        : desk.offered('A type named on the panel label')
    },
  }),
  defineRemedy({
    id: 'smaller-main',
    title: 'Smaller main or feeder breaker',
    gives: 'A bus protected within its rating',
    steps: ['Load calculation first', 'Fit the smaller device'],
    needsPermit: true,
    judge: desk => desk.offered('If the calculated load fits'),
  }),
]
