import { Entry, type Entry as EntryT } from "@radicula/core";
import { z } from "zod";
import { DATABASE_HEADER } from "@/ui/databaseHeader";
import {
  drop,
  keep,
  refusedOf,
  setAside,
  takeOver,
  waitingOf,
  type Batch,
  type Destination,
  type Refused,
} from "./deviceStore";
import { placeAfterOthers, send, withoutRefused, type SendResult } from "./outbox";

type Unreachable = Extract<SendResult, { status: "unreachable" }>["why"];
export type SaveState =
  | { readonly status: "saved" }
  | { readonly status: "saving" }
  /** sent again until it arrives; `isKept` on this device, or only in this window */
  | { readonly status: "waiting"; readonly count: number; readonly why: Unreachable; readonly isKept: boolean }
  /** somebody else wrote meanwhile: ours stand after theirs */
  | {
      readonly status: "joined";
      readonly others: number;
      readonly ours: readonly EntryT[];
      /** ours have arrived */ readonly done?: boolean;
    };
/** The logbook as this window knows it: what the database has, what waits in line, and what was refused. */
export interface Book {
  readonly saved: readonly EntryT[];
  readonly queue: readonly Batch[];
  readonly refused: readonly Refused[];
  readonly state: SaveState;
}

const RETRY_MS = 2000;
const POLL_MS = 3000;
const BOUNCE_MS = 600;
const DEVICE_MS = 2000;
/** As `EventSource` has them. */
const OPEN = 1;
const CLOSED = 2;
const News = z.object({ entries: z.array(Entry) });
const count = (queue: readonly Batch[]) => queue.reduce((n, b) => n + b.entries.length, 0);

const isReadAtSamePlace = (a: EntryT, b: EntryT) =>
  a.type === "reading" && b.type === "reading" && a.points.join() === b.points.join() && a.black === b.black;

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
  private isTakenUp = false;
  private gone = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private events: EventSource | undefined;
  private poll: ReturnType<typeof setInterval> | undefined;
  /** batches that this device had no room for, or has not written yet */
  private readonly unkept = new Set<string>();
  /** what the device is writing now */
  private readonly keeping = new Set<Promise<void>>();
  /** the refused batch that is in the box again: a reading typed at the same place settles it */
  private givenBack: Refused | undefined;
  private onGivenBack: (entries: readonly EntryT[]) => void = () => undefined;

  constructor(
    private readonly place: Destination,
    initial: readonly EntryT[],
  ) {
    this.book = { saved: initial, queue: [], refused: [], state: { status: "saved" } };
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
    void this.takeUp();
    // while the server tells of news, it need not be asked
    this.poll = setInterval(() => {
      if (this.isTold()) return;
      this.lookForNews();
      // a line that something else answered on is given up by the browser
      if (this.events?.readyState === CLOSED) this.listen();
    }, POLL_MS);
    const online = () => void this.flush();
    const shown = () => this.listen();
    window.addEventListener("online", online);
    document.addEventListener("visibilitychange", shown);
    this.listen();
    return () => {
      this.gone = true;
      this.events?.close();
      document.removeEventListener("visibilitychange", shown);
      clearTimeout(this.timer);
      clearInterval(this.poll);
      window.removeEventListener("online", online);
    };
  }
  private isTold(): boolean {
    return this.events?.readyState === OPEN;
  }
  private readonly lookForNews = () => {
    if (!document.hidden && this.book.queue.length === 0) void this.catchUp();
  };
  /** Is told by the server when others write; a page nobody sees keeps no line open, as a browser has few of them. */
  private listen(): void {
    this.events?.close();
    this.events = undefined;
    if (document.hidden || typeof EventSource === "undefined") return;
    const events = (this.events = new EventSource(`/api/jobs/${this.place.job}/events`));
    events.onmessage = (e: MessageEvent<string>) => {
      if (Number(e.data) > this.book.saved.length) this.lookForNews();
    };
    events.onopen = this.lookForNews; // what was written while nobody listened
  }
  private async takeUp(): Promise<void> {
    const goOn = () => {
      this.isTakenUp = true;
      void this.flush();
    };
    // a device that does not answer must not hold up what is logged now
    const late = setTimeout(goOn, DEVICE_MS);
    await takeOver(this.place, localStorage);
    const [kept, refused] = await Promise.all([waitingOf(this.place), refusedOf(this.place)]);
    clearTimeout(late);
    if (this.gone) return;
    if (refused.length) this.change({ refused });
    const known = new Set(this.book.queue.map((b) => b.batch));
    const found = kept.filter((b) => !known.has(b.batch));
    if (found.length > 0) {
      // what was logged while the device was asked stands behind it
      this.change({ queue: [...found, ...placeAfterOthers(this.book.queue, found[0]!.after, count(found))] });
      this.waiting("no-answer");
    }
    goOn();
  }
  private waiting(why: Unreachable): void {
    const { queue } = this.book;
    this.change({ state: { status: "waiting", count: count(queue), why, isKept: this.unkept.size === 0 } });
  }
  /** Nothing is called kept before the device has written it; a device that does not answer has not. */
  private async waitingOnceKept(why: Unreachable): Promise<void> {
    await Promise.race([Promise.all(this.keeping), new Promise((done) => setTimeout(done, DEVICE_MS))]);
    if (!this.gone && this.book.queue.length > 0) this.waiting(why);
  }

  /** Appends entries. They are kept on this device until the database has them, however long that takes. */
  append(list: readonly EntryT[]): void {
    const said = { text: JSON.stringify(list.map((e) => ({ ...e, at: "" }))), at: performance.now() };
    if (this.last?.text === said.text && said.at - this.last.at < BOUNCE_MS) return;
    this.last = said;
    const { givenBack } = this;
    if (givenBack && givenBack.entries.some((old) => list.some((e) => isReadAtSamePlace(old, e)))) {
      this.settleRefused(givenBack.batch);
      this.givenBack = undefined;
    }
    const { saved, queue, state } = this.book;
    const last = queue.at(-1);
    const next: Batch = {
      batch: crypto.randomUUID(),
      after: last ? last.after + last.entries.length : saved.length,
      entries: [...list],
    };
    this.change({ queue: [...queue, next], state: state.status === "waiting" ? state : { status: "saving" } });
    void this.keepBatch(next);
    if (state.status === "waiting") void this.waitingOnceKept(state.why);
    void this.flush();
  }
  private keepBatch(batch: Batch): Promise<void> {
    const writing = this.write(batch).finally(() => this.keeping.delete(writing));
    this.keeping.add(writing);
    return writing;
  }
  private async write(batch: Batch): Promise<void> {
    this.unkept.add(batch.batch);
    const isKept = await keep(this.place, batch);
    if (isKept) this.unkept.delete(batch.batch);
    const isWanted = this.book.queue.some((b) => b.batch === batch.batch);
    // it arrived meanwhile: then the device need not keep it
    if (!isWanted) {
      this.unkept.delete(batch.batch);
      return drop("waiting", batch.batch);
    }
    // no room is said at once, and not only when the database cannot be reached
    const { state } = this.book;
    if (!isKept) this.waiting(state.status === "waiting" ? state.why : "no-answer");
    else if (state.status === "waiting" && this.unkept.size === 0) this.waiting(state.why);
  }
  dismiss(): void {
    this.change({ state: { status: this.book.queue.length ? "saving" : "saved" } });
  }
  /** Takes a refused batch off the list of those to be looked at: it was thrown away, or typed anew. */
  settleRefused(batch: string): void {
    this.change({ refused: this.book.refused.filter((r) => r.batch !== batch) });
    void drop("refused", batch);
  }

  /** Sends what is queued, first things first, until nothing is left or nobody answers. */
  private async flush(): Promise<void> {
    // what an earlier visit logged goes first
    if (this.sending || !this.isTakenUp) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      for (let first = this.book.queue[0]; first; first = this.book.queue[0]) {
        const sent = await send(this.place, first);
        if (this.gone) return; // another window, or the next visit, has it from here
        if (sent.status === "unreachable") {
          await this.waitingOnceKept(sent.why);
          if (this.gone) return;
          this.timer = setTimeout(() => void this.flush(), RETRY_MS);
          return;
        }
        await this.settle(first, sent);
      }
    } finally {
      this.sending = false;
    }
  }
  private async settle(first: Batch, sent: Exclude<SendResult, { status: "unreachable" }>): Promise<void> {
    if (sent.status === "stale") return this.placeBehind(first, sent.missed, sent.last);
    if (sent.status === "refused") return this.refuse(sent.issues);
    const { saved, queue } = this.book;
    // how far behind the place it was meant for it stands: others wrote before it, now or when its answer got lost
    const shift = sent.last - (first.after + first.entries.length);
    const [arrived, ...rest] = placeAfterOthers(queue, first.after, shift);
    const isKnown = sent.missed.length === shift && saved.length >= first.after;
    const { state } = this.book;
    const others = sent.missed.length;
    const ours = [arrived!, ...rest].flatMap((b) => b.entries);
    this.forget(first);
    this.change({
      queue: rest,
      ...(isKnown ? { saved: [...saved.slice(0, first.after), ...sent.missed, ...arrived!.entries] } : {}),
      ...(others ? { state: { status: "joined", others, ours, done: rest.length === 0 } } : {}),
    });
    if (shift) await Promise.all(rest.map((b) => this.keepBatch(b)));
    if (!isKnown) await this.catchUp();
    if (!others && this.book.queue.length === 0)
      this.change({ state: state.status === "joined" ? { ...state, done: true } : { status: "saved" } });
  }
  /** Others wrote meanwhile, or a database brought back from a backup has less: ours stand behind what is there. */
  private async placeBehind(first: Batch, missed: readonly EntryT[], last: number): Promise<void> {
    const { saved, queue } = this.book;
    const placed = placeAfterOthers(queue, first.after, last - first.after);
    this.change({
      saved: [...saved.slice(0, Math.min(first.after, last)), ...missed],
      queue: placed,
      ...(missed.length
        ? { state: { status: "joined", others: missed.length, ours: placed.flatMap((b) => b.entries) } }
        : {}),
    });
    await Promise.all(placed.map((b) => this.keepBatch(b)));
  }
  /** What the database refuses is set aside for somebody to look at, and the rest goes on. */
  private async refuse(issues: readonly Refused["issues"][number][]): Promise<void> {
    const { rest, aside } = withoutRefused(this.book.queue);
    const refused = aside.map(({ batch, entries }): Refused => ({ batch, entries, issues: [...issues] }));
    this.change({
      queue: rest,
      refused: [...this.book.refused, ...refused],
      state: { status: rest.length ? "saving" : "saved" },
    });
    await Promise.all(refused.map((r) => setAside(this.place, r)));
    await Promise.all(rest.map((b) => this.keepBatch(b)));
    this.givenBack = refused[0];
    this.onGivenBack(refused[0]?.entries ?? []);
  }
  private forget({ batch }: Batch): void {
    this.unkept.delete(batch);
    void drop("waiting", batch);
  }

  /** what other windows wrote */
  private async catchUp(): Promise<void> {
    const from = this.book.saved.length;
    try {
      const response = await fetch(`/api/jobs/${this.place.job}/entries?after=${from}`);
      if (!response.ok || response.headers.get(DATABASE_HEADER) !== this.place.database) return;
      const news = News.parse(await response.json()).entries;
      if (news.length && this.book.saved.length === from && !this.gone)
        this.change({ saved: [...this.book.saved, ...news] });
    } catch {
      /* the next poll or the next save will tell */
    }
  }
}
