import { DEFAULTS } from "../defaults.js";
import type { Wire, Wiring } from "../format/wiring.js";
import { connectorOf, wireId } from "../wiring/points.js";
import { fault, shuntBetween, type Fault } from "./fault.js";
import { WIRE, zoneFactor } from "./zones.js";

const { severity, prior } = DEFAULTS;

/** Wires this near each other in the list of their bundle are taken to lie side by side, where the bundle has more. */
const BESIDE = 6;
/** Where no bundle is named, wires so near each other in a plug are taken to leave it side by side. Judgement. */
const BESIDE_IN_PLUG = 2;
/** A neighbour that is only guessed counts so much of one that is known. Judgement. */
const GUESSED = 0.5;

/** Two wires that lie side by side, and how surely. */
interface Neighbours {
  readonly a: Wire;
  readonly b: Wire;
  /** among so many neighbours the rate of one wire is shared out */
  readonly among: number;
  readonly sure: number;
}

/** Each wire chafed onto each it lies beside: in its bundle, or where none is named in a plug of both. */
export function touchingWireFaults(wiring: Wiring, netOf: ReadonlyMap<string, number>): Fault[] {
  const inBundles = bundled(wiring);
  const known = new Set(inBundles.map(pairOf));
  const inPlugs = besideInPlugs(wiring).filter((n) => !known.has(pairOf(n)));
  return [...inBundles, ...inPlugs].flatMap(({ a, b, among, sure }) => {
    if (netOf.get(a.from) === netOf.get(b.from)) return [];
    const z = Math.max(zoneFactor(a.zones, WIRE), zoneFactor(b.zones, WIRE));
    const id = wireId(a);
    return [
      fault(
        { type: "wire", id },
        `${id}+${wireId(b)}`,
        "shortToWire",
        (2 * prior.wireToWire * z * sure) / among,
        severity.wireToWire,
        shuntBetween(a.from, b.from),
        { at: wireId(b) },
      ),
    ];
  });
}
const pairOf = ({ a, b }: Neighbours) => [wireId(a), wireId(b)].sort().join(" ");

/**
 * Wires side by side in a bundle. Where one names none, that of all others in a plug of it is taken to be its own, and
 * it to lie beside them.
 */
function bundled(wiring: Wiring): Neighbours[] {
  const plugs = wiresByPlug(wiring);
  const bundles = new Map<string, Wire[]>();
  for (const w of wiring.wires)
    if (w.bundle !== undefined) bundles.set(w.bundle, [...(bundles.get(w.bundle) ?? []), w]);
  for (const w of wiring.wires) {
    const beside = w.bundle === undefined ? besideOfOneBundle(w, plugs) : undefined;
    const list = bundles.get(beside?.bundle ?? "");
    if (beside && list) list.splice(list.indexOf(beside) + 1, 0, w);
  }
  return [...bundles.values()].flatMap((list) =>
    list.flatMap((a, i) =>
      list.slice(i + 1, i + 1 + BESIDE).map((b) => {
        const isGuessed = a.bundle === undefined || b.bundle === undefined;
        return { a, b, among: Math.min(list.length - 1, BESIDE), sure: isGuessed ? GUESSED : 1 };
      }),
    ),
  );
}
/** The plug or part with cavities that a point is of; undefined of a splice or ground. */
const plugOf = (point: string): string | undefined => (point.includes(":") ? connectorOf(point) : undefined);
function wiresByPlug(wiring: Wiring): ReadonlyMap<string, readonly Wire[]> {
  const plugs = new Map<string, Wire[]>();
  for (const w of wiring.wires)
    for (const plug of new Set([plugOf(w.from), plugOf(w.to)]))
      if (plug !== undefined) plugs.set(plug, [...(plugs.get(plug) ?? []), w]);
  return plugs;
}
/** The last wire in a plug of it, where all others there that name a bundle name the same one. */
function besideOfOneBundle(w: Wire, plugs: ReadonlyMap<string, readonly Wire[]>): Wire | undefined {
  for (const plug of [plugOf(w.from), plugOf(w.to)]) {
    const others = (plugs.get(plug ?? "") ?? []).filter((o) => o.bundle !== undefined);
    if (new Set(others.map((o) => o.bundle)).size === 1) return others.at(-1);
  }
  return undefined;
}

/** Wires of no known bundle, beside those that leave a plug next to them. Each pair once. */
function besideInPlugs(wiring: Wiring): Neighbours[] {
  const byCavity = new Map<string, Wire[]>();
  for (const w of wiring.wires) for (const end of [w.from, w.to]) byCavity.set(end, [...(byCavity.get(end) ?? []), w]);
  const order = new Map(wiring.wires.map((w, i) => [w, i]));
  const pairs = new Map<string, Neighbours>();
  for (const c of wiring.connectors) {
    for (const side of c.inline ? [".a", ".b"] : [""]) {
      const list = c.cavities.flatMap((x) => byCavity.get(`${c.id}:${x}${side}`) ?? []);
      list.forEach((one, i) => {
        for (const other of list.slice(i + 1, i + 1 + BESIDE_IN_PLUG)) {
          if (one === other || (one.bundle !== undefined && other.bundle !== undefined)) continue;
          const [a, b] = order.get(one)! < order.get(other)! ? [one, other] : [other, one];
          pairs.set(`${wireId(a)} ${wireId(b)}`, { a, b, among: 2 * BESIDE_IN_PLUG, sure: GUESSED });
        }
      });
    }
  }
  return [...pairs.values()];
}
