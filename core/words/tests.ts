import { testPlaceOf, type CandidateKind, type PlayedStep } from "../src/index.js";
import type { Namer } from "./faults.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** What kind of test it is, in a word or two. */
const TESTS: Readonly<Record<CandidateKind, string>> = worded(() => ({
  voltage: t("tests.voltage"),
  voltageUnplugged: t("tests.voltageUnplugged"),
  watch: t("tests.voltageWhileAnotherPartIsUnplugged"),
  fuse: t("tests.bothSidesOfTheFuse"),
  ohms: t("tests.resistance"),
  ohmsBetween: t("tests.resistanceFromPlugToPlug"),
  branchCurrent: t("tests.currentInABranch"),
  ohmsWatch: t("tests.resistanceWhileSomethingIsMoved"),
  scan: t("tests.valueOnTheScanTool"),
  scanWatch: t("tests.valueOnTheScanToolPart"),
  activity: t("tests.signalOnTheScope"),
  record: t("tests.recording"),
  minMax: t("tests.minMax"),
  scanRecord: t("tests.scanRecording"),
  look: t("tests.look"),
  wiggle: t("tests.moveTheWires"),
  swap: t("tests.swapThePart"),
  partNumber: t("tests.compareThePartNumber"),
  identity: t("tests.checkWhichConnectorItIs"),
  drop: t("tests.voltageDrop"),
  jumper: t("tests.jumper"),
  lamp: t("tests.testLamp"),
  breaker: t("tests.breakerInPlaceOfTheFuse"),
  bench: t("tests.testOnTheBench"),
  codeSets: t("tests.seeWhetherTheCodeSets"),
}));
const VOLTS: ReadonlySet<string> = new Set([
  "voltage",
  "voltageUnplugged",
  "watch",
  "fuse",
  "drop",
  "record",
  "minMax",
  "scanRecord",
]);
const OHMS: ReadonlySet<string> = new Set(["ohms", "ohmsWatch", "ohmsBetween"]);

/** A test that was played, and what came of it: "Voltage, B7 cavity 1: 4.98 V". */
export function playedStepText(step: PlayedStep, namer: Namer): string {
  const { points } = testPlaceOf(step.candidate);
  const unit = VOLTS.has(step.kind) ? " V" : OHMS.has(step.kind) ? " Ω" : step.kind === "branchCurrent" ? " A" : "";
  const got = step.got
    .map((g) => (typeof g === "number" ? `${Number(g.toPrecision(3))}${unit}` : String(g)))
    .join(", ");
  return `${[TESTS[step.kind], ...points.map((p) => namer.point(p))].join(", ")}: ${got || t("tests.nothingToSee")}`;
}
