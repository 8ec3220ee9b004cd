import type { Fault } from "../faults/fault.js";
import { DEFAULTS } from "../defaults.js";

/**
 * One way the machine may be: nothing wrong, one fault, or several, at one severity each in one draw.
 * Sample index = severity place · draws + draw.
 */
export interface Hypothesis {
  readonly faults: readonly Fault[];
  /** for each severity place the severity of each fault; neighbours are neighbours on the grid when `stepped` */
  readonly severities: readonly (readonly number[])[];
  readonly stepped: boolean;
  readonly samples: number;
  /** in how many of the draws it is predicted, where not in all */
  readonly drawsUsed?: number;
}

/**
 * Severities that show whether a fault moves something at all: both ends, and closer together at the hard end, since
 * the hardest short may melt its fuse and then moves nothing.
 * @param count severities of the fault @returns places on its grid, some of them the same where there are few
 */
export function outerPlaces(count: number): readonly number[] {
  const last = count - 1;
  return [last, 0, last >> 1, last >> 3, last >> 2];
}

/** A severity by its place on the grid of a fault, in equal steps of the logarithm between two where that can be. */
function severityAt({ severities }: Fault, place: number): number {
  const below = severities[Math.floor(place)]!;
  const above = severities[Math.ceil(place)]!;
  const part = place - Math.floor(place);
  if (part === 0) return below;
  return below > 0 && above > 0 ? below ** (1 - part) * above ** part : below + part * (above - below);
}

/** Places are told apart to this part of a step: twice as closely as sets of faults are refined. */
const FINEST = 16;
/**
 * Where on the grid of a fault a severity stands, to a sixteenth of a step: the inverse of what `combine` makes of a
 * place.
 */
export function severityPlace({ severities }: Fault, value: number): number {
  const exact = severities.findIndex((s) => Object.is(s, value));
  if (exact >= 0) return exact;
  const rises = severities.at(-1)! > severities[0]!;
  const above = severities.findIndex((s) => (rises ? s > value : s < value));
  if (above <= 0) return above < 0 ? severities.length - 1 : 0;
  const [a, b] = [severities[above - 1]!, severities[above]!];
  const part = a > 0 && b > 0 ? Math.log(value / a) / Math.log(b / a) : (value - a) / (b - a);
  return above - 1 + Math.round(part * FINEST) / FINEST;
}

/** Hypotheses of several faults kept. Judgement: some tens of searches, a few megabytes. */
const MOST_COMBINED = 4_000;

/** All hypotheses by number: 0 is the healthy machine, i + 1 is `faults[i]`, then those of several faults at once. */
export class HypothesisTable {
  readonly all: Hypothesis[];
  private readonly combined = new Map<string, number>();

  constructor(
    private readonly faults: readonly Fault[],
    private readonly draws: number,
  ) {
    this.all = [
      { faults: [], severities: [[]], stepped: true, samples: draws },
      ...faults.map((fault) => ({
        faults: [fault],
        severities: fault.severities.map((s) => [s]),
        stepped: true,
        samples: fault.severities.length * draws,
      })),
    ];
  }

  /**
   * A hypothesis of several faults at once, made on first asking and remembered.
   * @param members numbers of the faults' own hypotheses
   * @param choices severity places of each member to be tried, in every combination; 2.5 is between the third severity
   * and the fourth
   * @param draws in how many of the draws it is predicted
   */
  combine(
    members: readonly number[],
    choices: readonly (readonly number[])[],
    draws: number = DEFAULTS.multipleFaults.draws,
  ): number {
    const order = members.map((m, i) => [m, choices[i]!] as const).sort((a, b) => a[0] - b[0]);
    const name = `${draws} ${order.map(([m, c]) => `${m}:${c.join(",")}`).join(" ")}`;
    const known = this.combined.get(name);
    if (known !== undefined) return known;
    const faults = order.map(([m]) => this.faults[m - 1]!);
    let severities: number[][] = [[]];
    for (const [m, list] of order)
      severities = severities.flatMap((s) => list.map((k) => [...s, severityAt(this.faults[m - 1]!, k)]));
    const samples = severities.length * this.draws;
    this.all.push({ faults, severities, stepped: false, samples, drawsUsed: Math.min(draws, this.draws) });
    this.combined.set(name, this.all.length - 1);
    return this.all.length - 1;
  }

  /**
   * Forgets those of several faults where there are too many.
   * @returns the number of the first forgotten one, or undefined where none was
   */
  makeRoom(): number | undefined {
    if (this.combined.size < MOST_COMBINED) return undefined;
    const singles = this.faults.length + 1;
    this.all.length = singles;
    this.combined.clear();
    return singles;
  }
  /** Forgets the hypotheses of several faults from a number on. */
  forgetFrom(first: number): void {
    this.all.length = first;
    for (const [name, h] of this.combined) if (h >= first) this.combined.delete(name);
  }

  /** In how many of the draws a hypothesis is predicted: several faults in fewer, until they are among the best. */
  drawsUsed(h: number): number {
    const { samples, drawsUsed } = this.all[h]!;
    return samples === this.draws ? this.draws : (drawsUsed ?? this.draws);
  }

  severitiesOf(h: number, sample: number): readonly number[] {
    return this.all[h]!.severities[Math.floor(sample / this.draws)]!;
  }
}
