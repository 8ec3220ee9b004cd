import { DEFAULTS } from "../../src/defaults.js";
import type { Folded, Plan, Wiring } from "../../src/index.js";
import { compareCosts } from "../../src/planner/economics.js";
import { tugWiring } from "../warm.js";

const { labourPerHour, price, fitMinutes } = DEFAULTS.economics;
const NO_INTAKE = {} as Folded;
/** A plan whose leader is at one place; its best test takes ten minutes and tells nothing more. */
const planAt = (type: string, id: string, share: number): Plan =>
  ({
    grouped: { suspects: [{ id, type: "fault", share, places: [{ type, id }], members: [] }] },
    ranked: [{ candidate: { minutes: 10 }, bits: 1, joints: [] }],
  }) as unknown as Plan;

// a wrong part costs its price and the time to fit it; worked by hand
test.each(["device", "module", "relay"])("a %s that leads is weighed against one more test", (type) => {
  const found = compareCosts(tugWiring, planAt(type, "none of the drawing", 0.9), NO_INTAKE)!;
  const wrong = price + (fitMinutes * labourPerHour) / 60;
  expect(found.buyNow).toBeCloseTo(0.1 * wrong, 9);
  expect(found.testFirst).toBeCloseTo((10 * labourPerHour) / 60 + 0.1 * wrong, 9);
  expect(found).toMatchObject({ cheaper: "buy", priced: false, price });
});

test("a wire, a splice, nothing at all: there is no part to buy", () => {
  expect(compareCosts(tugWiring, planAt("wire", "W12", 0.9), NO_INTAKE)).toBeUndefined();
  expect(compareCosts(tugWiring, planAt("splice", "S14", 0.9), NO_INTAKE)).toBeUndefined();
  const nothing = { grouped: { suspects: [{ type: "nothing", places: [] }] }, ranked: [] } as unknown as Plan;
  expect(compareCosts(tugWiring, nothing, NO_INTAKE)).toBeUndefined();
});

test("what is told of prices is taken instead of the usual ones", () => {
  const priced = {
    ...tugWiring,
    devices: tugWiring.devices.map((d) => (d.id === "B9" ? { ...d, price: 300 } : d)),
  } as Wiring;
  const told = { intake: { entry: { labourPerHour: 120 } } } as unknown as Folded;
  const found = compareCosts(priced, planAt("device", "B9", 0.5), told)!;
  expect(found.buyNow).toBeCloseTo(0.5 * (300 + fitMinutes * 2), 9);
  expect(found.priced).toBe(true);
  expect(compareCosts(priced, planAt("device", "B9", 0.5), NO_INTAKE)!.priced).toBe(false);
});
