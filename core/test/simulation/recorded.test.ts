import { readFileSync } from "node:fs";
import { join } from "node:path";
import {
  analyse,
  findFault,
  Focus,
  generateFaults,
  recordedTrace,
  SimulatedMachine,
  type SimulatedRecordingOptions,
} from "../../src/index.js";
import { reasonText } from "../../words/index.js";
import { demoCase, ROOT } from "../helpers.js";

interface RecordedJob {
  readonly file: string;
  readonly hidden: { readonly fault: string; readonly ohm: number | null; readonly seed: number };
  readonly recordings: readonly (Omit<SimulatedRecordingOptions, "seed"> & { readonly at: string })[];
}
const jobs = JSON.parse(readFileSync(join(ROOT, "demo", "recorded.json"), "utf8")) as RecordedJob[];

/** What leads once the recordings are in the logbook, and the share of the hidden repair with and without them. */
function judged({ file, hidden: { fault, ohm, seed }, recordings }: RecordedJob) {
  const { wiring, entries } = demoCase(file);
  const found = findFault(generateFaults(wiring), fault)!.fault;
  const machine = new SimulatedMachine(wiring, [{ fault: found, severity: ohm ?? NaN }], seed);
  const traces = recordings.map((r) => recordedTrace(machine, { ...r, seed }, r.at).entry);
  const { predictor } = { predictor: new Focus(wiring).predictor(entries) };
  const shareOf = (all: typeof entries) => {
    const { suspects, remarks } = analyse(predictor, all);
    const share = suspects
      .flatMap((s) => s.members)
      .filter((m) => m.faults.some((f) => f.id === fault))
      .reduce((sum, m) => sum + m.share, 0);
    return { suspects, share, remarks };
  };
  return { traces, before: shareOf(entries).share, after: shareOf([...entries, ...traces]) };
}
const jobOf = (file: string) => jobs.find((j) => j.file === file)!;

test("a loose contact: two tracks laid over each other fall at the same moments, while one wire is moved", () => {
  const { traces, before, after } = judged(jobOf("whimbrel-flutter.case.json"));
  const [signal, reference] = traces[0]!.channels;
  expect(signal!.dropouts!.count).toBeGreaterThan(3);
  expect(reference!.dropouts!.count).toBeGreaterThan(3);
  expect(traces[0]!.moved!.map((m) => m.reacted)).toEqual([false, false, true]);
  expect(after.share).toBeGreaterThan(0.35);
  expect(after.share).toBeGreaterThan(5 * before);
});

test("a damaged target: levels are good, pulses are missing", () => {
  const { traces, before, after } = judged(jobOf("generator-9-teeth.case.json"));
  expect(traces[0]!.channels[0]).toMatchObject({ kind: "switching", gap: { missing: 2 } });
  expect(traces[0]!.channels[0]!.missing).toBeGreaterThan(3);
  expect(traces[0]!.channels[1]!.kind).toBe("varying"); // the battery sags at every compression
  expect(after.share).toBeGreaterThan(0.5);
  expect(after.share).toBeGreaterThan(3 * before);
  expect(after.suspects[0]!.reasons.map(reasonText).join("\n")).toMatch(/lacks pulses/);
});

test("a driver with a wrong duty: its pulses are of the right height and too short", () => {
  const { traces, before, after } = judged(jobOf("carrier-30-slow.case.json"));
  // low while it is on: 0.6 of the time as drawn, 0.35 of that as it is
  expect(traces[0]!.channels[0]!.duty).toBeCloseTo(1 - 0.35 * 0.6, 1.5);
  expect(after.suspects[0]!.members[0]!.faults.map((f) => f.id)).toEqual(["A2:31/dutyWrong"]);
  expect(after.share).toBeGreaterThan(0.35);
  expect(after.share).toBeGreaterThan(5 * before);
});
