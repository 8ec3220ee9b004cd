import type { Grouped } from "../diagnosis/groups.js";
import type { Posterior, World } from "../diagnosis/posterior.js";
import type { Predictor } from "../diagnosis/predictor.js";
import { familiesOf, type Families } from "../diagnosis/unknowns.js";
import type { State } from "../format/case.js";
import { pinBehind } from "../wiring/points.js";
import { yesLikelihood, type Candidate } from "./candidates.js";

/** One world at one severity: what it weighs and which draws speak for it. */
export interface Atom {
  readonly world: World;
  readonly suspect: number;
  readonly weight: number;
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
const ATOM_LEAST = 5e-4, MOST_ATOMS = 260, SAMPLE_LEAST = 0.02;

/** @param reweigh weight of each world in place of its share */
export function crowdOf(predictor: Predictor, posterior: Posterior, grouped: Grouped, reweigh: (w: World, suspect: number) => number = (w) => w.share, notHere = posterior.notHere): Crowd {
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
      const samples: number[] = [], weights: number[] = [];
      for (let s = first; s < first + draws; s++) if (world.weights[s]! > SAMPLE_LEAST * sum) { samples.push(s); weights.push(world.weights[s]!); }
      const kept = weights.reduce((a, b) => a + b, 0);
      atoms.push({ world, suspect, weight: share * sum, samples: Int32Array.from(samples), weights: Float64Array.from(weights, (w) => w / kept) });
    }
  });
  atoms.sort((a, b) => b.weight - a.weight);
  atoms.length = Math.min(atoms.length, MOST_ATOMS);
  const total = atoms.reduce((sum, a) => sum + a.weight, notHere);
  return { suspects: grouped.suspects.length, atoms: atoms.map((a) => ({ ...a, weight: a.weight / total })), notHere: { suspect: grouped.notHere, weight: notHere / total } };
}

/** Mean and spread over draws of what one atom predicts for a candidate's reading; NaN where the instrument shows nothing. */
export interface Expected { readonly mean: number; readonly deviation: number; readonly overload: number }

/** What the atoms of a crowd say of one candidate's point. */
export class Forecast {
  private readonly wanted = new Map<number, Uint8Array>();
  private readonly families: Families;
  constructor(private readonly predictor: Predictor, crowd: Crowd) {
    this.families = familiesOf(predictor);
    for (const a of crowd.atoms) {
      let w = this.wanted.get(a.world.hypothesis);
      if (!w) this.wanted.set(a.world.hypothesis, (w = new Uint8Array(predictor.hypotheses[a.world.hypothesis]!.samples)));
      for (const s of a.samples) w[s] = 1;
    }
  }
  /** predictions of one hypothesis for a candidate, seen from a world that may have readings misplaced */
  private column(world: World, c: Candidate, point: string, hypothesis: number) {
    const own = (p: string) => (c.part ? pinBehind(p) : p);
    const plain = { instrument: c.instrument as Exclude<Candidate["instrument"], "none">, point: own(point), black: c.black === undefined ? undefined : own(c.black), state: c.state as State };
    return this.predictor.predictAt(hypothesis, world.misplaced ? world.misplaced.moved(plain) : plain, hypothesis === 0 ? undefined : this.wanted.get(hypothesis));
  }
  /** with the fault there */
  there(atom: Atom, c: Candidate, point: string): Expected {
    const predicted = this.column(atom.world, c, point, atom.world.hypothesis);
    return gather(atom, c, (s) => predicted.at(s), this.read(atom.world, c, point));
  }
  /** what readings of the same family have told of the draws */
  private read(world: World, c: Candidate, point: string): Float64Array | undefined {
    if (world.draws.size === 0) return undefined;
    const plain = { instrument: c.instrument as Exclude<Candidate["instrument"], "none">, point, black: undefined, state: c.state as State };
    return world.draws.get(this.families.of(world.misplaced ? world.misplaced.moved(plain) : plain));
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
      const side = (end: string) => this.predictor.predictAt(atom.world.hypothesis, { instrument: "voltmeter", point: `${c.points[0]!}:${end}`, state: c.state }, this.wanted.get(atom.world.hypothesis));
      const into = side("in"), out = side("out");
      return atom.samples.reduce((n, s) => n + (out.at(s) > 0.5 * into.at(s) ? 1 : 0), 0) / Math.max(1, atom.samples.length);
    }
    return yesLikelihood(c, this.predictor.hypotheses[atom.world.hypothesis]!.faults, atom.world.presence < 1, atom.world.misplaced);
  }
}

function gather(atom: Atom, c: Candidate, value: (sample: number) => number, draws?: Float64Array): Expected {
  const ohms = c.instrument === "ohmmeter";
  let sum = 0, squares = 0, weight = 0, overload = 0;
  for (let i = 0; i < atom.samples.length; i++) {
    const s = atom.samples[i]!, v = value(s), w = draws ? draws[s]! : atom.weights[i]!;
    if (v !== v) continue;
    if (v === Infinity) { overload += w; continue; }
    const x = ohms ? Math.log(v + 0.5) : v;
    sum += w * x; squares += w * x * x; weight += w;
  }
  if (weight === 0) return overload > 0 ? { mean: Infinity, deviation: 0, overload: 1 } : { mean: NaN, deviation: 0, overload: 0 };
  const mean = sum / weight;
  return { mean, deviation: Math.sqrt(Math.max(0, squares / weight - mean * mean)), overload: overload / (overload + weight) };
}
