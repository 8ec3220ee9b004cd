import { DEFAULTS } from "../defaults.js";
import type { Changed, Element } from "./element.js";
import { NUMBERS_PER_ELEMENT } from "./pattern.js";

/** Segments of piecewise-linear elements, as kept in `Solver.mode`. A device moves to a neighbouring one only. */
export const REGULATING = 0;
export const LIMITING = 1;
export const FOLDED = 2;
export const OFF = 3;
/** of a fuse */
export const INTACT = 0;
export const BLOWN = 1;
/** of a diode; of a limiter REGULATING means "as a resistor" */
export const BLOCKING = 0;
export const CONDUCTING = 1;
/** of a diode that is a chip: it takes no more */
export const SATURATED = 4;

/** Everything that decides what an element does at this moment. */
export interface OperatingState {
  readonly mode: Int8Array;
  readonly awake: Uint8Array;
  /** volts across each filament around which it is taken as straight; m */
  readonly straight: Float64Array;
  /** ohm added in series; m */
  readonly series: Float64Array;
  /** 1 where an edit takes the element for dead; m */
  readonly dead: Uint8Array;
  readonly replaced: Map<number, Changed>;
}

export interface Moment {
  /** 1 for each element opened by an unplugged connector; m entries (see `openedBy`) */
  readonly open: Uint8Array;
  /** steel at every sensor tip, or as drawn when undefined */
  readonly steel?: boolean | undefined;
  /** where in its period every pulsed driver stands, 0 … 1; an element conducts while phase < duty */
  readonly phase?: number | undefined;
  /** the one node (by its gate) that talks on a bus; every node at once when undefined */
  readonly talker?: number | undefined;
}

/** The element with what an edit replaces. */
export const present = (e: Element, i: number, d: OperatingState): Element => {
  const by = d.replaced.size ? d.replaced.get(i) : undefined;
  return by ? { ...e, ...by } : e;
};

/** an inductive sensor swings both ways as steel comes and goes; a meter on DC sees the mean, nothing */
const generated = (volt: number, m: Moment) => (m.steel === undefined ? 0 : m.steel ? volt : -volt);
const steelHere = (e: Element, m: Moment) => m.steel ?? e.ratio === 1;

/** Whether an element is held off: dead, asleep, or not its part of the period. */
export function isOff(e: Element, i: number, d: OperatingState, m: Moment): boolean {
  if (d.dead[i] === 1) return true;
  if (e.gate >= 0 && (d.awake[e.gate] === 1) === e.whenAsleep) return true;
  if (e.steel === "conducts" && !steelHere(e, m)) return true;
  if (e.steel === "held" && e.ratio !== 1) return true;
  if (e.talks && m.talker !== undefined && m.talker !== e.gate) return true;
  return e.duty < 1 && (m.phase ?? 0) >= e.duty;
}

/**
 * Resistance of a filament at a voltage, ohm: grows with its square root, from a tenth cold (common practice, no
 * source).
 */
export function filamentOhm(e: Pick<Element, "ohm" | "volt">, volt: number): number {
  return e.ohm * Math.max(DEFAULTS.lamp.coldShare, Math.sqrt(Math.abs(volt) / e.volt));
}

/**
 * Writes what an element does now as conductances and currents: six numbers from `w[WEIGHTS·i]` (see Pattern).
 * All conductances are ≥ 0.
 */
export function writeConductances(plain: Element, i: number, d: OperatingState, m: Moment, w: Float64Array): void {
  const at = i * NUMBERS_PER_ELEMENT;
  if (m.open[i] === 1) {
    put(w, at, 0, 0);
    return;
  }
  const e = present(plain, i, d);
  const off = isOff(e, i, d, m);
  const ohm = (off ? e.offOhm : e.ohm) + d.series[i]!;
  const g = 1 / ohm; // 0 where open
  if (e.type === "follower") {
    w[at] = off ? 0 : g * e.ratio;
    w[at + 1] = 0;
    w[at + 2] = off ? g : g * (1 - e.ratio);
    w[at + 3] = off ? g : 0;
    w[at + 4] = w[at + 5] = 0;
    return;
  }
  if (off || g === 0) {
    put(w, at, g, 0);
    return;
  }
  switch (e.type) {
    case "resistor":
      put(w, at, g, 0);
      return;
    case "fuse":
      put(w, at, d.mode[i] === BLOWN ? 0 : g, 0);
      return;
    case "source":
      put(w, at, g, (e.steel === "generates" ? generated(e.volt, m) : e.volt) * g);
      return;
    case "reference": {
      const slope = DEFAULTS.module.limitSlopeSiemens;
      const mode = d.mode[i]!;
      if (mode === OFF) put(w, at, 1 / e.offOhm, e.volt / e.offOhm);
      else if (mode === LIMITING) put(w, at, slope, e.limitAmpere + slope * (e.volt - e.limitAmpere * ohm));
      else if (mode === FOLDED) put(w, at, slope, e.foldAmpere + slope * e.foldVolt);
      else put(w, at, g, e.volt * g);
      return;
    }
    case "limiter": {
      const slope = DEFAULTS.module.limitSlopeSiemens;
      const mode = d.mode[i]!;
      if (mode === LIMITING) put(w, at, slope, -(e.limitAmpere - slope * e.limitAmpere * ohm));
      else if (mode === OFF) put(w, at, 1 / DEFAULTS.diode.offOhm, 0);
      else put(w, at, g, 0);
      return;
    }
    case "diode": {
      const leak = 1 / DEFAULTS.diode.offOhm;
      const mode = d.mode[i]!;
      if (mode === CONDUCTING) put(w, at, g, e.volt * (g - leak));
      else if (mode === SATURATED) {
        const slope = DEFAULTS.module.limitSlopeSiemens;
        const knee = e.volt + e.limitAmpere * ohm;
        put(w, at, slope, -(e.limitAmpere + e.volt * leak - slope * knee));
      } else put(w, at, leak, 0);
      return;
    }
    case "filament": {
      const cold = 1 / (ohm * DEFAULTS.lamp.coldShare);
      const v = d.straight[i]!;
      const share = Math.abs(v) / e.volt;
      if (share <= DEFAULTS.lamp.coldShare ** 2) {
        put(w, at, cold, 0);
        return;
      }
      const ampere = (Math.sign(v) * Math.sqrt(share) * e.volt) / ohm;
      put(w, at, (0.5 * ampere) / v, -0.5 * ampere);
      return;
    }
  }
}

function put(w: Float64Array, at: number, g: number, ampereIntoA: number): void {
  w[at] = w[at + 1] = g;
  w[at + 2] = w[at + 3] = 0;
  w[at + 4] = ampereIntoA;
  w[at + 5] = -ampereIntoA;
}

/**
 * Two segments meet at their edge: within rounding of it, either will do. Without this an unloaded reference would
 * swing for ever.
 */
const EDGE_VOLT = 1e-9;

/**
 * The segment an element should be in at `v` volts across it: the present one, or a neighbour. Fuses apart: see settle.
 */
export function wanted(e: Element, mode: number, v: number, seriesOhm: number): number {
  const ohm = e.ohm + seriesOhm;
  switch (e.type) {
    case "reference": {
      const knee = e.volt - e.limitAmpere * ohm;
      if (mode === REGULATING) return v < knee - EDGE_VOLT ? LIMITING : v > e.volt + EDGE_VOLT ? OFF : REGULATING;
      if (mode === OFF) return v < e.volt - EDGE_VOLT ? REGULATING : OFF;
      if (mode === FOLDED) return v > e.foldVolt + EDGE_VOLT ? LIMITING : FOLDED;
      if (v > knee + EDGE_VOLT) return REGULATING;
      return e.foldAmpere < e.limitAmpere && v < e.foldVolt - EDGE_VOLT ? FOLDED : LIMITING;
    }
    case "limiter": {
      const knee = e.limitAmpere * ohm;
      if (mode === LIMITING) return v < knee - EDGE_VOLT ? REGULATING : LIMITING;
      // a limiter with a direction (volt > 0) lets nothing back
      if (mode === OFF) return v > EDGE_VOLT ? REGULATING : OFF;
      return v > knee + EDGE_VOLT ? LIMITING : e.volt > 0 && v < -EDGE_VOLT ? OFF : REGULATING;
    }
    case "diode": {
      if (mode === BLOCKING) return v > e.volt + EDGE_VOLT ? CONDUCTING : BLOCKING;
      const knee = e.volt + e.limitAmpere * ohm;
      if (mode === SATURATED) return v < knee - EDGE_VOLT ? CONDUCTING : SATURATED;
      return v < e.volt - EDGE_VOLT ? BLOCKING : v > knee + EDGE_VOLT ? SATURATED : CONDUCTING;
    }
    default:
      return mode;
  }
}
