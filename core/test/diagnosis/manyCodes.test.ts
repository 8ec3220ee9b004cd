import { searchMultipleFaults } from "../../src/diagnosis/multipleFaults.js";
import { gather } from "../../src/diagnosis/evidence.js";
import { Predictor } from "../../src/index.js";
import { code, wiring } from "../helpers.js";

/** Two references of one module, each shared by as many sensors; each sensor's code is set when its signal is low. */
function twoReferences(sensors: number) {
  const names = Array.from({ length: 2 * sensors }, (_, i) => `B${i + 1}`);
  const splice = (i: number) => (i < sensors ? "S1" : "S2");
  return wiring({
    connectors: [
      ...names.map((id) => ({ id, cavities: ["1", "2", "3"] })),
      { id: "A1", cavities: Array.from({ length: 2 * sensors + 4 }, (_, i) => String(i + 1)) },
    ],
    devices: [
      ...["S1", "S2", "S3"].map((id) => ({ kind: "splice", id })),
      {
        kind: "module",
        id: "A1",
        pins: [
          { role: "reference", at: "A1:1" },
          { role: "reference", at: "A1:2" },
          { role: "sensorGround", at: "A1:3" },
          ...names.map((_, i) => ({ role: "input", at: `A1:${i + 4}`, pull: "down" })),
        ],
      },
      ...names.map((id) => ({
        kind: "threeWireSensor",
        id,
        supplyAmpere: 0.004, // seventeen of them stay well below what a reference gives
        pins: { supply: `${id}:1`, ground: `${id}:2`, signal: `${id}:3` },
      })),
    ],
    wires: [
      { id: "REF1", from: "S1", to: "A1:1" },
      { id: "REF2", from: "S2", to: "A1:2" },
      { from: "S3", to: "A1:3" },
      ...names.flatMap((id, i) => [
        { from: `${id}:1`, to: splice(i) },
        { from: `${id}:2`, to: "S3" },
        { from: `${id}:3`, to: `A1:${i + 4}` },
      ]),
    ],
    codes: names.map((_, i) => ({
      id: `P${1000 + i}`,
      module: "A1",
      monitor: { type: "below", at: `A1:${i + 4}`, volt: 0.2 },
    })),
  });
}

test("34 codes of two lost references: every pair tried explains every code, also the thirty-third", () => {
  const w = twoReferences(17);
  const predictor = new Predictor(w);
  const { evidence } = gather(
    predictor,
    w.codes.map((c) => code(c.id)),
  );
  const monitors = evidence.flatMap((e) => (e.kind === "code" && e.present ? [e.monitor] : []));
  expect(monitors).toHaveLength(34);
  const found = searchMultipleFaults(predictor, evidence, undefined);
  expect(found.length).toBeGreaterThan(0);
  const setsSome = (h: number, at: number) => {
    const bits = predictor.codesSet(h, monitors);
    for (let i = at; i < bits.length; i += monitors.length) if (bits[i]) return true;
    return false;
  };
  for (const { members } of found)
    expect(monitors.map((_, at) => members.some((h) => setsSome(h, at)))).toEqual(monitors.map(() => true));
  const named = found.map(({ members }) =>
    members.map((h) => predictor.hypotheses[h]!.faults.map((f) => f.id).join(" ")).join(" + "),
  );
  expect(named.some((n) => n.includes("REF1/open") && n.includes("REF2/open"))).toBe(true);
}, 300_000);
