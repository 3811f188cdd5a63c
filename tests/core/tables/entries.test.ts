import { readFileSync, writeFileSync } from 'node:fs'
import { allowedDevice, sizeName } from '#core/tables/allowed-device'
import * as ampacity from '#core/tables/ampacity'
import * as boxFill from '#core/tables/box-fill'
import * as diameter from '#core/tables/diameter'
import * as editions from '#core/tables/editions'
import * as grounding from '#core/tables/grounding'
import * as protectionYears from '#core/tables/protection-years'
import * as devices from '#core/tables/protective-devices'
import { resistance } from '#core/tables/resistance'
import * as workingSpace from '#core/tables/working-space'
import * as years from '#core/tables/years'
import { sumOf } from '../../support/sum'

/**
 * Every entry of every table, written out in entries.json, so that it can be held beside the code book line by line,
 * and a number that slips is noticed wherever it stands. After a change that is meant, CORVIT_ANSWERS=1 writes the
 * file anew, and the difference is read before it is kept.
 */
const FILE = 'tests/core/tables/entries.json'

const { SIZES } = ampacity
const METALS = ['copper', 'aluminum'] as const
const COLUMNS = [60, 75, 90] as const
const { EDITIONS } = editions
/** A line for each of some values. */
const each = <T extends string | number>(values: readonly T[], of: (value: T) => unknown) =>
  Object.fromEntries(values.map(v => [String(v), of(v)]))
/** The values at which a function of whole numbers changes, with what it changes to. */
function steps(from: number, to: number, of: (value: number) => unknown) {
  const found: Record<string, unknown> = {}
  let before: string | undefined
  for (let v = from; v <= to; v++) {
    const value = JSON.stringify(of(v)) ?? 'none'
    if (value !== before) found[String(v)] = of(v) ?? 'none'
    before = value
  }
  return found
}
const constantsOf = (module: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(module).filter(([, v]) => typeof v !== 'function'))

const plain = (size: ampacity.Size, more: Partial<Parameters<typeof allowedDevice>[0]>) => {
  const {
    allowed,
    ampacity: amps,
    working,
  } = allowedDevice(
    {
      size,
      metal: 'copper',
      isCopperClad: false,
      insulation: 90,
      terminals: 75,
      isCappedAt60: false,
      ambientC: 30,
      currentCarrying: 3,
      feedsSeveralReceptacles: false,
      carriesWholeDwelling: false,
      ...more,
    },
    2020,
  )
  return [allowed, amps, working.length]
}

/** Every way a conductor of one size can be used, with what may stand ahead of it and the sum on paper. */
function gridOf(size: ampacity.Size, metal: 'copper' | 'aluminum'): string[] {
  const lines: string[] = []
  const around = [
    [30, 3],
    [31, 3],
    [30, 4],
    [41, 10],
  ] as const
  for (const insulation of COLUMNS)
    for (const terminals of [60, 75] as const)
      for (let flags = 0; flags < 32; flags++)
        for (const [ambientC, currentCarrying] of around)
          for (const edition of [2008, 2014, 2017, 2020, 2023] as const) {
            const run = {
              size,
              metal,
              insulation,
              terminals,
              ambientC,
              currentCarrying,
              isCopperClad: (flags & 1) > 0,
              isCappedAt60: (flags & 2) > 0,
              feedsSeveralReceptacles: (flags & 4) > 0,
              carriesWholeDwelling: (flags & 8) > 0,
              isExemptFromSmallLimit: (flags & 16) > 0,
            }
            lines.push(JSON.stringify(allowedDevice(run, edition)))
          }
  return lines
}

const TABLES: Record<string, () => unknown> = {
  ampacity: () => ({
    table: each(METALS, metal =>
      each(SIZES, size =>
        EDITIONS.map(e =>
          COLUMNS.map(c => ampacity.tableAmpacity(size, metal, c, e) ?? null).join(' '),
        ).join(' | '),
      ),
    ),
    small: each(SIZES.slice(0, 6), size =>
      METALS.map(m =>
        EDITIONS.map(e => ampacity.smallConductorLimit(size, m, e) ?? null).join(' '),
      ),
    ),
    ambient: each(COLUMNS, c => steps(-20, 90, t => ampacity.ambientFactor(t, c))),
    bundling: steps(1, 60, n => ampacity.bundlingFactor(n)),
    ratings: each(EDITIONS, e => ampacity.standardRatings(e).join(' ')),
    wholeDwelling: each(METALS, m => each(SIZES, s => ampacity.wholeDwellingRating(s, m) ?? null)),
    sizes: SIZES.join(' '),
  }),
  'allowed-device': () => ({
    plain: each(SIZES, s =>
      METALS.map(metal =>
        COLUMNS.map(terminals => plain(s, { metal, terminals: terminals === 90 ? 75 : terminals })),
      ),
    ),
    hot: each(['14', '12', '6'] as const, s =>
      [31, 36, 41, 46, 51, 56, 61].map(ambientC => plain(s, { ambientC })),
    ),
    crowded: each(['14', '12', '6'] as const, s =>
      [3, 4, 7, 10, 21, 31, 41].map(n => plain(s, { currentCarrying: n })),
    ),
    capped: each(SIZES, s => plain(s, { isCappedAt60: true })),
    several: each(SIZES, s => plain(s, { feedsSeveralReceptacles: true })),
    whole: each(SIZES, s => METALS.map(metal => plain(s, { metal, carriesWholeDwelling: true }))),
    clad: each(SIZES.slice(0, 8), s => plain(s, { metal: 'aluminum', isCopperClad: true })),
    names: SIZES.map(sizeName).join(' '),
    sums: each(['14', '10', '6', '1', '250'], size =>
      METALS.map(metal => sumOf(gridOf(size, metal))),
    ),
  }),
  'box-fill': () => ({
    ...constantsOf(boxFill),
    counted: boxFill.boxFill(
      {
        conductors: [
          { size: '14', count: 3 },
          { size: '12', count: 2 },
        ],
        through: [
          { size: '10', count: 1 },
          { size: '8', count: 1, looped: true },
        ],
        hasInternalClamps: true,
        supportFittings: 1,
        devices: [{ largest: '12' }, { largest: '14', gangs: 2 }],
        grounds: { size: '12', count: 5 },
      },
      20,
      2020,
    ),
    grounds: [1, 4, 5, 6, 8, 9].map(count =>
      ([2017, 2020] as const).map(e =>
        boxFill.boxFill(
          { conductors: [{ size: '12', count: 2 }], grounds: { size: '12', count } },
          20,
          e,
        ),
      ),
    ),
    none: boxFill.boxFill(
      {
        conductors: [{ size: '14', count: 2 }],
        grounds: { size: '6', count: 0 },
        hasInternalClamps: true,
      },
      20,
      2020,
    ),
    one: boxFill.boxFill(
      {
        conductors: [{ size: '14', count: 2 }],
        grounds: { size: '6', count: 1 },
        hasInternalClamps: true,
      },
      20,
      2020,
    ),
    edge: [8.9, 9, 9.1].map(
      v => boxFill.boxFill({ conductors: [{ size: '12', count: 4 }] }, v, 2020).fits,
    ),
  }),
  diameter: () => ({
    bare: steps(-3, 20, n => Number(diameter.diameterMm(n).toFixed(4))),
    scanned: Array.from({ length: 380 }, (_, i) => -3.9 + i / 20).map(
      n => diameter.gaugeOf(diameter.diameterMm(n)).size ?? '-',
    ),
    gauged: each(
      [0.5, 1.02, 1.29, 1.62, 1.63, 1.8, 2.05, 2.3, 2.59, 3.26, 4.11, 5.19, 7.4, 9.3, 11.7],
      mm => ({
        number: Number(diameter.gaugeNumber(mm).toFixed(3)),
        ...diameter.gaugeOf(mm),
      }),
    ),
  }),
  editions: () => ({
    ...constantsOf(editions),
    forYear: steps(1960, 2030, editions.editionFor),
    between: each(EDITIONS, e =>
      editions.citeIn([{ section: 'a', from: 2014, until: 2017 }, { section: 'b' }], e),
    ),
    renumbered: each(EDITIONS, e =>
      [
        '406.3',
        '406.4(D)(3)',
        '406.9(B)(1)',
        '406.12',
        '406.40',
        '250.24(D)',
        '250.24(D)(1)',
        '210.8',
      ].map(x => editions.sectionIn(x, e)),
    ),
    cited: each(EDITIONS, e => editions.citeIn(editions.AMPACITY_TABLE, e)),
  }),
  grounding: () => ({
    ...constantsOf(grounding),
    equipment: each(METALS, m => steps(10, 450, a => grounding.equipmentGroundSize(a, m) ?? null)),
    electrode: each(METALS, service =>
      each(SIZES, s =>
        METALS.map(m =>
          ['rod', 'concrete-encased', 'water pipe', 'plate', 'ring', 'building steel']
            .map(type => grounding.electrodeConductorSize(s, service, m, type as never) ?? '-')
            .join(' '),
        ),
      ),
    ),
  }),
  'protection-years': () => ({
    ...constantsOf(protectionYears),
    gfci: each(protectionYears.PLACES, p => protectionYears.gfciRowsOf(p)),
    afci: each(protectionYears.PLACES, p =>
      ['receptacle', 'switch', 'luminaire', 'hard-wired outlet', 'alarm'].map(
        t => protectionYears.afciSince(p, t) ?? null,
      ),
    ),
    all: each(protectionYears.PLACES, p => protectionYears.requirementsOf(p).length),
    names: each(protectionYears.PLACES, protectionYears.placeName),
  }),
  'protective-devices': () => ({
    ...constantsOf(devices),
    seconds: each(
      [3, 4, 5, 6, 10, 30, 60, 100, 264, 500],
      ma => devices.longestTripSeconds(ma) ?? null,
    ),
    band: each([15, 20, 30, 31, 50, 51, 60, 100], rating =>
      [0.9, 1, 1.05, 1.1, 1.34, 1.35, 1.36, 2, 3, 4.9, 5, 5.1, 9.9, 10, 10.1, 20].map(x =>
        devices.tripBand(rating, rating * x),
      ),
    ),
  }),
  resistance: () =>
    each(METALS, m =>
      each(SIZES, s => [resistance(s, m, 100), ...[60, 75, 90].map(t => resistance(s, m, 100, t))]),
    ),
  'working-space': () => constantsOf(workingSpace),
  years: () => constantsOf(years),
}

const kept = JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, unknown>
const now: Record<string, unknown> = {}
describe('the entries of the tables', () => {
  afterAll(() => {
    if (process.env.CORVIT_ANSWERS === '1') writeFileSync(FILE, `${JSON.stringify(now, null, 1)}\n`)
  })
  it.each(Object.keys(TABLES))('%s', name => {
    now[name] = JSON.parse(JSON.stringify(TABLES[name]!()))
    if (process.env.CORVIT_ANSWERS !== '1') expect(kept[name]).toEqual(now[name])
  })
})
