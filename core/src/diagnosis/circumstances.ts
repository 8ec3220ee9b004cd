import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultMode } from "../faults/fault.js";
import type { Intake } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { connectorOf, deviceConnectors, indexWiring, wireId } from "../wiring/points.js";

/** One thing known of the machine's history, and what it does to the rates of faults: shown to the technician, never hidden. */
export interface Feed {
  /** `wet`, `replaced`, `bulletin`, … */
  readonly because: string;
  /** parts or connectors it is about; empty for the whole machine */
  readonly at: readonly string[];
  /** what the rate is multiplied by */
  readonly factor: number;
  /** what sort of fault: `corroding`, `corrodingInWet`, `loose`, `supplies`, `shorts`, `wires`, `partItself`, `wrongPart`, `film`, `all` … (worded in `words/intake`) */
  readonly on: string;
  /** how many faults of this wiring it touches */
  readonly faults: number;
}

const CONTACTS: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "contactOpen",
  "contactHighResistance",
  "contactFilm",
  "unseated",
  "legOpen",
  "legHighResistance",
  "spliceHighResistance",
  "groundOpen",
  "groundHighResistance",
  "fewStrands",
  "fuseHighResistance",
  "switchHighResistance",
  "relayContactHighResistance",
]);
const CORRODE: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "contactHighResistance",
  "legHighResistance",
  "spliceHighResistance",
  "groundHighResistance",
  "cavitiesBridged",
]);
const WIRES: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "open",
  "highResistance",
  "fewStrands",
  "shortToChassis",
  "shortToSupply",
  "shortToWire",
]);
const LOOSE: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "contactOpen",
  "unseated",
  "legOpen",
  "groundOpen",
  "open",
  "fewStrands",
  "groundHighResistance",
]);
const PART: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "dead",
  "elementOpen",
  "biased",
  "shortSupplyGround",
  "shortSignalGround",
  "shortSignalSupply",
  "shortInside",
  "relayCoilOpen",
  "relayContactOpen",
  "relayStuck",
  "fuseBlown",
]);
const SUPPLIES: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "supplyLow",
  "groundHighResistance",
  "groundOpen",
  "fuseHighResistance",
  "switchHighResistance",
  "relayContactHighResistance",
  "fuseBlown",
]);
const SHORTS: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "shortToChassis",
  "shortSupplyGround",
  "shortInside",
  "fuseBlown",
]);

interface Rule {
  readonly because: string;
  readonly at: readonly string[];
  readonly factor: number;
  readonly on: string;
  readonly touches: (f: Fault) => boolean;
}

/**
 * What an intake says of how likely each fault is, as factors on the rates. Product judgement, no source; the factors
 * are in `DEFAULTS.circumstance`.
 * @returns one factor per fault, in the order of `faults`, and the list of what fed them
 */
export function circumstances(
  wiring: Wiring,
  faults: readonly Fault[],
  intake: Intake | undefined,
): { readonly factors: Float64Array; readonly feeds: readonly Feed[] } {
  const factors = new Float64Array(faults.length).fill(1);
  if (!intake) return { factors, feeds: [] };
  const where = places(wiring);
  const feeds = rules(intake, where).flatMap((rule): Feed[] => {
    let count = 0;
    faults.forEach((f, i) => {
      if (rule.touches(f)) {
        factors[i] = factors[i]! * rule.factor;
        count++;
      }
    });
    return count ? [{ because: rule.because, at: rule.at, factor: rule.factor, on: rule.on, faults: count }] : [];
  });
  return { factors, feeds };
}

function rules(intake: Intake, where: Places): Rule[] {
  const c = DEFAULTS.circumstance;
  const list: Rule[] = [];
  const rule = (
    because: string,
    on: string,
    factor: number,
    touches: (f: Fault) => boolean,
    at: readonly string[] = [],
  ) => list.push({ because, at, factor, on, touches });
  const inZone =
    (...zones: string[]) =>
    (f: Fault) =>
      where.zones(f).some((z) => zones.includes(z));
  const about = (ids: readonly string[]) => {
    const near = where.near(ids);
    return (f: Fault) => near.has(f.place.id) || (f.place.type === "cavity" && near.has(connectorOf(f.place.id)));
  };
  const of = (modes: ReadonlySet<FaultMode>) => (f: Fault) => modes.has(f.mode);
  const both =
    (...tests: ((f: Fault) => boolean)[]) =>
    (f: Fault) =>
      tests.every((t) => t(f));
  for (const x of intake.conditions) {
    if (x === "wet") {
      rule("wet", "corrodingInWet", c.wetInWet, both(of(CORRODE), inZone("wet")));
      rule(
        "wet",
        "corrodingElsewhere",
        c.wetElsewhere,
        both(of(CORRODE), (f) => !inZone("wet")(f)),
      );
    }
    if (x === "hot") rule("hot", "inHotZones", c.hot, inZone("hot"));
    if (x === "cold") {
      rule("cold", "batteryLow", c.cold, (f) => f.mode === "supplyLow");
      rule("cold", "corroding", c.coldContacts, of(CORRODE));
    }
    if (x === "bump") {
      rule("bump", "looseInVibrating", c.bumpInVibrating, both(of(LOOSE), inZone("vibrating")));
      rule(
        "bump",
        "looseElsewhere",
        c.bump,
        both(of(LOOSE), (f) => !inZone("vibrating")(f)),
      );
    }
    if (x === "underLoad") rule("underLoad", "supplies", c.underLoad, of(SUPPLIES));
    if (x === "cranking") rule("cranking", "supplies", c.cranking, of(SUPPLIES));
  }
  for (const s of intake.symptoms) {
    if (s === "comesAndGoes" || s === "curedItself") rule(s, "loose", c.comesAndGoes, of(LOOSE));
    if (s === "deadDisplay" || s === "noStart" || s === "cutsOut") rule(s, "supplies", c.dead, of(SUPPLIES));
    if (s === "slowStart") rule(s, "supplies", c.slowStart, of(SUPPLIES));
    if (s === "fuseBlows") rule(s, "shorts", c.fuseBlows, of(SHORTS));
    if (s === "wrongValue")
      rule(
        s,
        "wrongReading",
        c.wrongValue,
        (f) => f.mode === "biased" || f.mode === "trueCondition" || f.mode === "wrongPart",
      );
  }
  for (const h of intake.history) {
    if (h.what === "replaced" && h.at.length) {
      if (h.helped !== "yes")
        rule(
          "replaced",
          "partItself",
          h.helped === "no" ? c.replacedInVain : c.replaced,
          both(of(PART), about(h.at)),
          h.at,
        );
      rule(
        h.brand === "copy" || h.brand === "used" ? "replacedCopy" : "replaced",
        "wrongPart",
        h.brand === "copy" || h.brand === "used" ? c.copy : c.newPart,
        both((f) => f.mode === "wrongPart", about(h.at)),
        h.at,
      );
    }
    if ((h.what === "workNearby" || h.what === "repaired" || h.what === "accident") && h.at.length)
      rule(
        h.what,
        "contactsAndWires",
        c.workNearby,
        both((f) => CONTACTS.has(f.mode) || WIRES.has(f.mode) || f.mode === "cavitiesSwapped", about(h.at)),
        h.at,
      );
    if (h.what === "accident" && !h.at.length) rule("accident", "wires", c.accident, of(WIRES));
    if (h.what === "batteryWork") rule("batteryWork", "supplies", c.batteryWork, of(SUPPLIES));
    if (h.what === "pests")
      rule("pests", "wires", c.pests, h.at.length ? both(of(WIRES), about(h.at)) : of(WIRES), h.at);
    if (h.what === "water")
      rule("water", "corroding", c.water, h.at.length ? both(of(CORRODE), about(h.at)) : of(CORRODE), h.at);
    if (h.what === "oil")
      rule(
        "oil",
        "film",
        c.oil,
        h.at.length
          ? both((f) => f.mode === "contactFilm" || f.mode === "cavitiesBridged", about(h.at))
          : (f) => f.mode === "contactFilm",
        h.at,
      );
  }
  for (const b of intake.bulletins)
    if (b.at.length) rule(b.trust, "all", b.trust === "bulletin" ? c.bulletin : c.hearsay, about(b.at), b.at);
  return list;
}

interface Places {
  zones(f: Fault): readonly string[];
  near(ids: readonly string[]): ReadonlySet<string>;
}
/** Zones of the thing a fault is at, and everything that hangs on the things named: their connectors, cavities and wires. */
function places(wiring: Wiring): Places {
  const index = indexWiring(wiring);
  const wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
  return {
    zones: (f) =>
      f.place.type === "wire"
        ? (wires.get(f.place.id)?.zones ?? [])
        : f.place.type === "cavity"
          ? (index.connectors.get(connectorOf(f.place.id))?.zones ?? [])
          : [...(index.connectors.get(f.place.id)?.zones ?? []), ...(index.devices.get(f.place.id)?.zones ?? [])],
    near: (ids) => {
      const near = new Set(ids);
      for (const id of ids) {
        const d = index.devices.get(id);
        if (d) deviceConnectors(d).forEach((c) => near.add(c));
      }
      for (const d of wiring.devices) if (deviceConnectors(d).some((c) => ids.includes(c))) near.add(d.id);
      for (const w of wiring.wires) if ([w.from, w.to].some((e) => near.has(connectorOf(e)))) near.add(wireId(w));
      return near;
    },
  };
}
