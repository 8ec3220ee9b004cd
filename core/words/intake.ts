import type { Feed, Follow, Intake, ScanEntry, ScanRow, ToldApart } from "../src/index.js";
import type { Namer } from "./faults.js";

type Words<K extends string> = Readonly<Record<K, string>>;
/** Quick picks of the intake, as a technician says them. */
export const CHOICE_WORDS = {
  symptoms: {
    noStart: "does not start",
    slowStart: "slow to start",
    cutsOut: "cuts out",
    reducedPower: "reduced power",
    deadDisplay: "dead display",
    warningLamps: "warning lamps",
    comesAndGoes: "comes and goes",
    wrongValue: "shows a wrong value",
    fuseBlows: "a fuse blows",
    curedItself: "went away by itself",
  } satisfies Words<Intake["symptoms"][number]>,
  conditions: {
    cold: "cold",
    hot: "hot",
    wet: "wet",
    bump: "after a bump",
    underLoad: "under load",
    afterTime: "after a while",
    cranking: "while cranking",
    always: "always",
  } satisfies Words<Intake["conditions"][number]>,
  tools: {
    meter: "meter",
    scanTool: "scan tool",
    testLamp: "test lamp",
    clamp: "amp clamp",
    scope: "scope",
    breaker: "resetting breaker",
    backProbes: "back-probes",
    breakoutLead: "breakout lead",
  } satisfies Words<NonNullable<Intake["tools"]>[number]>,
  history: {
    replaced: "replaced",
    repaired: "repaired",
    workNearby: "work done nearby",
    batteryWork: "battery work",
    accident: "accident",
    pests: "pests",
    water: "water got in",
    oil: "oil got in",
  } satisfies Words<Intake["history"][number]["what"]>,
  helped: { no: "did not help", partly: "helped a little", yes: "helped", unknown: "not known" } satisfies Words<
    Intake["history"][number]["helped"]
  >,
  brand: { maker: "maker's part", copy: "copy", used: "used part", unknown: "not known" } satisfies Words<
    Intake["history"][number]["brand"]
  >,
} as const;

/** Dangers of a machine, as they stand before every step. */
export const CAUTION_WORDS: Words<Intake["safety"][number]> = {
  restraint:
    "Restraint circuits (airbag, belt): maker's procedure and wait time first; no meter ohms, no lamps, no " +
    "probing. Qualified people only.",
  highVoltage: "High-voltage system: licensed people only; no pin tests.",
  fuel: "Fuel and high-pressure lines: no sparks; relieve pressure as the maker says.",
  hot: "Hot exhaust and coolant.",
  rotating: "Rotating parts: keep clear, and keep people clear while cranking.",
  throttle: "Throttle circuit: chock the machine and stand clear before the key goes on.",
  brake: "Brake circuit: chock the machine before the key goes on.",
  lifted: "Lifted machine or load: on stands or props, never under the load alone.",
};

/** What somebody who drives has to know, should the fault come back. */
export const DANGER_ADVICE: Readonly<Partial<Record<Intake["safety"][number], string>>> = {
  throttle: "If the engine does not follow the pedal, brake, put it out of gear and stop. Do not drive on.",
  brake: "If the brake feels other than usual or its lamp comes on, stop at once and do not drive on.",
  restraint:
    "If the restraint lamp comes on, belts and airbags may not work. Do not carry people until it was looked at.",
  highVoltage: "If the high-voltage warning comes on, stop, leave the machine and keep others away.",
};

const BECAUSE: Readonly<Record<string, string>> = {
  wet: "Comes when wet",
  hot: "Comes when hot",
  cold: "Comes when cold",
  bump: "Comes after a bump",
  underLoad: "Comes under load",
  cranking: "Comes while cranking",
  comesAndGoes: "Comes and goes",
  curedItself: "Went away by itself",
  deadDisplay: "Dead display",
  noStart: "Does not start",
  cutsOut: "Cuts out",
  slowStart: "Slow to start",
  fuseBlows: "A fuse blows",
  wrongValue: "Shows a wrong value",
  replaced: "Replaced",
  replacedCopy: "A copy or used part was fitted",
  repaired: "Repaired",
  workNearby: "Work done nearby",
  accident: "Accident",
  batteryWork: "Battery work",
  pests: "Pests",
  water: "Water got in",
  oil: "Oil got in",
  bulletin: "Bulletin",
  hearsay: "Hearsay",
  lessons: "Lessons of earlier jobs",
};
const ON: Readonly<Record<string, string>> = {
  corroding: "corrosion and bridged cavities",
  corrodingInWet: "corrosion and bridged cavities in wet places",
  corrodingElsewhere: "corrosion and bridged cavities elsewhere",
  looseInVibrating: "loose and broken contacts where it vibrates",
  looseElsewhere: "loose and broken contacts elsewhere",
  inHotZones: "everything in hot zones",
  batteryLow: "a low battery",
  loose: "loose and broken contacts",
  supplies: "feeds, grounds and the battery",
  shorts: "shorts to ground",
  wrongReading: "wrong readings and wrong parts",
  partItself: "the part itself",
  wrongPart: "a wrong look-alike part",
  contactsAndWires: "contacts and wires there",
  wires: "wires",
  film: "oily contacts",
  all: "everything there",
  elsewhere: "everything they do not name",
};
/** One line of what the intake did: "Comes when wet: corrosion and bridged cavities count 2 times (46 faults)". */
export function feedText(f: Feed): string {
  const factor = f.factor >= 1 ? `${plain(f.factor)} times as much` : `${plain(f.factor)} of what they did`;
  return (
    `${BECAUSE[f.because] ?? f.because}${f.at.length ? ` (${f.at.join(", ")})` : ""}: ${ON[f.on] ?? f.on} ` +
    `${ONE_THING.has(f.on) ? "counts" : "count"}` +
    ` ${f.factor >= 1 ? factor : factor.replace("they", "it")}, in ${f.faults} ` +
    `${f.faults === 1 ? "fault" : "faults"}.`
  );
}
/** What is said of one thing, not of several. */
const ONE_THING: ReadonlySet<string> = new Set(["partItself", "all", "elsewhere", "batteryLow", "wrongPart"]);
const plain = (n: number) => String(Number(n.toPrecision(2)));

export const scanWhenText: Words<ScanEntry["when"]> = {
  before: "before anything was touched",
  afterClear: "cleared, key cycled",
  afterCrank: "after cranking",
  afterDrive: "after a drive",
  other: "another scan",
};
export const storyText: Words<ScanRow["story"]> = {
  onlyOnce: "",
  cameBack: "came back",
  stayedAway: "stayed away",
  always: "there every time",
  new: "new",
};

const WHY: Words<ToldApart["why"]> = {
  battery: "as high as the battery",
  reference: "5 V",
  pulledUp: "5 V, pulled up by the module",
  ground: "nothing to negative, the battery to positive",
  floating: "nothing to negative",
  between: "between the two",
};
export const toldText = (t: ToldApart) =>
  `${t.function === "unknown" ? "not told yet" : t.function}` +
  `${t.sure || t.function === "unknown" ? "" : ", perhaps"} (${WHY[t.why]})`;

/** Where a followed cavity ends, in words. */
export const followEnd = (f: Follow, namer: Namer) => (f.end === undefined ? "ends here" : namer.point(f.end));
