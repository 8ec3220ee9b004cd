import { completeChart, factsWorth, parseCase, parseJson, formatOf } from "../src/index.js";
import { loadChart } from "./charts.js";
import { loadCase, printJson, type Io } from "./io.js";

/** What a half-known drawing leaves open, what is assumed instead, and which of it to look up first. */
export function gapsCommand(
  file: string,
  options: { readonly case?: string | undefined; readonly json?: boolean | undefined },
  io: Io,
): void {
  const { chart } = loadChart(file, io);
  const entries = options.case === undefined ? ownEntries(io.read(file)) : loadCase(options.case, io).entries;
  const { facts } = completeChart(chart);
  const worth = entries.length ? factsWorth(chart, entries) : [];
  if (options.json) {
    printJson(io, { facts, worth: worth.map((w) => ({ at: w.fact.point, bits: w.bits, chances: w.chances })) });
    return;
  }
  if (facts.length === 0) {
    io.out("Every pin of every sensor and actuator has a wire.\n");
    return;
  }
  io.out(`Pins without a wire: ${facts.length}. Assumed until somebody looks:\n`);
  for (const f of facts) {
    const ways = f.options.slice(0, 4).map((o) => `${o.to} ${Math.round(100 * o.chance)} %`);
    io.out(`  ${f.point} (${f.role})  ${ways.join(", ")}\n`);
  }
  if (entries.length === 0) {
    io.out("With --case CASE.json it is told which of them to look up first.\n");
    return;
  }
  const telling = worth.filter((w) => w.bits >= LEAST_BITS);
  io.out(telling.length ? "Look up first:\n" : "None of them would tell more of the cause.\n");
  for (const w of telling) io.out(`  where ${w.fact.point} goes: worth ${w.bits.toFixed(2)} bits\n`);
}
/** Facts that tell less are not worth a look, bits. Judgement. */
const LEAST_BITS = 0.005;

function ownEntries(text: string) {
  const json = parseJson(text);
  if (!json.ok || formatOf(json.value) !== "radicula/case") return [];
  const read = parseCase(text);
  return read.ok ? read.value.entries : [];
}
