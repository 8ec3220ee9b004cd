import { assess, fold, makePlan, type Entry } from "../../src/index.js";
import { candidates } from "../../src/planner/candidates.js";
import { code } from "../helpers.js";
import { dragged, tugPredictor } from "../warm.js";

/** points where ohms are on offer */
const ohmsAt = (list: readonly { kind: string; points: readonly string[] }[]) =>
  list.filter((c) => c.kind === "ohms" || c.kind === "ohmsWatch").flatMap((c) => c.points);
const plugs = new Set(tugPredictor.wiring.connectors.map((c) => c.id));
const offeredFor = (entries: readonly Entry[]) => ohmsAt(candidates(tugPredictor, fold(entries), plugs));
const openFor = (entries: readonly Entry[]) => ohmsAt(makePlan(tugPredictor, assess(tugPredictor, entries)).open);

test("ohms are offered on a conductor that is suspected, and not on one that is cleared", () => {
  // the tug's reference is dragged down: feeds and lamps have nothing to do with it (common practice, no source)
  const open = openFor(dragged);
  expect(open).toContain("B7:1");
  const cleared = offeredFor(dragged).filter((p) => !open.includes(p));
  expect(cleared.length).toBeGreaterThan(0);
  expect(cleared).not.toContain("B9:1");
});
test("with codes alone, everything that a code's circuit touches is open", () => {
  expect(openFor([code("P0237")])).toEqual(expect.arrayContaining(["B7:1", "B7:2", "B7:3"]));
});
