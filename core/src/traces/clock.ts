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

/** Numbers as they come, in room that grows. */
export class Growing {
  private room = new Float32Array(4_096);
  length = 0;
  push(value: number): void {
    if (this.length === this.room.length) {
      const more = new Float32Array(Math.ceil(this.length * 1.5));
      more.set(this.room);
      this.room = more;
    }
    this.room[this.length++] = value;
  }
  /** All of them; the room is given away, nothing may be pushed afterwards. */
  done(): Float32Array {
    return this.room.subarray(0, this.length);
  }
}
