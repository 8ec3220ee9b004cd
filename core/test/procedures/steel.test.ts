import { playedRun, broken } from "../playedRuns.js";
import { Instructor } from "../../words/index.js";
import { tug } from "../helpers.js";
import {
  analyse,
  deviceConnectors,
  findNets,
  Predictor,
  runPlaces,
  SimulatedMachine,
  type Entry,
  type Wiring,
} from "../../src/index.js";

const w = tug();
const predictor = new Predictor(w);
const hall = w.devices.find((d) => d.kind === "hall")!;
const shares = (entries: readonly Entry[]) => analyse(predictor, entries).suspects;

/** An open collector, pulled up, stands near the battery or near nothing (common practice, no source). */
describe("a Hall sensor on the bench, with a battery and a resistor", () => {
  const good = playedRun(predictor, new SimulatedMachine(w, [], 3), "hallBench", hall.id);
  test("a good one switches between nearly nothing and nearly the battery", () => {
    expect(good.finding).toMatchObject({ verdict: "clear", says: { code: "run.hall-good-alone" } });
    const volts = good.taken.map((t) => t.values[0]!).sort((a, b) => a - b);
    expect(volts).toHaveLength(2);
    expect(volts[0]).toBeLessThan(0.8);
    expect(volts[1]).toBeGreaterThan(0.9 * w.nominalVolt);
    for (const t of good.taken) {
      expect(t.step.part).toBe("removed");
      expect(t.step.state).toMatchObject({ key: "off", unplugged: deviceConnectors(hall) });
      expect(t.healthy).toEqual([NaN]); // one switches low on steel, the next one high
    }
  });
  test("one that lives on a module's reference is never fed from a battery", () => {
    const { supply } = (hall as { pins: { supply: string } }).pins;
    const isAtSupply = (x: Wiring["wires"][number]) => x.from === supply || x.to === supply;
    const on5V: Wiring = {
      ...w,
      wires: w.wires.map((x) => (isAtSupply(x) ? { ...x, from: supply, to: "S14" } : x)),
    };
    expect(findNets(on5V).functionOf(supply)).toBe("reference");
    const other = new Predictor(on5V);
    const run = playedRun(other, new SimulatedMachine(on5V, [], 3), "hallBench", hall.id);
    expect(run.taken).toEqual([]);
    expect(run.finding!.says.code).toBe("run.hall-takes-reference");
    expect(runPlaces(on5V, "hallBench")).not.toContain(hall.id);
    expect(runPlaces(w, "hallBench")).toContain(hall.id);
  });
  test("its card says how, cautions first", () => {
    const { step } = good.taken[0]!;
    const [plug = ""] = deviceConnectors(hall);
    const card = new Instructor(w).instruct({
      ...step,
      id: "hall",
      at: plug,
      unplug: [plug],
      plug: [],
      turnKey: false,
      minutes: 1,
    });
    expect(card.title).toMatch(
      /^Crank speed sensor B\d+ on the bench, steel at its tip: measure from battery negative/,
    );
    expect(card.dangers).toContain("benchFeed");
    expect(card.dangers).not.toContain("backFeed");
  });
  test("a dead one is found, whatever is wrong with its wires leaves it good", () => {
    expect(playedRun(predictor, broken(w, `${hall.id}/dead`, 1), "hallBench", hall.id).finding).toMatchObject({
      verdict: "found",
      things: [hall.id],
      says: { code: "run.hall-dead-alone" },
    });
    const ground = (hall as { pins: { ground: string } }).pins.ground;
    const open = playedRun(predictor, broken(w, `${ground}/contactOpen`, 1), "hallBench", hall.id);
    expect(open.finding!.says.code).toBe("run.hall-good-alone");
  });
  test("what it shows is evidence about the sensor", () => {
    const code = w.codes.find((c) => c.monitor?.type === "noActivity")!;
    const scan: Entry = {
      type: "scan",
      at: "2026-11-24T09:00:00Z",
      when: "afterCrank",
      modules: [code.module],
      codes: [{ code: code.id, module: code.module, status: "active" }],
      disturbed: [],
      wiped: false,
    };
    const itself = (entries: readonly Entry[]) =>
      shares(entries)
        .filter((s) => s.places.some((p) => p.type === "device" && p.id === hall.id))
        .reduce((sum, s) => sum + s.share, 0);
    const dead = playedRun(predictor, broken(w, `${hall.id}/dead`, 1), "hallBench", hall.id);
    const before = itself([scan]);
    expect(itself([scan, ...good.entries])).toBeLessThan(0.2 * before);
    expect(itself([scan, ...dead.entries])).toBeGreaterThan(before);
  });
});
