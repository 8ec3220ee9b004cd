import { assess } from "../diagnosis/belief.js";
import type { Entry, Instrument } from "../format/case.js";
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
  // first the readings most likely to come, as they will be asked for
  for (const { candidate: c } of analysis.next.slice(0, LIKELY_NEXT)) {
    if (c.instrument === "none") continue;
    const { instrument, state, black } = c;
    for (const point of c.points)
      for (const w of alive(LIKELY_LEAST)) {
        predictor.predictAt(
          w.hypothesis,
          { instrument, point, black, state },
          posterior.wantedByCodes.get(w.hypothesis),
        );
        yield;
      }
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
/** How many of the next readings are worked out in full. Judgement. */
const LIKELY_NEXT = 4;
/** Share from which a fault is worked out for those: nearly all that the reading will be weighed for. Judgement. */
const LIKELY_LEAST = 1e-6;
/** Share from which a fault is looked ahead for. Judgement: rarer ones change no choice. */
const AHEAD_LEAST = 1e-4;
