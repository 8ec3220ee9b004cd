import { assess, findNets, generateHarness, Predictor, type Entry, type State } from "../../src/index.js";

/** A feed behind a fuse and a wire beside it at ground, which touch: of little resistance they blow the fuse. */
function touching() {
  const wiring = generateHarness({ nodes: 100, seed: 3 });
  const predictor = new Predictor(wiring);
  const { draws, faults } = predictor;
  const h = 1 + faults.findIndex((f, i) => f.mode === "shortToWire" && !predictor.meltAlike(i + 1, 0, draws));
  return { wiring, predictor, h, fault: faults[h - 1]! };
}
const dead = (point: string): Entry => ({
  type: "reading",
  at: "2026-11-30T10:00:00Z",
  instrument: "voltmeter",
  points: [point],
  values: [0.01],
  state: { key: "on", unplugged: [] },
});

// common practice, no source: behind a blown fuse every point reads nothing, whatever blew it
test("once a fuse has blown, one more dead reading behind it says nothing against wires that touch", () => {
  const { wiring, predictor, h, fault } = touching();
  expect(predictor.meltAlike(h, 0, 1)).toBe(true); // two draws of the same severity
  const { netOf } = findNets(wiring);
  const ends = fault.id
    .split("/")[0]!
    .split("+")
    .map((id) => wiring.wires.find((w) => w.id === id)!);
  const on: State = { key: "on", unplugged: [] };
  const at = (point: string, sample: number) =>
    predictor.predictAt(h, { instrument: "voltmeter", point, state: on }).at(sample);
  const feed = ends.find((w) => at(w.from, predictor.draws) > 6)!;
  const chassis = 1 + predictor.faults.findIndex((f) => f.id === `${feed.id}/shortToChassis`);
  const behind = predictor.points.filter((p) => netOf.get(p) === netOf.get(feed.from) && at(p, 0) < 0.05).slice(0, 4);
  expect(behind).toHaveLength(4);
  const ratio = (count: number) => {
    const { share } = assess(predictor, behind.slice(0, count).map(dead)).posterior;
    return share[h]! / share[chassis]!;
  };
  const [once, fourTimes] = [ratio(1), ratio(4)];
  expect(once).toBeGreaterThan(0);
  expect(fourTimes / once).toBeGreaterThan(0.7);
  expect(fourTimes / once).toBeLessThan(1.4);
});
