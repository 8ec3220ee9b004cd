import { findFault, play, type Played, type PlayOptions } from "../../src/index.js";
import { tugPredictor as predictor } from "../warm.js";

/**
 * Plays a hidden fault through: every test is the program's first choice, every answer comes from the simulated
 * machine.
 */
function played(fault: string, severity: number, seed: number, more: Partial<PlayOptions> = {}): Played {
  const list = fault.split(",").map((id) => findFault(predictor.faults, id)!);
  return play(
    predictor,
    list.map((f) => ({ fault: f.fault, severity: f.ohm ?? severity })),
    { school: "information", seed, ...more },
  );
}

test("faults off the severity grid, with slips and codes missed: found, never a wrong cause", () => {
  const faults: [string, number][] = [
    ["B7/shortSupplyGround", 3],
    ["A1:17/referenceDead", NaN],
    ["X5:7/contactHighResistance", 900],
    ["W33/open", NaN],
  ];
  const all = faults.map(([fault, ohm], i) => played(fault, ohm, 300 + i, { slips: 0.01, missed: 0.05 }));
  expect(all.filter((p) => p.ending === "wrong").map((p) => p.faults)).toEqual([]);
  expect(all.filter((p) => p.ending === "isolated").length).toBeGreaterThanOrEqual(3);
}, 300_000);

test("two faults at once that no single one explains: both are found, one as sure as the other or one after it", () => {
  const ended = played("X5:7/contactOpen,B7/shortSignalGround@1", NaN, 703, { repairs: true });
  expect(ended.overbold).toBe(false); // never declared the only one
  expect([ended.ending, ended.verdict?.right]).toEqual(["isolated", true]);
}, 300_000);
