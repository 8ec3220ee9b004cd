import type { Folded, Wiring } from "@radicula/core";
import { buildMap } from "./graph";
import { layOutMap } from "./layout";
import type { Maps } from "./placed";

/** The map for the codes that are set, without and with feeds. */
export async function mapOf(wiring: Wiring, codes: readonly Folded["codes"][number]["entry"][]): Promise<Maps> {
  const present = codes.filter((c) => c.status !== "absent" && c.status !== "notRun");
  const [short, full] = await Promise.all([
    layOutMap(buildMap(wiring, present, false)),
    layOutMap(buildMap(wiring, present, true)),
  ]);
  return { short, full };
}
