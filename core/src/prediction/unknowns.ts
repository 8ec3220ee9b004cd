import type { Device } from "../format/wiring.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";
import type { ReadingPlace } from "./piece.js";
import type { Predictor } from "./predictor.js";

/**
 * Readings that hang on the same unknown: the true condition at one sensor is one and the same at every pin of its
 * signal, the battery's voltage at every feed. Readings of different families are taken to hang on different unknowns.
 */
export interface Families {
  /** family of a reading, by name */
  of(e: Omit<ReadingPlace, "state">): string;
  /** draws in the order of the unknown that drives a family; undefined where none does */
  order(family: string): readonly number[] | undefined;
}

const known = new WeakMap<Predictor, Families>();

/** Families of a wiring, made once. */
export function familiesOf(predictor: Predictor): Families {
  let families = known.get(predictor);
  if (!families) known.set(predictor, (families = makeFamilies(predictor)));
  return families;
}
function makeFamilies(predictor: Predictor): Families {
  const nets = findNets(predictor.wiring);
  const drivers = new Map<string, string>();
  for (const d of predictor.wiring.devices)
    for (const p of signalPins(d)) {
      const net = nets.netOf.get(p);
      if (net !== undefined) drivers.set(`net ${net}`, d.id);
    }
  const orders = new Map<string, readonly number[] | undefined>();
  return {
    of: (e) => {
      if (e.instrument === "clamp") return "amperes";
      const f = nets.functionOf(e.point);
      const net = nets.netOf.get(e.point);
      const base =
        net === undefined
          ? e.point.includes(":") && !e.point.includes("#")
            ? "feed"
            : `at ${e.point}`
          : f === "feed" || f === "unknown"
            ? "feed"
            : `net ${net}`;
      return e.instrument === "ohmmeter" || e.instrument === "continuity"
        ? `ohms ${base}`
        : e.instrument === "scope"
          ? `swing ${base}`
          : e.instrument === "scopeLow" || e.instrument === "scopeHigh"
            ? `level ${base}`
            : base;
    },
    order: (family) => {
      if (orders.has(family)) return orders.get(family);
      const driver = drivers.get(family);
      const rest = driver === undefined ? undefined : predictor.restOf(driver);
      const order = rest ? Array.from(rest.keys()).sort((a, b) => rest[a]! - rest[b]!) : undefined;
      orders.set(family, order);
      return order;
    },
  };
}
const signalPins = (d: Device) =>
  d.kind === "module"
    ? []
    : devicePins(d)
        .filter((p) => p.role.startsWith("signal") || p.role === "high")
        .map((p) => p.at);
