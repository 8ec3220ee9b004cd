import type { Instrument, Predictor } from "../diagnosis/predictor.js";
import { DEFAULTS } from "../defaults.js";
import { sigmaLnOhm, sigmaVolt, spreads } from "../diagnosis/likelihood.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Suspect } from "../diagnosis/groups.js";
import type { Candidate } from "./candidates.js";

/** One range of answers and what it would mean. */
export interface Answer {
  /** volts or ohms; the middle of what is expected there */
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** how likely this answer is */
  readonly share: number;
  /** what would be left, strongest first: index into the suspects (−1: anything but the leader, when confirming), and its share then */
  readonly suspects: readonly { readonly suspect: number; readonly share: number }[];
}

export interface Information {
  /** expected drop of entropy over suspects, bits */
  readonly bits: number;
  /** what the answers would mean: one list per point of the candidate */
  answers(): Answer[][];
}

/** Bin edges of a scale: what the instrument can tell apart, finer where circuits live. */
export function edgesOf(instrument: Instrument, nominalVolt: number): Float64Array {
  const edges: number[] = [];
  if (instrument === "voltmeter") {
    for (let i = 0; i < 70; i++) edges.push(-1.05 + 0.1 * i); // 0 V in the middle of a bin
    for (let v = 6; v <= nominalVolt * 1.3 + 1; v += 0.25) edges.push(v);
  } else {
    for (let l = -1; l <= 7.4; l += 0.2) edges.push(10 ** l);
  }
  return Float64Array.from(edges);
}

/** Groups of hypotheses as the planner sees them: one per suspect, and one for everything else. */
export interface Crowd {
  readonly suspects: readonly Suspect[];
  /** suspect of each hypothesis that still counts */
  readonly members: readonly { readonly hypothesis: number; readonly suspect: number; readonly share: number; readonly wanted: Uint8Array; readonly weights: Float64Array }[];
  /** "not in this wiring": index of its suspect and its share */
  readonly notHere: { readonly suspect: number; readonly share: number };
}

/** Samples lighter than this within a hypothesis are left out of planning. */
const SAMPLE_SHARE = 0.004;

/**
 * For confirming: the leader against everything that codes alone left possible, evenly, so that the reading is found
 * that could still refute it.
 */
export function confirmingCrowd(posterior: Posterior, suspects: readonly Suspect[], least: number): Crowd {
  const leader = suspects[0]!;
  const own = crowdOf(posterior, [leader], 0).members.map((m) => ({ ...m, share: (0.5 * m.share) / leader.share }));
  const ours = new Set(leader.members.map((m) => m.hypothesis));
  const rest = [...posterior.samplesByCodes].filter(([h]) => !ours.has(h) && posterior.shareByCodes[h]! >= least);
  const sum = rest.reduce((s, [h]) => s + posterior.shareByCodes[h]!, 0);
  const others = rest.map(([hypothesis, all]) => member(hypothesis, 1, (0.5 * posterior.shareByCodes[hypothesis]!) / sum, all));
  const anything: Suspect = { id: "others", type: "nothing", share: 0.5, places: [], members: [] };
  return { suspects: [{ ...leader, share: 0.5 }, anything], members: [...own, ...others], notHere: { suspect: -1, share: 0 } };
}

/** For telling the leader from the few rivals that no reading has refuted yet: half the share to the leader, half to them. */
export function rivalCrowd(posterior: Posterior, leader: Suspect, rivals: readonly Suspect[]): Crowd {
  const sum = rivals.reduce((s, r) => s + r.share, 0);
  const scaled = crowdOf(posterior, [leader, ...rivals], 0).members.map((m) => (m.suspect === 0 ? { ...m, share: (0.5 * m.share) / leader.share } : { ...m, suspect: 1, share: (0.5 * m.share) / sum }));
  return { suspects: [{ ...leader, share: 0.5 }, { ...rivals[0]!, share: 0.5 }], members: scaled, notHere: { suspect: -1, share: 0 } };
}

function member(hypothesis: number, suspect: number, share: number, all: Float64Array): Crowd["members"][number] {
  const wanted = Uint8Array.from(all, (w) => (w >= SAMPLE_SHARE ? 1 : 0));
  const kept = all.reduce((s, w, j) => (wanted[j] ? s + w : s), 0);
  return { hypothesis, suspect, share, wanted, weights: all.map((w, j) => (wanted[j] ? w / kept : 0)) };
}

export function crowdOf(posterior: Posterior, suspects: readonly Suspect[], least: number): Crowd {
  const members = suspects.flatMap((suspect, i) => {
    const list = suspect.type === "nothing" ? [{ hypothesis: 0, share: suspect.share }] : suspect.members;
    return list.filter((m) => m.share >= least).map(({ hypothesis, share }) => member(hypothesis, i, share, posterior.samples.get(hypothesis)!));
  });
  const at = suspects.findIndex((s) => s.type === "notHere");
  return { suspects, members, notHere: { suspect: at, share: suspects[at]?.share ?? 0 } };
}

/**
 * Expected information of a reading about which suspect it is (Shannon's mutual information, in bits), from the
 * predicted distribution of answers in bins the instrument can tell apart.
 * Two-point candidates (both sides of a fuse) are judged by their better point.
 * @param blurVolt widens every prediction, so that only plain differences count
 */
export function information(predictor: Predictor, crowd: Crowd, candidate: Candidate, blurVolt = 0): Information {
  let bits = 0;
  const joints: Joint[] = [];
  for (const name of candidate.points) {
    const joint = jointOf(predictor, crowd, candidate, predictor.pointIndex.get(name)!, blurVolt);
    bits = Math.max(bits, joint.live > LIVE_MOST ? 0 : mutual(joint));
    joints.push(joint);
  }
  return { bits, answers: () => joints.map((j) => j.answers()) };
}

/** An ohmmeter is only offered where the circuit is live with less than this probability: voltage first. */
const LIVE_MOST = 0.05;

/** Probability of each answer bin together with each suspect: p[bin · suspects + suspect]. Last bin is OL. */
class Joint {
  readonly bins: number;
  readonly p: Float64Array;
  /** probability that the circuit is live, so that an ohmmeter shows nothing */
  live = 0;
  /** the edges on the scale that readings are judged on */
  private readonly ends: Float64Array;
  constructor(readonly edges: Float64Array, readonly groups: number, private readonly instrument: Instrument) {
    this.ends = instrument === "voltmeter" ? edges : edges.map((e) => Math.log(e + DEFAULTS.reading.ohmFloor));
    this.bins = edges.length; // edges.length − 1 bins and OL
    this.p = new Float64Array(this.bins * groups);
  }
  add(bin: number, group: number, share: number) { this.p[bin * this.groups + group] = this.p[bin * this.groups + group]! + share; }

  /** a normal around μ, volt or ln ohm */
  smear(mu: number, sigma: number, group: number, share: number) {
    const { ends } = this;
    const last = ends.length - 2;
    let first = 0, high = last;
    while (first < high) { // the first bin that reaches within 3.5 σ
      const mid = (first + high) >> 1;
      if (ends[mid + 1]! < mu - 3.5 * sigma) first = mid + 1;
      else high = mid;
    }
    let below = 0;
    for (let bin = first; bin <= last; bin++) {
      const z = (ends[bin + 1]! - mu) / sigma;
      const upTo = bin === last || z > 3.5 ? 1 : 1 / (1 + Math.exp(-1.702 * z)); // logistic stand-in for the normal
      this.add(bin, group, share * (upTo - below));
      below = upTo;
      if (upTo === 1) break;
    }
  }
  share(bin: number): number {
    let sum = 0;
    for (let g = 0; g < this.groups; g++) sum += this.p[bin * this.groups + g]!;
    return sum;
  }
  middle(bin: number): number {
    if (bin === this.bins - 1) return Infinity;
    const a = this.edges[bin]!, b = this.edges[bin + 1]!;
    return this.instrument === "voltmeter" ? (a + b) / 2 : Math.sqrt(a * b);
  }

  /** Runs of likely bins, four at most: the ranges of answers a person would tell apart. */
  answers(): Answer[] {
    const shares = Array.from({ length: this.bins }, (_, b) => this.share(b));
    const leaders = shares.map((_, b) => this.leader(b));
    const runs: { from: number; to: number }[] = [];
    for (let b = 0; b < this.bins; b++) {
      if (shares[b]! < VALLEY) continue;
      const last = runs.at(-1);
      const joined = last && last.to >= b - 2 && b !== this.bins - 1 && leaders[last.to] === leaders[b];
      if (joined) last.to = b;
      else runs.push({ from: b, to: b });
    }
    const weight = (r: { from: number; to: number }) => shares.slice(r.from, r.to + 1).reduce((a, x) => a + x, 0);
    while (runs.length > MOST_ANSWERS) {
      let lightest = 0;
      runs.forEach((r, i) => { if (weight(r) < weight(runs[lightest]!)) lightest = i; });
      const near = lightest === 0 ? 1 : lightest === runs.length - 1 ? lightest - 1 : runs[lightest]!.from - runs[lightest - 1]!.to <= runs[lightest + 1]!.from - runs[lightest]!.to ? lightest - 1 : lightest + 1;
      const [i, j] = [Math.min(lightest, near), Math.max(lightest, near)];
      runs.splice(i, 2, { from: runs[i]!.from, to: runs[j]!.to });
    }
    const list = runs.map((r) => ({ ...r, answer: this.answer(r.from, r.to) }));
    for (let i = 0; i + 1 < list.length;) { // neighbours that would mean the same are one answer
      if (this.bins - 1 === list[i + 1]!.to || !sameMeaning(list[i]!.answer, list[i + 1]!.answer)) { i++; continue; }
      const [from, to] = [list[i]!.from, list[i + 1]!.to];
      list.splice(i, 2, { from, to, answer: this.answer(from, to) });
    }
    return list.map((l) => l.answer);
  }
  private leader(bin: number): number {
    let best = 0;
    for (let g = 1; g < this.groups; g++) if (this.p[bin * this.groups + g]! > this.p[bin * this.groups + best]!) best = g;
    return best;
  }
  private answer(from: number, to: number): Answer {
    const by = new Float64Array(this.groups);
    let share = 0, value = 0;
    for (let b = from; b <= to; b++) {
      for (let g = 0; g < this.groups; g++) by[g] = by[g]! + this.p[b * this.groups + g]!;
      const s = this.share(b);
      share += s;
      const middle = this.middle(b);
      value += s * (this.instrument === "voltmeter" || middle === Infinity ? middle : Math.log(middle));
    }
    value /= share;
    const suspects = [...by].map((p, suspect) => ({ suspect, share: p / share })).filter((s) => s.share >= 0.02).sort((a, b) => b.share - a.share);
    const open = to === this.bins - 1;
    return {
      value: this.instrument === "voltmeter" || value === Infinity ? value : Math.exp(value),
      low: from === this.bins - 1 ? Infinity : this.edges[from]!, high: open ? Infinity : this.edges[to + 1]!, share, suspects,
    };
  }
}
/** Whether two answers leave the same suspects with nearly the same shares (total variation distance). */
function sameMeaning(a: Answer, b: Answer): boolean {
  const shares = new Map(a.suspects.map((s) => [s.suspect, s.share]));
  let apart = 0;
  for (const s of b.suspects) {
    apart += Math.abs(s.share - (shares.get(s.suspect) ?? 0));
    shares.delete(s.suspect);
  }
  for (const rest of shares.values()) apart += rest;
  return apart / 2 < 0.2;
}
const VALLEY = 0.006;
const MOST_ANSWERS = 4;

function jointOf(predictor: Predictor, crowd: Crowd, c: Candidate, point: number, blurVolt: number): Joint {
  const joint = new Joint(edgesOf(c.instrument, predictor.wiring.nominalVolt), crowd.suspects.length, c.instrument);
  const stride = predictor.points.length;
  for (const m of crowd.members) {
    const values = predictor.predict(m.hypothesis, c.state, c.instrument, m.wanted);
    const width = plannedSpread(values, stride, point, m.weights, m.wanted, c.instrument, predictor.draws);
    for (let s = 0; s < m.weights.length; s++) {
      const w = m.weights[s]!;
      if (w === 0) continue;
      const v = values[s * stride + point]!;
      if (c.instrument === "ohmmeter") {
        if (v === Infinity) joint.add(joint.bins - 1, m.suspect, m.share * w);
        else if (Number.isNaN(v)) { evenly(joint, m.suspect, m.share * w); joint.live += m.share * w; }
        else joint.smear(Math.log(v + DEFAULTS.reading.ohmFloor), sigmaLnOhm(v, width), m.suspect, m.share * w);
      } else joint.smear(v, sigmaVolt(v, Math.hypot(width, blurVolt)), m.suspect, m.share * w);
    }
  }
  if (crowd.notHere.suspect >= 0) evenly(joint, crowd.notHere.suspect, crowd.notHere.share);
  return joint;
}

/** the mean width of the samples that still count, so that few samples do not look like certainty */
function plannedSpread(values: Float32Array, stride: number, point: number, weights: Float64Array, wanted: Uint8Array, instrument: Instrument, draws: number): number {
  const list = spreads(values, stride, point, wanted, draws, instrument);
  let sum = 0;
  for (let s = 0; s < weights.length; s++) sum += weights[s]! * list[s]!;
  return sum;
}

function evenly(joint: Joint, group: number, share: number) {
  const bins = joint.bins - 1;
  for (let b = 0; b < bins; b++) joint.add(b, group, share / bins);
}

function mutual(joint: Joint): number {
  const { p, groups, bins } = joint;
  const byGroup = new Float64Array(groups);
  let total = 0;
  for (let i = 0; i < p.length; i++) { byGroup[i % groups] = byGroup[i % groups]! + p[i]!; total += p[i]!; }
  if (total === 0) return 0;
  let bits = 0;
  for (let b = 0; b < bins; b++) {
    const row = joint.share(b);
    if (row === 0) continue;
    for (let g = 0; g < groups; g++) {
      const q = p[b * groups + g]!;
      if (q > 0) bits += (q / total) * Math.log2((q * total) / (row * byGroup[g]!));
    }
  }
  return Math.max(0, bits);
}
