import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Namer, verdictText } from "../../words/index.js";
import {
  analyse,
  assess,
  generateHarness,
  makePlan,
  parseWiring,
  Predictor,
  type Entry,
  type State,
} from "../../src/index.js";
import { ROOT, scanned } from "../helpers.js";

const at = "2026-01-01T08:00:00Z";
const on = (...unplugged: string[]): State => ({ key: "on", unplugged });
const read = (instrument: "voltmeter" | "scanTool", red: string, value: number, black?: string): Entry => ({
  type: "reading",
  at,
  instrument,
  points: [red],
  ...(black === undefined ? {} : { black }),
  values: [value],
  state: on(),
});
const planned = (predictor: Predictor, entries: readonly Entry[]) => makePlan(predictor, assess(predictor, entries));

describe("before a cause is declared", () => {
  test("the component is looked at where another, easily taken for it, would make it another cause", () => {
    const wiring = parseWiring(readFileSync(join(ROOT, "demo/generator-9.wiring.json"), "utf8"));
    if (!wiring.ok) throw new Error("the demo does not parse");
    const predictor = new Predictor(wiring.value);
    // the output of a dead sensor, read at the plug of its neighbour: it looks like an open wire between the two
    const entries = [
      scanned(["G113"]),
      read("voltmeter", "B92:3", 1.3),
      read("voltmeter", "X40:4.a", 0.04),
      read("voltmeter", "X40:4.b", 0.04),
      read("voltmeter", "B92:3", 1.27, "X40:4.b"),
    ];
    const plan = planned(predictor, entries);
    expect(plan).toMatchObject({ stage: "confirming", ranked: [{ candidate: { kind: "identity", points: ["B92"] } }] });
    const checked = planned(predictor, [...entries, { type: "identity", at, connector: "B92", right: true }]);
    expect(checked.ranked.map((r) => r.candidate.kind)).not.toContain("identity");
  });

  test("a cause that leaves a code unexplained is confirmed and repaired first, where nothing tells the rest", () => {
    const predictor = new Predictor(generateHarness({ nodes: 100, seed: 70 }));
    const entries = [
      scanned(["HA1:11"]),
      read("scanTool", "A1:11", 4.95),
      read("voltmeter", "B1a5:2", 4.94),
      read("scanTool", "A1:10", 4.93),
      read("voltmeter", "X1a:2.b", 4.95),
      read("voltmeter", "A1:6", 4.96),
      { type: "look", at, thing: "A1", found: ["nothing"] } satisfies Entry,
    ];
    const plan = planned(predictor, entries);
    // whatever is next, it is no dead end
    expect(["confirming", "proven"]).toContain(plan.stage);
    const again = planned(predictor, [...entries, read("voltmeter", "A1:6", 4.95)]);
    expect(again.stage).toBe("proven");
    expect(again.sure).toMatchObject({ id: "A1:6" });
    expect(again.sure!.share).toBeGreaterThan(0.95);
    // in the terminal or inside the module: one of the two is mended, and the verdict does not name both
    const told = analyse(predictor, [...entries, read("voltmeter", "A1:6", 4.95)]);
    expect(told.outcome).toMatchObject({ isNotAll: true, isOneRepair: false });
    const { title, detail } = verdictText(told, new Namer(predictor.wiring));
    expect(title).toContain("A1 cavity 6");
    expect(title).not.toContain(" and ");
    expect(detail).toMatch(/one of 2 repairs.*not the only fault/);
  }, 60_000);
});
