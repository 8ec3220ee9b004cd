import {
  formatQuantity,
  testPlaceOf,
  undoneEntries,
  type Analysis,
  type Entry,
  isSetCode,
  type TraceChannel,
} from "@radicula/core";
import {
  CHOICE_WORDS,
  CLOSED_WORDS,
  FOLLOW_UP_WORDS,
  repairDetail,
  repairedText,
  FINDING_WORDS,
  DISTURBED_WORDS,
  keyText,
  RUN_WORDS,
  scanWhenText,
  SCHOOL_WORDS,
  shareText,
  readingValue,
  secondsText,
  seenText,
  shownText,
  type Instructor,
  type Namer,
  midSentence,
  readerLocale,
  worded,
} from "@radicula/core/words";
import { capital } from "@/ui/text";
import { STATUS_WORDS } from "../statusWords";
import { t } from "@/messages";

export interface LogLine {
  readonly number: number;
  readonly time: string;
  readonly what: string;
  readonly value: string;
  readonly remark: string;
  readonly undone: boolean;
  readonly saved: boolean;
  readonly canUndo: boolean;
  readonly by: string;
  readonly note: string;
  readonly type: Entry["type"];
  /** the recording that can be looked at again */
  readonly recording?: string;
}

/** The logbook as people read it, newest first. */
export function logLines(
  entries: readonly Entry[],
  saved: number,
  analysis: Analysis | undefined,
  namer: Namer,
  instructor: Instructor,
): LogLine[] {
  const undone = undoneEntries(entries);
  return entries
    .map((e, i) => ({
      number: i + 1,
      time: clock(e.at),
      ...text(e, i + 1, analysis, namer, instructor),
      undone: undone.has(i + 1),
      saved: i < saved,
      by: e.by ?? "",
      note: "note" in e && e.note ? e.note : "",
      type: e.type,
      ...(e.type === "trace" && e.recording !== undefined ? { recording: e.recording } : {}),
      canUndo: e.type !== "undo" && !undone.has(i + 1),
    }))
    .reverse();
}

const PARTS = worded(() => ({ removed: t("logbook.removedPart"), new: t("logbook.newPart") }));

/** What an entry says, in words. */
interface Said {
  readonly what: string;
  readonly value: string;
  readonly remark: string;
}
type EntryOf<T extends Entry["type"]> = Extract<Entry, { type: T }>;
const said = (what: string, value = "", remark = ""): Said => ({ what, value, remark });
/** Things listed before the rest is left out. */
const LISTED = 6;

function text(e: Entry, number: number, analysis: Analysis | undefined, namer: Namer, instructor: Instructor): Said {
  switch (e.type) {
    case "code":
      return said(t("logbook.code", { module: e.module }), e.code, STATUS_WORDS[e.status]);
    case "reading":
      return readingText(e, number, analysis, namer, instructor);
    case "scan":
      return scanText(e);
    case "trace":
      return traceText(e, namer);
    case "intake":
      return intakeText(e);
    case "meterCheck":
      return meterText(e);
    case "look":
    case "wiggle":
    case "swap":
    case "identity":
    case "holds":
      return clueText(e);
    default:
      return stepText(e, namer);
  }
}

function readingText(
  e: EntryOf<"reading">,
  number: number,
  analysis: Analysis | undefined,
  namer: Namer,
  instructor: Instructor,
): Said {
  const { instrument } = e;
  const point = e.points[0] ?? "";
  const views = analysis?.readings.filter((r) => r.number === number) ?? [];
  const healthy = views.map((v) => (Number.isNaN(v.healthy) ? "—" : shownText(instrument, v.healthy))).join(" · ");
  const state = [
    e.state.key === "on" ? "" : keyText(e.state.key),
    e.state.unplugged.length > 4
      ? t("logbook.unplugged", { unpluggedCount: e.state.unplugged.length })
      : e.state.unplugged.length
        ? t("logbook.unplugged2", { unplugged: e.state.unplugged.join(", ") })
        : "",
    e.state.jumpers?.length ? t("logbook.jumpered") : "",
    ...Object.entries(e.state.stimulus ?? {}).map(([part, v]) => instructor.stimulus(part, v)),
    e.part ? PARTS[e.part] : "",
    e.black !== undefined ? t("logbook.blackOn", { point: namer.point(e.black) }) : "",
    e.corrects ? t("logbook.insteadOfEntry", { corrects: e.corrects }) : "",
  ]
    .filter(Boolean)
    .join(", ");
  return {
    what:
      instrument === "scanTool"
        ? t("logbook.scanToolAt", {
            functionOf: instructor.functionOf(point),
            point: namer.point(point),
            state: state ? `; ${state}` : "",
          })
        : t("logbook.at", {
            functionOf: capital(instructor.functionOf(point)),
            point:
              e.points.length > 1 ? namer.point(point).replace(/, [^,]*$/, t("logbook.bothSides")) : namer.point(point),
            state: state ? `; ${state}` : "",
          }),
    value: e.values.map((v) => readingValue(e, v)).join(" · "),
    remark: healthy ? t("logbook.ifHealthy", { healthy }) : "",
    ...(e.swing
      ? {
          value: t("logbook.to", {
            readingValue: readingValue(e, e.swing[0]),
            readingValue2: readingValue(e, e.swing[1]),
          }),
        }
      : {}),
  };
}

function scanText(e: EntryOf<"scan">): Said {
  const codes = e.codes.map((c) => c.code);
  return said(
    t("logbook.scan", { when: scanWhenText[e.when], wiped: e.wiped ? t("logbook.batteryHadBeenOff") : "" }),
    countText(e.codes.filter(isSetCode).length),
    codes.slice(0, LISTED).join(", ") + (codes.length > LISTED ? " …" : ""),
  );
}

function traceText(e: EntryOf<"trace">, namer: Namer): Said {
  const first = e.channels[0];
  return said(
    t("logbook.recordedAt", {
      places: e.channels
        .slice(0, LISTED)
        .map((c) => (c.by === "clamp" ? namer.thing(c.on) : namer.point(c.on)))
        .join(", "),
      state: e.state.key === "on" ? "" : `; ${keyText(e.state.key)}`,
    }),
    secondsText(e.seconds),
    e.channels.length === 1 && first
      ? seenText(first, channelUnit(first))
      : e.channels.map((c) => `${c.name}: ${seenText(c, channelUnit(c))}`).join("; "),
  );
}
const channelUnit = ({ by, unit }: TraceChannel) => unit ?? (by === "clamp" ? "A" : "V");

function intakeText({ intake }: EntryOf<"intake">): Said {
  const told = [
    ...intake.symptoms.map((s) => CHOICE_WORDS.symptoms[s]),
    ...intake.conditions.map((c) => CHOICE_WORDS.conditions[c]),
    ...intake.history.map((h) => `${CHOICE_WORDS.history[h.what]} ${h.at.join(", ")}`.trim()),
  ];
  return said(t("logbook.intake"), "", told.slice(0, LISTED).join(", "));
}

function meterText(e: EntryOf<"meterCheck">): Said {
  const leads =
    e.leads === undefined ? "" : t("logbook.leads", { ohm: e.leads === "OL" ? "OL" : formatQuantity(e.leads, "Ω") });
  const battery = e.battery === undefined ? "" : formatQuantity(e.battery, "V");
  const ground =
    e.ground === undefined ? "" : t("logbook.blackLeadFromBatteryNegative", { volts: formatQuantity(e.ground, "V") });
  return said(t("logbook.checkedTheMeter"), [leads, battery].filter(Boolean).join(" · "), ground);
}

function clueText(e: EntryOf<"look" | "wiggle" | "swap" | "identity" | "holds">): Said {
  switch (e.type) {
    case "look":
      return said(t("logbook.lookedAt", { thing: e.thing }), "", e.found.map((f) => FINDING_WORDS[f]).join(", "));
    case "wiggle":
      return said(
        t("logbook.moved", { thing: e.thing }),
        "",
        e.reacted ? t("logbook.itReacted") : t("logbook.noReaction"),
      );
    case "swap":
      return {
        what: t("logbook.swapped", { parts: e.parts.join(t("logbook.andJoin")) }),
        value: "",
        remark: e.result === "moved" ? t("logbook.itWentWithThePart") : t("logbook.itStayed"),
      };
    case "identity":
      return {
        what: t("logbook.checkedWhichConnectorIs", { connector: e.connector }),
        value: "",
        remark: e.right ? t("logbook.theRightOne") : t("logbook.itWasAnotherOne"),
      };
    case "holds":
      return said(t("logbook.tried", { fuse: e.fuse }), "", e.held ? t("logbook.itHeld") : t("logbook.itDidNotHold"));
  }
}

const REASONS = worded(() => ({
  cannotReach: t("logbook.cantReachIt"),
  noTool: t("logbook.noSuchToolHere"),
  other: "",
}));
/** Which test was set aside: the guided test it is a step of, where, and why. */
function asideText({ candidate, reason }: EntryOf<"setAside">, namer: Namer): string {
  const { run, points } = testPlaceOf(candidate);
  const title = run && run in RUN_WORDS ? RUN_WORDS[run as keyof typeof RUN_WORDS].title : "";
  return [title, points.map((p) => namer.point(p)).join(", "), REASONS[reason]].filter(Boolean).join(" · ");
}
type Step = Exclude<
  Entry,
  EntryOf<
    "code" | "reading" | "trace" | "scan" | "intake" | "meterCheck" | "look" | "wiggle" | "swap" | "identity" | "holds"
  >
>;
function stepText(e: Step, namer: Namer): Said {
  switch (e.type) {
    case "unplugged":
      return said(t("logbook.unplugged3", { connector: namer.connector(e.connector) }));
    case "plugged":
      return said(t("logbook.pluggedBackIn", { connector: namer.connector(e.connector) }));
    case "setAside":
      return said(t("logbook.setATestAside"), "", asideText(e, namer));
    case "verdict":
      return { what: t("logbook.verdict"), value: shareText(e.share), remark: e.text };
    case "cleared":
      return said(t("logbook.clearedAllCodes"));
    case "seen":
      return {
        what: t("logbook.lookedAt2", { connector: namer.connector(e.connector) }),
        value: "",
        remark: [
          ...e.colours.map((c) => `${c.cavity} ${c.colour}`),
          ...(e.cavities ? [t("logbook.cavities", { cavities: e.cavities })] : []),
          ...(e.partNumber ? [e.partNumber] : []),
        ].join(", "),
      };
    case "moved":
      return {
        what: t("logbook.movedReadingsFromTo", { from: e.from, to: e.to }),
        value: `${e.readings.length}`,
        remark: t("logbook.entries2", { readings: e.readings.join(", ") }),
      };
    case "closed":
      return said(
        t("logbook.jobClosed"),
        "",
        e.because ? CLOSED_WORDS[e.because] : t("logbook.everythingAsItWasFoundOr"),
      );
    case "repaired":
      return said(repairedText(e, namer), "", repairDetail(e));
    case "proofStep":
      return said(t("logbook.proof", { step: proofStepName(e.step, namer) }), "", PROOF_RESULTS[e.result]);
    case "learned":
      return said(t("logbook.earlierJobsOfThisWiringCount"), "", jobsText(e.lessons));
    case "followedUp":
      return said(t("logbook.askedAgainLater"), "", midSentence(FOLLOW_UP_WORDS[e.result]));
    case "revision":
      return said(t("logbook.wentOnWithAnotherRevisionOf"), "", t("logbook.now", { from: e.from, to: e.to }));
    case "school":
      return said(t("logbook.orderOfTests"), "", midSentence(SCHOOL_WORDS[e.school].title));
    case "acknowledged":
      return said(t("logbook.cautionsReadAndUnderstood"), "", e.cautions.join(", "));
    case "disturbed":
      return said(`${DISTURBED_WORDS[e.how].done} ${thingText(e.thing)}`);
    case "restored":
      return said(`${DISTURBED_WORDS[e.how].undone}: ${thingText(e.thing)}`);
    case "run":
      return {
        what: `${RUN_EVENTS[e.event]}: ` + `${midSentence(RUN_WORDS[e.run].title)}, ${thingText(e.on)}`,
        value: "",
        remark: e.found ?? "",
      };
    case "undo":
      return said(t("logbook.tookBackEntry", { target: e.target }));
  }
}

const RUN_EVENTS = worded(() => ({
  begun: t("logbook.began"),
  finished: t("logbook.finished"),
  left: t("logbook.left"),
}));
const PROOF_RESULTS = worded(() => ({
  passed: t("logbook.done"),
  failed: t("logbook.notAsItShouldBe"),
  leftOut: t("logbook.leftOut"),
}));
/** Which step of the proof it was; its name is a kind and what it is about. */
function proofStepName(step: string, namer: Namer): string {
  const [kind = "", ...rest] = step.split(" ");
  const about = rest.join(" ");
  switch (kind) {
    case "reset":
      return t("logbook.setUp", { about });
    case "wiggle":
      return t("logbook.moved2", { thing: namer.thing(about) });
    case "check":
      return t("logbook.lookedAtTheWorkOfEntry", { about });
    default:
      return step;
  }
}

const jobsText = (n: number) => t("logbook.jobs", { n });
const countText = (n: number) => t("logbook.codeCount", { n });
const thingText = (id: string) => id.split(" ").join(t("logbook.andJoin"));

/** What an entry is called in a sentence about it. */
export const entryNames = (lines: readonly LogLine[]): ReadonlyMap<number, string> =>
  new Map(lines.map((l) => [l.number, t("logbook.entry", { number: l.number })]));

const clock = (at: string) =>
  new Date(at).toLocaleTimeString(readerLocale(), {
    hour: "2-digit",
    minute: "2-digit",
  });
