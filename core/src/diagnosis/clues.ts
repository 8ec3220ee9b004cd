import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultMode } from "../faults/fault.js";
import type { Finding, LookedAt } from "../format/case.js";
import { connectorOf } from "../wiring/points.js";
import type { Clue } from "./evidence.js";
import type { Misplacement } from "./misplaced.js";

/** What water does to a joint. */
const CORRODED: readonly FaultMode[] = [
  "contactHighResistance",
  "contactOpen",
  "spliceHighResistance",
  "legHighResistance",
  "groundHighResistance",
  "fuseHighResistance",
];
/** What teeth, edges and heat do to a wire. */
const WIRE_HURT: readonly FaultMode[] = [
  "open",
  "fewStrands",
  "highResistance",
  "shortToChassis",
  "shortToWire",
  "shortToSupply",
];
/** What each finding is a sign of, and faults that leave no mark anybody would see. Product judgement, no source. */
const SIGNS: Readonly<Record<Exclude<Finding, "nothing">, readonly FaultMode[]>> = {
  wet: [...CORRODED, "cavitiesBridged"],
  green: [...CORRODED, "cavitiesBridged", "legOpen", "groundOpen", "highResistance"],
  oily: ["contactFilm", "cavitiesBridged", "contactHighResistance"],
  chewed: WIRE_HURT,
  rubbed: WIRE_HURT,
  melted: [
    "shortToChassis",
    "shortToWire",
    "shortToSupply",
    "open",
    "fuseBlown",
    "contactHighResistance",
    "shortInside",
    "shortSupplyGround",
    "fuseHighResistance",
  ],
  burnt: [
    "fuseBlown",
    "fuseHighResistance",
    "contactHighResistance",
    "relayContactHighResistance",
    "relayStuck",
    "relayContactOpen",
    "switchHighResistance",
    "groundHighResistance",
    "shortInside",
    "shortSupplyGround",
    "shortToChassis",
  ],
  crooked: ["unseated", "contactOpen", "cavitiesSwapped"],
  halfClipped: ["unseated"],
  pushedBack: ["contactOpen", "contactHighResistance"],
  cracked: ["cavitiesBridged", "contactHighResistance", "groundOpen", "shortInside", "elementOpen", "dead"],
  previousRepair: [
    "cavitiesSwapped",
    "highResistance",
    "open",
    "fewStrands",
    "shortToWire",
    "contactHighResistance",
    "contactOpen",
    "wrongPart",
  ],
  chipped: ["targetDamaged"],
  worn: ["targetDamaged", "gapTooLarge", "contactHighResistance", "open", "shortToChassis"],
  loose: ["gapTooLarge", "contactOpen", "contactHighResistance", "groundOpen", "groundHighResistance", "unseated"],
};
/** Faults that a look at one side of a thing can see; at all of them where none is named. */
const SIDES: Readonly<Record<LookedAt, ReadonlySet<FaultMode>>> = {
  plug: new Set<FaultMode>([...CORRODED, "contactFilm", "cavitiesBridged", "cavitiesSwapped", "unseated"]),
  part: new Set<FaultMode>(["shortInside", "shortSupplyGround", "elementOpen", "dead", "wrongPart", "fuseBlown"]),
  target: new Set<FaultMode>(["targetDamaged", "gapTooLarge"]),
  seal: new Set<FaultMode>(["contactFilm", "cavitiesBridged", "contactHighResistance"]),
  bracket: new Set<FaultMode>(["gapTooLarge", "groundOpen", "groundHighResistance"]),
};
/** Faults that can be seen from outside by somebody who looks. */
const SEEN: ReadonlySet<FaultMode> = new Set<FaultMode>([
  ...CORRODED,
  ...WIRE_HURT,
  "cavitiesBridged",
  "cavitiesSwapped",
  "contactFilm",
  "fuseBlown",
  "groundOpen",
  "legOpen",
  "unseated",
  "targetDamaged",
  "gapTooLarge",
]);
const PART_ITSELF: ReadonlySet<string> = new Set(["device"]);

/**
 * The thing a look or a wiggle is at covers a fault when the fault's place, or the connector of its terminal, is that
 * thing.
 */
export function isAt(fault: Pick<Fault, "place" | "at">, thing: string): boolean {
  const { id } = fault.place;
  return id === thing || fault.at === thing || (id.includes(":") && connectorOf(id) === thing);
}

/**
 * How likely a clue is given what is wrong. Figures are in `DEFAULTS.clues`: product judgement, no source.
 * @param faults all that is wrong; none on a healthy machine @param comesAndGoes whether they come and go @param
 * misplaced where the technician really is, when not where the logbook says
 */
export function clueLikelihood(
  clue: Clue,
  faults: readonly Fault[],
  comesAndGoes: boolean,
  misplaced?: Pick<Misplacement, "from" | "to">,
): number {
  const c = DEFAULTS.clues;
  switch (clue.type) {
    case "look": {
      const side = clue.of && SIDES[clue.of];
      const here = faults.filter((f) => isAt(f, clue.thing) && (side === undefined || side.has(f.mode)));
      const seen = 1 - here.reduce((p, f) => p * (1 - (SEEN.has(f.mode) ? c.signSeen : c.signHidden)), 1);
      if (clue.found.includes("nothing")) return Math.max(c.signFalse, (1 - seen) * (1 - c.signFalse));
      const matches = clue.found.some((x) => x !== "nothing" && here.some((f) => SIGNS[x].includes(f.mode)));
      // a sign that fits the fault is most of what a look at it shows; any other is as common as anywhere
      return matches ? seen * 0.8 + c.signFalse : c.signFalse + 0.1 * seen;
    }
    case "wiggle": {
      const moves = (thing: string) => faults.some((f) => isAt(f, thing));
      const p = !comesAndGoes
        ? c.wiggleFalse
        : moves(clue.thing)
          ? c.wiggleReacts
          : clue.besides?.some((end) => faults.some((f) => f.place.id === sideless(end)))
            ? c.wiggleReactsBeside
            : c.wiggleFalse;
      return clue.reacted ? p : 1 - p;
    }
    case "swap": {
      const p = faults.some((f) => PART_ITSELF.has(f.place.type) && clue.parts.includes(f.place.id))
        ? c.swapMoves
        : c.swapFalse;
      return clue.result === "moved" ? p : 1 - p;
    }
    case "partNumber": {
      const p = faults.some((f) => f.mode === "wrongPart" && clue.parts.includes(f.place.id))
        ? c.wrongNumberSeen
        : c.wrongNumberFalse;
      return clue.same ? 1 - p : p;
    }
    case "teeth": {
      const isHere = (mode: FaultMode) => faults.some((f) => f.mode === mode && f.id.startsWith(`${clue.thing}/`));
      // a wide gap lacks pulses here and there, and a contact that opens for a moment, too
      const p = isHere("targetDamaged")
        ? { any: c.teethSeen, returning: c.teethReturn }
        : isHere("gapTooLarge")
          ? { any: c.teethSeen, returning: c.teethReturnOtherwise }
          : { any: comesAndGoes ? c.teethBeside : c.teethFalse, returning: c.teethReturnOtherwise };
      if (!clue.missing) return 1 - p.any;
      return p.any * (clue.returns ? p.returning : 1 - p.returning);
    }
    case "identity": {
      const p = misplaced?.from === clue.connector ? c.identityTold : c.identityFalse;
      return clue.right ? 1 - p : p;
    }
    case "holds":
      return 0.5; // weighed by the prediction of the circuit; see posterior
  }
}
/** A terminal's place is its cavity: an in-line one has two sides. */
const sideless = (end: string) => end.replace(/\.[ab]$/, "");
/** A finding no one would have thought of: what "not in this wiring" makes of it. */
export const clueAnywhere = (clue: Clue): number => clueLikelihood(clue, [], false);
