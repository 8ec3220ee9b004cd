import { placeKey, type FaultView, type Suspect } from "../diagnosis/groups.js";
import { DEFAULTS } from "../defaults.js";
import type { FaultMode } from "../faults/fault.js";
import type { Wiring } from "../format/wiring.js";
import { findNets, type NetFunction } from "../wiring/nets.js";
import { connectorOf, deviceConnectors, wireId } from "../wiring/points.js";
import type { Cost, Position } from "./cost.js";
import { netsOfFault, netsOfPlaces, partOnAll } from "./placeNets.js";

/** One thing a person would do: mend this terminal, wire or splice leg, replace this part; or several such at once. */
export interface Repair {
  /** what it touches, by place */
  readonly id: string;
  /** the likeliest fault there, or all faults that are there at once */
  readonly faults: readonly FaultView[];
  /** of all belief */
  readonly share: number;
}

/** What is wrong, whichever of the repairs it takes. */
export type ProvenKind = "open" | "resistive" | "toChassis" | "toSupply";

/** What is proven of the leading suspect, and which repairs are still open. */
export interface Outcome {
  /** only one repair is open; otherwise it is one of several, and nobody knows which */
  readonly isOneRepair: boolean;
  /** something else is wrong too, and not pinned down yet */
  readonly isNotAll: boolean;
  /** in the order to look: the most chance for the least way */
  readonly repairs: readonly Repair[];
  /** what all of them have in common; undefined where they differ */
  readonly kind: ProvenKind | undefined;
  /** the conductor that all of them are on: what it is for, and the module's pin on it, or another of its points */
  readonly conductor: { readonly use: NetFunction; readonly point: string } | undefined;
  /** the one part, not a module, in whose circuit all of them are */
  readonly part: string | undefined;
}

/** A repair holds a verdict by itself from this share on. Judgement: one in twenty verdicts may be wrong. */
const ALONE_FROM = 0.95;
/** Repairs with less than this of the suspect's share are not named. Judgement. */
const NAMED_FROM = 0.01;
const KINDS: Partial<Record<FaultMode, ProvenKind>> = {
  open: "open",
  contactOpen: "open",
  legOpen: "open",
  unseated: "open",
  groundOpen: "open",
  highResistance: "resistive",
  contactHighResistance: "resistive",
  contactFilm: "resistive",
  legHighResistance: "resistive",
  spliceHighResistance: "resistive",
  groundHighResistance: "resistive",
  fewStrands: "resistive",
  shortToChassis: "toChassis",
  shortToSupply: "toSupply",
};

/** The repairs that a suspect holds, the likeliest first. Their shares are of all belief. */
export function repairsOf(suspect: Pick<Suspect, "members">): Repair[] {
  const by = new Map<string, Repair>();
  for (const { faults, share } of suspect.members) {
    const id = [...new Set(faults.map(placeKey))].sort().join(" + ");
    const known = by.get(id);
    by.set(id, known ? { ...known, share: known.share + share } : { id, faults, share });
  }
  return [...by.values()].sort((a, b) => b.share - a.share);
}

const isAlone = (r: Repair) => r.share >= ALONE_FROM;

/** What a verdict on this suspect would leave open: one repair where it holds enough by itself, or all of a group. */
export function openRepairs(suspect: Pick<Suspect, "members" | "share">): Repair[] {
  const all = repairsOf(suspect);
  return all[0] && isAlone(all[0]) ? [all[0]] : all.filter((r) => r.share >= NAMED_FROM * suspect.share);
}

/**
 * What a verdict on the leading suspect would say.
 * @param from where one stands: sets the order to look in
 * @param isNotAll something else is wrong too, and not pinned down yet
 */
export function outcomeOf(wiring: Wiring, leader: Suspect, cost: Cost, from: Position, isNotAll = false): Outcome {
  const open = openRepairs(leader);
  const isOneRepair = open.length === 1;
  const rate = (r: Repair) => r.share / (DEFAULTS.plan.minutes.take.look + minutesTo(wiring, r, cost, from));
  const repairs = open.sort((a, b) => rate(b) - rate(a));
  if (leader.type !== "fault")
    return { isOneRepair, isNotAll, repairs, kind: undefined, conductor: undefined, part: undefined };
  return { isOneRepair, isNotAll, repairs, kind: kindOf(leader), ...sharedBy(wiring, repairs) };
}

/** What nearly all of a suspect's share has in common. */
function kindOf({ members, share }: Suspect): ProvenKind | undefined {
  const by = new Map<ProvenKind | undefined, number>();
  for (const m of members) {
    const kind = KINDS[m.fault.mode];
    by.set(kind, (by.get(kind) ?? 0) + m.share);
  }
  return [...by].find(([, sum]) => sum >= ALONE_FROM * share)?.[0];
}

/** How far it is to what a repair touches: of a wire the nearer end, of a part its plug. */
function minutesTo(wiring: Wiring, { faults }: Repair, cost: Cost, from: Position): number {
  const wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
  const plugs = new Map(wiring.devices.map((d) => [d.id, deviceConnectors(d)]));
  return faults.reduce((sum, { place }) => {
    const wire = wires.get(place.id);
    const ends = wire ? [connectorOf(wire.from), connectorOf(wire.to)] : (plugs.get(place.id) ?? []);
    const goals = ends.length ? ends : [connectorOf(place.id)];
    return sum + Math.min(...goals.map((e) => cost.reach(e, from)));
  }, 0);
}

/** The one conductor that everything named is on, and the one part in whose circuit all of it is. */
function sharedBy(wiring: Wiring, repairs: readonly Repair[]): Pick<Outcome, "conductor" | "part"> {
  const nets = findNets(wiring);
  const at = netsOfPlaces(wiring, nets.netOf);
  const conductors = repairs.map((r) => new Set(r.faults.flatMap((f) => netsOfFault(f, at))));
  const shared = [...(conductors[0] ?? [])].filter((n) => conductors.every((c) => c.has(n)));
  const points = [...nets.netOf].flatMap(([p, n]) => (n === shared[0] && p.includes(":") ? [p] : []));
  const [any] = points;
  return {
    conductor:
      shared.length === 1 && any !== undefined
        ? { use: nets.functionOf(any), point: nets.modulePinOf(any) ?? any }
        : undefined,
    part: partOnAll(wiring, nets.netOf, conductors),
  };
}
