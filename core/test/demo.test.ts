import { readFileSync } from "node:fs";
import { join } from "node:path";
import { findFault, parseCase, play, Predictor, SimulatedMachine } from "../src/index";

const folder = join(__dirname, "..", "..", "demo");
interface Hidden { readonly fault: string; readonly ohm: number | null; readonly seed: number; readonly also?: readonly { readonly fault: string; readonly ohm: number | null }[]; readonly presence?: number; readonly mistaken?: { readonly from: string; readonly to: string } }
const jobs = JSON.parse(readFileSync(join(folder, "jobs.json"), "utf8")) as { readonly file: string; readonly hidden: Hidden }[];
const read = (file: string) => { const r = parseCase(readFileSync(join(folder, file), "utf8")); if (!r.ok) throw new Error(JSON.stringify(r.issues)); return r.value; };

test("ten jobs, one for each kind of cause", () => {
  expect(jobs.length).toBe(10);
  expect(jobs.filter((j) => j.hidden.also).length).toBe(1);
  expect(jobs.filter((j) => j.hidden.presence).length).toBe(1);
  expect(jobs.filter((j) => j.hidden.mistaken).length).toBe(1);
});

describe.each(jobs)("$file", ({ file, hidden }) => {
  const job = read(file), predictor = new Predictor(job.wiring);
  const faults = [hidden, ...(hidden.also ?? [])].map(({ fault, ohm }) => ({ fault: findFault(predictor.faults, fault)!.fault, severity: ohm ?? NaN }));
  test("its codes are those the hidden fault sets; a machine without it sets none", () => {
    const logged = job.entries.flatMap((e) => (e.type === "scan" ? e.codes.map((c) => c.code) : e.type === "code" ? [e.code] : []));
    expect(new SimulatedMachine(job.wiring, faults, hidden.seed).codes().map((c) => c.code).sort()).toEqual(logged.sort());
    expect(new SimulatedMachine(job.wiring, [], hidden.seed).codes()).toEqual([]);
  });
  test("played to its end from what the customer tells, the cause is found", () => {
    const { presence, mistaken, seed } = hidden;
    const ended = play(predictor, faults, { school: "information", seed, before: job.entries.filter((e) => e.type === "intake"), ...(presence ? { presence } : {}), ...(mistaken ? { mistaken } : {}) });
    expect([ended.ending, ended.overbold]).toEqual(["isolated", false]);
    if (mistaken) expect(ended.doubtedAfter).toBeLessThan(4);
  }, 120_000);
});
