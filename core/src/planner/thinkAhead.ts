import { assess } from "../diagnosis/belief.js";
import type { Entry, Instrument, State } from "../format/case.js";
import { stateName } from "../network/state.js";
import { inPieces, type Piece } from "../prediction/piece.js";
import { workOutAt } from "../prediction/pieceWork.js";
import type { Predictor } from "../prediction/predictor.js";
import type { Analysis } from "./analysis.js";
import type { Candidate } from "./candidate.js";
import { candidates } from "./candidates.js";
import { concerned } from "./concerned.js";

/**
 * Fills in beforehand what the next readings will need, and yields after each small step so that a caller can stop.
 * Run it while the technician puts the leads on: the reading that follows only looks things up.
 */
export function* thinkAhead(predictor: Predictor, entries: readonly Entry[], analysis: Analysis): Generator<void> {
  yield* workOut(predictor, piecesAhead(predictor, entries, analysis));
}
/** Fills in what the first codes will need while nobody has told any; yields after each fault. */
export function* warmUp(predictor: Predictor): Generator<void> {
  yield* workOut(predictor, warmingPieces(predictor));
}
function* workOut(predictor: Predictor, pieces: Iterable<Piece>): Generator<void> {
  for (const piece of pieces)
    for (let i = 0; i < piece.hypotheses.length; i++) {
      workOutAt(predictor, piece, i);
      yield;
    }
}

/** What the next readings will need, most likely ones first, in pieces that threads may share in. */
export function* piecesAhead(predictor: Predictor, entries: readonly Entry[], analysis: Analysis): Generator<Piece> {
  const { gathered, posterior } = assess(predictor, entries, { multiple: "never" });
  if (gathered.evidence.length === 0) return;
  const alive = (least: number) =>
    posterior.components
      .filter((w) => w.presence === 1 && !w.misplaced && w.share >= least && w.hypothesis <= predictor.faults.length)
      .sort((a, b) => b.share - a.share)
      .map((w) => w.hypothesis);
  const live = alive(AHEAD_LEAST).slice(0, MOST_AHEAD);
  // first the readings most likely to come, as they will be asked for: by those in question, then by all whom an answer
  // that surprises may bring back
  const likely = analysis.next.slice(0, LIKELY_NEXT).map((n) => n.candidate);
  const asked = new Set<number>();
  for (const hypotheses of [alive(LIKELY_LEAST), [...posterior.wantedByCodes.keys()]]) {
    const more = hypotheses.filter((h) => !asked.has(h));
    for (const h of more) asked.add(h);
    for (const { instrument, state, black, points } of likely)
      if (instrument !== "none")
        for (const point of points)
          yield* inPieces(more, (some) => ({
            work: "reading",
            place: { instrument, point, black, state },
            hypotheses: some,
            wanted: some.map((h) => posterior.wantedByCodes.get(h)),
          }));
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
  for (const { state, instrument } of states.values())
    yield* inPieces(live, (some) => ({
      work: "values",
      state,
      instrument: instrument as Instrument,
      hypotheses: some,
      wanted: some.map((h) => posterior.wantedByCodes.get(h)),
    }));
}

/**
 * What the first codes will need while nobody has told any: which codes each fault sets, and what a voltmeter would
 * then show at every pin with the key on. For a machine that is solved as a whole; of a large one nobody knows yet
 * which part it will be.
 */
export function* warmingPieces(predictor: Predictor): Generator<Piece> {
  const monitors = predictor.monitors.map((_, i) => i);
  const all = Array.from({ length: predictor.faults.length + 1 }, (_, h) => h);
  for (const work of ["rough", "movesEach"] as const)
    yield* inPieces(all, (hypotheses) => ({ work, monitors, hypotheses }));
  yield* inPieces(all, (hypotheses) => ({ work: "values", state: KEY_ON, instrument: "voltmeter", hypotheses }));
  yield* inPieces(all, (hypotheses) => ({ work: "full", monitors, hypotheses }));
}
/** Which codes each single fault sets, in full: what a first card takes the most work for. */
export function* codesOfAll(predictor: Predictor): Generator<Piece> {
  for (const piece of warmingPieces(predictor)) if (piece.work !== "values") yield piece;
}
const KEY_ON: State = { key: "on", unplugged: [] };

/** How many of the next readings are worked out in full. Judgement. */
const LIKELY_NEXT = 4;
/** Share from which a fault is worked out for those: nearly all that the reading will be weighed for. Judgement. */
const LIKELY_LEAST = 1e-6;
/** Share from which a fault is looked ahead for. Judgement: rarer ones change no choice. */
const AHEAD_LEAST = 1e-4;
/** While hardly anything is known nearly every fault is alive: so many are looked ahead for. Judgement: battery. */
const MOST_AHEAD = 80;
