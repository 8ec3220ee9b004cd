import { DEFAULTS } from "../../src/defaults.js";
import { plannedMinutes, type Entry } from "../../src/index.js";
import { demoCase, tug } from "../helpers.js";

const at = "2026-11-24T09:00:00Z";
const volts = (point: string, unplugged: string[] = []): Entry => ({
  type: "reading",
  at,
  instrument: "voltmeter",
  points: [point],
  values: [5],
  state: { key: "on", unplugged },
});

test("each test costs getting there, what is changed, and the measurement, as the plan counts them", () => {
  const { key, unplug, plug, take, again } = DEFAULTS.plan.minutes;
  const reach = (id: string) =>
    tug().connectors.find((c) => c.id === id)!.reachMinutes ?? DEFAULTS.plan.minutes.reachDefault;
  // key on once; B7 reached once, then B9 unplugged while B7 is read again: over to B9 and back to B7
  const first = key + reach("B7") + take.voltage;
  const second = reach("B9") + unplug + take.voltage;
  const third = again + plug + take.voltage;
  const entries = [volts("B7:1"), volts("B7:1", ["B9"]), volts("B7:1")];
  expect(plannedMinutes(tug(), entries)).toBe(Math.round(first + second + third));
});

test("what was taken back, scans and repairs cost nothing; a whole job takes less than its dates tell", () => {
  expect(plannedMinutes(tug(), [volts("B7:1"), { type: "undo", at, target: 1 }])).toBe(0);
  const job = demoCase("tug-4-inline-proven.case.json");
  const planned = plannedMinutes(job.wiring, job.entries);
  expect(planned).toBeGreaterThan(3);
  const first = Date.parse(job.entries[0]!.at);
  const closed = Date.parse(job.entries.find((e) => e.type === "closed")!.at);
  expect(planned).toBeLessThan((closed - first) / 60_000);
});
