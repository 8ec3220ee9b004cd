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
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** What was done, as a verb in the past. */
export const REPAIR_WORDS: Readonly<Record<RepairedEntry["how"], string>> = worded(() => ({
  replaced: t("proof.replaced"),
  repaired: t("proof.repaired"),
  rewired: t("proof.rewired"),
  cleaned: t("proof.cleaned"),
  reseated: t("proof.reseated"),
  adjusted: t("proof.adjusted"),
}));
export const PART_WORDS: Readonly<Record<NonNullable<RepairedEntry["part"]>["condition"], string>> = worded(() => ({
  new: t("proof.newOfTheMaker"),
  used: t("proof.used"),
  copy: t("proof.copyByAnotherMaker"),
}));
export const WITH_WORDS: Readonly<Record<NonNullable<RepairedEntry["part"]>["with"][number], string>> = worded(() => ({
  connector: t("proof.connectorOrPigtail"),
  seal: t("proof.seal"),
  bothOfAPair: t("proof.bothOfAPair"),
}));
export const JOINT_WORDS: Readonly<Record<NonNullable<RepairedEntry["joined"]>, string>> = worded(() => ({
  soldered: t("proof.solderedWithSleeve"),
  crimped: t("proof.sealedCrimp"),
  asMakerSays: t("proof.asTheMakersManualSays"),
}));
export const CLOSED_WORDS: Readonly<Record<NonNullable<ClosedEntry["because"]>, string>> = worded(() => ({
  proven: t("proof.repairProven"),
  notReproduced: t("proof.couldNotBeReproduced"),
  temporary: t("proof.temporaryRepairComesBack"),
  declined: t("proof.customerWantsNoMoreWork"),
  awaitsPart: t("proof.waitsForAPart"),
  other: t("proof.anotherReason"),
}));
export const FOLLOW_UP_WORDS: Readonly<Record<FollowedUpEntry["result"], string>> = worded(() => ({
  stillGood: t("proof.stillGood"),
  cameBack: t("proof.theSameFaultCameBack"),
  somethingElse: t("proof.somethingElseIsWrong"),
}));

/** "Cleaned splice S22", "Replaced oil pressure sensor B9". */
export function repairedText(e: Pick<RepairedEntry, "how" | "things">, namer: Namer): string {
  return `${REPAIR_WORDS[e.how]} ${e.things.map((thing) => namer.thing(thing)).join(", ")}`;
}
/** What else is known of a repair, in a few words. */
export function repairDetail(e: RepairedEntry): string {
  const { part, joined, temporary, givenOut } = e;
  return [
    ...(part
      ? [
          [part.brand, part.number].filter(Boolean).join(" "),
          PART_WORDS[part.condition],
          part.with.length
            ? t("proof.with", { with: part.with.map((w) => WITH_WORDS[w]).join(t("proof.andJoin")) })
            : "",
          part.measured ? t("proof.measuredBeforeItWentIn") : "",
        ]
      : []),
    joined ? JOINT_WORDS[joined] : "",
    temporary ? t("proof.temporaryBackBy", { temporary }) : "",
    givenOut
      ? t("proof.givenOut", {
          asked: givenOut.asked,
          checked: givenOut.checked ? t("proof.checked") : t("proof.notCheckedYet"),
        })
      : "",
  ]
    .filter(Boolean)
    .join("; ");
}

/** How sure it is that a repair worked, in words. */
export function curedText({ cured, notWell, anotherLeft, wentAway }: RepairOutcome): string {
  if (cured >= 0.97) return t("proof.cured");
  if (cured >= 0.9) return t("proof.veryLikelyCured");
  if (cured >= 0.7) return t("proof.probablyCured");
  if (cured >= 0.4) return t("proof.notProvenYet");
  if (notWell >= anotherLeft && notWell >= wentAway) return t("proof.notCuredTheRepairDidNot");
  return anotherLeft >= wentAway ? t("proof.notCuredAnotherFaultIsLeft") : t("proof.goneForNowButNotBy");
}
/** Below this nothing is said of what could still be wrong. */
const NAMED_FROM = 0.005;
/** What could still be wrong, the likeliest first. */
export function stillWrong(outcome: RepairOutcome): string[] {
  const list: readonly (readonly [number, string])[] = [
    [outcome.notWell, t("proof.theRightPlaceWasRepairedBut")],
    [outcome.anotherLeft, t("proof.anotherFaultIsLeft")],
    [outcome.wentAway, t("proof.itWentAwayWhileItWas")],
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
        t("proof.putBackWhatWasTakenApart", { things: a.things.map((thing) => namer.thing(thing)).join(", ") }),
        t("proof.nothingIsLeftOtherThanIt"),
      );
    case "check":
      return text(t("proof.lookAtTheWorkThatWas", { asked: a.asked }), t("proof.whatWasAskedForIsDone"));
    case "reset":
      return text(
        `${a.reset.what}${a.reset.tool ? ` (${a.reset.tool})` : ""}`,
        t("proof.theToolSaysThatItIs"),
        a.reset.ifLeftOut ? t("proof.leftOut", { ifLeftOut: a.reset.ifLeftOut }) : "",
        t("proof.asTheMakersManualSays2"),
      );
    case "clear":
      return text(t("proof.clearTheCodesOfAllModules"), "", "", t("proof.saveTheScanFirstWhatIs"));
    case "scan":
      return scanText(a, namer.units);
    case "reading": {
      const what = t("proof.at", { functionOf: instructor.functionOf(a.point), point: namer.point(a.point) });
      const state = a.state.key === "on" ? "" : `, ${keyText(a.state.key)}`;
      const out = a.state.unplugged.length ? t("proof.unplugged", { unplugged: a.state.unplugged.join(", ") }) : "";
      const [low, high] = a.good.map((v) => shownText(a.instrument, v));
      return text(
        a.likeness
          ? t("proof.readTheInTheScanTool", { what, thing: namer.thing(a.likeness) })
          : a.instrument === "scanTool"
            ? t("proof.readTheInTheScanTool2", { what, state, out })
            : t("proof.measureTheAgain", { what, state, out }),
        t("proof.to", { low, high }),
        a.before === undefined
          ? t("proof.anythingElse")
          : t("proof.asBeforeOrAnythingElseOutside", { before: shownText(a.instrument, a.before) }),
      );
    }
    case "wiggle":
      return text(
        t("proof.moveOnceMoreAndWatchA", { thing: namer.thing(a.thing) }),
        t("proof.nothingMoves"),
        t("proof.theValueJumpsTheContactIs"),
      );
  }
}
function scanText(a: Extract<ProofStep["action"], { kind: "scan" }>, units: Units): ProofStepText {
  const where = a.modules.join(", ");
  const codes =
    a.codes.length > 1
      ? t("proof.noneOfIsSet", { codes: list(a.codes) })
      : t("proof.isNotSet", { codes: list(a.codes) });
  if (a.when === "afterClear")
    return text(t("proof.keyOffKeyOnThenScan", { where }), codes, t("proof.oneThatIsSetAgainAt"));
  if (a.when === "afterCrank")
    return text(
      t("proof.crankTheEngineThenScan", { where }),
      codes,
      t("proof.oneThatIsSetAgainThe"),
      t("proof.nobodyNearMovingPartsOutOf"),
    );
  return text(
    t("proof.thenScan", { trip: tripText(a.trip, units), where }),
    codes,
    t("proof.oneThatIsSetAgainThe2"),
    t("proof.onTheRoadBySomebodyLicensed"),
  );
}
function tripText({ minutes, km, coldSoakHours, notes }: Trip, units: Units): string {
  const soak = coldSoakHours ? t("proof.letItStandHThenDrive", { coldSoakHours }) : t("proof.drive");
  const way = km ? distanceText(km, units) : t("proof.min", { minutes: Math.round(minutes) });
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
  if (steps.length === 0) return t("proof.noStepIsLeftThatWould");
  const done = steps.filter((s) => s.status !== "open").length;
  const left = steps.length - done;
  if (left === 0)
    return steps.some((s) => s.status === "failed") ? t("proof.allStepsDoneNotAllPassed") : t("proof.allStepsPassed");
  return t("proof.ofStepsDoneAboutMinLeft", {
    done,
    stepsCount: steps.length,
    minutes: Math.max(1, Math.round(minutes)),
  });
}
