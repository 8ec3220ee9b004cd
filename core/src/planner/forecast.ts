import { DEFAULTS } from "../defaults.js";
import { SEVERITY_KERNEL } from "../diagnosis/likelihood.js";
import type { MixtureComponent } from "../diagnosis/posterior.js";
import { interpolate } from "../diagnosis/readingWeights.js";
import type { State } from "../format/case.js";
import type { Predicted } from "../prediction/predictionCache.js";
import type { Predictor } from "../prediction/predictor.js";
import { familiesOf, type Families } from "../prediction/unknowns.js";
import { pinBehind } from "../wiring/points.js";
import { yesLikelihood, type Candidate } from "./candidate.js";
import { stepOffset, STEP_LEAST, type Particle, type ParticleBelief } from "./particles.js";

/**
 * Mean and spread over draws of what one particle predicts for a candidate's reading; NaN where the instrument shows
 * nothing.
 */
export interface Expected {
  readonly mean: number;
  readonly deviation: number;
  readonly overload: number;
}

/** What the particles of a belief say of one candidate's point. */
export class Forecast {
  private readonly wanted = new Map<number, Uint8Array>();
  private readonly families: Families;
  constructor(
    private readonly predictor: Predictor,
    belief: ParticleBelief,
  ) {
    this.families = familiesOf(predictor);
    for (const a of belief.particles) {
      let w = this.wanted.get(a.component.hypothesis);
      if (!w)
        this.wanted.set(
          a.component.hypothesis,
          (w = new Uint8Array(predictor.hypotheses[a.component.hypothesis]!.samples)),
        );
      for (const s of a.samples) {
        w[s] = 1;
        if (a.below) w[s - predictor.draws] = 1;
        if (a.above) w[s + predictor.draws] = 1;
      }
    }
  }
  /** predictions of one hypothesis for a candidate, seen from a component that may have readings misplaced */
  private column(component: MixtureComponent, c: Candidate, point: string, hypothesis: number) {
    const own = (p: string) => (c.part ? pinBehind(p) : p);
    const plain = {
      instrument: c.instrument as Exclude<Candidate["instrument"], "none">,
      point: own(point),
      black: c.black === undefined ? undefined : own(c.black),
      state: c.state as State,
    };
    return this.predictor.predictAt(
      hypothesis,
      component.misplaced ? component.misplaced.moved(plain) : plain,
      hypothesis === 0 ? undefined : this.wanted.get(hypothesis),
    );
  }
  /** with the fault there */
  there(particle: Particle, c: Candidate, point: string): Expected {
    const predicted = this.column(particle.component, c, point, particle.component.hypothesis);
    return gatherSteps(particle, c, predicted, this.predictor.draws, this.read(particle, c, point));
  }
  /** the unknown that an particle's answer to a reading hangs on, by name */
  familyOf({ component }: Pick<Particle, "component">, c: Candidate, point: string): string {
    const plain = {
      instrument: c.instrument as Exclude<Candidate["instrument"], "none">,
      point,
      black: undefined,
      state: c.state as State,
    };
    return this.families.of(component.misplaced ? component.misplaced.moved(plain) : plain);
  }
  /** what readings of the same family have told of the draws */
  private read(particle: Particle, c: Candidate, point: string): Float64Array | undefined {
    return particle.component.draws.size === 0
      ? undefined
      : particle.component.draws.get(this.familyOf(particle, c, point));
  }
  /** with the fault away for the moment */
  away(particle: Particle, c: Candidate, point: string): Expected {
    const predicted = this.column(particle.component, c, point, 0);
    const { draws } = this.predictor;
    return gather(particle, c, (s) => predicted.at(s % draws));
  }
  /** probability of the answer "yes" for a candidate without an instrument */
  yes(particle: Particle, c: Candidate): number {
    if (c.kind === "breaker") {
      const side = (end: string) =>
        this.predictor.predictAt(
          particle.component.hypothesis,
          { instrument: "voltmeter", point: `${c.points[0]!}:${end}`, state: c.state },
          this.wanted.get(particle.component.hypothesis),
        );
      const into = side("in");
      const out = side("out");
      return (
        particle.samples.reduce((n, s) => n + (out.at(s) > 0.5 * into.at(s) ? 1 : 0), 0) /
        Math.max(1, particle.samples.length)
      );
    }
    return yesLikelihood(
      c,
      this.predictor.hypotheses[particle.component.hypothesis]!.faults,
      particle.component.presence < 1,
      particle.component.misplaced,
    );
  }
}

/** What an particle predicts, over its steps: where readings have fixed the severity, between the grid points too. */
function gatherSteps(
  particle: Particle,
  c: Candidate,
  predicted: Predicted,
  draws: number,
  weights?: Float64Array,
): Expected {
  const { steps } = particle;
  const instrument = c.instrument as Exclude<Candidate["instrument"], "none">;
  if (steps.length === 1) return gather(particle, c, (s) => predicted.at(s), weights);
  let sum = 0;
  let squares = 0;
  let all = 0;
  let overload = 0;
  for (let k = 0; k < steps.length; k++) {
    const w = steps[k]!;
    if (w < STEP_LEAST) continue;
    const t = stepOffset(k, steps.length);
    const to = t < 0 ? -draws : draws;
    const leans = t < 0 ? particle.below : particle.above;
    const own = gather(
      particle,
      c,
      (s) => (leans ? interpolate(predicted.at(s), predicted.at(s + to), Math.abs(t), instrument) : predicted.at(s)),
      weights,
    );
    if (own.overload === 1) {
      overload += w;
      all += w;
      continue;
    }
    if (Number.isNaN(own.mean)) continue;
    all += w;
    overload += w * own.overload;
    const finite = w * (1 - own.overload);
    sum += finite * own.mean;
    squares += finite * (own.mean * own.mean + own.deviation * own.deviation);
  }
  if (all === 0) return { mean: NaN, deviation: 0, overload: 0 };
  const finite = all - overload;
  if (finite <= 0) return { mean: Infinity, deviation: 0, overload: 1 };
  const mean = sum / finite;
  return {
    mean,
    deviation: Math.hypot(
      Math.sqrt(Math.max(0, squares / finite - mean * mean)),
      stepWidth(particle, c, predicted, draws),
    ),
    overload: overload / all,
  };
}
/** Half of what lies between two steps, as readings are weighed with: volt or ln ohm. */
function stepWidth(particle: Particle, c: Candidate, predicted: Predicted, draws: number): number {
  const besides = [...(particle.below ? [-draws] : []), ...(particle.above ? [draws] : [])];
  let sum = 0;
  let n = 0;
  for (const s of particle.samples)
    for (const to of besides) {
      const gap = Math.abs(scaled(predicted.at(s + to), c) - scaled(predicted.at(s), c));
      if (gap < Infinity) {
        sum += gap;
        n++;
      }
    }
  return n === 0 ? 0 : (SEVERITY_KERNEL / particle.steps.length) * (sum / n);
}
const scaled = (v: number, c: Candidate) => (c.instrument === "ohmmeter" ? Math.log(v + DEFAULTS.reading.ohmFloor) : v);

function gather(particle: Particle, c: Candidate, value: (sample: number) => number, draws?: Float64Array): Expected {
  let sum = 0;
  let squares = 0;
  let weight = 0;
  let overload = 0;
  for (let i = 0; i < particle.samples.length; i++) {
    const s = particle.samples[i]!;
    const v = value(s);
    const w = draws ? draws[s]! : particle.weights[i]!;
    if (v !== v) continue;
    if (v === Infinity) {
      overload += w;
      continue;
    }
    const x = scaled(v, c);
    sum += w * x;
    squares += w * x * x;
    weight += w;
  }
  if (weight === 0)
    return overload > 0 ? { mean: Infinity, deviation: 0, overload: 1 } : { mean: NaN, deviation: 0, overload: 0 };
  const mean = sum / weight;
  return {
    mean,
    deviation: Math.sqrt(Math.max(0, squares / weight - mean * mean)),
    overload: overload / (overload + weight),
  };
}
