import type { Wiring } from "@radicula/core";
import ELK, { type ElkNode } from "elkjs/lib/elk.bundled.js";
import { buildMap, type MapGraph, type SetCode } from "./graph";
import { mapElkGraph, placedMap } from "./layout";
import type { Maps, PlacedMap } from "./placed";

type LayOut = (graph: ElkNode) => Promise<ElkNode>;
const here: LayOut = (graph) => new ELK().layout(graph);

/** Lays a map out: on the server, before the page is sent, and in tests. */
export async function layOutMap(graph: MapGraph, layOut: LayOut = here): Promise<PlacedMap> {
  return placedMap(graph, await layOut(mapElkGraph(graph)));
}

/** The map for the codes that are set, without and with feeds. */
export async function mapOf(wiring: Wiring, codes: readonly SetCode[], layOut?: LayOut): Promise<Maps> {
  const [short, full] = await Promise.all([
    layOutMap(buildMap(wiring, codes, false), layOut),
    layOutMap(buildMap(wiring, codes, true), layOut),
  ]);
  return { short, full };
}
