import type { Device } from "../format/wiring.js";

/**
 * Kinds whose ends are terminals of their own (`F12:in`), not cavities of a connector. Wires may end there more than
 * once.
 */
export const TERMINALS: Readonly<Partial<Record<Device["kind"], readonly string[]>>> = {
  battery: ["+", "-"],
  alternator: ["+", "-"],
  fuse: ["in", "out"],
  breaker: ["in", "out"],
  switch: ["in", "out"],
  diode: ["anode", "cathode"],
};
/** Kinds that are one point. */
export const STAR_KINDS: ReadonlySet<Device["kind"]> = new Set(["splice", "ground"]);
/** Kinds that sense or act: everything that is not supply, protection, joint or module. */
export const isPeripheral = (d: Device): boolean => d.kind !== "module" && d.kind !== "relay" && "pins" in d;
/** In line with a conductor: current goes in at one end and out at the other. */
export const inLineEnds = (d: Device): readonly [string, string] | undefined => {
  const ends = TERMINALS[d.kind];
  return ends && ends[0] !== "+" ? [`${d.id}:${ends[0]}`, `${d.id}:${ends[1]}`] : undefined;
};
