import { DEFAULTS } from "../defaults.js";
import { phi } from "../diagnosis/likelihood.js";
import type { Instrument } from "../format/case.js";

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
/** Probability of each answer together with each suspect: p[bin · suspects + suspect]. For ohms the last bin is OL. */
export class JointDistribution {
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
    readonly instrument: Instrument | "none",
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
  merged(to: Int32Array, groups: number): JointDistribution {
    const j = new JointDistribution(this.edges, groups, this.instrument);
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
    let sum = 0;
    for (let b = 0, i = 0; b < bins; b++) {
      let row = 0;
      for (let g = 0; g < groups; g++, i++) {
        const q = p[i]!;
        if (q === 0) continue;
        byGroup[g] = byGroup[g]! + q;
        row += q;
        sum += q * Math.log2(q);
      }
      if (row > 0) sum -= row * Math.log2(row);
      total += row;
    }
    if (total === 0) return 0;
    for (const q of byGroup) if (q > 0) sum -= q * Math.log2(q);
    return Math.max(0, sum / total + Math.log2(total));
  }

  /** probability of one answer together with one suspect */
  at(bin: number, group: number): number {
    return this.p[bin * this.groups + group]!;
  }
  /** the likeliest suspect of an answer */
  leader(bin: number): number {
    let best = 0;
    for (let g = 1; g < this.groups; g++) if (this.at(bin, g) > this.at(bin, best)) best = g;
    return best;
  }
}
