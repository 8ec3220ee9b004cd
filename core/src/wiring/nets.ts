import type { Wiring } from "../format/wiring.js";
import { devicePins, indexWiring, resolvePlace } from "./points.js";

/** What a conductor is for, as a technician would call it. */
export type NetFunction = "reference" | "sensorGround" | "signal" | "driver" | "feed" | "ground" | "bus" | "unknown";

/** Points joined by copper alone when nothing is wrong: wires, mated contacts, splices. */
export interface Nets {
  /** net number by harness-side point */
  readonly netOf: ReadonlyMap<string, number>;
  /** what the net of a point is for */
  functionOf(point: string): NetFunction;
  /** the module pin the net of a point ends at, if any */
  modulePinOf(point: string): string | undefined;
}

/** Finds the nets of a document. Fuses and switches end a net; so do devices. */
export function findNets(wiring: Wiring): Nets {
  const parent = new Map<string, string>();
  const find = (p: string): string => {
    let root = p;
    while ((parent.get(root) ?? root) !== root) root = parent.get(root)!;
    parent.set(p, root);
    return root;
  };
  const join = (a: string, b: string) => parent.set(find(a), find(b));
  for (const wire of wiring.wires) join(wire.from, wire.to);
  for (const c of wiring.connectors)
    for (const cavity of c.cavities) {
      const point = `${c.id}:${cavity}`;
      if (c.inline) join(`${point}.a`, `${point}.b`);
      else find(point);
    }
  const roots = new Map<string, number>();
  const netOf = new Map(
    [...parent.keys()].map((p) => {
      const root = find(p);
      if (!roots.has(root)) roots.set(root, roots.size);
      return [p, roots.get(root)!] as const;
    }),
  );
  const { functions, pins } = nameNets(wiring, netOf);
  return {
    netOf,
    functionOf: (point) => functions.get(netOf.get(point) ?? -1) ?? "unknown",
    modulePinOf: (point) => pins.get(netOf.get(point) ?? -1),
  };
}

const BY_MODULE_ROLE: Readonly<Record<string, NetFunction>> = {
  reference: "reference",
  sensorGround: "sensorGround",
  input: "signal",
  supply: "feed",
  ground: "ground",
  lowSide: "driver",
  highSide: "feed",
  busHigh: "bus",
  busLow: "bus",
  busLine: "bus",
};
const BY_SENSOR_ROLE: Readonly<Record<string, NetFunction>> = {
  supply: "feed",
  supply2: "feed",
  feed: "feed",
  ground: "ground",
  ground2: "ground",
  signal: "signal",
  signal2: "signal",
  high: "signal",
  low: "signal",
  busHigh: "bus",
  busLow: "bus",
  busLine: "bus",
};

/** Module pins say best what a net is for; then grounds, batteries, fuses and switches; then the sensors on it. */
function nameNets(wiring: Wiring, netOf: ReadonlyMap<string, number>) {
  const functions = new Map<number, NetFunction>();
  const pins = new Map<number, string>();
  const name = (point: string, f: NetFunction | undefined) => {
    const net = netOf.get(point);
    if (net !== undefined && f && !functions.has(net)) functions.set(net, f);
  };
  const index = indexWiring(wiring);
  for (const d of wiring.devices)
    if (d.kind === "module")
      for (const pin of devicePins(d)) {
        name(pin.at, BY_MODULE_ROLE[pin.role]);
        const net = netOf.get(pin.at);
        if (net !== undefined && !pins.has(net)) pins.set(net, pin.at);
      }
  for (const wire of wiring.wires)
    for (const end of [wire.from, wire.to]) {
      const place = resolvePlace(index, end);
      if (!place.ok || place.value.type === "cavity") continue;
      const { kind } = place.value.device;
      if (kind === "ground" || end.endsWith(":-")) name(end, "ground");
      if (kind === "fuse" || kind === "breaker" || kind === "switch" || end.endsWith(":+")) name(end, "feed");
    }
  for (const d of wiring.devices)
    if (d.kind !== "module") for (const pin of devicePins(d)) name(pin.at, BY_SENSOR_ROLE[pin.role]);
  return { functions, pins };
}
