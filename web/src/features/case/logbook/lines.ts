import { formatQuantity, testPlaceOf, undoneEntries, type Analysis, type Entry, isSetCode } from "@radicula/core";
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
  shownText,
  type Instructor,
  type Namer,
} from "@radicula/core/words";
import { capital } from "@/ui/text";

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
}

const STATUS = {
  active: "active",
  pending: "pending",
  stored: "stored",
  intermittent: "intermittent",
  absent: "not set",
} as const;

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
      canUndo: e.type !== "undo" && !undone.has(i + 1),
    }))
    .reverse();
}

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
      return said(`${e.module} code`, e.code, STATUS[e.status]);
    case "reading":
      return readingText(e, number, analysis, namer, instructor);
    case "scan":
      return scanText(e);
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
      ? `${e.state.unplugged.length} unplugged`
      : e.state.unplugged.length
        ? `${e.state.unplugged.join(", ")} unplugged`
        : "",
    e.state.jumpers?.length ? "jumpered" : "",
    ...Object.entries(e.state.stimulus ?? {}).map(([part, v]) => instructor.stimulus(part, v)),
    e.part ? `${e.part} part by itself` : "",
    e.black !== undefined ? `black on ${namer.point(e.black)}` : "",
    e.corrects ? `instead of entry ${e.corrects}` : "",
  ]
    .filter(Boolean)
    .join(", ");
  return {
    what:
      instrument === "scanTool"
        ? `Scan tool: ${instructor.functionOf(point)} at ${namer.point(point)}${state ? `; ${state}` : ""}`
        : `${capital(instructor.functionOf(point))} at ` +
          `${e.points.length > 1 ? namer.point(point).replace(/, in side/, ", both sides") : namer.point(point)}` +
          `${state ? `; ${state}` : ""}`,
    value: e.values.map((v) => readingValue(e, v)).join(" · "),
    remark: healthy ? `${healthy} if healthy` : "",
    ...(e.swing ? { value: `${readingValue(e, e.swing[0])} to ${readingValue(e, e.swing[1])}` } : {}),
  };
}

function scanText(e: EntryOf<"scan">): Said {
  const codes = e.codes.map((c) => c.code);
  return said(
    `Scan, ${scanWhenText[e.when]}${e.wiped ? "; battery had been off" : ""}`,
    countText(e.codes.filter(isSetCode).length),
    codes.slice(0, LISTED).join(", ") + (codes.length > LISTED ? " …" : ""),
  );
}

function intakeText({ intake }: EntryOf<"intake">): Said {
  const told = [
    ...intake.symptoms.map((s) => CHOICE_WORDS.symptoms[s]),
    ...intake.conditions.map((c) => CHOICE_WORDS.conditions[c]),
    ...intake.history.map((h) => `${CHOICE_WORDS.history[h.what]} ${h.at.join(", ")}`.trim()),
  ];
  return said("Intake", "", told.slice(0, LISTED).join(", "));
}

function meterText(e: EntryOf<"meterCheck">): Said {
  const leads = e.leads === undefined ? "" : `leads ${e.leads === "OL" ? "OL" : formatQuantity(e.leads, "Ω")}`;
  const battery = e.battery === undefined ? "" : formatQuantity(e.battery, "V");
  const ground = e.ground === undefined ? "" : `black lead ${formatQuantity(e.ground, "V")} from battery negative`;
  return said("Checked the meter", [leads, battery].filter(Boolean).join(" · "), ground);
}

function clueText(e: EntryOf<"look" | "wiggle" | "swap" | "identity" | "holds">): Said {
  switch (e.type) {
    case "look":
      return said(`Looked at ${e.thing}`, "", e.found.map((f) => FINDING_WORDS[f]).join(", "));
    case "wiggle":
      return said(`Moved ${e.thing}`, "", e.reacted ? "it reacted" : "no reaction");
    case "swap":
      return {
        what: `Swapped ${e.parts.join(" and ")}`,
        value: "",
        remark: e.result === "moved" ? "it went with the part" : "it stayed",
      };
    case "identity":
      return {
        what: `Checked which connector ${e.connector} is`,
        value: "",
        remark: e.right ? "the right one" : "it was another one",
      };
    case "holds":
      return said(`Tried ${e.fuse}`, "", e.held ? "it held" : "it did not hold");
  }
}

const REASONS = { cannotReach: "can’t reach it", noTool: "no such tool here", other: "" } as const;
/** Which test was set aside: the guided test it is a step of, where, and why. */
function asideText({ candidate, reason }: EntryOf<"setAside">, namer: Namer): string {
  const { run, points } = testPlaceOf(candidate);
  const title = run && run in RUN_WORDS ? RUN_WORDS[run as keyof typeof RUN_WORDS].title : "";
  return [title, points.map((p) => namer.point(p)).join(", "), REASONS[reason]].filter(Boolean).join(" · ");
}
type Step = Exclude<
  Entry,
  EntryOf<"code" | "reading" | "scan" | "intake" | "meterCheck" | "look" | "wiggle" | "swap" | "identity" | "holds">
>;
function stepText(e: Step, namer: Namer): Said {
  switch (e.type) {
    case "unplugged":
      return said(`Unplugged ${namer.connector(e.connector)}`);
    case "plugged":
      return said(`Plugged ${namer.connector(e.connector)} back in`);
    case "setAside":
      return said("Set a test aside", "", asideText(e, namer));
    case "verdict":
      return { what: "Verdict", value: shareText(e.share), remark: e.text };
    case "cleared":
      return said("Cleared all codes");
    case "seen":
      return {
        what: `Looked at ${namer.connector(e.connector)}`,
        value: "",
        remark: [
          ...e.colours.map((c) => `${c.cavity} ${c.colour}`),
          ...(e.cavities ? [`${e.cavities} cavities`] : []),
          ...(e.partNumber ? [e.partNumber] : []),
        ].join(", "),
      };
    case "moved":
      return {
        what: `Moved readings from ${e.from} to ${e.to}`,
        value: `${e.readings.length}`,
        remark: `entries ${e.readings.join(", ")}`,
      };
    case "closed":
      return said("Job closed", "", e.because ? CLOSED_WORDS[e.because] : "everything as it was found, or explained");
    case "repaired":
      return said(repairedText(e, namer), "", repairDetail(e));
    case "proofStep":
      return said(`Proof: ${proofStepName(e.step, namer)}`, "", PROOF_RESULTS[e.result]);
    case "learned":
      return said("Earlier jobs of this wiring count here", "", jobsText(e.lessons));
    case "followedUp":
      return said("Asked again later", "", FOLLOW_UP_WORDS[e.result].toLowerCase());
    case "revision":
      return said("Went on with another revision of the wiring", "", `${e.from}, now ${e.to}`);
    case "school":
      return said("Order of tests", "", SCHOOL_WORDS[e.school].title.toLowerCase());
    case "acknowledged":
      return said("Cautions read and understood", "", e.cautions.join(", "));
    case "disturbed":
      return said(`${DISTURBED_WORDS[e.how].done} ${thingText(e.thing)}`);
    case "restored":
      return said(`${DISTURBED_WORDS[e.how].undone}: ${thingText(e.thing)}`);
    case "run":
      return {
        what:
          `${e.event === "begun" ? "Began" : e.event === "finished" ? "Finished" : "Left"}: ` +
          `${RUN_WORDS[e.run].title.toLowerCase()}, ${thingText(e.on)}`,
        value: "",
        remark: e.found ?? "",
      };
    case "undo":
      return said(`Took back entry ${e.target}`);
  }
}

const PROOF_RESULTS = { passed: "done", failed: "not as it should be", leftOut: "left out" } as const;
/** Which step of the proof it was; its name is a kind and what it is about. */
function proofStepName(step: string, namer: Namer): string {
  const [kind = "", ...rest] = step.split(" ");
  const about = rest.join(" ");
  switch (kind) {
    case "reset":
      return `set up ${about}`;
    case "wiggle":
      return `moved ${namer.thing(about)}`;
    case "check":
      return `looked at the work of entry ${about}`;
    default:
      return step;
  }
}

const jobsText = (n: number) => (n === 1 ? "1 job" : `${n} jobs`);
const countText = (n: number) => (n === 0 ? "no codes" : n === 1 ? "1 code" : `${n} codes`);
const thingText = (id: string) => id.split(" ").join(" and ");

/** What an entry is called in a sentence about it. */
export const entryNames = (lines: readonly LogLine[]): ReadonlyMap<number, string> =>
  new Map(lines.map((l) => [l.number, `(entry ${l.number})`]));

const clock = (at: string) => new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
