import {
  buildChart,
  type Chart,
  chartOf,
  compareWirings,
  fold,
  formatOf,
  graphml,
  mergeCharts,
  parseCase,
  parseJson,
  readCsv,
  readChart,
  readScan,
  sharedMatrix,
  subjectsOf,
  withScannedCodes,
  writeCsv,
  type Issue,
  type Wiring,
  toldCodes,
} from "../src/index.js";
import { issueText, KIND_WORDS, Namer, placeOf, sharedText, statusWord } from "../words/index.js";
import { EXIT, issueLines, loadCase, loadWiring, printJson, Refusal, type Io } from "./io.js";
import { netlistCommand } from "./circuit.js";

/** A wiring, chart or case as JSON, or a pin chart as CSV; with what was not taken and what was guessed. */
export function loadChart(file: string, io: Io): { readonly chart: Chart; readonly issues: readonly Issue[] } {
  const text = io.read(file);
  if (!/^\s*[{[]/.test(text)) {
    const read = readCsv(text);
    if (!read.ok) throw new Refusal(EXIT.document, issueLines(file, read.issues));
    return read.value;
  }
  const json = parseJson(text);
  if (json.ok && formatOf(json.value) !== "radicula/case") {
    const chart = readChart(json.value);
    if (!chart.ok) throw new Refusal(EXIT.document, issueLines(file, chart.issues));
    return { chart: chart.value, issues: [] };
  }
  const read = parseCase(text);
  if (!read.ok) throw new Refusal(EXIT.document, issueLines(file, read.issues));
  return { chart: chartOf(read.value.wiring), issues: [] };
}

const say = (file: string, issues: readonly Issue[], io: Io) => {
  for (const i of issues) io.err(`${file}: ${rowOf(i)}${issueText(i)}\n`);
};
/** `row 3, colour: ` for what is about a row */
const rowOf = (i: Issue) =>
  i.path[0] === "rows" && typeof i.path[1] === "number"
    ? `row ${i.path[1] + 1}${i.path[2] === undefined ? "" : `, ${String(i.path[2])}`}: `
    : i.path[0] === "lines"
      ? `line ${Number(i.path[1]) + (i.code.startsWith("scan.") || i.code.startsWith("reply.") ? 1 : 0)}: `
      : placeOf(i)
        ? `${placeOf(i)}: `
        : "";

const TARGETS = ["wiring", "chart", "csv", "graphml", "spice"] as const;
/** Turns one form of a wiring into another; what was not taken or cannot be held goes to standard error, row by row. */
export function convertCommand(
  file: string,
  options: {
    readonly to?: string | undefined;
    readonly fault?: string | undefined;
    readonly state?: string | undefined;
  },
  io: Io,
): void {
  const to = TARGETS.find((t) => t === options.to);
  if (!to) throw new Refusal(EXIT.usage, [`--to: known forms are ${TARGETS.join(", ")}.`]);
  if (to === "spice") {
    netlistCommand(file, options, io);
    return;
  }
  const { chart, issues } = loadChart(file, io);
  say(file, issues, io);
  if (to === "chart") {
    printJson(io, chart);
    return;
  }
  if (to === "csv") {
    const { text, issues: left } = writeCsv(chart);
    say(file, left, io);
    io.out(text);
    return;
  }
  const built = buildChart(chart);
  say(file, built.issues, io);
  sayGuessedKinds(file, built.wiring, io);
  if (to === "wiring") printJson(io, built.wiring);
  else io.out(graphml(built.wiring));
}

/** Kinds of parts that nobody wrote: said, so that a wrong one is seen. */
function sayGuessedKinds(file: string, wiring: Wiring, io: Io): void {
  const guessed = new Set(wiring.guesses);
  for (const { id, kind } of wiring.devices)
    if (guessed.has(id))
      io.err(`${file}: ${id} is taken for a ${KIND_WORDS[kind] ?? kind}. Correct it under #parts.\n`);
}

/** What the coded circuits share, from the drawing alone. */
export function sharedCommand(file: string, options: { readonly json?: boolean | undefined }, io: Io): void {
  const job = loadCase(file, io);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const coded = [...new Set(toldCodes(fold(job.entries)).flatMap((c) => subjectsOf(wiring, c.module, c.code)))];
  const matrix = sharedMatrix(wiring, coded);
  const namer = new Namer(wiring);
  if (options.json) {
    printJson(io, matrix);
    return;
  }
  io.out(`Coded: ${matrix.coded.map((d) => namer.device(d)).join(", ") || "none"}\n${sharedText(matrix)}\n`);
  for (const r of matrix.rows)
    io.out(
      `  ${r.coded.length} of ${matrix.coded.length}  ${thing(wiring, namer, r.thing)}` +
        `${r.same.length ? `; the same circuits: ${r.same.join(", ")}` : ""}` +
        `${r.healthy.length ? `; healthy through it: ${r.healthy.join(", ")}` : ""}\n`,
    );
}
const thing = (wiring: Wiring, namer: Namer, id: string) =>
  wiring.devices.some((d) => d.id === id)
    ? namer.device(id)
    : id.includes(":") && !id.includes("~")
      ? namer.point(id)
      : namer.wire(id);

/** What changed between two wirings. */
export function compareCommand(
  before: string,
  after: string,
  options: { readonly json?: boolean | undefined },
  io: Io,
): void {
  const changes = compareWirings(loadWiring(before, io), loadWiring(after, io));
  if (options.json) {
    printJson(io, changes);
    return;
  }
  io.out(changes.length ? "" : "nothing changed\n");
  for (const c of changes) {
    const fields = c.fields.map((f) => `${f.field} ${f.before || "none"} -> ${f.after || "none"}`).join("; ");
    io.out(`${c.change.padEnd(8)} ${c.what} ${c.id}${fields ? `: ${fields}` : ""}\n`);
  }
}

/** Lays a second chart over the first: agreements, additions, contradictions. */
export function mergeCommand(
  first: string,
  second: string,
  options: { readonly json?: boolean | undefined },
  io: Io,
): void {
  const a = loadChart(first, io);
  const b = loadChart(second, io);
  say(first, a.issues, io);
  say(second, b.issues, io);
  const merged = mergeCharts(
    a.chart,
    b.chart,
    second.replace(/^.*[\\/]/, "").replace(/\.[^.]*$/, "") || "second chart",
  );
  if (options.json) {
    printJson(io, merged);
    return;
  }
  io.out(
    `${merged.agreements} agree, ${merged.filled.length} cells filled, ${merged.added.length} cavities added, ` +
      `${merged.contradictions.length} contradict\n`,
  );
  for (const d of merged.contradictions) io.out(`  ${d.at} ${d.field}: ${d.ours} against ${d.theirs}\n`);
}

/** Codes in a pasted scan. */
export function scanCommand(
  scan: string,
  wiringFile: string,
  options: { readonly json?: boolean | undefined },
  io: Io,
): void {
  const read = readScan(io.read(scan), loadWiring(wiringFile, io));
  if (options.json) {
    printJson(io, read);
    return;
  }
  say(scan, read.issues, io);
  for (const c of read.codes)
    io.out(
      `${c.module}  ${c.code}  ${statusWord(c.status)}${c.about ? `  ${c.about}` : ""}` +
        `${c.title ? `  ${c.title}` : ""}${c.seen ? `  ${c.seen}` : ""}\n`,
    );
}
