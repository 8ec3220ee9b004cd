import {
  analyse,
  checkEntries,
  compareSeen,
  fold,
  Predictor,
  type Entry,
  type SeenEntry,
  type Wiring,
} from "../../src/index.js";
import { code, tug } from "../helpers.js";

const at = "2026-11-25T08:00:00Z";

describe("seen on the machine", () => {
  const w = (): Wiring => {
    const base = tug();
    return {
      ...base,
      connectors: base.connectors.map((c) => (c.id === "B7" ? { ...c, lookAlikes: ["B12"], partNumber: "SK-11" } : c)),
      wires: base.wires.map((x) => (x.from === "B12:2" ? { ...x, colour: "BK" } : x)),
    };
  };
  const seen = (more: Partial<SeenEntry>): SeenEntry => ({ type: "seen", at, connector: "B7", colours: [], ...more });
  test("another colour than drawn names the cavity and the look-alike that fits", () => {
    const m = compareSeen(
      w(),
      seen({
        colours: [
          { cavity: "1", colour: "orange/white" },
          { cavity: "2", colour: "BK" },
        ],
      }),
    );
    expect(m?.colours).toEqual([{ cavity: "2", seen: "BK", drawn: "BN/BK" }]);
    expect(m?.fits[0]).toBe("B12");
  });
  test("what agrees, in whatever notation, raises nothing", () => {
    expect(
      compareSeen(w(), seen({ colours: [{ cavity: "1", colour: "orange white" }], cavities: 3, partNumber: "sk 11" })),
    ).toBeUndefined();
  });
  test("count of cavities and part number", () => {
    expect(compareSeen(w(), seen({ cavities: 4 }))?.cavities).toEqual({ seen: 4, drawn: 3 });
    expect(compareSeen(w(), seen({ partNumber: "SK-12" }))?.partNumber).toEqual({ seen: "SK-12", drawn: "SK-11" });
  });
  test("the remark stands before any reading, and readings move together with a trace", () => {
    const predictor = new Predictor(w());
    const reading: Entry = {
      type: "reading",
      at,
      instrument: "voltmeter",
      points: ["B7:2"],
      values: [0.02],
      state: { key: "on", unplugged: [] },
    };
    const entries: Entry[] = [code("P0237"), reading, seen({ colours: [{ cavity: "2", colour: "BK" }] })];
    const remark = analyse(predictor, entries).remarks.find((r) => r.code === "remark.not-as-drawn");
    expect(remark?.params).toMatchObject({ connector: "B7", readings: ["2"] });
    const moved: Entry[] = [...entries, { type: "moved", at, from: "B7", to: "B12", readings: [2] }];
    expect(checkEntries(predictor.wiring, moved)).toEqual([]);
    expect(fold(moved).readings[0]!.entry.points).toEqual(["B12:2"]);
    expect(fold([...moved, { type: "undo", at, target: 4 }]).readings[0]!.entry.points).toEqual(["B7:2"]);
    expect(analyse(predictor, moved).readings[0]!.point).toBe("B12:2");
  });
  test("seen at a connector that is not there, readings that are not", () => {
    expect(checkEntries(w(), [seen({ connector: "Q1" })]).map((i) => i.code)).toEqual(["entry.missing-connector"]);
    expect(checkEntries(w(), [{ type: "moved", at, from: "B7", to: "B9", readings: [7] }]).map((i) => i.code)).toEqual([
      "entry.undo-of-nothing",
    ]);
  });
});
