import { type Analysis, type FaultMode, connectorOf } from "@radicula/core";
import type { PlacedMapEdge, PlacedMap } from "./placed";

/** Feeds are drawn from this share of suspicion on. Judgement. */
const FEED_SHOWN = 0.03;
/** The side of a sensor that a conductor serves. */
const PART_SIDE: Readonly<Partial<Record<PlacedMapEdge["function"], string>>> = {
  signal: "signal",
  reference: "supply",
  feed: "supply",
};

/** On which of a sensor's circuits a fault inside it acts. */
const ACTS_ON: Readonly<Partial<Record<FaultMode, "supply" | "signal">>> = {
  shortSupplyGround: "supply",
  shortSignalGround: "signal",
  shortSignalSupply: "signal",
  shortInside: "signal",
  elementOpen: "signal",
  dead: "signal",
  biased: "signal",
  wrongPart: "signal",
  trueCondition: "signal",
  targetDamaged: "signal",
  gapTooLarge: "signal",
};

export interface MapSuspicion {
  /** how much suspicion passes through each wire on its way to the root; 0 to 1, by wire id */
  readonly through: ReadonlyMap<string, number>;
  /** suspicion on one thing itself: device, splice, cavity, wire, module pin; by id */
  readonly on: ReadonlyMap<string, number>;
}

/**
 * Lets suspicion run down the map: what is suspected at a sensor, a cavity, a wire or a splice passes through every
 * wire between it and the module, so that the thickest line leads from the codes to the likeliest root.
 */
export function suspicionOnMap(map: PlacedMap, analysis: Pick<Analysis, "suspicion" | "suspects">): MapSuspicion {
  const on = analysis.suspicion;
  const rank = new Map(map.nodes.map((n) => [n.id, n.rank]));
  const pool = new Map<string, number>(); // node and conductor → suspicion that has arrived there
  const key = (node: string, e: PlacedMapEdge) => `${node} ${e.function === "sensorGround" ? "ground" : e.function}`;
  const inside = sensorShares(analysis.suspects);
  const through = new Map<string, number>();
  const edges = map.edges
    .filter((e) => e.function !== "watch")
    .sort((a, b) => (rank.get(a.from) ?? 0) - (rank.get(b.from) ?? 0));
  const ways = new Map<string, number>();
  for (const e of edges) ways.set(key(e.from, e), (ways.get(key(e.from, e)) ?? 0) + 1);
  for (const e of edges) {
    const from = map.nodes.find((n) => n.id === e.from);
    let share = on.get(e.id) ?? 0;
    if (from?.type === "sensor")
      share += (on.get(e.fromPoint) ?? 0) + (inside.get(`${from.id} ${PART_SIDE[e.function] ?? ""}`) ?? 0);
    else if (from?.type === "splice")
      share += ((pool.get(key(e.from, e)) ?? 0) + (on.get(from.id) ?? 0)) / (ways.get(key(e.from, e)) ?? 1);
    else if (from?.type === "inline")
      share += (pool.get(key(e.from, e)) ?? 0) + (on.get(e.fromPoint.replace(/\.[ab]$/, "")) ?? 0);
    through.set(e.id, Math.min(1, share));
    pool.set(key(e.to, e), (pool.get(key(e.to, e)) ?? 0) + share);
  }
  return { through, on };
}

function sensorShares(suspects: Analysis["suspects"]): ReadonlyMap<string, number> {
  const shares = new Map<string, number>();
  for (const m of suspects.flatMap((s) => s.members)) {
    const side = ACTS_ON[m.fault.mode];
    if (!side || (m.fault.place.type !== "device" && m.fault.place.type !== "machine")) continue;
    const name = `${m.fault.place.id} ${side}`;
    shares.set(name, (shares.get(name) ?? 0) + m.share);
  }
  return shares;
}

/** Feeds are drawn once a suspect, a reading or the next reading lies there. */
export function showsFeeds(
  full: PlacedMap,
  analysis: Pick<Analysis, "suspicion" | "readings"> | undefined,
  next: { readonly points: readonly string[] } | undefined,
): boolean {
  const feeds = new Set(full.feeds);
  const there = (point: string) => feeds.has(connectorOf(point));
  return (
    full.feeds.some((id) => (analysis?.suspicion.get(id) ?? 0) >= FEED_SHOWN) ||
    (next?.points.some(there) ?? false) ||
    (analysis?.readings.some((r) => there(r.point)) ?? false)
  );
}
