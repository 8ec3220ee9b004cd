import { compareVerdict, findFault, generateFaults, type Fault } from "../../src/index.js";
import { tug } from "../helpers.js";

const all = generateFaults(tug());
const fault = (id: string): Fault => {
  const found = findFault(all, id);
  if (!found) throw new Error(id);
  return found.fault;
};
const member = (faults: readonly Fault[], share: number) => ({
  hypothesis: 0,
  fault: faults[0]!,
  faults,
  share,
  ohm: NaN,
  intermittent: 0,
});
const named = (...members: readonly ReturnType<typeof member>[]) => ({
  members,
  share: members.reduce((sum, m) => sum + m.share, 0),
});

describe("a verdict beside what was hidden", () => {
  const x4 = fault("X5:4/contactOpen");
  const x4Too = fault("X5:4/contactHighResistance");
  const x4And5 = fault("X5:4+5/cavitiesBridged");
  test("that repair, however the fault shows: alone", () => {
    expect(compareVerdict(named(member([x4], 0.97)), [x4])).toBe("alone");
    // the same terminal is repaired, whether it is open or corroded
    expect(compareVerdict(named(member([x4Too], 0.97)), [x4])).toBe("alone");
  });
  test("one of several: among them, never alone", () => {
    expect(compareVerdict(named(member([x4], 0.5), member([x4And5], 0.45)), [x4])).toBe("among");
  });
  test("one of two that were hidden: a part; both: all of it", () => {
    expect(compareVerdict(named(member([x4], 0.97)), [x4, x4And5])).toBe("part");
    expect(compareVerdict(named(member([x4, x4And5], 0.97)), [x4, x4And5])).toBe("alone");
  });
  test("another repair, or none", () => {
    expect(compareVerdict(named(member([x4And5], 0.97)), [x4])).toBe("other");
    expect(compareVerdict(undefined, [x4])).toBe("none");
  });
});
