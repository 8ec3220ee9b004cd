// npm run bench:judge [-- --machines 5-8 --jobs 100 --seed 1000 --out judge.json]
// Plays jobs on machines in ngspice that do not share the engine's equations: see core/test/judge. Machines 1 to 4 are
// for tuning, 5 to 8 are judged only. Three counts: the hidden repair is among the places the verdict holds, is named
// first, is named alone.
import { availableParallelism } from "node:os";
import { writeFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { isMainThread, parentPort, Worker } from "node:worker_threads";

/** Sound machines of each document that are read all over. */
const SOUND_MACHINES = 3;
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
  const sound = [];
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
          if (message.sound) return void sound.push(message.sound);
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
  report(results, sound);
}

async function work() {
  const [{ judgeMachines }, { HiddenMachine }, { hiddenFaults }, { playJob }, { readSound }, { Unsolved }, core] =
    await Promise.all([
      load("machines"),
      load("hiddenMachine"),
      load("hiddenFaults"),
      load("job"),
      load("sound"),
      load("netlist"),
      import(new URL("../../src/index.js", FOLDER)),
    ]);
  parentPort.on("message", ({ machine, seed, each }) => {
    const wiring = judgeMachines()[machine];
    const faults = hiddenFaults(wiring);
    const predictor = new core.Predictor(wiring);
    for (let k = seed; k < seed + SOUND_MACHINES; k++)
      parentPort.postMessage({ sound: readSound(predictor, new HiddenMachine(wiring, undefined, k)) });
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

function report(results, sound) {
  const share = (list) => `${((100 * list.length) / results.length).toFixed(1)} %`;
  const is = (ending) => results.filter((r) => r.ending === ending);
  const places = sound.reduce((sum, s) => sum + s.read, 0);
  const outside = sound.reduce((sum, s) => sum + s.outside.length, 0);
  const at = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
  console.log(`
jobs with a code              ${results.length}
among the places held         ${share(is("isolated"))}
  named first                 ${share(is("isolated").filter((r) => r.namedRight))}
  named alone                 ${share(is("isolated").filter((r) => r.places === 1 && r.namedRight))}
wrong                         ${share(is("wrong"))}
wrong at 95 % or more         ${share(is("wrong").filter((r) => r.share >= 0.95))}
given up                      ${share(is("gaveUp"))}
sound machines, places read   ${places}, ${((100 * (places - outside)) / places).toFixed(1)} % as predicted
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
