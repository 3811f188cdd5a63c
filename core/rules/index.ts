/** Every rule, written out: a rule that is not in this list does not exist. Ids are never reused. */
import type { Rule } from '../engine/rule'
import { OUTLET_LOOK_UPS } from './outlets/look-ups'
import { CONDUCTOR_LOOK_UPS } from './conductors/look-ups'
import { PANEL_LOOK_UPS } from './panels/look-ups'
import { SERVICE_LOOK_UPS } from './service/look-ups'
import { ROOM_LOOK_UPS } from './rooms/look-ups'
import { CIRCUIT_LOOK_UPS } from './circuits/look-ups'
import { gfciMissing } from './outlets/gfci-missing'
import { afciMissing } from './outlets/afci-missing'
import { groundCarriedFromUngroundedGfci } from './outlets/ground-carried-from-ungrounded-gfci'
import { miswire } from './outlets/miswire'
import { tamperResistant } from './outlets/tamper-resistant'
import { receptacleRating } from './outlets/receptacle-rating'
import { pushInMisuse } from './outlets/push-in-misuse'
import { boxTooFull } from './outlets/box-fill'
import { boxSetback } from './outlets/box-setback'
import { metalUngrounded } from './outlets/metal-ungrounded'
import { equipmentNeedsGround } from './outlets/equipment-needs-ground'
import { spliceOutsideBox } from './outlets/splice-outside-box'
import { closetLuminaire } from './outlets/closet-luminaire'
import { dedicatedCircuits } from './circuits/dedicated-circuits'
import { requiredOutlets } from './rooms/required-outlets'
import { knobAndTube } from './conductors/knob-and-tube'
import { clothCable } from './conductors/cloth-cable'
import { threeWireDryerRange } from './circuits/three-wire-dryer-range'
import { overheatedSplice } from './outlets/overheated-splice'
import { luminaireSupplyTemperature } from './outlets/luminaire-supply-temperature'
import { requiredCircuitsAbsent } from './rooms/required-circuits-absent'
import { neutralRemarked } from './conductors/neutral-remarked'
import { mixedMetalSplice } from './outlets/mixed-metal-splice'
import { unidentifiedConductorMetal } from './conductors/unidentified-conductor-metal'
import { cableSupport } from './conductors/cable-support'
import { loadOverCircuit } from './circuits/load-over-circuit'
import { applianceOvercurrent } from './circuits/appliance-overcurrent'
import { branchGroundSize } from './conductors/branch-ground-size'
import { feederGroundSize } from './conductors/feeder-ground-size'
import { bondUnsound } from './service/bond-unsound'
import { bondingJumperSize } from './service/bonding-jumper-size'
import { serviceConductor } from './service/service-conductor'
import { electrodeConductor } from './service/electrode-conductor'
import { detachedElectrodeMissing } from './service/detached-electrode-missing'
import { racewayBonding } from './service/raceway-bonding'
import { waterBond } from './service/water-bond'
import { gasBond } from './service/gas-bond'
import { csstBond } from './service/csst-bond'
import { serviceLoad } from './service/service-load'
import { serviceNeutral } from './service/service-neutral'
import { serviceOverSix } from './service/service-over-six'
import { surgeProtector } from './service/surge-protector'
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
import { nameplateMismatch } from './circuits/nameplate-mismatch'
import { overfusedConductor } from './conductors/overfused-conductor'
import { overfusedFeeder } from './conductors/overfused-feeder'
import { required20aCircuit } from './circuits/required-20A-circuit-downsized'
import { busOverloaded } from './panels/bus-overloaded'
import { directory } from './panels/directory'
import { doubledHot } from './panels/doubled-hot'
import { doubledNeutral } from './panels/doubled-neutral'
import { mainBondMissing } from './panels/main-bond-missing'
import { multiwireNoCommonTrip } from './circuits/multiwire-no-common-trip'
import { multiwireSameLeg } from './circuits/multiwire-same-leg'
import { neutralBondedDownstream } from './panels/neutral-bonded-downstream'
import { overheatedTermination } from './panels/overheated-termination'
import { threeWireFeeder } from './conductors/three-wire-feeder'
import { unusedOpening } from './panels/unused-opening'
import { bootlegGround } from './outlets/bootleg-ground'
import { missingMarking } from './outlets/missing-marking'
import { voltageDrop } from './outlets/voltage-drop'
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
  cableUnprotectedAtEntry,
  mixedMetalSplice,
  unidentifiedConductorMetal,
  cableSupport,
  applianceOvercurrent,
  loadOverCircuit,
  serviceConductor,
  mainBondMissing,
  neutralBondedDownstream,
  threeWireFeeder,
  doubledNeutral,
  doubledHot,
  multiwireNoCommonTrip,
  multiwireSameLeg,
  busOverloaded,
  overheatedTermination,
  unusedOpening,
  directory,
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
  bondingJumperSize,
  feederGroundSize,
  branchGroundSize,
  waterBond,
  bondUnsound,
  gasBond,
  csstBond,
  serviceOverSix,
  serviceLoad,
  serviceNeutral,
  surgeProtector,
  openGroundThreeSlot,
  missingMarking,
  voltageDrop,
  bootlegGround,
  overheatedSplice,
  luminaireSupplyTemperature,
  requiredCircuitsAbsent,
  gfciMissing,
  afciMissing,
  groundCarriedFromUngroundedGfci,
  miswire,
  tamperResistant,
  receptacleRating,
  pushInMisuse,
  boxTooFull,
  boxSetback,
  equipmentNeedsGround,
  metalUngrounded,
  spliceOutsideBox,
  closetLuminaire,
  dedicatedCircuits,
  requiredOutlets,
  knobAndTube,
  clothCable,
  threeWireDryerRange,
  ...OUTLET_LOOK_UPS,
  ...CONDUCTOR_LOOK_UPS,
  ...PANEL_LOOK_UPS,
  ...SERVICE_LOOK_UPS,
  ...ROOM_LOOK_UPS,
  ...CIRCUIT_LOOK_UPS,
]

export const ruleById = (id: string): Rule | undefined => RULES.find(r => r.id === id)
