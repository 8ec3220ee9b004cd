import { dropBatch, keepBatch, keptBatch, send, type Batch } from "@/features/case/outbox";

const batch: Batch = { batch: "3f0c8a52-6a1b-4a93-9d55-0d8f6a3f2a11", after: 4, entries: [{ type: "undo", at: "2026-11-24T10:00:00Z", target: 1 }] };
const answering = (status: number, body: unknown) => (async () => ({ status, json: async () => body })) as unknown as typeof fetch;

test("what the server says is told apart: saved, stale, refused, unreachable", async () => {
  expect(await send("j", batch, answering(201, { last: 5 }))).toEqual({ status: "saved", last: 5 });
  expect(await send("j", batch, answering(409, { missed: batch.entries }))).toMatchObject({ status: "stale", missed: batch.entries });
  expect(await send("j", batch, answering(422, { issues: [{ code: "entry.absurd", path: [0], params: {} }] }))).toMatchObject({ status: "refused" });
  expect(await send("j", batch, answering(503, { issues: [] }))).toEqual({ status: "unreachable" });
  expect(await send("j", batch, (async () => { throw new TypeError("network"); }) as unknown as typeof fetch)).toEqual({ status: "unreachable" });
  expect(await send("j", batch, answering(201, "half an ans"))).toEqual({ status: "unreachable" }); // cut off: ask again, the batch is kept once
});

test("a batch survives on the device, and rubbish there does no harm", () => {
  keepBatch("job", batch, localStorage);
  expect(keptBatch("job", localStorage)).toEqual(batch);
  dropBatch("job", localStorage);
  expect(keptBatch("job", localStorage)).toBeUndefined();
  localStorage.setItem("radicula.outbox.job", '{"batch":1');
  expect(keptBatch("job", localStorage)).toBeUndefined();
});
