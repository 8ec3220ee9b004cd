import { DEFAULTS } from "../defaults.js";
import type { Wiring } from "../format/wiring.js";
import { connectorOf, deviceConnectors } from "../wiring/points.js";
import type { ReadingEvidence } from "./evidence.js";

/** Everything logged at one connector was really done at another that is easily taken for it. */
export interface Misplacement {
  readonly from: string;
  readonly to: string;
  readonly logPrior: number;
  /** where a reading was really taken, and what was really unplugged for it */
  moved<T extends Pick<ReadingEvidence, "instrument" | "point" | "black" | "state">>(reading: T): T;
}

/**
 * For each connector with readings, the ones it may have been taken for: declared look-alikes, and parts of the same
 * kind with as many cavities.
 */
export function misplacements(wiring: Wiring, readings: readonly ReadingEvidence[]): Misplacement[] {
  const touched = new Set(
    readings.flatMap((e) => [
      ...e.state.unplugged,
      ...(e.instrument === "scanTool" || e.instrument === "clamp" ? [] : [connectorOf(e.point)]),
    ]),
  );
  return wiring.connectors
    .filter((c) => touched.has(c.id))
    .flatMap((c) => lookAlikes(wiring, c.id).map(({ to, declared }) => misplacement(c.id, to, declared)));
}

export function misplacement(from: string, to: string, declared: boolean): Misplacement {
  const id = (x: string) => (x === from ? to : x);
  const point = (p: string) => (p.startsWith(`${from}:`) ? `${to}${p.slice(from.length)}` : p);
  return {
    from,
    to,
    logPrior: Math.log(declared ? DEFAULTS.misplaced.lookAlike : DEFAULTS.misplaced.sameShape),
    moved: (r) => ({
      ...r,
      point: r.instrument === "scanTool" ? r.point : point(r.point),
      ...(r.black === undefined ? {} : { black: point(r.black) }),
      ...(r.state.unplugged.includes(from) ? { state: { ...r.state, unplugged: r.state.unplugged.map(id) } } : {}),
    }),
  };
}

/** Connectors with every cavity that `id` has, easily taken for it. */
export function lookAlikes(wiring: Wiring, id: string): { readonly to: string; readonly declared: boolean }[] {
  const own = wiring.connectors.find((c) => c.id === id);
  if (!own) return [];
  const on = (connector: string) =>
    wiring.devices.find((d) => d.kind !== "module" && deviceConnectors(d).includes(connector));
  const device = on(id);
  const named = new Set([...(own.lookAlikes ?? []), ...(device?.lookAlikes ?? [])]);
  return wiring.connectors.flatMap((c): { to: string; declared: boolean }[] => {
    if (c.id === id || c.inline !== own.inline || own.cavities.some((x) => !c.cavities.includes(x))) return [];
    const other = on(c.id);
    const back = new Set([...(c.lookAlikes ?? []), ...(other?.lookAlikes ?? [])]);
    const declared =
      named.has(c.id) ||
      (other !== undefined && named.has(other.id)) ||
      back.has(id) ||
      (device !== undefined && back.has(device.id));
    if (declared) return [{ to: c.id, declared }];
    return device && other && device.kind === other.kind && c.cavities.length === own.cavities.length && !c.inline
      ? [{ to: c.id, declared: false }]
      : [];
  });
}
