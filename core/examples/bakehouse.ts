/**
 * Invented premises: a bakehouse of 1938 turned into a dwelling. The ovens left a three-phase enclosure on what is now
 * a single-phase service; a split-bus panel of 1974 serves the flat above; the flour store across the yard hangs on a
 * three-wire feeder; the yard flat has a split-bus service of its own.
 */
import { blocked, gauge, measured, read, told, type Node } from './grades'

const WIRE = { metal: 'copper', core: 'copper colour', surface: 'copper colour', workmanship: 'sound', tape: 'none', insulation: 'sound', entry: 'clamp or bushing', isWhiteHot: false, conductors: 2 }
const nm = (size: string, more: Node = {}): Node => ({ ...WIRE, size: gauge(size), wiring: read('NM-B'), egc: 'wire', ...more })
const pipe = (size: string, more: Node = {}): Node => ({ ...WIRE, size: gauge(size), wiring: 'steel conduit', insulationC: 60, terminalsC: 60, egc: 'metal raceway or armour', conductors: 1, ...more })
const BREAKER = { device: 'breaker', protection: 'standard', role: 'branch', conductorsOnTerminal: 1, termination: 'sound', fitsPanel: 'listed', poles: 1 }
const on = (space: number, ratingAmps: number, circuit: Node | undefined, more: Node = {}): Node => ({ space, ratingAmps: read(ratingAmps), ...BREAKER, ...more, ...circuit && { circuit: { requiredUse: 'none', sharesNeutralWith: [], ...circuit } } })
const spots = (circuit: string, room: string, count: number, more: Node = {}): Node[] => Array.from({ length: count }, (_, i) => ({
  id: `${circuit}-${i + 1}`, name: `${room} ${i + 1}`, room: `room-${room.toLowerCase().replaceAll(' ', '-')}`, type: 'receptacle', slots: 'three', deviceAmps: 15, lamps: 'correct', ground: 'connected', protection: 'none', condition: 'sound', metal: 'copper', after: i === 0 ? 'panel' : `${circuit}-${i}`, ...more,
}))
const room = (name: string, use: string, more: Node = {}): Node => ({ id: `room-${name.toLowerCase().replaceAll(' ', '-')}`, name, use, ...more })

export function bakehouse(): Node {
  const seen = { type: 'panel', numbering: 'odd left, even right', cover: 'in place', coverScrews: 'all blunt', openings: 0, corrosion: 'none', location: 'ordinary', hasSecondSource: false, hasTripRecord: false }
  return {
    corvit: 1, form: 'house',
    premises: {
      name: 'Old Bakehouse', street: 'Millet Row 3, Lower Tansy', client: 'P. Harrowgate-Lind', assessor: 'R. Ambersley', visitedOn: '2026-06-02', purpose: 'remodel', yearBuilt: told(1938), edition: read(2014),
      allowedToStay: 'recommend upgrade', aluminiumSchool: 'strict', citeSections: true, supply: measured('120/240 V single phase', 'multimeter'), waterPiping: 'metal', waterBond: 'none found',
    },
    buildings: [
      { id: 'bakehouse', name: 'Bakehouse', isDetached: false, yearBuilt: told(1938), rooms: [room('Oven room', 'utility'), room('Shop', 'living'), room('Kitchen', 'kitchen'), room('Flat', 'living'), room('Flat bath', 'bathroom', { ownCircuit: 'missing' })],
        enclosures: [
          { id: 'meter', name: 'Meter', type: 'meter', place: 'outdoors', fedFrom: 'utility', openings: 0, corrosion: 'none' },
          { id: 'oven', name: 'Oven panel', ...seen, place: 'indoors', marking: 'service disconnect', mainKind: 'main breaker', mainAmps: read(125), busAmps: read(200), bus: 'three phase', thirdLeg: measured('jumpered to another leg', 'multimeter'), isJumperListed: false, spaces: 18, bondMeans: 'strap', directory: 'vague', contradictions: 0, year: told(1951), protectiveBreakers: 'none made',
            serviceSize: read('2'), serviceMetal: 'aluminium', serviceInsulationC: read(75), serviceRaceway: 'metal raceway', racewayBond: blocked('behind the plaster'), electrodes: 'found', surge: blocked('beside the meter, behind ivy'), workingDepthIn: measured(44, 'tape'), workingWidthIn: measured(48, 'tape'), workingHeightIn: measured(110, 'tape'), widthIn: measured(20, 'tape'), door: 'no door', isKeptClear: false, topHandleIn: measured(71, 'tape'), ambientC: measured(22, 'thermometer'), tandems: read('marked spaces'), maxCircuits: read(18),
            feeder: { id: 'service', from: 'meter', size: '2', metal: 'aluminium', wiring: 'steel conduit', egc: 'metal raceway or armour', carriesWholeDwelling: true, insulationC: 75, terminalsC: 75, year: told(1951) },
            bars: [{ id: 'oven-neutral', role: 'common', isBondedToEnclosure: true, screws: 20, areAllScrewsSeen: true, screwList: Array.from({ length: 10 }, (_, i) => ({ position: i + 1, neutrals: 1, grounds: 0 })) }],
            breakers: [
              on(1, 20, { id: 'shop', label: 'Shop receptacles', supplies: 'receptacles', sharesNeutralWith: ['kitchen'], feedsLineToLine: false, isOnOneYoke: false, isGroupedInPanel: false, year: told(1951), segments: [pipe('12', { isColourMadeWhite: false })], points: spots('shop', 'Shop', 4, { ground: 'metal raceway or armour', groundOhms: measured(0.4, 'branch analyser') }) }, { handleTie: 'not tied', temperatureC: measured(27, 'infrared thermometer') }),
              on(3, 20, { id: 'kitchen', label: 'Kitchen', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', sharesNeutralWith: ['shop'], feedsLineToLine: false, isGroupedInPanel: false, year: told(1951), segments: [pipe('12', { name: 'shared pipe' })], points: spots('kitchen', 'Kitchen', 3, { ground: 'metal raceway or armour', groundOhms: measured(0.5, 'branch analyser') }) }, { handleTie: 'not tied', temperatureC: measured(26, 'infrared thermometer') }),
              on(2, 70, undefined, { label: 'Flat', role: 'feeder', poles: 2, handleTie: 'common trip' }),
              on(5, 15, { id: 'shop-lights', label: 'Shop lights', supplies: 'lighting', year: told(1951), segments: [pipe('14')], points: [{ id: 'sl-1', name: 'Shop light', room: 'room-shop', type: 'luminaire', after: 'panel' }] }, { half: 'a' }),
              on(5, 15, { id: 'oven-lights', label: 'Oven room lights', supplies: 'lighting', year: told(1994), segments: [nm('14')], points: [{ id: 'ol-1', name: 'Oven room light', room: 'room-oven-room', type: 'luminaire', after: 'panel' }] }, { half: 'b', isTwinSpace: false, id: 'oven/5b', fitsPanel: 'not listed' }),
              on(17, 15, { id: 'cellar', label: 'Cellar', supplies: 'lighting', year: told(1938), segments: [{ ...WIRE, size: gauge('14'), wiring: 'knob-and-tube', egc: 'none', core: 'copper colour', surface: 'silver colour', metal: 'tinned copper', isBuried: true, isExtended: false, isNeutralFused: false }, { ...WIRE, name: 'coal hole', size: gauge('14'), wiring: 'knob-and-tube', egc: 'none', metal: 'tinned copper', core: 'copper colour', surface: 'silver colour', isBuried: false, isExtended: false, isNeutralFused: false, isTap: false }, { ...WIRE, name: 'under the shop', size: gauge('14'), wiring: 'knob-and-tube', egc: 'none', isTap: false }, { ...WIRE, name: 'old lead-in', size: gauge('14'), wiring: 'cloth NM', egc: 'none', insulation: blocked('behind the stair'), isTap: false }], points: [{ id: 'ce-1', name: 'Cellar light', room: 'room-oven-room', type: 'luminaire', after: 'panel' }] }),
              on(7, 15, { id: 'alarms', label: 'Alarms', supplies: 'alarms', year: told(2009), segments: [nm('14', { year: told(2009) })], points: [{ id: 'al-1', name: 'Shop alarm', room: 'room-shop', type: 'alarm', after: 'panel' }] }, { half: 'a', isTwinSpace: true, conductorsOnTerminal: 2, isMarkedForTwo: read(false) }),
              on(6, 50, undefined, { label: 'Yard hoist', role: 'feeder', poles: 2, handleTie: 'common trip' }),
              on(9, 30, undefined, { label: 'Flour store', role: 'feeder', poles: 2, handleTie: 'common trip' }),
              on(13, 30, { id: 'heater', label: 'Water heater', supplies: 'water heater', applianceAmps: read(25), isDeviceMarked: false, year: told(2002), segments: [nm('10', { year: told(2002), isWhiteHot: true, isWhiteMarked: true })], points: [{ id: 'wh-1', name: 'Water heater', room: 'room-oven-room', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' }),
            ] },
          { id: 'flat', name: 'Flat panel', ...seen, place: 'indoors', mainKind: 'split bus', bus: 'split bus', busAmps: read(125), spaces: 16, upperMains: 6, hasAddedUpper: false, bondMeans: 'screw', location: 'clothes closet', directory: 'legible and specific', contradictions: 0, year: told(1974), protectiveBreakers: 'none made', tandems: blocked('label painted over'), topHandleIn: blocked('shelf in front'),
            feeder: { id: 'flat-feeder', from: 'oven/2', size: gauge('6'), metal: 'copper', wiring: 'plastic conduit', egc: 'none', insulationC: 60, terminalsC: 60, carriesWholeDwelling: false, year: told(1974) },
            bars: [{ id: 'flat-neutral', role: 'common', isBondedToEnclosure: true, screws: 12, areAllScrewsSeen: true, screwList: [1, 2, 3, 4].map(position => ({ position, neutrals: 1, grounds: 0 })) }, { id: 'flat-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: false, screws: 8, areAllScrewsSeen: true, groundsPerScrew: read(2), screwList: [{ position: 1, neutrals: 0, grounds: 1 }] }],
            breakers: [
              on(1, 50, { id: 'cooker', label: 'Cooker', supplies: 'cooking appliance', year: told(1974), segments: [pipe('6')], points: [{ id: 'ck-1', name: 'Cooker outlet', room: 'room-flat', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip', label: 'Cooker' }),
              on(2, 60, undefined, { poles: 2, role: 'main', label: 'Lower section', handleTie: 'common trip' }),
              on(9, 15, { id: 'flat-rooms', label: 'Flat rooms', supplies: 'receptacles and lighting', year: told(1974), segments: [nm('14', { wiring: read('NM'), year: told(1974) })], points: spots('flat-rooms', 'Flat', 5) }, { half: 'a' }),
              on(9, 20, { id: 'flat-bath', label: 'Flat bath', supplies: 'receptacles', requiredUse: 'bathroom receptacles', year: told(2002), segments: [nm('12')], points: spots('flat-bath', 'Flat bath', 1, { protection: 'GFCI' }) }, { half: 'b' }),
            ] },
        ] },
      { id: 'store', name: 'Flour store', isDetached: true, yearBuilt: told(1938), fedThrough: 'a feeder', electrode: 'found', rooms: [room('Flour store', 'workshop')],
        enclosures: [{ id: 'store-panel', name: 'Flour store panel', ...seen, place: 'indoors', mainKind: 'main lugs', busAmps: blocked('label gone'), bus: 'single phase', spaces: 6, bondMeans: 'screw', cover: 'missing', directory: 'missing', year: told(1964), tandems: read('all spaces'),
          feeder: { id: 'store-feeder', from: 'oven/9', size: gauge('10'), metal: 'copper', wiring: 'UF', egc: 'none', carriesWholeDwelling: false, hasOtherMetallicPath: blocked('yard paved over'), hasGroundFaultProtectionAhead: false, year: told(1964) },
          bars: [{ id: 'store-common', role: 'common', isBondedToEnclosure: true, screws: 8, areAllScrewsSeen: true, screwList: [{ position: 1, neutrals: 1, grounds: 0 }, { position: 2, neutrals: 0, grounds: 1 }] }],
          breakers: [on(1, 15, { id: 'store-lights', label: 'Store lights', supplies: 'receptacles and lighting', requiredUse: blocked('use of the store not settled'), year: told(1964), segments: [nm('14', { wiring: 'UF', year: told(1964), isWhiteHot: blocked('live behind the missing cover'), insulation: blocked('live behind the missing cover'), entry: blocked('live behind the missing cover') })], points: spots('store-lights', 'Flour store', 2) }, { half: 'a', fitsPanel: blocked('label gone'), termination: blocked('live behind the missing cover') })] },
        { id: 'yard', name: 'Hoist panel', ...seen, place: 'indoors', mainKind: 'main lugs', busAmps: read(40), bus: 'three phase', thirdLeg: measured('jumpered to another leg', 'multimeter'), isJumperListed: read(true), spaces: 6, bondMeans: 'none', landings: 'on separate bars', directory: 'legible and specific', contradictions: 0, year: told(1951),
          feeder: { id: 'yard-feeder', from: 'oven/6', size: blocked('lugs behind a barrier'), metal: 'copper', wiring: 'steel conduit', egc: 'metal raceway or armour', insulationC: 60, terminalsC: 60, carriesWholeDwelling: false, year: told(1951) },
          breakers: [on(1, 30, { id: 'hoist', label: 'Sack hoist', supplies: 'motor', nameplateMca: read(21), nameplateMocp: read(35), year: told(1951), segments: [pipe('10', { isColourMadeWhite: true })], points: [{ id: 'hoist-1', name: 'Sack hoist', room: 'room-flour-store', type: 'hard-wired outlet', after: 'panel' }] }, { poles: 2, handleTie: 'common trip' })] }] },
      { id: 'yard-flat', name: 'Yard flat', isDetached: true, yearBuilt: told(1974), fedThrough: 'a feeder', rooms: [room('Yard flat room', 'living')],
        enclosures: [{ id: 'yard-service', name: 'Yard flat panel', ...seen, place: 'indoors', fedFrom: 'utility', marking: 'service disconnect', mainKind: 'split bus', bus: 'split bus', busAmps: read(100), spaces: 16, upperMains: 7, hasAddedUpper: true, bondMeans: 'screw', hasTripRecord: read(true), directory: 'legible and specific', year: told(1974), serviceSize: read('4'), serviceMetal: 'copper',
          bars: [{ id: 'yard-neutral', role: 'common', isBondedToEnclosure: true, screws: 12 }],
          breakers: [on(9, 20, { id: 'yard-rooms', label: 'Yard flat room', supplies: 'receptacles and lighting', year: told(1974), segments: [nm('12', { wiring: read('NM'), year: told(1974) })], points: spots('yard-rooms', 'Yard flat room', 3) })] }] },
    ],
    amendments: [{ id: 'arc-fault', rule: 'afci-missing', effect: 'as in another edition', asIn: 2011, source: 'Lower Tansy ordinance 2015-4' }],
    electrodes: [
      { id: 'pipe', name: 'Water main in the cellar', type: 'water pipe', landsIn: 'oven', landsOn: 'neutral bar', size: gauge('8'), metal: 'copper', connection: 'corroded', isSpliced: false, isJumpered: false },
    ],
  }
}
