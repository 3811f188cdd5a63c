/** Every rule, written out: a rule that is not in this list does not exist. Ids are never reused. */
import type { Rule } from '../engine/rule'
import { gfciMissing } from './outlets/gfci-missing'
import { afciMissing } from './outlets/afci-missing'
import { gfciFailed } from './outlets/gfci-failed'
import { gfciLineLoadReversed } from './outlets/gfci-line-load-reversed'
import { gfciNotReadilyAccessible } from './outlets/gfci-not-readily-accessible'
import { groundCarriedFromUngroundedGfci } from './outlets/ground-carried-from-ungrounded-gfci'
import { miswire } from './outlets/miswire'
import { tamperResistant } from './outlets/tamper-resistant'
import { weatherResistant } from './outlets/weather-resistant'
import { receptacleRating } from './outlets/receptacle-rating'
import { pushInMisuse } from './outlets/push-in-misuse'
import { boxTooFull } from './outlets/box-fill'
import { boxSetback } from './outlets/box-setback'
import { equipmentNeedsGround } from './outlets/equipment-needs-ground'
import { coverMissing } from './outlets/cover-missing'
import { spliceOutsideBox } from './outlets/splice-outside-box'
import { junctionBuried } from './outlets/junction-buried'
import { closetLuminaire } from './outlets/closet-luminaire'
import { disconnectNotInSight } from './circuits/disconnect-not-in-sight'
import { dedicatedCircuits } from './circuits/dedicated-circuits'
import { requiredOutlets } from './rooms/required-outlets'
import { smokeCoAlarms } from './rooms/smoke-co-alarms'
import { knobAndTube } from './conductors/knob-and-tube'
import { clothCable } from './conductors/cloth-cable'
import { threeWireDryerRange } from './circuits/three-wire-dryer-range'
import { overheatedSplice } from './outlets/overheated-splice'
import { luminaireSupplyTemperature } from './outlets/luminaire-supply-temperature'
import { requiredCircuitsAbsent } from './rooms/required-circuits-absent'
import { neutralRemarked } from './conductors/neutral-remarked'
import { mixedMetalSplice } from './outlets/mixed-metal-splice'
import { unidentifiedConductorMetal } from './conductors/unidentified-conductor-metal'
import { conductorWorkmanship } from './conductors/conductor-workmanship'
import { wrongTape } from './conductors/wrong-tape'
import { cableSupport } from './conductors/cable-support'
import { cordAsFixedWiring } from './conductors/cord-as-fixed-wiring'
import { applianceOvercurrent } from './circuits/appliance-overcurrent'
import { serviceConductor } from './service/service-conductor'
import { electrodeConductor } from './service/electrode-conductor'
import { detachedElectrodeMissing } from './service/detached-electrode-missing'
import { racewayBonding } from './service/raceway-bonding'
import { waterBond } from './service/water-bond'
import { gasBond } from './service/gas-bond'
import { csstBond } from './service/csst-bond'
import { intersystemTermination } from './service/intersystem-termination'
import { serviceOverSix } from './service/service-over-six'
import { surgeProtector } from './service/surge-protector'
import { serviceDrop } from './service/service-drop'
import { breakerHot } from './panels/breaker-hot'
import { multiwireNotGrouped } from './circuits/multiwire-not-grouped'
import { splitBus } from './panels/split-bus'
import { threePhasePanel } from './panels/three-phase-panel-on-single-phase'
import { tandemMisplaced } from './panels/tandem-misplaced'
import { spacesExceeded } from './panels/spaces-exceeded'
import { workingSpace } from './panels/working-space'
import { handleHeight } from './panels/handle-height'
import { aluminumAtUnmarkedBreaker } from './panels/aluminum-at-unmarked-breaker'
import { aluminumAtUnmarkedDevice } from './outlets/aluminum-at-unmarked-device'
import { cableUnprotectedAtEntry } from './conductors/cable-unprotected-at-entry'
import { hotOnUnmarkedWhite } from './conductors/hot-on-unmarked-white'
import { insulationFailed } from './conductors/insulation-failed'
import { nameplateMismatch } from './circuits/nameplate-mismatch'
import { overfusedConductor } from './conductors/overfused-conductor'
import { overfusedFeeder } from './conductors/overfused-feeder'
import { required20aCircuit } from './circuits/required-20A-circuit-downsized'
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
import { multiwireNoCommonTrip } from './circuits/multiwire-no-common-trip'
import { multiwireSameLeg } from './circuits/multiwire-same-leg'
import { neutralBondedDownstream } from './panels/neutral-bonded-downstream'
import { overheatedTermination } from './panels/overheated-termination'
import { panelNoProtective } from './panels/panel-no-protective-breakers'
import { panelTripRecord } from './panels/panel-trip-record'
import { threeWireFeeder } from './conductors/three-wire-feeder'
import { unusedOpening } from './panels/unused-opening'
import { bootlegGround } from './outlets/bootleg-ground'
import { deviceWorn } from './outlets/device-worn'
import { missingMarking } from './outlets/missing-marking'
import { openGroundThreeSlot } from './outlets/open-ground-three-slot'

export const RULES: readonly Rule[] = [
  overfusedConductor,
  overfusedFeeder,
  nameplateMismatch,
  required20aCircuit,
  aluminumAtUnmarkedDevice,
  aluminumAtUnmarkedBreaker,
  hotOnUnmarkedWhite,
  neutralRemarked,
  insulationFailed,
  cableUnprotectedAtEntry,
  mixedMetalSplice,
  unidentifiedConductorMetal,
  conductorWorkmanship,
  wrongTape,
  cableSupport,
  cordAsFixedWiring,
  applianceOvercurrent,
  serviceConductor,
  mainBondMissing,
  neutralBondedDownstream,
  threeWireFeeder,
  doubledNeutral,
  doubledHot,
  multiwireNoCommonTrip,
  multiwireSameLeg,
  busOverloaded,
  breakerNotListed,
  overheatedTermination,
  deadFrontMissing,
  coverScrews,
  unusedOpening,
  directory,
  panelTripRecord,
  panelNoProtective,
  panelLocation,
  corrosionDebris,
  breakerHot,
  multiwireNotGrouped,
  splitBus,
  threePhasePanel,
  tandemMisplaced,
  spacesExceeded,
  workingSpace,
  handleHeight,
  electrodeConductor,
  detachedElectrodeMissing,
  racewayBonding,
  waterBond,
  gasBond,
  csstBond,
  intersystemTermination,
  serviceOverSix,
  surgeProtector,
  serviceDrop,
  openGroundThreeSlot,
  missingMarking,
  bootlegGround,
  deviceWorn,
  overheatedSplice,
  luminaireSupplyTemperature,
  requiredCircuitsAbsent,
  gfciMissing,
  afciMissing,
  gfciFailed,
  gfciLineLoadReversed,
  gfciNotReadilyAccessible,
  groundCarriedFromUngroundedGfci,
  miswire,
  tamperResistant,
  weatherResistant,
  receptacleRating,
  pushInMisuse,
  boxTooFull,
  boxSetback,
  equipmentNeedsGround,
  coverMissing,
  spliceOutsideBox,
  junctionBuried,
  closetLuminaire,
  disconnectNotInSight,
  dedicatedCircuits,
  requiredOutlets,
  smokeCoAlarms,
  knobAndTube,
  clothCable,
  threeWireDryerRange,
]

export const ruleById = (id: string): Rule | undefined => RULES.find(r => r.id === id)
