import { voltsAt } from "../bench.js";
import { tugWiring, tugPredictor, fourCodes } from "../warm.js";
import {
  assess,
  DEFAULTS,
  fold,
  makePlan,
  Predictor,
  watchedBy,
  type Entry,
  type Folded,
  type Wiring,
} from "../../src/index.js";
import { code } from "../helpers.js";
import { candidates } from "../../src/planner/candidates.js";
import { alreadyDone } from "../../src/planner/alreadyDone.js";
import { Cost, positionOf } from "../../src/planner/cost.js";

const AT = "2026-11-24T10:00:00Z";

describe("cost", () => {
  const cost = new Cost(tugWiring);
  const at = (entries: Entry[]) => positionOf(fold(entries));
  const step = (place: string, unplugged: string[] = []) => ({
    kind: "voltage" as const,
    at: place,
    state: { key: "on" as const, unplugged },
  });
  test("a cover off is off: going back costs a few steps, staying nothing", () => {
    const far = tugWiring.connectors.find((c) => c.id === "X5")!.reachMinutes;
    const { take, again } = DEFAULTS.plan.minutes;
    expect(cost.minutes(step("X5"), at([]))).toBeCloseTo(far + take.voltage, 9);
    expect(cost.minutes(step("X5"), at([voltsAt("X5:4.a", 5)]))).toBeCloseTo(take.voltage, 9);
    expect(cost.minutes(step("X5"), at([voltsAt("X5:4.a", 5), voltsAt("B7:1", 5)]))).toBeCloseTo(
      again + take.voltage,
      9,
    );
  });
  test("unplugging twice costs once; what is unplugged must go back before the machine is whole", () => {
    const first = cost.minutes(step("B9", ["B9"]), at([]));
    const second = cost.minutes(step("B9", ["B9"]), at([voltsAt("B9:1", 5, ["B9"])]));
    expect(first - second).toBeGreaterThanOrEqual(DEFAULTS.plan.minutes.unplug);
    expect(cost.changes({ key: "on", unplugged: [] }, at([voltsAt("B9:1", 5, ["B9"])]))).toEqual({
      unplug: [],
      plug: ["B9"],
      turnKey: false,
    });
  });
  test("the scan tool needs no walking, eyes need nothing plugged back", () => {
    const list = candidates(tugPredictor, fold([...fourCodes, voltsAt("B9:1", 5, ["B9"])]), new Set(["B7", "B9"]));
    expect(list.find((c) => c.id === "scan A1:8")!.minutes).toBeLessThan(
      list.find((c) => c.id === "voltage A1:8")!.minutes,
    );
    expect(list.find((c) => c.kind === "look" && c.at === "B9")).toMatchObject({
      plug: [],
      unplug: [],
      minutes: DEFAULTS.plan.minutes.take.look,
    });
  });
});

describe("candidates", () => {
  const kinds = (entries: Entry[]) =>
    new Set(candidates(tugPredictor, fold(entries), new Set(["B7"])).map((c) => c.kind));
  test("a fuse that was pulled, or that a breaker stands in for, is neither looked at nor measured", () => {
    const atFuse = (state: object) =>
      candidates(
        tugPredictor,
        fold([{ ...voltsAt("B7:1", 5), state: { key: "on", unplugged: [], ...state } } as Entry]),
        new Set(["F12"]),
      )
        .filter((c) => c.at === "F12")
        .map((c) => c.kind);
    expect(atFuse({})).toEqual(expect.arrayContaining(["look", "fuse"]));
    for (const state of [{ breakers: ["F12"] }, { pulled: ["F12"] }]) {
      expect(atFuse(state)).not.toContain("look");
      expect(atFuse(state)).not.toContain("fuse");
    }
  });
  test("what is not owned is not offered; what the scan tool does not show is not asked of it", () => {
    const intake = (more: object): Entry => ({
      type: "intake",
      at: AT,
      intake: { symptoms: [], conditions: [], history: [], bulletins: [], safety: [], ...more } as never,
    });
    expect(
      [...kinds([intake({ tools: ["meter"] })])].filter((k) => k === "scan" || k === "scanWatch" || k === "activity"),
    ).toEqual([]);
    const only = candidates(tugPredictor, fold([intake({ scanShows: ["B7"] })]), new Set())
      .filter((c) => c.kind === "scan")
      .map((c) => c.points[0]);
    expect(only).toEqual(["A1:8"]);
  });
  test("twins are swapped only where both are the same part and neither is guarded", () => {
    const twins = (more: object): Wiring =>
      ({
        ...tugWiring,
        devices: tugWiring.devices.map((d) =>
          d.id === "B7" || d.id === "B9" ? { ...d, partNumber: "SD-1", ...more } : d,
        ),
      }) as Wiring;
    const swaps = (w: Wiring) =>
      candidates(new Predictor(w), fold([]), new Set())
        .filter((c) => c.kind === "swap")
        .map((c) => c.points);
    expect(swaps(twins({}))).toEqual([["B7", "B9"]]);
    expect(swaps(twins({ cautions: ["restraint"] }))).toEqual([]);
    expect(swaps(tugWiring)).toEqual([]);
  });
});

describe("what was already read is not asked again, and nothing else is held for it", () => {
  const list = candidates(tugPredictor, fold([...fourCodes]), new Set(["B7"]));
  const asked = list.find(
    (c) => c.instrument === "voltmeter" && c.points.join() === "B7:1" && !c.state.unplugged.length,
  )!;
  const taken = (more: object): Folded => fold([{ ...voltsAt("B7:1", 5), ...more } as Entry]);
  test("the same point in the same state, with black at the battery", () => {
    expect(alreadyDone(asked, taken({}))).toBe(true);
    expect(alreadyDone(asked, taken({ black: "BAT:-" }))).toBe(true);
  });
  test.each([
    ["black on another point", { black: "B7:2" }],
    ["the part on the bench", { part: "removed" }],
    ["another point", { points: ["B7:2"] }],
    ["the key off", { state: { key: "off", unplugged: [] } }],
    ["unplugged", { state: { key: "on", unplugged: ["B7"] } }],
    ["another instrument", { instrument: "ohmmeter" }],
  ])("%s: another reading", (_, more) => expect(alreadyDone(asked, taken(more))).toBe(false));
});

describe("values that are watched while the harness is moved", () => {
  const told = (tools: readonly string[] | undefined, symptoms: readonly string[]) =>
    [
      {
        type: "intake",
        at: AT,
        intake: { symptoms, conditions: [], history: [], bulletins: [], safety: [], ...(tools ? { tools } : {}) },
      },
      code("P0237", "stored"),
    ] as unknown as Entry[];
  const asked = (tools: readonly string[] | undefined, symptoms: readonly string[]) => {
    const belief = assess(tugPredictor, told(tools, symptoms));
    return makePlan(tugPredictor, belief).open.filter((c) => watchedBy(c.kind));
  };
  const kindsOf = (tools: readonly string[] | undefined, symptoms = ["comesAndGoes"]) =>
    [...new Set(asked(tools, symptoms).map((c) => c.kind))].sort();

  test("are asked for where something comes and goes, with what is at hand", () => {
    expect(kindsOf(undefined, ["noStart"])).toEqual([]);
    expect(kindsOf(["meter"])).toEqual(["minMax"]);
    expect(kindsOf(["meter", "scanTool"])).toEqual(["minMax", "scanRecord"]);
    expect(kindsOf(["meter", "scanTool", "scope"])).toEqual(["record", "scanRecord"]);
  });
  test("two channels of a plug have a signal among them; of an in-line connector both sides of a cavity", () => {
    const pairs = asked(["meter", "scope"], ["comesAndGoes"]).map((c) => c.points);
    expect(pairs).toContainEqual(["B7:3", "B7:1"]);
    expect(pairs).toContainEqual(["X5:1.a", "X5:1.b"]);
    expect(pairs.every((p) => p.length === 2 && p[0] !== p[1])).toBe(true);
  });
  test("tell more of what comes and goes than one look at the same point; once done they are not asked again", () => {
    const entries = told(["meter", "scope"], ["comesAndGoes"]);
    const belief = assess(tugPredictor, entries);
    const { ranked } = makePlan(tugPredictor, belief);
    const best = ranked.find((w) => w.candidate.kind === "record")!;
    const looks = ranked.filter(
      (w) => w.candidate.kind === "voltage" && w.candidate.points.every((p) => best.candidate.points.includes(p)),
    );
    expect(looks.length).toBeGreaterThan(0);
    for (const look of looks) expect(best.bits).toBeGreaterThan(look.bits);
    const reading = (on: string, watched: object): Entry => ({ ...voltsAt(on, 5), ...watched }) as Entry;
    const both = (watched: object) => best.candidate.points.map((on) => reading(on, watched));
    expect(alreadyDone(best.candidate, fold(both({})))).toBe(false); // one look is no watching
    expect(alreadyDone(best.candidate, fold(both({ watched: "recorded" })))).toBe(true);
    expect(alreadyDone(best.candidate, fold(both({ watched: "recorded" }).slice(1)))).toBe(false);
  });
});
