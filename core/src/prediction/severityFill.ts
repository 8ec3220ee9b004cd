import type { Quantity } from "./quantity.js";

/** So few severities are solved one by one. */
const FEW = 4;
/** What all severities show alike, and how far a value may be from where the fit puts it: volt, ohm or ampere. */
const ALIKE = 5e-4;
const OFF: Readonly<Record<Quantity, { readonly value: number; readonly share: number }>> = {
  volts: { value: 5e-4, share: 2e-4 },
  swing: { value: 5e-4, share: 2e-4 },
  least: { value: 5e-4, share: 2e-4 },
  most: { value: 5e-4, share: 2e-4 },
  ohms: { value: 0.01, share: 5e-4 },
  amperes: { value: 5e-4, share: 5e-4 },
};

/** Values at one severity, and a number for what state every device is in. */
export interface Solved {
  readonly values: Float32Array;
  readonly mode: number;
}

/**
 * Values at many severities of one fault from few solves. While no device changes its state the circuit is linear, and
 * a voltage, a current or a resistance is a ratio of two straight lines in the resistance of one branch
 * (Sherman & Morrison 1950: a change of one branch is a rank-one change of the matrix). Such a ratio runs one way, so
 * that devices which are in one state at both ends stay in it in between. Three severities in one state give the ratio;
 * one more is solved to check it, and where they are not, or the check fails, each half is done by itself.
 * @param severities of the places to be filled, ohm, rising; at Infinity the branch is open
 * @param solve the values at one place
 * @param put takes the values at each place, solved or fitted
 */
export function fillSeverities(
  severities: readonly number[],
  quantity: Quantity,
  solve: (place: number) => Solved,
  put: (place: number, values: Float32Array) => void,
): void {
  const solved = new Map<number, Solved>();
  const solvedAt = (place: number) => {
    let own = solved.get(place);
    if (!own) {
      solved.set(place, (own = solve(place)));
      put(place, own.values);
    }
    return own;
  };
  const at = (place: number) => solvedAt(place).values;
  const fill = (low: number, high: number) => {
    if (high - low < FEW) {
      for (let k = low; k <= high; k++) at(k);
      return;
    }
    const middle = (low + high) >> 1;
    const check = (low + middle) >> 1;
    const { mode } = solvedAt(low);
    const isOneMode = [high, middle].every((k) => solvedAt(k).mode === mode);
    const fit = isOneMode ? new Fit(severities, [low, middle, high], at) : undefined;
    if (fit?.isGood && fit.agrees(check, at(check), OFF[quantity])) {
      for (let k = low + 1; k < high; k++) if (!solved.has(k)) put(k, fit.values(k));
      return;
    }
    fill(low, middle);
    fill(middle, high);
  };
  if (severities.length > 0) fill(0, severities.length - 1);
}

/** Values as ratios of straight lines through three severities: barycentric form, free of poles in between. */
class Fit {
  readonly isGood: boolean;
  /** by value: weight of the upper end against the lower; 0 where all three are alike */
  private readonly ratio: Float64Array;
  private readonly low: Float32Array;
  private readonly middle: Float32Array;
  private readonly high: Float32Array;
  private readonly position: (place: number) => number;
  private readonly ends: readonly [number, number];

  constructor(
    severities: readonly number[],
    [a, b, c]: readonly [number, number, number],
    at: (place: number) => Float32Array,
  ) {
    [this.low, this.middle, this.high] = [at(a), at(b), at(c)];
    // a resistance on a scale of its own, so that 0 and Infinity are places like others
    const unit = severities[b]!;
    this.position = (place) => (severities[place] === Infinity ? 1 : severities[place]! / (severities[place]! + unit));
    const [low, middle, high] = [this.position(a), this.position(b), this.position(c)];
    this.ends = [low, high];
    this.ratio = new Float64Array(this.low.length);
    let isGood = low < middle && middle < high;
    for (let i = 0; isGood && i < this.ratio.length; i++) {
      const r = this.ratioAt(i, (middle - high) / (middle - low));
      if (r === undefined) isGood = false;
      else this.ratio[i] = r;
    }
    this.isGood = isGood;
  }
  private ratioAt(i: number, apart: number): number | undefined {
    const first = this.middle[i]! - this.low[i]!;
    const second = this.middle[i]! - this.high[i]!;
    if (!Number.isFinite(first) || !Number.isFinite(second)) {
      const same = Object.is(this.low[i], this.middle[i]) && Object.is(this.middle[i], this.high[i]);
      return same ? 0 : undefined;
    }
    if (Math.abs(first) < ALIKE && Math.abs(second) < ALIKE) return 0;
    const r = -(first / second) * apart;
    return Number.isFinite(r) && r < 0 ? r : undefined;
  }

  private value(i: number, x: number): number {
    const r = this.ratio[i]!;
    if (r === 0) return this.middle[i]!;
    const [low, high] = this.ends;
    const a = 1 / (x - low);
    const b = r / (x - high);
    return (a * this.low[i]! + b * this.high[i]!) / (a + b);
  }
  values(place: number): Float32Array {
    const x = this.position(place);
    return Float32Array.from(this.ratio, (_, i) => this.value(i, x));
  }
  agrees(place: number, solved: Float32Array, off: { readonly value: number; readonly share: number }): boolean {
    const x = this.position(place);
    return solved.every((v, i) => {
      const fitted = this.value(i, x);
      return Object.is(v, fitted) || Math.abs(v - fitted) <= off.value + off.share * Math.abs(v);
    });
  }
}
