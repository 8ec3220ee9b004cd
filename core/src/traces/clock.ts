import type { Channel } from "./recording.js";

/** A time is kept of every so many samples, while they come evenly. */
const KEPT = 4_096;
/** A step of between this and that share of the usual one is still even: times are written with few digits. */
const LEAST_STEP = 0.3;
const MOST_STEP = 1.7;

/** Times this near to where they would be if evenly taken are rounded, not uneven; share of a step. Judgement. */
const EVEN = 0.1;

/**
 * Times of samples as they come. While they come evenly only every 4096th is kept, so that a long recording needs no
 * room for what can be counted; from the first uneven step on each is kept.
 */
export class Clock {
  private count = 0;
  private last = NaN;
  private step = NaN;
  private readonly kept: number[] = [];
  private all: Float64Array | undefined = new Float64Array(KEPT);

  /** @returns whether the time was taken; one that does not go on from the last is not */
  push(seconds: number): boolean {
    if (this.count > 0 && !(seconds > this.last)) return false;
    if (!this.all) {
      const step = (seconds - this.last) / this.step;
      if (step < LEAST_STEP || step > MOST_STEP) this.unfold();
      else if (this.count % KEPT === 0) this.kept.push(seconds);
    } else if (this.count === KEPT && this.kept.length === 0 && this.isEven(KEPT)) {
      this.step = (this.last - this.all[0]!) / (KEPT - 1);
      const own = (seconds - this.last) / this.step;
      if (own >= LEAST_STEP && own <= MOST_STEP) {
        this.kept.push(this.all[0]!, seconds);
        this.all = undefined;
      }
    }
    if (this.all) {
      if (this.count >= this.all.length) {
        const more = new Float64Array(Math.ceil(this.all.length * 1.5));
        more.set(this.all);
        this.all = more;
      }
      this.all[this.count] = seconds;
    }
    this.last = seconds;
    this.count++;
    return true;
  }

  /**
   * Takes the times that stand in one column of rows, as long as each goes on from the last.
   * @param factor seconds of 1 in the column
   * @returns the first row that was not taken, or `end`
   */
  pushColumn(rows: Float64Array, width: number, column: number, factor: number, from: number, end: number): number {
    for (let r = from, k = from * width + column; r < end; r++, k += width) if (!this.push(rows[k]! * factor)) return r;
    return end;
  }

  /** Where every sample was taken: evenly, or each by its own time. */
  times(): Pick<Channel, "start" | "step" | "times"> {
    const { count, all } = this;
    if (count === 0) return { start: 0, step: 1, times: undefined };
    const start = all ? all[0]! : this.kept[0]!;
    if (count === 1) return { start, step: 1, times: undefined };
    const step = (this.last - start) / (count - 1);
    const even = all ? this.isEven(count) : this.kept.every((t, k) => Math.abs(t - start - k * KEPT * step) < step);
    if (even) return { start, step, times: undefined };
    if (!all) this.unfold();
    return { start, step: undefined, times: this.all!.slice(0, count) };
  }

  private isEven(count: number): boolean {
    const all = this.all!;
    const step = (all[count - 1]! - all[0]!) / (count - 1);
    for (let i = 0; i < count; i++) if (Math.abs(all[i]! - all[0]! - i * step) > EVEN * step) return false;
    return true;
  }

  /** Every time from those kept, by straight lines: each step between them was near the usual one. */
  private unfold(): void {
    const { count, kept, last } = this;
    const all = new Float64Array(Math.max(KEPT, Math.ceil(count * 1.5)));
    for (let i = 0; i < count; i++) {
      const k = Math.floor(i / KEPT);
      const end = Math.min(count - 1, (k + 1) * KEPT);
      const to = kept[k + 1] ?? last;
      all[i] = end === k * KEPT ? kept[k]! : kept[k]! + ((to - kept[k]!) * (i - k * KEPT)) / (end - k * KEPT);
    }
    this.all = all;
  }
}

/** Samples kept in one piece while they come. */
const PIECE = 65_536;

/** Numbers as they come, in pieces: room that grows by being copied would take twice as much for a moment. */
export class Growing {
  private readonly full: Float32Array[] = [];
  private piece: Float32Array;
  private held = 0;
  private before = 0;
  /** @param expected about how many will come, where that is known: they are then kept in one piece */
  constructor(expected = 0) {
    this.piece = new Float32Array(Math.max(PIECE, expected));
  }
  get length(): number {
    return this.before + this.held;
  }
  push(value: number): void {
    if (this.held === this.piece.length) this.goOn();
    this.piece[this.held++] = value;
  }
  /** Takes the numbers that stand in one column of rows. @param factor what 1 in the column is */
  pushColumn(rows: Float64Array, width: number, column: number, factor: number, from: number, end: number): void {
    for (let r = from, k = from * width + column; r < end;) {
      if (this.held === this.piece.length) this.goOn();
      const until = Math.min(end, r + this.piece.length - this.held);
      const { piece } = this;
      let at = this.held;
      for (; r < until; r++, k += width) piece[at++] = rows[k]! * factor;
      this.held = at;
    }
  }
  /** All of them; the pieces are given away, nothing may be pushed afterwards. */
  done(): Float32Array {
    if (this.full.length === 0) return this.piece.subarray(0, this.held);
    const all = new Float32Array(this.length);
    let at = this.before;
    all.set(this.piece.subarray(0, this.held), at);
    for (let piece = this.full.pop(); piece; piece = this.full.pop()) all.set(piece, (at -= piece.length));
    return all;
  }
  private goOn(): void {
    this.full.push(this.piece);
    this.before += this.held;
    this.piece = new Float32Array(PIECE);
    this.held = 0;
  }
}
