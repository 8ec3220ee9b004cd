// npm run bench:judge [-- --machines 9-12 --jobs 100 --seed 1000 --only "module inputShort" --out judge.json]
// Plays jobs on machines in ngspice that do not share the engine's equations: see core/test/judge. Machines 1 to 8 are
// for tuning, 9 to 12 are judged only. Three counts: the hidden repair is among the places the verdict holds, is named
// first, is named alone. Beside them how many places read as predicted, on sound machines and on faulty ones.
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
      machines: { type: "string", default: "9-12" },
      jobs: { type: "string", default: "100" },
      seed: { type: "string", default: "1000" },
      only: { type: "string", default: "" },
      out: { type: "string" },
    },
  });
  const [first, last] = options.machines.split("-").map(Number);
  const { judgeMachines } = await load("machines");
  const machines = judgeMachines()
    .map((_, i) => i)
    .slice(first - 1, last ?? first);
  const each = Math.ceil(Number(options.jobs) / machines.length);
  const tasks = machines.map((machine) => ({ machine, seed: Number(options.seed), each, only: options.only }));
  const results = [];
  const reads = [];
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
          if (message.reads) return void reads.push(message);
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
  reportReads(reads);
}

async function work() {
  const [{ judgeMachines }, { HiddenMachine }, { hiddenFaults }, { playJob }, { readAll }, { Unsolved }, core] =
    await Promise.all([
      load("machines"),
      load("hiddenMachine"),
      load("hiddenFaults"),
      load("job"),
      load("asPredicted"),
      load("netlist"),
      import(new URL("../../src/index.js", FOLDER)),
    ]);
  parentPort.on("message", ({ machine, seed, each, only }) => {
    const wiring = judgeMachines()[machine];
    const faults = hiddenFaults(wiring);
    const predictor = new core.Predictor(wiring);
    for (let k = seed; k < seed + SOUND_MACHINES; k++)
      parentPort.postMessage({ sound: true, reads: readAll(predictor, new HiddenMachine(wiring, undefined, k)) });
    for (let k = seed, played = 0; played < each && k < seed + (only ? 600 : 20) * each; k++) {
      const random = core.uniform(k * 977 + machine);
      const hidden = faults[Math.floor(random() * faults.length)](random());
      if (only && hidden.mode !== only) continue;
      let result;
      try {
        result = playJob(predictor, new HiddenMachine(wiring, hidden, k), k);
      } catch (error) {
        if (!(error instanceof Unsolved)) throw error;
        continue; // the simulator found no operating point: no job
      }
      if (result.ending === "noCode") continue;
      played++;
      parentPort.postMessage({ sound: false, reads: readAll(predictor, new HiddenMachine(wiring, hidden, k)) });
      parentPort.postMessage({ ...result, seed: k });
    }
    parentPort.postMessage("done");
  });
}

/** Places that read as predicted, by what their conductor is for. */
function reportReads(all) {
  const share = (list) =>
    list.length ? `${((100 * list.filter((r) => r.asPredicted).length) / list.length).toFixed(1)} %` : "-";
  const of = (sound) => all.filter((m) => m.sound === sound).flatMap((m) => m.reads);
  const [sound, faulty] = [of(true), of(false)];
  const both = `sound machines ${share(sound)} of ${sound.length}, faulty ones ${share(faulty)} of ${faulty.length}`;
  console.log(`\nplaces read as predicted: ${both}`);
  for (const kind of [...new Set([...sound, ...faulty].map((r) => r.kind))].sort()) {
    const at = (list) => list.filter((r) => r.kind === kind);
    console.log(`${kind.padEnd(34)} ${share(at(sound)).padStart(8)} ${share(at(faulty)).padStart(8)}`);
  }
}

function report(results) {
  const share = (list) => `${((100 * list.length) / results.length).toFixed(1)} %`;
  const is = (ending) => results.filter((r) => r.ending === ending);
  const at = (list, q) => [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))];
  console.log(`
jobs with a code              ${results.length}
among the places held         ${share(is("isolated"))}
  named first                 ${share(is("isolated").filter((r) => r.namedRight))}
  named alone                 ${share(is("isolated").filter((r) => r.places === 1 && r.namedRight))}
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
  console.log("\nfault                              held   of  wrong at 95 %  given up  tests  minutes");
  const mean = (list, of) => (list.reduce((sum, r) => sum + of(r), 0) / list.length).toFixed(1);
  for (const mode of [...new Set(results.map((r) => r.mode))].sort()) {
    const list = results.filter((r) => r.mode === mode);
    const count = (is) => String(list.filter(is).length);
    console.log(
      mode.padEnd(34),
      count((r) => r.ending === "isolated").padStart(4),
      String(list.length).padStart(4),
      count((r) => r.ending === "wrong" && r.share >= 0.95).padStart(14),
      count((r) => r.ending === "gaveUp").padStart(9),
      mean(list, (r) => r.tests).padStart(6),
      mean(list, (r) => r.minutes).padStart(8),
    );
  }
}
