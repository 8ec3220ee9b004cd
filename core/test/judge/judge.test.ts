import { Predictor, uniform } from "../../src/index.js";
import { HiddenMachine } from "./hiddenMachine.js";
import { hiddenFaults } from "./hiddenFaults.js";
import { playJob, type JobResult } from "./job.js";
import { judgeMachines } from "./machines.js";
import { readAll } from "./asPredicted.js";

/**
 * Reference program: ngspice, on machines written from device physics and not through the product's compiler. A short
 * form of `npm run bench:judge`; machines 1 and 3 only; 9 to 12 are kept for judging.
 */
const machines = judgeMachines()
  .slice(0, 4)
  .filter((_, i) => i % 2 === 0);

test("sound machines set no code, and read as predicted", () => {
  let read = 0;
  const outside: string[] = [];
  for (const w of machines) {
    const predictor = new Predictor(w);
    const machine = new HiddenMachine(w, undefined, 41);
    expect(machine.codes()).toEqual([]);
    const sound = readAll(predictor, machine);
    read += sound.length;
    outside.push(...sound.flatMap((r) => (r.asPredicted ? [] : [`${w.name} ${r.point}`])));
  }
  expect(read).toBeGreaterThan(80);
  expect(outside.length / read).toBeLessThan(0.07);
}, 300_000);

test("jobs on them are brought to their end, and hardly ever to a wrong one", () => {
  const ended: JobResult[] = [];
  for (const [i, w] of machines.entries()) {
    const predictor = new Predictor(w);
    const faults = hiddenFaults(w);
    for (let k = 300, played = 0; played < 1; k++) {
      const random = uniform(k * 977 + i);
      const hidden = faults[Math.floor(random() * faults.length)]!(random());
      const job = playJob(predictor, new HiddenMachine(w, hidden, k), k);
      if (job.ending === "noCode") continue;
      played++;
      ended.push(job);
    }
  }
  expect(ended).toHaveLength(2);
  expect(ended.filter((j) => j.ending === "isolated").length).toBeGreaterThanOrEqual(1);
  expect(ended.filter((j) => j.ending === "wrong" && j.share >= 0.95).length).toBe(0);
}, 300_000);
