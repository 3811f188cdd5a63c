/**
 * The calculators on their own: each with its input checked by one schema, for the Bench place and
 * the command line alike.
 */
import { z } from 'zod'
import { diagnose } from '../diagnosis/outlet'
import { refereeDevice } from '../diagnosis/referee'
import { LAMPS, type Readings, type Setting } from '../diagnosis/states'
import { commonCausesOf, jointOf, originsOf, type ChainOutlet } from '../diagnosis/chain'
import { dropOf, groundFaultAmps } from '../diagnosis/drop'
import { heatOf } from '../diagnosis/heat'
import { identify } from '../diagnosis/identify'
import { dwellingLoad, HEATING_KINDS } from '../tables/dwelling-load'
import { EDITIONS } from '../tables/editions'
import { allowedDevice, isTabled, sizeName } from '../tables/allowed-device'
import { SIZES } from '../tables/ampacity'
import { BOX_VOLUME, boxFill, CONDUCTOR_VOLUME, type BoxKind } from '../tables/box-fill'
import { longestTripSeconds, TRIP_MA, tripBand } from '../tables/protective-devices'
import { resistance } from '../tables/resistance'
import { DEPTH_IN, HEIGHT_IN, WIDTH_IN } from '../tables/working-space'
import { planRounds, readRounds } from '../trace/rounds'
import { render } from '../engine/say'
import { upcastFacts } from '../file/upcast'
import { valuesOf } from '../derive/allowed'

export interface Calculator<I = unknown> {
  readonly id: string
  readonly title: string
  readonly input: z.ZodType<I>
  readonly example: unknown
  run(input: I): unknown
}
const calculator = <S extends z.ZodType>(
  id: string,
  title: string,
  input: S,
  example: z.input<S>,
  run: (input: z.output<S>) => unknown,
): Calculator => ({
  id,
  title,
  input: z.preprocess(raw => upcastFacts(raw), input) as z.ZodType,
  example,
  run: run as (i: unknown) => unknown,
})

const size = z.enum(SIZES)
const edition = z.literal([...EDITIONS]).default(2023)
const metal = z.enum([
  'copper',
  'tinned copper',
  'aluminum',
  'copper-clad aluminum',
  'silver-looking',
  'copper-looking',
])
const amps = z.number().min(0).max(10000)
const volts = z.number().min(0).max(1000)
const color = z.enum(['copper color', 'silver color'])
const ampacity = calculator(
  'ampacity',
  'Ampacity and largest breaker',
  z.strictObject({
    size,
    metal: metal.optional(),
    wiring: z
      .enum(['NM-B', 'NM', 'cloth NM', 'UF', 'knob-and-tube', 'raceway', 'SE', 'MC'])
      .optional(),
    insulationC: z.literal([60, 75, 90]).optional(),
    terminalsC: z.literal([60, 75]).optional(),
    isInInsulation: z.boolean().optional(),
    ambientC: z.number().min(-40).max(85).default(30),
    currentCarrying: z.number().int().min(1).max(60).default(3),
    feedsSeveralReceptacles: z.boolean().optional(),
    carriesWholeDwelling: z.boolean().default(false),
    breakerAmps: amps.optional(),
    edition,
  }),
  {
    size: '12',
    metal: 'copper',
    wiring: 'NM-B',
    ambientC: 50,
    feedsSeveralReceptacles: true,
    breakerAmps: 20,
  },
  i => {
    const values = valuesOf(i, i.edition)
    const facets = {
      metal: values.metals,
      insulation: values.insulations,
      terminals: values.terminals,
      capped: values.caps,
      several:
        i.feedsSeveralReceptacles === undefined ? [true, false] : [i.feedsSeveralReceptacles],
    }
    if (!facets.metal.some(m => isTabled(i.size, m, i.edition)))
      return {
        ampacity: null,
        allowed: null,
        isDecided: false,
        lookAt: ['size', 'metal'],
        ...(i.breakerAmps !== undefined && { breaker: 'undecided' }),
        working: [
          `${sizeName(i.size)} ${i.metal} is not in the table: gauge it again, and look at a cut end`,
        ],
      }
    const all = facets.metal.flatMap(m =>
      facets.insulation.flatMap(insulation =>
        facets.terminals.flatMap(terminals =>
          facets.capped.flatMap(isCappedAt60 =>
            facets.several.map(feedsSeveralReceptacles => ({
              under: {
                metal: m.isCopperClad ? 'copper-clad aluminum' : m.metal,
                insulation,
                terminals,
                isCappedAt60,
                feedsSeveralReceptacles,
              },
              sum: allowedDevice(
                {
                  size: i.size,
                  ...m,
                  insulation,
                  terminals,
                  isCappedAt60,
                  ambientC: i.ambientC,
                  currentCarrying: i.currentCarrying,
                  feedsSeveralReceptacles,
                  carriesWholeDwelling: i.carriesWholeDwelling,
                },
                i.edition,
              ),
            })),
          ),
        ),
      ),
    )
    const low = all.reduce((a, b) => (b.sum.allowed < a.sum.allowed ? b : a))
    const high = all.reduce((a, b) => (b.sum.allowed > a.sum.allowed ? b : a))
    const open = (Object.keys(low.under) as (keyof typeof low.under)[]).filter(
      k =>
        new Set(all.map(x => x.under[k])).size > 1 &&
        all.some(a =>
          all.some(
            b =>
              a.sum.allowed !== b.sum.allowed &&
              (Object.keys(a.under) as (keyof typeof a.under)[]).every(
                o => o === k || a.under[o] === b.under[o],
              ),
          ),
        ),
    )
    const verdict =
      i.breakerAmps === undefined
        ? undefined
        : i.breakerAmps <= low.sum.allowed
          ? 'clear'
          : i.breakerAmps <= high.sum.allowed
            ? 'undecided'
            : 'fault'
    return {
      ampacity: [low.sum.ampacity, high.sum.ampacity],
      allowed: [low.sum.allowed, high.sum.allowed],
      isDecided: low.sum.allowed === high.sum.allowed,
      lookAt: open,
      ...(verdict && { breaker: verdict }),
      working: low.sum.working.map(w => render(w)),
      ...(low.sum.allowed !== high.sum.allowed && {
        workingAtBest: high.sum.working.map(w => render(w)),
      }),
    }
  },
)

const fillSize = z.enum(Object.keys(CONDUCTOR_VOLUME) as [keyof typeof CONDUCTOR_VOLUME])
const some = z.number().int().min(0).max(60)
const boxfill = calculator(
  'boxfill',
  'Box fill',
  z
    .strictObject({
      volumeIn3: z.number().positive().max(500).optional(),
      box: z.enum(Object.keys(BOX_VOLUME) as [BoxKind]).optional(),
      conductors: z.array(z.strictObject({ size: fillSize, count: some })).max(12),
      through: z
        .array(z.strictObject({ size: fillSize, count: some, looped: z.boolean().optional() }))
        .max(12)
        .optional(),
      hasInternalClamps: z.boolean().default(false),
      supportFittings: some.default(0),
      devices: z
        .array(
          z.strictObject({ largest: fillSize, gangs: z.number().int().min(1).max(6).optional() }),
        )
        .max(8)
        .default([]),
      grounds: z.strictObject({ size: fillSize, count: some }).optional(),
      edition,
    })
    .refine(i => i.volumeIn3 !== undefined || i.box !== undefined, {
      message: 'a marked volume (volumeIn3) or a box of the table (box)',
      path: ['volumeIn3'],
    }),
  {
    box: 'device 3 x 2 x 3-1/2',
    conductors: [{ size: '12', count: 4 }],
    hasInternalClamps: true,
    devices: [{ largest: '12' }],
    grounds: { size: '12', count: 2 },
  },
  ({ volumeIn3, box, edition: e, ...contents }) =>
    boxFill(contents, volumeIn3 ?? BOX_VOLUME[box!], e),
)

const ReadingsInput = z
  .strictObject({
    hotNeutral: volts,
    hotGround: volts,
    neutralGround: volts,
    groundEarth: volts,
    narrowEarth: volts,
    dropPercent: z.number().min(0).max(100),
    neutralGroundLoaded: volts,
    groundOhms: z.number().min(0).max(1e9),
    lamps: z.enum(LAMPS),
    detectorOnGround: z.boolean(),
    groundClampAmps: amps,
    otherHalf: volts,
    panelLegNeutral: volts,
    panelOtherLegNeutral: volts,
    electrodeAmps: amps,
    jumperSeen: z.boolean(),
  })
  .partial()
const SettingInput = z
  .strictObject({
    meter: z.enum(['high', 'low']),
    loadsOn: z.boolean(),
    runFt: z.number().min(0).max(2000),
    testAmps: z.number().positive().max(40),
    size: z.enum(['14', '12', '10', '8']),
  })
  .partial()
const diagnosis = calculator(
  'diagnose',
  'What the readings say',
  z
    .strictObject({
      readings: ReadingsInput.optional(),
      setting: SettingInput.default({}),
      outlets: z
        .array(
          z.strictObject({
            id: z.string().min(1).max(80),
            after: z.string().max(80).optional(),
            circuit: z.string().min(1).max(80).optional(),
            readings: ReadingsInput,
            setting: SettingInput.default({}),
          }),
        )
        .max(400)
        .optional(),
      deviceTest: z
        .strictObject({
          what: z.enum(['GFCI', 'AFCI']),
          by: z.enum(['own button', 'plug-in tester', 'indicator light']),
          trips: z.boolean(),
          isGroundProved: z.boolean().optional(),
          isOutletDead: z.boolean().optional(),
          isPowered: z.boolean().optional(),
          at: z.enum(['outlet', 'breaker']).optional(),
        })
        .optional(),
    })
    .refine(i => i.readings ?? i.outlets ?? i.deviceTest, {
      message: 'readings, outlets or a deviceTest',
      path: ['readings'],
    }),
  {
    readings: {
      hotNeutral: 121,
      hotGround: 121,
      neutralGround: 0,
      neutralGroundLoaded: 0,
      dropPercent: 3.4,
      lamps: 'correct',
    },
    setting: { meter: 'low', runFt: 70, testAmps: 13 },
  },
  i => {
    const tidy = (d: ReturnType<typeof diagnose>) => ({
      ...d,
      answer: d.answer ?? null,
      next: d.next ?? null,
      states: d.states.map(s => ({
        ...s,
        fit: Number(s.fit.toPrecision(3)),
        share: Math.round(s.share * 1000) / 1000,
      })),
    })
    const whole = (r: Readings, s: Setting) => ({
      ...tidy(diagnose(r, s)),
      drop: dropOf(r, s) ?? null,
      groundFaultAmps: groundFaultAmps(r) ?? null,
    })
    const each = i.outlets?.map(o => ({
      id: o.id,
      after: o.after,
      ...(o.circuit && { circuit: o.circuit }),
      diagnosis: whole(o.readings, o.setting),
    }))
    const chain = i.outlets?.map((o, k): ChainOutlet => {
      const { states, fitting, answer } = each![k]!.diagnosis
      // What leads where several fit: the likeliest of them. Where nothing was read or explained, nothing does.
      const isRead = Object.keys(o.readings).length > 0
      const leading = answer ?? (isRead ? states.find(s => fitting.includes(s.state))?.state : null)
      return {
        id: o.id,
        after: o.after,
        ...(o.circuit && { circuit: o.circuit }),
        ...(leading && { state: leading, fitting }),
        readings: o.readings,
        setting: o.setting,
      }
    })
    return {
      ...(i.readings && whole(i.readings, i.setting)),
      ...(each && {
        outlets: each,
        origins: originsOf(chain!),
        commonCauses: commonCausesOf(chain!),
        joint: jointOf(chain!) ?? null,
      }),
      ...(i.deviceTest && { deviceTest: refereeDevice(i.deviceTest) }),
    }
  },
)

const identification = calculator(
  'identify',
  'Which metal, which size',
  z
    .strictObject({
      surface: color,
      core: color,
      legend: z.enum(['CU', 'AL', 'CU-CLAD']),
      isSoft: z.boolean(),
      insulation: z.enum(['rubber or cloth', 'plastic']),
      year: z.number().int().min(1870).max(2100),
      bareMm: z.number().min(0.3).max(20),
      size,
    })
    .partial(),
  { surface: 'copper color', core: 'silver color', year: 1972, bareMm: 2.59 },
  i => ({ ...identify(i), metal: identify(i).metal ?? null, size: identify(i).size ?? null }),
)

const trace = calculator(
  'trace',
  'Which breaker feeds what, in the fewest trips',
  z.strictObject({
    breakers: z
      .array(z.strictObject({ id: z.string().min(1).max(80), mustStayOn: z.boolean().optional() }))
      .min(1)
      .max(200)
      .refine(list => new Set(list.map(b => b.id)).size === list.length, 'each id once'),
    seen: z
      .record(z.string().max(80), z.array(z.enum(['live', 'dead']).nullable()).max(12))
      .optional(),
  }),
  {
    breakers: [{ id: '1' }, { id: '3' }, { id: '5' }, { id: '7', mustStayOn: true }],
    seen: { hall: ['dead', 'live', 'dead'] },
  },
  i => {
    const plan = planRounds(i.breakers)
    return {
      plan,
      ...(i.seen && {
        outlets: readRounds(
          plan,
          Object.fromEntries(
            Object.entries(i.seen).map(([k, v]) => [k, v.map(x => x ?? undefined)]),
          ),
        ),
      }),
    }
  },
)

const heat = calculator(
  'heat',
  'Heat at breakers',
  z.strictObject({
    ambientC: z.number().min(-40).max(80),
    scans: z
      .array(
        z.strictObject({
          id: z.string().min(1).max(80),
          temperatureC: z.number().min(-40).max(400),
          ratingAmps: z.number().positive().max(1200),
          loadAmps: amps.optional(),
          isElectronic: z.boolean().default(false),
        }),
      )
      .min(1)
      .max(84),
  }),
  {
    ambientC: 29,
    scans: [
      { id: '7', temperatureC: 55, ratingAmps: 30, loadAmps: 16 },
      { id: '9', temperatureC: 32, ratingAmps: 20 },
    ],
  },
  i => heatOf(i.scans, i.ambientC),
)

const gfciTime = calculator(
  'gfci-time',
  'Trip time of a ground-fault device',
  z.strictObject({
    milliamperes: z.number().positive().max(100000),
    measuredSeconds: z.number().min(0).max(1000).optional(),
  }),
  { milliamperes: 30, measuredSeconds: 0.4 },
  i => {
    const most = longestTripSeconds(i.milliamperes)
    return {
      mustTrip: i.milliamperes >= TRIP_MA,
      longestSeconds: most === undefined ? null : Math.round(most * 1000) / 1000,
      ...(i.measuredSeconds !== undefined &&
        most !== undefined && { verdict: i.measuredSeconds <= most ? 'within' : 'too slow' }),
      working: [
        most === undefined
          ? `under ${TRIP_MA} mA it need not open`
          : `t = (20 / ${i.milliamperes})^1.43 = ${most.toFixed(3)} s`,
      ],
    }
  },
)

const drop = calculator(
  'voltage-drop',
  'Voltage drop of a run',
  z.strictObject({
    size,
    metal: z.enum(['copper', 'aluminum']),
    lengthFt: z.number().positive().max(5000),
    amps,
    volts: z.number().positive().max(600).default(120),
    celsius: z.number().min(-40).max(120).default(75),
  }),
  { size: '12', metal: 'copper', lengthFt: 100, amps: 15 },
  i => {
    const one = resistance(i.size, i.metal, i.lengthFt, i.celsius)
    if (one === undefined)
      return { ohms: null, working: [`${i.size} ${i.metal} is not in the table`] }
    const lost = 2 * one * i.amps
    const round = (x: number, n: number) => Math.round(x * 10 ** n) / 10 ** n
    return {
      ohms: round(2 * one, 4),
      lostVolts: round(lost, 2),
      percent: round((100 * lost) / i.volts, 2),
      faultAmps: Math.round(i.volts / (2 * one)),
      working: [
        `${i.lengthFt} ft out and back: 2 × ${round(one, 4)} Ω`,
        `${round(2 * one, 4)} Ω × ${i.amps} A = ${round(lost, 2)} V of ${i.volts} V`,
        '5 % or less is ordinary; more calls for finding the splice. No rule.',
      ],
    }
  },
)

const space = calculator(
  'working-space',
  'Working space',
  z.strictObject({
    depthIn: z.number().min(0).max(400),
    widthIn: z.number().min(0).max(400),
    heightIn: z.number().min(0).max(400),
    equipmentWidthIn: z.number().min(0).max(200).default(0),
  }),
  { depthIn: 36, widthIn: 34, heightIn: 80, equipmentWidthIn: 36 },
  i => {
    const wide = Math.max(WIDTH_IN, i.equipmentWidthIn)
    const lines = [
      ['depth', i.depthIn, DEPTH_IN],
      ['width', i.widthIn, wide],
      ['height', i.heightIn, HEIGHT_IN],
    ] as const
    return {
      verdict: lines.every(([, have, want]) => have >= want) ? 'clear' : 'fault',
      working: lines.map(
        ([what, have, want]) => `${what} ${have} in ${have >= want ? '≥' : '<'} ${want} in`,
      ),
      note: 'In existing dwellings service equipment and panels up to 200 A may have less height',
    }
  },
)

const trip = calculator(
  'trip-estimate',
  'What a breaker does at a current (an estimate, not a rule)',
  z.strictObject({ rating: z.number().positive().max(1200), amps: amps }),
  { rating: 20, amps: 40 },
  i => tripBand(i.rating, i.amps),
)

const va = z.number().min(0).max(200_000)
const dwelling = calculator(
  'dwelling-load',
  'Load of a dwelling (220.82, 220.83)',
  z.strictObject({
    method: z.enum(['220.82', '220.83']).default('220.83'),
    floorAreaFt2: z.number().positive().max(50_000),
    smallApplianceCircuits: z.number().int().min(2).max(20).default(2),
    laundryCircuits: z.number().int().min(0).max(10).default(1),
    appliances: z
      .array(z.strictObject({ what: z.string().min(1).max(80), va }))
      .max(60)
      .default([]),
    vehicleChargers: z.array(va).max(10).default([]),
    airConditioningVa: va.default(0),
    heating: z
      .strictObject({
        kind: z.enum(HEATING_KINDS),
        va,
        units: z.number().int().min(1).max(60).optional(),
        supplementaryVa: va.optional(),
      })
      .optional(),
    addsHeatingOrCooling: z.boolean().default(false),
    volts: z.union([z.literal(240), z.literal(208)]).default(240),
    serviceAmps: z.number().positive().max(1200).optional(),
    edition,
  }),
  {
    method: '220.83',
    floorAreaFt2: 1500,
    appliances: [
      { what: 'range', va: 12000 },
      { what: 'dryer', va: 5000 },
      { what: 'water heater', va: 4500 },
      { what: 'dishwasher', va: 1200 },
    ],
    airConditioningVa: 5000,
    addsHeatingOrCooling: true,
    serviceAmps: 100,
  },
  ({ volts, serviceAmps, ...loads }) => {
    const { lines, totalVa } = dwellingLoad(loads)
    const total = Math.round((10 * totalVa) / volts) / 10
    return {
      totalVa,
      amps: total,
      ...(serviceAmps !== undefined && { verdict: total <= serviceAmps ? 'within' : 'over' }),
      note: 'What is not listed counts as not there',
      working: [
        ...lines.map(l => `${l.what}: ${l.va} VA`),
        `${totalVa} VA at ${volts} V: ${total} A`,
      ],
    }
  },
)

/** In the order of the Bench. */
export const CALCULATORS: readonly Calculator[] = [
  ampacity,
  boxfill,
  diagnosis,
  identification,
  trace,
  heat,
  gfciTime,
  drop,
  dwelling,
  space,
  trip,
]
export const calculatorById = (id: string): Calculator | undefined =>
  CALCULATORS.find(s => s.id === id)
