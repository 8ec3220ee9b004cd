import type { Circuit, Edit } from "../network/element.js";

export type FaultMode =
  | "open"
  | "highResistance"
  | "fewStrands"
  | "shortToChassis"
  | "shortToSupply"
  | "shortToWire"
  | "contactOpen"
  | "contactHighResistance"
  | "contactFilm"
  | "cavitiesBridged"
  | "cavitiesSwapped"
  | "unseated"
  | "legOpen"
  | "legHighResistance"
  | "spliceHighResistance"
  | "groundOpen"
  | "groundHighResistance"
  | "fuseBlown"
  | "fuseHighResistance"
  | "switchOpen"
  | "switchHighResistance"
  | "relayCoilOpen"
  | "relayContactOpen"
  | "relayContactHighResistance"
  | "relayStuck"
  | "shortSupplyGround"
  | "shortSignalGround"
  | "shortSignalSupply"
  | "shortInside"
  | "elementOpen"
  | "dead"
  | "biased"
  | "wrongPart"
  | "targetDamaged"
  | "gapTooLarge"
  | "trueCondition"
  | "referenceDead"
  | "referenceWeak"
  | "referenceResistive"
  | "moduleUnpowered"
  | "moduleGroundOpen"
  | "sensorGroundOpen"
  | "inputShort"
  | "driverDead"
  | "driverStuck"
  | "dutyWrong"
  | "busDriverDead"
  | "supplyLow"
  | "supplyHigh";

/** What one repair would touch: a wire, a terminal (cavity), a connector, a splice, a ground, a device. */
export interface FaultPlace {
  readonly type:
    | "wire"
    | "cavity"
    | "connector"
    | "splice"
    | "ground"
    | "fuse"
    | "switch"
    | "relay"
    | "device"
    | "module"
    | "supply"
    | "machine";
  readonly id: string;
}

/** What a severity counts: ohm, or a factor on what the thing should give, or a share of its supply. */
export type SeverityUnit = "ohm" | "factor" | "share";

/**
 * One way in which one thing can be wrong. `id` is stable: `W12/open`, `B7:1/contactHighResistance`,
 * `B9/shortSupplyGround`; a severity may follow: `S22/spliceHighResistance@500`.
 */
export interface Fault {
  readonly id: string;
  readonly mode: FaultMode;
  readonly place: FaultPlace;
  /**
   * the other thing meant, where there is one: the wire of a splice leg, the pin of a module fault, the wire or cavity
   * touched
   */
  readonly at?: string;
  /** relative rate, zones counted in; not normalised */
  readonly prior: number;
  /** a grid with equal weight on each point, log-uniform for ohm; one NaN where the mode has no severity */
  readonly severities: readonly number[];
  readonly unit: SeverityUnit;
  /** the same fault as a change to a circuit of this document */
  edit(severity: number, circuit: Circuit, batteryVolt: number): Edit;
}

/** Whether it takes teeth from a signal that may still switch: what is left of it has the levels of a sound one. */
export const losesTeeth = ({ mode, severities }: Pick<Fault, "mode" | "severities">): boolean =>
  (mode === "targetDamaged" || mode === "gapTooLarge") && severities.length === 1;

/** Severity to use when none is given: the middle of the grid. */
export const middleSeverity = (fault: Fault) => fault.severities[fault.severities.length >> 1] ?? NaN;

export const NO_SEVERITY: readonly number[] = [NaN];

export function fault(
  place: FaultPlace,
  thing: string,
  mode: FaultMode,
  prior: number,
  severities: readonly number[],
  edit: Fault["edit"],
  more: { at?: string; unit?: SeverityUnit } = {},
): Fault {
  return {
    id: `${thing}/${mode}`,
    mode,
    place,
    prior,
    severities,
    edit,
    unit: more.unit ?? "ohm",
    ...(more.at === undefined ? {} : { at: more.at }),
  };
}

/** Index of an element by id. @throws a bug: faults are made from the same document as the circuit */
export function elementIndex(circuit: Circuit, id: string): number {
  const index = circuit.elementOf.get(id);
  if (index === undefined) throw new Error(`no element "${id}" in this circuit`);
  return index;
}
export function nodeIndex(circuit: Circuit, name: string): number {
  const index = circuit.nodeOf.get(name);
  if (index === undefined) throw new Error(`no point "${name}" in this circuit`);
  return index;
}
export const series =
  (...ids: readonly string[]) =>
  (ohm: number, circuit: Circuit): Edit => ({ series: ids.map((id) => ({ element: elementIndex(circuit, id), ohm })) });
export const opened =
  (...ids: readonly string[]) =>
  (_severity: number, circuit: Circuit): Edit =>
    series(...ids)(Infinity, circuit);
export const dead =
  (...ids: readonly string[]) =>
  (_severity: number, circuit: Circuit): Edit => ({ dead: ids.map((id) => elementIndex(circuit, id)) });
export const shuntBetween =
  (a: string, b: string) =>
  (ohm: number, circuit: Circuit): Edit => ({ shunts: [{ a: nodeIndex(circuit, a), b: nodeIndex(circuit, b), ohm }] });
