import type { Wiring } from "../format/wiring.js";
import { inLineEnds, isPeripheral } from "./kinds.js";
import { deviceConnectors, devicePins, indexWiring, resolvePlace, wireId, type Index } from "./points.js";

/**
 * Which things (wires, in-line cavities, splices, grounds, fuses, module pins) each sensor's circuits pass through on
 * their way to feed, reference, ground and module.
 */
export function thingsOnTheWay(wiring: Wiring): ReadonlyMap<string, ReadonlySet<string>> {
  const index = indexWiring(wiring);
  const neighbours = buildNeighbours(wiring, index);
  const distance = distances(neighbours);
  const result = new Map<string, ReadonlySet<string>>();
  for (const device of wiring.devices) {
    if (!isPeripheral(device)) continue;
    const things = new Set<string>();
    for (const pin of devicePins(device)) walk(pin.at, neighbours, distance, things);
    for (const own of deviceConnectors(device)) things.delete(own);
    result.set(device.id, things);
  }
  return result;
}

/**
 * Follows copper from one point downhill, always nearer to a module, ground or battery: never up another branch of a
 * splice to another sensor.
 */
function walk(start: string, neighbours: Neighbours, distance: ReadonlyMap<string, number>, things: Set<string>) {
  const seen = new Set([start]);
  let front = [start];
  while (front.length) {
    const next: string[] = [];
    for (const point of front) {
      for (const n of neighbours.get(point) ?? []) {
        if (n.to !== ROOT && (seen.has(n.to) || (distance.get(n.to) ?? Infinity) >= (distance.get(point) ?? Infinity)))
          continue;
        things.add(n.thing);
        if (n.to === ROOT) continue;
        if (!n.to.includes(":")) things.add(n.to); // a splice has no terminals
        seen.add(n.to);
        next.push(n.to);
      }
    }
    front = next;
  }
}

/** Steps from each point to the nearest root (module pin, ground, battery). */
function distances(neighbours: Neighbours): ReadonlyMap<string, number> {
  const distance = new Map<string, number>();
  let front = [...neighbours].filter(([, list]) => list.some((n) => n.to === ROOT)).map(([point]) => point);
  front.forEach((point) => distance.set(point, 0));
  for (let step = 1; front.length; step++) {
    const next: string[] = [];
    for (const point of front) {
      for (const { to } of neighbours.get(point) ?? []) {
        if (to === ROOT || distance.has(to)) continue;
        distance.set(to, step);
        next.push(to);
      }
    }
    front = next;
  }
  return distance;
}

type Neighbours = ReadonlyMap<string, readonly { readonly to: string; readonly thing: string }[]>;
const ROOT = "";

function buildNeighbours(wiring: Wiring, index: Index) {
  const neighbours = new Map<string, { to: string; thing: string }[]>();
  const link = (a: string, b: string, thing: string) => {
    for (const [x, y] of [
      [a, b],
      [b, a],
    ] as const) {
      if (x === ROOT) continue;
      const list = neighbours.get(x) ?? [];
      list.push({ to: y, thing });
      neighbours.set(x, list);
    }
  };
  for (const wire of wiring.wires) {
    link(wire.from, wire.to, wireId(wire));
    for (const end of [wire.from, wire.to]) {
      const place = resolvePlace(index, end);
      if (place.ok && place.value.type === "star" && place.value.device.kind === "ground")
        link(end, ROOT, place.value.device.id);
      if (
        place.ok &&
        place.value.type === "terminal" &&
        (place.value.device.kind === "battery" || place.value.device.kind === "alternator")
      )
        link(end, ROOT, place.value.device.id);
    }
  }
  for (const c of wiring.connectors)
    if (c.inline)
      for (const cavity of c.cavities) link(`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`, `${c.id}:${cavity}`);
  for (const d of wiring.devices) {
    const ends = inLineEnds(d);
    if (ends) link(...ends, d.id);
    if (d.kind === "relay")
      for (const contact of [d.pins.working, d.pins.resting]) if (contact) link(d.pins.common, contact, d.id);
    if (d.kind === "module") for (const pin of devicePins(d)) link(pin.at, ROOT, pin.at);
  }
  return neighbours;
}
