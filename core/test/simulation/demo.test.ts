import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { findFault, generateFaults, parseCase, SimulatedMachine, type Played } from "../../src/index.js";
import { ROOT } from "../helpers.js";

const folder = join(ROOT, "demo");
interface Hidden {
  readonly fault: string;
  readonly ohm: number | null;
  readonly seed: number;
  readonly also?: readonly { readonly fault: string; readonly ohm: number | null }[];
  readonly presence?: number;
  readonly mistaken?: { readonly from: string; readonly to: string };
}
const jobs = JSON.parse(readFileSync(join(folder, "jobs.json"), "utf8")) as {
  readonly file: string;
  readonly hidden: Hidden;
}[];
const read = (file: string) => {
  const r = parseCase(readFileSync(join(folder, file), "utf8"));
  if (!r.ok) throw new Error(JSON.stringify(r.issues));
  return r.value;
};

test("ten jobs, one for each kind of cause", () => {
  expect(jobs.length).toBe(10);
  expect(jobs.filter((j) => j.hidden.also).length).toBe(1);
  expect(jobs.filter((j) => j.hidden.presence).length).toBe(1);
  expect(jobs.filter((j) => j.hidden.mistaken).length).toBe(1);
});

// played by the built program in a process of its own: some five times faster than inside the test runner
beforeAll(() => {
  execFileSync("npm", ["run", "--silent", "build", "-w", "core"], { cwd: ROOT, stdio: "pipe" });
});
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

describe.each(jobs)("$file", ({ file, hidden }) => {
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
});
