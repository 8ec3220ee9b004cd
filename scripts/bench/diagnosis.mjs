// npm run bench:diagnosis [-- --jobs N] [--judging] [--machine I[,I…]] [--only SET[,SET…]] [--save FILE]
// Hidden faults on a demo machine and on made-up ones, each played to the end. Prints how often the right repair was
// named, alone or in a group, how long it took, and whether what was claimed came true. `--jobs` counts single faults
// for each machine of 100 nodes; the other sets are parts of it. `--judging` takes machines nothing was tuned on.
// `--save FILE` keeps the results as they come, and `--report FILE` prints what such a file holds, also of a run that
// was stopped. Uses every core. Run `npm start` or `npm ci` once before.
import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { isMainThread, parentPort, Worker } from "node:worker_threads";
import { cases, machines } from "./diagnosisCases.mjs";
import { report } from "./diagnosisReport.mjs";
import { playCase } from "./diagnosisPlay.mjs";

if (isMainThread) {
  const arg = (name, otherwise) => {
    const i = process.argv.indexOf(`--${name}`);
    return i < 0 ? otherwise : process.argv[i + 1];
  };
  const saved = arg("report", "");
  if (saved) {
    const { results, minutes } = JSON.parse(readFileSync(saved, "utf8"));
    console.log(report(results, { minutes }));
    process.exit(0);
  }
  const file = arg("save", "");
  const keep = () => {
    if (!file) return;
    writeFileSync(`${file}.new`, JSON.stringify({ results, minutes: (Date.now() - began) / 60000 }));
    renameSync(`${file}.new`, file); // a file that is there is whole
  };
  const jobs = Number(arg("jobs", "12"));
  const only = arg("only", "").split(",").filter(Boolean);
  const began = Date.now();
  const list = cases(jobs, arg("machine", undefined)).filter((c) => only.length === 0 || only.includes(c.set));
  // machine by machine, so that a worker's predictions serve many cases
  const byMachine = machines.flatMap((m, i) => chunks(list.filter((c) => c.machine === i)));
  const results = [];
  let next = 0;
  let done = 0;
  await Promise.all(
    Array.from(
      { length: Math.min(availableParallelism(), byMachine.length) },
      () =>
        new Promise((resolve, reject) => {
          const worker = new Worker(new URL(import.meta.url), {
            argv: process.argv.slice(2),
            resourceLimits: { maxOldGenerationSizeMb: 3000 },
          });
          const feed = () => {
            if (next < byMachine.length) worker.postMessage(byMachine[next++]);
            else {
              worker.postMessage(null);
              resolve();
            }
          };
          worker.on("message", (r) => {
            results.push(...r);
            done += r.length;
            keep();
            process.stderr.write(`\r${done} of ${list.length} jobs, ${Math.round((Date.now() - began) / 1000)} s `);
            feed();
          });
          worker.on("error", reject);
          feed();
        }),
    ),
  );
  process.stderr.write("\n");
  console.log(report(results, { minutes: (Date.now() - began) / 60000 }));
  process.exit(0);
} else {
  parentPort.on("message", (chunk) => {
    if (chunk === null) process.exit(0);
    parentPort.postMessage(chunk.map(playCase));
  });
}

function chunks(list, size = 8) {
  return Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));
}
