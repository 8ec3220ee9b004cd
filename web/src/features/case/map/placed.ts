import type { MapGraph, MapNode, MapPort } from "./graph";

/** The map once everything has its place, as it travels from the server to the page. */
export interface PlacedMapNode extends Omit<MapNode, "ports"> {
  readonly x: number;
  readonly y: number;
  readonly ports: readonly PlacedPort[];
}
export interface PlacedPort extends MapPort {
  readonly cx: number;
  readonly cy: number;
}
export interface PlacedMapEdge {
  readonly id: string;
  readonly function: MapGraph["edges"][number]["function"];
  readonly from: string;
  readonly to: string;
  readonly fromPoint: string;
  readonly toPoint: string;
  readonly path: string;
  readonly middle: readonly [number, number];
}
export interface PlacedMap {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly PlacedMapNode[];
  readonly edges: readonly PlacedMapEdge[];
  readonly hidden: number;
  readonly feeds: readonly string[];
}
/** The map without and with what feeds the modules; the second is shown once suspicion or a reading goes there. */
export interface Maps {
  readonly short: PlacedMap;
  readonly full: PlacedMap;
}

/** Where the dot of a splice or part stands in its box; its words stand to the right. */
export const DOT_X = 12;
