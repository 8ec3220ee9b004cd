import { sensors } from "../trade/machines.js";

// ohms on a conductor that a chip hangs on prove nothing, but an open circuit always tells: common practice, no source
const ohmsAtPlug = (id: string | undefined) => {
  const h = id === undefined ? 0 : 1 + sensors.faults.findIndex((f) => f.id === id);
  const state = { key: "off" as const, unplugged: ["B1"] };
  return sensors.predictAt(h, { instrument: "ohmmeter", point: "B1:3", black: undefined, state }).at(0);
};
test("ohms into a module's input prove nothing on a sound line, and are open where its wire is broken", () => {
  expect(ohmsAtPlug(undefined)).toBeNaN();
  expect(ohmsAtPlug("W13/open")).toBe(Infinity);
  expect(ohmsAtPlug("W13/shortToChassis")).toBeLessThan(150);
});
