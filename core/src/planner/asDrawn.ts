import { leftOver } from "../diagnosis/belief.js";
import type { Evidence, ReadingEvidence } from "../diagnosis/evidence.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import type { Device, Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";

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
  const nets = new Set(over.map((e) => netOf.get(e.point)));
  const part = partAtAll(wiring, netOf, nets);
  if (!part) return [];
  const pulls = pullsTyped(wiring, netOf, over);
  return [
    pulls
      ? issue("remark.pull-not-as-typed", [], { ...pulls, entries })
      : issue("remark.device-not-as-drawn", [], { part: part.id, entries }),
  ];
}

/** The one part, not a module, with a pin on each of these conductors. */
function partAtAll(
  wiring: Wiring,
  netOf: ReadonlyMap<string, number>,
  nets: ReadonlySet<number | undefined>,
): Device | undefined {
  if (nets.has(undefined)) return undefined;
  const parts = wiring.devices.filter((d) => {
    if (d.kind === "module" || !("pins" in d)) return false;
    const own = new Set(devicePins(d).map((p) => netOf.get(p.at)));
    return [...nets].every((n) => own.has(n));
  });
  return parts.length === 1 ? parts[0] : undefined;
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
