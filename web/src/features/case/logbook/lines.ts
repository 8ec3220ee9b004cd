import { formatQuantity, undoneEntries, type Analysis, type Entry, isSetCode } from "@radicula/core";
import {
  CHOICE_WORDS,
  FINDING_WORDS,
  DISTURBED_WORDS,
  keyText,
  RUN_WORDS,
  scanWhenText,
  SCHOOL_WORDS,
  shareText,
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

function text(
  e: Entry,
  number: number,
  analysis: Analysis | undefined,
  namer: Namer,
  instructor: Instructor,
): Pick<LogLine, "what" | "value" | "remark"> {
  switch (e.type) {
    case "code":
      return { what: `${e.module} code`, value: e.code, remark: STATUS[e.status] };
    case "reading": {
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
        value: e.values.map((v) => (typeof v === "string" ? v : shownText(instrument, v))).join(" · "),
        remark: healthy ? `${healthy} if healthy` : "",
        ...(e.swing ? { value: `${shownText(instrument, e.swing[0])} to ${shownText(instrument, e.swing[1])}` } : {}),
      };
    }
    case "unplugged":
      return { what: `Unplugged ${namer.connector(e.connector)}`, value: "", remark: "" };
    case "plugged":
      return { what: `Plugged ${namer.connector(e.connector)} back in`, value: "", remark: "" };
    case "setAside":
      return { what: "Set a reading aside", value: "", remark: e.candidate };
    case "verdict":
      return { what: "Verdict", value: shareText(e.share), remark: e.text };
    case "scan":
      return {
        what: `Scan, ${scanWhenText[e.when]}${e.wiped ? "; battery had been off" : ""}`,
        value: countText(e.codes.filter(isSetCode).length),
        remark:
          e.codes
            .map((c) => c.code)
            .slice(0, 6)
            .join(", ") + (e.codes.length > 6 ? " …" : ""),
      };
    case "cleared":
      return { what: "Cleared all codes", value: "", remark: "" };
    case "intake":
      return {
        what: "Intake",
        value: "",
        remark: [
          ...e.intake.symptoms.map((s) => CHOICE_WORDS.symptoms[s]),
          ...e.intake.conditions.map((c) => CHOICE_WORDS.conditions[c]),
          ...e.intake.history.map((h) => `${CHOICE_WORDS.history[h.what]} ${h.at.join(", ")}`.trim()),
        ]
          .slice(0, 6)
          .join(", "),
      };
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
      return { what: "Job closed", value: "", remark: "everything as it was found, or explained" };
    case "revision":
      return { what: "Went on with another revision of the wiring", value: "", remark: `${e.from}, now ${e.to}` };
    case "look":
      return { what: `Looked at ${e.thing}`, value: "", remark: e.found.map((f) => FINDING_WORDS[f]).join(", ") };
    case "wiggle":
      return { what: `Moved ${e.thing}`, value: "", remark: e.reacted ? "it reacted" : "no reaction" };
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
      return { what: `Tried ${e.fuse}`, value: "", remark: e.held ? "it held" : "it did not hold" };
    case "school":
      return { what: "Order of tests", value: "", remark: SCHOOL_WORDS[e.school].title.toLowerCase() };
    case "meterCheck":
      return {
        what: "Checked the meter",
        value: [
          e.leads === undefined ? "" : e.leads === "OL" ? "leads OL" : `leads ${formatQuantity(e.leads, "Ω")}`,
          e.battery === undefined ? "" : formatQuantity(e.battery, "V"),
        ]
          .filter(Boolean)
          .join(" · "),
        remark: e.ground === undefined ? "" : `black lead ${formatQuantity(e.ground, "V")} from battery negative`,
      };
    case "acknowledged":
      return { what: "Cautions read and understood", value: "", remark: e.cautions.join(", ") };
    case "disturbed":
      return { what: `${DISTURBED_WORDS[e.how].done} ${thingText(e.thing)}`, value: "", remark: "" };
    case "restored":
      return { what: `${DISTURBED_WORDS[e.how].undone}: ${thingText(e.thing)}`, value: "", remark: "" };
    case "run":
      return {
        what:
          `${e.event === "begun" ? "Began" : e.event === "finished" ? "Finished" : "Left"}: ` +
          `${RUN_WORDS[e.run].title.toLowerCase()}, ${thingText(e.on)}`,
        value: "",
        remark: e.found ?? "",
      };
    case "undo":
      return { what: `Took back entry ${e.target}`, value: "", remark: "" };
  }
}

const countText = (n: number) => (n === 0 ? "no codes" : n === 1 ? "1 code" : `${n} codes`);
const thingText = (id: string) => id.split(" ").join(" and ");

/** What an entry is called in a sentence about it. */
export const entryNames = (lines: readonly LogLine[]): ReadonlyMap<number, string> =>
  new Map(lines.map((l) => [l.number, `(entry ${l.number})`]));

const clock = (at: string) => new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
