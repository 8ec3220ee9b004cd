import {
  batteryVolt,
  compileState,
  conditionsOf,
  createSolver,
  generateFaults,
  generateHarness,
  netlist,
  nodeVolt,
  NO_EDIT,
  prepare,
  settle,
  solutionOf,
  type Fault,
  type KeyState,
  type Solver,
  type State,
  type Wiring,
} from "../../src/index.js";
import { random, tug } from "../helpers.js";
import { spiceMany } from "../spice.js";

/** ngspice itself stops at a relative change: a microvolt, or three parts in ten million of the voltage. */
const within = (volt: number) => Math.max(1e-6, 3e-7 * Math.abs(volt));
/** Share of networks in which ngspice may find no operating point. */
const UNSOLVED = 0.005;

/** away from switching thresholds: within this of one a device may fall either way, volt */
const NEAR_VOLT = 0.01;

function nearThreshold(s: Solver): boolean {
  const { circuit } = s.conditions;
  const across = (a: number, b: number) => nodeVolt(s, a) - nodeVolt(s, b);
  if (
    circuit.gates.some((g) =>
      g.high.flat().some((h) => {
        const v = across(h, g.low);
        return Math.abs((g.either ? Math.abs(v) : v) - g.aboveVolt) < NEAR_VOLT;
      }),
    )
  )
    return true;
  // a one-way driver without a load carries nothing: exactly on the edge between letting through and blocking
  if (
    circuit.elements.some(
      (e, i) => e.type === "limiter" && e.volt > 0 && s.conditions.open[i] === 0 && Math.abs(across(e.a, e.b)) < 1e-6,
    )
  )
    return true;
  // a reference that folds back jumps where its voltage crosses the fold
  return circuit.elements.some(
    (e) =>
      e.type === "reference" && e.foldAmpere < e.limitAmpere && Math.abs(across(e.a, e.b) - e.foldVolt) < NEAR_VOLT,
  );
}

interface Compared {
  readonly name: string;
  readonly text: string;
  readonly ours: readonly number[];
}

/** One faulted network: random fault, severity, state and true values, all from the generator given. */
function drawCase(doc: Wiring, faults: readonly Fault[], r: () => number): Compared | undefined {
  const pick = <T>(list: readonly T[]) => list[Math.floor(r() * list.length)]!;
  const fault = r() < 0.05 ? undefined : pick(faults);
  const key = pick<KeyState>(["on", "on", "off", "running", "running", "cranking"]);
  const state: State = { key, unplugged: r() < 0.2 ? [pick(doc.connectors).id] : [] };
  const circuit = compileState(
    doc,
    state,
    (_t, _p, nominal) => nominal * (0.9 + 0.2 * r()),
    (_t, range) => range[0] + (range[1] - range[0]) * r(),
  );
  const severity = fault ? pick(fault.severities) * (fault.unit === "ohm" ? 0.7 + 0.6 * r() : 1) : NaN;
  const edit = fault?.edit(severity, circuit, batteryVolt(doc, key)) ?? NO_EDIT;
  const s = createSolver(circuit);
  prepare(
    s,
    conditionsOf(circuit, state, {
      phase: pick([0, 0.25, 0.4, 0.9]),
      ...(key === "running" && r() < 0.5 ? { steel: r() < 0.5 } : {}),
    }),
  );
  if (!settle(s, edit).settled || nearThreshold(s)) return undefined;
  return {
    name: `${doc.name} ${fault?.id ?? "healthy"}@${severity} ${key} -${state.unplugged.join()}`,
    text: netlist("test", s.conditions, edit, solutionOf(s)),
    ours: circuit.nodes.map((_, i) => nodeVolt(s, i)),
  };
}

function compare(all: readonly Compared[]) {
  const theirs = spiceMany(all.map((c) => c.text));
  const wrong: string[] = [];
  let volts = 0;
  let unsolved = 0;
  all.forEach((c, i) => {
    if (theirs[i]!.size === 0) {
      unsolved++;
      return;
    }
    c.ours.forEach((v, node) => {
      if (node === 0 || Number.isNaN(v)) return;
      const spiced = theirs[i]!.get(`n${node}`);
      volts++;
      if (spiced === undefined || !(Math.abs(spiced - v) <= within(v)))
        wrong.push(`${c.name} n${node}: ours ${v}, ngspice ${spiced}`);
    });
  });
  return { wrong, volts, networks: all.length, unsolved };
}
const draw = (doc: Wiring, count: number, r: () => number) => {
  const faults = generateFaults(doc);
  return Array.from({ length: count }, () => drawCase(doc, faults, r)).filter((c) => c !== undefined);
};

// Reference program: ngspice, reltol 1e-9, gmin 1e-15, started from a nodeset; pinned seeds.
test("faulted networks of the demo machine agree with ngspice to 1e-6 V", () => {
  const { wrong, volts, networks } = compare(draw(tug(), 150, random(20261124)));
  expect(wrong.slice(0, 10)).toEqual([]);
  expect(networks).toBeGreaterThan(120);
  expect(volts).toBeGreaterThan(8_000);
}, 300_000);

test("500 faulted networks of every kind, on machines nobody has drawn, agree with ngspice to 1e-6 V", () => {
  const r = random(77);
  const all = Array.from({ length: 40 }, (_, i) =>
    draw(generateHarness({ nodes: 60 + 15 * (i % 8), seed: 3000 + i, nominalVolt: i % 3 === 0 ? 24 : 12 }), 20, r),
  ).flat();
  const { wrong, volts, networks, unsolved } = compare(all);
  expect(unsolved).toBeLessThanOrEqual(UNSOLVED * networks);
  expect(wrong.slice(0, 10)).toEqual([]);
  expect(networks).toBeGreaterThan(500);
  expect(volts).toBeGreaterThan(40_000);
}, 600_000);
