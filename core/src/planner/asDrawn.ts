import { leftOver } from "../diagnosis/fit.js";
import type { Evidence, ReadingEvidence } from "../diagnosis/evidence.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import type { Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import { partOnAll } from "./placeNets.js";

/** So many readings at one part that even the best explanation leaves over are no slips of the hand. Judgement. */
const SLIPS_NO_MORE = 2;

/**
 * Readings that even the best explanation leaves over, all at the conductors of one part: it does not behave as it is
 * drawn, or a value typed for it is not so. The drawing is then to be checked before more is measured.
 */
export function notAsDrawn(
  predictor: Predictor,
  evidence: readonly Evidence[],
  best: MixtureComponent | undefined,
): Issue[] {
  if (!best) return [];
  const { wiring } = predictor;
  const over = leftOver(predictor, best, evidence).readings.flatMap((i) => {
    const e = evidence[i]!;
    return e.kind === "reading" ? [e] : [];
  });
  const entries = [...new Set(over.map((e) => String(e.number)))];
  if (entries.length < SLIPS_NO_MORE) return [];
  const { netOf } = findNets(wiring);
  const nets = over.map((e) => new Set([netOf.get(e.point)].filter((n) => n !== undefined)));
  const part = partOnAll(wiring, netOf, nets);
  if (part === undefined) return [];
  const pulls = pullsTyped(wiring, netOf, over);
  return [
    pulls
      ? issue("remark.pull-not-as-typed", [], { ...pulls, entries })
      : issue("remark.device-not-as-drawn", [], { part, entries }),
  ];
}

/** An input with a pull that the document gives, where an open line reads as if it were pulled the other way. */
function pullsTyped(
  wiring: Wiring,
  netOf: ReadonlyMap<string, number>,
  over: readonly ReadingEvidence[],
): { readonly pin: string; readonly pull: string } | undefined {
  for (const d of wiring.devices) {
    if (d.kind !== "module") continue;
    for (const p of d.pins) {
      if (p.role !== "input" || p.pull === "none") continue;
      const open = over.filter(
        (e) => netOf.get(e.point) === netOf.get(p.at) && e.instrument === "voltmeter" && e.state.unplugged.length > 0,
      );
      const other = (e: ReadingEvidence) => (p.pull === "up" ? e.value < PULLED_LOW_VOLT : e.value > PULLED_HIGH_VOLT);
      if (open.length > 0 && open.every(other)) return { pin: p.at, pull: p.pull };
    }
  }
  return undefined;
}
/**
 * An open input below the first is not pulled up; one above the second is not pulled down, volt (common practice, no
 * source).
 */
const PULLED_LOW_VOLT = 0.5;
const PULLED_HIGH_VOLT = 3;
