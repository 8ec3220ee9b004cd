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
/** Demo machines, made-up ones of about 100 nodes, and two of about 500. */
export const machines = [
  { name: "Tug 4", wiring: demo("tug-4.wiring.json") },
  ...[3, 4, 5, 6, 7].map((seed) => ({
    name: `made up ${seed}, 100 nodes`,
    wiring: withLookAlikes(generateHarness({ nodes: 100, seed })),
  })),
  ...[11, 12].map((seed) => ({
    name: `made up ${seed}, 500 nodes`,
    wiring: withLookAlikes(generateHarness({ nodes: 500, seed, nominalVolt: seed === 12 ? 24 : 12 })),
  })),
];
const LARGE = 6;
const SCHOOLS = ["easiest", "halve", "powerGroundSignal", "chart", "random"];

/**
 * @param every 1 for all; n takes every n-th @param only numbers of the machines wanted, with commas between
 * @returns cases as plain data: machine, set (single, school, ablation, double, fuse, triple, wrong, intermittent),
 * faults with severities, options
 */
export function cases(every, only) {
  const list = [];
  machines.forEach(({ wiring }, m) => {
    if (only !== undefined && !String(only).split(",").includes(String(m))) return;
    const faults = generateFaults(wiring);
    const large = m >= LARGE;
    const pick = (i) => {
      const u = uniform(m * 100_003 + i * 31 + 7);
      u();
      const fault = faults[i];
      return { id: fault.id, severity: severityOffGrid(fault, u()), odd: u() < 0.1 };
    };
    const sets = (chosen, seed) =>
      new SimulatedMachine(
        wiring,
        chosen.map((c) => ({ fault: faults.find((f) => f.id === c.id), severity: c.severity })),
        seed,
      ).codes().length;
    const base = { slips: 0.01, missed: 0.05 };
    const loud = faults
      .map((_, i) => i)
      .filter((i) => (large ? i % 8 === 0 : true))
      .filter((i) => sets([pick(i)], 500 + i) > 0);
    const add = (set, chosen, i, options) =>
      list.push({
        machine: m,
        set,
        faults: chosen.map(({ id, severity }) => ({ id, severity })),
        options: { ...base, seed: 500 + i, wrongKind: chosen[0].odd, ...options },
      });
    loud.forEach((i, n) => {
      if (n % every) return;
      add("single", [pick(i)], i, { school: "information" });
      const part = Math.floor(n / every);
      if (part % (large ? 12 : 6) === 0) for (const school of SCHOOLS) add("school", [pick(i)], i, { school });
      if (part % (large ? 12 : 6) === 0) {
        add("one severity", [pick(i)], i, { school: "information", oneSeverity: true });
        add("no look-ahead", [pick(i)], i, { school: "information", greedy: true });
        add("no intermittents, no look-alikes", [pick(i)], i, { school: "information", belief: { only: "lasting" } });
      }
    });
    // pairs and triples of faults that each set a code of their own
    const u = uniform(9000 + m);
    const any = () => pick(loud[Math.floor(u() * loud.length)]);
    const distinct = (count) => {
      for (;;) {
        const c = Array.from({ length: count }, any);
        const places = new Set(c.map((x) => x.id.split("/")[0]));
        if (places.size === count && sets(c, 700) > 1) return c;
      }
    };
    const many = Math.ceil((large ? 24 : 48) / every);
    for (let n = 0; n < many; n++)
      add(
        "double",
        distinct(2).map((c) => ({ ...c, odd: false })),
        20_000 + n,
        { school: "information", repairs: true },
      );
    for (let n = 0; n < Math.ceil(many / 2); n++)
      add(
        "triple",
        distinct(3).map((c) => ({ ...c, odd: false })),
        30_000 + n,
        { school: "information", repairs: true },
      );
    // a shorted device that melts the fuse it hangs on
    const shorts = faults
      .map((f, i) => ({ f, i }))
      .filter(({ f }) => f.mode === "shortInside" || f.mode === "shortSupplyGround" || f.mode === "shortToChassis");
    let fuses = 0;
    for (const { f, i } of shorts) {
      if (fuses >= Math.ceil(24 / every)) break;
      const chosen = [{ id: f.id, severity: 0.08, odd: false }];
      if (!meltsFuse(wiring, f) || sets(chosen, 40_000 + i) === 0) continue;
      fuses++;
      add("fuse", chosen, 40_000 + i, { school: "information" });
    }
    // readings taken at a look-alike: the coded part's own fault, but the leads in its twin
    const twins = lookAlikePairs(wiring);
    let wrong = 0;
    for (const i of loud) {
      const place = faults[i].place.id.split(":")[0];
      const twin = twins.find((t) => t.from === place);
      if (!twin || wrong >= Math.ceil(30 / every)) continue;
      wrong++;
      add("wrong component", [{ ...pick(i), odd: false }], 50_000 + i, { school: "information", mistaken: twin });
    }
    // contacts that come and go
    const loose = loud.filter((i) => /contactOpen|unseated|legOpen|groundOpen/.test(faults[i].mode));
    for (let n = 0; n < Math.min(loose.length, Math.ceil(20 / every)); n++)
      add("intermittent", [{ ...pick(loose[n]), odd: false }], 60_000 + n, { school: "information", presence: 0.5 });
  });
  return list;
}

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
