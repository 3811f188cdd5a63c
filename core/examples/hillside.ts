/**
 * The demo premises, invented: a hillside house of 1961 with a garden level wired in aluminium in 1972, a kiln
 * studio of 1998, a greenhouse on an old three-wire feeder and a well house with a drop of its own.
 * Built as a hand-written house file, so that it also exercises the reader.
 */
import { blocked, gauge, measured, read, told, type Node } from './grades'

const ROOMS: Record<string, readonly [name: string, use: string]> = {
  kitchen: ['Kitchen', 'kitchen'], dining: ['Dining room', 'living'], living: ['Living room', 'living'], hall: ['Hall', 'hallway'],
  bed1: ['East bedroom', 'bedroom'], bed2: ['West bedroom', 'bedroom'], bed3: ['Corner bedroom', 'bedroom'], bath: ['Bathroom', 'bathroom'],
  laundry: ['Laundry', 'laundry'], utility: ['Utility room', 'utility'], garage: ['Garage', 'garage'], porch: ['Porch', 'outdoors'],
  den: ['Den', 'living'], guest: ['Guest room', 'bedroom'], bath2: ['Garden bathroom', 'bathroom'], stair: ['Stairs', 'stairs'], workshop: ['Workshop', 'workshop'],
  attic: ['Attic', 'attic'], closet: ['Hall closet', 'closet'], studio: ['Kiln room', 'workshop'], glaze: ['Glaze bench', 'workshop'], green: ['Greenhouse', 'outdoors'], well: ['Well house', 'utility'],
}

const OUTLETS: Record<string, Node> = { kitchen: { outlets: 'all there', hasSink: true, sinkKind: 'other sink', ownCircuit: 'there' }, living: { outlets: 'gap along the wall', hasSink: false }, bed1: { hasSink: false }, bed2: { hasSink: false }, bed3: { hasSink: false }, hall: { hasSink: false }, bath: { hasSink: true, sinkKind: 'tub or shower', ownCircuit: 'there' }, bath2: { hasSink: true, sinkKind: 'tub or shower' }, laundry: { hasSink: true, sinkKind: 'laundry or utility sink', ownCircuit: 'missing' }, den: { hasSink: true, sinkKind: 'wet-bar sink' }, garage: { hasSink: false } }

/** Receptacles in a row along a circuit; `each` applies to all, `over` to single ones by position. */
function chain(circuit: string, places: readonly string[], each: Node, over: Record<number, Node> = {}): Node[] {
  const count: Record<string, number> = {}
  return places.map((room, i) => {
    const n = count[room] = (count[room] ?? 0) + 1
    return {
      id: `${circuit}-${i + 1}`, name: `${ROOMS[room]![0]} ${n}`, room: `room-${room}`, type: 'receptacle', slots: 'three', deviceAmps: 15,
      after: i === 0 ? 'panel' : `${circuit}-${i}`, ...each, ...over[i + 1],
    }
  })
}
const light = (id: string, room: string, after: string, more: Node = {}): Node => ({ id, name: `${ROOMS[room]![0]} light`, room: `room-${room}`, type: 'luminaire', after, condition: 'sound', ...more })

const GROUNDED = { ground: 'connected', lamps: 'correct', protection: 'none', condition: 'sound', hasNeutralGroundJumper: false, metal: 'copper' }
const TESTED = { lamps: 'correct', protection: 'none', condition: 'sound', ground: 'connected', neutralGroundRiseV: measured(1.4, 'branch analyser'), metal: 'copper' }
const TWO_WIRE = { lamps: 'open ground', ground: 'none', protection: 'none', condition: 'sound', metal: 'tinned copper' }
const UNSEEN = { condition: 'sound' }

const LANDED = { workmanship: 'sound', tape: 'none' }
const cu = (size: string, more: Node = {}): Node => ({ size: gauge(size), metal: 'copper', core: 'copper colour', surface: 'copper colour', ...LANDED, wiring: read('NM-B'), conductors: 2, egc: 'wire', isWhiteHot: false, insulation: 'sound', entry: 'clamp or bushing', ...more })
const old = (size: string, more: Node = {}): Node => ({ size: gauge(size), metal: 'tinned copper', core: 'copper colour', surface: 'silver colour', ...LANDED, wiring: 'cloth NM', conductors: 2, egc: 'none', isWhiteHot: false, insulation: 'sound', entry: 'clamp or bushing', ...more })
const al = (size: string, more: Node = {}): Node => ({ size: gauge(size), metal: 'aluminium', core: 'silver colour', surface: 'silver colour', ...LANDED, wiring: 'NM', conductors: 2, egc: 'wire', isWhiteHot: false, insulation: 'sound', entry: 'clamp or bushing', ...more })

const SOUND = { device: 'breaker', protection: 'standard', conductorsOnTerminal: 1, termination: 'sound', fitsPanel: 'listed', role: 'branch' }
function breaker(space: number, ratingAmps: number, circuit: Node | undefined, more: Node = {}): Node {
  return { space, poles: 1, ratingAmps: read(ratingAmps), ...SOUND, ...more, ...circuit && { circuit: { requiredUse: 'none', sharesNeutralWith: [], ...circuit } } }
}

const MAIN_BREAKERS: Node[] = [
  breaker(1, 50, { id: 'range', label: 'Range', supplies: 'cooking appliance', frameGround: 'neutral', neutral: 'bare in other cable', segments: [cu('6', { wiring: 'NM', conductors: 3, year: 1961, insulation: 'sound' })], points: [{ id: 'range-1', name: 'Range outlet', room: 'room-kitchen', type: 'hard-wired outlet', after: 'panel' }], loadAmps: measured(31, 'clamp meter') }, { poles: 2, handleTie: 'common trip', temperatureC: measured(38, 'infrared thermometer') }),
  breaker(2, 60, undefined, { poles: 2, role: 'feeder', handleTie: 'common trip', label: 'Kiln studio', isAluminiumMarked: true }),
  breaker(5, 20, { id: 'counter-left', label: 'Kitchen counter left', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', sharesNeutralWith: ['counter-right'], feedsLineToLine: false, isOnOneYoke: false, isGroupedInPanel: true, year: told(1994), segments: [cu('12', { conductors: 3, year: told(1994) })],
    points: chain('counter-left', ['kitchen', 'kitchen', 'kitchen', 'dining'], { ...GROUNDED, year: told(1994) }, { 1: { protection: 'GFCI', gfciButton: 'trips, goes dead', resetAccess: 'readily accessible', isTamperResistant: false, heightFt: 3.6, isDedicated: false, isSingle: false, appliance: 'none that needs a ground', cover: 'in place', servesCounter: true }, 2: { isFedFromLoadSide: true, gfciTest: 'goes dead', isSingle: false, servesCounter: true } }) }, { handleTie: 'not tied' }),
  breaker(6, 20, { id: 'pump-booster', label: 'Booster pump', supplies: 'motor', disconnect: 'within sight', nameplateDevice: read('fuse or breaker'), nameplateMca: read(14), nameplateMocp: read(30), loadAmps: measured(9.1, 'clamp meter'), segments: [cu('12')], points: [{ id: 'booster-1', name: 'Booster pump', room: 'room-utility', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
  breaker(7, 20, { id: 'kiln-lights', label: 'Stair and porch lights', supplies: 'lighting', year: told(1998), loadAmps: measured(6.2, 'clamp meter'), segments: [cu('12', { name: 'from the panel' }), cu('14', { name: 'beyond the stair box', year: told(1998), isTap: false })],
    points: [light('kl-1', 'stair', 'panel'), light('cl-1', 'closet', 'kl-1', { lampKind: 'bare lamp or pendant' }), light('cl-2', 'closet', 'cl-1', { name: 'Closet shelf light', lampKind: 'surface incandescent or LED, enclosed', clearanceIn: measured(14, 'tape') }), light('cl-3', 'closet', 'cl-2', { name: 'Closet back light' }), light('kl-2', 'porch', 'kl-1'), light('kl-3', 'porch', 'kl-2', { name: 'Porch steps light' }), { id: 'kl-4', name: 'Porch receptacle', room: 'room-porch', type: 'receptacle', slots: 'three', deviceAmps: 15, after: 'kl-3', lamps: 'correct', protection: 'GFCI', ground: 'connected', condition: 'sound', metal: 'copper', neutralGroundRiseV: 0.9, isWeatherResistant: false, gfciButton: 'trips, stays live' }] }, { temperatureC: measured(29, 'infrared thermometer') }),
  breaker(9, 20, { id: 'counter-right', label: 'Kitchen counter right', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', sharesNeutralWith: ['counter-left'], feedsLineToLine: false, isOnOneYoke: false, isGroupedInPanel: true, year: told(1994), segments: [cu('12', { conductors: 3, name: 'shared cable', year: told(1994) })],
    points: chain('counter-right', ['kitchen', 'kitchen', 'kitchen'], { ...GROUNDED, year: told(1994) }, { 1: { protection: 'GFCI', gfciButton: 'does not trip', resetAccess: 'behind an appliance' } }) }, { handleTie: 'not tied' }),
  breaker(10, 15, { id: 'bed-east', label: 'Bedrooms east', supplies: 'receptacles and lighting', year: told(1961), segments: [old('14')],
    points: chain('bed-east', ['bed1', 'bed1', 'bed1', 'bed1', 'bed3', 'bed3', 'bed3'], TWO_WIRE, { 1: { appliance: 'room air conditioner', cover: 'broken' }, 2: { slots: 'two' }, 3: { slots: 'two' }, 5: { ground: blocked('wardrobe in front, not moved'), lamps: blocked('wardrobe in front, not moved') }, 7: { slots: 'two', condition: 'loose grip' } }) }),
  breaker(11, 15, { id: 'living', label: 'Living room, hall', supplies: 'receptacles and lighting', year: told(1961), segments: [old('14')],
    points: [...chain('living', ['living', 'living', 'living', 'living', 'hall', 'hall'], { ...TWO_WIRE, isFedFromLoadSide: true, protection: 'none', isMarkedNoGround: true, isMarkedGfci: true }, { 1: { protection: 'GFCI', isFedFromLoadSide: false, isMarkedGfci: false, carriesGroundOn: true, isBoxOpened: true, termination: 'push-in', stranding: 'solid', size: '14', pushInMarking: read('14 solid'), setbackIn: measured(0.6, 'tape'), hasExtender: false, splicePlace: 'in a box', isAccessible: true, boxVolumeIn3: measured(12.5, 'tape'), conductorsInBox: 4, groundsInBox: 0, largestInBox: '14', hasInternalClamps: true }, 4: { isMarkedGfci: false }, 5: { isMarkedNoGround: false, isMarkedGfci: false }, 6: { isMarkedNoGround: blocked('behind a radiator cover'), isMarkedGfci: blocked('behind a radiator cover') } }), light('living-7', 'hall', 'living-6')] }),
  breaker(12, 15, { id: 'bed-west', label: 'Bedroom west', supplies: 'receptacles and lighting', year: told(1961), segments: [old('14', { insulation: 'brittle' })],
    points: chain('bed-west', ['bed2', 'bed2', 'bed2', 'bed2'], TWO_WIRE, { 1: { lamps: 'correct', hasNeutralGroundJumper: true }, 2: { lamps: 'correct', ground: blocked('box painted shut') }, 3: { slots: 'two' }, 4: { isBoxOpened: true, setbackIn: 0, splicePlace: 'outside a box', isAccessible: false, boxVolumeIn3: measured(10, 'tape'), conductorsInBox: 4, groundsInBox: 0, largestInBox: '14', hasInternalClamps: true } }) }),
  breaker(13, 20, { id: 'bath', label: 'Bathroom', supplies: 'receptacles', requiredUse: 'bathroom receptacles', isSharedOutside: false, year: told(1994), segments: [{ ...cu('12'), size: blocked('conductor hidden behind the bar'), core: blocked('conductor hidden behind the bar'), workmanship: blocked('conductor hidden behind the bar'), tape: blocked('conductor hidden behind the bar') }], points: chain('bath', ['bath', 'bath'], { ...GROUNDED, protection: 'GFCI' }) }),
  breaker(14, 15, { id: 'laundry', label: 'Laundry', supplies: 'receptacles', requiredUse: 'laundry', year: told(1994), loadAmps: measured(10.4, 'clamp meter'), segments: [cu('12')], isSharedOutside: true, points: chain('laundry', ['laundry', 'laundry', 'utility'], GROUNDED, { 1: { deviceAmps: 20, isSingle: true }, 2: { lamps: 'reversed' }, 3: { groundOhms: measured(2.6, 'branch analyser') } }) }, { temperatureC: measured(53, 'infrared thermometer'), termination: 'discoloured' }),
  breaker(15, 15, { id: 'furnace', label: 'Furnace', supplies: 'fixed appliance', segments: [cu('14')], points: [{ id: 'furnace-1', name: 'Furnace switch', room: 'room-utility', type: 'switch', after: 'panel', deviceAmps: 15, condition: 'sound', metal: 'copper' }] }),
  breaker(16, 20, { id: 'garage', label: 'Garage', supplies: 'receptacles', requiredUse: 'garage', year: told(1994), segments: [cu('12')], points: chain('garage', ['garage', 'garage', 'garage'], TESTED, { 1: { protection: 'GFCI' }, 2: { isFedFromLoadSide: true }, 3: { condition: 'cracked', isFedFromLoadSide: false } }) }),
  breaker(17, 15, { id: 'alarms', label: 'Smoke alarms', supplies: 'alarms', segments: [cu('14', { support: 'within 12 in and every 4½ ft', boring: '1¼ in or more from the edge', firestop: 'sealed' })], points: [{ id: 'alarm-1', name: 'Hall alarm', room: 'room-hall', type: 'alarm', after: 'panel' }, { id: 'alarm-2', name: 'Bedroom alarm', room: 'room-bed1', type: 'alarm', after: 'alarm-1' }] }),
  breaker(18, 30, { id: 'dryer', label: 'Dryer', supplies: 'fixed appliance', segments: [{ ...cu('10'), metal: 'copper-looking' }], points: [{ id: 'dryer-1', name: 'Dryer outlet', room: 'room-laundry', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
  breaker(19, 25, { id: 'cooler', label: 'Attic cooler', supplies: 'air conditioning', disconnect: 'not within sight', nameplateDevice: read('fuses only'), hasFusesAtUnit: false, nameplateMca: read(13), nameplateMocp: read(25), segments: [cu('12', { exposures: [{ what: 'hot', ambientC: measured(48, 'thermometer'), name: 'attic' }] })], points: [{ id: 'cooler-1', name: 'Attic cooler', room: 'room-attic', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
  breaker(22, 90, undefined, { poles: 2, role: 'feeder', handleTie: 'common trip', label: 'Garden level', isAluminiumMarked: true }),
  breaker(23, 20, { id: 'workbench', label: 'Workbench', supplies: 'receptacles', segments: [{ ...cu('14'), size: { value: '14', grade: 'assumed' }, core: 'silver colour', workmanship: 'nicked', tape: 'packing, masking or other' }], points: chain('workbench', ['workshop', 'workshop', 'workshop'], TESTED) }, { conductorsOnTerminal: 2, isMarkedForTwo: blocked('print turned to the back') }),
  breaker(25, 30, undefined, { poles: 2, role: 'feeder', handleTie: 'common trip', label: 'Greenhouse' }),
  breaker(26, 20, { id: 'den', label: 'Den and guest room', supplies: 'receptacles and lighting', segments: [cu('12', { isWhiteHot: true, isWhiteMarked: false, year: told(1994), support: 'stapled on edge or too many', isFished: false, boring: 'plated', firestop: 'none' })], points: [...chain('den', ['den', 'den', 'den', 'guest', 'guest'], TESTED, { 4: { neutralGroundRiseV: measured(0, 'branch analyser'), ground: blocked('box not opened on this visit') } }), light('den-6', 'den', 'den-5')] }, { termination: 'discoloured' }),
  breaker(28, 15, undefined, { role: 'spare', conductorsOnTerminal: 0 }),
]

const GARDEN: Node[] = [
  breaker(1, 20, { id: 'garden-east', label: 'Garden rooms east', supplies: 'receptacles and lighting', year: told(1972), segments: [al('10')],
    points: chain('garden-east', ['den', 'guest', 'guest', 'guest', 'den'], { ...GROUNDED, metal: 'aluminium', termination: 'binding screw', aluminiumMarking: 'none', year: told(1972) }, { 2: { aluminiumMarking: 'CO/ALR', year: 1996, splice: 'aluminium to copper', connector: 'set-screw lug', connectorListing: read('aluminium to copper'), spliceState: 'sound' }, 3: { termination: 'push-in' }, 4: { aluminiumMarking: blocked('strap painted over') }, 5: { metal: 'silver-looking' } }) }, { isAluminiumMarked: true, space: 1 }),
  breaker(2, 20, { id: 'garden-west', label: 'Garden rooms west', supplies: 'receptacles and lighting', year: told(1972), segments: [al('12')],
    points: chain('garden-west', ['den', 'den', 'stair', 'guest'], { ...GROUNDED, metal: 'aluminium', termination: 'binding screw', aluminiumMarking: 'AL-CU', year: told(1969) }, { 3: { metal: 'copper', aluminiumMarking: 'none', splice: 'aluminium to copper', connector: 'twist-on', connectorListing: read('copper only'), spliceState: 'discoloured' }, 4: { metal: 'copper-clad aluminium' } }) }, { isAluminiumMarked: false }),
  breaker(3, 20, { id: 'bath2', label: 'Garden bathroom', supplies: 'receptacles', requiredUse: 'bathroom receptacles', year: 2009, segments: [cu('12', { year: 2009 })], points: chain('bath2', ['bath2', 'bath2'], { ...GROUNDED, protection: 'GFCI', year: 2009 }, { 2: { groundToEarthV: measured(118.6, 'multimeter, low impedance'), lamps: 'correct', ground: blocked('box not opened, left switched off'), hasNeutralGroundJumper: blocked('box not opened, left switched off') } }) }),
  breaker(4, 20, { id: 'kitchenette-a', label: 'Kitchenette left', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', sharesNeutralWith: ['kitchenette-b'], year: 2009, segments: [cu('12', { conductors: 3, year: 2009 })], points: chain('kitchenette-a', ['den', 'den'], { ...GROUNDED, year: 2009 }) }, { id: 'garden/4', poles: 2, handleTie: 'common trip' }),
  breaker(5, 15, { id: 'garden-lights', label: 'Garden lights', supplies: 'lighting', year: 2009, segments: [cu('14', { year: 2009 })], points: [light('gl-1', 'den', 'panel'), light('gl-2', 'guest', 'gl-1'), light('gl-3', 'stair', 'gl-2')] }),
  breaker(7, 20, { id: 'office-a', label: 'Guest room left', supplies: 'receptacles', sharesNeutralWith: ['office-b'], feedsLineToLine: false, year: told(2009), segments: [cu('12', { conductors: 3 })], points: chain('office-a', ['guest', 'guest'], UNSEEN) }, { handleTie: blocked('deep behind the feeder, not reached') }),
  breaker(9, 20, { id: 'office-b', label: 'Guest room right', supplies: 'receptacles', sharesNeutralWith: ['office-a'], feedsLineToLine: false, year: told(2009), segments: [cu('12', { conductors: 3, name: 'shared cable' })], points: chain('office-b', ['guest', 'guest'], UNSEEN) }, { handleTie: 'listed tie' }),
  breaker(10, 15, { id: 'hall-night', label: 'Stair lights', supplies: 'lighting', year: told(1972), segments: [al('12', { insulation: 'frayed or bare', entry: 'none' })], points: [light('hn-1', 'stair', 'panel', { supplyMarkC: read(90) })] }, { isAluminiumMarked: blocked('print worn') }),
]

const STUDIO: Node[] = [
  breaker(1, 40, { id: 'kiln', label: 'Kiln', supplies: 'fixed appliance', frameGround: 'grounding conductor', year: 1998, loadAmps: measured(36, 'clamp meter'), applianceAmps: read(32), isDeviceMarked: true, applianceMaxDevice: read(40), segments: [cu('10', { year: 1998 })], points: [{ id: 'kiln-1', name: 'Kiln outlet', room: 'room-studio', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
  breaker(2, 20, { id: 'wheel', label: 'Wheels', supplies: 'receptacles', year: 1998, segments: [cu('12')], points: chain('wheel', ['studio', 'studio', 'studio', 'glaze'], { ...GROUNDED, year: 1998 }, { 1: { protection: 'GFCI', carriesGroundOn: false, isWeatherResistant: true, isTamperResistant: true, isBoxOpened: true, termination: 'push-in', stranding: 'solid', size: '14', pushInMarking: read('12 solid'), boxVolumeIn3: measured(30.3, 'tape'), conductorsInBox: 4, groundsInBox: 3, largestInBox: '12', hasInternalClamps: false, throughInBox: 0, fittingsInBox: 0, yokesInBox: 1 }, 2: { isFedFromLoadSide: true }, 3: { isFedFromLoadSide: true }, 4: { isFedFromLoadSide: true } }) }),
  breaker(4, 20, { id: 'studio-lights', label: 'Studio lights', supplies: 'lighting', year: 1998, loadAmps: measured(7.5, 'clamp meter'), segments: [cu('14')], points: [light('sl-1', 'studio', 'panel'), light('sl-2', 'glaze', 'sl-1'), light('sl-3', 'studio', 'sl-2', { name: 'Kiln room second light' })] }),
  breaker(5, 20, { id: 'fan', label: 'Exhaust fan', supplies: 'motor', year: 1998, segments: [cu('14')], nameplateMca: blocked('nameplate behind the duct'), nameplateMocp: blocked('nameplate behind the duct'), points: [{ id: 'fan-1', name: 'Exhaust fan', room: 'room-studio', type: 'hard-wired outlet', after: 'panel' }] }),
  breaker(6, 15, { id: 'studio-heat', label: 'Glaze bench', supplies: 'receptacles', year: 1998, segments: [cu('14')], points: chain('studio-heat', ['glaze', 'glaze', 'glaze'], { ...GROUNDED, year: 1998 }) }),
]

const GREENHOUSE: Node[] = [
  breaker(1, 20, { id: 'bench-heat', label: 'Bench heat', supplies: 'fixed appliance', applianceAmps: read(6), isDeviceMarked: true, applianceMaxDevice: read(15), year: 1974, segments: [{ size: gauge('12'), metal: 'copper', wiring: 'UF', conductors: 2, egc: 'none', insulation: 'sound', entry: 'clamp or bushing', isWhiteHot: false }], points: [{ id: 'heat-1', name: 'Bench heat', room: 'room-green', type: 'hard-wired outlet', after: 'panel' }] }),
  breaker(2, 15, { id: 'green-recep', label: 'Greenhouse receptacles', supplies: 'receptacles', sharesNeutralWith: ['green-fan'], year: 1974, segments: [{ size: gauge('14'), metal: 'copper', wiring: 'UF', conductors: 2, egc: 'wire', insulation: 'sound', entry: 'clamp or bushing', isWhiteHot: false }], points: chain('green-recep', ['green', 'green', 'green'], { ...UNSEEN, metal: 'copper', lamps: 'correct', protection: 'none' }, { 1: { protection: 'GFCI', ground: 'none', lamps: 'open ground', carriesGroundOn: false, isWeatherResistant: true }, 3: { condition: blocked('behind the potting bench') } }) }),
  breaker(3, 15, { id: 'green-fan', label: 'Vent fan', supplies: 'fixed appliance', sharesNeutralWith: ['green-recep'], feedsLineToLine: false, year: 1974, segments: [{ size: gauge('14'), metal: 'copper', wiring: 'UF', conductors: 2, egc: 'wire', insulation: 'sound', entry: 'clamp or bushing', isWhiteHot: false }], points: [{ id: 'vent-1', name: 'Vent fan', room: 'room-green', type: 'hard-wired outlet', after: 'panel' }] }, { handleTie: 'improvised tie' }),
]

const screws = (count: number, over: Record<number, Node> = {}): Node[] =>
  Array.from({ length: count }, (_, i) => ({ position: i + 1, neutrals: 1, grounds: 0, ...over[i + 1] }))
const grounds = (count: number): Node[] => Array.from({ length: count }, (_, i) => ({ position: i + 1, neutrals: 0, grounds: i % 3 === 0 ? 2 : 1 }))

/** The demo premises as a house file, ready for the reader. */
export function hillside(): Node {
  const panel = { type: 'panel', mainKind: 'main breaker', bus: 'single phase', numbering: 'odd left, even right', cover: 'in place', corrosion: 'none', location: 'ordinary', hasSecondSource: false, hasTripRecord: false, protectiveBreakers: 'available' }
  return {
    corvit: 1, form: 'house',
    premises: {
      alarms: 'some missing',
      name: 'Sorrel Bank 22', street: '22 Sorrel Bank, Upper Tansy', client: 'I. Quillon', assessor: 'R. Ambersley', visitedOn: '2026-05-12',
      supply: measured('120/240 V single phase', 'multimeter'), serviceDrop: 'taped splices', intersystem: 'none found', waterPiping: 'metal in part', gasPiping: read('corrugated tubing'), gasBond: 'none found', doGasAppliancesHaveGround: false,
      purpose: 'purchase', yearBuilt: told(1961), edition: read(2020), allowedToStay: 'recommend upgrade', aluminiumSchool: 'listed connectors', citeSections: false,
    },
    buildings: [
      { id: 'house', name: 'House', isDetached: false, yearBuilt: told(1961), rooms: Object.entries(ROOMS).filter(([id]) => !['studio', 'glaze', 'green', 'well'].includes(id)).map(([id, [name, use]]) => ({ id: `room-${id}`, name, use, ...OUTLETS[id] })),
        enclosures: [
          { id: 'meter', name: 'Meter', type: 'meter', place: 'outdoors', fedFrom: 'utility', openings: 0, corrosion: 'surface rust', bondMeans: 'listed bar', busAmps: read(125), serviceRaceway: 'metal raceway', racewayBond: 'threaded hub' },
          { id: 'main', name: 'Service panel', ...panel, place: 'indoors', room: 'room-garage', marking: 'service disconnect', mainAmps: read(150), busAmps: read(200), spaces: 30, bondMeans: 'screw', coverScrews: 'pointed', openings: 1, directory: 'vague', contradictions: 2, year: 1994, workingDepthIn: measured(41, 'tape'), workingWidthIn: measured(30, 'tape'), workingHeightIn: measured(92, 'tape'), widthIn: measured(14.5, 'tape'), door: '90° or more', isKeptClear: true, escape: 'upright, with a step back', topHandleIn: measured(68, 'tape'),
            serviceSize: read('2/0'), serviceMetal: 'aluminium', serviceInsulationC: read(75), electrodes: 'found', surge: 'none', ambientC: measured(24, 'thermometer'), maxCircuits: read(40), tandems: read('none'),
            feeder: { id: 'service', from: 'meter', size: '2/0', metal: 'aluminium', wiring: 'SE', egc: 'none', carriesWholeDwelling: true, year: 1994 },
            bars: [
              { id: 'main-neutral', role: 'neutral', isBondedToEnclosure: true, screws: 24, areAllScrewsSeen: true, screwList: screws(19, { 5: { neutrals: 2 }, 11: { neutrals: 1, grounds: 1 } }) },
              { id: 'main-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: true, screws: 20, areAllScrewsSeen: true, groundsPerScrew: read(3), screwList: grounds(12) },
            ],
            breakers: MAIN_BREAKERS },
          { id: 'garden', name: 'Garden level panel', ...panel, place: 'indoors', mainKind: 'main lugs', busAmps: read(125), spaces: 12, workingDepthIn: measured(27, 'tape'), topHandleIn: measured(81, 'tape'), tandems: read('marked spaces'), maxCircuits: read(8), bondMeans: blocked('lower screws of the bar hidden by cables'), coverScrews: 'some missing', openings: 0, directory: 'legible and specific', contradictions: 0, year: told(1972), protectiveBreakers: 'none made', hasTripRecord: blocked('label of the line painted over'),
            feeder: { id: 'garden-feeder', from: 'main/22', size: '2', metal: 'aluminium', wiring: 'SE', egc: 'wire', terminalsC: read(75), carriesWholeDwelling: false, year: told(1972), insulationC: read(75) },
            bars: [
              { id: 'garden-neutral', role: 'neutral', isBondedToEnclosure: blocked('bar hidden by cables'), screws: 16, screwList: screws(5) },
              { id: 'garden-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false, screws: 10, areAllScrewsSeen: true, groundsPerScrew: read(2), screwList: grounds(7) },
            ],
            breakers: GARDEN },
          { id: 'attic-disconnect', name: 'Attic disconnect', type: 'disconnect', place: 'indoors', fedFrom: blocked('attic hatch painted shut'), cover: blocked('attic hatch painted shut') },
        ] },
      { id: 'studio-building', name: 'Kiln studio', isDetached: true, fedThrough: 'a feeder', electrode: 'found', yearBuilt: 1998, rooms: [{ id: 'room-studio', name: 'Kiln room', use: 'workshop' }, { id: 'room-glaze', name: 'Glaze bench', use: 'workshop' }],
        enclosures: [{ id: 'studio-panel', name: 'Studio panel', ...panel, place: 'indoors', mainAmps: read(100), busAmps: read(100), spaces: 12, bondMeans: 'screw', coverScrews: 'all blunt', openings: 0, directory: 'legible and specific', contradictions: 0, year: 1998,
          feeder: { id: 'studio-feeder', from: 'main/2', size: gauge('4'), metal: 'aluminium', wiring: 'plastic conduit', insulationC: read(75), terminalsC: read(75), egc: 'wire', carriesWholeDwelling: false, hasOtherMetallicPath: true, hasGroundFaultProtectionAhead: false, year: 1998 },
          bars: [
            { id: 'studio-neutral', role: 'neutral', isBondedToEnclosure: true, screws: 12, areAllScrewsSeen: true, screwList: screws(4) },
            { id: 'studio-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false, screws: 10, areAllScrewsSeen: true, groundsPerScrew: read(2), screwList: grounds(5) },
          ],
          breakers: STUDIO }] },
      { id: 'greenhouse', name: 'Greenhouse', isDetached: true, fedThrough: 'a feeder', electrode: 'none found', yearBuilt: told(1974), rooms: [{ id: 'room-green', name: 'Greenhouse', use: 'outdoors' }],
        enclosures: [{ id: 'green-panel', name: 'Greenhouse panel', ...panel, place: 'indoors', mainKind: 'main lugs', busAmps: read(60), spaces: 6, bondMeans: 'screw', coverScrews: 'all blunt', openings: 2, directory: 'missing', corrosion: 'on bus or terminals', year: told(1974), protectiveBreakers: 'none made', bus: blocked('corroded cover not removed: unsafe to open energised'),
          feeder: { id: 'green-feeder', from: 'main/25', size: gauge('10'), metal: 'copper', wiring: 'UF', egc: 'none', carriesWholeDwelling: false, hasOtherMetallicPath: false, hasGroundFaultProtectionAhead: false, year: told(1974) },
          bars: [{ id: 'green-common', role: 'common', isBondedToEnclosure: true, screws: 10, areAllScrewsSeen: true, screwList: [{ position: 1, neutrals: 1, grounds: 0 }, { position: 2, neutrals: 1, grounds: 0 }, { position: 3, neutrals: 1, grounds: 0 }, { position: 4, neutrals: 0, grounds: 1 }, { position: 5, neutrals: 0, grounds: 1 }] }],
          breakers: GREENHOUSE }] },
      { id: 'well-house', name: 'Well house', isDetached: true, electrode: blocked('footing overgrown'), yearBuilt: told(1968), rooms: [{ id: 'room-well', name: 'Well house', use: 'utility' }],
        enclosures: [{ id: 'well-panel', name: 'Well house panel', ...panel, place: 'indoors', fedFrom: 'utility', marking: 'service disconnect', mainAmps: read(60), busAmps: read(70), spaces: 4, electrodes: 'none found', serviceRaceway: 'metal raceway', racewayBond: 'plain locknuts', serviceSize: gauge('10'), serviceMetal: 'copper', bondMeans: 'none', coverScrews: 'all blunt', openings: 0, directory: 'legible and specific', contradictions: 0, year: told(1968), numbering: 'down each side',
          bars: [{ id: 'well-neutral', role: 'neutral', isBondedToEnclosure: false, screws: 6, areAllScrewsSeen: true, screwList: screws(2) }, { id: 'well-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false, screws: 6, areAllScrewsSeen: true, groundsPerScrew: read(2), screwList: grounds(2) }],
          breakers: [
            breaker(1, 20, { id: 'well-pump', label: 'Well pump', supplies: 'motor', nameplateMca: read(12), nameplateMocp: read(15), segments: [cu('12', { wiring: 'UF' })], points: [{ id: 'pump-1', name: 'Well pump', room: 'room-well', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
            breaker(3, 15, { id: 'well-light', label: 'Well light', supplies: 'receptacles and lighting', segments: [cu('14', { wiring: 'UF' })], points: [light('wl-1', 'well', 'panel'), { id: 'wl-2', name: 'Well house receptacle', room: 'room-well', type: 'receptacle', slots: 'three', after: 'wl-1', lamps: 'correct', ground: 'connected', protection: 'none', condition: 'sound', metal: 'copper' }] }),
          ] }] },
    ],
    electrodes: [{ id: 'rod', name: 'Rod by the porch', type: 'rod', rods: 1, ohms: blocked('no earth tester on this visit'), landsIn: 'main', landsOn: 'neutral bar', size: gauge('6'), metal: 'copper', connection: 'sound', isSpliced: false, year: told(1994) }],
    circuits: [{ id: 'kitchenette-b', label: 'Kitchenette right', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', fedBy: 'garden/4', sharesNeutralWith: ['kitchenette-a'], year: 2009, segments: [cu('12', { conductors: 3, year: 2009, name: 'shared cable' })], points: chain('kitchenette-b', ['den', 'den'], { ...GROUNDED, year: 2009 }) }],
  }
}
