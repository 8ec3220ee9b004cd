/** The only public door of the core. The command line and the web use nothing else. */
export { fail, issue, ok, type Issue, type Result } from "./issues/issue.js";
export { cutText } from "./units/cutText.js";
export { formatQuantity, OVERLOAD, parsePlain, parseQuantity, type Unit } from "./units/quantity.js";
export { parseShown, type ShownText, type ShownWords } from "./units/shown.js";
export { convertScan, parseScan, SCAN_UNITS, type ScanUnit } from "./units/scanUnit.js";
export {
  Case,
  CASE_FORMAT,
  CLOSED_BECAUSE,
  DISTURBANCES,
  Entry,
  FOLLOW_UP_RESULTS,
  JOINTS,
  PART_CONDITIONS,
  PART_WITH,
  REPAIR_KINDS,
  type ClosedEntry,
  type FollowedUpEntry,
  LearnedEntry,
  type FrozenProof,
  type ProofStepEntry,
  type RepairedEntry,
  FINDINGS,
  INSTRUMENTS,
  RUNS,
  type Disturbance,
  type RunEntry,
  type RunName,
  State,
  type ChartStep,
  type CodeEntry,
  type Finding,
  type LookEntry,
  type SchoolEntry,
  type SwapEntry,
  type WiggleEntry,
  type Doing,
  DOING,
  TraceChannel,
  TraceEntry,
  type Instrument,
  type ReadingEntry,
  type VerdictEntry,
} from "./format/case.js";
export {
  Wiring,
  WIRING_FORMAT,
  KeyState,
  Monitor,
  type Caution,
  type Claim,
  type Code,
  type Connector,
  type Device,
  type CodeFamily,
  type DeviceOf,
  type ModulePin,
  type Wire,
} from "./format/wiring.js";
export {
  Chart,
  CHART_FORMAT,
  chartRow,
  connectorRow,
  emptyChart,
  partRow,
  type ChartRow,
  type ConnectorRow,
  type PartRow,
} from "./format/chart.js";
export {
  Bulletin,
  HistoryItem,
  Intake,
  INTAKE_CHOICES,
  ScanEntry,
  SeenEntry,
  type ScannedCode,
} from "./format/case.js";
export {
  DrawingMark,
  DrawingSheet,
  DrawingTrace,
  OpenEnd,
  PageDrawing,
  SheetContent,
  SHEET_FORMAT,
  type SheetWord,
} from "./format/sheet.js";
export { drawnWires, type DrawnEnd, type DrawnWire, type Spot } from "./sheets/drawnWires.js";
export {
  readSheet,
  type DrawnKind,
  type ReadBox,
  type ReadEnd,
  type ReadPin,
  type ReadSheet,
  type ReadStar,
  type ReadWire,
} from "./sheets/readSheet.js";
export {
  boxToTake,
  isNamedBox,
  markAt,
  notOnAPage,
  progressOf,
  takeReadWire,
  takeWhole,
  type SheetProgress,
} from "./sheets/takeRead.js";
export { takeNewEdition, type NewEdition } from "./sheets/newEdition.js";
export { tableIn } from "./sheets/tableIn.js";
export { sidedCavities } from "./sheets/inLine.js";
export { ocrName } from "./sheets/ocrName.js";
export { pdfContent, type Matrix, type PdfOperations, type PdfPage } from "./sheets/pdfPage.js";
export {
  cavitiesInBox,
  dropSheet,
  functionSaid,
  placeOnSheet,
  takeBox,
  takeCavity,
  takeHalf,
  takeFuse,
  takeStar,
  takeWire,
  type TakenBox,
  type TakenWire,
} from "./sheets/takeFromSheet.js";
export { COLOUR_LETTERS, parseColour, sameColour, type ColourRead, type WireColour } from "./units/colour.js";
export {
  fromPreferred,
  preferredText,
  preferredUnit,
  preferredWithUnit,
  STORED_UNITS,
  toPreferred,
  UNIT_CHOICES,
  Units,
  type UnitQuantity,
} from "./units/preferred.js";
export { gaugeMm2, parseSection } from "./units/section.js";
export { buildChart, type BuiltChart } from "./chart/build.js";
export { chartOf } from "./chart/fromWiring.js";
export { formatOf, readChart, readWiringOrChart } from "./chart/documents.js";
export { FUNCTION_WORDS, parseFunction, type PinFunction } from "./chart/functions.js";
export { FORMULA_CELL } from "./chart/formula.js";
export { readCsv, readTable, writeCsv, type TableRead } from "./chart/csv.js";
export { addGroup, GROUPS, GROUP_SIZES, type AddedGroup, type GroupKind } from "./chart/groups.js";
export { addTemplate, freeName, TEMPLATES, type TemplateKind } from "./chart/templates.js";
export { mergeCharts, takeClaim, type Difference, type Merged, type MergeField } from "./chart/merge.js";
export { NOWHERE, saysNowhere } from "./chart/ends.js";
export { completeChart, type CompletedChart, type DrawingFact } from "./planner/drawingFacts.js";
export {
  answerGap,
  completeWiring,
  drawingGaps,
  factsWorth,
  LOOKED_UP,
  type DrawingGap,
  type FactWorth,
  type WhereToLook,
} from "./planner/drawingGaps.js";
export { ASSUMED, assumedAt } from "./wiring/assumed.js";
export { sharedMatrix, subjectsOf, type SharedMatrix, type SharedRow } from "./wiring/matrix.js";
export { focusOn } from "./wiring/focus.js";
export { followPoint, type Follow, type PathStep } from "./wiring/follow.js";
export { compareWirings, type WiringChange } from "./wiring/compare.js";
export { tellApart, type CavityVolts, type ToldApart } from "./wiring/tellApart.js";
export { graphml } from "./wiring/graphml.js";
export { parseValues, writeValues } from "./chart/values.js";
export { MAX_CHARACTERS, parseJson } from "./format/json.js";
export { jsonSchema } from "./format/jsonSchema.js";
export {
  CHASSIS,
  connectorOf,
  deviceConnectors,
  devicePins,
  indexWiring,
  meterPoints,
  pinBehind,
  resolvePlace,
  terminalOf,
  wireId,
} from "./wiring/points.js";
export { inLineEnds, isPeripheral, STAR_KINDS, TERMINALS } from "./wiring/kinds.js";
export { checkWiring } from "./wiring/check.js";
export { HELD, Lesson, Notebook, NOTEBOOK_FORMAT } from "./format/notebook.js";
export { WorkshopSettings } from "./format/settings.js";
export { partsNamed } from "./wiring/matrix.js";
export { parseWiring, readWiring } from "./wiring/read.js";
export { findNets, type NetFunction, type Nets } from "./wiring/nets.js";
export { thingsOnTheWay } from "./wiring/shared.js";
export { batteryVolt, type StimulusOf, type ValueKind, type ValueOf } from "./network/builder.js";
export { compile, middle, nominalValue, type Fitted } from "./network/compile.js";
export { filamentOf, thermistorOhm, wireOhm } from "./network/laws.js";
export {
  airPressure,
  cableOhmPerMetre,
  calculate,
  CALCULATORS,
  platinumCelsius,
  platinumRatio,
  thermistorCelsius,
  type Calculator,
  type CalculatorId,
} from "./calculators/calculators.js";
export { curveOf, type Curve } from "./calculators/curves.js";
export {
  joinEdits,
  NO_EDIT,
  PLAIN,
  type Circuit,
  type Edit,
  type Element,
  type Gate,
  type Shunt,
} from "./network/element.js";
export { analysePattern as analysePattern, type Pattern } from "./network/pattern.js";
export { createSolver, openedBy, type Conditions, type Settled, type Solver } from "./network/solver.js";
export { elementAmpere, measureOhms, nodeOhm, nodeVolt, ohmBetween, residual, solutionOf } from "./network/observe.js";
export { prepare, settle } from "./network/settle.js";
export { filamentOhm } from "./network/conductances.js";
export { compileState, conditionsOf, stateName } from "./network/state.js";
export { netlist, type Solution } from "./network/netlist.js";
export { findFault, generateFaults } from "./faults/generate.js";
export {
  losesTeeth,
  middleSeverity,
  type Fault,
  type FaultMode,
  type FaultPlace,
  type SeverityUnit,
} from "./faults/fault.js";
export { sweep, type SweepCase, type SweepOptions, type SweepResult } from "./faults/sweep.js";
export { bindMonitors, isSet, lacksActivity, moduleSideVolt, type BoundMonitor } from "./codes/monitors.js";
export { judge, judgePlan, phasesOf, type Look, type Phase } from "./codes/judge.js";
export { broadMonitor, familyOf } from "./codes/family.js";
export { failureType, FAILURE_TYPES, type FailureType } from "./codes/failureType.js";
export {
  codeBytes,
  codeNumber,
  decodeReply,
  dm1Codes,
  emissionCodes,
  informationCodes,
  statusBits,
  statusOf,
  type CodeStatus,
  type ReportedCode,
  type StatusBits,
} from "./codes/decode.js";
export { predictCodes, type PredictedCode } from "./instruments/predictCodes.js";
export { ohmmeter, voltmeter } from "./instruments/meter.js";
export { batteryOf, type FaultAt } from "./instruments/machineState.js";
export { profileOf, type ProfilePoint } from "./instruments/profile.js";
export { Rig } from "./instruments/rig.js";
export {
  isPoint,
  readClamp,
  readContinuity,
  readLamp,
  readOhms,
  readScanTool,
  readScope,
  readVolts,
  type Brightness,
  type LampShown,
  type ScopeShown,
  type InstrumentReading,
} from "./instruments/readings.js";
export { inspectCircuit } from "./instruments/inspect.js";
export { compareScans, type ScanCell, type ScanRow } from "./logbook/compareScans.js";
export { minutesTaken } from "./logbook/minutes.js";
export { fold, isSetCode, type CodeWord, type Folded, type Numbered } from "./logbook/fold.js";
export { codesGone, toldCodes } from "./logbook/told.js";
export type { Disturbed } from "./logbook/machineNow.js";
export { placedAfter, renumbered, speaksOf } from "./logbook/placing.js";
export { undoneEntries } from "./logbook/undone.js";
export { beforeAfter, type BeforeAfter } from "./logbook/beforeAfter.js";
export { fileSort, FILE_SORTS, isForeign, type FileSort } from "./format/fileSort.js";
export { withScannedCodes } from "./logbook/scanned.js";
export { genericCodes, genericTitle } from "./codes/generic.js";
export { readScan, type ScanRead } from "./codes/scanText.js";
export { checkEntries, parseCase, readCase, readEntries } from "./logbook/read.js";
export {
  coloursAt,
  compareSeen,
  drawnPartNumber,
  judgePartNumber,
  seenRemarks,
  type SeenMismatch,
} from "./logbook/seen.js";
export { lessonFactors } from "./diagnosis/lessons.js";
export { circumstances, type Feed } from "./diagnosis/circumstances.js";
export { uniform } from "./prediction/draws.js";
export { Focus } from "./prediction/focus.js";
export { keptKeys, packCodes, packValues, takeCodes, takeValues, type KeptKeys } from "./prediction/kept.js";
export { Predictor } from "./prediction/predictor.js";
export type { FaultView, Member, Suspect } from "./diagnosis/groups.js";
export type { Belief } from "./diagnosis/assessment.js";
export { assess } from "./diagnosis/belief.js";
export { minimalDiagnoses, minimalHittingSets } from "./diagnosis/hitting.js";
export type { Posterior, MixtureComponent } from "./diagnosis/posterior.js";
export type { Reason } from "./diagnosis/reasons.js";
export { analyse, weighCandidate, type AnalyseOptions } from "./planner/analyse.js";
export {
  ENGINE_VERSION,
  type Analysis,
  type ReadingView,
  type Recommendation,
  type SplitBy,
  type SuspectView,
} from "./planner/analysis.js";
export { courseOf, type CoursePoint } from "./planner/course.js";
export { openRepairs, outcomeOf, repairsOf } from "./planner/outcome.js";
export type { Outcome, ProvenKind, Repair } from "./planner/outcome.js";
export { proofOf, type Proof, type ProofAction, type ProofStep, type StepStatus, type Trip } from "./proof/plan.js";
export { healthyReadings } from "./proof/healthy.js";
export { repairOutcome, type RepairOutcome } from "./proof/outcome.js";
export { isOfWiring, learnFrom, lessonWeight } from "./notebook/learn.js";
export { lessonOf } from "./notebook/lesson.js";
export { notebookOf, parseNotebook, readNotebook } from "./notebook/read.js";
export { isFound, seenBefore, type SeenBefore } from "./notebook/seenBefore.js";
export { heldBands, heldByWork, wilson, type HeldBand } from "./notebook/held.js";
export { faultsAfterWork, faultsLeft, repairOf } from "./simulation/repairs.js";
export { playProof, type ProvenJob, type ProvenJobOptions } from "./simulation/provenJob.js";
export { RepairedPlaces } from "./diagnosis/cures.js";
export type { Stage } from "./planner/plan.js";
export { plannedMinutes } from "./planner/plannedMinutes.js";
export { codePieces } from "./diagnosis/codePieces.js";
export { gather } from "./diagnosis/evidence.js";
export { planPieces } from "./planner/plan.js";
export { piecesAhead, thinkAhead, warmingPieces, codesOfAll, warmUp } from "./planner/thinkAhead.js";
export type { CodePiece, Piece, PieceResult, ReadingPlace } from "./prediction/piece.js";
export { isPieceKnown, openPiece, takeResults, workOutAt, workOutPiece } from "./prediction/pieceWork.js";
export { CANDIDATE_KINDS, watchedBy, type CandidateKind } from "./planner/candidateKind.js";
export { makePlan, type Plan } from "./planner/plan.js";
export type { Weighed } from "./planner/ranking.js";
export { choose, narrowFurther, POLICIES, type ChooseOptions, type Chosen, type Policy } from "./planner/policies.js";
export { expectedCost, greedy, optimal, rollout, type Decision } from "./planner/decision.js";
export { type Economics } from "./planner/economics.js";
export type { Answer } from "./planner/answers.js";
export { runView, type RunView, type TakenStep } from "./procedures/run.js";
export { answerInSteps, wholeAnswer, type WholeAnswer } from "./procedures/wholeAnswer.js";
export { finished, type InSteps } from "./steps.js";
export { runOffers, runPlaces, runTests, watchPoint, type RunOffer } from "./procedures/offers.js";
export { type RunFinding as RunFinding, type Mark } from "./procedures/script.js";
export { benchValues, type BenchValue } from "./instruments/benchValues.js";
export { fedBy, type Fed } from "./procedures/series.js";
export { fisherAtLeast, wiggleVerdict, type WiggleSample, type WiggleVerdict } from "./procedures/wiggle.js";
export { generateHarness, type HarnessOptions } from "./simulation/harness.js";
export { SimulatedMachine, severityOffGrid, type MachineOptions } from "./simulation/machine.js";
export { hideFaults } from "./simulation/hide.js";
export { recordedTrace } from "./simulation/recordedTrace.js";
export { simulateRecording, type RecordedPlace, type SimulatedRecordingOptions } from "./simulation/recordMachine.js";
export { playRun, type PlayedRun } from "./simulation/playRun.js";
export { playWiggle } from "./simulation/playWiggle.js";
export { signOf } from "./simulation/signs.js";
export { observe, type Observed } from "./simulation/observe.js";
export { recordAnswer, recordChanges, recordReading, recordWatched, type ReadingMore } from "./planner/record.js";
export { testPlaceOf } from "./format/candidateId.js";
export { clueOf, FITTED_THINGS, yesLikelihood, type Candidate } from "./planner/candidate.js";
export { barredConnectors, feedsModule, isGuarded } from "./wiring/safety.js";
export { compareVerdict, type VerdictMatch } from "./simulation/compareVerdict.js";
export { play, type Ending, type Played, type PlayedStep, type PlayOptions } from "./simulation/technician.js";
export {
  evenChannel,
  indexAt,
  lengthOf,
  MOST_CHANNELS,
  MOST_SAMPLES,
  channelPart,
  rateOf,
  timeOf,
  valueAt,
  type Channel,
  type Recording,
} from "./traces/recording.js";
export { looksRecorded } from "./traces/looksRecorded.js";
export { parseRecording, readRecording, recordingCsv, recordingFile, RecordingReader } from "./traces/readRecording.js";
export type { RecordingRead } from "./traces/readTable.js";
export { RECORDING_FORMAT, RecordingFile } from "./format/recording.js";
export { factsInSteps, factsOf, type ChannelFacts } from "./traces/facts.js";
export { levelsOf, type Levels } from "./traces/levels.js";
export { riseTime, signalEdges, timingOf, type Edge, type Timing } from "./traces/edges.js";
export { pulsesPerTurn, teethOf, type Teeth, type ToothFault } from "./traces/teeth.js";
export { dropoutsOf, type Dropout } from "./traces/dropouts.js";
export { agreementOf, lagOf, slewOf, type Agreement, type Parting } from "./traces/agreement.js";
export { canSeen, linSeen, type BusLevel, type BusSeen } from "./traces/busLines.js";
export { matchPattern, parsePattern, type Dwell, type PatternMatch, type PatternMissed } from "./traces/pattern.js";
export { pyramidOf, stretchOf, type Pyramid, type Stretch } from "./traces/pyramid.js";
export { pairsOf, type PairSeen } from "./traces/pairs.js";
export { fittingUnit, traceEntry, type ChannelPlace, type TakenRecording } from "./logbook/traceEntry.js";
export { traceReadings } from "./logbook/traceReadings.js";
export { seenIn, type ChannelSeen } from "./traces/seen.js";
export { DEFAULTS } from "./defaults.js";
