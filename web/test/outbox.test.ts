import { useLogbook } from "@/features/case/session/useLogbook";
import type { Batch } from "@/features/case/session/outbox";
import { dropBatch, keepBatch, keptBatches, placeAfterOthers, send } from "@/features/case/session/outbox";
import { uniform, type Entry } from "@radicula/core";
import { act, renderHook, waitFor } from "@testing-library/react";

const AT = "2026-11-24T10:00:00Z";
const batch: Batch = {
  batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a11",
  after: 4,
  entries: [{ type: "undo", at: AT, target: 1 }],
};
const answering = (status: number, body: unknown) =>
  (async () => ({ status, json: async () => body })) as unknown as typeof fetch;
beforeEach(() => localStorage.clear());

test("what the server says is told apart: saved, stale, refused, unreachable", async () => {
  expect(await send("j", batch, answering(201, { last: 5 }))).toEqual({ status: "saved", last: 5 });
  expect(await send("j", batch, answering(409, { missed: batch.entries, last: 5 }))).toMatchObject({
    status: "stale",
    missed: batch.entries,
  });
  expect(
    await send("j", batch, answering(422, { issues: [{ code: "entry.absurd", path: [0], params: {} }] })),
  ).toMatchObject({ status: "refused" });
  expect(await send("j", batch, answering(503, { issues: [] }))).toEqual({ status: "unreachable" });
  expect(
    await send("j", batch, (async () => {
      throw new TypeError("network");
    }) as unknown as typeof fetch),
  ).toEqual({ status: "unreachable" });
  // cut off: ask again, the batch is kept once
  expect(await send("j", batch, answering(201, "half an ans"))).toEqual({ status: "unreachable" });
});

test("batches survive on the device, in order, each in its own place; rubbish there does no harm", () => {
  const later = { ...batch, batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a12", after: 12 };
  keepBatch("job", later, localStorage);
  keepBatch("job", batch, localStorage);
  keepBatch("job 2", { ...batch, after: 0 }, localStorage);
  localStorage.setItem("radicula.outbox.job.0000001.x", '{"batch":1');
  expect(keptBatches("job", localStorage)).toEqual([batch, later]);
  dropBatch("job", batch, localStorage);
  expect(keptBatches("job", localStorage)).toEqual([later]);
  keepBatch("job", { ...later, after: 15 }, localStorage); // moved on, not doubled
  expect(keptBatches("job", localStorage)).toEqual([{ ...later, after: 15 }]);
});

test("a device without room does not stop the work", () => {
  const full = {
    ...localStorage,
    length: 0,
    key: () => null,
    removeItem: () => undefined,
    setItem: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
  } as unknown as Storage;
  expect(keepBatch("job", batch, full)).toBe(false);
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
    const answer = (status: number, body: unknown) => ({ ok: status < 400, status, json: async () => body });
    if (init?.method !== "POST")
      return answer(200, { entries: this.entries.slice(Number(/after=(\d+)/.exec(url)![1])) });
    const u = this.random();
    if (u < this.deadly / 2) {
      this.kills++;
      throw new TypeError("killed before it saved");
    }
    const b = JSON.parse(init.body!) as Batch;
    const known = this.batches.get(b.batch);
    let reply;
    if (known !== undefined) reply = answer(201, { last: known });
    else if (b.after !== this.entries.length)
      reply = answer(409, { last: this.entries.length, missed: this.entries.slice(b.after) });
    else {
      this.entries.push(...b.entries);
      this.batches.set(b.batch, this.entries.length);
      reply = answer(201, { last: this.entries.length });
    }
    if (u < this.deadly) {
      this.kills++;
      throw new TypeError("killed after it saved, before it said so");
    }
    return reply;
  }) as unknown as typeof fetch;
}
const look = (n: number): Entry => ({ type: "look", at: AT, thing: `X${n}`, found: ["nothing"] });
const nameOf = (e: Entry) => (e.type === "look" ? e.thing : e.type);

test("a server killed at more than 50 random moments: no entry lost, none doubled, all in order", async () => {
  jest.useFakeTimers();
  let kills = 0;
  for (let seed = 1; seed <= 12; seed++) {
    const random = uniform(seed);
    const server = new FlakyServer(random, 0.6);
    global.fetch = server.fetch;
    localStorage.clear();
    let hook = renderHook(() => useLogbook("job", [], () => undefined));
    const logged: string[] = [];
    for (let n = 0; n < 12; n++) {
      act(() => hook.result.current.append([look(100 * seed + n)]));
      logged.push(`X${100 * seed + n}`);
      if (random() < 0.3) server.entries.push(look(9000 + n)); // another window
      if (random() < 0.2) {
        hook.unmount();
        hook = renderHook(() => useLogbook("job", [...server.entries], () => undefined));
      } // reload
      await act(async () => {
        await jest.advanceTimersByTimeAsync(Math.floor(random() * 3000));
      });
    }
    for (let i = 0; i < 40 && hook.result.current.saved < hook.result.current.entries.length; i++)
      await act(async () => {
        await jest.advanceTimersByTimeAsync(2500);
      });
    await act(async () => {
      await jest.advanceTimersByTimeAsync(4000);
    });
    kills += server.kills;
    const mine = server.entries.map(nameOf).filter((x) => !/^X9/.test(x) || logged.includes(x));
    expect(mine).toEqual(logged);
    expect(hook.result.current.entries.map(nameOf)).toEqual(server.entries.map(nameOf));
    expect(keptBatches("job", localStorage)).toEqual([]);
    hook.unmount();
  }
  expect(kills).toBeGreaterThan(50);
  jest.useRealTimers();
});

test("what is refused is given back, and the rest goes on", async () => {
  const given: Entry[][] = [];
  let n = 0;
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) =>
    init?.method !== "POST"
      ? { ok: true, status: 200, json: async () => ({ entries: [] }) }
      : (JSON.parse(init.body!) as Batch).after !== 0
        ? { status: 409, json: async () => ({ missed: [], last: 0 }) }
        : ++n === 1
          ? { status: 422, json: async () => ({ issues: [{ code: "entry.absurd", path: [0], params: {} }] }) }
          : { status: 201, json: async () => ({ last: 1 }) }) as unknown as typeof fetch;
  const hook = renderHook(() => useLogbook("job", [], (e) => given.push([...e])));
  act(() => {
    hook.result.current.append([look(1)]);
    hook.result.current.append([look(2)]);
  });
  await waitFor(() => expect(hook.result.current.saved).toBe(1));
  expect(given).toEqual([[look(1)]]);
  expect(hook.result.current.entries).toEqual([look(2)]);
});

test("a finger that bounces logs once; the same thing said again a second later is said again", async () => {
  let last = 0;
  global.fetch = (async (_url: string, init?: { method?: string; body?: string }) =>
    init?.method !== "POST"
      ? { ok: true, status: 200, json: async () => ({ entries: [] }) }
      : {
          status: 201,
          json: async () => ({ last: (last += (JSON.parse(init.body!) as Batch).entries.length) }),
        }) as unknown as typeof fetch;
  const clock = jest.spyOn(performance, "now");
  const hook = renderHook(() => useLogbook("job", [], () => undefined));
  for (const at of [1000, 1150, 2500]) {
    clock.mockReturnValue(at);
    act(() => hook.result.current.append([look(7)]));
  }
  clock.mockRestore();
  await waitFor(() => expect(hook.result.current.saved).toBe(2));
});
