import type { Moment, OperatingState } from "./conductances.js";
import type { Changed, Circuit } from "./element.js";
import { createChangedRows, createFronts, createPath, type ChangedRows, type Fronts, type Path } from "./fronts.js";
import { analysePattern, NUMBERS_PER_ELEMENT, type Pattern } from "./pattern.js";
import { createUpdates, type Inverse, type Updates } from "./shunts.js";

/** The machine state a circuit is solved in. */
export interface Conditions extends Moment {
  readonly circuit: Circuit;
  /** key on, cranking or running */
  readonly keyOn: boolean;
  /** gates that do not wake in this state: modules asleep */
  readonly asleep?: readonly number[] | undefined;
}

/**
 * One circuit in one machine state, solved healthy once (`prepare`) and then with one fault after another (`settle`).
 * Owned by one caller; `settle` allocates nothing beyond what its vectors need the first time.
 * Arrays: n = nodes without chassis, by position (see Pattern); m = elements; gates.
 */
export interface Solver {
  readonly pattern: Pattern;
  conditions: Conditions;
  readonly healthy: Fronts;
  readonly faulty: Fronts;
  readonly path: Path;
  readonly moved: ChangedRows;
  readonly movedOhms: ChangedRows;
  /** positions whose block was written by the last `measureOhms`; seen[k] === movedOhms.now */
  readonly seen: Int32Array;
  readonly updates: Updates;
  /** what every element does: healthy, and now (WEIGHTS numbers each) */
  readonly weightsHealthy: Float64Array;
  readonly weights: Float64Array;
  readonly operating: OperatingState & {
    readonly modeHealthy: Int8Array;
    readonly awakeHealthy: Uint8Array;
    readonly straightHealthy: Float64Array;
  };
  /**
   * gates first, then elements with segments of their own (devices), then fuses: everything that must agree with the
   * voltages
   */
  readonly watchers: {
    readonly count: number;
    readonly devices: Int32Array;
    readonly fuses: Int32Array;
    readonly start: Int32Array;
    readonly list: Int32Array;
    readonly of: Int32Array;
    readonly seen: Int32Array;
    now: number;
    readonly found: Int32Array;
  };
  /** for each gate its elements */
  readonly gated: readonly Int32Array[];
  /** elements and gates that differ from healthy now, for putting back */
  readonly touched: { readonly elements: Int32Array; readonly mark: Uint8Array; count: number; gates: boolean };
  readonly state: {
    ohmsReady: boolean;
    outcome: Settled;
    healthyOutcome: Settled;
    tolerance: number;
    /** how closely resistances of the present solution are known, ohm; Infinity: not at all */
    ohmsWithin: number;
  };
}

export interface Settled {
  /** false: no consistent set of device states was found; the circuit has none or swings between two */
  readonly settled: boolean;
  readonly rounds: number;
  /** elements and gates that still disagreed, by id */
  readonly swinging: readonly string[];
}

/** Room for solving circuits of one topology. `pattern` may be shared between solvers of the same topology. */
export function createSolver(circuit: Circuit, pattern: Pattern = analysePattern(circuit)): Solver {
  const m = circuit.elements.length;
  const { n } = pattern;
  const gates = circuit.gates.length;
  const gated: number[][] = circuit.gates.map(() => []);
  circuit.elements.forEach((e, i) => {
    if (e.gate >= 0) gated[e.gate]!.push(i);
  });
  return {
    pattern,
    conditions: { circuit, keyOn: true, open: new Uint8Array(m) },
    healthy: createFronts(pattern),
    faulty: createFronts(pattern),
    path: createPath(n),
    moved: createChangedRows(n),
    movedOhms: createChangedRows(n),
    seen: new Int32Array(n).fill(-1),
    updates: createUpdates(n),
    weightsHealthy: new Float64Array(m * NUMBERS_PER_ELEMENT),
    weights: new Float64Array(m * NUMBERS_PER_ELEMENT),
    operating: {
      mode: new Int8Array(m),
      modeHealthy: new Int8Array(m),
      awake: new Uint8Array(gates),
      awakeHealthy: new Uint8Array(gates),
      straight: new Float64Array(m),
      straightHealthy: new Float64Array(m),
      series: new Float64Array(m),
      dead: new Uint8Array(m),
      replaced: new Map<number, Changed>(),
    },
    watchers: watchersOf(circuit, pattern),
    gated: gated.map((list) => Int32Array.from(list)),
    touched: { elements: new Int32Array(m), mark: new Uint8Array(m), count: 0, gates: false },
    state: { ohmsReady: false, outcome: NONE, healthyOutcome: NONE, tolerance: 0, ohmsWithin: Infinity },
  };
}
const SEGMENTED = new Set(["reference", "limiter", "diode", "filament"]);

/**
 * Who looks at which position: watcher w < gates is a gate, then devices, then fuses. `of` maps an element to its
 * watcher.
 */
function watchersOf(circuit: Circuit, { n, position }: Pattern): Solver["watchers"] {
  const where = (test: (type: string) => boolean) => circuit.elements.flatMap((e, i) => (test(e.type) ? [i] : []));
  const devices = where((t) => SEGMENTED.has(t));
  const fuses = where((t) => t === "fuse");
  const gates = circuit.gates.length;
  const at: number[][] = Array.from({ length: n }, () => []);
  const watch = (w: number, nodes: readonly number[]) => {
    for (const node of new Set(nodes)) if (node) at[position[node]!]!.push(w);
  };
  circuit.gates.forEach((g, i) => watch(i, [...g.high.flat(), g.low]));
  const of = new Int32Array(circuit.elements.length).fill(-1);
  [...devices, ...fuses].forEach((e, i) => {
    of[e] = gates + i;
    watch(gates + i, [circuit.elements[e]!.a, circuit.elements[e]!.b]);
  });
  const start = new Int32Array(n + 1);
  const count = gates + devices.length + fuses.length;
  at.forEach((list, k) => (start[k + 1] = start[k]! + list.length));
  return {
    count,
    devices: Int32Array.from(devices),
    fuses: Int32Array.from(fuses),
    start,
    list: Int32Array.from(at.flat()),
    of,
    seen: new Int32Array(count).fill(-1),
    now: 0,
    found: new Int32Array(count),
  };
}

const NONE: Settled = { settled: true, rounds: 0, swinging: [] };

/** A number for the states in which devices and gates settled, where those are not the healthy ones. */
export function modesOf({ operating, touched, watchers }: Solver): number {
  let sum = 0;
  const { mode, modeHealthy, awake, awakeHealthy } = operating;
  for (let q = 0; q < touched.count; q++) {
    const i = touched.elements[q]!;
    if (watchers.of[i]! >= 0 && mode[i] !== modeHealthy[i]) sum = (sum + Math.imul(i + 1, 7919) * (mode[i]! + 3)) | 0;
  }
  if (touched.gates)
    for (let g = 0; g < awake.length; g++) if (awake[g] !== awakeHealthy[g]) sum = (sum + Math.imul(g + 1, 104729)) | 0;
  return sum;
}

/** The inverse as it stands after the last fault. */
export const inverseOf = (s: Solver): Inverse => ({
  pattern: s.pattern,
  to: s.faulty,
  from: s.healthy,
  path: s.path,
  updates: s.updates,
});

/** Marks the elements that the unplugged connectors open. */
export function openedBy(circuit: Circuit, unplugged: readonly string[]): Uint8Array {
  const set = new Set(unplugged);
  return Uint8Array.from(circuit.elements, (e) => (e.connector !== "" && set.has(e.connector) ? 1 : 0));
}
