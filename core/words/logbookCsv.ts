import Papa from "papaparse";
import { FORMULA_CELL, undoneEntries, type Entry, type State } from "../src/index.js";

const COLUMNS = [
  "number",
  "at",
  "by",
  "type",
  "where",
  "black",
  "instrument",
  "values",
  "unit",
  "state",
  "said",
  "takenBack",
  "note",
] as const;
const UNITS: Readonly<Record<string, string>> = {
  voltmeter: "V",
  scanTool: "V",
  scope: "V",
  ohmmeter: "ohm",
  clamp: "A",
};

/**
 * A logbook as CSV (RFC 4180), one entry a line, oldest first, by the names of the document. Nothing is left out; what
 * was taken back says so.
 */
export function logbookCsv(entries: readonly Entry[]): string {
  const rows = logbookRows(entries).map((cells) => COLUMNS.map((c) => cells[c]));
  return `${Papa.unparse([[...COLUMNS], ...rows], { newline: "\r\n", escapeFormulae: FORMULA_CELL })}\r\n`;
}
/** Every entry of a logbook as text, by column. */
export function logbookRows(entries: readonly Entry[]): Record<(typeof COLUMNS)[number], string>[] {
  const undone = undoneEntries(entries);
  return entries.map((e, i) => {
    const cells: Record<(typeof COLUMNS)[number], string> = {
      number: String(i + 1),
      at: e.at,
      by: e.by ?? "",
      type: e.type,
      where: whereOf(e),
      black: "",
      instrument: "",
      values: "",
      unit: "",
      state: "state" in e ? stateText(e.state) : "",
      said: saidOf(e),
      takenBack: undone.has(i + 1) ? "yes" : "",
      note: e.note ?? "",
    };
    if (e.type === "reading")
      Object.assign(cells, {
        black: e.black ?? "",
        instrument: e.instrument,
        values: e.values.join("; "),
        unit: e.unit ?? UNITS[e.instrument] ?? "",
      });
    return cells;
  });
}

function whereOf(e: Entry): string {
  switch (e.type) {
    case "reading":
      return e.points.join("; ");
    case "trace":
      return e.channels.map((c) => c.on).join("; ");
    case "look":
    case "wiggle":
    case "disturbed":
    case "restored":
      return e.thing;
    case "repaired":
      return e.things.join("; ");
    case "swap":
      return e.parts.join("; ");
    case "holds":
      return e.fuse;
    case "run":
      return e.on;
    case "unplugged":
    case "plugged":
    case "seen":
    case "identity":
      return e.connector;
    case "code":
      return e.module;
    case "scan":
      return e.modules.join("; ");
    case "moved":
      return `${e.from}; ${e.to}`;
    default:
      return "";
  }
}
function saidOf(e: Entry): string {
  switch (e.type) {
    case "reading":
      return [
        e.as,
        e.swing ? `swings ${e.swing.join(" to ")}` : "",
        e.mode === "ac" ? "AC" : "",
        e.how ?? "",
        e.part ? `${e.part} part` : "",
        e.corrects ? `instead of ${e.corrects}` : "",
      ]
        .filter(Boolean)
        .join("; ");
    case "trace":
      return e.channels
        .map(
          (c) =>
            `${c.kind} ${c.low} to ${c.high}` +
            `${c.hertz === undefined ? "" : ` at ${c.hertz} Hz`}${c.dropouts ? `, ${c.dropouts.count} dropouts` : ""}`,
        )
        .join("; ");
    case "code":
      return `${e.code} ${e.status}`;
    case "scan":
      return e.codes.map((c) => `${c.module} ${c.code} ${c.status}`).join("; ");
    case "look":
      return e.found.join("; ");
    case "wiggle":
      return e.reacted ? "reacted" : "did not react";
    case "swap":
      return e.result;
    case "holds":
      return e.held ? "held" : "did not hold";
    case "identity":
      return e.right ? "right" : "another";
    case "run":
      return `${e.run} ${e.event}${e.found ? `; ${e.found}` : ""}`;
    case "disturbed":
    case "restored":
      return e.how;
    case "undo":
      return `takes back ${e.target}`;
    case "moved":
      return `readings ${e.readings.join(", ")}`;
    case "verdict":
      return `${e.text} (${Math.round(e.share * 100)} %)`;
    case "setAside":
      return `${e.candidate}; ${e.reason}`;
    case "acknowledged":
      return e.cautions.join("; ");
    case "meterCheck":
      return [
        e.leads === undefined ? "" : `leads ${e.leads} ohm`,
        e.battery === undefined ? "" : `battery ${e.battery} V`,
        e.ground === undefined ? "" : `ground ${e.ground} V`,
      ]
        .filter(Boolean)
        .join("; ");
    case "school":
      return e.school;
    case "seen":
      return [
        ...e.colours.map((c) => `${c.cavity} ${c.colour}`),
        ...(e.cavities ? [`${e.cavities} cavities`] : []),
        e.partNumber ?? "",
      ]
        .filter(Boolean)
        .join("; ");
    case "repaired":
      return [
        e.how,
        e.part ? [e.part.brand, e.part.number, e.part.condition, ...e.part.with].filter(Boolean).join(" ") : "",
        e.joined ?? "",
        e.temporary ? `temporary until ${e.temporary}` : "",
        e.minutes === undefined ? "" : `${e.minutes} min`,
        e.price === undefined ? "" : `price ${e.price}`,
      ]
        .filter(Boolean)
        .join("; ");
    case "proofStep":
      return `${e.step}; ${e.result}`;
    case "followedUp":
      return e.result;
    case "learned":
      return `${e.lessons} jobs: ${e.causes.map((c) => `${c.how} ${c.things.join(" ")} ${c.count}`).join("; ")}`;
    case "closed":
      return [e.because ?? "", e.proof ? `cured ${Math.round(e.proof.outcome.cured * 100)} %` : ""]
        .filter(Boolean)
        .join("; ");
    case "revision":
      return `${e.from} to ${e.to}`;
    case "intake":
      return e.intake.complaint ?? "";
    default:
      return "";
  }
}
/** A machine state in one line, by the names of the document. */
export function stateText(s: State): string {
  return [
    `key ${s.key}`,
    ...(s.unplugged.length ? [`unplugged ${s.unplugged.join(" ")}`] : []),
    ...(s.pulled?.length ? [`pulled ${s.pulled.join(" ")}`] : []),
    ...(s.breakers?.length ? [`breaker ${s.breakers.join(" ")}`] : []),
    ...(s.jumpers ?? []).map((j) => `jumper ${j.from} to ${j.to} ${j.ohm} ohm`),
    ...(s.loads ?? []).map((l) => `lamp ${l.watt} W ${l.from} to ${l.to}`),
    ...Object.entries(s.stimulus ?? {}).map(([part, value]) => `${part} at ${value}`),
  ].join("; ");
}
