import { equipmentGroundSize } from '../tables/grounding'
import type { Change } from './change'
import { UNMEASURED_FT } from './prices'
import type { PlannedWork } from './works'

/** One line of a pick list. */
export interface PickLine {
  readonly what: string
  readonly count: number
  readonly unit: 'pc' | 'ft' | 'set'
}

interface Kit {
  /** For each work. */
  readonly parts?: readonly string[]
  /** A run is pulled: its length comes from what was measured, its size from what the work makes so. */
  readonly run?: 'cable' | 'grounding conductor' | 'feeder'
  readonly tools?: readonly string[]
}
const TORQUE = 'torque screwdriver'
const PROVE = 'tester proved before and after, for absence of voltage'
/** Everything that ends at a terminal is torqued. */
const LANDED: Kit = { tools: [TORQUE] }

const PLAIN = 'GFCI receptacle'
const COMBINED = 'dual-function AFCI/GFCI receptacle'

/** What each remedy takes along, in the words of a counter; a remedy that is not here takes what its steps say. */
export const KITS: Readonly<Record<string, Kit>> = {
  'smaller-breaker': { ...LANDED, parts: ['breaker listed for the panel, smaller'] },
  'nameplate-breaker': { ...LANDED, parts: ['breaker or fuse of the nameplate size'] },
  'appliance-breaker': { ...LANDED, parts: ['breaker to suit the appliance'] },
  'listed-breaker': { ...LANDED, parts: ['breaker listed for the panel'] },
  'marked-breaker': { ...LANDED, parts: ['breaker with terminals marked for aluminum'] },
  'own-breaker': { ...LANDED, parts: ['breaker listed for the panel'] },
  'two-pole-breaker': { ...LANDED, parts: ['two-pole breaker listed for the panel'] },
  'gfci-breaker': { ...LANDED, parts: ['GFCI or dual-function breaker listed for the panel'] },
  'afci-breaker': { ...LANDED, parts: ['AFCI or dual-function breaker listed for the panel'] },
  'smaller-main': { ...LANDED, parts: ['main breaker listed for the panel'] },
  'listed-handle-tie': { parts: ['identified handle tie'] },
  'gfci-here': { ...LANDED, parts: [PLAIN] },
  'gfci-first-outlet': { ...LANDED, parts: [PLAIN] },
  'afci-first-outlet': { ...LANDED, parts: [COMBINED] },
  'afci-receptacle-here': { ...LANDED, parts: [COMBINED] },
  'protect-beside-panel': {
    ...LANDED,
    parts: ['blank-face or receptacle protective device', 'box with cover', 'nipple and bushings'],
  },
  'two-slot-device': { ...LANDED, parts: ['two-slot receptacle'] },
  'tr-receptacle': { ...LANDED, parts: ['tamper-resistant receptacle'] },
  'wr-receptacle': { ...LANDED, parts: ['weather-resistant receptacle', 'in-use cover'] },
  'replace-device': { ...LANDED, parts: ['device like the old one, of today’s kind'] },
  'co-alr-device': { ...LANDED, parts: ['device marked CO/ALR'] },
  'crimped-pigtail': {
    parts: ['cold-weld crimp set, by the certified installer'],
    tools: ['calibrated crimp tool'],
  },
  'lug-pigtail': { parts: ['set-screw Al/Cu lug for each conductor'], tools: [TORQUE] },
  'gel-connector-pigtail': { parts: ['gel-filled Al/Cu connector for each conductor'] },
  'twist-on-pigtail': { parts: ['twist-on Al/Cu connector for each conductor'] },
  'mark-white': { parts: ['marking tape, not white, gray or green'] },
  'entry-fitting': { parts: ['cable connector or bushing'] },
  'one-per-terminal': { parts: ['neutral pigtail where terminals are short'], tools: [TORQUE] },
  'extra-bar': { parts: ['bar listed for the panel'], tools: [TORQUE] },
  'main-bond': { parts: ['bonding screw or strap listed for the panel'], tools: [TORQUE] },
  'blunt-screws': { parts: ['blunt cover screws'] },
  'close-openings': { parts: ['knockout seals and filler plates'] },
  relabel: { parts: ['directory card'] },
  'run-grounding-conductor': { run: 'grounding conductor', tools: [TORQUE] },
  'new-cable': { run: 'cable', parts: ['staples and nail plates'] },
  'replace-conductor': { run: 'cable', parts: ['staples and nail plates'] },
  'copper-rewire': { run: 'cable', parts: ['staples and nail plates'] },
  'restore-20a': { ...LANDED, run: 'cable', parts: ['20 A breaker'] },
  'new-four-wire-feeder': { run: 'feeder', tools: [TORQUE] },
  'add-required-circuit': {
    ...LANDED,
    run: 'cable',
    parts: ['20 A breaker'],
  },
  'split-circuit': {
    ...LANDED,
    run: 'cable',
    parts: ['20 A breaker'],
  },
  'own-circuit': { ...LANDED, run: 'cable', parts: ['breaker listed for the panel'] },
  'circuit-per-unit': {
    ...LANDED,
    run: 'cable',
    parts: ['breaker listed for the panel', 'disconnect within sight of the unit'],
  },
  'fewer-circuits': {
    ...LANDED,
    parts: [
      'sub-panel with separate bars',
      'breaker listed for its panel',
      'four-wire feeder cable, 6 AWG',
      'connectors and bushings',
    ],
  },
  'fewer-loads': { ...LANDED, parts: ['listed load controller with its current sensors'] },
  'four-wire-circuit': { ...LANDED, run: 'cable', parts: ['four-wire outlet'] },
  'knob-and-tube-stages': { run: 'cable', parts: ['staples and nail plates'] },
  'install-electrodes': { parts: ['ground rod', 'rod clamp'], tools: ['rod driver'] },
  'second-rod': { parts: ['ground rod', 'rod clamp'], tools: ['rod driver'] },
  'bond-water': { parts: ['pipe clamp', 'bonding conductor'], tools: [TORQUE] },
  'remake-bond': { parts: ['listed clamp', 'bonding conductor'], tools: [TORQUE] },
  'land-feeder-ground': { parts: ['listed ground bar, where none is there'], tools: [TORQUE] },
  'bond-piping': { parts: ['pipe clamp', 'bonding conductor'], tools: [TORQUE] },
  'larger-box': { parts: ['larger old-work box or extension'] },
  'box-extender': { parts: ['listed box extender'] },
  'fit-cover': { parts: ['cover plate'] },
  'fit-alarms': { parts: ['interconnected smoke and CO alarm'] },
  'fit-surge': { parts: ['surge protector'], tools: [TORQUE] },
  'replace-panel': {
    parts: ['panel with main and breakers', 'connectors and bushings'],
    tools: [TORQUE],
  },
}
/** What no truck leaves without. */
const ALWAYS = ['lock and tag', PROVE, 'camera', 'wire gauge']

/** What has to be on the truck for these works: parts counted, runs in feet, tools once. */
export function pickList(works: readonly PlannedWork[]): {
  readonly parts: readonly PickLine[]
  readonly tools: readonly string[]
  /** Works without a kit: what they take stands in their steps. */
  readonly unlisted: readonly PlannedWork[]
} {
  const parts = new Map<string, PickLine>()
  const add = (what: string, count: number, unit: PickLine['unit'] = 'pc') => {
    if (count <= 0) return
    parts.set(what, { what, count: (parts.get(what)?.count ?? 0) + count, unit })
  }
  const tools = new Set(ALWAYS)
  const unlisted: PlannedWork[] = []
  for (const work of works) {
    const kit = KITS[work.remedy.id]
    if (!kit) unlisted.push(work)
    const places = breakersOf(work)
    const isDual = work.changes.some(
      c => c.act === 'note' && c.field === 'protection' && c.value === 'dual',
    )
    for (const named of kit?.parts ?? []) {
      const part = isDual && named === PLAIN ? COMBINED : named
      add(part, /breaker listed/.test(part) ? places : 1)
    }
    if (kit?.run) add(runWords(kit.run, work), work.runFt ?? UNMEASURED_FT, 'ft')
    for (const tool of kit?.tools ?? []) tools.add(tool)
    const labels = marksOf(work.changes)
    add('label “No Equipment Ground”', labels.noGround)
    add('label “GFCI Protected”', labels.gfci)
    const devices = new Set(
      work.changes.flatMap(c =>
        c.act === 'note' && c.field === 'isTamperResistant' ? c.subject : [],
      ),
    )
    add('pigtails and connectors for a device', devices.size, 'set')
  }
  return {
    parts: [...parts.values()].sort((a, b) => a.what.localeCompare(b.what, 'en')),
    tools: [...tools],
    unlisted,
  }
}

const breakersOf = (work: PlannedWork): number =>
  Math.max(
    1,
    new Set(
      work.changes.flatMap(c => (c.act === 'note' && c.field === 'protection' ? c.subject : [])),
    ).size,
  )
/** What is pulled, with its size where that is known. 250.122, 250.130(C). */
function runWords(run: NonNullable<Kit['run']>, work: PlannedWork): string {
  const last = work.changes.findLast(c => c.act === 'note' && c.field === 'size')
  const size =
    run === 'grounding conductor'
      ? work.amps === undefined
        ? undefined
        : equipmentGroundSize(work.amps, 'copper')
      : last?.act === 'note'
        ? String(last.value)
        : undefined
  const words = {
    cable: 'cable with ground',
    feeder: 'four-wire feeder cable',
    'grounding conductor': 'grounding conductor, green or bare',
  }[run]
  return size === undefined ? `${words}, size by the device ahead` : `${size} AWG ${words}`
}

/** Labels the works put on outlets. 406.4(D)(2). */
export function marksOf(changes: readonly Change[]): { noGround: number; gfci: number } {
  const at = (field: string) =>
    new Set(
      changes.flatMap(c =>
        c.act === 'note' && c.field === field && c.value === true ? c.subject : [],
      ),
    ).size
  return { noGround: at('isMarkedNoGround'), gfci: at('isMarkedGfci') }
}
