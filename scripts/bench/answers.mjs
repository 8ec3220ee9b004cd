// npm run bench:answers [-- --jobs N] [--sizes 500,2000,5000]: how long an answer takes, alone in one process.
// Demo machines: hidden faults played to the end, each next test taken as the program asks; thinking ahead runs to its
// end between two readings, as it does while a technician puts the leads on, and is not counted. "Kept": another job on
// a machine that was worked on before, with what the server then keeps of its predictions. Large machines: from the
// wiring document and the codes to the first card, to the whole answer, and on to the cards that follow; kept: the same
// job on another device.
import { readdirSync, readFileSync } from "node:fs";
import {
  analyse,
  assess,
  codesOfAll,
  compile,
  Focus,
  generateHarness,
  hideFaults,
  observe,
  packCodes,
  packValues,
  parseWiring,
  recordAnswer,
  recordReading,
  SimulatedMachine,
  takeCodes,
  takeValues,
  thinkAhead,
  wholeAnswer,
  workOutPiece,
} from "@radicula/core";

const arg = (name, otherwise) => {
  const i = process.argv.indexOf(`--${name}`);
  return i < 0 ? otherwise : process.argv[i + 1];
};
const AT = "2026-01-01T08:00:00Z";
const MOST_STEPS = 9;
const quantile = (list, share) => list.toSorted((a, b) => a - b)[Math.min(list.length - 1, (share * list.length) | 0)];
const ms = (x) => `${Math.round(x)} ms`;

/** What a simulated machine tells a scan tool first. */
const scanOf = (wiring, machine) => ({
  type: "scan",
  at: AT,
  when: "afterDrive",
  modules: [...new Set(wiring.codes.map((c) => c.module))],
  codes: machine.codes().map((c) => ({ module: c.module, code: c.code, status: "active" })),
  disturbed: [],
  wiped: false,
});

/** What the server keeps of a job's first look, as it works it out in `web/workOut.mjs`. */
function keptOf(wiring, seed) {
  const hidden = hideFaults(wiring, 1, seed);
  if (!hidden) return undefined;
  const focus = new Focus(wiring);
  const entries = [scanOf(wiring, new SimulatedMachine(wiring, hidden, seed))];
  const predictor = focus.predictor(entries);
  wholeAnswer(predictor, entries);
  if (!focus.isLarge) for (const piece of codesOfAll(predictor)) workOutPiece(predictor, piece);
  return { codes: packCodes(predictor), values: packValues(predictor) };
}

/** One job. @returns times of each answer: first suggestion and whole answer, ms */
function playTimed(wiring, seed, kept, steps = MOST_STEPS) {
  const hidden = hideFaults(wiring, 1, seed);
  if (!hidden) return undefined;
  const began = performance.now();
  const focus = new Focus(wiring);
  const machine = new SimulatedMachine(wiring, hidden, seed);
  const entries = [scanOf(wiring, machine)];
  if (kept) {
    takeCodes(focus.predictor(entries), kept.codes);
    takeValues(focus.predictor(entries), kept.values);
  }
  const answers = [];
  let part = wiring;
  for (let step = 0; step < steps; step++) {
    const from = step === 0 ? began : performance.now();
    const now = [...entries];
    const predictor = focus.predictor(now);
    part = predictor.wiring;
    const begun = assess(predictor, now, { multiple: "never" });
    analyse(predictor, now, { begun, quick: true });
    const first = performance.now() - from;
    const analysis = analyse(predictor, now, { begun });
    answers.push({ first, whole: performance.now() - from });
    const candidate = analysis.next[0]?.candidate;
    if (analysis.stage === "proven" || !candidate) break;
    const ahead = thinkAhead(predictor, now, analysis);
    while (!ahead.next().done);
    machine.look();
    const seen = observe(machine, candidate, false, () => 0.5);
    if (!seen) entries.push({ type: "setAside", at: AT, candidate: candidate.id, reason: "other" });
    else
      entries.push(
        ...(seen.values
          ? recordReading(candidate, seen.values, AT)
          : recordAnswer(wiring, candidate, seen.yes, AT, seen.found)),
      );
  }
  return { answers, hidden: hidden[0].fault.id, nodes: compile(part, "on").nodes.length };
}

const folder = new URL("../../demo/", import.meta.url);
const demos = readdirSync(folder).filter((f) => f.endsWith(".wiring.json"));
const jobs = Number(arg("jobs", "2"));
const opened = [];
const known = [];
const later = [];
for (const file of demos) {
  const read = parseWiring(readFileSync(new URL(file, folder), "utf8"));
  for (let seed = 11; seed < 11 + jobs; seed++) {
    const played = playTimed(read.value, seed);
    if (!played) continue;
    opened.push(played.answers[0]);
    later.push(...played.answers.slice(1));
    const again = playTimed(read.value, seed, keptOf(read.value, seed + 100), 1);
    known.push(...again.answers);
  }
}
const row = (name, list) =>
  `| ${name} | ${list.length} | ${["first", "whole"]
    .map((k) =>
      [0.5, 0.95]
        .map((q) =>
          ms(
            quantile(
              list.map((a) => a[k]),
              q,
            ),
          ),
        )
        .join(" · "),
    )
    .join(" | ")} |`;
if (jobs > 0) {
  console.log("| demo machines | answers | first suggestion: median · 95 % | whole answer: median · 95 % |");
  console.log("| --- | --- | --- | --- |");
  console.log(row("job opened, nothing known", opened));
  console.log(row("the same, kept of another job", known));
  console.log(row("after a reading", later));
}
console.log(
  "\n| made-up machine | part solved | first card · kept | whole answer · kept | next cards: median first · whole |",
);
console.log("| --- | --- | --- | --- | --- |");
for (const size of String(arg("sizes", "500,2000,5000")).split(",").filter(Boolean)) {
  const wiring = generateHarness({ nodes: Number(size), seed: 1 });
  const played = playTimed(wiring, 1);
  const [again] = playTimed(wiring, 1, keptOf(wiring, 1), 1).answers;
  const [opening, ...rest] = played.answers;
  const both = (which) => `${ms(opening[which])} · ${ms(again[which])}`;
  console.log(
    `| ${size} nodes | ${played.nodes} nodes | ${both("first")} | ${both("whole")} | ` +
      (rest.length
        ? ["first", "whole"]
            .map((k) =>
              ms(
                quantile(
                  rest.map((a) => a[k]),
                  0.5,
                ),
              ),
            )
            .join(" · ")
        : "none") +
      " |",
  );
}
