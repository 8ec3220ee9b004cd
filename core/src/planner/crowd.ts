import { DEFAULTS } from "../defaults.js";
import type { Grouped } from "../diagnosis/groups.js";
import type { Posterior, World } from "../diagnosis/posterior.js";
import type { Predicted } from "../diagnosis/keptColumns.js";
import { SEVERITY_KERNEL } from "../diagnosis/likelihood.js";
import type { Predictor } from "../diagnosis/predictor.js";
import { between } from "../diagnosis/readingWeights.js";
import { familiesOf, type Families } from "../diagnosis/unknowns.js";
import type { State } from "../format/case.js";
import { pinBehind } from "../wiring/points.js";
import { yesLikelihood, type Candidate } from "./candidates.js";

/** One world at one severity: what it weighs, where between the grid points it stands, and which draws speak for it. */
export interface Atom {
  readonly world: World;
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

/** What the planner plans for: atoms of the suspects that count. Weights with `notHere` sum to 1. */
export interface Crowd {
  readonly suspects: number;
  readonly atoms: readonly Atom[];
  readonly notHere: { readonly suspect: number; readonly weight: number };
}

/** Atoms lighter than this part of the whole are left out; and how many are kept. */
const ATOM_LEAST = 5e-4;
const MOST_ATOMS = 260;
const SAMPLE_LEAST = 0.02;
/** Steps lighter than this within their severity are left out: what lies there need not be solved. */
const STEP_LEAST = 0.02;
const ONE = Float64Array.of(1);
/** How far a step is from its severity, as part of the way to the one below (negative) or above. */
const partOf = (step: number, steps: number) => (step + 0.5) / steps - 0.5;

/** @param reweigh weight of each world in place of its share */
export function crowdOf(
  predictor: Predictor,
  posterior: Posterior,
  grouped: Grouped,
  reweigh: (w: World, suspect: number) => number = (w) => w.share,
  notHere = posterior.notHere,
): Crowd {
  const { draws } = predictor;
  const atoms: Atom[] = [];
  posterior.worlds.forEach((world, i) => {
    const suspect = grouped.of[i]!;
    if (suspect < 0) return;
    const share = reweigh(world, suspect);
    if (share < ATOM_LEAST) return;
    for (let first = 0; first < world.weights.length; first += draws) {
      let sum = 0;
      for (let s = first; s < first + draws; s++) sum += world.weights[s]!;
      if (share * sum < ATOM_LEAST) continue;
      const samples: number[] = [];
      const weights: number[] = [];
      for (let s = first; s < first + draws; s++)
        if (world.weights[s]! > SAMPLE_LEAST * sum) {
          samples.push(s);
          weights.push(world.weights[s]!);
        }
      const kept = weights.reduce((a, b) => a + b, 0);
      const count = world.steps ? (world.steps.length * draws) / world.weights.length : 1;
      const place = first / draws;
      const steps = world.steps ? world.steps.subarray(place * count, (place + 1) * count) : ONE;
      const leans = (to: number) =>
        count > 1 &&
        world.weights[first + to * draws]! > 0 &&
        steps.some((w, k) => w >= STEP_LEAST && Math.sign(partOf(k, count)) === to);
      atoms.push({
        world,
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
  atoms.sort((a, b) => b.weight - a.weight);
  atoms.length = Math.min(atoms.length, MOST_ATOMS);
  const total = atoms.reduce((sum, a) => sum + a.weight, notHere);
  return {
    suspects: grouped.suspects.length,
    atoms: atoms.map((a) => ({ ...a, weight: a.weight / total })),
    notHere: { suspect: grouped.notHere, weight: notHere / total },
  };
}

/** Mean and spread over draws of what one atom predicts for a candidate's reading; NaN where the instrument shows nothing. */
export interface Expected {
  readonly mean: number;
  readonly deviation: number;
  readonly overload: number;
}

/** What the atoms of a crowd say of one candidate's point. */
export class Forecast {
  private readonly wanted = new Map<number, Uint8Array>();
  private readonly families: Families;
  constructor(
    private readonly predictor: Predictor,
    crowd: Crowd,
  ) {
    this.families = familiesOf(predictor);
    for (const a of crowd.atoms) {
      let w = this.wanted.get(a.world.hypothesis);
      if (!w)
        this.wanted.set(a.world.hypothesis, (w = new Uint8Array(predictor.hypotheses[a.world.hypothesis]!.samples)));
      for (const s of a.samples) {
        w[s] = 1;
        if (a.below) w[s - predictor.draws] = 1;
        if (a.above) w[s + predictor.draws] = 1;
      }
    }
  }
  /** predictions of one hypothesis for a candidate, seen from a world that may have readings misplaced */
  private column(world: World, c: Candidate, point: string, hypothesis: number) {
    const own = (p: string) => (c.part ? pinBehind(p) : p);
    const plain = {
      instrument: c.instrument as Exclude<Candidate["instrument"], "none">,
      point: own(point),
      black: c.black === undefined ? undefined : own(c.black),
      state: c.state as State,
    };
    return this.predictor.predictAt(
      hypothesis,
      world.misplaced ? world.misplaced.moved(plain) : plain,
      hypothesis === 0 ? undefined : this.wanted.get(hypothesis),
    );
  }
  /** with the fault there */
  there(atom: Atom, c: Candidate, point: string): Expected {
    const predicted = this.column(atom.world, c, point, atom.world.hypothesis);
    return gatherSteps(atom, c, predicted, this.predictor.draws, this.read(atom, c, point));
  }
  /** the unknown that an atom's answer to a reading hangs on, by name */
  familyOf({ world }: Pick<Atom, "world">, c: Candidate, point: string): string {
    const plain = {
      instrument: c.instrument as Exclude<Candidate["instrument"], "none">,
      point,
      black: undefined,
      state: c.state as State,
    };
    return this.families.of(world.misplaced ? world.misplaced.moved(plain) : plain);
  }
  /** what readings of the same family have told of the draws */
  private read(atom: Atom, c: Candidate, point: string): Float64Array | undefined {
    return atom.world.draws.size === 0 ? undefined : atom.world.draws.get(this.familyOf(atom, c, point));
  }
  /** with the fault away for the moment */
  away(atom: Atom, c: Candidate, point: string): Expected {
    const predicted = this.column(atom.world, c, point, 0);
    const { draws } = this.predictor;
    return gather(atom, c, (s) => predicted.at(s % draws));
  }
  /** probability of the answer "yes" for a candidate without an instrument */
  yes(atom: Atom, c: Candidate): number {
    if (c.kind === "breaker") {
      const side = (end: string) =>
        this.predictor.predictAt(
          atom.world.hypothesis,
          { instrument: "voltmeter", point: `${c.points[0]!}:${end}`, state: c.state },
          this.wanted.get(atom.world.hypothesis),
        );
      const into = side("in");
      const out = side("out");
      return (
        atom.samples.reduce((n, s) => n + (out.at(s) > 0.5 * into.at(s) ? 1 : 0), 0) / Math.max(1, atom.samples.length)
      );
    }
    return yesLikelihood(
      c,
      this.predictor.hypotheses[atom.world.hypothesis]!.faults,
      atom.world.presence < 1,
      atom.world.misplaced,
    );
  }
}

/** What an atom predicts, over its steps: where readings have fixed the severity, between the grid points too. */
function gatherSteps(atom: Atom, c: Candidate, predicted: Predicted, draws: number, weights?: Float64Array): Expected {
  const { steps } = atom;
  const instrument = c.instrument as Exclude<Candidate["instrument"], "none">;
  if (steps.length === 1) return gather(atom, c, (s) => predicted.at(s), weights);
  let sum = 0;
  let squares = 0;
  let all = 0;
  let overload = 0;
  for (let k = 0; k < steps.length; k++) {
    const w = steps[k]!;
    if (w < STEP_LEAST) continue;
    const t = partOf(k, steps.length);
    const to = t < 0 ? -draws : draws;
    const leans = t < 0 ? atom.below : atom.above;
    const own = gather(
      atom,
      c,
      (s) => (leans ? between(predicted.at(s), predicted.at(s + to), Math.abs(t), instrument) : predicted.at(s)),
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
    deviation: Math.hypot(Math.sqrt(Math.max(0, squares / finite - mean * mean)), stepWidth(atom, c, predicted, draws)),
    overload: overload / all,
  };
}
/** Half of what lies between two steps, as readings are weighed with: volt or ln ohm. */
function stepWidth(atom: Atom, c: Candidate, predicted: Predicted, draws: number): number {
  const besides = [...(atom.below ? [-draws] : []), ...(atom.above ? [draws] : [])];
  let sum = 0;
  let n = 0;
  for (const s of atom.samples)
    for (const to of besides) {
      const gap = Math.abs(scaled(predicted.at(s + to), c) - scaled(predicted.at(s), c));
      if (gap < Infinity) {
        sum += gap;
        n++;
      }
    }
  return n === 0 ? 0 : (SEVERITY_KERNEL / atom.steps.length) * (sum / n);
}
const scaled = (v: number, c: Candidate) => (c.instrument === "ohmmeter" ? Math.log(v + DEFAULTS.reading.ohmFloor) : v);

function gather(atom: Atom, c: Candidate, value: (sample: number) => number, draws?: Float64Array): Expected {
  let sum = 0;
  let squares = 0;
  let weight = 0;
  let overload = 0;
  for (let i = 0; i < atom.samples.length; i++) {
    const s = atom.samples[i]!;
    const v = value(s);
    const w = draws ? draws[s]! : atom.weights[i]!;
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
