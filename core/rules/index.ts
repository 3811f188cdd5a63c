/** Every rule, written out: a rule that is not in this list does not exist. Ids are never reused. */
import type { Rule } from '../engine/rule'
import { aluminiumAtUnmarkedBreaker } from './conductors/aluminium-at-unmarked-breaker'
import { aluminiumAtUnmarkedDevice } from './conductors/aluminium-at-unmarked-device'
import { cableUnprotectedAtEntry } from './conductors/cable-unprotected-at-entry'
import { hotOnUnmarkedWhite } from './conductors/hot-on-unmarked-white'
import { insulationFailed } from './conductors/insulation-failed'
import { nameplateMismatch } from './conductors/nameplate-mismatch'
import { overfusedConductor } from './conductors/overfused-conductor'
import { overfusedFeeder } from './conductors/overfused-feeder'
import { required20aCircuit } from './conductors/required-20A-circuit-downsized'
import { breakerNotListed } from './panels/breaker-not-listed-for-panel'
import { busOverloaded } from './panels/bus-overloaded'
import { corrosionDebris } from './panels/corrosion-debris'
import { coverScrews } from './panels/cover-screws'
import { deadFrontMissing } from './panels/dead-front-missing'
import { directory } from './panels/directory'
import { doubledHot } from './panels/doubled-hot'
import { doubledNeutral } from './panels/doubled-neutral'
import { panelLocation } from './panels/panel-location'
import { mainBondMissing } from './panels/main-bond-missing'
import { multiwireNoCommonTrip } from './panels/multiwire-no-common-trip'
import { multiwireSameLeg } from './panels/multiwire-same-leg'
import { neutralBondedDownstream } from './panels/neutral-bonded-downstream'
import { overheatedTermination } from './panels/overheated-termination'
import { panelNoProtective } from './panels/panel-no-protective-breakers'
import { panelTripRecord } from './panels/panel-trip-record'
import { threeWireFeeder } from './panels/three-wire-feeder'
import { unusedOpening } from './panels/unused-opening'
import { bootlegGround } from './points/bootleg-ground'
import { deviceWorn } from './points/device-worn'
import { missingMarking } from './points/missing-marking'
import { openGroundThreeSlot } from './points/open-ground-three-slot'

export const RULES: readonly Rule[] = [
  overfusedConductor, overfusedFeeder, nameplateMismatch, required20aCircuit, aluminiumAtUnmarkedDevice, aluminiumAtUnmarkedBreaker,
  hotOnUnmarkedWhite, insulationFailed, cableUnprotectedAtEntry,
  mainBondMissing, neutralBondedDownstream, threeWireFeeder, doubledNeutral, doubledHot,
  multiwireNoCommonTrip, multiwireSameLeg, busOverloaded, breakerNotListed, overheatedTermination,
  deadFrontMissing, coverScrews, unusedOpening, directory, panelTripRecord, panelNoProtective, panelLocation, corrosionDebris,
  openGroundThreeSlot, missingMarking, bootlegGround, deviceWorn,
]

export const ruleById = (id: string): Rule | undefined => RULES.find(r => r.id === id)
