import { DEFAULTS } from "../defaults.js";
import type { Entry, State } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import { fold, type Folded } from "../logbook/fold.js";
import { seenRemarks } from "../logbook/seen.js";
import { OVERLOAD } from "../units/quantity.js";
import { circumstances, type Feed } from "./circumstances.js";
import type { Instrument, Predictor } from "./predictor.js";

export interface CodeEvidence { readonly kind: "code"; readonly number: number; readonly monitor: number; readonly present: boolean; readonly weight: number; readonly assumed: boolean }
export interface ReadingEvidence { readonly kind: "reading"; readonly number: number; readonly point: number; readonly value: number; readonly instrument: Instrument; readonly state: State }
export type Evidence = CodeEvidence | ReadingEvidence;

export interface Gathered {
  readonly evidence: readonly Evidence[];
  readonly remarks: readonly Issue[];
  readonly folded: Folded;
  /** factor on the rate of each fault, from the intake, and what fed it */
  readonly factors: Float64Array;
  readonly feeds: readonly Feed[];
}

/**
 * Turns a logbook into evidence. A module scanned, or with any code logged, speaks by its other codes too: those
 * whose monitors have run by then are evidence by their absence. Codes we set ourselves by unplugging are none.
 */
export function gather(predictor: Predictor, entries: readonly Entry[]): Gathered {
  const folded = fold(entries);
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  const monitorOf = new Map(predictor.monitors.map((m, i) => [`${m.code.module} ${m.code.id}`, i]));
  const known = new Set(predictor.wiring.codes.map((c) => `${c.module} ${c.id}`));
  const spoken = new Set<number>();
  for (const { number, entry, disturbedThen } of folded.codes) {
    const name = `${entry.module} ${entry.code}`;
    const monitor = monitorOf.get(name);
    if (monitor === undefined) {
      remarks.push(issue(known.has(name) ? "remark.code-without-condition" : "remark.code-not-in-wiring", ["entries", number - 1], { code: entry.code, module: entry.module, number }));
      continue;
    }
    spoken.add(monitor);
    if (entry.status === "notRun") continue;
    if (entry.status !== "absent" && disturbedThen.length && predictor.codesSetByDisturbing(disturbedThen).has(monitor)) {
      remarks.push(issue("remark.code-set-by-us", ["entries", number - 1], { code: entry.code, connectors: disturbedThen, number }));
      continue;
    }
    evidence.push({ kind: "code", number, monitor, present: entry.status !== "absent", weight: DEFAULTS.codes.weight[entry.status] * sureness(predictor, monitor), assumed: false });
  }
  predictor.monitors.forEach((m, i) => {
    if (spoken.has(i) || folded.scanned.get(m.code.module)?.has(m.key) !== true) return;
    evidence.push({ kind: "code", number: 0, monitor: i, present: false, weight: sureness(predictor, i), assumed: true });
  });
  for (const { number, entry } of folded.readings) {
    entry.points.forEach((p, i) => {
      const point = predictor.pointIndex.get(p);
      const value = entry.values[i]!;
      if (point === undefined) { remarks.push(issue("remark.point-not-in-wiring", ["entries", number - 1], { point: p, number })); return; }
      if (entry.instrument === "ohmmeter" && entry.state.key !== "off") { remarks.push(issue("remark.ohms-with-power", ["entries", number - 1], { point: p, number })); return; }
      if (Number.isNaN(value)) return; // a meter that shows nothing proves nothing
      evidence.push({ kind: "reading", number, point, value: value === "OL" ? OVERLOAD : value, instrument: entry.instrument, state: entry.state });
    });
  }
  return { evidence, remarks: [...seenRemarks(predictor.wiring, folded), ...remarks], folded, ...circumstances(predictor.wiring, predictor.faults, folded.intake?.entry) };
}

/** A set condition that was only made from the code's family counts for less. */
const sureness = (predictor: Predictor, monitor: number) => (predictor.monitors[monitor]!.broad ? DEFAULTS.codes.broadWeight : 1);
