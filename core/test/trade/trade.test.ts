import { tradeCases } from "./cases.js";
import { verdict } from "./machine.js";

// Source: common practice. Each job has the readings a good technician would take and the repair they lead to.
test.each(tradeCases.map((c) => [c.mechanism, c] as const))("%s", (_, { machine, entries, faults, least }) => {
  const { share, leads } = verdict(machine, entries, faults);
  expect(leads).toBe(true);
  expect(share).toBeGreaterThanOrEqual(least);
});
