import {
  formatQuantity,
  type Candidate,
  type Economics,
  type Finding,
  type Instrument,
  type Reason,
  type Policy,
  type Unit,
} from "../src/index.js";
import { shareText } from "./shares.js";

/** The unit an instrument's values are in; a lamp and a beeper show words. */
export const unitOf = (instrument: Instrument | "none" | "clue" | "code"): Unit =>
  instrument === "ohmmeter" || instrument === "continuity" ? "Ω" : instrument === "clamp" ? "A" : "V";

/** A value as that instrument shows it. */
export function shownText(instrument: Instrument, value: number): string {
  if (instrument === "lamp") return value >= 0.75 ? "bright" : value > 0.25 ? "dim" : "dark";
  if (instrument === "continuity") return value > 0.5 ? "beep" : "no beep";
  return formatQuantity(value, unitOf(instrument));
}

const CLUES: Readonly<Record<string, readonly [string, string]>> = {
  look: ["looked wrong", "looked sound"],
  wiggle: ["reacted to moving", "did not react to moving"],
  swap: ["went with the part when swapped", "stayed where it was when swapped"],
  partNumber: ["carries another number", "carries the right number"],
  holds: ["held", "did not hold"],
  identity: ["was another connector", "was the right connector"],
};

/** Why one piece of evidence speaks for or against, in a line. */
export function reasonText(r: Reason): string {
  if (r.kind === "code")
    return r.expected >= 0.5 === (r.got === 1)
      ? `${r.about} ${r.got ? "set" : "not set"}, as it would`
      : r.got
        ? `${r.about} is set; this alone would not set it`
        : `${r.about} is not set; this would set it`;
  if (r.kind === "clue")
    return (
      `${r.about} ${CLUES[r.clue ?? ""]?.[r.got ? 0 : 1] ?? ""}` +
      `${Number.isNaN(r.expected) ? "" : `; chance of that: ${shareText(r.expected)}`}`
    );
  const got = `${shownText(r.kind, r.got)} at ${r.about}${r.kind === "scanTool" ? " in the scan tool" : ""}`;
  return Number.isNaN(r.expected) ? got : `${got}; expected ${expectedText(r.kind, r.expected)}`;
}

/** A lamp and a beeper are expected to see volts and ohms. */
function expectedText(kind: Exclude<Reason["kind"], "code" | "clue">, expected: number): string {
  if (kind === "lamp") return formatQuantity(expected, "V");
  return kind === "continuity" ? formatQuantity(expected, "Ω") : shownText(kind, expected);
}

/** What the two answers to a test without an instrument are called: yes, no. */
export function yesNo(kind: Candidate["kind"]): readonly [string, string] {
  switch (kind) {
    case "wiggle":
      return ["It reacted", "No reaction"];
    case "swap":
      return ["It went with the part", "It stayed"];
    case "identity":
      return ["It was another one", "It is the right one"];
    case "breaker":
      return ["It holds", "It trips"];
    case "codeSets":
      return ["It sets", "It does not set"];
    case "partNumber":
      return ["Another number", "The right number"];
    default:
      return ["Something is wrong there", "Nothing to see"];
  }
}

export const FINDING_WORDS: Readonly<Record<Finding, string>> = {
  nothing: "nothing to see",
  wet: "wet",
  oily: "oily",
  green: "green",
  chewed: "chewed",
  rubbed: "rubbed through",
  melted: "melted",
  crooked: "crooked",
  halfClipped: "half clipped",
  pushedBack: "terminal pushed back",
  cracked: "cracked",
  previousRepair: "an earlier repair",
  burnt: "burnt",
  chipped: "chipped",
  worn: "worn",
  loose: "loose",
};

export const SCHOOL_WORDS: Readonly<Record<Policy, { readonly title: string; readonly detail: string }>> = {
  information: {
    title: "Fastest (recommended)",
    detail: "what splits the suspects best for the time it takes, looking ahead to the end",
  },
  easiest: { title: "Easiest access first", detail: "the cheapest test that still tells something" },
  halve: {
    title: "Halve what is left",
    detail: "the test whose good or bad answer halves the suspects, whatever it costs",
  },
  powerGroundSignal: { title: "Power, ground, signal", detail: "at the coded part easiest to reach, then at the next" },
  chart: { title: "The maker’s chart", detail: "the steps you entered, in their order; without any, code by code" },
  random: { title: "Anything on offer", detail: "for comparison only" },
};

/** One more test against the part now, in words. Costs are on average, from here on, in the job's own currency. */
export function economicsText(e: Economics): string {
  const money = (x: number) => (x < 10 ? x.toFixed(1) : String(Math.round(x)));
  const basis = e.priced ? "" : " (by common prices: none given)";
  return e.cheaper === "test"
    ? `Buying ${e.part} now would waste about ${money(e.buyNow)} on average; one more test first costs about ` +
        `${money(e.testFirst)}${basis}.`
    : `One more test costs about ${money(e.testFirst)}, more than the ${money(e.buyNow)} that buying ${e.part} ` +
        `now would waste on average${basis}.`;
}
