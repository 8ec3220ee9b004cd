import type { State } from "../format/case.js";
import type { Caution, Device, Wiring } from "../format/wiring.js";
import { findNets } from "./nets.js";
import { connectorOf, deviceConnectors } from "./points.js";

/**
 * What must not be touched, and what may change places: facts of a wiring that planner and guided runs both keep to.
 */

/**
 * Restraint and high-voltage circuits are never probed; the makers' procedures come first (common practice, no source).
 */
const NEVER_PROBED: ReadonlySet<Caution> = new Set<Caution>(["restraint", "highVoltage"]);

/** Whether a part or connector is marked as one that is never probed. */
export const isNeverProbed = (x: { readonly cautions: readonly Caution[] }): boolean =>
  x.cautions.some((c) => NEVER_PROBED.has(c));

/** Connectors that must not be probed: their own caution, or that of a device on them. */
export function barredConnectors(wiring: Wiring): ReadonlySet<string> {
  const barred = new Set(wiring.connectors.filter(isNeverProbed).map((c) => c.id));
  for (const d of wiring.devices) if (isNeverProbed(d)) for (const c of deviceConnectors(d)) barred.add(c);
  return barred;
}

/** Whether a connector or part must not be probed or unplugged. */
export function isGuarded(wiring: Wiring, id: string): boolean {
  return barredConnectors(wiring).has(id) || wiring.devices.some((d) => d.id === id && isNeverProbed(d));
}

const MODULE_LINES: ReadonlySet<string> = new Set(["reference", "signal", "driver", "sensorGround", "bus"]);

/**
 * Whether a jumper would push a supply into a module: one end on a feed or the battery, the other on a line of a module
 * that is still plugged in (common practice, no source).
 * @returns the module's pin, or undefined where nothing is pushed
 */
export function feedsModule(
  wiring: Wiring,
  jumper: { readonly from: string; readonly to: string },
  state: Pick<State, "unplugged">,
): string | undefined {
  const nets = findNets(wiring);
  const isSupply = (p: string) => p.endsWith(":+") || nets.functionOf(p) === "feed";
  const isOpenLine = (p: string, pin: string) =>
    MODULE_LINES.has(nets.functionOf(p)) && !state.unplugged.includes(connectorOf(pin));
  for (const [a, b] of [
    [jumper.from, jumper.to],
    [jumper.to, jumper.from],
  ] as const) {
    const pin = nets.modulePinOf(b);
    if (isSupply(a) && pin !== undefined && isOpenLine(b, pin)) return pin;
  }
  return undefined;
}

/** The same part twice: the same number, where numbers are known; else the same name but for the side it is on. */
export function isTwin(a: Device, b: Device): boolean {
  if (a.kind !== b.kind) return false;
  if (a.partNumber !== undefined || b.partNumber !== undefined) return sameNumber(a, b);
  return a.name !== undefined && b.name !== undefined && a.side !== b.side && sideless(a) === sideless(b);
}
function sameNumber(a: Device, b: Device): boolean {
  if (a.partNumber === undefined || b.partNumber === undefined) return false;
  return (
    a.partNumber === b.partNumber ||
    (a.alsoNumbers ?? []).includes(b.partNumber) ||
    (b.alsoNumbers ?? []).includes(a.partNumber)
  );
}
/** "port oil pressure sensor" on the port side is an oil pressure sensor */
function sideless(d: Device): string {
  const words = d.name!.toLowerCase().split(" ");
  const side = d.side?.toLowerCase().split(" ") ?? [];
  return words.filter((word) => !side.includes(word)).join(" ");
}
