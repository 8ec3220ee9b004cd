// How honest the proof of a repair is: simulated machines with hidden faults are diagnosed, repaired (well, badly, at
// the wrong place, with a second fault left, or while the fault was away) and proven as the plan says. What was claimed
// is set beside what was so. The simulated machine shares the engine's equations: this shows consistency, not truth.
//   npm run bench:proof [-- --jobs 300 --seed 90000]
import { parseArgs } from "node:util";
import { generateHarness, hideFaults, playProof, Predictor, readWiring } from "../../core/dist/src/index.js";
import { readFileSync } from "node:fs";

const { values } = parseArgs({ options: { jobs: { type: "string" }, seed: { type: "string" } } });
const JOBS = Number(values.jobs ?? 300);
const SEED = Number(values.seed ?? 90_000);
const KINDS = ["well", "well", "well", "badly", "wrongPlace", "second", "away"];

const wirings = [
  ...["tug-4", "generator-9", "whimbrel"].map((name) => {
    const read = readWiring(JSON.parse(readFileSync(`demo/${name}.wiring.json`, "utf8")));
    if (!read.ok) throw new Error(name);
    return read.value;
  }),
  ...[1, 2, 3].map((seed) => generateHarness({ nodes: 70, seed: SEED + seed })),
];
const predictors = wirings.map((w) => new Predictor(w));

const ended = [];
const begun = performance.now();
for (let i = 0; i < JOBS; i++) {
  const seed = SEED + i;
  const kind = KINDS[i % KINDS.length];
  const at = Math.floor(i / KINDS.length) % wirings.length;
  const faults = hideFaults(wirings[at], kind === "second" ? 2 : 1, seed);
  if (!faults) continue;
  const job = playProof(predictors[at], faults, {
    seed,
    ...(kind === "away" ? { presence: 0.2 + (0.6 * ((seed * 37) % 100)) / 100 } : {}),
    ...(kind === "badly" ? { badly: true } : {}),
    ...(kind === "wrongPlace" ? { wrongPlace: true } : {}),
  });
  if (!job) continue;
  const last = job.course.at(-1);
  ended.push({ kind, cured: job.cured, course: job.course, claimed: last.cured, minutes: last.minutes });
  if (i % 20 === 19) console.error(`${i + 1} of ${JOBS}, ${Math.round((performance.now() - begun) / 1000)} s`);
}

const percent = (x) => `${(100 * x).toFixed(1)} %`;
const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length;
const at = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
console.log(`${ended.length} repaired jobs on ${wirings.length} machines, seed ${SEED}`);
console.log("kind          jobs  truly cured  claimed at the end (mean)");
for (const kind of new Set(KINDS)) {
  const own = ended.filter((e) => e.kind === kind);
  if (own.length)
    console.log(
      [
        kind.padEnd(12),
        String(own.length).padStart(5),
        percent(mean(own.map((e) => (e.cured ? 1 : 0)))).padStart(12),
        percent(mean(own.map((e) => e.claimed))),
      ].join(" "),
    );
}
const BANDS = [0, 0.05, 0.5, 0.8, 0.9, 0.95, 1.0001];
for (const [name, points] of [
  ["claimed right after the repair", ended.map((e) => [e.course[0].cured, e.cured])],
  ["claimed at the end of the proof", ended.map((e) => [e.claimed, e.cured])],
]) {
  console.log(`\n${name}: band, jobs, claimed, truly cured`);
  for (let b = 0; b + 1 < BANDS.length; b++) {
    const own = points.filter(([c]) => c >= BANDS[b] && c < BANDS[b + 1]);
    if (own.length)
      console.log(
        `  ${percent(BANDS[b])}–${percent(Math.min(1, BANDS[b + 1]))}  ${own.length}  ` +
          `${percent(mean(own.map((p) => p[0])))}  ${percent(mean(own.map((p) => (p[1] ? 1 : 0))))}`,
      );
  }
}
const sure = ended.filter((e) => e.claimed >= 0.95);
const wrong = sure.filter((e) => !e.cured);
console.log(
  `\nclaimed cured at 95 % or more: ${sure.length}, of these not cured: ${wrong.length} ` +
    `(${percent(wrong.length / Math.max(1, sure.length))})`,
);
const minutes = ended.filter((e) => e.claimed >= 0.5).map((e) => e.minutes);
console.log(
  `minutes of a proof that holds: median ${at(minutes, 0.5)}, 90th percentile ${at(minutes, 0.9)}; ` +
    "a fixed drive takes 30",
);
