import {
  CHART_FORMAT,
  decodeReply,
  formatOf,
  jsonSchema,
  NOTEBOOK_FORMAT,
  parseCase,
  parseJson,
  parseRecording,
  readNotebook,
  readWiringOrChart,
  RECORDING_FORMAT,
} from "../src/index.js";
import { failureTypeText, statusWord } from "../words/index.js";
import { accept, EXIT, issueLines, printJson, Refusal, type Io } from "./io.js";

export function validateCommand(file: string, io: Io): void {
  const text = io.read(file);
  const json = parseJson(text);
  if (json.ok && formatOf(json.value) === NOTEBOOK_FORMAT) {
    const { lessons } = accept(file, readNotebook(json.value));
    io.out(`${file}: a notebook document in order: ${lessons.length} lessons.\n`);
    return;
  }
  if (json.ok && formatOf(json.value) === RECORDING_FORMAT) {
    const { channels } = accept(file, parseRecording(text)).recording;
    io.out(`${file}: a recording document in order: ${channels.length} channels.\n`);
    return;
  }
  const isCase = json.ok && formatOf(json.value) === "radicula/case";
  const isChart = json.ok && formatOf(json.value) === CHART_FORMAT;
  const result = isCase ? parseCase(text) : json.ok ? readWiringOrChart(json.value) : json;
  if (!result.ok) throw new Refusal(EXIT.document, issueLines(file, result.issues));
  const wiring = "wiring" in result.value ? result.value.wiring : result.value;
  const entries = "entries" in result.value ? `, ${result.value.entries.length} logbook entries` : "";
  io.out(
    `${file}: a ${isCase ? "case" : isChart ? "chart" : "wiring"} document in order: ` +
      `${wiring.connectors.length} connectors, ${wiring.devices.length} devices, ` +
      `${wiring.wires.length} wires, ${wiring.codes.length} codes${entries}.\n`,
  );
}

const SCHEMAS = ["wiring", "case", "chart", "notebook", "recording"] as const;

export function schemaCommand(name: string, io: Io): void {
  const known = SCHEMAS.find((s) => s === name);
  if (!known) throw new Refusal(EXIT.usage, [`There is no schema "${name}"; known: ${SCHEMAS.join(", ")}.`]);
  printJson(io, jsonSchema(known));
}

/** Codes in a scan tool's reply, given as hex digits, or "-" for standard input. */
export function decodeCommand(text: string, options: { readonly json?: boolean | undefined }, io: Io): void {
  const decoded = decodeReply(text === "-" ? io.read("-") : text);
  if (!decoded.ok) throw new Refusal(EXIT.document, issueLines("reply", decoded.issues));
  if (options.json) {
    printJson(io, decoded.value);
    return;
  }
  if (decoded.value.length === 0) io.out("no codes\n");
  for (const c of decoded.value)
    io.out(
      `${c.code}  ${statusWord(c.status)}` +
        `${c.failureTypeByte === undefined ? "" : `, ${failureTypeText(c.failureTypeByte)}`}` +
        `${c.occurrences ? `, ${c.occurrences} times` : ""}\n`,
    );
}
