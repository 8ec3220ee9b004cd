import { generateHarness, play, Predictor, severityOffGrid, uniform, type Played } from "../../src/index.js";

test("a short form of the bench: faults of a made-up machine, perturbed, one in ten with an odd part", () => {
  const machine = generateHarness({ nodes: 100, seed: 3 });
  const p = new Predictor(machine);
  const ended: Played[] = [];
  for (let i = 3; i < p.faults.length && ended.length < 4; i += 23) {
    const u = uniform(i);
    const fault = p.faults[i]!;
    const severity = severityOffGrid(fault, u());
    const one = play(p, [{ fault, severity }], {
      school: "information",
      seed: i,
      slips: 0.01,
      missed: 0.05,
      wrongKind: u() < 0.1,
    });
    if (one.ending !== "noCode") ended.push(one);
  }
  expect(ended.length).toBeGreaterThanOrEqual(3);
  expect(ended.filter((e) => e.ending === "wrong").map((e) => e.faults)).toEqual([]);
  expect(ended.filter((e) => e.ending === "isolated").length).toBeGreaterThanOrEqual(ended.length - 1);
}, 300_000);
