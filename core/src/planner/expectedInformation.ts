import { rootOfSquares, sigmaLnOhm, sigmaVolt } from "../diagnosis/likelihood.js";
import type { Instrument } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";
import { DEFAULTS } from "../defaults.js";
import type { Candidate } from "./candidate.js";
import { watchedBy } from "./candidateKind.js";
import { Forecast, type Expected } from "./forecast.js";
import { edgesOf, JointColumns, JointDistribution } from "./jointDistribution.js";
import type { Particle, ParticleBelief } from "./particles.js";

/** Widens what a few draws make of the spread: a student's caution with few samples. */
const SPREAD = 1.2;
const ROUGH_SPREAD = 1.8;
/** Of each of two points: stands where it should, moves, stands elsewhere. */
const MOVES = Float64Array.from({ length: 9 }, (_, b) => b);
/** How surely the fault shows itself in this test. */
function shownIn(c: Candidate, { component: { presence } }: Particle): number {
  const watched = watchedBy(c.kind);
  return presence === 1 || !watched ? presence : DEFAULTS.intermittent.caught[watched];
}
const YES_NO = Float64Array.from([0, 0.5]);

/** Makes joints of answers and suspects for one belief. */
export class ExpectedInformation {
  private readonly forecast: Forecast;
  private readonly columns: JointColumns;
  private readonly edges = new Map<Instrument, Float64Array>();
  /**
   * @param blurVolt widens every prediction, so that only plain differences count
   * @param rough from two draws: for finding what is worth a closer look
   */
  constructor(
    private readonly predictor: Predictor,
    private readonly belief: ParticleBelief,
    private readonly blurVolt = 0,
    private readonly rough = false,
  ) {
    this.forecast = new Forecast(predictor, belief, rough);
    this.columns = columnsOf(belief);
  }
  /** one joint for each point of the candidate */
  joints(c: Candidate): JointDistribution[] {
    if (c.instrument === "none") return [this.clueJoint(c)];
    const { instrument } = c;
    const joints = c.points.map((p) => this.jointAt(c, p, instrument));
    if (c.points.length === 2 && watchedBy(c.kind))
      joints[1]!.together = this.movesTogether(c, c.points[0]!, c.points[1]!);
    return joints;
  }
  /**
   * What a candidate with two points is worth: as much as its better point (both sides of a fuse), or as which of two
   * that are recorded moves. Bits.
   */
  static bits(joints: readonly JointDistribution[]): number {
    return joints.reduce((most, j) => Math.max(most, j.isLive ? 0 : j.bits(), j.together?.bits() ?? 0), 0);
  }

  private clueJoint(c: Candidate): JointDistribution {
    const joint = new JointDistribution(YES_NO, this.columns, "none");
    for (const a of this.belief.particles) {
      const yes = this.forecast.yes(a, c);
      joint.add(1, a.suspect, a.weight * yes);
      joint.add(0, a.suspect, a.weight * (1 - yes));
    }
    const { suspect, weight } = this.belief.notHere;
    if (suspect >= 0) {
      joint.add(0, suspect, 0.97 * weight);
      joint.add(1, suspect, 0.03 * weight);
    }
    return joint;
  }

  private jointAt(c: Candidate, point: string, instrument: Instrument): JointDistribution {
    let edges = this.edges.get(instrument);
    if (!edges) this.edges.set(instrument, (edges = edgesOf(instrument, this.predictor.wiring.nominalVolt)));
    const joint = new JointDistribution(edges, this.columns, instrument);
    for (const a of this.belief.particles) {
      const there = this.forecast.there(a, c, point);
      const presence = shownIn(c, a);
      this.put(joint, instrument, there, a.suspect, a.weight * presence);
      if (presence < 1)
        this.put(joint, instrument, this.forecast.away(a, c, point), a.suspect, a.weight * (1 - presence));
    }
    const { suspect, weight } = this.belief.notHere;
    if (suspect >= 0) evenly(joint, suspect, weight);
    return joint;
  }
  /** Which of two points that are watched at once moves: neither, one, both; or does not stand where it should. */
  private movesTogether(c: Candidate, first: string, second: string): JointDistribution {
    const joint = new JointDistribution(MOVES, this.columns, "none");
    for (const a of this.belief.particles) {
      const moves = [first, second].map((p) =>
        Math.abs(this.forecast.there(a, c, p).mean - this.forecast.away(a, c, p).mean) > DEFAULTS.reading.flickerVolt
          ? 1
          : 0,
      );
      const [one, other] = moves as [number, number];
      const shown = shownIn(c, a);
      if (a.component.presence === 1) joint.add(3 * (2 * one) + 2 * other, a.suspect, a.weight);
      else {
        joint.add(3 * one + other, a.suspect, a.weight * shown);
        joint.add(0, a.suspect, a.weight * (1 - shown));
      }
    }
    const { suspect, weight } = this.belief.notHere;
    if (suspect >= 0) for (let b = 0; b < MOVES.length; b++) joint.add(b, suspect, weight / MOVES.length);
    return joint;
  }
  private put(joint: JointDistribution, instrument: Instrument, e: Expected, suspect: number, weight: number): void {
    if (weight === 0) return;
    const spread = this.rough ? ROUGH_SPREAD : SPREAD;
    if (Number.isNaN(e.mean)) {
      evenly(joint, suspect, weight);
      joint.live += weight;
      return;
    }
    if (instrument === "ohmmeter") {
      if (e.overload > 0) joint.add(joint.bins - 1, suspect, weight * e.overload);
      if (e.overload < 1)
        joint.smear(e.mean, sigmaLnOhm(Math.exp(e.mean), spread * e.deviation), suspect, weight * (1 - e.overload));
    } else joint.smear(e.mean, sigmaVolt(e.mean, rootOfSquares(spread * e.deviation, this.blurVolt)), suspect, weight);
  }
}

/** Columns for the suspects that a belief plans for. */
export function columnsOf({ particles, notHere, suspects }: ParticleBelief): JointColumns {
  const counted = particles.map((a) => a.suspect);
  return new JointColumns(notHere.suspect >= 0 ? [...counted, notHere.suspect] : counted, suspects);
}

function evenly(joint: JointDistribution, suspect: number, share: number) {
  const bins = joint.bins - 1;
  for (let b = 0; b < bins; b++) joint.add(b, suspect, share / bins);
}
