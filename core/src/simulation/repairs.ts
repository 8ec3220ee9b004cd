import { CONTACT_MODES, RepairedPlaces } from "../diagnosis/cures.js";
import type { Fault } from "../faults/fault.js";
import type { RepairedEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { FaultAt } from "../instruments/machineState.js";
import { uniform } from "../prediction/draws.js";

/** A contact handled without being meant is good again with this chance, in a simulated machine. Judgement. */
const MOVED = 0.1;

/**
 * What is left wrong in a simulated machine after repairs: each fault that was worked on goes with the chance that its
 * kind of work has. Repeatable from the seed.
 * @param faults what was hidden
 * @param repairs in order
 */
export function faultsLeft(
  wiring: Wiring,
  faults: readonly FaultAt[],
  repairs: readonly RepairedEntry[],
  seed: number,
): readonly FaultAt[] {
  const places = new RepairedPlaces(wiring);
  return repairs.reduce(
    (left, repair, i) =>
      left.filter(({ fault }, k) => {
        const u = uniform(seed * 6007 + i * 89 + k * 13 + 5)();
        const chance = places.chance(repair, fault);
        return u >= (chance > 0 ? chance : isHandled(places, repair, fault) ? MOVED : 0);
      }),
    faults,
  );
}
/** Of work that does not take, so much leaves it half done; and so often work makes a fault of its own. Judgement. */
const HALF_DONE = 0.5;
const NEW_FAULT = 0.05;
/** How much weaker a fault is after half a repair. Judgement. */
const WEAKER = 5;
/** Faults that a larger resistance makes worse; of the others with one, a smaller. */
const IN_SERIES = /HighResistance$|^contactFilm$|^fewStrands$|^highResistance$|Resistive$/;

/**
 * As `faultsLeft`, for somebody to practise on: work that does not take may leave the fault half as it was, and a
 * terminal that was handled may be loose afterwards.
 * @param known every fault of the wiring, with its change to the circuit
 */
export function faultsAfterWork(
  wiring: Wiring,
  faults: readonly FaultAt[],
  repairs: readonly RepairedEntry[],
  seed: number,
  known: readonly Fault[],
): readonly FaultAt[] {
  const places = new RepairedPlaces(wiring);
  return repairs.reduce((before, repair, i) => {
    const chance = uniform(seed * 7919 + i * 97 + 3);
    const left = faultsLeft(wiring, before, [repair], seed + i).map((f) =>
      places.chance(repair, f.fault) > 0 && chance() < HALF_DONE ? weaker(f) : f,
    );
    if (chance() >= NEW_FAULT) return left;
    const loose = known.filter((f) => f.mode === "contactOpen" && isHandled(places, repair, f));
    const made = loose[Math.floor(chance() * loose.length)];
    return made && !left.some((f) => f.fault.id === made.id) ? [...left, { fault: made, severity: NaN }] : left;
  }, faults);
}
function weaker({ fault, severity }: FaultAt): FaultAt {
  if (fault.unit !== "ohm" || !Number.isFinite(severity)) return { fault, severity };
  return { fault, severity: IN_SERIES.test(fault.mode) ? severity / WEAKER : severity * WEAKER };
}

const isHandled = (places: RepairedPlaces, repair: RepairedEntry, fault: Pick<Fault, "place" | "mode">) =>
  CONTACT_MODES.has(fault.mode) && places.handled(repair).some((c) => fault.place.id.startsWith(`${c}:`));

/** How a technician mends a fault, and what is worked on. */
export function repairOf(fault: Pick<Fault, "place" | "at" | "mode">): Pick<RepairedEntry, "things" | "how"> {
  const { type, id } = fault.place;
  const things = [id];
  switch (type) {
    case "wire":
      return { things, how: "rewired" };
    case "cavity":
    case "connector":
      return { things, how: fault.mode === "unseated" ? "reseated" : "repaired" };
    case "splice":
    case "ground":
      return { things, how: "repaired" };
    case "machine":
      return { things, how: "adjusted" };
    default:
      return { things, how: fault.mode === "gapTooLarge" ? "adjusted" : "replaced" };
  }
}
