import { devicePins, deviceConnectors, parseColour, subjectsOf, wireId, type Wiring } from "@radicula/core";

/**
 * What a search finds: things by name, place or part number, wires by colour or name, and the parts a code is about.
 */
export interface Found {
  readonly things: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
}

export function findIn(wiring: Wiring, text: string): Found | undefined {
  const words = text.trim().toLowerCase();
  if (words === "") return undefined;
  const things = new Set<string>();
  const wires = new Set<string>();
  const read = parseColour(text);
  for (const x of [...wiring.connectors, ...wiring.devices])
    if ([x.id, x.name, x.place, x.partNumber].some((t) => t?.toLowerCase().includes(words))) things.add(x.id);
  for (const w of wiring.wires) {
    const colour = w.colour ? parseColour(w.colour) : undefined;
    const same =
      read.status === "read" &&
      colour?.status === "read" &&
      (read.colour.stripe ? colour.colour.letters === read.colour.letters : colour.colour.base === read.colour.base);
    if (
      same ||
      [w.id, w.colour, w.bundle, w.from, w.to].some((t) => t?.toLowerCase() === words) ||
      w.bundle?.toLowerCase().includes(words)
    )
      wires.add(wireId(w));
  }
  for (const c of wiring.codes)
    if (c.id.toLowerCase() === words || (words.length > 3 && c.title?.toLowerCase().includes(words)))
      for (const d of subjectsOf(wiring, c.module, c.id)) things.add(d);
  for (const d of wiring.devices)
    if (things.has(d.id) && devicePins(d).length) deviceConnectors(d).forEach((c) => things.add(c));
  return { things, wires };
}
