import type { CodeEntry, Wiring } from "@radicula/core";
import { buildMap } from "./graph";
import { layOutMap, type PlacedMap } from "./layout";

/** The map for the codes that are set. */
export const mapOf = (wiring: Wiring, codes: readonly CodeEntry[]): Promise<PlacedMap> => layOutMap(buildMap(wiring, codes.filter((c) => c.status !== "absent")));
