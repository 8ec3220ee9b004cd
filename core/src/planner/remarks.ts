import { CODE_EXPLAINED_FROM, leftOver, misfit, setBy } from "../diagnosis/fit.js";
import type { Evidence } from "../diagnosis/evidence.js";
import { isCause, type Misplaced } from "../diagnosis/groups.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import { issue, type Issue } from "../issues/issue.js";
import { connectorOf } from "../wiring/points.js";
import type { Wiring } from "../format/wiring.js";
import { isOneFluid } from "../diagnosis/commonSource.js";
import type { Folded } from "../logbook/fold.js";
import { readingsAt } from "../logbook/seen.js";
import type { Predictor } from "../prediction/predictor.js";
import { formatQuantity } from "../units/quantity.js";
import { ENGINE_VERSION, type SuspectView } from "./analysis.js";

/** From this chance on the first thing to check is which connector the leads were in. */
export const WRONG_COMPONENT = 0.4;

/** What leads when no cause in this wiring does. */
export function remarksOn(
  wiring: Wiring,
  leader: SuspectView,
  misplaced: readonly Misplaced[],
  folded: Folded,
): Issue[] {
  const first = misplaced[0];
  if (first && misplaced.filter((m) => m.from === first.from).reduce((sum, m) => sum + m.share, 0) > WRONG_COMPONENT)
    return [
      issue("remark.wrong-component", [], {
        from: first.from,
        to: first.to,
        readings: readingsAt(folded, first.from).map(String),
      }),
    ];
  if (leader.type === "notHere") return [issue("remark.not-in-this-wiring")];
  const faults = leader.members.find((m) => m.faults.length > 1)?.faults ?? [];
  const plugs = [...new Set(faults.map((f) => connectorOf(f.place.id)))];
  if (plugs.length > 1 && isOneFluid(wiring, faults)) return [issue("remark.one-fluid", [], { plugs })];
  return [];
}

/** A verdict of another version of the engine that this one would not give on the same evidence. */
export function olderVerdict({ verdict, codes, readings, clues }: Folded, leader: SuspectView): Issue[] {
  if (!verdict || verdict.entry.engine === ENGINE_VERSION) return [];
  if ([...codes, ...readings, ...clues].some((e) => e.number > verdict.number)) return []; // more is known since
  const { suspect, share, engine } = verdict.entry;
  if (suspect === leader.id && leader.share > share - VERDICT_MOVED) return [];
  return [
    issue("remark.older-verdict", ["entries", verdict.number - 1], {
      number: verdict.number,
      engine,
      suspect,
      share,
      now: leader.id,
      nowShare: leader.share,
    }),
  ];
}
/** A share this much smaller is worth a word. Judgement. */
const VERDICT_MOVED = 0.05;

/** The alarm on the leader's own misfit: codes it does not explain, readings only a slip of the hand would explain. */
export function misfits(
  predictor: Predictor,
  evidence: readonly Evidence[],
  leader: SuspectView,
  lead: MixtureComponent | undefined,
): Issue[] {
  if (!isCause(leader) || leader.share < 0.5 || !lead) return [];
  const left = leftOver(predictor, lead, evidence);
  const codes = left.codes
    .map((i) => evidence[i]!)
    .flatMap((e) =>
      e.kind === "code" && setBy(predictor, lead, e.monitor) < CODE_EXPLAINED_FROM
        ? [predictor.monitors[e.monitor]!.code.id]
        : [],
    );
  const readings = leader.reasons.filter((r) => !r.fits);
  return [
    ...(codes.length ? [issue("remark.leader-leaves-codes", [], { codes })] : []),
    ...(readings.length
      ? [issue("remark.leader-misfits", [], { entries: readings.map((r) => String(r.number)) })]
      : []),
  ];
}

/**
 * Readings that are a thousand times too small or too large for what leads and for a healthy machine alike, and would
 * fit with the other prefix.
 */
export function prefixSlips(
  predictor: Predictor,
  evidence: readonly Evidence[],
  lead: MixtureComponent | undefined,
): Issue[] {
  if (!lead) return [];
  return evidence.flatMap((e) => {
    if (
      e.kind !== "reading" ||
      e.value === 0 ||
      !Number.isFinite(e.value) ||
      (e.instrument !== "voltmeter" && e.instrument !== "ohmmeter" && e.instrument !== "clamp")
    )
      return [];
    if (misfit(predictor, lead, e) < SLIP_SIGMAS) return [];
    const factor = [1000, 0.001].find((f) => misfit(predictor, lead, { ...e, value: e.value * f }) < SLIP_FITS);
    if (factor === undefined) return [];
    const unit = e.instrument === "ohmmeter" ? "Ω" : e.instrument === "clamp" ? "A" : "V";
    return [
      issue("remark.prefix-slip", ["entries", e.number - 1], {
        number: e.number,
        typed: formatQuantity(e.value, unit),
        instead: formatQuantity(e.value * factor, unit),
        way: factor > 1 ? "more" : "less",
      }),
    ];
  });
}
/**
 * A wrong prefix is suspected where the value typed misses the leading cause by the first, and the value with the other
 * prefix by less than the second, σ. Judgement.
 */
const SLIP_SIGMAS = 4;
const SLIP_FITS = 2;

export function unsettledAmong(predictor: Predictor, views: readonly SuspectView[]): Issue[] {
  const ids = views
    .flatMap((s) => s.members)
    .filter((m) => m.share >= 0.05 && predictor.unsettled.has(m.hypothesis))
    .map((m) => m.fault.id);
  return ids.length ? [issue("remark.unsettled", [], { faults: ids })] : [];
}
