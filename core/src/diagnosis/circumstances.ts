import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultMode } from "../faults/fault.js";
import type { Intake } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { connectorOf, deviceConnectors, indexWiring, wireId } from "../wiring/points.js";
import { CONTACT_MODES } from "./cures.js";

/**
 * One thing known of the machine's history, and what it does to the rates of faults: shown to the technician, never
 * hidden.
 */
export interface Feed {
  /** `wet`, `replaced`, `bulletin`, … */
  readonly because: string;
  /** parts or connectors it is about; empty for the whole machine */
  readonly at: readonly string[];
  /** what the rate is multiplied by */
  readonly factor: number;
  /**
   * what sort of fault: `corroding`, `corrodingInWet`, `loose`, `supplies`, `shorts`, `wires`, `partItself`,
   * `wrongPart`, `film`, `all` … (worded in `words/intake`)
   */
  readonly on: string;
  /** how many faults of this wiring it touches */
  readonly faults: number;
}

const CONTACTS: ReadonlySet<FaultMode> = new Set<FaultMode>([
  ...CONTACT_MODES,
  "fewStrands",
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

type Test = (f: Fault) => boolean;
const of =
  (modes: ReadonlySet<FaultMode>): Test =>
  (f) =>
    modes.has(f.mode);
const both =
  (...tests: Test[]): Test =>
  (f) =>
    tests.every((t) => t(f));
const not =
  (test: Test): Test =>
  (f) =>
    !test(f);

function rules(intake: Intake, where: Places): Rule[] {
  const make = new Rules(where);
  return [
    ...intake.conditions.flatMap((x) => make.condition(x)),
    ...intake.symptoms.flatMap((s) => make.symptom(s)),
    ...intake.history.flatMap((h) => make.history(h)),
    ...intake.bulletins.flatMap((b) => make.bulletin(b)),
  ];
}

const rule = (because: string, on: string, factor: number, touches: Test, at: readonly string[] = []): Rule => ({
  because,
  at,
  factor,
  on,
  touches,
});
const by = DEFAULTS.circumstance;
const WRONG_READING: ReadonlySet<FaultMode> = new Set<FaultMode>(["biased", "trueCondition", "wrongPart"]);
const FILMS: ReadonlySet<FaultMode> = new Set<FaultMode>(["contactFilm"]);
const FLUIDS: ReadonlySet<FaultMode> = new Set<FaultMode>(["contactFilm", "cavitiesBridged"]);
const HANDLED: ReadonlySet<FaultMode> = new Set<FaultMode>([...CONTACTS, ...WIRES, "cavitiesSwapped"]);

/** One answer of the intake as rules. */
class Rules {
  constructor(private readonly where: Places) {}

  condition(x: Intake["conditions"][number]): Rule[] {
    const wet = this.inZone("wet");
    const vibrating = this.inZone("vibrating");
    switch (x) {
      case "wet":
        return [
          rule(x, "corrodingInWet", by.wetInWet, both(of(CORRODE), wet)),
          rule(x, "corrodingElsewhere", by.wetElsewhere, both(of(CORRODE), not(wet))),
        ];
      case "hot":
        return [rule(x, "inHotZones", by.hot, this.inZone("hot"))];
      case "cold":
        return [
          rule(x, "batteryLow", by.cold, (f) => f.mode === "supplyLow"),
          rule(x, "corroding", by.coldContacts, of(CORRODE)),
        ];
      case "bump":
        return [
          rule(x, "looseInVibrating", by.bumpInVibrating, both(of(LOOSE), vibrating)),
          rule(x, "looseElsewhere", by.bump, both(of(LOOSE), not(vibrating))),
        ];
      case "underLoad":
        return [rule(x, "supplies", by.underLoad, of(SUPPLIES))];
      case "cranking":
        return [rule(x, "supplies", by.cranking, of(SUPPLIES))];
      default:
        return [];
    }
  }

  symptom(s: Intake["symptoms"][number]): Rule[] {
    switch (s) {
      case "comesAndGoes":
      case "curedItself":
        return [rule(s, "loose", by.comesAndGoes, of(LOOSE))];
      case "deadDisplay":
      case "noStart":
      case "cutsOut":
        return [rule(s, "supplies", by.dead, of(SUPPLIES))];
      case "slowStart":
        return [rule(s, "supplies", by.slowStart, of(SUPPLIES))];
      case "fuseBlows":
        return [rule(s, "shorts", by.fuseBlows, of(SHORTS))];
      case "wrongValue":
        return [rule(s, "wrongReading", by.wrongValue, of(WRONG_READING))];
      default:
        return [];
    }
  }

  history(h: Intake["history"][number]): Rule[] {
    const { what, at } = h;
    const here = (modes: ReadonlySet<FaultMode>) => (at.length ? both(of(modes), this.about(at)) : of(modes));
    switch (what) {
      case "replaced":
        return at.length ? this.replaced(h) : [];
      case "workNearby":
      case "repaired":
        return at.length ? [rule(what, "contactsAndWires", by.workNearby, here(HANDLED), at)] : [];
      case "accident":
        return at.length
          ? [rule(what, "contactsAndWires", by.workNearby, here(HANDLED), at)]
          : [rule(what, "wires", by.accident, of(WIRES))];
      case "batteryWork":
        return [rule(what, "supplies", by.batteryWork, of(SUPPLIES))];
      case "pests":
        return [rule(what, "wires", by.pests, here(WIRES), at)];
      case "water":
        return [rule(what, "corroding", by.water, here(CORRODE), at)];
      case "oil":
        return [rule(what, "film", by.oil, at.length ? both(of(FLUIDS), this.about(at)) : of(FILMS), at)];
      default:
        return [];
    }
  }
  /** A part replaced in vain is hardly the cause, unless the new one is a copy, used or bad out of the box. */
  private replaced({ at, helped, brand }: Intake["history"][number]): Rule[] {
    const isCopy = brand === "copy" || brand === "used";
    const about = this.about(at);
    const part = rule(
      "replaced",
      "partItself",
      helped === "no" ? (isCopy ? by.copyInVain : by.replacedInVain) : by.replaced,
      both(of(PART), about),
      at,
    );
    const wrong = both((f) => f.mode === "wrongPart", about);
    return [
      ...(helped === "yes" ? [] : [part]),
      rule(isCopy ? "replacedCopy" : "replaced", "wrongPart", isCopy ? by.copy : by.newPart, wrong, at),
    ];
  }

  bulletin(b: Intake["bulletins"][number]): Rule[] {
    const factor = b.trust === "bulletin" ? by.bulletin : by.hearsay;
    return b.at.length ? [rule(b.trust, "all", factor, this.about(b.at), b.at)] : [];
  }

  private inZone(zone: string): Test {
    return (f) => this.where.zones(f).includes(zone);
  }
  private about(ids: readonly string[]): Test {
    const near = this.where.near(ids);
    return (f) => near.has(f.place.id) || (f.place.type === "cavity" && near.has(connectorOf(f.place.id)));
  }
}

interface Places {
  zones(f: Fault): readonly string[];
  near(ids: readonly string[]): ReadonlySet<string>;
}
/**
 * Zones of the thing a fault is at, and everything that hangs on the things named: their connectors, cavities and
 * wires.
 */
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
