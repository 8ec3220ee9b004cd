import { assess } from "../diagnosis/belief.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Entry, Instrument, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Analysis } from "./analysis.js";
import type { Candidate } from "./candidate.js";
import { candidates } from "./candidates.js";
import { concerned } from "./concerned.js";

/**
 * Fills in beforehand what the next readings will need, most likely ones first, and yields after each small step so
 * that a caller can stop. Run it while the technician puts the leads on: the reading that follows only looks things up.
 */
export function* thinkAhead(predictor: Predictor, entries: readonly Entry[], analysis: Analysis): Generator<void> {
  const { gathered, posterior } = assess(predictor, entries, { multiple: "never" });
  if (gathered.evidence.length === 0) return;
  const alive = (least: number) =>
    posterior.components.filter(
      (w) => w.presence === 1 && !w.misplaced && w.share >= least && w.hypothesis <= predictor.faults.length,
    );
  const live = alive(AHEAD_LEAST);
  // first the readings most likely to come, as they will be asked for: by those in question, then by all whom an answer
  // that surprises may bring back
  const likely = analysis.next.slice(0, LIKELY_NEXT).map((n) => n.candidate);
  const asked = new Set<number>();
  for (const hypotheses of [alive(LIKELY_LEAST).map((w) => w.hypothesis), [...posterior.wantedByCodes.keys()]]) {
    const more = hypotheses.filter((h) => !asked.has(h));
    for (const h of more) asked.add(h);
    yield* predictFor(predictor, likely, more, posterior);
  }
  const states = new Map<string, Candidate>();
  for (const c of [
    ...analysis.next.map((n) => n.candidate),
    ...candidates(predictor, gathered.folded, concerned(predictor, posterior)),
  ]) {
    if (c.instrument === "none") continue;
    const name = `${c.instrument} ${stateName(c.state)}`;
    if (!states.has(name)) states.set(name, c);
  }
  for (const c of states.values()) {
    for (const w of live) {
      predictor.predict(w.hypothesis, c.state, c.instrument as Instrument, posterior.wantedByCodes.get(w.hypothesis));
      yield;
    }
  }
}
function* predictFor(
  predictor: Predictor,
  tests: readonly Candidate[],
  hypotheses: readonly number[],
  posterior: Posterior,
): Generator<void> {
  for (const { instrument, state, black, points } of tests) {
    if (instrument === "none") continue;
    for (const point of points)
      for (const h of hypotheses) {
        predictor.predictAt(h, { instrument, point, black, state }, posterior.wantedByCodes.get(h));
        yield;
      }
  }
}

/**
 * Fills in what the first codes will need while nobody has told any: which codes each fault sets, and what a voltmeter
 * would then show at every pin with the key on. Yields after each fault. For a machine that is solved as a whole; of a
 * large one nobody knows yet which part it will be.
 */
export function* warmUp(predictor: Predictor): Generator<void> {
  const monitors = predictor.monitors.map((_, i) => i);
  const hypotheses = Array.from({ length: predictor.faults.length + 1 }, (_, h) => h);
  for (const h of hypotheses) {
    predictor.roughCodeShares(h, monitors);
    for (const m of monitors) predictor.movesAny(h, [m]);
    yield;
  }
  for (const h of hypotheses) {
    predictor.predict(h, KEY_ON, "voltmeter");
    yield;
  }
  for (const h of hypotheses) {
    predictor.codeShares(h, monitors);
    yield;
  }
}
const KEY_ON: State = { key: "on", unplugged: [] };

/** How many of the next readings are worked out in full. Judgement. */
const LIKELY_NEXT = 4;
/** Share from which a fault is worked out for those: nearly all that the reading will be weighed for. Judgement. */
const LIKELY_LEAST = 1e-6;
/** Share from which a fault is looked ahead for. Judgement: rarer ones change no choice. */
const AHEAD_LEAST = 1e-4;
