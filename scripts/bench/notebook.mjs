// What a notebook of earlier jobs is worth, and what one that lies costs. Each simulated shop has one machine on which
// a few places fail far more often than the generic rates say; its notebook holds so many closed jobs. New jobs of that
// shop are then played without a notebook, with it, and with one in which a fifth of the causes are wrong. The
// simulated machine shares the engine's equations: this shows what lessons change, not how right the engine is.
//   npm run bench:notebook [-- --seed 9000 --lessons 200 --jobs 30 --shops 6 --often 3 --share 0.8]
import { parseArgs } from "node:util";
import { availableParallelism } from "node:os";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";
import { DEFAULTS, generateHarness, learnFrom, play, Predictor, repairOf, severityOffGrid } from "@radicula/core";
import { SimulatedMachine, uniform } from "@radicula/core";

const { values } = parseArgs({
  options: {
    lessons: { type: "string", default: "200" },
    jobs: { type: "string", default: "30" },
    shops: { type: "string", default: "6" },
    seed: { type: "string", default: "500" },
    often: { type: "string", default: "3" },
    share: { type: "string", default: "0.8" },
  },
});
const numbers = ["lessons", "jobs", "shops", "seed", "often", "share"].map((k) => Number(values[k]));
/** The last two: places that fail often in a shop, and the share of its jobs that they make. */
const [LESSONS, JOBS, SHOPS, SEED, OFTEN, OFTEN_SHARE] = numbers;
const LYING = 0.2;
const ARMS = ["no notebook", "notebook", "one in five lies"];

if (isMainThread) {
  const results = [];
  let next = 0;
  await Promise.all(
    Array.from(
      { length: Math.min(SHOPS, availableParallelism()) },
      () =>
        new Promise((resolve, reject) => {
          const begin = () => {
            if (next >= SHOPS) return resolve();
            const worker = new Worker(new URL(import.meta.url), {
              argv: process.argv.slice(2),
              workerData: next++,
              resourceLimits: { maxOldGenerationSizeMb: 3000 },
            });
            worker.on("message", (r) => {
              results.push(...r);
              process.stderr.write(`\r${results.length} of ${SHOPS * JOBS * ARMS.length} jobs `);
            });
            worker.on("error", reject);
            worker.on("exit", begin);
          };
          begin();
        }),
    ),
  );
  process.stderr.write("\n");
  report(results);
} else parentPort.postMessage(shop(workerData));

function shop(number) {
  const u = uniform(SEED + 7 * number);
  const wiring = generateHarness({ nodes: 80, seed: SEED + number });
  const predictor = new Predictor(wiring);
  const { faults } = predictor;
  const setsCodes = (fault, seed) =>
    new SimulatedMachine(wiring, [{ fault, severity: severityOffGrid(fault, 0.5) }], seed).codes().length > 0;
  const generic = drawer(faults, (f) => f.prior ** DEFAULTS.priorTrust, u);
  const any = () => {
    for (;;) {
      const fault = generic();
      if (setsCodes(fault, 1)) return fault;
    }
  };
  const often = Array.from({ length: OFTEN }, any);
  const real = () => (u() < OFTEN_SHARE ? often[Math.floor(u() ** 2 * OFTEN)] : any());
  const lesson = (fault, i) => ({
    id: `job ${i}`,
    closed: "2026-01-01",
    wiring: wiring.name,
    machineType: wiring.machineType ?? "",
    title: "job",
    codes: [],
    shared: [],
    suspect: fault.place.id,
    repairs: [repairOf(fault)],
    claimed: 1,
    notHeld: [],
    held: "notAsked",
    note: "",
    used: true,
  });
  const true200 = Array.from({ length: LESSONS }, (_, i) => lesson(real(), i));
  const lying = true200.map((l, i) => (u() < LYING ? lesson(any(), i) : l));
  const entries = [undefined, true200, lying].map((l) => l && learnFrom(l, wiring, "2026-01-01T08:00:00Z"));
  return Array.from({ length: JOBS }, (_, j) => {
    const fault = real();
    const hidden = [{ fault, severity: severityOffGrid(fault, u()) }];
    return ARMS.map((arm, a) => {
      const options = { school: "information", seed: SEED + 1000 * number + j, slips: 0.01, missed: 0.05 };
      const before = entries[a] ? [entries[a]] : [];
      const { ending, minutes, steps, verdict } = play(predictor, hidden, { ...options, before });
      return { arm, ending, minutes, tests: steps.length, alone: verdict?.alone === true };
    });
  }).flat();
}

/** Draws faults as often as their weights say. */
function drawer(faults, weight, u) {
  const sums = [];
  faults.reduce((sum, f, i) => (sums[i] = sum + weight(f)), 0);
  return () => {
    const at = u() * sums.at(-1);
    return faults[sums.findIndex((s) => s > at)];
  };
}

function report(results) {
  const mean = (list) => list.reduce((a, b) => a + b, 0) / list.length;
  const percent = (x) => `${(100 * x).toFixed(1)} %`;
  console.log(`${SHOPS} shops of ${LESSONS} lessons each, ${JOBS} new jobs in each, seed ${SEED};`);
  console.log(`${OFTEN} places make ${percent(OFTEN_SHARE)} of the jobs`);
  console.log("arm                jobs  isolated  alone   wrong  tests  minutes  against none");
  let none;
  for (const arm of ARMS) {
    // a machine that sets no code at all brings no job
    const own = results.filter((r) => r.arm === arm && r.ending !== "noCode");
    const minutes = mean(own.map((r) => r.minutes));
    none ??= minutes;
    const share = (test) => percent(mean(own.map((r) => (test(r) ? 1 : 0))));
    console.log(
      [
        arm.padEnd(18),
        String(own.length).padStart(4),
        share((r) => r.ending === "isolated").padStart(9),
        share((r) => r.alone).padStart(8),
        share((r) => r.ending === "wrong").padStart(6),
        mean(own.map((r) => r.tests))
          .toFixed(1)
          .padStart(6),
        minutes.toFixed(1).padStart(8),
        percent(minutes / none - 1).padStart(10),
      ].join(" "),
    );
  }
}
