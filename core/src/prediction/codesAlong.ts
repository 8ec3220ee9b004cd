import type { Hypothesis } from "./hypothesis.js";

/** Severities apart that two may be for what lies between to be taken as they are. Judgement: time. */
export const WIDEST_ASSUMED = 4;

/** Codes of one hypothesis, judged sample by sample on first asking. */
export interface JudgedCodes {
  readonly places: readonly number[];
  readonly monitors: number;
  /** judges a sample if it was not yet. @returns which of `places` set their codes */
  at(sample: number): Uint8Array;
  /** a number for the states in which all devices were in a sample that was judged */
  modeAt(sample: number): number;
}

/**
 * Codes along the severities of a hypothesis. Between two severities that set the same codes those are taken to be set
 * too: while no device changes its state a voltage runs one way (see `CodePredictions.movesAny`). Where codes differ,
 * or two that are far apart have devices in other states, the middle is tried, and so on.
 */
export class CodesAlong {
  readonly places: number;
  readonly stepped: boolean;
  private readonly done: Uint8Array;
  constructor(
    hypothesis: Hypothesis,
    private readonly draws: number,
    private readonly solved: JudgedCodes,
    private readonly bits: Uint8Array,
    private readonly widest: number,
  ) {
    this.places = hypothesis.samples / draws;
    this.stepped = hypothesis.stepped;
    this.done = new Uint8Array(hypothesis.samples);
  }

  /** All severities of one draw. */
  draw(draw: number): void {
    if (this.solved.places.length === 0) return;
    const last = this.places - 1;
    this.solve(0, draw);
    if (last > 0) this.solve(last, draw);
    if (this.stepped) this.between(0, last, draw);
    else for (let k = 1; k < last; k++) this.solve(k, draw);
  }
  private between(low: number, high: number, draw: number): void {
    if (high - low < 2) return;
    const isNear = high - low <= this.widest || this.areModesAlike(low, high, draw);
    if (isNear && this.alike(low, draw, high, draw)) {
      for (let k = low + 1; k < high; k++) this.copy(k, draw, low * this.draws + draw);
      return;
    }
    const middle = (low + high) >> 1;
    this.solve(middle, draw);
    this.between(low, middle, draw);
    this.between(middle, high, draw);
  }
  solve(place: number, draw: number): void {
    const sample = place * this.draws + draw;
    if (this.done[sample] === 1 || this.solved.places.length === 0) return;
    const { places, monitors } = this.solved;
    const set = this.solved.at(sample);
    places.forEach((i, j) => {
      this.bits[sample * monitors + i] = set[j]!;
    });
    this.done[sample] = 1;
  }
  private copy(place: number, draw: number, from: number): void {
    const sample = place * this.draws + draw;
    const { monitors, places } = this.solved;
    for (const i of places) this.bits[sample * monitors + i] = this.bits[from * monitors + i]!;
    this.done[sample] = 1;
  }
  isSolved(place: number, draw: number): boolean {
    return this.done[place * this.draws + draw] === 1;
  }
  alike(place: number, draw: number, other: number, otherDraw: number): boolean {
    const { monitors, places } = this.solved;
    const a = (place * this.draws + draw) * monitors;
    const b = (other * this.draws + otherDraw) * monitors;
    return places.every((i) => this.bits[a + i] === this.bits[b + i]);
  }
  private areModesAlike(place: number, other: number, draw: number): boolean {
    const modeOf = (k: number) => this.solved.modeAt(k * this.draws + draw);
    return this.solved.places.length === 0 || modeOf(place) === modeOf(other);
  }
  /** Draws not tried do as those that were, in turn. */
  fillDraws(): void {
    for (let k = 0; k < this.places; k++) {
      const solved = (at: number) =>
        Array.from({ length: this.draws }, (_, d) => at * this.draws + d).filter((s) => this.done[s] === 1);
      const own = solved(k);
      const known = own.length || k === 0 ? own : solved(k - 1);
      if (known.length === 0) continue;
      for (let d = 0; d < this.draws; d++)
        if (this.done[k * this.draws + d] === 0) this.copy(k, d, known[d % known.length]!);
    }
  }
}
