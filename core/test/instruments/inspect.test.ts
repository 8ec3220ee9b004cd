import { volt, rig, on, bench } from "../bench.js";
import { inspectCircuit, type Wiring } from "../../src/index.js";
import { wiring } from "../helpers.js";

describe("contradictory documents are solved or reported by name (bad input)", () => {
  const names = (w: Wiring) => inspectCircuit(w).map((i) => i.code);
  test("two batteries opposed through milliohms", () => {
    const w = wiring({
      devices: [
        { kind: "battery", id: "BAT" },
        { kind: "battery", id: "BAT2", volt: 12 },
        { kind: "ground", id: "G1" },
      ],
      wires: [
        { from: "BAT:+", to: "BAT2:-", mm2: 50, lengthM: 0.3 },
        { from: "BAT:-", to: "G1" },
        { from: "BAT2:+", to: "G1", mm2: 50, lengthM: 0.3 },
      ],
    });
    expect(names(w)).toContain("circuit.battery-shorted");
    expect(volt(rig(w), on, "BAT:+")).not.toBeNaN();
  });
  test("a module without ground, a module on no live feed", () => {
    expect(names(bench([{ role: "supply", at: "A1:1" }], [], [["BAT:+", "A1:1"]]))).toEqual([
      "circuit.module-without-ground",
    ]);
    expect(
      names(
        bench(
          [
            { role: "supply", at: "A1:1" },
            { role: "ground", at: "A1:2" },
          ],
          [{ kind: "switch", id: "K", closedIn: [] }],
          [["K:out", "A1:1"]],
        ),
      ),
    ).toEqual(["circuit.module-asleep"]);
  });
  test("a relay that cuts its own coil has no steady state; one that holds itself has two", () => {
    const loop = (contact: "working" | "resting", start: [string, string][]) =>
      bench(
        [],
        [{ kind: "relay", id: "R1", pins: { coilHigh: "R1:1", coilLow: "R1:2", common: "R1:3", [contact]: "R1:4" } }],
        [["BAT:+", "R1:3"], ["R1:4", "R1:1"], ["R1:2", "G1"], ...start],
      );
    const buzzer = inspectCircuit(loop("resting", []));
    expect(buzzer[0]).toMatchObject({ code: "circuit.no-steady-state", params: { devices: ["R1"] } });
    expect(names(loop("working", []))).toEqual([]); // never pulls in: one state from either start
  });
  test("a fuse too small for a healthy circuit, and a code a healthy machine would set", () => {
    expect(
      names(
        bench(
          [],
          [
            { kind: "fuse", id: "F1", rating: 1 },
            { kind: "heater", id: "E1", pins: { feed: "E1:1", ground: "E1:2" } },
          ],
          [
            ["BAT:+", "F1:in"],
            ["F1:out", "E1:1"],
            ["E1:2", "G1"],
          ],
        ),
      ),
    ).toContain("circuit.fuse-melts");
    expect(
      names(
        bench([{ role: "reference", at: "A1:1" }], [], [], {
          codes: [{ id: "X", module: "A1", monitor: { type: "above", at: "A1:1", volt: 3 } }],
        }),
      ),
    ).toContain("circuit.code-when-healthy");
  });
});
