import { DEFAULTS } from "../defaults.js";
import type { Fault, FaultMode, FaultPlace } from "../faults/fault.js";

/** Faults that are always there: a wrong part does not come and go. */
const LASTING: ReadonlySet<FaultMode> = new Set<FaultMode>([
  "trueCondition",
  "wrongPart",
  "biased",
  "fuseBlown",
  "cavitiesSwapped",
]);
const CONTACTS: ReadonlySet<FaultPlace["type"]> = new Set<FaultPlace["type"]>([
  "cavity",
  "connector",
  "splice",
  "ground",
]);
/** However much the customer tells, some of each fault's rate is of the lasting kind. Judgement. */
const MOST = 0.9;

/** Share of a fault's rate that is of the kind that comes and goes. @param told the customer says that it does */
export function intermittentShare(fault: Fault, told: boolean): number {
  const { contact, wire, device, told: factor } = DEFAULTS.intermittent;
  return Math.min(MOST, (told ? factor : 1) * base());

  function base(): number {
    if (CONTACTS.has(fault.place.type)) return contact;
    if (fault.place.type === "wire") return wire;
    return LASTING.has(fault.mode) ? 0 : device;
  }
}
