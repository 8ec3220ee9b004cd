import {
  preferredUnit,
  STORED_UNITS,
  toPreferred,
  type ClosedEntry,
  type FollowedUpEntry,
  type FrozenProof,
  type Proof,
  type ProofStep,
  type RepairedEntry,
  type RepairOutcome,
  type Trip,
  type Units,
} from "../src/index.js";
import type { Namer } from "./faults.js";
import type { Instructor } from "./readings.js";
import { keyText } from "./readings.js";
import { shownText } from "./reasons.js";
import { shareText } from "./shares.js";

/** What was done, as a verb in the past. */
export const REPAIR_WORDS: Readonly<Record<RepairedEntry["how"], string>> = {
  replaced: "Replaced",
  repaired: "Repaired",
  rewired: "Rewired",
  cleaned: "Cleaned",
  reseated: "Reseated",
  adjusted: "Adjusted",
};
export const PART_WORDS: Readonly<Record<NonNullable<RepairedEntry["part"]>["condition"], string>> = {
  new: "new, of the maker",
  used: "used",
  copy: "copy by another maker",
};
export const WITH_WORDS: Readonly<Record<NonNullable<RepairedEntry["part"]>["with"][number], string>> = {
  connector: "connector or pigtail",
  seal: "seal",
  bothOfAPair: "both of a pair",
};
export const JOINT_WORDS: Readonly<Record<NonNullable<RepairedEntry["joined"]>, string>> = {
  soldered: "soldered, with sleeve",
  crimped: "sealed crimp",
  asMakerSays: "as the maker’s manual says",
};
export const CLOSED_WORDS: Readonly<Record<NonNullable<ClosedEntry["because"]>, string>> = {
  proven: "repair proven",
  notReproduced: "could not be reproduced",
  temporary: "temporary repair, comes back",
  declined: "customer wants no more work",
  awaitsPart: "waits for a part",
  other: "another reason",
};
export const FOLLOW_UP_WORDS: Readonly<Record<FollowedUpEntry["result"], string>> = {
  stillGood: "Still good",
  cameBack: "The same fault came back",
  somethingElse: "Something else is wrong",
};

/** "Cleaned splice S22", "Replaced oil pressure sensor B9". */
export function repairedText(e: Pick<RepairedEntry, "how" | "things">, namer: Namer): string {
  return `${REPAIR_WORDS[e.how]} ${e.things.map((t) => namer.thing(t)).join(", ")}`;
}
/** What else is known of a repair, in a few words. */
export function repairDetail(e: RepairedEntry): string {
  const { part, joined, temporary, givenOut } = e;
  return [
    ...(part
      ? [
          [part.brand, part.number].filter(Boolean).join(" "),
          PART_WORDS[part.condition],
          part.with.length ? `with ${part.with.map((w) => WITH_WORDS[w]).join(" and ")}` : "",
          part.measured ? "measured before it went in" : "",
        ]
      : []),
    joined ? JOINT_WORDS[joined] : "",
    temporary ? `temporary, back by ${temporary}` : "",
    givenOut ? `given out: ${givenOut.asked}${givenOut.checked ? ", checked" : ", not checked yet"}` : "",
  ]
    .filter(Boolean)
    .join("; ");
}

/** How sure it is that a repair worked, in words. */
export function curedText({ cured, notWell, anotherLeft, wentAway }: RepairOutcome): string {
  if (cured >= 0.97) return "Cured";
  if (cured >= 0.9) return "Very likely cured";
  if (cured >= 0.7) return "Probably cured";
  if (cured >= 0.4) return "Not proven yet";
  if (notWell >= anotherLeft && notWell >= wentAway) return "Not cured: the repair did not take";
  return anotherLeft >= wentAway ? "Not cured: another fault is left" : "Gone for now, but not by the repair";
}
/** Below this nothing is said of what could still be wrong. */
const NAMED_FROM = 0.005;
/** What could still be wrong, the likeliest first. */
export function stillWrong(outcome: RepairOutcome): string[] {
  const list: readonly (readonly [number, string])[] = [
    [outcome.notWell, "the right place was repaired, but not well, or the new part is bad"],
    [outcome.anotherLeft, "another fault is left"],
    [outcome.wentAway, "it went away while it was being worked on, and may come back"],
  ];
  return list
    .filter(([share]) => share >= NAMED_FROM)
    .sort((a, b) => b[0] - a[0])
    .map(([share, text]) => `${text} (${shareText(share)})`);
}

/** A step of the proof in words. */
export interface ProofStepText {
  readonly title: string;
  /** what shows that the repair holds */
  readonly proves: string;
  /** what shows that it does not */
  readonly disproves: string;
  /** what to mind, before the step */
  readonly caution: string;
}
const text = (title: string, proves = "", disproves = "", caution = ""): ProofStepText => ({
  title,
  proves,
  disproves,
  caution,
});
const list = (codes: readonly { readonly id: string }[]) => codes.map((c) => c.id).join(", ");

export function proofStepText(
  { action: a }: Pick<ProofStep, "action">,
  namer: Namer,
  instructor: Instructor,
): ProofStepText {
  switch (a.kind) {
    case "restore":
      return text(
        `Put back what was taken apart: ${a.things.map((t) => namer.thing(t)).join(", ")}`,
        "Nothing is left other than it was found.",
      );
    case "check":
      return text(`Look at the work that was given out: ${a.asked}`, "What was asked for is done.");
    case "reset":
      return text(
        `${a.reset.what}${a.reset.tool ? ` (${a.reset.tool})` : ""}`,
        "The tool says that it is done.",
        a.reset.ifLeftOut ? `Left out: ${a.reset.ifLeftOut}` : "",
        "As the maker’s manual says.",
      );
    case "clear":
      return text("Clear the codes of all modules", "", "", "Save the scan first: what is cleared is gone.");
    case "scan":
      return scanText(a, namer.units);
    case "reading": {
      const what = `${instructor.functionOf(a.point)} at ${namer.point(a.point)}`;
      const state = a.state.key === "on" ? "" : `, ${keyText(a.state.key)}`;
      const out = a.state.unplugged.length ? `, ${a.state.unplugged.join(", ")} unplugged` : "";
      const [low, high] = a.good.map((v) => shownText(a.instrument, v));
      return text(
        a.likeness
          ? `Read the ${what} in the scan tool: at rest it agrees with ${namer.thing(a.likeness)}`
          : a.instrument === "scanTool"
            ? `Read the ${what} in the scan tool again${state}${out}`
            : `Measure the ${what} again${state}${out}`,
        `${low} to ${high}.`,
        a.before === undefined
          ? "Anything else."
          : `${shownText(a.instrument, a.before)} as before, or anything else outside.`,
      );
    }
    case "wiggle":
      return text(
        `Move ${namer.thing(a.thing)} once more, and watch a value it carries`,
        "Nothing moves.",
        "The value jumps: the contact is still loose.",
      );
  }
}
function scanText(a: Extract<ProofStep["action"], { kind: "scan" }>, units: Units): ProofStepText {
  const where = a.modules.join(", ");
  const codes = a.codes.length > 1 ? `None of ${list(a.codes)} is set.` : `${list(a.codes)} is not set.`;
  if (a.when === "afterClear")
    return text(
      `Key off, key on, then scan ${where}`,
      codes,
      "One that is set again at once: the fault is still there.",
    );
  if (a.when === "afterCrank")
    return text(
      `Crank the engine, then scan ${where}`,
      codes,
      "One that is set again: the fault is still there.",
      "Nobody near moving parts; out of gear.",
    );
  return text(
    `${tripText(a.trip, units)}, then scan ${where}`,
    codes,
    "One that is set again: the fault is still there, or comes and goes.",
    "On the road by somebody licensed, with a second person to watch the values.",
  );
}
function tripText({ minutes, km, coldSoakHours, notes }: Trip, units: Units): string {
  const soak = coldSoakHours ? `Let it stand ${coldSoakHours} h, then drive` : "Drive";
  const way = km ? distanceText(km, units) : `${Math.round(minutes)} min`;
  return `${soak} ${way}${notes.length ? ` (${notes.join("; ")})` : ""}`;
}

/** `20 km`, `12 mi`: a way to drive needs no decimals. */
const distanceText = (km: number, units: Units) =>
  `${Number(toPreferred(km, "km", units).toPrecision(2))} ${preferredUnit("km", units)}`;

/** A proof in words, to be kept with the entry that closes a job: in the units of storage, whoever closes it. */
export function frozenProof({ outcome, steps }: Proof, namer: Namer, instructor: Instructor): FrozenProof {
  const words = [namer.withUnits(STORED_UNITS), instructor.withUnits(STORED_UNITS)] as const;
  return {
    outcome,
    steps: steps.map((s) => {
      const { title, proves } = proofStepText(s, ...words);
      return {
        title,
        good: proves,
        status: s.status,
        ...(s.number === undefined ? {} : { entry: s.number }),
        ...(s.again.length ? { again: [...s.again] } : {}),
      };
    }),
  };
}

/** Where the proof stands, in one line: "3 of 5 steps done, about 20 min left". */
export function proofProgress({ steps, minutes }: Pick<Proof, "steps" | "minutes">): string {
  if (steps.length === 0) return "No step is left that would tell more";
  const done = steps.filter((s) => s.status !== "open").length;
  const left = steps.length - done;
  if (left === 0)
    return steps.some((s) => s.status === "failed") ? "All steps done, not all passed" : "All steps passed";
  return `${done} of ${steps.length} steps done, about ${Math.max(1, Math.round(minutes))} min left`;
}
