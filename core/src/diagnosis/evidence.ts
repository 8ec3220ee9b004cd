import { DEFAULTS } from "../defaults.js";
import type { Entry, State } from "../format/case.js";
import { issue, type Issue } from "../issues/issue.js";
import { fold, type Folded } from "../logbook/fold.js";
import { OVERLOAD } from "../units/quantity.js";
import type { Instrument, Predictor } from "./predictor.js";

export interface CodeEvidence { readonly kind: "code"; readonly number: number; readonly monitor: number; readonly present: boolean; readonly weight: number; readonly assumed: boolean }
export interface ReadingEvidence { readonly kind: "reading"; readonly number: number; readonly point: number; readonly value: number; readonly instrument: Instrument; readonly state: State }
export type Evidence = CodeEvidence | ReadingEvidence;

export interface Gathered { readonly evidence: readonly Evidence[]; readonly remarks: readonly Issue[]; readonly folded: Folded }

/**
 * Turns a logbook into evidence. A module with any code logged counts as scanned: its other codes whose monitors run
 * with the key on are evidence by their absence. Codes we set ourselves by unplugging are none.
 */
export function gather(predictor: Predictor, entries: readonly Entry[]): Gathered {
  const folded = fold(entries);
  const evidence: Evidence[] = [];
  const remarks: Issue[] = [];
  const monitorOf = new Map(predictor.monitors.map((m, i) => [`${m.code.module} ${m.code.id}`, i]));
  const known = new Set(predictor.wiring.codes.map((c) => `${c.module} ${c.id}`));
  const spoken = new Set<number>();
  const scanned = new Set<string>();
  for (const { number, entry, unpluggedThen } of folded.codes) {
    const name = `${entry.module} ${entry.code}`;
    const monitor = monitorOf.get(name);
    scanned.add(entry.module);
    if (monitor === undefined) {
      remarks.push(issue(known.has(name) ? "remark.code-without-condition" : "remark.code-not-in-wiring", ["entries", number - 1], { code: entry.code, module: entry.module, number }));
      continue;
    }
    spoken.add(monitor);
    if (entry.status !== "absent" && unpluggedThen.length && predictor.codesSetByUnplugging(unpluggedThen).has(monitor)) {
      remarks.push(issue("remark.code-set-by-us", ["entries", number - 1], { code: entry.code, connectors: unpluggedThen, number }));
      continue;
    }
    evidence.push({ kind: "code", number, monitor, present: entry.status !== "absent", weight: DEFAULTS.codes.weight[entry.status] * sureness(predictor, monitor), assumed: false });
  }
  predictor.monitors.forEach((m, i) => {
    if (spoken.has(i) || !scanned.has(m.code.module) || m.key !== "on") return;
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
  return { evidence, remarks, folded };
}

/** A set condition that was only made from the code's family counts for less. */
const sureness = (predictor: Predictor, monitor: number) => (predictor.monitors[monitor]!.broad ? DEFAULTS.codes.broadWeight : 1);
