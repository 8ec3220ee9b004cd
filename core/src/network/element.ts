/**
 * What a circuit is made of. Every device of a wiring document becomes a few of these; the equations,
 * the faults and the SPICE netlist are all written from them. Node 0 is chassis.
 *
 * | type | current leaving node `a` |
 * | --- | --- |
 * | resistor | (Va − Vb) / ohm |
 * | source | (Va − Vb − volt) / ohm |
 * | follower | (Va − (Vlow + ratio·(Vb − Vlow))) / ohm, returned through chassis: a buffered ratiometric output |
 * | reference | as a source, but never more than limitAmpere out, and almost nothing in |
 * | fuse | resistor that opens above limitAmpere and stays open |
 *
 * An element with a `gate` does this only while its gate is awake; otherwise it is a resistor of `offOhm` from `a`
 * to its return (`low` for a follower, `b` for the rest).
 */
export interface Element {
  readonly id: string;
  readonly type: "resistor" | "source" | "follower" | "reference" | "fuse";
  readonly a: number;
  readonly b: number;
  /** follower only: the node its ratio counts from; else 0 */
  readonly low: number;
  /** ohm, > 0; Infinity means open */
  readonly ohm: number;
  readonly volt: number;
  readonly ratio: number;
  readonly limitAmpere: number;
  /** index into `Circuit.gates`, or −1 */
  readonly gate: number;
  readonly offOhm: number;
  /** the connector whose unplugging opens it, or "" */
  readonly connector: string;
  /** a Hall output: conducts only while steel is at the tip */
  readonly hall: boolean;
}

/** Wakes the elements that name it while the voltage from any `high` to `low` exceeds `aboveVolt`. */
export interface Gate {
  readonly id: string;
  readonly high: readonly number[];
  readonly low: number;
  readonly aboveVolt: number;
  /** sleeps with the key off */
  readonly needsKey: boolean;
}

export interface Circuit {
  /** Node names; index 0 is chassis. */
  readonly nodes: readonly string[];
  readonly nodeOf: ReadonlyMap<string, number>;
  readonly elements: readonly Element[];
  readonly elementOf: ReadonlyMap<string, number>;
  readonly gates: readonly Gate[];
  /** the gate of each module, by device id */
  readonly gateOf: ReadonlyMap<string, number>;
}

/** What differs from the circuit as drawn: opened or changed elements and added resistances or sources. */
export interface Edit {
  /** ohm added in series with an element; Infinity opens it */
  readonly series?: readonly { readonly element: number; readonly ohm: number }[];
  /** a resistance between two nodes, or to a supply of `volt` behind it when given (then `b` is its return) */
  readonly shunts?: readonly { readonly a: number; readonly b: number; readonly ohm: number; readonly volt?: number }[];
  /** elements that behave as with their gate asleep */
  readonly dead?: readonly number[];
  /** gates that never wake */
  readonly asleep?: readonly number[];
}

export const NO_EDIT: Edit = {};
