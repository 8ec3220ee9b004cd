import { generateFaults } from "../../src/index.js";
import { isOneFluid } from "../../src/diagnosis/commonSource.js";
import { wiring } from "../helpers.js";

const doc = wiring({
  connectors: [
    { id: "B1", cavities: ["1", "2"], zones: ["oily"] },
    { id: "B2", cavities: ["1", "2"], zones: ["wet"] },
    { id: "B3", cavities: ["1", "2"] },
    { id: "A1", cavities: ["1", "2", "3", "4", "5", "6"] },
  ],
  devices: [
    ...["B1", "B2", "B3"].map((id) => ({ kind: "thermistor", id, pins: { signal: `${id}:1`, ground: `${id}:2` } })),
    { kind: "module", id: "A1", pins: [1, 3, 5].map((n) => ({ role: "input", at: `A1:${n}`, pull: "up" })) },
  ],
  wires: ["B1", "B2", "B3"].flatMap((id, i) => [
    { from: `${id}:1`, to: `A1:${2 * i + 1}` },
    { from: `${id}:2`, to: `A1:${2 * i + 2}` },
  ]),
});
const faults = generateFaults(doc);
const at = (...ids: readonly string[]) => ids.map((id) => faults.find((f) => f.id === id)!);

// a leaking seal lets fluid wick along the harness into several plugs: common practice, no source
test.each([
  [true, ["B1:1/contactFilm", "B2:1+2/cavitiesBridged"]],
  [true, ["B1:1+2/cavitiesBridged", "B2:2/contactHighResistance"]],
  [false, ["B1:1/contactFilm", "B3:1+2/cavitiesBridged"]], // a dry plug
  [false, ["B1:1/contactFilm", "B2:1/contactOpen"]], // no work of a fluid
  [false, ["B1:1/contactFilm"]],
] as const)("one fluid is %s of %j", (is, ids) => expect(isOneFluid(doc, at(...ids))).toBe(is));
