import { ENGINE_VERSION, type Analysis, type Entry } from "@radicula/core";
import * as idb from "idb-keyval";
import { keepAnalysis, keptAnalysis } from "@/features/case/session/keptAnalysis";

jest.mock("idb-keyval");
const store = new Map<string, unknown>();
const { get, set } = jest.mocked(idb);
beforeEach(() => {
  store.clear();
  get.mockImplementation((key) => Promise.resolve(store.get(String(key)) as never));
  set.mockImplementation((key, value) => {
    store.set(String(key), value);
    return Promise.resolve();
  });
});

const code = (id: string): Entry => ({
  type: "code",
  at: "2026-11-29T10:00:00Z",
  module: "A1",
  code: id,
  status: "active",
});
const answer = { analysis: { engine: ENGINE_VERSION, stage: "splitting" } as Analysis, offers: [] };

test("an answer comes back for the same job and logbook, and for no other", async () => {
  await keepAnalysis("job", [code("P0642")], answer);
  expect(await keptAnalysis("job", [code("P0642")])).toEqual(answer);
  expect(await keptAnalysis("job", [code("P0642"), code("P0522")])).toBeUndefined();
  expect(await keptAnalysis("another", [code("P0642")])).toBeUndefined();
});

test("a device that keeps nothing, or is full, only makes the visit slower", async () => {
  set.mockRejectedValue(new DOMException("full", "QuotaExceededError"));
  get.mockRejectedValue(new DOMException("forbidden", "SecurityError"));
  await expect(keepAnalysis("job", [], answer)).resolves.toBeUndefined();
  await expect(keptAnalysis("job", [])).resolves.toBeUndefined();
});
