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
import { t } from "./messages/index.js";
import { worded } from "./language.js";

/** The unit an instrument's values are in; a lamp and a beeper show words. */
export const unitOf = (instrument: Instrument | "none" | "clue" | "code"): Unit =>
  instrument === "ohmmeter" || instrument === "continuity" ? "Ω" : instrument === "clamp" ? "A" : "V";

/** A value as that instrument shows it. */
export function shownText(instrument: Instrument, value: number): string {
  if (instrument === "lamp")
    return value >= 0.75 ? t("reasons.bright") : value > 0.25 ? t("reasons.dim") : t("reasons.dark");
  if (instrument === "continuity") return value > 0.5 ? t("reasons.beep") : t("reasons.noBeep");
  return formatQuantity(value, unitOf(instrument));
}

const CLUES: Readonly<Record<string, readonly [string, string]>> = worded(() => ({
  look: [t("reasons.lookedWrong"), t("reasons.lookedSound")],
  wiggle: [t("reasons.reactedToMoving"), t("reasons.didNotReactToMoving")],
  swap: [t("reasons.wentWithThePartWhenSwapped"), t("reasons.stayedWhereItWasWhenSwapped")],
  partNumber: [t("reasons.carriesAnotherNumber"), t("reasons.carriesTheRightNumber")],
  teeth: [t("reasons.lacksPulses"), t("reasons.lacksNoPulse")],
  holds: [t("reasons.held"), t("reasons.didNotHold")],
  identity: [t("reasons.wasAnotherConnector"), t("reasons.wasTheRightConnector")],
}));

/** Why one piece of evidence speaks for or against, in a line. */
export function reasonText(r: Reason): string {
  if (r.kind === "code")
    return r.expected >= 0.5 === (r.got === 1)
      ? t("reasons.asItWould", { about: r.about, is: r.got ? t("reasons.set") : t("reasons.notSet") })
      : r.got
        ? t("reasons.isSetThisAloneWouldNot", { about: r.about })
        : t("reasons.isNotSetThisWouldSet", { about: r.about });
  if (r.kind === "clue")
    return (
      `${r.about} ${CLUES[r.clue ?? ""]?.[r.got ? 0 : 1] ?? ""}` +
      `${Number.isNaN(r.expected) ? "" : t("reasons.chanceOfThat", { share: shareText(r.expected) })}`
    );
  const got = t("reasons.at", {
    shown: shownText(r.kind, r.got),
    about: r.about,
    where: r.kind === "scanTool" ? t("reasons.inTheScanTool") : "",
  });
  return Number.isNaN(r.expected) ? got : t("reasons.expected", { got, expected: expectedText(r.kind, r.expected) });
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
      return [t("reasons.itReacted"), t("reasons.noReaction")];
    case "swap":
      return [t("reasons.itWentWithThePart"), t("reasons.itStayed")];
    case "identity":
      return [t("reasons.itWasAnotherOne"), t("reasons.itIsTheRightOne")];
    case "breaker":
      return [t("reasons.itHolds"), t("reasons.itTrips")];
    case "codeSets":
      return [t("reasons.itSets"), t("reasons.itDoesNotSet")];
    case "partNumber":
      return [t("reasons.anotherNumber"), t("reasons.theRightNumber")];
    default:
      return [t("reasons.somethingIsWrongThere"), t("reasons.nothingToSee")];
  }
}

export const FINDING_WORDS: Readonly<Record<Finding, string>> = worded(() => ({
  nothing: t("reasons.nothingToSee2"),
  wet: t("reasons.wet"),
  oily: t("reasons.oily"),
  green: t("reasons.green"),
  chewed: t("reasons.chewed"),
  rubbed: t("reasons.rubbedThrough"),
  melted: t("reasons.melted"),
  crooked: t("reasons.crooked"),
  halfClipped: t("reasons.halfClipped"),
  pushedBack: t("reasons.terminalPushedBack"),
  cracked: t("reasons.cracked"),
  previousRepair: t("reasons.anEarlierRepair"),
  burnt: t("reasons.burnt"),
  chipped: t("reasons.chipped"),
  worn: t("reasons.worn"),
  loose: t("reasons.loose"),
}));

export const SCHOOL_WORDS: Readonly<Record<Policy, { readonly title: string; readonly detail: string }>> = worded(
  () => ({
    information: {
      title: t("reasons.fastestRecommended"),
      detail: t("reasons.whatSplitsTheSuspectsBestFor"),
    },
    easiest: { title: t("reasons.easiestAccessFirst"), detail: t("reasons.theCheapestTestThatStillTells") },
    halve: {
      title: t("reasons.halveWhatIsLeft"),
      detail: t("reasons.theTestWhoseGoodOrBad"),
    },
    powerGroundSignal: { title: t("reasons.powerGroundSignal"), detail: t("reasons.atTheCodedPartEasiestTo") },
    chart: { title: t("reasons.theMakersChart"), detail: t("reasons.theStepsYouEnteredInTheir") },
    random: { title: t("reasons.anythingOnOffer"), detail: t("reasons.forComparisonOnly") },
  }),
);

/** One more test against the part now, in words. Costs are on average, from here on, in the job's own currency. */
export function economicsText(e: Economics): string {
  const money = (x: number) => (x < 10 ? x.toFixed(1) : String(Math.round(x)));
  const basis = e.priced ? "" : t("reasons.byCommonPricesNoneGiven");
  return e.cheaper === "test"
    ? t("reasons.buyingNowWouldWasteAboutOn", {
        part: e.part,
        money: money(e.buyNow),
        money2: money(e.testFirst),
        basis,
      })
    : t("reasons.oneMoreTestCostsAboutMore", {
        money: money(e.testFirst),
        money2: money(e.buyNow),
        part: e.part,
        basis,
      });
}
