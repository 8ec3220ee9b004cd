import {
  formatQuantity,
  FAILURE_TYPES,
  type CodeStatus,
  type Fault,
  type FailureType,
  type FaultMode,
} from "../src/index.js";

/** What repairing each mode means, in general words; the maker's manual says how on this machine. */
const REPAIRS: Readonly<Record<FaultMode, string>> = {
  open: "Find the break, join the wire as the maker says, and tie it away from what broke it.",
  highResistance: "Cut out the corroded or pinched length and join in new wire.",
  fewStrands: "Cut back to sound copper and join in new wire of the same cross-section.",
  shortToChassis: "Free the wire, mend its insulation or join in new wire, and protect the edge.",
  shortToSupply: "Part the two wires, mend both, and find what rubbed them together.",
  shortToWire: "Part the two wires, mend both, and find what rubbed them together.",
  contactOpen: "Push the terminal home until it locks, or fit a new one.",
  contactHighResistance: "Fit a new terminal, and a new seal where water got in.",
  contactFilm: "Clean the contact, and stop the oil that wicks along the wire.",
  cavitiesBridged:
    "Dry and clean the connector, replace what is green, fit a new seal, and find where the fluid came in.",
  cavitiesSwapped: "Put each terminal in its own cavity, by the drawing.",
  unseated: "Clean the connector if need be and push it home until the lock clicks.",
  legOpen: "Remake the splice leg.",
  legHighResistance: "Remake the splice leg.",
  spliceHighResistance: "Cut the splice out and make a new, sealed one.",
  groundOpen: "Clean and tighten the ground point; make a new one where it has broken off.",
  groundHighResistance: "Clean both faces to bright metal, tighten, and protect the ground point.",
  fuseBlown: "Find out why it blew before fitting a new one of the same rating.",
  fuseHighResistance: "Clean or replace the fuse's holder.",
  switchOpen: "Replace the switch.",
  switchHighResistance: "Replace the switch.",
  relayCoilOpen: "Replace the relay.",
  relayContactOpen: "Replace the relay.",
  relayContactHighResistance: "Replace the relay, and check what current it switches.",
  relayStuck: "Replace the relay, and check what current it switches.",
  shortSupplyGround: "Replace the part, by its number.",
  shortSignalGround: "Replace the part, by its number.",
  shortSignalSupply: "Replace the part, by its number.",
  shortInside: "Replace the part, by its number.",
  elementOpen: "Replace the part, by its number.",
  dead: "Replace the part, by its number.",
  biased: "Replace the part, by its number, after a direct test.",
  wrongPart: "Fit the part with the right number.",
  targetDamaged: "Replace the damaged target.",
  gapTooLarge: "Set the air gap; look for a bent bracket or a worn bearing.",
  trueCondition: "Sensor and wiring are good: put right what the machine itself does.",
  referenceDead: "Prove everything outside the module first; then have the module repaired or replaced.",
  referenceWeak: "Prove everything outside the module first; then have the module repaired or replaced.",
  referenceResistive: "Prove everything outside the module first; then have the module repaired or replaced.",
  moduleUnpowered: "Prove its supplies and grounds under load first; then have the module repaired or replaced.",
  moduleGroundOpen: "Have the module repaired or replaced.",
  sensorGroundOpen: "Have the module repaired or replaced.",
  inputShort: "Have the module repaired or replaced.",
  driverDead: "Prove the load and its wiring first; then have the module repaired or replaced.",
  driverStuck: "Have the module repaired or replaced.",
  busDriverDead: "Have the module repaired or replaced.",
  supplyLow: "Charge and test the battery; look for what drains it.",
  supplyHigh: "Have the regulator or alternator replaced.",
};
/** A part can be several kinds of thing: an alternator is not replaced by its pins. */
export function repairText(fault: Pick<Fault, "mode" | "place">): string {
  if (fault.place.type === "supply" && fault.mode === "dead")
    return "Check the belt and the wiring of the alternator; replace it if both are good.";
  return REPAIRS[fault.mode];
}

/** How bad: 500 Ω; a factor as per cent of what it should give; a share of the supply with its sign. */
export function severityText(fault: Pick<Fault, "unit" | "mode">, severity: number): string {
  if (fault.unit === "ohm") return formatQuantity(severity, "Ω");
  const percent = `${Math.round(severity * 100)} %`;
  return fault.unit === "factor"
    ? `${percent} of what it should be`
    : fault.mode === "trueCondition"
      ? `output at ${percent} of its supply`
      : `off by ${severity > 0 ? "+" : ""}${percent} of its supply`;
}

const STATUS: Readonly<Record<CodeStatus, string>> = {
  active: "active",
  pending: "pending",
  stored: "stored",
  intermittent: "seen since the last clear, not now",
  notRun: "not judged since the last clear",
  absent: "passed",
};
export const statusWord = (status: CodeStatus): string => STATUS[status];

const FAILURES: Readonly<Record<FailureType, string>> = {
  shortToGround: "short to ground",
  shortToBattery: "short to supply",
  open: "open",
  groundOrOpen: "short to ground or open",
  batteryOrOpen: "short to supply or open",
  belowThreshold: "below threshold",
  aboveThreshold: "above threshold",
  intermittent: "comes and goes",
  invalid: "signal invalid",
  noSignal: "no signal",
  missingMessage: "missing message",
};
export function failureTypeText(byte: number): string {
  const known = FAILURE_TYPES[byte];
  return known ? FAILURES[known.type] : `failure type ${byte.toString(16).toUpperCase().padStart(2, "0")}`;
}
