import { analyse, type Entry, type Instrument } from "../../src/index.js";
import { weigh } from "../../src/diagnosis/weigh.js";
import { gather } from "../../src/diagnosis/evidence.js";
import { notAsDrawn } from "../../src/planner/asDrawn.js";
import { code } from "../helpers.js";
import { tugPredictor } from "../warm.js";

const reading = (instrument: Instrument, point: string, value: number | "OL", unplugged: string[] = []): Entry => ({
  type: "reading",
  at: "2026-11-24T10:00:00Z",
  instrument,
  points: [point],
  values: [value],
  state: { key: instrument === "ohmmeter" ? "off" : "on", unplugged },
});
const remarksOf = (entries: readonly Entry[]) => analyse(tugPredictor, entries, { quick: true }).remarks;
/** what is said where a sound machine is the best there is */
const saidOfSound = (entries: readonly Entry[]) => {
  const { evidence } = gather(tugPredictor, entries);
  const sound = weigh(tugPredictor, [], {}).components.find((c) => c.hypothesis === 0);
  return notAsDrawn(tugPredictor, evidence, sound).map(({ code: id, params }) => ({ id, params }));
};

describe("an input whose line reads, open, as if it were pulled the other way than typed", () => {
  // an open line stands where its pull holds it (common practice, no source); A1:8 is typed as pulled down
  const open = [reading("voltmeter", "B7:3", 4.95, ["B7"]), reading("scanTool", "A1:8", 4.95, ["B7"])];
  const sound = [reading("voltmeter", "B7:1", 4.99), reading("voltmeter", "B7:3", 0.02)];
  test("is named with its pin and the entries", () => {
    const found = remarksOf([code("P0237"), ...open, ...sound]);
    expect(found.find((r) => r.code === "remark.pull-not-as-typed")?.params).toEqual({
      pin: "A1:8",
      pull: "down",
      entries: ["2", "3"],
    });
  });
  test("is not where a wire at a supply explains it", () => {
    expect(remarksOf([code("P0238"), ...open]).map((r) => r.code)).not.toContain("remark.pull-not-as-typed");
  });
});

describe("readings that nothing explains", () => {
  test("all at one part: it is not of the kind drawn", () => {
    expect(saidOfSound([reading("voltmeter", "B7:3", 9), reading("scanTool", "A1:8", 9)])).toEqual([
      { id: "remark.device-not-as-drawn", params: { part: "B7", entries: ["1", "2"] } },
    ]);
  });
  test("at two parts, at what they share, or a single one: nothing is said of a part", () => {
    expect(saidOfSound([reading("voltmeter", "B7:3", 9), reading("voltmeter", "B9:3", 9)])).toEqual([]);
    expect(saidOfSound([reading("voltmeter", "B7:1", 1), reading("voltmeter", "B9:1", 1)])).toEqual([]);
    expect(saidOfSound([reading("voltmeter", "B7:3", 9)])).toEqual([]);
  });
});
