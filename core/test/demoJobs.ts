import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { findFault, generateFaults, parseCase, SimulatedMachine, type Played } from "../src/index.js";
import { ROOT } from "./helpers.js";

const folder = join(ROOT, "demo");
interface Hidden {
  readonly fault: string;
  readonly ohm: number | null;
  readonly seed: number;
  readonly also?: readonly { readonly fault: string; readonly ohm: number | null }[];
  readonly presence?: number;
  readonly mistaken?: { readonly from: string; readonly to: string };
}
export const demoJobs = JSON.parse(readFileSync(join(folder, "jobs.json"), "utf8")) as {
  readonly file: string;
  readonly hidden: Hidden;
}[];
const read = (file: string) => {
  const r = parseCase(readFileSync(join(folder, file), "utf8"));
  if (!r.ok) throw new Error(JSON.stringify(r.issues));
  return r.value;
};

/** Played by the program as a process of its own, as from the command line; its runner builds it first. */
function simulate(file: string, { fault, ohm, seed, also = [], presence, mistaken }: Hidden): Played {
  const name = (f: { readonly fault: string; readonly ohm: number | null }) =>
    f.ohm === null ? f.fault : `${f.fault}@${f.ohm}`;
  const argv = [
    "simulate",
    join("demo", file),
    "--fault",
    [{ fault, ohm }, ...also].map(name).join(","),
    "--seed",
    String(seed),
    "--json",
    ...(presence ? ["--presence", String(presence)] : []),
    ...(mistaken ? ["--mistaken", `${mistaken.from},${mistaken.to}`] : []),
  ];
  return JSON.parse(
    execFileSync(process.execPath, [join("core", "bin", "radicula.mjs"), ...argv], { cwd: ROOT, encoding: "utf8" }),
  ) as Played;
}

/** Plays the demo jobs, each to its end. Two suites share them out, so that two cores work on them. */
export function checkDemoJobs(jobs: typeof demoJobs): void {
  describe.each(jobs)("$file", ({ file, hidden }) => checkDemoJob(file, hidden));
}

function checkDemoJob(file: string, hidden: Hidden): void {
  const job = read(file);
  const known = generateFaults(job.wiring);
  const faults = [hidden, ...(hidden.also ?? [])].map(({ fault, ohm }) => ({
    fault: findFault(known, fault)!.fault,
    severity: ohm ?? NaN,
  }));
  test("its codes are those the hidden fault sets; a machine without it sets none", () => {
    const logged = job.entries.flatMap((e) =>
      e.type === "scan" ? e.codes.map((c) => c.code) : e.type === "code" ? [e.code] : [],
    );
    expect(
      new SimulatedMachine(job.wiring, faults, hidden.seed)
        .codes()
        .map((c) => c.code)
        .sort(),
    ).toEqual(logged.sort());
    expect(new SimulatedMachine(job.wiring, [], hidden.seed).codes()).toEqual([]);
  });
  test("played to its end from what the customer tells, the cause is found", () => {
    const ended = simulate(file, hidden);
    expect([ended.ending, ended.overbold]).toEqual(["isolated", false]);
    if (hidden.mistaken) expect(ended.doubtedAfter).toBeLessThan(4);
  });
}
