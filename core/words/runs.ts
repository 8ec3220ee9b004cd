import type { Disturbance, Mark, RunName } from "../src/index.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** Guided runs as people call them: what each is, when it is the right one, and what to mind before it begins. */
export const RUN_WORDS: Readonly<
  Record<
    RunName,
    { readonly title: string; readonly when: string; readonly where: string; readonly minds: readonly string[] }
  >
> = worded(() => ({
  unplugSeries: {
    title: t("runs.unplugOneAtATime"),
    when: t("runs.aSharedVoltageIsPulledDown"),
    where: t("runs.sharedPinToWatch"),
    minds: [t("runs.keyOffWhileUnplugging")],
  },
  fuseRun: {
    title: t("runs.aFuseThatBlows"),
    when: t("runs.aFuseBlowsAndWhatHangs"),
    where: t("runs.fuse"),
    minds: [t("runs.neverFitALargerFuseOr"), t("runs.aBreakerRatedNoHigherThan"), t("runs.keyOffWhileUnplugging")],
  },
  jumpers: {
    title: t("runs.jumperLowJumperHigh"),
    when: t("runs.aSensorReadsWrongIsIt"),
    where: t("runs.sensor"),
    minds: [
      t("runs.unpluggedAndAllPinsMeasuredFirst"),
      t("runs.highOnlyTowardsAReferenceAnd"),
      t("runs.neverPushBatteryVoltageIntoA"),
    ],
  },
  groundProof: {
    title: t("runs.groundProvenThreeWays"),
    when: t("runs.severalCircuitsShareAGroundThat"),
    where: t("runs.ground"),
    minds: [t("runs.noLampOrLoadOnA")],
  },
  dropBySection: {
    title: t("runs.dropBySection"),
    when: t("runs.voltageIsLostOnTheWay"),
    where: t("runs.fromThisPin"),
    minds: [],
  },
  halveRun: {
    title: t("runs.halveTheRun"),
    when: t("runs.voltageIsLostSomewhereAlongMany"),
    where: t("runs.fromThisPin"),
    minds: [],
  },
  loadWire: {
    title: t("runs.loadAWire"),
    when: t("runs.aWirePassesABeeperBut"),
    where: t("runs.fromThisPin"),
    minds: [t("runs.feedOnlyAWireIsolatedAt"), t("runs.aSmallLampAndAFused")],
  },
  compareTwin: {
    title: t("runs.goodSideBesideBadSide"),
    when: t("runs.theMachineHasTheSamePart"),
    where: t("runs.part"),
    minds: [],
  },
  benchTest: {
    title: t("runs.partByItself"),
    when: t("runs.itsWiringIsProvenAndThe"),
    where: t("runs.part"),
    minds: [t("runs.keyOffBeforeItComesOut")],
  },
  farEnd: {
    title: t("runs.bothEndsOfASignal"),
    when: t("runs.theSensorEndIsRightAnd"),
    where: t("runs.sensorPin"),
    minds: [],
  },
  opposite: {
    title: t("runs.makeTheOppositeFault"),
    when: t("runs.itMustBeShownThatThe"),
    where: t("runs.sensor"),
    minds: [t("runs.through1KWithTheSensor"), t("runs.clearTheCodesWeSetOurselves")],
  },
  newPart: {
    title: t("runs.newPartBeforeItGoesIn"),
    when: t("runs.aNewPartIsAtHand"),
    where: t("runs.part"),
    minds: [],
  },
  wiggle: {
    title: t("runs.moveOnePlaceAtATime"),
    when: t("runs.itComesAndGoes"),
    where: t("runs.valueToWatch"),
    minds: [t("runs.handsAndLeadsAwayFromWhat")],
  },
  whichIsWhich: {
    title: t("runs.whichCavityIsWhich"),
    when: t("runs.noDrawingSaysWhichCavityCarries"),
    where: t("runs.connector"),
    minds: [t("runs.frontProbeGentlyDontSpreadThe")],
  },
  swapTwins: {
    title: t("runs.swapTwoLikeParts"),
    when: t("runs.twinsAreWithinEasyReachAnd"),
    where: t("runs.theTwo"),
    minds: [t("runs.neverOnRestraintSystemsWithoutThe")],
  },
  steelTest: {
    title: t("runs.steelAtTheTip"),
    when: t("runs.aHallSensorGivesNoActivity"),
    where: t("runs.hallSensor"),
    minds: [t("runs.engineOffItMustNotTurn"), t("runs.anyPlainSteelWillDoNot")],
  },
  hallBench: {
    title: t("runs.hallSensorOnTheBench"),
    when: t("runs.itMustBeShownThatThe2"),
    where: t("runs.hallSensor"),
    minds: [
      t("runs.keyOffBeforeItComesOut"),
      t("runs.aFusedLeadFromBatteryPlus"),
      t("runs.batteryPlusReachesTheSignalPin"),
    ],
  },
}));

/** How one step of a run came out. */
export const MARK_WORDS: Readonly<Record<Mark, string>> = worded(() => ({
  full: t("runs.backInFull"),
  part: t("runs.partOfItCameBack"),
  none: t("runs.noChange"),
  good: t("runs.good"),
  bad: t("runs.notGood"),
}));

/** What was left other than it was found, and what puts it right. */
export const DISTURBED_WORDS: Readonly<
  Record<Disturbance, { readonly done: string; readonly still: string; readonly undone: string }>
> = worded(() => ({
  unplugged: { done: t("runs.unplugged"), still: t("runs.unplugged2"), undone: t("runs.pluggedBackInAndLocked") },
  pulled: { done: t("runs.pulledFuse"), still: t("runs.fusePulled"), undone: t("runs.fuseBackIn") },
  breaker: {
    done: t("runs.breakerInPlaceOf"),
    still: t("runs.breakerInItsPlace"),
    undone: t("runs.theRightFuseBackIn"),
  },
  jumpered: { done: t("runs.jumpered"), still: t("runs.jumpered2"), undone: t("runs.jumperOff") },
  loaded: { done: t("runs.lampOn"), still: t("runs.lampOn2"), undone: t("runs.lampOff") },
  pierced: { done: t("runs.pierced"), still: t("runs.piercedNotSealed"), undone: t("runs.piercedWireSealed") },
  removed: { done: t("runs.removed"), still: t("runs.takenOut"), undone: t("runs.fittedAgain") },
  opened: { done: t("runs.opened"), still: t("runs.open"), undone: t("runs.closedAgain") },
}));
