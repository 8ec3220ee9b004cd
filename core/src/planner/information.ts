import { DEFAULTS } from "../defaults.js";
import { phi, sigmaLnOhm, sigmaVolt } from "../diagnosis/likelihood.js";
import type { Instrument, Predictor } from "../diagnosis/predictor.js";
import type { Candidate } from "./candidates.js";
import { Forecast, type Crowd, type Expected } from "./crowd.js";

/** One range of answers and what it would mean. */
export interface Answer {
  /** volts or ohms, the middle of what is expected there; without an instrument 1 for yes, 0 for no */
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** how likely this answer is */
  readonly share: number;
  /** what would be left, strongest first: index into the suspects (−1: anything but the leader, when confirming), and its share then */
  readonly suspects: readonly { readonly suspect: number; readonly share: number }[];
}

/** Bin edges of a scale: what the instrument can tell apart, finer where circuits live. */
export function edgesOf(instrument: Instrument, nominalVolt: number): Float64Array {
  const edges: number[] = [];
  if (instrument === "ohmmeter") for (let l = -1; l <= 7.4; l += 0.2) edges.push(10 ** l);
  else {
    for (let i = 0; i < 70; i++) edges.push(-1.05 + 0.1 * i); // 0 V in the middle of a bin
    for (let v = 6; v <= nominalVolt * 1.3 + 1; v += 0.25) edges.push(v);
  }
  return Float64Array.from(edges);
}

/** An ohmmeter is only offered where the circuit is live with less than this probability: voltage first. */
const LIVE_MOST = 0.05;
/** Widens what a few draws make of the spread: a student's caution with few samples. */
const SPREAD = 1.2;
const YES_NO = Float64Array.from([0, 0.5]);

/** Probability of each answer together with each suspect: p[bin · suspects + suspect]. For ohms the last bin is OL. */
export class Joint {
  readonly bins: number;
  readonly p: Float64Array;
  /** probability that the circuit is live, so that an ohmmeter shows nothing */
  live = 0;
  get isLive(): boolean {
    return this.live > LIVE_MOST;
  }
  /** the edges on the scale that readings are judged on */
  private readonly ends: Float64Array;
  constructor(
    readonly edges: Float64Array,
    readonly groups: number,
    private readonly instrument: Instrument | "none",
  ) {
    this.ends = instrument === "ohmmeter" ? edges.map((e) => Math.log(e + DEFAULTS.reading.ohmFloor)) : edges;
    this.bins = edges.length; // edges.length − 1 bins and OL; without an instrument: no and yes
    this.p = new Float64Array(this.bins * groups);
  }
  add(bin: number, group: number, share: number) {
    this.p[bin * this.groups + group] = this.p[bin * this.groups + group]! + share;
  }

  /** a normal around μ, volt or ln ohm */
  smear(mu: number, sigma: number, group: number, share: number) {
    const { ends } = this;
    const last = ends.length - 2;
    let first = 0;
    let high = last;
    while (first < high) {
      // the first bin that reaches within 3.5 σ
      const mid = (first + high) >> 1;
      if (ends[mid + 1]! < mu - 3.5 * sigma) first = mid + 1;
      else high = mid;
    }
    let below = 0;
    for (let bin = first; bin <= last; bin++) {
      const z = (ends[bin + 1]! - mu) / sigma;
      const upTo = bin === last || z > 3.5 ? 1 : phi(z);
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
    if (this.instrument === "none") return bin;
    if (bin === this.bins - 1) return this.instrument === "ohmmeter" ? Infinity : this.edges[bin]!;
    const a = this.edges[bin]!;
    const b = this.edges[bin + 1]!;
    return this.instrument === "ohmmeter" ? Math.sqrt(a * b) : (a + b) / 2;
  }

  /** The same answers for suspects put together: `to[group]` is its new number. */
  merged(to: Int32Array, groups: number): Joint {
    const j = new Joint(this.edges, groups, this.instrument);
    for (let b = 0; b < this.bins; b++)
      for (let g = 0; g < this.groups; g++) j.add(b, to[g]!, this.p[b * this.groups + g]!);
    j.live = this.live;
    return j;
  }
  /** How far apart two suspects' answers are: total variation distance, 0 the same to 1 never the same. */
  apart(a: number, b: number): number {
    let wa = 0;
    let wb = 0;
    for (let i = 0; i < this.bins; i++) {
      wa += this.p[i * this.groups + a]!;
      wb += this.p[i * this.groups + b]!;
    }
    if (wa === 0 || wb === 0) return 1;
    let sum = 0;
    for (let i = 0; i < this.bins; i++)
      sum += Math.abs(this.p[i * this.groups + a]! / wa - this.p[i * this.groups + b]! / wb);
    return sum / 2;
  }

  /** Expected drop of entropy over the suspects (Shannon's mutual information), bits. */
  bits(): number {
    const { p, groups, bins } = this;
    const byGroup = new Float64Array(groups);
    let total = 0;
    for (let b = 0, i = 0; b < bins; b++)
      for (let g = 0; g < groups; g++, i++) {
        byGroup[g] = byGroup[g]! + p[i]!;
        total += p[i]!;
      }
    if (total === 0) return 0;
    let bits = 0;
    for (let b = 0; b < bins; b++) {
      const row = this.share(b);
      if (row === 0) continue;
      for (let g = 0; g < groups; g++) {
        const q = p[b * groups + g]!;
        if (q > 0) bits += (q / total) * Math.log2((q * total) / (row * byGroup[g]!));
      }
    }
    return Math.max(0, bits);
  }

  /** Runs of likely bins, four at most: the ranges of answers a person would tell apart. */
  answers(): Answer[] {
    const shares = Array.from({ length: this.bins }, (_, b) => this.share(b));
    const leaders = shares.map((_, b) => this.leader(b));
    const runs: { from: number; to: number }[] = [];
    for (let b = 0; b < this.bins; b++) {
      if (shares[b]! < VALLEY && this.instrument !== "none") continue;
      const last = runs.at(-1);
      const joined =
        last &&
        this.instrument !== "none" &&
        last.to >= b - 2 &&
        b !== this.bins - 1 &&
        leaders[last.to] === leaders[b];
      if (joined) last.to = b;
      else runs.push({ from: b, to: b });
    }
    const weight = (r: { from: number; to: number }) => shares.slice(r.from, r.to + 1).reduce((a, x) => a + x, 0);
    while (runs.length > MOST_ANSWERS) {
      let lightest = 0;
      runs.forEach((r, i) => {
        if (weight(r) < weight(runs[lightest]!)) lightest = i;
      });
      const near =
        lightest === 0
          ? 1
          : lightest === runs.length - 1
            ? lightest - 1
            : runs[lightest]!.from - runs[lightest - 1]!.to <= runs[lightest + 1]!.from - runs[lightest]!.to
              ? lightest - 1
              : lightest + 1;
      const [i, j] = [Math.min(lightest, near), Math.max(lightest, near)];
      runs.splice(i, 2, { from: runs[i]!.from, to: runs[j]!.to });
    }
    const list = runs.map((r) => ({ ...r, answer: this.answer(r.from, r.to) }));
    for (let i = 0; this.instrument !== "none" && i + 1 < list.length;) {
      // neighbours that would mean the same are one answer
      if (this.bins - 1 === list[i + 1]!.to || !sameMeaning(list[i]!.answer, list[i + 1]!.answer)) {
        i++;
        continue;
      }
      const [from, to] = [list[i]!.from, list[i + 1]!.to];
      list.splice(i, 2, { from, to, answer: this.answer(from, to) });
    }
    return list.map((l) => l.answer);
  }
  private leader(bin: number): number {
    let best = 0;
    for (let g = 1; g < this.groups; g++)
      if (this.p[bin * this.groups + g]! > this.p[bin * this.groups + best]!) best = g;
    return best;
  }
  private answer(from: number, to: number): Answer {
    const by = new Float64Array(this.groups);
    let share = 0;
    let value = 0;
    for (let b = from; b <= to; b++) {
      for (let g = 0; g < this.groups; g++) by[g] = by[g]! + this.p[b * this.groups + g]!;
      const s = this.share(b);
      share += s;
      const middle = this.middle(b);
      value += s * (this.instrument !== "ohmmeter" || middle === Infinity ? middle : Math.log(middle));
    }
    value /= share;
    const suspects = [...by]
      .map((p, suspect) => ({ suspect, share: p / share }))
      .filter((s) => s.share >= 0.02)
      .sort((a, b) => b.share - a.share);
    if (this.instrument === "none") return { value: from, low: from, high: from, share, suspects };
    const open = to === this.bins - 1;
    return {
      value: this.instrument !== "ohmmeter" || value === Infinity ? value : Math.exp(value),
      low: from === this.bins - 1 ? Infinity : this.edges[from]!,
      high: open ? Infinity : this.edges[to + 1]!,
      share,
      suspects,
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

/** Makes joints of answers and suspects for one crowd. */
export class Informer {
  private readonly forecast: Forecast;
  private readonly edges = new Map<Instrument, Float64Array>();
  /** @param blurVolt widens every prediction, so that only plain differences count */
  constructor(
    private readonly predictor: Predictor,
    private readonly crowd: Crowd,
    private readonly blurVolt = 0,
  ) {
    this.forecast = new Forecast(predictor, crowd);
  }
  /** one joint for each point of the candidate */
  joints(c: Candidate): Joint[] {
    return c.instrument === "none"
      ? [this.clueJoint(c)]
      : c.points.map((p) => this.jointAt(c, p, c.instrument as Instrument));
  }
  /** What a candidate with two points (both sides of a fuse) is worth: as much as its better point. Bits. */
  static bits(joints: readonly Joint[]): number {
    return joints.reduce((most, j) => Math.max(most, j.isLive ? 0 : j.bits()), 0);
  }

  private clueJoint(c: Candidate): Joint {
    const joint = new Joint(YES_NO, this.crowd.suspects, "none");
    for (const a of this.crowd.atoms) {
      const yes = this.forecast.yes(a, c);
      joint.add(1, a.suspect, a.weight * yes);
      joint.add(0, a.suspect, a.weight * (1 - yes));
    }
    const { suspect, weight } = this.crowd.notHere;
    if (suspect >= 0) {
      joint.add(0, suspect, 0.97 * weight);
      joint.add(1, suspect, 0.03 * weight);
    }
    return joint;
  }

  private jointAt(c: Candidate, point: string, instrument: Instrument): Joint {
    let edges = this.edges.get(instrument);
    if (!edges) this.edges.set(instrument, (edges = edgesOf(instrument, this.predictor.wiring.nominalVolt)));
    const joint = new Joint(edges, this.crowd.suspects, instrument);
    for (const a of this.crowd.atoms) {
      const there = this.forecast.there(a, c, point);
      const { presence } = a.world;
      this.put(joint, instrument, there, a.suspect, a.weight * presence);
      if (presence < 1)
        this.put(joint, instrument, this.forecast.away(a, c, point), a.suspect, a.weight * (1 - presence));
    }
    const { suspect, weight } = this.crowd.notHere;
    if (suspect >= 0) evenly(joint, suspect, weight);
    return joint;
  }
  private put(joint: Joint, instrument: Instrument, e: Expected, suspect: number, weight: number): void {
    if (weight === 0) return;
    if (Number.isNaN(e.mean)) {
      evenly(joint, suspect, weight);
      joint.live += weight;
      return;
    }
    if (instrument === "ohmmeter") {
      if (e.overload > 0) joint.add(joint.bins - 1, suspect, weight * e.overload);
      if (e.overload < 1)
        joint.smear(e.mean, sigmaLnOhm(Math.exp(e.mean), SPREAD * e.deviation), suspect, weight * (1 - e.overload));
    } else joint.smear(e.mean, sigmaVolt(e.mean, Math.hypot(SPREAD * e.deviation, this.blurVolt)), suspect, weight);
  }
}

function evenly(joint: Joint, group: number, share: number) {
  const bins = joint.bins - 1;
  for (let b = 0; b < bins; b++) joint.add(b, group, share / bins);
}
