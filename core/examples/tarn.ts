/** Invented premises: a small house of 2021, recorded whole. What a clear record looks like, and a place to practise. */
import { gauge, measured, read, type Node } from './grades'

const WIRE = { metal: 'copper', core: 'copper colour', surface: 'copper colour', workmanship: 'sound', tape: 'none', insulation: 'sound', entry: 'clamp or bushing', isWhiteHot: false, conductors: 2, wiring: read('NM-B'), egc: 'wire', support: 'within 12 in and every 4½ ft', boring: '1¼ in or more from the edge', firestop: 'sealed' }
const nm = (size: string, more: Node = {}): Node => ({ ...WIRE, size: gauge(size), ...more })
const BREAKER = { device: 'breaker', protection: 'dual', role: 'branch', poles: 1, conductorsOnTerminal: 1, termination: 'sound', fitsPanel: 'listed' }
const on = (space: number, ratingAmps: number, circuit: Node | undefined, more: Node = {}): Node => ({ space, ratingAmps: read(ratingAmps), ...BREAKER, ...more, ...circuit && { circuit: { requiredUse: 'none', sharesNeutralWith: [], isGroupedInPanel: true, isSharedOutside: false, ...circuit } } })
const spots = (circuit: string, room: string, id: string, count: number): Node[] => Array.from({ length: count }, (_, i) => ({
  id: `${circuit}-${i + 1}`, name: `${room} ${i + 1}`, room: id, type: 'receptacle', slots: 'three', deviceAmps: 15, lamps: 'correct', ground: 'connected', groundOhms: measured(0.3, 'branch analyser'), hasNeutralGroundJumper: false, neutralGroundRiseV: measured(1.1, 'branch analyser'), protection: 'none', condition: 'sound', metal: 'copper', termination: 'binding screw', splice: 'none', isFedFromLoadSide: true, isBoxOpened: true, stranding: 'solid', boxVolumeIn3: read(20), conductorsInBox: 4, groundsInBox: 2, largestInBox: '12', hasInternalClamps: false, throughInBox: 0, fittingsInBox: 0, yokesInBox: 1, groundToEarthV: measured(0.2, 'multimeter, low impedance'), isTamperResistant: true, isSingle: false, appliance: 'none that needs a ground', servesCounter: true, setbackIn: 0, cover: 'in place', splicePlace: 'in a box', isAccessible: true, after: i === 0 ? 'panel' : `${circuit}-${i}`,
}))

export function tarn(): Node {
  return {
    corvit: 1, form: 'house',
    premises: {
      alarms: 'where required',
      name: 'Tarn End 9', street: '9 Tarn End, Upper Tansy', client: 'O. Brackendale', assessor: 'R. Ambersley', visitedOn: '2026-06-09', purpose: 'final', yearBuilt: read(2021), edition: read(2020), allowedToStay: 'mention', aluminiumSchool: 'strict', citeSections: true,
      supply: measured('120/240 V single phase', 'multimeter'), serviceDrop: 'sound', intersystem: 'termination with room for three', waterPiping: 'metal', waterBond: 'found', gasPiping: read('corrugated tubing'), gasBond: 'found', doGasAppliancesHaveGround: true,
    },
    rooms: [{ id: 'room-sitting', name: 'Sitting room', use: 'living', hasSink: false, outlets: 'all there' }, { id: 'room-kitchen', name: 'Kitchen', use: 'kitchen', hasSink: true, sinkKind: 'other sink', ownCircuit: 'there', outlets: 'all there' }, { id: 'room-bath', name: 'Bathroom', use: 'bathroom', hasSink: true, sinkKind: 'tub or shower', ownCircuit: 'there', outlets: 'all there' }, { id: 'room-bed', name: 'Bedroom', use: 'bedroom', hasSink: false, outlets: 'all there' }],
    enclosures: [
      { id: 'meter', name: 'Meter', type: 'meter', place: 'outdoors', fedFrom: 'utility', openings: 0, corrosion: 'none', serviceRaceway: 'plastic raceway', bondMeans: 'none', busAmps: read(125) },
      { id: 'main', name: 'Service panel', type: 'panel', place: 'indoors', marking: 'service disconnect', mainKind: 'main breaker', mainAmps: read(100), busAmps: read(125), bus: 'single phase', numbering: 'odd left, even right', spaces: 12, bondMeans: 'screw', hasSecondSource: false, cover: 'in place', coverScrews: 'all blunt', openings: 0, directory: 'legible and specific', contradictions: 0, corrosion: 'none', protectiveBreakers: 'available', hasTripRecord: false, tandems: read('none'), maxCircuits: read(24), location: 'ordinary', work: 'none', year: 2021,
        workingDepthIn: measured(48, 'tape'), workingWidthIn: measured(36, 'tape'), workingHeightIn: measured(96, 'tape'), widthIn: measured(14.5, 'tape'), door: '90° or more', isKeptClear: true, escape: 'upright, with a step back', topHandleIn: measured(66, 'tape'), serviceSize: read('2'), serviceMetal: 'aluminium', serviceInsulationC: read(75), serviceRaceway: 'plastic raceway', electrodes: 'found', surge: 'present', ambientC: measured(21, 'thermometer'), upperMains: 1,
        feeder: { id: 'service', from: 'meter', size: read('2'), metal: 'aluminium', wiring: 'plastic conduit', egc: 'none', insulationC: read(75), terminalsC: read(75), carriesWholeDwelling: true, year: 2021 },
        bars: [{ id: 'main-neutral', role: 'neutral', isBondedToEnclosure: true, screws: 12, areAllScrewsSeen: true, screwList: [1, 2, 3, 4, 5].map(position => ({ position, neutrals: 1, grounds: 0 })) }, { id: 'main-ground', role: 'ground', isBondedToEnclosure: true, isTiedToNeutral: true, screws: 12, areAllScrewsSeen: true, groundsPerScrew: read(2), screwList: [1, 2, 3].map(position => ({ position, neutrals: 0, grounds: 2 })) }],
        breakers: [
          { space: 1, ratingAmps: read(20), ...BREAKER, poles: 2, handleTie: 'common trip', temperatureC: measured(25, 'infrared thermometer'), circuits: [
            { id: 'counter-a', label: 'Kitchen counter left', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', feedsLineToLine: false, isOnOneYoke: false, isGroupedInPanel: true, isSharedOutside: false, sharesNeutralWith: ['counter-b'], loadAmps: measured(4.1, 'clamp meter'), segments: [nm('12', { conductors: 3 })], points: spots('counter-a', 'Kitchen', 'room-kitchen', 3) },
            { id: 'counter-b', label: 'Kitchen counter right', supplies: 'receptacles', requiredUse: 'kitchen small-appliance', feedsLineToLine: false, isOnOneYoke: false, isGroupedInPanel: true, isSharedOutside: false, sharesNeutralWith: ['counter-a'], segments: [nm('12', { conductors: 3, name: 'shared cable' })], points: spots('counter-b', 'Kitchen right', 'room-kitchen', 2) },
          ] },
          on(2, 15, { id: 'rooms', label: 'Sitting room, bedroom', supplies: 'receptacles and lighting', loadAmps: measured(7.2, 'clamp meter'), segments: [nm('14')], points: [...spots('rooms', 'Sitting room', 'room-sitting', 4), { id: 'rooms-l', name: 'Bedroom light', room: 'room-bed', type: 'luminaire', after: 'rooms-4', condition: 'sound', supplyMarkC: read(90), isBoxOpened: true, splice: 'none', boxVolumeIn3: read(22.5), conductorsInBox: 2, groundsInBox: 1, largestInBox: '14', hasInternalClamps: false, throughInBox: 0, fittingsInBox: 1, yokesInBox: 0, setbackIn: 0, cover: 'in place', splicePlace: 'in a box', isAccessible: true }] }, { temperatureC: measured(24, 'infrared thermometer') }),
          on(4, 20, { id: 'bath', label: 'Bathroom', supplies: 'receptacles', requiredUse: 'bathroom receptacles', segments: [nm('12')], points: spots('bath', 'Bathroom', 'room-bath', 1) }),
          on(5, 25, { id: 'heater', label: 'Water heater', supplies: 'water heater', feedsLineToLine: true, applianceAmps: read(18.8), isDeviceMarked: true, applianceMaxDevice: read(30), segments: [nm('10')], points: [{ id: 'heater-1', name: 'Water heater', room: 'room-kitchen', type: 'hard-wired outlet', after: 'panel', appliance: 'other fixed appliance' }] }, { poles: 2, handleTie: 'common trip', protection: 'standard' }),
        ] },
    ],
    electrodes: [
      { id: 'footing', name: 'Footing steel', type: 'concrete-encased', landsIn: 'main', landsOn: 'neutral bar', size: gauge('4'), metal: 'copper', connection: 'sound', isSpliced: false, year: 2021 },
    ],
    bonds: [
      { id: 'water', name: 'Water pipe', to: 'water piping', landsIn: 'main', size: gauge('6'), metal: 'copper', connection: 'sound', year: 2021 },
      { id: 'gas', name: 'Gas pipe', to: 'gas piping', landsIn: 'main', size: gauge('6'), metal: 'copper', connection: 'sound', year: 2021 },
    ],
  }
}
