import type { Spot } from "./drawnWires.js";

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
interface Pin {
  readonly cavity: string;
  readonly at: Spot;
}
/** A place stands on an edge where it is this near to it, as a share of the box. Judgement. */
const ON_EDGE = 0.15;
/** Two places are across from each other where they differ this little along the edge, as a share of it. Judgement. */
const ACROSS = 0.08;
/** Names of connectors that join harness to harness (common practice, no source). */
const JOINS_HARNESSES = /^X\d/i;

/** On which of two opposite edges each pin stands, and where along it; undefined where they stand otherwise. */
function onTwoEdges(box: Box, pins: readonly Pin[]) {
  for (const i of [0, 1] as const) {
    const [start, size, along, length] =
      i === 0 ? [box.x, box.width, box.y, box.height] : [box.y, box.height, box.x, box.width];
    const sides = pins.map(({ at }) => {
      const share = (at[i] - start) / size;
      const side = share < ON_EDGE ? ("a" as const) : share > 1 - ON_EDGE ? ("b" as const) : undefined;
      return side && { side, along: (at[1 - i]! - along) / length };
    });
    if (sides.every((s) => s !== undefined)) return sides;
  }
  return undefined;
}

/**
 * The pins of a box through which every wire goes straight: an in-line connector, each cavity with its two sides. The
 * number may stand at both sides or, in a connector named as such, at one.
 * @param isRead whether a pin's number is written beside it
 * @returns undefined where the box is none
 */
export function throughPins<P extends Pin>(
  box: Box,
  name: string | undefined,
  pins: readonly P[],
  isRead: (pin: P) => boolean,
): P[] | undefined {
  const edges = pins.length > 1 && pins.length % 2 === 0 ? onTwoEdges(box, pins) : undefined;
  if (!edges) return undefined;
  const left = new Set(pins.keys());
  const numbers = new Map<number, string>();
  for (const [i, pin] of pins.entries()) {
    if (edges[i]!.side !== "a") continue;
    const j = [...left].find((k) => edges[k]!.side === "b" && Math.abs(edges[k]!.along - edges[i]!.along) < ACROSS);
    if (j === undefined) return undefined;
    const other = pins[j]!;
    const written = [pin, other].filter(isRead);
    const isOne = written.length === 1 && JOINS_HARNESSES.test(name ?? "");
    if (!isOne && !(written.length === 2 && pin.cavity.toUpperCase() === other.cavity.toUpperCase())) return undefined;
    numbers.set(i, written[0]!.cavity).set(j, written[0]!.cavity);
    left.delete(i);
    left.delete(j);
  }
  if (left.size > 0 || new Set(numbers.values()).size !== pins.length / 2) return undefined;
  return pins.map((p, i) => ({ ...p, cavity: `${numbers.get(i)!}.${edges[i]!.side}` }));
}

/** Names for the pins of an in-line connector: the side by the edge at which each stands. */
export function sidedCavities(box: Box & { readonly pins: readonly Pin[] }): string[] {
  const edges = onTwoEdges(box, box.pins);
  return box.pins.map(({ cavity }, i) => (edges && !/\.[ab]$/i.test(cavity) ? `${cavity}.${edges[i]!.side}` : cavity));
}
