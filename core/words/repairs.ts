import {
  formatQuantity,
  FAILURE_TYPES,
  type CodeStatus,
  type Fault,
  type FailureType,
  type FaultMode,
} from "../src/index.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** What repairing each mode means, in general words; the maker's manual says how on this machine. */
const REPAIRS: Readonly<Record<FaultMode, string>> = worded(() => ({
  open: t("repairs.findTheBreakJoinTheWire"),
  highResistance: t("repairs.cutOutTheCorrodedOrPinched"),
  fewStrands: t("repairs.cutBackToSoundCopperAnd"),
  shortToChassis: t("repairs.freeTheWireMendItsInsulation"),
  shortToSupply: t("repairs.partTheTwoWiresMendBoth"),
  shortToWire: t("repairs.partTheTwoWiresMendBoth"),
  contactOpen: t("repairs.pushTheTerminalHomeUntilIt"),
  contactHighResistance: t("repairs.fitANewTerminalAndA"),
  contactFilm: t("repairs.cleanTheContactAndStopThe"),
  cavitiesBridged: t("repairs.dryAndCleanTheConnectorReplace"),
  cavitiesSwapped: t("repairs.putEachTerminalInItsOwn"),
  unseated: t("repairs.cleanTheConnectorIfNeedBe"),
  legOpen: t("repairs.remakeTheSpliceLeg"),
  legHighResistance: t("repairs.remakeTheSpliceLeg"),
  spliceHighResistance: t("repairs.cutTheSpliceOutAndMake"),
  groundOpen: t("repairs.cleanAndTightenTheGroundPoint"),
  groundHighResistance: t("repairs.cleanBothFacesToBrightMetal"),
  fuseBlown: t("repairs.findOutWhyItBlewBefore"),
  fuseHighResistance: t("repairs.cleanOrReplaceTheFusesHolder"),
  switchOpen: t("repairs.replaceTheSwitch"),
  switchHighResistance: t("repairs.replaceTheSwitch"),
  relayCoilOpen: t("repairs.replaceTheRelay"),
  relayContactOpen: t("repairs.replaceTheRelay"),
  relayContactHighResistance: t("repairs.replaceTheRelayAndCheckWhat"),
  relayStuck: t("repairs.replaceTheRelayAndCheckWhat"),
  shortSupplyGround: t("repairs.replaceThePartByItsNumber"),
  shortSignalGround: t("repairs.replaceThePartByItsNumber"),
  shortSignalSupply: t("repairs.replaceThePartByItsNumber"),
  shortInside: t("repairs.replaceThePartByItsNumber"),
  elementOpen: t("repairs.replaceThePartByItsNumber"),
  dead: t("repairs.replaceThePartByItsNumber"),
  biased: t("repairs.replaceThePartByItsNumber2"),
  wrongPart: t("repairs.fitThePartWithTheRight"),
  targetDamaged: t("repairs.replaceTheDamagedTarget"),
  gapTooLarge: t("repairs.setTheAirGapLookFor"),
  trueCondition: t("repairs.sensorAndWiringAreGoodPut"),
  referenceDead: t("repairs.proveEverythingOutsideTheModuleFirst"),
  referenceWeak: t("repairs.proveEverythingOutsideTheModuleFirst"),
  referenceResistive: t("repairs.proveEverythingOutsideTheModuleFirst"),
  moduleUnpowered: t("repairs.proveItsSuppliesAndGroundsUnder"),
  moduleGroundOpen: t("repairs.haveTheModuleRepairedOrReplaced"),
  sensorGroundOpen: t("repairs.haveTheModuleRepairedOrReplaced"),
  inputShort: t("repairs.haveTheModuleRepairedOrReplaced"),
  driverDead: t("repairs.proveTheLoadAndItsWiring"),
  driverStuck: t("repairs.haveTheModuleRepairedOrReplaced"),
  dutyWrong: t("repairs.proveWhatTheModuleGoesBy"),
  busDriverDead: t("repairs.haveTheModuleRepairedOrReplaced"),
  supplyLow: t("repairs.chargeAndTestTheBatteryLook"),
  supplyHigh: t("repairs.haveTheRegulatorOrAlternatorReplaced"),
}));
/** A part can be several kinds of thing: an alternator is not replaced by its pins. */
export function repairText(fault: Pick<Fault, "mode" | "place">): string {
  if (fault.place.type === "supply" && fault.mode === "dead") return t("repairs.checkTheBeltAndTheWiring");
  return REPAIRS[fault.mode];
}

/** How bad: 500 Ω; a factor as per cent of what it should give; a share of the supply with its sign. */
export function severityText(fault: Pick<Fault, "unit" | "mode">, severity: number): string {
  if (fault.unit === "ohm") return formatQuantity(severity, "Ω");
  const percent = `${Math.round(severity * 100)} %`;
  return fault.unit === "factor"
    ? t("repairs.ofWhatItShouldBe", { percent })
    : fault.mode === "trueCondition"
      ? t("repairs.outputAtOfItsSupply", { percent })
      : t("repairs.offByOfItsSupply", { sign: severity > 0 ? "+" : "", percent });
}

const STATUS: Readonly<Record<CodeStatus, string>> = worded(() => ({
  active: t("repairs.active"),
  pending: t("repairs.pending"),
  stored: t("repairs.stored"),
  intermittent: t("repairs.seenSinceTheLastClearNot"),
  notRun: t("repairs.notJudgedSinceTheLastClear"),
  absent: t("repairs.passed"),
}));
export const statusWord = (status: CodeStatus): string => STATUS[status];

const FAILURES: Readonly<Record<FailureType, string>> = worded(() => ({
  shortToGround: t("repairs.shortToGround"),
  shortToBattery: t("repairs.shortToSupply"),
  open: t("repairs.open"),
  groundOrOpen: t("repairs.shortToGroundOrOpen"),
  batteryOrOpen: t("repairs.shortToSupplyOrOpen"),
  belowThreshold: t("repairs.belowThreshold"),
  aboveThreshold: t("repairs.aboveThreshold"),
  intermittent: t("repairs.comesAndGoes"),
  invalid: t("repairs.signalInvalid"),
  noSignal: t("repairs.noSignal"),
  missingMessage: t("repairs.missingMessage"),
}));
export function failureTypeText(byte: number): string {
  const known = FAILURE_TYPES[byte];
  return known
    ? FAILURES[known.type]
    : t("repairs.failureType", { hex: byte.toString(16).toUpperCase().padStart(2, "0") });
}
