import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultMode } from "../faults/fault.js";
import type { RepairedEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { connectorOf, deviceConnectors } from "../wiring/points.js";

type Way = RepairedEntry["how"];

/** Faults of terminals and joints: what cleaning, seating and handling may move. */
export const CONTACT_MODES: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "contactOpen",
  "contactHighResistance",
  "contactFilm",
  "unseated",
  "legOpen",
  "legHighResistance",
  "spliceHighResistance",
  "groundOpen",
  "groundHighResistance",
  "fuseHighResistance",
]);
/** What each way of working can cure; the ways that are not here can cure any fault of the thing. */
const ONLY: Readonly<Partial<Record<Way, ReadonlySet<FaultMode>>>> = {
  cleaned: new Set<FaultMode>([
    "contactHighResistance",
    "contactFilm",
    "contactOpen",
    "cavitiesBridged",
    "legHighResistance",
    "spliceHighResistance",
    "groundHighResistance",
    "groundOpen",
    "fuseHighResistance",
    "trueCondition",
    "targetDamaged",
  ]),
  reseated: new Set<FaultMode>([
    "contactOpen",
    "contactHighResistance",
    "contactFilm",
    "unseated",
    "groundOpen",
    "groundHighResistance",
    "fuseHighResistance",
    "fuseBlown",
    "cavitiesSwapped",
  ]),
  adjusted: new Set<FaultMode>(["gapTooLarge", "trueCondition", "biased", "targetDamaged", "unseated"]),
};

/** Where one works on a wiring: terminals of a connector, connectors of a part. */
export class RepairedPlaces {
  private readonly plugs: ReadonlyMap<string, readonly string[]>;
  private readonly devices: ReadonlySet<string>;

  constructor(wiring: Wiring) {
    this.plugs = new Map(wiring.devices.map((d) => [d.id, deviceConnectors(d)]));
    this.devices = new Set(wiring.devices.map((d) => d.id));
  }

  /**
   * How likely a repair cures a fault, done by somebody who works with care: 0 where it is somewhere else, or is
   * nothing that this way of working cures. Product judgement, no source.
   */
  chance(repair: RepairedEntry, fault: Pick<Fault, "place" | "at" | "mode">): number {
    if (!repair.things.some((thing) => this.isAt(repair, thing, fault))) return 0;
    const only = ONLY[repair.how];
    if (only && !only.has(fault.mode)) return 0;
    const { done, part } = DEFAULTS.repair;
    const bad = (1 - done[repair.how]) * (repair.how === "replaced" ? part[repair.part?.condition ?? "new"] : 1);
    return 1 - Math.min(1, bad * (repair.part?.measured ? DEFAULTS.repair.measured : 1));
  }
  private isAt(repair: RepairedEntry, thing: string, { place, at }: Pick<Fault, "place" | "at">): boolean {
    if (place.id === thing || at === thing) return true;
    const home = connectorOf(place.id);
    if (home === thing) return true;
    if (!this.devices.has(thing) || home === place.id) return false;
    // the terminals of a part: where its connector was renewed with it, or where they were worked on
    const withPlug = repair.how === "replaced" ? (repair.part?.with.includes("connector") ?? false) : true;
    return withPlug && (this.plugs.get(thing)?.includes(home) ?? false);
  }

  /** Connectors that were taken apart for a repair, and put together again. */
  handled({ things }: RepairedEntry): readonly string[] {
    return things.flatMap((t) => [connectorOf(t), ...(this.plugs.get(t) ?? [])]);
  }
}
