import { LikelihoodCache, type ReadingLikelihoods } from "./likelihoodCache.js";
import type { Misplacement } from "./misplaced.js";
import type { ReadingEvidence } from "./evidence.js";
import { type Families, familiesOf } from "../prediction/unknowns.js";
import { type NamedReading, readingName, severitySteps, drawSteps, readingLikelihoods } from "./readingWeights.js";
import type { Predictor } from "../prediction/predictor.js";
import { isUnmovedAt } from "./unmoved.js";

/** Masks that leave nothing out. */
const ALL_DRAWS = new Uint8Array(256).fill(1);
export const ALL_WANTED = new Uint8Array(1 << 14).fill(1);

/** The readings that hang on one unknown. */
export interface Family {
  readonly family: string;
  readonly readings: readonly NamedReading[];
  readonly name: string;
  readonly columns: Map<number, Map<number, Float64Array>>;
}
interface FamilyLikelihoods {
  /** of each reading, see readingLikelihoods */
  readonly arrays: readonly ReadingLikelihoods[];
  /** the same with the fault away; empty for a lasting one */
  readonly healthy: readonly ReadingLikelihoods[];
  /** how surely a fault that comes and goes would show itself in each, where it was watched for longer than a look */
  readonly caught: readonly (number | undefined)[];
  readonly drawSteps: number;
}
/** A product of many unlikely readings must not become zero. */
const LEAST = 1e-300;

/** Likelihoods of readings that hang on one unknown: they share its draw. Remembered, since most readings stay. */
export class ReadingFamilies {
  private readonly unknowns: Families;
  constructor(private readonly predictor: Predictor) {
    this.unknowns = familiesOf(predictor);
  }

  /** The readings by family, as they were really taken if at a look-alike */
  group(readings: readonly ReadingEvidence[], misplaced: Misplacement | undefined): ReadonlyMap<string, Family> {
    const by = new Map<string, NamedReading[]>();
    for (const r of readings) {
      const e = misplaced ? misplaced.moved(r) : r;
      const family = this.unknowns.of(e);
      const list = by.get(family) ?? [];
      list.push({ reading: e, family, name: readingName(e) });
      by.set(family, list);
    }
    return new Map(
      [...by].map(([family, own]) => [
        family,
        {
          family,
          readings: own,
          name: own.map((r) => r.name).join(" & "),
          columns: new Map<number, Map<number, Float64Array>>(),
        },
      ]),
    );
  }

  /** As `log`, where that was worked out before. */
  known(h: number, family: Family, presence: number): Float64Array | undefined {
    return this.column(family, presence).get(h);
  }
  private column(family: Family, presence: number): Map<number, Float64Array> {
    let column = family.columns.get(presence);
    if (!column)
      family.columns.set(
        presence,
        (column = LikelihoodCache.of(this.predictor).families.column(`${presence} ${family.name}`)),
      );
    return column;
  }

  /**
   * ln mean over draws of the product over one family's readings, by severity and step: remembered, since most readings
   * stay.
   */
  log(h: number, family: Family, wanted: Uint8Array, size: number, presence: number): Float64Array {
    const { predictor } = this;
    const column = this.column(family, presence);
    const known = column.get(h);
    if (known) return known;
    const steps = severitySteps(predictor, h);
    const out = new Float64Array(size);
    if (presence === 1 && this.isUnmoved(h, family)) {
      // as on a sound machine, which is known in all draws
      out.fill(this.log(0, family, ALL_DRAWS, 1, 1)[0]!);
      column.set(h, out);
      return out;
    }
    const likelihoods = this.likelihoodsOf(h, family, wanted, presence);
    const width = predictor.drawsUsed(h) * likelihoods.drawSteps;
    for (let p = 0; p * steps < size; p++) {
      if (!wanted[p * predictor.draws]) continue;
      // what hangs on the kind of a device alone, and what on a value: a few draws do not hold every pair of the two
      const parts = partsOf(likelihoods, p);
      for (let k = p * steps; k < (p + 1) * steps; k++) {
        let log = 0;
        for (const part of parts) log += Math.log(Math.max(meanProduct(part, k * width, width, presence), LEAST));
        out[k] = log;
      }
    }
    column.set(h, out);
    return out;
  }
  /** Whether several faults at once leave all readings of a family as they are on a sound machine. */
  private isUnmoved(h: number, { readings }: Family): boolean {
    const { predictor } = this;
    if (h <= predictor.faults.length) return false;
    return readings.every(({ reading }) => isUnmovedAt(predictor, h, reading));
  }
  private likelihoodsOf(h: number, family: Family, wanted: Uint8Array, presence: number): FamilyLikelihoods {
    return {
      arrays: family.readings.map((n) => this.likelihoodsOfReading(h, n, wanted)),
      healthy: presence < 1 ? family.readings.map((n) => this.likelihoodsOfReading(0, n, ALL_DRAWS)) : [],
      caught: family.readings.map((n) => n.reading.caught),
      drawSteps: drawSteps(this.unknowns.order(family.family)),
    };
  }
  private likelihoodsOfReading(h: number, n: NamedReading, wanted: Uint8Array): ReadingLikelihoods {
    return readingLikelihoods(this.predictor, h, n, h === 0 ? ALL_DRAWS : wanted, this.unknowns);
  }

  /**
   * How much each draw counts within each severity, by what one family's readings say: [severity · draws + draw].
   * @param places ln weight by severity, −∞ where it is out of the question
   * @param total ln weight by severity and step
   */
  drawWeights(
    h: number,
    family: Family,
    wanted: Uint8Array,
    presence: number,
    places: Float64Array,
    total: Float64Array,
  ): Float64Array {
    const { predictor } = this;
    const { draws } = predictor;
    const used = predictor.drawsUsed(h);
    const steps = severitySteps(predictor, h);
    const likelihoods = this.likelihoodsOf(h, family, wanted, presence);
    const width = used * likelihoods.drawSteps;
    const out = new Float64Array(places.length * draws);
    for (let p = 0; p < places.length; p++) {
      if (places[p] === -Infinity) continue;
      const own = out.subarray(p * draws, (p + 1) * draws);
      let sum = 0;
      for (let k = p * steps; k < (p + 1) * steps; k++) {
        const weight = Math.exp(total[k]! - places[p]!); // any scale will do
        for (let d = 0; d < width; d++) {
          const x = weight * product(likelihoods, k * width + d, d, presence);
          own[Math.floor(d / likelihoods.drawSteps)]! += x;
          sum += x;
        }
      }
      if (sum > 0 && Number.isFinite(sum)) for (let d = 0; d < draws; d++) own[d] = own[d]! / sum;
      else own.fill(1 / used, 0, used).fill(0, used);
    }
    return out;
  }
}

function partsOf(m: FamilyLikelihoods, severity: number): readonly FamilyLikelihoods[] {
  let kinds = 0;
  for (const a of m.arrays) kinds += a.byKind[severity]!;
  if (kinds === 0 || kinds === m.arrays.length) return [m];
  return [1, 0].map((kind) => ({
    ...m,
    arrays: m.arrays.filter((a) => a.byKind[severity] === kind),
    healthy: m.healthy.filter((_, i) => m.arrays[i]!.byKind[severity] === kind),
    caught: m.caught.filter((_, i) => m.arrays[i]!.byKind[severity] === kind),
  }));
}

/** Mean over draws and their steps, from one place of the likelihoods on, of the product over the readings. */
function meanProduct(m: FamilyLikelihoods, from: number, width: number, presence: number): number {
  let sum = 0;
  if (presence === 1 && m.arrays.length === 1) {
    const { of } = m.arrays[0]!;
    for (let d = 0; d < width; d++) sum += of[from + d]!;
  } else for (let d = 0; d < width; d++) sum += product(m, from + d, d, presence);
  return sum / width;
}

function product(m: FamilyLikelihoods, at: number, draw: number, presence: number): number {
  let x = 1;
  if (presence === 1) for (const a of m.arrays) x *= a.of[at]!;
  else
    for (let i = 0; i < m.arrays.length; i++) {
      const shown = m.caught[i] ?? presence;
      x *= shown * m.arrays[i]!.of[at]! + (1 - shown) * m.healthy[i]!.of[draw]!;
    }
  return x;
}
