import { DEFAULTS } from "../defaults.js";
import type { Evidence } from "./evidence.js";
import { distance, type Suspect } from "./groups.js";
import { LN_OHM_RANGE, voltRange } from "./likelihood.js";
import type { Posterior } from "./posterior.js";
import type { Predictor } from "./predictor.js";

/** Why one piece of evidence speaks for or against a suspect, as data. */
export interface Reason {
  /** number of the logbook entry; 0 for a code that stayed away without being logged */
  readonly number: number;
  readonly kind: "code" | "voltmeter" | "ohmmeter";
  /** the code, or the point read */
  readonly about: string;
  /** code: 1 set, 0 not; reading: volts or ohms */
  readonly got: number;
  /** code: probability that this suspect sets it; reading: volts or ohms it predicts */
  readonly expected: number;
  /** ln of how much likelier the evidence is under this suspect than under the others: for a code, than before any was known */
  readonly weight: number;
  /** distance from the prediction in standard deviations; 0 for codes */
  readonly sigmas: number;
  /** false where only a slip of the hand would explain this reading under this suspect */
  readonly fits: boolean;
}

/** A reading this little above the floor for slips is explained by nothing else. */
const SLIP_MARGIN = 3;

export function reasonsFor(predictor: Predictor, posterior: Posterior, evidence: readonly Evidence[], suspect: Suspect): Reason[] {
  const own = suspect.type === "fault" ? suspect.members.map((m) => [m.hypothesis, m.share] as const) : suspect.type === "nothing" ? [[0, 1] as const] : [];
  const members = new Set(own.map(([h]) => h));
  const ownShare = own.reduce((s, [, w]) => s + w, 0);
  return evidence.map((e, i) => {
    const fit = suspect.type === "notHere" ? posterior.fitNotHere[i]! : Math.log(own.reduce((sum, [h, w]) => sum + (w / ownShare) * Math.exp(posterior.fit.get(h)?.[i] ?? -Infinity), 0));
    const others = e.kind === "code" ? posterior.fitByPrior[i]! : averageOfOthers(posterior, members, suspect.type === "notHere", i);
    const lead = own[0]?.[0];
    const expected = lead === undefined ? NaN : expectation(predictor, posterior, lead, e);
    return {
      number: e.number, kind: e.kind === "code" ? "code" : e.instrument, about: e.kind === "code" ? predictor.monitors[e.monitor]!.code.id : predictor.points[e.point]!,
      got: e.kind === "code" ? (e.present ? 1 : 0) : e.value, expected, weight: fit - others,
      sigmas: e.kind === "code" || Number.isNaN(expected) ? 0 : Math.min(distance(expected, e.value, e.instrument), 99),
      fits: e.kind === "code" || suspect.type === "notHere" || Math.exp(fit) > (SLIP_MARGIN * DEFAULTS.reading.slip) / (e.instrument === "voltmeter" ? voltRange(predictor.wiring.nominalVolt) : LN_OHM_RANGE),
    };
  });
}

function averageOfOthers(posterior: Posterior, members: ReadonlySet<number>, skipNotHere: boolean, i: number): number {
  let sum = 0, share = 0;
  for (const [h, fit] of posterior.fitByCodes) {
    if (members.has(h)) continue;
    sum += posterior.shareByCodes[h]! * Math.exp(fit[i]!);
    share += posterior.shareByCodes[h]!;
  }
  if (!skipNotHere) {
    const w = posterior.shareByCodes.at(-1)!;
    sum += w * Math.exp(posterior.fitNotHere[i]!);
    share += w;
  }
  return share > 0 ? Math.log(sum / share) : 0;
}

/** What one hypothesis expects of a piece of evidence, over the samples that still count. Ohms: geometric mean; OL when most say so. */
export function expectation(predictor: Predictor, posterior: Posterior, h: number, e: Evidence): number {
  const weights = posterior.samples.get(h);
  if (!weights) return NaN;
  let sum = 0, over = 0, none = 0;
  if (e.kind === "code") {
    const bits = predictor.codesSet(h, [e.monitor]);
    weights.forEach((w, s) => { sum += w * bits[s * predictor.monitors.length + e.monitor]!; });
    return sum;
  }
  const wanted = Uint8Array.from(weights, (w) => (w > 1e-3 ? 1 : 0));
  const values = predictor.predict(h, e.state, e.instrument, wanted);
  let total = 0;
  weights.forEach((w, s) => {
    if (!wanted[s]) return;
    const v = values[s * predictor.points.length + e.point]!;
    if (Number.isNaN(v)) none += w;
    else if (v === Infinity) over += w;
    else { sum += w * (e.instrument === "ohmmeter" ? Math.log(v + 1e-3) : v); total += w; }
  });
  if (none > 0.5) return NaN;
  if (over > total) return Infinity;
  return e.instrument === "ohmmeter" ? Math.exp(sum / total) : sum / total;
}
