import "fake-indexeddb/auto";
import { drop, keep, refusedOf, setAside, takeOver, waitingOf, type Batch } from "@/features/case/session/deviceStore";
import { useLogbook } from "@/features/case/session/useLogbook";
import { placeAfterOthers, send, withoutRefused } from "@/features/case/session/outbox";
import { placedAfter, uniform, type Entry } from "@radicula/core";
import { MessageChannel } from "node:worker_threads";
import { openDB } from "idb";
import { act, renderHook, waitFor } from "@testing-library/react";

const look = (n: number): Entry => ({ type: "look", at: AT, thing: `X${n}`, found: ["nothing"] });
const AT = "2026-11-24T10:00:00Z";
const DATABASE = "0b6a1c02-6a1b-4a93-9d55-0d8f6a3f2a99";
const PLACE = { database: DATABASE, job: "job" };
const batch: Batch = {
  batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a11",
  after: 4,
  entries: [{ type: "undo", at: AT, target: 1 }],
};
const ISSUES = [{ code: "entry.absurd", path: [0], params: {} }];
/** An answer as the server gives it, or as something else at its address does. */
const reply = (status: number, body: unknown, from: string | null = DATABASE) => ({
  ok: status < 400,
  status,
  headers: { get: () => from },
  json: async () => body,
});
const answering = (...a: Parameters<typeof reply>) => (async () => reply(...a)) as unknown as typeof fetch;

test("what the server says is told apart: saved, stale, refused, unreachable", async () => {
  expect(await send(PLACE, batch, answering(201, { last: 5, missed: [] }))).toEqual({
    status: "saved",
    last: 5,
    missed: [],
  });
  expect(await send(PLACE, batch, answering(409, { missed: batch.entries, last: 5 }))).toMatchObject({
    status: "stale",
    missed: batch.entries,
  });
  expect(await send(PLACE, batch, answering(422, { issues: ISSUES }))).toMatchObject({ status: "refused" });
  const none = { status: "unreachable", why: "no-answer" };
  expect(await send(PLACE, batch, answering(503, { issues: [] }))).toEqual(none);
  expect(
    await send(PLACE, batch, (async () => {
      throw new TypeError("network");
    }) as unknown as typeof fetch),
  ).toEqual(none);
  // cut off: ask again, the batch is kept once
  expect(await send(PLACE, batch, answering(201, "half an ans"))).toEqual(none);
});

test.each([
  [201, { last: 5, missed: [] }, "another database", "another-database"],
  [422, { issues: ISSUES }, "another database", "another-database"],
  [404, { issues: ISSUES }, null, "no-answer"],
  [422, { error: "of a proxy" }, null, "no-answer"],
  [400, { issues: ISSUES }, DATABASE, "no-answer"],
  [404, { issues: ISSUES }, DATABASE, "no-such-job"],
  [413, { issues: ISSUES }, DATABASE, "no-answer"],
] as const)("an answer %i that settles nothing, or of somebody else, leaves the entry waiting", async (...answer) => {
  const [status, body, from, why] = answer;
  expect(await send(PLACE, batch, answering(status, body, from))).toEqual({ status: "unreachable", why });
});

describe("on the device", () => {
  beforeEach(async () => {
    for (const b of await waitingOf(PLACE)) await drop("waiting", b.batch);
    for (const b of await refusedOf(PLACE)) await drop("refused", b.batch);
  });
  const later = { ...batch, batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a12", after: 12 };

  test("batches are kept in the order they were made, each for its job and database, on the disk", async () => {
    const transaction = jest.spyOn(IDBDatabase.prototype, "transaction");
    expect(await keep(PLACE, later)).toBe(true);
    expect(transaction).toHaveBeenCalledWith("waiting", "readwrite", { durability: "strict" });
    transaction.mockRestore();
    await keep(PLACE, batch);
    await keep({ ...PLACE, job: "another" }, { ...batch, batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a13" });
    await keep({ ...PLACE, database: "x" }, { ...batch, batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a14" });
    expect(await waitingOf(PLACE)).toEqual([later, batch]);
    await keep(PLACE, { ...later, after: 15 }); // moved on, neither doubled nor behind
    expect(await waitingOf(PLACE)).toEqual([{ ...later, after: 15 }, batch]);
    await drop("waiting", later.batch);
    expect(await waitingOf(PLACE)).toEqual([batch]);
  });

  test("what is refused moves to what somebody has to look at, in one step", async () => {
    await keep(PLACE, batch);
    await setAside(PLACE, { batch: batch.batch, entries: batch.entries, issues: ISSUES });
    expect(await waitingOf(PLACE)).toEqual([]);
    expect(await refusedOf(PLACE)).toEqual([{ batch: batch.batch, entries: batch.entries, issues: ISSUES }]);
  });

  test("what an earlier version kept is taken over once; rubbish is left where it is", async () => {
    localStorage.setItem(`radicula.outbox.job.0000012.${later.batch}`, JSON.stringify(later));
    localStorage.setItem(`radicula.outbox.job.0000004.${batch.batch}`, JSON.stringify(batch));
    localStorage.setItem("radicula.outbox.job.0000001.x", '{"batch":1');
    await takeOver(PLACE, localStorage);
    expect(await waitingOf(PLACE)).toEqual([batch, later]);
    expect(localStorage).toHaveLength(1);
    localStorage.clear();
  });

  test("a device without room does not stop the work, and says so", async () => {
    const put = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(await keep(PLACE, batch)).toBe(false);
    global.fetch = (async () => {
      throw new TypeError("network");
    }) as unknown as typeof fetch;
    const hook = renderHook(() => useLogbook(PLACE, [], () => undefined));
    act(() => hook.result.current.append([look(1)]));
    await waitFor(() => expect(hook.result.current.state).toMatchObject({ status: "waiting", isKept: false }));
    expect(hook.result.current.entries).toEqual([look(1)]);
    hook.unmount();
    put.mockRestore();
  });
});

test("nothing is called kept on the device before the device has written it", async () => {
  const busy = await openDB("radicula.outbox");
  const tx = busy.transaction("waiting", "readwrite");
  let isBusy = true;
  const held = (async () => {
    while (isBusy) await tx.store.get("none");
  })();
  global.fetch = (async () => {
    throw new TypeError("network");
  }) as unknown as typeof fetch;
  const hook = renderHook(() => useLogbook({ ...PLACE, job: "slow" }, [], () => undefined));
  act(() => hook.result.current.append([look(1)]));
  // longer than a device is waited for
  await waitFor(() => expect(hook.result.current.state.status).toBe("waiting"), { timeout: 10_000 });
  expect(hook.result.current.state).toMatchObject({ isKept: false });
  isBusy = false;
  await held;
  await waitFor(() => expect(hook.result.current.state).toMatchObject({ status: "waiting", count: 1, isKept: true }));
  expect(await waitingOf({ ...PLACE, job: "slow" })).toHaveLength(1);
  hook.unmount();
  busy.close();
});

test("an undo goes with the entry it takes back, wherever that goes", () => {
  const b = (n: number, after: number, entries: Entry[]): Batch => ({
    batch: `3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a${20 + n}`,
    after,
    entries,
  });
  const undo = (target: number): Entry => ({ type: "undo", at: AT, target });
  const queue = [
    b(0, 3, [look(1)]), // 4: refused
    b(1, 4, [look(2), look(3)]), // 5 and 6
    b(2, 6, [undo(4)]), // 7: of the refused one
    b(3, 7, [undo(6)]), // 8
    b(4, 8, [undo(7)]), // 9: of the undo that goes too
    b(5, 9, [undo(2), undo(8)]), // 10 and 11
  ];
  const { rest, aside } = withoutRefused(queue);
  expect(aside.map((x) => x.entries)).toEqual([[look(1)], [undo(4)], [undo(7)]]);
  expect(rest).toEqual([
    { ...queue[1], after: 3 }, // 4 and 5
    { ...queue[3], after: 5, entries: [undo(5)] }, // 6
    { ...queue[5], after: 6, entries: [undo(2), undo(6)] }, // 7 and 8
  ]);
});

test("ours stand after theirs, and go on meaning the same entries", () => {
  const ours: Batch = {
    batch: batch.batch,
    after: 3,
    entries: [
      { type: "cleared", at: AT },
      { type: "undo", at: AT, target: 4 },
      { type: "undo", at: AT, target: 2 },
      { type: "moved", at: AT, from: "B1", to: "B2", readings: [1, 5] },
    ],
  };
  const [placed] = placeAfterOthers([ours], 3, 2);
  expect(placed!.after).toBe(5);
  expect(placed!.entries).toEqual([
    { type: "cleared", at: AT },
    { type: "undo", at: AT, target: 6 },
    { type: "undo", at: AT, target: 2 },
    { type: "moved", at: AT, from: "B1", to: "B2", readings: [1, 7] },
  ]);
});

/**
 * The server's side of saving, in memory, which dies at a random moment: before it saved, or after, with the answer
 * lost.
 */
class FlakyServer {
  entries: Entry[] = [];
  private readonly batches = new Map<string, number>();
  kills = 0;
  constructor(
    private readonly random: () => number,
    private readonly deadly: number,
  ) {}
  readonly fetch = (async (url: string, init?: { method?: string; body?: string }) => {
    const answer = (status: number, body: unknown) => reply(status, body);
    if (init?.method !== "POST")
      return answer(200, { entries: this.entries.slice(Number(/after=(\d+)/.exec(url)![1])) });
    const u = this.random();
    if (u < this.deadly / 2) {
      this.kills++;
      throw new TypeError("killed before it saved");
    }
    const b = JSON.parse(init.body!) as Batch;
    const known = this.batches.get(b.batch);
    let said;
    if (known !== undefined) said = answer(201, { last: known, missed: [] });
    else if (b.after > this.entries.length)
      said = answer(409, { last: this.entries.length, missed: this.entries.slice(b.after) });
    else {
      const missed = this.entries.slice(b.after);
      this.entries.push(...placedAfter(b.entries, b.after, missed.length));
      this.batches.set(b.batch, this.entries.length);
      said = answer(201, { last: this.entries.length, missed });
    }
    if (u < this.deadly) {
      this.kills++;
      throw new TypeError("killed after it saved, before it said so");
    }
    return said;
  }) as unknown as typeof fetch;
}
/** The device's store goes on in turns of its own, which no clock of a test moves on. */
async function onDisk(): Promise<void> {
  for (let turn = 0; turn < 30; turn++) {
    const { port1, port2 } = new MessageChannel();
    const came = new Promise((resolve) => port1.once("message", resolve));
    port2.postMessage(turn);
    await came;
    port1.close();
  }
}
const nameOf = (e: Entry) => (e.type === "look" ? e.thing : e.type);

test("a server killed at more than 50 random moments: no entry lost, none doubled, all in order", async () => {
  jest.useFakeTimers();
  let kills = 0;
  for (let seed = 1; seed <= 12; seed++) {
    const random = uniform(seed);
    const server = new FlakyServer(random, 0.6);
    global.fetch = server.fetch;
    const place = { ...PLACE, job: `job ${seed}` };
    let hook = renderHook(() => useLogbook(place, [], () => undefined));
    const logged: string[] = [];
    for (let n = 0; n < 12; n++) {
      act(() => hook.result.current.append([look(100 * seed + n)]));
      logged.push(`X${100 * seed + n}`);
      if (random() < 0.3) server.entries.push(look(9000 + n)); // another window
      await act(onDisk);
      if (random() < 0.2) {
        hook.unmount();
        hook = renderHook(() => useLogbook(place, [...server.entries], () => undefined));
      } // reload
      await act(async () => {
        await onDisk();
        await jest.advanceTimersByTimeAsync(Math.floor(random() * 3000));
        await onDisk();
      });
    }
    for (let i = 0; i < 40 && hook.result.current.saved < hook.result.current.entries.length; i++)
      await act(async () => {
        await jest.advanceTimersByTimeAsync(2500);
        await onDisk();
      });
    await act(async () => {
      await jest.advanceTimersByTimeAsync(4000);
      await onDisk();
    });
    kills += server.kills;
    const mine = server.entries.map(nameOf).filter((x) => !/^X9/.test(x) || logged.includes(x));
    expect(mine).toEqual(logged);
    expect(hook.result.current.entries.map(nameOf)).toEqual(server.entries.map(nameOf));
    expect(await waitingOf(place)).toEqual([]);
    hook.unmount();
  }
  expect(kills).toBeGreaterThan(50);
  jest.useRealTimers();
});

test("what is refused is given back and kept for somebody's eyes, and the rest goes on", async () => {
  const given: Entry[][] = [];
  let n = 0;
  const place = { ...PLACE, job: "refusing" };
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) =>
    init?.method !== "POST"
      ? reply(200, { entries: [] })
      : (JSON.parse(init.body!) as Batch).after !== 0
        ? reply(409, { missed: [], last: 0 })
        : ++n === 1
          ? reply(422, { issues: ISSUES })
          : reply(201, { last: 1, missed: [] })) as unknown as typeof fetch;
  const hook = renderHook(() => useLogbook(place, [], (e) => given.push([...e])));
  act(() => {
    hook.result.current.append([look(1)]);
    hook.result.current.append([look(2)]);
  });
  await waitFor(() => expect(hook.result.current.saved).toBe(1));
  expect(given).toEqual([[look(1)]]);
  expect(hook.result.current.entries).toEqual([look(2)]);
  hook.unmount();
  // after a reload it is there still, until it is settled
  const again = renderHook(() => useLogbook(place, [look(2)], () => undefined));
  await waitFor(() => expect(again.result.current.refused).toMatchObject([{ entries: [look(1)], issues: ISSUES }]));
  act(() => again.result.current.settleRefused(again.result.current.refused[0]!.batch));
  await waitFor(async () => expect(await refusedOf(place)).toEqual([]));
  again.unmount();
});

test("a refused reading is settled by one at the same place, and by no other", async () => {
  const place = { ...PLACE, job: "same place" };
  const read = (point: string, value: number): Entry => ({
    type: "reading",
    at: AT,
    instrument: "voltmeter",
    points: [point],
    values: [value],
    state: { key: "on", unplugged: [] },
  });
  let last = 0;
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) =>
    init?.method !== "POST"
      ? reply(200, { entries: [] })
      : init.body!.includes("12000")
        ? reply(422, { issues: ISSUES })
        : reply(201, { last: ++last, missed: [] })) as unknown as typeof fetch;
  const hook = renderHook(() => useLogbook(place, [], () => undefined));
  act(() => hook.result.current.append([read("B7:1", 12000)]));
  await waitFor(() => expect(hook.result.current.refused).toHaveLength(1));
  act(() => hook.result.current.append([read("B9:1", 5)]));
  await waitFor(() => expect(hook.result.current.saved).toBe(1));
  expect(hook.result.current.refused).toHaveLength(1);
  act(() => hook.result.current.append([read("B7:1", 1.2)]));
  await waitFor(() => expect(hook.result.current.saved).toBe(2));
  expect(hook.result.current.refused).toEqual([]);
  hook.unmount();
});

test("an entry saved behind others, its answer lost, is still the one that the next undo takes back", async () => {
  const saved: Entry[] = [look(1), look(2), look(3)]; // two of others, then ours
  const bodies: Batch[] = [];
  let posts = 0;
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) => {
    if (init?.method !== "POST") return reply(200, { entries: saved });
    posts++;
    if (posts === 1) throw new TypeError("answer lost");
    const sent = JSON.parse(init.body!) as Batch;
    bodies.push(sent);
    return sent.entries[0]!.type === "undo" ? reply(201, { last: 4, missed: [] }) : reply(201, { last: 3, missed: [] });
  }) as unknown as typeof fetch;
  const hook = renderHook(() => useLogbook({ ...PLACE, job: "lost" }, [], () => undefined));
  act(() => hook.result.current.append([look(3)]));
  act(() => hook.result.current.append([{ type: "undo", at: AT, target: 1 }])); // number 1 as far as this page knows
  await waitFor(() => expect(bodies.at(-1)?.entries[0]).toMatchObject({ type: "undo", target: 3 }), { timeout: 6000 });
  expect(bodies.at(-1)!.after).toBe(3);
  hook.unmount();
});

test("a finger that bounces logs once; the same thing said again a second later is said again", async () => {
  let last = 0;
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) =>
    init?.method !== "POST"
      ? reply(200, { entries: [] })
      : reply(201, {
          last: (last += (JSON.parse(init.body!) as Batch).entries.length),
          missed: [],
        })) as unknown as typeof fetch;
  const clock = jest.spyOn(performance, "now");
  const hook = renderHook(() => useLogbook({ ...PLACE, job: "bounce" }, [], () => undefined));
  for (const at of [1000, 1150, 2500]) {
    clock.mockReturnValue(at);
    act(() => hook.result.current.append([look(7)]));
  }
  clock.mockRestore();
  await waitFor(() => expect(hook.result.current.saved).toBe(2));
});
