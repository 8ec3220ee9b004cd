// npm run bench:judge [-- --machines 5-8 --jobs 100 --seed 1000 --out judge.json]
// Plays jobs on machines in ngspice that do not share the engine's equations: see core/test/judge. Machines 1 to 4 are
// for tuning, 5 to 8 are judged only. A verdict counts as right only for the one repair it names or, where no test on
// offer can tell some places apart, for one of them; both are counted.
import { availableParallelism } from "node:os";
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { isMainThread, parentPort, Worker } from "node:worker_threads";

const FOLDER = new URL("../../core/dist-test/test/judge/", import.meta.url);
const load = async (name) => import(new URL(`${name}.js`, FOLDER));

if (isMainThread) await main();
else await work();

async function main() {
  const { values: options } = parseArgs({
    options: {
      machines: { type: "string", default: "5-8" },
      jobs: { type: "string", default: "100" },
      seed: { type: "string", default: "1000" },
      out: { type: "string" },
    },
  });
  const [first, last] = options.machines.split("-").map(Number);
  const { judgeMachines } = await load("machines");
  const machines = judgeMachines()
    .map((_, i) => i)
    .slice(first - 1, last ?? first);
  const each = Math.ceil(Number(options.jobs) / machines.length);
  const tasks = machines.map((machine) => ({ machine, seed: Number(options.seed), each }));
  const results = [];
  await Promise.all(
    Array.from({ length: Math.min(availableParallelism(), tasks.length) }, () => {
      const worker = new Worker(new URL(import.meta.url));
      return new Promise((resolve, reject) => {
        const next = () => {
          const task = tasks.shift();
          if (task) worker.postMessage(task);
          else void worker.terminate().then(resolve);
        };
        worker.on("message", (message) => {
          if (message === "done") return next();
          results.push(message);
          const { machine, seed, ending, share, mode, repair, named } = message;
          console.log(`${machine.slice(0, 7)} ${seed} ${ending} ${share.toFixed(3)} ${mode} at ${repair}: ${named}`);
        });
        worker.on("error", reject);
        next();
      });
    }),
  );
  if (options.out) writeFileSync(options.out, JSON.stringify(results, null, 1));
  report(results);
}

async function work() {
  const [{ judgeMachines }, { HiddenMachine }, { hiddenFaults }, { playJob }, { Unsolved }, core] = await Promise.all([
    load("machines"),
    load("hiddenMachine"),
    load("hiddenFaults"),
    load("job"),
    load("netlist"),
    import(new URL("../../src/index.js", FOLDER)),
  ]);
  parentPort.on("message", ({ machine, seed, each }) => {
    const wiring = judgeMachines()[machine];
    const faults = hiddenFaults(wiring);
    const predictor = new core.Predictor(wiring);
    for (let k = seed, played = 0; played < each && k < seed + 20 * each; k++) {
      const random = core.uniform(k * 977 + machine);
      const hidden = faults[Math.floor(random() * faults.length)](random());
      let result;
      try {
        result = playJob(predictor, new HiddenMachine(wiring, hidden, k), k);
      } catch (error) {
        if (!(error instanceof Unsolved)) throw error;
        continue; // the simulator found no operating point: no job
      }
      if (result.ending === "noCode") continue;
      played++;
      parentPort.postMessage({ ...result, seed: k });
    }
    parentPort.postMessage("done");
  });
}

function report(results) {
  const share = (list) => `${((100 * list.length) / results.length).toFixed(1)} %`;
  const is = (ending) => results.filter((r) => r.ending === ending);
  const at = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
  console.log(`
jobs with a code              ${results.length}
isolated                      ${share(is("isolated"))}
  the place named first       ${share(is("isolated").filter((r) => r.namedRight))}
  a single place named        ${share(is("isolated").filter((r) => r.places === 1))}
wrong                         ${share(is("wrong"))}
wrong at 95 % or more         ${share(is("wrong").filter((r) => r.share >= 0.95))}
given up                      ${share(is("gaveUp"))}
tests                         median ${at(
    results.map((r) => r.tests),
    0.5,
  )}, 9 of 10 within ${at(
    results.map((r) => r.tests),
    0.9,
  )}
minutes                       median ${at(
    results.map((r) => r.minutes),
    0.5,
  ).toFixed(1)}`);
  for (const mode of [...new Set(results.map((r) => r.mode))].sort()) {
    const list = results.filter((r) => r.mode === mode);
    console.log(`${mode.padEnd(34)} ${list.filter((r) => r.ending === "isolated").length} of ${list.length}`);
  }
}
