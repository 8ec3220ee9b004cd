import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { findNets } from "../wiring/nets.js";

const SUPPLIES: ReadonlySet<string> = new Set(["feed"]);
const MODULE_LINES: ReadonlySet<string> = new Set(["reference", "signal", "sensorGround", "bus"]);

/**
 * Whether a jumper would push a supply into a module: one end on a feed or the battery, the other on a line of a module
 * that is still plugged in (common practice, no source). @returns the module's pin, or undefined where nothing is pushed
 */
export function feedsModule(
  wiring: Wiring,
  jumper: { readonly from: string; readonly to: string },
  state: Pick<State, "unplugged">,
): string | undefined {
  const nets = findNets(wiring);
  const isSupply = (p: string) => p.endsWith(":+") || SUPPLIES.has(nets.functionOf(p));
  for (const [a, b] of [
    [jumper.from, jumper.to],
    [jumper.to, jumper.from],
  ] as const) {
    const pin = nets.modulePinOf(b);
    if (
      isSupply(a) &&
      pin !== undefined &&
      MODULE_LINES.has(nets.functionOf(b)) &&
      !state.unplugged.includes(pin.slice(0, pin.indexOf(":")))
    )
      return pin;
  }
  return undefined;
}
