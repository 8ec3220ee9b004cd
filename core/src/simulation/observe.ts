import type { Entry, Finding, Instrument, ReadingEntry } from "../format/case.js";
import type { Candidate } from "../planner/candidate.js";
import { recordChanges, recordReading, type Recorded } from "../planner/record.js";
import { yesLikelihood } from "../planner/candidate.js";
import { watchedBy } from "../planner/candidateKind.js";
import { onLoosePart } from "../network/state.js";
import { OVERLOAD } from "../units/quantity.js";
import { pinBehind } from "../wiring/points.js";
import { shownNumber } from "../diagnosis/evidence.js";
import { SimulatedMachine } from "./machine.js";
import { signOf } from "./signs.js";

/** What a step shows on a simulated machine: values of an instrument, or yes or no and what was found. */
export interface Observed {
  readonly values?: readonly ReadingEntry["values"][number][];
  /** of each value that was watched and did not stand still: with the fault there, and away */
  readonly swings?: readonly (readonly [there: number, away: number] | undefined)[];
  readonly yes?: boolean;
  readonly found?: readonly Finding[];
}

/**
 * Takes one step on a simulated machine. What eyes and hands find follows the engine's own odds: there is no physics of
 * rubbed insulation.
 * @param comesAndGoes the hidden fault does @param random in [0, 1); a fixed 0.6 gives the likelier answer
 * @returns undefined where the instrument shows nothing at all
 */
export function observe(
  machine: SimulatedMachine,
  c: Pick<Candidate, "kind" | "instrument" | "points" | "state" | "black" | "part">,
  comesAndGoes: boolean,
  random: () => number,
): Observed | undefined {
  const { wiring } = machine.rig;
  if (c.instrument !== "none") {
    // a new part is a good one
    const bench = c.part === "new" ? new SimulatedMachine(wiring, [], 1) : machine;
    const own = (p: string) => (c.part ? pinBehind(p) : p);
    const state = c.part ? onLoosePart(c.state) : c.state;
    const values = c.points.map((p) =>
      bench.read(
        own(p),
        state,
        c.instrument as Exclude<typeof c.instrument, "none">,
        c.black === undefined ? undefined : own(c.black),
      ),
    );
    if (values.some(Number.isNaN)) return undefined;
    if (watchedBy(c.kind) && comesAndGoes && machine.showsItself(random)) {
      const swings = c.points.map((p) => machine.ends(p, c.state, c.instrument as Instrument));
      if (swings.some(Boolean)) return { values, swings };
    }
    return {
      values: values.map((v) =>
        c.instrument === "lamp"
          ? v > 0.75
            ? "bright"
            : v > 0.25
              ? "dim"
              : "dark"
          : c.instrument === "continuity"
            ? v > 0.5
              ? "beep"
              : "silent"
            : v === OVERLOAD
              ? "OL"
              : v,
      ),
    };
  }
  if (c.kind === "breaker")
    return {
      yes:
        machine.read(`${c.points[0]!}:out`, c.state, "voltmeter") >
        0.5 * machine.read(`${c.points[0]!}:in`, c.state, "voltmeter"),
    };
  if (c.kind === "codeSets")
    return {
      yes: machine.rig.codesIn(c.state).some((i) => {
        const { code } = machine.rig.monitors[i]!;
        return code.module === c.points[0] && code.id === c.points[1];
      }),
    };
  const faults = machine.faults.map((f) => f.fault);
  const yes = random() < yesLikelihood(c, faults, comesAndGoes, machine.mistaken);
  return { yes, ...(yes && c.kind === "look" ? { found: [signOf(faults, c.points[0] ?? "", random)] } : {}) };
}

/**
 * The entries that values seen on a simulated machine make: a reading, with its swing where it would not stand still;
 * of several points that were watched at once a recording.
 */
export function recordObserved(c: Recorded, { values = [], swings }: Observed, at: string): Entry[] {
  const [first] = swings ?? [];
  if (c.points.length === 1 || !watchedBy(c.kind)) {
    const middle = first && [(first[0] + first[1]) / 2];
    const swing = first && { swing: [Math.min(...first), Math.max(...first)] as [number, number] };
    return recordReading(c, middle ?? values, at, swing ?? {});
  }
  return [
    ...recordChanges(c, at),
    {
      type: "trace",
      at,
      seconds: WATCHED_SECONDS,
      perSecond: WATCHED_RATE,
      doing: "move",
      state: c.state,
      channels: c.points.map((on, i) => {
        const shown = shownNumber(values[i]!);
        const ends = swings?.[i];
        const [to, mean] = ends ?? [shown, shown];
        return {
          name: on,
          on,
          by: "scope" as const,
          kind: "steady" as const,
          low: mean,
          high: mean,
          mean,
          ...(ends ? { dropouts: { count: 3, to, longest: 0.02, chance: 0 } } : {}),
        };
      }),
    },
  ];
}
/** Every test of a simulated job has a date of its own: values of one date on one plug count as watched at once. */
export const dateOfStep = (begun: string, step: number): string =>
  new Date(Date.parse(begun) + 1000 * step).toISOString();
/** A recording of a simulated job: long and fine enough for what comes and goes. */
const WATCHED_SECONDS = 10;
const WATCHED_RATE = 1000;
