import type { Predictor } from "../prediction/predictor.js";
import type { Breadth, CodePosterior } from "./posterior.js";

/** Readings, and families of readings, whose likelihoods are kept: those of a long job. */
const KEPT_READINGS = 64;
const KEPT_FAMILIES = 256;

/** Of a single reading and hypothesis. */
export interface ReadingLikelihoods {
  /** [((severity · steps + step) · draws + draw) · draw steps + draw step] */
  readonly of: Float32Array;
  /**
   * by severity: 1 where the reading depends on the kind of a device alone (pulled up or down), and hardly on anything
   * else that is drawn
   */
  readonly byKind: Uint8Array;
}

/** Columns by name, each by hypothesis; the oldest makes room. */
export class Columns<T> {
  private readonly all = new Map<string, Map<number, T>>();
  constructor(private readonly most: number) {}

  column(name: string): Map<number, T> {
    let column = this.all.get(name);
    if (!column) {
      if (this.all.size >= this.most) this.all.delete(this.all.keys().next().value!);
      this.all.set(name, (column = new Map<number, T>()));
    }
    return column;
  }
  clear(): void {
    this.all.clear();
  }
}

const caches = new WeakMap<Predictor, LikelihoodCache>();

/**
 * Likelihoods worked out so far, so that a new reading only adds its own. Those of readings hold for one set of codes.
 */
export class LikelihoodCache {
  readonly readings = new Columns<ReadingLikelihoods>(KEPT_READINGS);
  /** ln, of the readings that hang on one unknown: [severity · steps + step] */
  readonly families = new Columns<Float64Array>(KEPT_FAMILIES);
  /** of each reading by hypothesis, with the severities that codes alone leave: see `Reasons` */
  readonly byCodesAlone = new Columns<number>(KEPT_READINGS);
  /** whether a single fault moves a reading taken there; nothing that is seen changes that */
  readonly moved = new Columns<boolean>(KEPT_READINGS);
  private codes: { readonly signature: string; readonly by: Map<Breadth, CodePosterior> } | undefined;
  private generation = -1;

  /** The cache of a predictor, without what has grown out of date. */
  static of(predictor: Predictor): LikelihoodCache {
    let cache = caches.get(predictor);
    if (!cache) caches.set(predictor, (cache = new LikelihoodCache()));
    if (cache.generation !== predictor.generation) {
      cache.generation = predictor.generation;
      cache.forgetReadings();
    }
    return cache;
  }

  /** What is known for one set of codes; another set than the last makes readings be weighed anew. */
  byCodes(signature: string): Map<Breadth, CodePosterior> {
    if (this.codes?.signature !== signature) {
      this.codes = { signature, by: new Map() };
      this.forgetReadings();
    }
    return this.codes.by;
  }

  private forgetReadings(): void {
    this.readings.clear();
    this.families.clear();
    this.byCodesAlone.clear();
  }
}
