import type { KeyState } from "../format/wiring.js";

/**
 * What a circuit is made of. Every device of a wiring document becomes a few of these; the equations,
 * the faults and the SPICE netlist are all written from them. Node 0 is chassis.
 *
 * | type | current leaving node `a`, with v = Va − Vb |
 * | --- | --- |
 * | resistor | v / ohm |
 * | source | (v − volt) / ohm |
 * | follower | (Va − (Vlow + ratio·(Vb − Vlow))) / ohm, returned through chassis: a buffered ratiometric output |
 * | reference | as a source, but never more than limitAmpere out (foldAmpere once it has collapsed below foldVolt), and
 * almost nothing in |
 * | limiter | v / ohm, but never more than limitAmpere: a current-limited driver, a 4–20 mA transmitter |
 * | diode | almost nothing below `volt`, (v − volt) / ohm above, never more than limitAmpere: a diode, a chip |
 * | filament | v / R with R = ohm·max(coldShare, |v|/volt)^½…, see `filamentOhm` |
 * | fuse | resistor that opens above limitAmpere and stays open |
 *
 * An element with a `gate` does this only while its gate is awake (or asleep, with `whenAsleep`); otherwise it is a
 * resistor of `offOhm` from `a` to its return (`low` for a follower, `b` for the rest). The same holds for one that
 * follows steel at a sensor's tip, or conducts for part of each period only.
 */
export interface Element {
  readonly id: string;
  readonly type: "resistor" | "source" | "follower" | "reference" | "limiter" | "diode" | "filament" | "fuse";
  readonly a: number;
  readonly b: number;
  /** follower only: the node its ratio counts from; else 0 */
  readonly low: number;
  /** ohm, > 0; Infinity means open. Filament: hot, at `volt` */
  readonly ohm: number;
  readonly volt: number;
  readonly ratio: number;
  readonly limitAmpere: number;
  /** reference only: what it still gives below `foldVolt`; as limitAmpere where it does not fold back */
  readonly foldAmpere: number;
  readonly foldVolt: number;
  /** index into `Circuit.gates`, or −1 */
  readonly gate: number;
  /** works while its gate is asleep: a relay's resting contact */
  readonly whenAsleep: boolean;
  readonly offOhm: number;
  /** the connector whose unplugging opens it, or "" */
  readonly connector: string;
  /**
   * follows steel at the tip: "conducts" only while steel is there, "generates" its volt only then; "held" conducts by
   * steel held there and misses what passes
   */
  readonly steel: "" | "conducts" | "held" | "generates";
  /** share of each period in which it conducts, from the start of the period; 1 always */
  readonly duty: number;
  /** part of a bus transmitter: conducts only while its own node (its gate) talks */
  readonly talks: boolean;
}

/** The values of an element that says nothing of them. */
export const PLAIN: Omit<Element, "id" | "type" | "a" | "b" | "ohm"> = {
  low: 0,
  volt: 0,
  ratio: 0,
  limitAmpere: Infinity,
  foldAmpere: Infinity,
  foldVolt: 0,
  gate: -1,
  whenAsleep: false,
  offOhm: Infinity,
  connector: "",
  steel: "",
  duty: 1,
  talks: false,
};

/**
 * Wakes the elements that name it while the voltage to `low` exceeds `aboveVolt` at one node or more of every group in
 * `high`.
 */
export interface Gate {
  readonly id: string;
  readonly high: readonly (readonly number[])[];
  readonly low: number;
  readonly aboveVolt: number;
  /** sleeps with the key off */
  readonly needsKey: boolean;
  /** either polarity will do: a relay coil */
  readonly either: boolean;
  /** asleep while its ground stands higher than this over chassis, volt */
  readonly lowBelowVolt: number;
}

export interface Circuit {
  /** key position it was made for */
  readonly key: KeyState;
  /** Node names; index 0 is chassis. */
  readonly nodes: readonly string[];
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly elements: readonly Element[];
  readonly elementOf: ReadonlyMap<string, number>;
  readonly gates: readonly Gate[];
  /** the gate of each module, smart device and relay, by device id */
  readonly gateOf: ReadonlyMap<string, number>;
}

/** A resistance between two nodes; with `volt`, to a supply of that voltage behind it (then `b` is its return). */
export interface Shunt {
  readonly a: number;
  readonly b: number;
  readonly ohm: number;
  readonly volt?: number;
}
export type Changed = Partial<
  Pick<Element, "ohm" | "volt" | "ratio" | "limitAmpere" | "foldAmpere" | "duty" | "steel">
>;

/** What differs from the circuit as drawn: opened or changed elements and added resistances or sources. */
export interface Edit {
  /** ohm added in series with an element; Infinity opens it */
  readonly series?: readonly { readonly element: number; readonly ohm: number }[];
  readonly shunts?: readonly Shunt[];
  /** elements that behave as with their gate asleep */
  readonly dead?: readonly number[];
  /** gates that never wake */
  readonly asleep?: readonly number[];
  /** elements with other values than drawn */
  readonly replace?: readonly { readonly element: number; readonly by: Changed }[];
}

export const NO_EDIT: Edit = {};

/** Several edits at once: two faults, or a fault on a machine with a jumper in place. */
export function joinEdits(...edits: readonly Edit[]): Edit {
  const series: NonNullable<Edit["series"]>[number][] = [];
  const shunts: Shunt[] = [];
  const dead: number[] = [];
  const asleep: number[] = [];
  const replace: NonNullable<Edit["replace"]>[number][] = [];
  for (const e of edits) {
    if (e.series) series.push(...e.series);
    if (e.shunts) shunts.push(...e.shunts);
    if (e.dead) dead.push(...e.dead);
    if (e.asleep) asleep.push(...e.asleep);
    if (e.replace) replace.push(...e.replace);
  }
  return { series, shunts, dead, asleep, replace };
}
