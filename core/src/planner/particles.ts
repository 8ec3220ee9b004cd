import type { Grouped } from "../diagnosis/groups.js";
import type { MixtureComponent, Posterior } from "../diagnosis/posterior.js";
import type { Predictor } from "../prediction/predictor.js";

/**
 * One component at one severity: what it weighs, where between the grid points it stands, and which draws speak for it.
 */
export interface Particle {
  readonly component: MixtureComponent;
  readonly suspect: number;
  readonly weight: number;
  /** weight of each step from half way to the severity below to half way to the one above; [1] where there are none */
  readonly steps: Float64Array;
  /** whether its steps lean on the severity below, and on the one above */
  readonly below: boolean;
  readonly above: boolean;
  /** samples of this severity that count, and their weights; they sum to 1 */
  readonly samples: Int32Array;
  readonly weights: Float64Array;
}

/** What the planner plans for: particles of the suspects that count. Weights with `notHere` sum to 1. */
export interface ParticleBelief {
  readonly suspects: number;
  readonly particles: readonly Particle[];
  readonly notHere: { readonly suspect: number; readonly weight: number };
}

/** Particles lighter than this part of the whole are left out; and how many are kept. */
const PARTICLE_LEAST = 5e-4;
const MOST_PARTICLES = 260;
const SAMPLE_LEAST = 0.02;
/** Steps lighter than this within their severity are left out: what lies there need not be solved. */
export const STEP_LEAST = 0.02;
const ONE = Float64Array.of(1);
/** How far a step is from its severity, as part of the way to the one below (negative) or above. */
export const stepOffset = (step: number, steps: number) => (step + 0.5) / steps - 0.5;

/** @param reweigh weight of each component in place of its share */
export function particlesOf(
  predictor: Predictor,
  posterior: Posterior,
  grouped: Grouped,
  reweigh: (w: MixtureComponent, suspect: number) => number = (w) => w.share,
  notHere = posterior.notHere,
): ParticleBelief {
  const { draws } = predictor;
  const particles: Particle[] = [];
  posterior.components.forEach((component, i) => {
    const suspect = grouped.of[i]!;
    if (suspect < 0) return;
    const share = reweigh(component, suspect);
    if (share < PARTICLE_LEAST) return;
    for (let first = 0; first < component.weights.length; first += draws) {
      let sum = 0;
      for (let s = first; s < first + draws; s++) sum += component.weights[s]!;
      if (share * sum < PARTICLE_LEAST) continue;
      const samples: number[] = [];
      const weights: number[] = [];
      for (let s = first; s < first + draws; s++)
        if (component.weights[s]! > SAMPLE_LEAST * sum) {
          samples.push(s);
          weights.push(component.weights[s]!);
        }
      const kept = weights.reduce((a, b) => a + b, 0);
      const count = component.steps ? (component.steps.length * draws) / component.weights.length : 1;
      const place = first / draws;
      const steps = component.steps ? component.steps.subarray(place * count, (place + 1) * count) : ONE;
      const leans = (to: number) =>
        count > 1 &&
        component.weights[first + to * draws]! > 0 &&
        steps.some((w, k) => w >= STEP_LEAST && Math.sign(stepOffset(k, count)) === to);
      particles.push({
        component,
        suspect,
        weight: share * sum,
        steps,
        below: leans(-1),
        above: leans(1),
        samples: Int32Array.from(samples),
        weights: Float64Array.from(weights, (w) => w / kept),
      });
    }
  });
  particles.sort((a, b) => b.weight - a.weight);
  particles.length = Math.min(particles.length, MOST_PARTICLES);
  const total = particles.reduce((sum, a) => sum + a.weight, notHere);
  return {
    suspects: grouped.suspects.length,
    particles: particles.map((a) => ({ ...a, weight: a.weight / total })),
    notHere: { suspect: grouped.notHere, weight: notHere / total },
  };
}
