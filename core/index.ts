/** The only door to the core. */
export {
  FIELDS,
  JOB_STAGES,
  KINDS,
  KIND_LABEL,
  STAGES,
  PARENTS,
  VOICES,
  fieldOf,
} from './model/fields'
export type { AnyValue, Field, FieldName, Kind, Stage, Value, Year } from './model/fields'
export { GRADES, byClock, gradeRank, weaker, withClocks } from './model/observation'
export type { Grade, Observation, RawObservation, Noted, Added } from './model/observation'
export {
  CLOCK_SHAPE,
  clockAfter,
  clockOfInstant,
  HybridClock,
  MAX_AHEAD_MS,
  readClock,
  TOLD_SKEW_MS,
  writeClock,
} from './model/clock'
export { factAt, factsOf, PREMISES_ID, isKind, triedAt, valueOf } from './model/house'
export type { Fact, FactRef, House, Known, Opinion, Subject } from './model/house'
export { Ledger, sameValue, type Conflict } from './model/ledger'
export { convert, expects, valueSchema, ID, plainText } from './model/values'
export { asTyped, quantity, typedIn, US_UNITS, type Units } from './model/units'
export { Site } from './derive/site'
export { legsOf } from './derive/legs'
export { gfciOf, resetOf } from './derive/fault-protection'
export { groundOf } from './derive/ground'
export { roleOf } from './derive/service-role'
export { upstreamOf } from './derive/upstream'
export { neutralGroupOf } from './derive/neutrals'
export { neutralBondOf } from './derive/bond'
export { evaluate, judgeOne, Result } from './engine/evaluate'
export { Context } from './engine/context'
export { render, say } from './engine/say'
export { OUTCOMES, type Comparison, type Outcome, type Verdict } from './engine/verdict'
export { SEVERITIES, type Severity } from './engine/severity'
export { STANDINGS, type StandingKind } from './engine/standing'
export { defineRule, worstOf, type Rule } from './engine/rule'
export { RULES, ruleById } from './rules'
export { REMEDIES, remediesFor, remedyById, type Remedy } from './remedies'
export { groupAlike, type FindingGroup } from './views/groups'
export {
  assess,
  speak,
  totalsOf,
  type Assessment,
  type SpokenResult,
  type Totals,
} from './assess/assess'
export { compareIn, labelOf, lookFor, valueText, type Look } from './texts/labels'
export { readJob, readJobFile, type ReadFile } from './file/read'
export { writeHouse, writeLog } from './file/write'
export { firstObservations, type FirstFacts, type OwnFacts } from './file/first'
export { checkLinks, checkObservations, sift, type Refusal } from './file/check'
export { RENAMED_RULES, ruleNow, upcastObservation } from './file/upcast'
export { BOUNDS } from './file/bounds'
export {
  HouseFile,
  JobFile,
  LogFile,
  MAX_FILE_BYTES,
  ObservationSchema,
  ObservationShape,
} from './file/schema'
export { UnreadableFile, problemsOf, type Problem } from './file/problems'
export type { Stamper } from './file/from-house'
export { EDITIONS, editionFor, citeIn, sectionIn, type Edition } from './tables/editions'
export { SIZES, standardRatings, type Size } from './tables/ampacity'
export { allowedDevice } from './tables/allowed-device'
export { limitationsOf, CAUTIONS } from './texts/report'
export { looksOf, type OpenLook } from './views/looks'
export { observationsOf, withChanges, type Change as WorkChange } from './plan/change'
export {
  atBudget,
  bestWithin,
  dangerOf,
  frontierOf,
  type Bought,
  type Frontier,
  type FrontierPoint,
} from './plan/budget'
export {
  compare,
  consequencesOf,
  Judged,
  type Consequences,
  type FollowUp,
  type Turned,
} from './plan/consequences'
export type { GeneralSolver } from './plan/program'
export { cheapestCover, coverKey, partsOf, type Action, type Cover } from './plan/cover'
export { effectsOf } from './plan/effects'
export { findingKey, optionsFor, type NotAnOption, type Option } from './plan/options'
export { money, plainConsequences, plainPlan, whyOf } from './plan/plain'
export {
  chosenFindings,
  FIX_PRESETS,
  Planner,
  planHouse,
  type Chosen,
  type FindingRef,
  type FixPreset,
  type Plan,
  type PlanRequest,
  type PlanScope,
} from './plan/plan'
export {
  costOf,
  priceBookSchema,
  RUNS,
  SAMPLE_PRICES,
  type Cost,
  type PriceBook,
} from './plan/prices'
export { schoolById, SCHOOLS, type SchoolChoice, type SchoolQuestion } from './plan/schools'
export { AIMS, type Aim } from './plan/solve'
export type { Forbid, Lock } from './plan/gather'
export {
  acceptanceTests,
  builtFacts,
  passesTest,
  type AcceptanceTest,
  type BuiltFact,
  type Pass,
} from './plan/acceptance'
export { recordOf, type DoneRecord } from './plan/doing'
export { KITS, pickList, type PickLine } from './plan/materials'
export {
  changesOfWork,
  namesAfter,
  tasksInOrder,
  tasksOf,
  worksOf,
  type PlannedWork,
} from './plan/works'
export { editOf, editsOf, tellFindings, type Edit, type LeftOut } from './papers/edits'
export {
  differenceOf,
  differenceWords,
  houseAt,
  logLine,
  logSince,
  paperToSign,
  sealText,
  signingsOf,
  unsettledOf,
  type Difference,
  type ToSign,
  type SignedVoice,
  type Unsettled,
} from './papers/signing'
export {
  RECHECK_STATES,
  returnSheet,
  returnVisitsOf,
  sheetOf,
  visitsSideBySide,
  type Recheck,
  type RecheckState,
  type ReturnSheet,
} from './papers/rechecks'
export { appointmentsOf, nextDayOf, stageOf, type Appointment, type JobStage } from './record/stage'
export { conflictsIn, mergeLogs, type Clash, type MergeConflict, type Merged } from './record/merge'
export { bondLayout, TIE_DASH } from './drawings/bond-layout'
export { boxFillSvg } from './drawings/box-fill'
export { bondMapSvg } from './drawings/bond-map'
export { circuitTreeSvgs } from './drawings/circuit-tree'
export { panelFaceSvg, spaceAt, spacesOf } from './drawings/panel-face'
export {
  paperText,
  withinSentence,
  type Block,
  type FindingMark,
  type Label,
  type Paper,
} from './papers/paper'
export {
  labelsOf,
  passWords,
  planPaper,
  PLAN_PAPER_TITLES,
  PLAN_PAPERS,
  type PlanPaperId,
} from './papers/plan-papers'
export { REPORT_TITLES, REPORT_VOICES, reportPaper, type ReportVoice } from './papers/report-papers'
export { PAPERS, paperOf, type PaperId } from './papers/papers'
export { Work } from './plan/work'
export { findingsTable, panelSchedule } from './views/tables'
export { citesOf, findRules, ruleBook, type BookQuery, type RulePage } from './texts/rule-book'
export { understand, type Understood } from './understand/understand'
export type { Ask, Meaning } from './understand/reader'
export type { Where } from './understand/things'
export { normalize } from './understand/normalize'
export { parseLine, type Line, type Piece } from './shorthand/parse'
export { LiveAssessment, resultKey, type Change } from './live/live'
export { overlapsIn } from './derive/overlaps'
export {
  bondMapOf,
  isToTheSide,
  type BondMap,
  type MapNode,
  type MapTie,
  type TieState,
} from './views/bond-map'
export {
  openLoopsOf,
  placeOf,
  STAGE_CAUTIONS,
  STAGE_WORDS,
  walkOf,
  type Coverage,
  type OpenLoop,
  type Stop,
  type Walk,
} from './views/walk'
export {
  ACCESS,
  accessAt,
  accessOf,
  allAccess,
  INSTRUMENTS,
  type Access,
  type Instrument,
  type LookAccess,
} from './visit/access'
export {
  Covering,
  PRESETS,
  PURPOSES,
  SAMPLES,
  scopeOf,
  scopeSchema,
  type Purpose,
  type Sample,
  type Scope,
  type ScopeInput,
} from './visit/scope'
export { attestSays, isException, ORDINARY, ordinaryFields, ordinaryOf } from './visit/ordinary'
export { isAsked } from './visit/presumed'
export { ACCESS_FACTS, INSTRUMENT_FACTS, recordedScope, visitOfJob } from './visit/recorded'
export {
  visitOf,
  type Attestation,
  type Question,
  type Visit,
  type VisitCounts,
  type VisitStop,
} from './visit/visit'
export type { Limitation } from './visit/limitations'
export { timelineOf, type Moment } from './views/timeline'
export { isolationPlan, type IsolationPlan } from './trace/isolation'
export { identify, type Evidence, type Identity } from './diagnosis/identify'
export { heatOf, type Heat, type Scan } from './diagnosis/heat'
export { gaugeOf, diameterMm } from './tables/diameter'
export { longestTripSeconds, tripBand } from './tables/protective-devices'
export { afciSince, requirementsOf, PLACES, type Requirement } from './tables/protection-years'
export { TURNS } from './tables/years'
export { diagnose, type Diagnosis, type Ranked } from './diagnosis/outlet'
export { doubtsOf, refereeDevice, type Doubt } from './diagnosis/referee'
export {
  STATES,
  LAMPS,
  type OutletState,
  type Readings,
  type ReadingName,
  type Setting,
} from './diagnosis/states'
export {
  commonCausesOf,
  jointOf,
  originsOf,
  type ChainOutlet,
  type CommonCause,
  type Joint,
  type Origin,
} from './diagnosis/chain'
export { READING_FIELDS, readingsOf, readStateOf } from './derive/readings'
export { dwellingLoad, HEATING_KINDS, type DwellingLoads } from './tables/dwelling-load'
export {
  PathsInput,
  tracePaths,
  UnsolvablePaths,
  type PathBranch,
  type PathsAnswer,
  PathTracer,
} from './paths/paths'
export { PathSolver, solvePaths } from './paths/solve'
export { StarMesh } from './paths/star-mesh'
export {
  networkOf,
  UndrawableProperty,
  type LoadPlace,
  type PropertyNetwork,
  type PropertyPart,
} from './paths/property'
export {
  clampRead,
  PathChange,
  PropertyInput,
  PropertyTracer,
  traceProperty,
  type PropertyAnswer,
} from './paths/changes'
export {
  isSetUp,
  setUpsOf,
  SET_UPS,
  sweepOf,
  type NoSetUp,
  type SetUp,
  type SetUpId,
  type Sweep,
} from './paths/set-ups'
export {
  authorHouse,
  recorded,
  simulateHouse,
  type SimulatedHouse,
  type SimulateOptions,
} from './simulate/simulated'
export type { Injected } from './simulate/drafts'
export { inspect, roundTrip, type RoundTrip } from './simulate/inspect'
export {
  act as practiceAct,
  actionsAt,
  BUDGETS,
  callsFor,
  costOf as practiceCost,
  isShut,
  debrief,
  DIFFICULTIES,
  HINT_SECONDS,
  hintFor,
  keyOf,
  known as knownFacts,
  NEW_ROUND,
  placesOf as practicePlaces,
  practiceFaults,
  rulesOf,
  THEMES,
  type PracticeAction,
  type PracticeThing,
  type Call,
  type Debrief,
  type DebriefLine,
  type Difficulty,
  type Key as PracticeKey,
  type Round,
  type Theme,
} from './practice/practice'
export { INSTRUMENT_READS, readingUnit, SimulatedInstruments } from './simulate/instruments'
export { seeded, type Random } from './simulate/random'
export {
  cutOf,
  oldWiringOf,
  type Cut,
  type Fate,
  type OldWiring,
  type TracedConductor,
} from './trace/old-wiring'
export { oldWiringLayout } from './drawings/old-wiring-layout'
export { currentLayout, type CurrentLayout } from './drawings/current-layout'
export { teaching } from './examples/teaching'
export { dropOf, groundFaultAmps, type Drop } from './diagnosis/drop'
export {
  planRounds,
  readRounds,
  settle,
  type TracePlan,
  type Traced,
  type Seen,
} from './trace/rounds'
export { reconcile, type DirectoryEntry, type Reconciled } from './trace/directory'
export { CALCULATORS, calculatorById, type Calculator } from './calculators'
export {
  BOX_VOLUME,
  boxFill,
  CONDUCTOR_VOLUME,
  type BoxKind,
  type FillSize,
} from './tables/box-fill'
export { resistance } from './tables/resistance'
