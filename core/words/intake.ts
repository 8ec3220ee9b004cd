import type { Feed, Follow, Intake, ScanEntry, ScanRow, ToldApart } from "../src/index.js";
import type { Namer } from "./faults.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

type Words<K extends string> = Readonly<Record<K, string>>;
/** Quick picks of the intake, as a technician says them. */
export const CHOICE_WORDS = worded(() => ({
  symptoms: {
    noStart: t("intake.doesNotStart"),
    slowStart: t("intake.slowToStart"),
    cutsOut: t("intake.cutsOut"),
    reducedPower: t("intake.reducedPower"),
    deadDisplay: t("intake.deadDisplay"),
    warningLamps: t("intake.warningLamps"),
    comesAndGoes: t("intake.comesAndGoes"),
    wrongValue: t("intake.showsAWrongValue"),
    fuseBlows: t("intake.aFuseBlows"),
    curedItself: t("intake.wentAwayByItself"),
  } satisfies Words<Intake["symptoms"][number]>,
  conditions: {
    cold: t("intake.cold"),
    hot: t("intake.hot"),
    wet: t("intake.wet"),
    bump: t("intake.afterABump"),
    underLoad: t("intake.underLoad"),
    afterTime: t("intake.afterAWhile"),
    cranking: t("intake.whileCranking"),
    always: t("intake.always"),
  } satisfies Words<Intake["conditions"][number]>,
  tools: {
    meter: t("intake.meter"),
    scanTool: t("intake.scanTool"),
    testLamp: t("intake.testLamp"),
    clamp: t("intake.ampClamp"),
    scope: "scope",
    breaker: t("intake.resettingBreaker"),
    backProbes: t("intake.backProbes"),
    breakoutLead: t("intake.breakoutLead"),
  } satisfies Words<NonNullable<Intake["tools"]>[number]>,
  history: {
    replaced: t("intake.replaced"),
    repaired: t("intake.repaired"),
    workNearby: t("intake.workDoneNearby"),
    batteryWork: t("intake.batteryWork"),
    accident: t("intake.accident"),
    pests: t("intake.pests"),
    water: t("intake.waterGotIn"),
    oil: t("intake.oilGotIn"),
  } satisfies Words<Intake["history"][number]["what"]>,
  helped: {
    no: t("intake.didNotHelp"),
    partly: t("intake.helpedALittle"),
    yes: t("intake.helped"),
    unknown: t("intake.notKnown"),
  } satisfies Words<Intake["history"][number]["helped"]>,
  brand: {
    maker: t("intake.makersPart"),
    copy: t("intake.copy"),
    used: t("intake.usedPart"),
    unknown: t("intake.notKnown"),
  } satisfies Words<Intake["history"][number]["brand"]>,
}));

/** Dangers of a machine, as they stand before every step. */
export const CAUTION_WORDS: Words<Intake["safety"][number]> = worded(() => ({
  restraint: t("intake.restraintCircuitsAirbagBeltMakers"),
  highVoltage: t("intake.highVoltageSystemLicensedPeopleOnly"),
  fuel: t("intake.fuelAndHighPressureLinesNo"),
  hot: t("intake.hotExhaustAndCoolant"),
  rotating: t("intake.rotatingPartsKeepClearAndKeep"),
  throttle: t("intake.throttleCircuitChockTheMachineAnd"),
  brake: t("intake.brakeCircuitChockTheMachineBefore"),
  lifted: t("intake.liftedMachineOrLoadOnStands"),
}));

/** What somebody who drives has to know, should the fault come back. */
export const DANGER_ADVICE: Readonly<Partial<Record<Intake["safety"][number], string>>> = worded(() => ({
  throttle: t("intake.ifTheEngineDoesNotFollow"),
  brake: t("intake.ifTheBrakeFeelsOtherThan"),
  restraint: t("intake.ifTheRestraintLampComesOn"),
  highVoltage: t("intake.ifTheHighVoltageWarningComes"),
}));

const BECAUSE: Readonly<Record<string, string>> = worded(() => ({
  wet: t("intake.comesWhenWet"),
  hot: t("intake.comesWhenHot"),
  cold: t("intake.comesWhenCold"),
  bump: t("intake.comesAfterABump"),
  underLoad: t("intake.comesUnderLoad"),
  cranking: t("intake.comesWhileCranking"),
  comesAndGoes: t("intake.comesAndGoes2"),
  curedItself: t("intake.wentAwayByItself2"),
  deadDisplay: t("intake.deadDisplay2"),
  noStart: t("intake.doesNotStart2"),
  cutsOut: t("intake.cutsOut2"),
  slowStart: t("intake.slowToStart2"),
  fuseBlows: t("intake.aFuseBlows2"),
  wrongValue: t("intake.showsAWrongValue2"),
  replaced: t("intake.replaced2"),
  replacedCopy: t("intake.aCopyOrUsedPartWas"),
  repaired: t("intake.repaired2"),
  workNearby: t("intake.workDoneNearby2"),
  accident: t("intake.accident2"),
  batteryWork: t("intake.batteryWork2"),
  pests: t("intake.pests2"),
  water: t("intake.waterGotIn2"),
  oil: t("intake.oilGotIn2"),
  bulletin: t("intake.bulletin"),
  hearsay: t("intake.hearsay"),
  lessons: t("intake.lessonsOfEarlierJobs"),
}));
const ON: Readonly<Record<string, string>> = worded(() => ({
  corroding: t("intake.corrosionAndBridgedCavities"),
  corrodingInWet: t("intake.corrosionAndBridgedCavitiesInWet"),
  corrodingElsewhere: t("intake.corrosionAndBridgedCavitiesElsewhere"),
  looseInVibrating: t("intake.looseAndBrokenContactsWhereIt"),
  looseElsewhere: t("intake.looseAndBrokenContactsElsewhere"),
  inHotZones: t("intake.everythingInHotZones"),
  batteryLow: t("intake.aLowBattery"),
  loose: t("intake.looseAndBrokenContacts"),
  supplies: t("intake.feedsGroundsAndTheBattery"),
  shorts: t("intake.shortsToGround"),
  wrongReading: t("intake.wrongReadingsAndWrongParts"),
  partItself: t("intake.thePartItself"),
  wrongPart: t("intake.aWrongLookAlikePart"),
  contactsAndWires: t("intake.contactsAndWiresThere"),
  wires: t("intake.wires"),
  film: t("intake.oilyContacts"),
  all: t("intake.everythingThere"),
  elsewhere: t("intake.everythingTheyDoNotName"),
}));
/** One line of what the intake did: "Comes when wet: corrosion and bridged cavities count 2 times (46 faults)". */
export function feedText(f: Feed): string {
  const things = ONE_THING.has(f.on) ? 1 : 2;
  const factor =
    f.factor >= 1
      ? t("intake.timesAsMuch", { factor: plain(f.factor) })
      : t("intake.ofWhatTheyDid", { factor: plain(f.factor), things });
  return t("intake.in", {
    because: BECAUSE[f.because] ?? f.because,
    at: f.at.length ? ` (${f.at.join(", ")})` : "",
    what: ON[f.on] ?? f.on,
    things,
    factor,
    faults: f.faults,
  });
}
/** What is said of one thing, not of several. */
const ONE_THING: ReadonlySet<string> = new Set(["partItself", "all", "elsewhere", "batteryLow", "wrongPart"]);
const plain = (n: number) => String(Number(n.toPrecision(2)));

export const scanWhenText: Words<ScanEntry["when"]> = worded(() => ({
  before: t("intake.beforeAnythingWasTouched"),
  afterClear: t("intake.clearedKeyCycled"),
  afterCrank: t("intake.afterCranking"),
  afterDrive: t("intake.afterADrive"),
  other: t("intake.anotherScan"),
}));
export const storyText: Words<ScanRow["story"]> = worded(() => ({
  onlyOnce: "",
  cameBack: t("intake.cameBack"),
  stayedAway: t("intake.stayedAway"),
  always: t("intake.thereEveryTime"),
  new: t("intake.new"),
}));

const WHY: Words<ToldApart["why"]> = worded(() => ({
  battery: t("intake.asHighAsTheBattery"),
  reference: "5 V",
  pulledUp: t("intake.fiveVoltsPulledUpByThe"),
  ground: t("intake.nothingToNegativeTheBatteryTo"),
  floating: t("intake.nothingToNegative"),
  between: t("intake.betweenTheTwo"),
}));
const FUNCTIONS: Words<Exclude<ToldApart["function"], "unknown">> = worded(() => ({
  supply: t("intake.supply"),
  reference: t("intake.reference"),
  signal: t("intake.signal"),
  ground: t("intake.ground"),
}));
export const toldText = (told: ToldApart) =>
  `${told.function === "unknown" ? t("intake.notToldYet") : FUNCTIONS[told.function]}` +
  `${told.sure || told.function === "unknown" ? "" : t("intake.perhaps")} (${WHY[told.why]})`;

/** Where a followed cavity ends, in words. */
export const followEnd = (f: Follow, namer: Namer) => (f.end === undefined ? t("intake.endsHere") : namer.point(f.end));
