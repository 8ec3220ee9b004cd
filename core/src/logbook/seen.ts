import type { SeenEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { sameColour } from "../units/colour.js";
import { deviceConnectors } from "../wiring/points.js";
import type { Folded } from "./fold.js";

/** Colours of the wires at a connector, by cavity, as the wiring has them. */
export function coloursAt(wiring: Wiring, connector: string): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const w of wiring.wires)
    for (const end of [w.from, w.to]) {
      if (w.colour && end.startsWith(`${connector}:`))
        found.set(end.slice(connector.length + 1).replace(/\.[ab]$/, ""), w.colour);
    }
  return found;
}

/** The number the wiring has for a connector, or for the part on it. */
export const drawnPartNumber = (wiring: Wiring, connector: string): string | undefined =>
  numbered(wiring, connector)?.partNumber;
const numbered = (wiring: Wiring, connector: string) =>
  [
    wiring.connectors.find((c) => c.id === connector),
    wiring.devices.find((d) => deviceConnectors(d).includes(connector) && d.partNumber),
  ].find((x) => x?.partNumber);

/**
 * What a number read at a connector is to the drawn one: itself, one as good (superseded, or superseding), or another.
 * Spaces, dots and dashes do not count.
 * @returns undefined where none is drawn
 */
export function judgePartNumber(
  wiring: Wiring,
  connector: string,
  read: string,
): "drawn" | "asGood" | "another" | undefined {
  const of = numbered(wiring, connector);
  const is = (n: string) => bare(n) === bare(read);
  return of === undefined ? undefined : is(of.partNumber!) ? "drawn" : of.alsoNumbers?.some(is) ? "asGood" : "another";
}

export interface SeenMismatch {
  readonly connector: string;
  readonly colours: readonly { readonly cavity: string; readonly seen: string; readonly drawn: string }[];
  readonly cavities?: { readonly seen: number; readonly drawn: number };
  readonly partNumber?: { readonly seen: string; readonly drawn: string };
  /** connectors of the wiring that what was seen fits better, best first */
  readonly fits: readonly string[];
}

/** What stands on the machine against what is drawn. @returns undefined where they agree */
export function compareSeen(wiring: Wiring, seen: SeenEntry): SeenMismatch | undefined {
  const connector = wiring.connectors.find((c) => c.id === seen.connector);
  if (!connector) return undefined;
  const drawn = coloursAt(wiring, connector.id);
  const colours = seen.colours.flatMap((s) => {
    const d = drawn.get(s.cavity);
    return d !== undefined && !sameColour(d, s.colour) ? [{ cavity: s.cavity, seen: s.colour, drawn: d }] : [];
  });
  const cavities =
    seen.cavities !== undefined && seen.cavities !== connector.cavities.length
      ? { seen: seen.cavities, drawn: connector.cavities.length }
      : undefined;
  const partNumber =
    seen.partNumber && judgePartNumber(wiring, connector.id, seen.partNumber) === "another"
      ? { seen: seen.partNumber, drawn: drawnPartNumber(wiring, connector.id)! }
      : undefined;
  if (!colours.length && !cavities && !partNumber) return undefined;
  const own = agreement(wiring, connector.id, seen);
  const fits = wiring.connectors
    .filter((c) => c.id !== connector.id && c.inline === connector.inline)
    .map((c) => ({
      id: c.id,
      score:
        agreement(wiring, c.id, seen) +
        (connector.lookAlikes?.includes(c.id) || c.lookAlikes?.includes(connector.id) ? 0.5 : 0),
    }))
    .filter((c) => c.score > own && c.score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, 3)
    .map((c) => c.id);
  return {
    connector: connector.id,
    colours,
    ...(cavities ? { cavities } : {}),
    ...(partNumber ? { partNumber } : {}),
    fits,
  };
}
const bare = (number: string) => number.toUpperCase().replace(/[\s.-]/g, "");

/** Colours that agree less colours that do not; the count of cavities and the part number count as two colours each. */
function agreement(wiring: Wiring, id: string, seen: SeenEntry): number {
  const drawn = coloursAt(wiring, id);
  const connector = wiring.connectors.find((c) => c.id === id)!;
  let score = 0;
  for (const s of seen.colours) {
    const d = drawn.get(s.cavity);
    score += d === undefined ? -1 : sameColour(d, s.colour) ? 1 : -1;
  }
  if (seen.cavities !== undefined) score += seen.cavities === connector.cavities.length ? 2 : -2;
  const number = seen.partNumber ? judgePartNumber(wiring, id, seen.partNumber) : undefined;
  if (number) score += number === "another" ? -2 : 2;
  return score;
}

/** Numbers of the readings taken at a connector, or with it unplugged: what moves when it was another one. */
export function readingsAt({ readings }: Pick<Folded, "readings">, connector: string): number[] {
  return readings
    .filter(
      ({ entry }) =>
        entry.state.unplugged.includes(connector) ||
        (entry.instrument !== "scanTool" && entry.points.some((p) => p.startsWith(`${connector}:`))),
    )
    .map((r) => r.number);
}

/** The wrong-drawing or wrong-component remarks, with the readings that were taken there. */
export function seenRemarks(wiring: Wiring, folded: Pick<Folded, "seen" | "readings">): Issue[] {
  return folded.seen.flatMap(({ number, entry }) => {
    const m = compareSeen(wiring, entry);
    if (!m) return [];
    const readings = readingsAt(folded, m.connector).map(String);
    return [
      issue("remark.not-as-drawn", ["entries", number - 1], {
        connector: m.connector,
        fits: m.fits,
        readings,
        cavities: m.colours.map((c) => c.cavity),
        seen: m.colours.map((c) => c.seen),
        drawn: m.colours.map((c) => c.drawn),
        ...(m.cavities ? { countSeen: m.cavities.seen, countDrawn: m.cavities.drawn } : {}),
        ...(m.partNumber ? { partSeen: m.partNumber.seen, partDrawn: m.partNumber.drawn } : {}),
      }),
    ];
  });
}
