// What watching a value over time is worth where a fault comes and goes: each job is played by the plan on the same
// simulated machine, once with values read one by one, once with a meter's MIN/MAX and a scan tool that records while
// the harness is moved, once with a scope of two channels, too. The minutes are the plan's. The simulated machine
// shares the engine's equations: this shows consistency, not truth. Also how long a large file takes to read.
//   npm run bench:recordings [-- --jobs 100 --seed 80000]
import { parseArgs } from "node:util";
import {
  factsOf,
  generateHarness,
  hideFaults,
  play,
  Predictor,
  pyramidOf,
  readWiring,
  RecordingReader,
  SimulatedMachine,
  stretchOf,
} from "../../core/dist/src/index.js";
import { readFileSync } from "node:fs";
import Papa from "papaparse";

const { values } = parseArgs({
  options: { jobs: { type: "string" }, seed: { type: "string" }, rows: { type: "string" } },
});
const JOBS = Number(values.jobs ?? 100);
const SEED = Number(values.seed ?? 80_000);
const ROWS = Number(values.rows ?? 10_000_000);
const AT = "2026-01-01T07:55:00Z";
/** How often the fault is there when a meter looks. Judgement. */
const PRESENCE = 0.4;
const TOOLS = ["meter", "scanTool", "lamp"];

const wirings = [
  ...["tug-4", "whimbrel"].map((name) => {
    const read = readWiring(JSON.parse(readFileSync(`demo/${name}.wiring.json`, "utf8")));
    if (!read.ok) throw new Error(name);
    return read.value;
  }),
  ...[1, 2].map((seed) => generateHarness({ nodes: 70, seed: SEED + seed })),
];
const predictors = wirings.map((w) => new Predictor(w));
const percent = (x) => `${(100 * x).toFixed(1)} %`;
const mean = (list) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);

/** Opens and closes by itself: what a loose contact, a broken strand or a chafed wire does. */
const comesAndGoes = ({ fault }) =>
  /contact|open|Resistance|short/i.test(fault.mode) && !/dead|Swapped/.test(fault.mode);

const ways = {
  "read one by one": { tools: TOOLS, without: ["record", "minMax", "scanRecord"] },
  "MIN/MAX and scan tool": { tools: TOOLS, without: [] },
  "a scope, too": { tools: [...TOOLS, "scope"], without: [] },
};
const ended = Object.fromEntries(Object.keys(ways).map((name) => [name, []]));
const begun = performance.now();
for (let i = 0, jobs = 0; jobs < JOBS && i < 20 * JOBS; i++) {
  const at = i % wirings.length;
  const seed = SEED + i;
  const faults = hideFaults(wirings[at], 1, seed);
  if (!faults || !comesAndGoes(faults[0])) continue;
  const predictor = predictors[at];
  if (new SimulatedMachine(wirings[at], faults, seed).codes().length === 0) continue;
  jobs++;
  for (const [name, { tools, without }] of Object.entries(ways)) {
    const before = [
      {
        type: "intake",
        at: AT,
        intake: { symptoms: ["comesAndGoes"], conditions: [], history: [], bulletins: [], safety: [], tools },
      },
      ...without.map((kind) => ({ type: "setAside", at: AT, candidate: `${kind} -`, reason: "noTool" })),
    ];
    ended[name].push(play(predictor, faults, { school: "information", seed, presence: PRESENCE, before }));
  }
  if (jobs % 10 === 0) console.error(`${jobs} of ${JOBS}, ${Math.round((performance.now() - begun) / 1000)} s`);
}
console.log(`${Object.values(ended)[0].length} faults that come and go on ${wirings.length} machines, seed ${SEED}`);
console.log("                        isolated   alone  wrong   given up  tests  watched  minutes");
for (const [name, list] of Object.entries(ended)) {
  const share = (e) => percent(mean(list.map((p) => (p.ending === e ? 1 : 0)))).padStart(8);
  const watched = list.map((p) => p.steps.filter((x) => /record|minMax/i.test(x.kind)).length);
  console.log(
    `${name.padEnd(24)}${share("isolated")} ${percent(mean(list.map((p) => (p.verdict?.alone ? 1 : 0)))).padStart(8)}` +
      `${share("wrong")} ${share("gaveUp")}  ${mean(list.map((p) => p.steps.length))
        .toFixed(1)
        .padStart(5)}  ${mean(watched).toFixed(1).padStart(5)}  ${mean(list.map((p) => p.minutes))
        .toFixed(1)
        .padStart(6)}`,
  );
}

// a file of two channels, as a scope writes it
const parts = [];
const encoder = new TextEncoder();
let text = "time (s),A (V),B (V)\n";
for (let i = 0; i < ROWS; i++) {
  text += `${(i * 1e-5).toFixed(5)},${i % 1000 < 500 ? 0.1 : 4.9},${(2 + (i % 777) / 777).toFixed(3)}\n`;
  if (text.length > 1 << 20 || i === ROWS - 1) {
    parts.push(encoder.encode(text));
    text = "";
  }
}
const bytes = parts.reduce((sum, part) => sum + part.length, 0);
let since = performance.now();
const took = () => {
  const ms = performance.now() - since;
  since = performance.now();
  return ms;
};
const reader = new RecordingReader();
for (const part of parts) reader.push(part);
const { recording } = reader.end().value;
const read = took();
const pyramids = recording.channels.map(pyramidOf);
const thinned = took();
const times = Array.from({ length: 200 }, (_, k) => {
  const from = (performance.now(), (k * ROWS * 1e-5) / 400);
  since = performance.now();
  pyramids.forEach((p) => stretchOf(p, from, from + (ROWS * 1e-5) / (1 + (k % 50)), 1200));
  return took();
}).sort((a, b) => a - b);
since = performance.now();
recording.channels.map(factsOf);
console.log(
  `${((2 * ROWS) / 1e6).toFixed(0)} million samples, ${(bytes / 1e6).toFixed(0)} MB of text: ` +
    `read ${(read / 1000).toFixed(1)} s, made ready to draw ${(thinned / 1000).toFixed(1)} s, ` +
    `a part of it to draw ${times[100].toFixed(1)} ms (median); measured ${(took() / 1000).toFixed(1)} s`,
);

// beside it, in the same process, a general-purpose reader of tables
const some = parts.slice(0, Math.max(1, Math.ceil(parts.length / 10)));
since = performance.now();
const own = new RecordingReader();
for (const part of some) own.push(part);
own.end();
const ours = took();
const rows = Papa.parse(new TextDecoder().decode(Buffer.concat(some)), { dynamicTyping: true }).data.length;
console.log(`the first ${rows} rows of it: papaparse takes ${(took() / ours).toFixed(1)} times as long`);
