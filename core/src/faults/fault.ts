import type { Circuit, Edit } from "../network/element.js";

export type FaultMode =
  | "open" | "highResistance" | "shortToChassis" | "shortToSupply"
  | "contactOpen" | "contactHighResistance"
  | "legOpen" | "legHighResistance" | "spliceHighResistance"
  | "groundOpen" | "groundHighResistance"
  | "fuseBlown" | "fuseHighResistance" | "switchOpen" | "switchHighResistance"
  | "shortSupplyGround" | "shortSignalGround" | "shortSignalSupply" | "elementOpen" | "dead"
  | "referenceDead" | "moduleUnpowered" | "sensorGroundOpen" | "inputShort";

/** What one repair would touch: a wire, a terminal (cavity), a splice, a ground, a device. */
export interface FaultPlace {
  readonly type: "wire" | "cavity" | "splice" | "ground" | "fuse" | "switch" | "device" | "module";
  readonly id: string;
}

/**
 * One way in which one thing can be wrong. `id` is stable: `W12/open`, `B7:1/contactHighResistance`,
 * `B9/shortSupplyGround`; a severity may follow: `S22/spliceHighResistance@500`.
 */
export interface Fault {
  readonly id: string;
  readonly mode: FaultMode;
  readonly place: FaultPlace;
  /** the other thing meant, where there is one: the wire of a splice leg, the pin of a module fault */
  readonly at?: string;
  /** relative rate, zones counted in; not normalised */
  readonly prior: number;
  /** ohm, a grid with log-uniform weight; one NaN where the mode has no severity */
  readonly severities: readonly number[];
  /** the same fault as a change to a circuit of this document */
  edit(ohm: number, circuit: Circuit, batteryVolt: number): Edit;
}

/** Severity to use when none is given: the middle of the grid. */
export const middleSeverity = (fault: Fault) => fault.severities[fault.severities.length >> 1] ?? NaN;
