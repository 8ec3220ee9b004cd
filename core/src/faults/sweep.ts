import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { batteryVolt } from "../network/builder.js";
import type { Edit } from "../network/element.js";
import { measureOhms, nodeOhm } from "../network/observe.js";
import { analysePattern } from "../network/pattern.js";
import { prepare, settle } from "../network/settle.js";
import { createSolver, type Solver } from "../network/solver.js";
import { compileState, conditionsOf } from "../network/state.js";
import type { Fault } from "./fault.js";

/** One fault at one severity. */
export interface SweepCase {
  readonly fault: Fault;
  readonly severity: number;
}

export interface SweepOptions {
  /** which severities of each fault; all when left out */
  readonly severities?: (fault: Fault) => readonly number[];
  /** pins that move by less than this are left out, volt */
  readonly tolerance?: number;
  /** called now and then with the share done, 0 to 1; return false to stop */
  readonly progress?: (share: number) => boolean | void;
}

/**
 * What a 10 MΩ voltmeter would show at every node that a fault moves, in one state. Sparse: case i moves the nodes
 * node[start[i] … start[i + 1]) to the volts beside them; every other node stays as in `healthy`.
 */
export interface SweepResult {
  readonly state: State;
  readonly nodes: readonly string[];
  readonly cases: readonly SweepCase[];
  /** by node, volt */
  readonly healthy: Float32Array;
  readonly start: Uint32Array;
  readonly node: Uint32Array;
  readonly volt: Float32Array;
  /** cases that found no steady state */
  readonly unsettled: readonly number[];
  /** false when `progress` stopped it; the rest is then missing */
  readonly complete: boolean;
}

/**
 * The tolerance when none is given, volt, and how far a resistance may be off for meter loading, ohm: half a digit of a
 * meter on its 20 V range, and 2.5 mV at 5 V.
 */
const TOLERANCE = 5e-3;
const LOADING_OHM = 5_000;
/** Cases between two calls of `progress`. */
const PACE = 256;

/**
 * Sweeps faults over machine states: the whole document when given all its faults. One analysis for all states, one
 * factorisation a state, one path a case. Runs the same in a worker, on the server and on the command line.
 */
export function sweep(
  wiring: Wiring,
  faults: readonly Fault[],
  states: readonly State[],
  options: SweepOptions = {},
): SweepResult[] {
  const cases = faults.flatMap((fault) =>
    (options.severities?.(fault) ?? fault.severities).map((severity) => ({ fault, severity })),
  );
  const results: SweepResult[] = [];
  let solver: Solver | undefined;
  let go = true;
  states.forEach((state, done) => {
    if (!go) return;
    const circuit = compileState(wiring, state);
    const same =
      solver &&
      solver.conditions.circuit.nodes.length === circuit.nodes.length &&
      solver.conditions.circuit.elements.length === circuit.elements.length;
    solver = same && solver ? solver : createSolver(circuit, analysePattern(circuit));
    prepare(solver, conditionsOf(circuit, state));
    const volt = batteryVolt(wiring, state.key);
    const one = sweepOne(
      solver,
      cases.map((c) => c.fault.edit(c.severity, circuit, volt)),
      options.tolerance ?? TOLERANCE,
      (share) => options.progress?.((done + share) / states.length) !== false,
    );
    results.push({ state, nodes: circuit.nodes, cases, ...one });
    go = one.complete;
  });
  return results;
}

/** The inner loop: edits against one prepared solver. @param tolerance volt */
export function sweepOne(
  s: Solver,
  edits: readonly Edit[],
  tolerance: number,
  go: (share: number) => boolean,
): Omit<SweepResult, "state" | "nodes" | "cases"> {
  const { pattern: p, moved, movedOhms, faulty } = s;
  const n = p.n;
  settle(s, {});
  measureOhms(s);
  const healthy = Float32Array.from({ length: n + 1 }, (_, node) => loaded(s, node));
  const byPosition = Float32Array.from({ length: n }, (_, k) => healthy[p.node[k]!]!);
  const start = new Uint32Array(edits.length + 1);
  let node = new Uint32Array(64 * edits.length + n);
  let volt = new Float32Array(node.length);
  let used = 0;
  const unsettled: number[] = [];
  const perMeter = 1 / DEFAULTS.meter.ohm;
  const wrote = new Int32Array(n).fill(-1);
  let done = 0;
  for (; done < edits.length; done++) {
    if (done % PACE === 0 && !go(done / edits.length)) break;
    if (!settle(s, edits[done]!, tolerance).settled) unsettled.push(done);
    measureOhms(s, LOADING_OHM);
    if (used + 2 * n > node.length) {
      node = grown(node, Uint32Array);
      volt = grown(volt, Float32Array);
    }
    for (let pass = 0; pass < 2; pass++) {
      const list = pass === 0 ? moved.list : movedOhms.list;
      const count = pass === 0 ? moved.count : movedOhms.count;
      for (let q = 0; q < count; q++) {
        const k = list[q]!;
        if (wrote[k] === done) continue;
        wrote[k] = done;
        let ohm = (s.seen[k] === movedOhms.now ? faulty : s.healthy).block[p.block[k]!]!;
        if (s.updates.rows) ohm = nodeOhm(s, p.node[k]!);
        const v = faulty.grounded[k] === 0 ? 0 : faulty.x[k]! / (1 + ohm * perMeter);
        if (Math.abs(v - byPosition[k]!) <= tolerance) continue;
        node[used] = p.node[k]!;
        volt[used++] = v;
      }
    }
    start[done + 1] = used;
  }
  return {
    healthy,
    start: start.subarray(0, done + 1),
    node: node.subarray(0, used),
    volt: volt.subarray(0, used),
    unsettled,
    complete: done === edits.length,
  };
}

function loaded(s: Solver, node: number): number {
  if (node === 0) return 0;
  const k = s.pattern.position[node]!;
  return s.faulty.grounded[k] === 0 ? 0 : s.faulty.x[k]! / (1 + nodeOhm(s, node) / DEFAULTS.meter.ohm);
}

function grown<T extends Uint32Array | Float32Array>(old: T, make: new (n: number) => T): T {
  const next = new make(2 * old.length);
  next.set(old);
  return next;
}
