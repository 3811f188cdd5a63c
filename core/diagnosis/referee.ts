import { groundFaultAmps } from './drop'
import type { Readings, Setting } from './states'

export interface Doubt {
  readonly reading: string
  readonly why: string
  readonly instead: string
}

/** Says when a reading proves nothing, and which would. */
export function doubtsOf(r: Readings, s: Setting = {}): Doubt[] {
  const doubts: Doubt[] = []
  const doubt = (reading: string, why: string, instead: string) =>
    doubts.push({ reading, why, instead })
  if (r.lamps === 'correct' && r.groundOhms === undefined && r.neutralGroundLoaded === undefined)
    doubt(
      'lamps',
      'Correct on a lamp tester proves no ground: a jumper from neutral to ground shows the same',
      'Ground impedance, or neutral to ground under load',
    )
  if (r.lamps === 'hot and ground reversed' && r.groundEarth === undefined)
    doubt(
      'lamps',
      'A neutral open with a load on shows the same, and is likelier',
      'Take every load off, or ground terminal to a proved reference',
    )
  if ((r.lamps === 'open ground' || (r.groundOhms ?? 0) > 1000) && r.narrowEarth === undefined)
    doubt(
      'lamps',
      'Without a ground nothing at the outlet tells hot from neutral',
      'Narrow slot to a proved reference on a long lead',
    )
  if (r.lamps === 'open ground')
    doubt(
      'lamps',
      'Open ground is said of a wire that is missing and of one that is loose',
      'Open the box, power proved off',
    )
  if (s.meter !== 'low') {
    for (const name of ['hotNeutral', 'hotGround', 'neutralGround', 'groundEarth'] as const) {
      const volts = r[name]
      if (volts !== undefined && volts > 4 && volts < 105)
        doubt(
          name,
          `${volts} V on a high-impedance meter may be a floating conductor`,
          'Low-impedance mode, or under load',
        )
    }
    if ((r.hotGround ?? 0) >= 105 && r.groundOhms === undefined)
      doubt(
        'hotGround',
        'Coupled voltage can come near line voltage on a high-impedance meter',
        'Low-impedance mode, or ground impedance',
      )
  }
  const shortAmps = groundFaultAmps(r)
  if (shortAmps !== undefined && (r.groundOhms ?? 0) > 1)
    doubt(
      'groundOhms',
      `Through ${r.groundOhms} Ω a dead fault to the frame draws ${shortAmps} A at most: the breaker may ` +
        'hold it for minutes, or never open',
      'Find the joint in the ground: impedance box by box, from the panel on',
    )
  if (r.jumperSeen === false && r.groundEarth === undefined && r.detectorOnGround === undefined)
    doubt(
      'jumperSeen',
      'No jumper in this box says nothing of the boxes ahead: a reversed supply with a jumper one box back reads ' +
        'correct, with the supply on every frame',
      'Ground terminal or narrow slot to a proved reference, or a non-contact detector on the ground',
    )
  if (r.neutralGround !== undefined && r.neutralGround < 0.2 && r.neutralGroundLoaded === undefined)
    doubt(
      'neutralGround',
      'No voltage without a load proves nothing',
      'Neutral to ground under a load of 12 A or more',
    )
  if (
    r.neutralGroundLoaded !== undefined &&
    r.neutralGroundLoaded < 0.25 &&
    (s.runFt === undefined || s.runFt < 25)
  )
    doubt(
      'neutralGroundLoaded',
      'Near the panel a good outlet looks like a bootleg',
      'Look in the box',
    )
  return doubts
}

export interface DeviceTest {
  readonly what: 'GFCI' | 'AFCI'
  readonly by: 'own button' | 'plug-in tester' | 'indicator light'
  readonly trips: boolean
  readonly isGroundProved?: boolean
  readonly isOutletDead?: boolean
  /** The device has power: line voltage at its line terminals, or its light is on. */
  readonly isPowered?: boolean
  /** Where the device is; a breaker of the wrong circuit trips and leaves the outlet live. */
  readonly at?: 'outlet' | 'breaker'
}
/** Whether a test of a protective device proves anything. */
export function refereeDevice(t: DeviceTest): { proves: boolean; why: string; instead?: string } {
  if (t.by === 'indicator light')
    return {
      proves: false,
      why: 'Lights mean different things on different makes: never evidence',
      instead: 'Its own button, then measure that the outlet is dead',
    }
  if (t.by === 'plug-in tester') {
    if (t.what === 'AFCI')
      return {
        proves: false,
        why: 'A hand tester for arc faults only indicates',
        instead: 'Its own button',
      }
    if (t.trips) return { proves: true, why: 'It opened on a current to ground' }
    return t.isGroundProved
      ? {
          proves: true,
          why: 'The ground is proved good and it did not open: failed, or not protected',
        }
      : {
          proves: false,
          why: 'A plug-in tester needs a ground to trip a good device',
          instead: 'Its own button',
        }
  }
  if (!t.trips) {
    if (t.isPowered === true)
      return { proves: true, why: 'It has power and did not trip by its own button: failed' }
    return {
      proves: false,
      why:
        t.isPowered === false
          ? 'Without power no button trips anything: the device is dead, tripped, or has its line on the load side'
          : 'A dead button proves nothing until the device is known to have power',
      instead: 'Measure line voltage at the device, restore power, and press again',
    }
  }
  return t.isOutletDead === undefined
    ? {
        proves: false,
        why: 'It tripped; whether the outlet went dead was not measured',
        instead: 'Measure with a load plugged in',
      }
    : {
        proves: true,
        why: t.isOutletDead
          ? 'It tripped and the outlet is dead'
          : t.at === 'breaker' || t.what === 'AFCI'
            ? 'It tripped and the outlet stays live: the outlet is on another circuit'
            : 'It tripped and the outlet stays live: line and load are swapped',
      }
}
