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

/** The edges of ohms on the scale that they are judged on, by the edges. */
const ends = new WeakMap<Float64Array, Float64Array>();
function endsOf(edges: Float64Array): Float64Array {
  let known = ends.get(edges);
  if (!known) ends.set(edges, (known = edges.map((e) => Math.log(e + DEFAULTS.reading.ohmFloor))));
  return known;
}

/** An ohmmeter is only offered where the circuit is live with less than this probability: voltage first. */
const LIVE_MOST = 0.05;
/** Suspects that have a column of numbers; the others have no share in any answer. */
export class JointColumns {
  /** suspects in order, one a column */
  readonly suspects: Int32Array;
  private readonly columns: Int32Array;
  /** @param suspects numbers of those that may share in an answer, any order, also twice @param of how many */
  constructor(
    suspects: Iterable<number>,
    readonly of: number,
  ) {
    this.suspects = Int32Array.from(new Set(suspects)).sort();
    this.columns = new Int32Array(of).fill(-1);
    this.suspects.forEach((suspect, column) => {
      this.columns[suspect] = column;
    });
  }
  /** As `at`. @throws {RangeError} where it has none: its share would go to another's */
  place(suspect: number): number {
    const column = this.columns[suspect]!;
    if (!(column >= 0)) throw new RangeError(`suspect ${suspect} has no column`);
    return column;
  }
  /** The column of a suspect, or −1. */
  at(suspect: number): number {
    return this.columns[suspect]!;
  }
}

/** Probability of each answer together with each suspect: p[bin · columns + column]. For ohms the last bin is OL. */
export class JointDistribution {
  readonly bins: number;
  private readonly p: Float64Array;
  private readonly width: number;
  /** probability that the circuit is live, so that an ohmmeter shows nothing */
  live = 0;
  /** of the last of two points that are watched at once: which of them moves */
  together: JointDistribution | undefined;
  get isLive(): boolean {
    return this.live > LIVE_MOST;
  }
  /** the edges on the scale that readings are judged on */
  private readonly ends: Float64Array;
  constructor(
    readonly edges: Float64Array,
    readonly columns: JointColumns,
    readonly instrument: Instrument | "none",
  ) {
    this.ends = instrument === "ohmmeter" ? endsOf(edges) : edges;
    this.bins = edges.length; // edges.length − 1 bins and OL; without an instrument: no and yes
    this.width = columns.suspects.length;
    this.p = new Float64Array(this.bins * this.width);
  }
  /** how many suspects there are, with a column or without */
  get suspects(): number {
    return this.columns.of;
  }
  add(bin: number, suspect: number, share: number) {
    const i = bin * this.width + this.columns.place(suspect);
    this.p[i] = this.p[i]! + share;
  }

  /** a normal around μ, volt or ln ohm */
  smear(mu: number, sigma: number, suspect: number, share: number) {
    const { ends, p, width } = this;
    const column = this.columns.place(suspect);
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
      p[bin * width + column] = p[bin * width + column]! + share * (upTo - below);
      below = upTo;
      if (upTo === 1) break;
    }
  }
  share(bin: number): number {
    let sum = 0;
    for (let i = bin * this.width; i < (bin + 1) * this.width; i++) sum += this.p[i]!;
    return sum;
  }
  middle(bin: number): number {
    if (this.instrument === "none") return bin;
    if (bin === this.bins - 1) return this.instrument === "ohmmeter" ? Infinity : this.edges[bin]!;
    const a = this.edges[bin]!;
    const b = this.edges[bin + 1]!;
    return this.instrument === "ohmmeter" ? Math.sqrt(a * b) : (a + b) / 2;
  }

  /** The same answers for suspects put together: `to[suspect]` is its new number; `columns` are of the new ones. */
  merged(to: Int32Array, columns: JointColumns): JointDistribution {
    const j = new JointDistribution(this.edges, columns, this.instrument);
    const column = Int32Array.from(this.columns.suspects, (s) => columns.place(to[s]!));
    for (let b = 0, i = 0; b < this.bins; b++)
      for (let c = 0; c < this.width; c++, i++) {
        const at = b * j.width + column[c]!;
        j.p[at] = j.p[at]! + this.p[i]!;
      }
    j.live = this.live;
    j.together = this.together?.merged(to, columns);
    return j;
  }
  /** How far apart two suspects' answers are: total variation distance, 0 the same to 1 never the same. */
  apart(a: number, b: number): number {
    const { p, width } = this;
    const ca = this.columns.at(a);
    const cb = this.columns.at(b);
    if (ca < 0 || cb < 0) return 1;
    let wa = 0;
    let wb = 0;
    for (let i = 0; i < p.length; i += width) {
      wa += p[i + ca]!;
      wb += p[i + cb]!;
    }
    if (wa === 0 || wb === 0) return 1;
    let sum = 0;
    for (let i = 0; i < p.length; i += width) sum += Math.abs(p[i + ca]! / wa - p[i + cb]! / wb);
    return sum / 2;
  }

  /** Expected drop of entropy over the suspects (Shannon's mutual information), bits. */
  bits(): number {
    const { p, width, bins } = this;
    const bySuspect = new Float64Array(width);
    let total = 0;
    let sum = 0;
    for (let b = 0, i = 0; b < bins; b++) {
      let row = 0;
      for (let c = 0; c < width; c++, i++) {
        const q = p[i]!;
        if (q === 0) continue;
        bySuspect[c] = bySuspect[c]! + q;
        row += q;
        sum += q * Math.log2(q);
      }
      if (row > 0) sum -= row * Math.log2(row);
      total += row;
    }
    if (total === 0) return 0;
    for (const q of bySuspect) if (q > 0) sum -= q * Math.log2(q);
    return Math.max(0, sum / total + Math.log2(total));
  }

  /** probability of one answer together with one suspect */
  at(bin: number, suspect: number): number {
    const column = this.columns.at(suspect);
    return column < 0 ? 0 : this.p[bin * this.width + column]!;
  }
  /** the likeliest suspect of an answer; the first where it has none */
  leader(bin: number): number {
    let best = -1;
    let most = 0;
    for (let c = 0; c < this.width; c++) {
      const own = this.p[bin * this.width + c]!;
      if (own <= most) continue;
      most = own;
      best = c;
    }
    return best < 0 ? 0 : this.columns.suspects[best]!;
  }
}
