import { analyse, outcomeOf, repairsOf, openRepairs, type Entry, type Suspect } from "../../src/index.js";
import { Namer, outcomeText } from "../../words/index.js";
import { Cost, positionOf } from "../../src/planner/cost.js";
import { fold } from "../../src/logbook/fold.js";
import { findFault } from "../../src/faults/generate.js";
import { dragged, tugPredictor, tugWiring } from "../warm.js";

const member = (id: string, share: number): Suspect["members"][number] => {
  const fault = findFault(tugPredictor.faults, id)!.fault;
  const hypothesis = tugPredictor.faults.indexOf(fault) + 1;
  return { hypothesis, fault, faults: [fault], share, ohm: NaN, intermittent: 0 };
};
const suspect = (...members: Suspect["members"]): Suspect => ({
  id: members[0]!.fault.place.id,
  type: "fault",
  share: members.reduce((sum, m) => sum + m.share, 0),
  places: members.map((m) => m.fault.place),
  members,
});
const cost = new Cost(tugWiring);
const outcome = (s: Suspect, entries: readonly Entry[] = []) =>
  outcomeOf(tugWiring, s, cost, positionOf(fold(entries)));

test("faults at one place are one repair, whichever of them it is", () => {
  const s = suspect(
    member("B9:1/contactOpen", 0.5),
    member("B9:1/contactHighResistance", 0.4),
    member("B9/dead", 0.08),
  );
  expect(repairsOf(s).map((r) => [r.id, r.share])).toEqual([
    ["cavity B9:1", 0.9],
    ["device B9", 0.08],
  ]);
  expect(openRepairs(s)).toHaveLength(2);
});

test("a repair that holds a verdict by itself is the one named; one in a hundred of a group is not named", () => {
  expect(openRepairs(suspect(member("B9/dead", 0.96), member("B9:1/contactOpen", 0.03))).map((r) => r.id)).toEqual([
    "device B9",
  ]);
  expect(openRepairs(suspect(member("B9/dead", 0.6), member("B9:1/contactOpen", 0.005)))).toHaveLength(1);
});

test("what a group has in common is said: the kind, and the conductor by the module's pin", () => {
  const net = (a: string) => tugWiring.wires.filter((w) => w.from === a || w.to === a).map((w) => w.id!);
  const [wire] = net("B9:3");
  const open = outcome(suspect(member("B9:3/contactOpen", 0.5), member(`${wire}/open`, 0.45)));
  expect(open).toMatchObject({ isOneRepair: false, kind: "open", conductor: { use: "signal", point: "A1:9" } });
  expect(outcomeText(open, new Namer(tugWiring)).proven).toBe("Open circuit in the signal at A1 cavity 9");
  const mixed = outcome(suspect(member("B9:3/contactOpen", 0.5), member(`${wire}/shortToChassis`, 0.45)));
  expect(mixed).toMatchObject({ kind: undefined, conductor: { point: "A1:9" } });
  const part = outcome(suspect(member("B9:3/contactOpen", 0.5), member("B9:1/contactOpen", 0.45)));
  expect(part).toMatchObject({ kind: "open", conductor: undefined, part: "B9" });
  const apart = outcome(suspect(member("B9:3/contactOpen", 0.5), member("B7:3/contactOpen", 0.45)));
  expect(apart).toMatchObject({ kind: "open", conductor: undefined, part: undefined });
});

test("the order to look: where one stands comes before what is likelier but behind a cover", () => {
  const s = suspect(member("X5:4/contactOpen", 0.5), member("B9:1/contactOpen", 0.4));
  const at = (point: string): Entry => ({
    type: "reading",
    at: "2026-11-24T10:00:00Z",
    instrument: "voltmeter",
    points: [point],
    values: [5],
    state: { key: "on", unplugged: [] },
  });
  expect(outcome(s, [at("B9:1")]).repairs[0]!.id).toBe("cavity B9:1");
  expect(outcome(s, [at("X5:4.a")]).repairs[0]!.id).toBe("cavity X5:4");
});

test("a proven cause comes with its outcome", () => {
  const a = analyse(tugPredictor, dragged);
  expect(a.stage).toBe("proven");
  expect(a.outcome).toMatchObject({ isOneRepair: true, repairs: [{ id: "device B9" }] });
  expect(analyse(tugPredictor, []).outcome).toBeUndefined();
});
