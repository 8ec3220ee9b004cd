import { testPlaceOf, type CandidateKind, type PlayedStep } from "../src/index.js";
import type { Namer } from "./faults.js";

/** What kind of test it is, in a word or two. */
const TESTS: Readonly<Record<CandidateKind, string>> = {
  voltage: "Voltage",
  voltageUnplugged: "Voltage, unplugged",
  watch: "Voltage while another part is unplugged",
  fuse: "Both sides of the fuse",
  ohms: "Resistance",
  ohmsBetween: "Resistance from plug to plug",
  branchCurrent: "Current in a branch",
  ohmsWatch: "Resistance while something is moved",
  scan: "Value on the scan tool",
  scanWatch: "Value on the scan tool, part unplugged",
  activity: "Signal on the scope",
  look: "Look",
  wiggle: "Move the wires",
  swap: "Swap the part",
  partNumber: "Compare the part number",
  identity: "Check which connector it is",
  drop: "Voltage drop",
  jumper: "Jumper",
  lamp: "Test lamp",
  breaker: "Breaker in place of the fuse",
  bench: "Test on the bench",
  codeSets: "See whether the code sets",
};
const VOLTS: ReadonlySet<string> = new Set(["voltage", "voltageUnplugged", "watch", "fuse", "drop"]);
const OHMS: ReadonlySet<string> = new Set(["ohms", "ohmsWatch", "ohmsBetween"]);

/** A test that was played, and what came of it: "Voltage, B7 cavity 1: 4.98 V". */
export function playedStepText(step: PlayedStep, namer: Namer): string {
  const { points } = testPlaceOf(step.candidate);
  const unit = VOLTS.has(step.kind) ? " V" : OHMS.has(step.kind) ? " Ω" : step.kind === "branchCurrent" ? " A" : "";
  const got = step.got
    .map((g) => (typeof g === "number" ? `${Number(g.toPrecision(3))}${unit}` : String(g)))
    .join(", ");
  return `${[TESTS[step.kind], ...points.map((p) => namer.point(p))].join(", ")}: ${got || "nothing to see"}`;
}
