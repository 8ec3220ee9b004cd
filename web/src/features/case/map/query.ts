import type { Wiring } from "@radicula/core";
import ELK from "elkjs/lib/elk.bundled.js";
import { buildMap, type MapGraph, type SetCode } from "./graph";
import { mapElkGraph, placedMap } from "./layout";
import type { Maps, PlacedMap } from "./placed";

/** Lays a map out in this process: on the server, before the page is sent, and in tests. */
export async function layOutMap(graph: MapGraph): Promise<PlacedMap> {
  return placedMap(graph, await new ELK().layout(mapElkGraph(graph)));
}

/** The map for the codes that are set, without and with feeds. */
export async function mapOf(wiring: Wiring, codes: readonly SetCode[]): Promise<Maps> {
  const [short, full] = await Promise.all([
    layOutMap(buildMap(wiring, codes, false)),
    layOutMap(buildMap(wiring, codes, true)),
  ]);
  return { short, full };
}
