import { Entry, type Entry as EntryT } from "@radicula/core";
import { z } from "zod";
import { dropBatch, keepBatch, keptBatches, placeAfterOthers, send, type Batch } from "./outbox";

export type SaveState =
  | { readonly status: "saved" }
  | { readonly status: "saving" }
  /** kept on this device, sent again until it arrives */
  | { readonly status: "waiting"; readonly count: number }
  /** somebody else wrote meanwhile: ours stand after theirs */
  | {
      readonly status: "joined";
      readonly others: number;
      readonly ours: readonly EntryT[];
      /** ours have arrived */ readonly done?: boolean;
    }
  | {
      readonly status: "refused";
      readonly codes: readonly {
        code: string;
        path: (string | number)[];
        params: Record<string, string | number | string[]>;
      }[];
      readonly givenBack: readonly EntryT[];
    };
/** The logbook as this window knows it: what the database has, and what waits in line. */
export interface Book {
  readonly saved: readonly EntryT[];
  readonly queue: readonly Batch[];
  readonly state: SaveState;
}

const RETRY_MS = 2000;
const POLL_MS = 3000;
const BOUNCE_MS = 600;
const News = z.object({ entries: z.array(Entry) });
const count = (queue: readonly Batch[]) => queue.reduce((n, b) => n + b.entries.length, 0);

/**
 * Keeps one job's logbook in step: append-only, kept on the device before it is sent, sent in order, others' entries
 * taken in.
 */
export class LogbookSync {
  private book: Book;
  private readonly listeners = new Set<() => void>();
  /** what was said last, and when: a finger that bounces says the same thing twice */
  private last: { readonly text: string; readonly at: number } | undefined;
  private sending = false;
  private gone = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private poll: ReturnType<typeof setInterval> | undefined;

  private onGivenBack: (entries: readonly EntryT[]) => void = () => undefined;

  constructor(
    private readonly jobId: string,
    initial: readonly EntryT[],
  ) {
    this.book = { saved: initial, queue: [], state: { status: "saved" } };
  }
  readonly snapshot = (): Book => this.book;
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  /** @param giveBack gets the entries that the database refused */
  onRefused(giveBack: (entries: readonly EntryT[]) => void): void {
    this.onGivenBack = giveBack;
  }
  private change(part: Partial<Book>): void {
    this.book = { ...this.book, ...part };
    this.listeners.forEach((l) => l());
  }

  /** Begins to send what an earlier visit could not, and to listen. @returns what ends it */
  start(): () => void {
    this.gone = false;
    const known = new Set(this.book.queue.map((b) => b.batch));
    const found = keptBatches(this.jobId, localStorage).filter((b) => !known.has(b.batch));
    if (found.length) {
      this.change({ queue: [...found, ...this.book.queue], state: { status: "waiting", count: count(found) } });
      void this.flush();
    }
    this.poll = setInterval(() => {
      if (!document.hidden && this.book.queue.length === 0) void this.catchUp();
    }, POLL_MS);
    const online = () => void this.flush();
    window.addEventListener("online", online);
    return () => {
      this.gone = true;
      clearTimeout(this.timer);
      clearInterval(this.poll);
      window.removeEventListener("online", online);
    };
  }

  /** Appends entries. They are kept on this device until the database has them, however long that takes. */
  append(list: readonly EntryT[]): void {
    const said = { text: JSON.stringify(list.map((e) => ({ ...e, at: "" }))), at: performance.now() };
    if (this.last?.text === said.text && said.at - this.last.at < BOUNCE_MS) return;
    this.last = said;
    const { saved, queue, state } = this.book;
    const last = queue.at(-1);
    const next: Batch = {
      batch: crypto.randomUUID(),
      after: last ? last.after + last.entries.length : saved.length,
      entries: [...list],
    };
    keepBatch(this.jobId, next, localStorage);
    this.change({
      queue: [...queue, next],
      state:
        state.status === "waiting" ? { status: "waiting", count: state.count + list.length } : { status: "saving" },
    });
    void this.flush();
  }
  dismiss(): void {
    this.change({ state: { status: this.book.queue.length ? "saving" : "saved" } });
  }

  /** Sends what is queued, first things first, until nothing is left or nobody answers. */
  private async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      for (let first = this.book.queue[0]; first; first = this.book.queue[0]) {
        const sent = await send(this.jobId, first);
        if (this.gone) return; // another window, or the next visit, has it from here
        if (sent.status === "unreachable") {
          this.change({ state: { status: "waiting", count: count(this.book.queue) } });
          this.timer = setTimeout(() => void this.flush(), RETRY_MS);
          return;
        }
        await this.settle(first, sent);
      }
    } finally {
      this.sending = false;
    }
  }
  private async settle(
    first: Batch,
    sent: Exclude<Awaited<ReturnType<typeof send>>, { status: "unreachable" }>,
  ): Promise<void> {
    const { saved, queue, state } = this.book;
    const rest = queue.slice(1);
    if (sent.status === "stale") {
      const placed = placeAfterOthers(queue, first.after, sent.last - first.after);
      for (const b of placed) keepBatch(this.jobId, b, localStorage);
      this.change({
        saved: [...saved.slice(0, Math.min(first.after, sent.last)), ...sent.missed],
        queue: placed,
        ...(sent.missed.length
          ? { state: { status: "joined", others: sent.missed.length, ours: placed.flatMap((b) => b.entries) } }
          : {}),
      });
      return;
    }
    dropBatch(this.jobId, first, localStorage);
    if (sent.status === "refused") {
      this.change({
        queue: placeAfterOthers(rest, first.after, -first.entries.length),
        state: { status: "refused", codes: sent.issues, givenBack: first.entries },
      });
      this.onGivenBack(first.entries);
      return;
    }
    // saved now, or it had been before and the answer was lost: then what stands where is for the database to say
    const now = saved.length === first.after && sent.last === first.after + first.entries.length;
    this.change({ queue: rest, ...(now ? { saved: [...saved, ...first.entries] } : {}) });
    if (!now) await this.catchUp();
    if (rest.length === 0 && state.status !== "refused")
      this.change({ state: state.status === "joined" ? { ...state, done: true } : { status: "saved" } });
  }

  /** what other windows wrote */
  private async catchUp(): Promise<void> {
    const from = this.book.saved.length;
    try {
      const response = await fetch(`/api/jobs/${this.jobId}/entries?after=${from}`);
      if (!response.ok) return;
      const news = News.parse(await response.json()).entries;
      if (news.length && this.book.saved.length === from && !this.gone)
        this.change({ saved: [...this.book.saved, ...news] });
    } catch {
      /* the next poll or the next save will tell */
    }
  }
}
