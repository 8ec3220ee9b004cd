// The machines and the hidden faults of the diagnosis bench. Everything follows from seeds.
import { readFileSync } from "node:fs";
import {
  generateFaults,
  generateHarness,
  parseWiring,
  severityOffGrid,
  SimulatedMachine,
  uniform,
} from "@radicula/core";

const demo = (file) => {
  const r = parseWiring(readFileSync(new URL(`../../demo/${file}`, import.meta.url), "utf8"));
  if (!r.ok) throw new Error(JSON.stringify(r.issues));
  return r.value;
};
/** Machines to tune on, and others to judge by: a demo machine, made-up ones of about 100 nodes, two of about 500. */
const SETS = {
  tuning: { demo: ["Tug 4", "tug-4.wiring.json"], small: [3, 4, 5, 6, 7], large: [11, 12], draw: 0 },
  judging: {
    demo: ["Generator 9", "generator-9.wiring.json"],
    small: [110, 111, 112, 113, 114],
    large: [115, 116],
    draw: 156,
  },
};
const chosen = process.argv.includes("--judging") ? SETS.judging : SETS.tuning;
export const machines = [
  { name: chosen.demo[0], wiring: demo(chosen.demo[1]) },
  ...chosen.small.map((seed) => ({
    name: `made up ${seed}, 100 nodes`,
    wiring: withLookAlikes(generateHarness({ nodes: 100, seed })),
  })),
  ...chosen.large.map((seed, i) => ({
    name: `made up ${seed}, 500 nodes`,
    wiring: withLookAlikes(generateHarness({ nodes: 500, seed, nominalVolt: i === 1 ? 24 : 12 })),
  })),
];
const LARGE = 6;
const SCHOOLS = ["easiest", "halve", "powerGroundSignal", "chart", "random"];
const ABLATIONS = {
  "one severity": { school: "information", oneSeverity: true },
  "no look-ahead": { school: "information", greedy: true },
  "no intermittents, no look-alikes": { school: "information", belief: { only: "lasting" } },
};
/** The engine takes the rates of faults to this power: what it holds for likely. */
const RATE_POWER = 0.5;

/**
 * @param jobs single faults for each machine of about 100 nodes; the other sets are parts of it
 * @param only numbers of the machines wanted, with commas between
 * @returns cases as plain data: machine, set, faults with severities, options
 */
export function cases(jobs, only) {
  const wanted = (m) => only === undefined || String(only).split(",").includes(String(m));
  return machines.flatMap((_, m) => (wanted(m) ? new MachineCases(m, m >= LARGE ? jobs / 2 : jobs).all() : []));
}

/** The cases of one machine. */
class MachineCases {
  constructor(machine, jobs) {
    this.machine = machine;
    this.jobs = jobs;
    this.wiring = machines[machine].wiring;
    this.faults = generateFaults(this.wiring);
    this.list = [];
    const every = Math.max(1, Math.floor(this.faults.length / LOUD_OF));
    this.loud = this.faults.map((_, i) => i).filter((i) => i % every === 0 && this.sets([this.pick(i)], 500 + i) > 0);
  }

  all() {
    const single = this.evenly(this.loud, this.jobs);
    for (const i of single) this.add("single", [this.pick(i)], i);
    const ofWires = this.loud.filter((i) => this.faults[i].mode === "shortToWire");
    for (const i of this.evenly(ofWires, this.jobs / 2)) this.add("wire to wire", [this.pick(i)], i);
    this.drawn();
    for (const i of this.evenly(single, this.jobs / 5)) {
      for (const school of SCHOOLS) this.add("school", [this.pick(i)], i, { school });
      for (const [set, options] of Object.entries(ABLATIONS)) this.add(set, [this.pick(i)], i, options);
    }
    this.several();
    this.fuses();
    this.wrongComponent();
    const loose = this.loud.filter((i) => /contactOpen|unseated|legOpen|groundOpen/.test(this.faults[i].mode));
    this.evenly(loose, this.jobs / 3).forEach((i, n) =>
      this.add("intermittent", [this.plain(i)], 60_000 + n, { presence: 0.5 }),
    );
    return this.list;
  }

  /** a fault by its place in the list, with a severity off the engine's grid; a tenth has a part of another kind */
  pick(i) {
    const u = uniform(this.machine * 100_003 + (i + chosen.draw) * 31 + 7);
    u();
    const fault = this.faults[i];
    return { id: fault.id, severity: severityOffGrid(fault, u()), odd: u() < 0.1 };
  }
  plain(i) {
    return { ...this.pick(i), odd: false };
  }
  /** how many codes faults set */
  sets(picked, seed) {
    const hidden = picked.map((c) => ({ fault: this.faults.find((f) => f.id === c.id), severity: c.severity }));
    return new SimulatedMachine(this.wiring, hidden, seed).codes().length;
  }
  evenly(list, count) {
    const n = Math.min(list.length, Math.ceil(count));
    return Array.from({ length: n }, (_, k) => list[Math.floor(((k + 0.5) * list.length) / n)]);
  }
  add(set, picked, i, options = {}) {
    const base = { slips: 0.01, missed: 0.05, seed: 500 + chosen.draw + i, wrongKind: picked[0].odd };
    this.list.push({
      machine: this.machine,
      set,
      faults: picked.map(({ id, severity }) => ({ id, severity })),
      options: { ...base, school: "information", ...options },
    });
  }

  /** faults as often as the engine holds them for likely: what its shares are to be held against */
  drawn() {
    const u = uniform(7000 + this.machine + chosen.draw);
    const rates = this.loud.map((i) => this.faults[i].prior ** RATE_POWER);
    const total = rates.reduce((a, b) => a + b, 0);
    for (let n = 0; n < this.jobs; n++) {
      let left = u() * total;
      const at = rates.findIndex((r) => (left -= r) <= 0);
      const i = this.loud[at < 0 ? this.loud.length - 1 : at];
      this.add("drawn", [this.pick(i)], 80_000 + 1000 * n + i);
    }
  }

  /** pairs and triples of faults that set codes; each found is repaired, and the rest go on */
  several() {
    const u = uniform(9000 + this.machine + chosen.draw);
    const any = () => this.plain(this.loud[Math.floor(u() * this.loud.length)]);
    const distinct = (count) => {
      for (;;) {
        const c = Array.from({ length: count }, any);
        const places = new Set(c.map((x) => x.id.split("/")[0]));
        if (places.size === count && this.sets(c, 700) > 1) return c;
      }
    };
    for (let n = 0; n < this.jobs / 2; n++) this.add("double", distinct(2), 20_000 + n, { repairs: true });
    for (let n = 0; n < this.jobs / 4; n++) this.add("triple", distinct(3), 30_000 + n, { repairs: true });
  }

  /** a shorted device or wire that melts the fuse it hangs on */
  fuses() {
    const shorts = this.faults
      .map((f, i) => ({ f, i }))
      .filter(({ f }) => ["shortInside", "shortSupplyGround", "shortToChassis"].includes(f.mode));
    let count = 0;
    for (const { f, i } of shorts) {
      if (count >= this.jobs / 4) break;
      const picked = [{ id: f.id, severity: 0.08, odd: false }];
      if (!meltsFuse(this.wiring, f) || this.sets(picked, 40_000 + i) === 0) continue;
      count++;
      this.add("fuse", picked, 40_000 + i);
    }
  }

  /** readings taken at a look-alike: the coded part's own fault, but the leads in its twin */
  wrongComponent() {
    const twins = lookAlikePairs(this.wiring);
    const twinOf = (i) => twins.find((t) => t.from === this.faults[i].place.id.split(":")[0]);
    const at = this.loud.filter((i) => twinOf(i));
    for (const i of this.evenly(at, this.jobs / 3))
      this.add("wrong component", [this.plain(i)], 50_000 + i, { mistaken: twinOf(i) });
  }
}
/** So many faults of a machine are tried for whether they set a code. */
const LOUD_OF = 800;

function meltsFuse(wiring, fault) {
  const m = new SimulatedMachine(wiring, [{ fault, severity: 0.08 }], 1);
  return wiring.devices.some(
    (d) =>
      d.kind === "fuse" &&
      m.read(`${d.id}:out`, { key: "on", unplugged: [] }, "voltmeter") < 1 &&
      m.read(`${d.id}:in`, { key: "on", unplugged: [] }, "voltmeter") > 0.7 * wiring.nominalVolt,
  );
}
/**
 * Made-up machines say which parts are easily taken for another: the next of the same kind with as many cavities, as
 * somebody drawing them would note.
 */
function withLookAlikes(wiring) {
  const twins = new Map(lookAlikePairs(wiring).map((t) => [t.from, t.to]));
  return {
    ...wiring,
    connectors: wiring.connectors.map((c) => (twins.has(c.id) ? { ...c, lookAlikes: [twins.get(c.id)] } : c)),
  };
}
/** Connectors of the same kind of part and as many cavities: what a technician could take for another. */
function lookAlikePairs(wiring) {
  const of = new Map(
    wiring.devices.flatMap((d) =>
      "pins" in d && !Array.isArray(d.pins)
        ? [...new Set(Object.values(d.pins).map((p) => p.split(":")[0]))].map((c) => [c, d.kind])
        : [],
    ),
  );
  return wiring.connectors.flatMap((a) =>
    wiring.connectors
      .filter(
        (b) =>
          b.id !== a.id && of.get(a.id) && of.get(a.id) === of.get(b.id) && a.cavities.length === b.cavities.length,
      )
      .slice(0, 1)
      .map((b) => ({ from: a.id, to: b.id })),
  );
}
