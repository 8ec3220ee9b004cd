import { CHASSIS, connectorOf, wireId, type Device, type Wiring } from "../../src/index.js";
import type { Inside } from "./devices.js";
import type { Hidden } from "./hiddenMachine.js";

/**
 * Everything that can be hidden in a machine: faults as workshops find them (common practice, no source). Severities
 * are drawn by the caller, `u` in [0, 1).
 */
export function hiddenFaults(wiring: Wiring): ((u: number) => Hidden)[] {
  const log = (low: number, high: number, u: number) => low * (high / low) ** u;
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  const list: ((u: number) => Hidden)[] = [];
  const cut = (repair: string, mode: string, part: string, low: number, high = low) =>
    list.push((u) => ({ repair, mode, series: { part, ohm: log(low, high, u) } }));
  const join = (repair: string, mode: string, a: string, b: string, low: number, high: number) =>
    list.push((u) => ({ repair, mode, shunt: { a, b, ohm: log(low, high, u) } }));

  for (const c of wiring.connectors)
    for (const cavity of c.cavities) {
      const name = `${c.id}:${cavity}`;
      if (![name, `${name}.a`].some((p) => wired.has(p))) continue;
      cut(`cavity ${name}`, "terminal open", `contact ${name}`, 1e9);
      cut(`cavity ${name}`, "terminal resistive", `contact ${name}`, 50, 20_000);
    }
  for (const w of wiring.wires) {
    const id = wireId(w);
    const kinds = [w.from, w.to].map((e) => wiring.devices.find((d) => d.id === connectorOf(e))?.kind);
    const isAt = (...some: Device["kind"][]) => kinds.some((k) => k !== undefined && some.includes(k));
    cut(`wire ${id}`, "wire open", `wire ${id}`, 1e9);
    cut(`wire ${id}`, "wire resistive", `wire ${id}`, 20, 5_000);
    if (!isAt("ground", "battery", "alternator")) join(`wire ${id}`, "wire to chassis", w.from, CHASSIS, 0.05, 3);
    if (!isAt("battery", "alternator", "fuse", "breaker", "switch", "ground"))
      join(`wire ${id}`, "wire to supply", w.from, "supply", 0.05, 3);
  }
  for (const d of wiring.devices) {
    if (d.kind === "ground") {
      cut(`ground ${d.id}`, "ground open", `ground ${d.id}`, 1e9);
      cut(`ground ${d.id}`, "ground resistive", `ground ${d.id}`, 5, 2_000);
    }
    if (d.kind === "fuse") cut(`fuse ${d.id}`, "fuse blown", `fuse ${d.id}`, 1e9);
    if (d.kind === "switch") cut(`switch ${d.id}`, "switch open", `switch ${d.id}`, 1e9);
    for (const [mode, low, high, at] of insideOf(d)) {
      const repair = `${d.kind === "relay" ? "relay" : d.kind === "module" ? "module" : "device"} ${d.id}`;
      list.push((u) => {
        const inside: Inside = { device: d.id, mode, ohm: low > 0 ? log(low, high, u) : low + (high - low) * u };
        return { repair, mode: `${d.kind} ${mode}`, inside: at === undefined ? inside : { ...inside, at } };
      });
    }
  }
  return list;
}

type InsideFault = readonly [Inside["mode"], number, number, string?];
function insideOf(d: Device): InsideFault[] {
  switch (d.kind) {
    case "threeWireSensor":
      return [
        ["dead", 1, 1],
        ["stuckHigh", 1, 1],
        ["shortSupplyGround", 1, 12],
        ["shortSignalGround", 1, 40],
        ["shortSignalSupply", 1, 40],
      ];
    case "potentiometer":
      return [
        ["open", 1, 1],
        ["shortSignalGround", 1, 40],
        ["shortSupplyGround", 1, 12],
      ];
    case "thermistor":
      return [
        ["open", 1, 1],
        ["shortSignalGround", 1, 40],
      ];
    case "hall":
      return [
        ["dead", 1, 1],
        ["shortSupplyGround", 1, 12],
        ["shortSignalGround", 1, 40],
      ];
    case "coilSensor":
      return [
        ["open", 1, 1],
        ["shortInside", 1, 20],
      ];
    case "smartSensor":
      return [
        ["silent", 1, 1],
        ["shortSupplyGround", 0.3, 3],
      ];
    case "heater":
    case "solenoid":
      return [
        ["open", 1, 1],
        ["aged", 1_500, 40_000],
      ];
    case "lamp":
      return [["open", 1, 1]];
    case "relay":
      return [
        ["coilOpen", 1, 1],
        ["contactBurnt", 20, 500],
      ];
    case "module":
      return d.pins.flatMap((p): InsideFault[] => {
        switch (p.role) {
          case "reference":
            return [["referenceDead", 1, 1, p.at]];
          case "input":
            return [["inputShort", 1, 20, p.at]];
          case "lowSide":
          case "highSide":
            return [["driverDead", 1, 1, p.at]];
          default:
            return [];
        }
      });
    default:
      return [];
  }
}
