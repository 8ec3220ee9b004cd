import type { Circuit } from "../network/element.js";
import type { Solver } from "../network/solver.js";
import {
  currentFails,
  isSet,
  lacksActivity,
  moduleSideVolt,
  momentsOf,
  quietFails,
  runs,
  setAtRest,
  talkFails,
  type BoundMonitor,
} from "./monitors.js";

/** Part of every pulsed driver's and talking bus's period, by where it begins and how long it lasts (shares). */
export interface Phase {
  readonly phase: number;
  readonly share: number;
}

/**
 * The parts into which the pulsed elements cut a period; one part when nothing is pulsed. All are taken to start
 * together. @param duties of elements that are pulsed otherwise than drawn
 */
export function phasesOf(circuit: Circuit, duties: readonly number[] = []): Phase[] {
  const all = [...circuit.elements.map((e) => e.duty), ...duties];
  const edges = [...new Set(all.filter((d) => d > 0 && d < 1))].sort((a, b) => a - b);
  const starts = [0, ...edges];
  return starts.map((phase, i) => ({ phase, share: (starts[i + 1] ?? 1) - phase }));
}

/** What to settle for one look at the machine. */
export interface Look {
  readonly steel?: boolean;
  readonly phase: number;
  readonly talker?: number;
}

const REST: Look = { phase: 0 };
const STEEL: Look = { steel: true, phase: 0 };
const NO_STEEL: Look = { steel: false, phase: 0 };

/** Monitors of one key state, sorted once by the looks they need. Entries are places in `monitors`. */
export interface JudgePlan {
  readonly monitors: readonly BoundMonitor[];
  readonly rest: readonly number[];
  readonly steel: readonly number[];
  readonly driven: readonly number[];
  readonly heard: readonly number[];
  /** without the look at which no one talks, where that is known to show nothing */
  readonly onlyTalk: boolean;
}

export function judgePlan(monitors: readonly BoundMonitor[], onlyTalk = false): JudgePlan {
  const of = (kind: string) => monitors.flatMap((m, i) => (momentsOf(m) === kind ? [i] : []));
  return { monitors, rest: of("rest"), steel: of("steel"), driven: of("driven"), heard: of("heard"), onlyTalk };
}

/** Every look a plan needs, with the places in `monitors` of those that are judged at it. */
export function looksOf(
  { monitors, rest, steel, driven, heard }: JudgePlan,
  phases: readonly Phase[],
): readonly { readonly look: Look; readonly judged: readonly number[] }[] {
  const quiet: Look = { phase: phases[phases.length - 1]!.phase };
  const heardOf = (talker: number) => heard.filter((i) => monitors[i]!.node!.gate === talker);
  const talkers = new Set(heard.map((i) => monitors[i]!.node!.gate));
  return [
    ...phases.map(({ phase }) => ({ look: { phase }, judged: rest })),
    ...[STEEL, NO_STEEL].map((look) => ({ look, judged: steel })),
    { look: REST, judged: driven },
    { look: quiet, judged: heard },
    ...[...talkers].map((talker) => ({ look: { phase: 0, talker }, judged: heardOf(talker) })),
  ].filter(({ judged }) => judged.length > 0);
}

/**
 * Judges every monitor of a plan: which codes set.
 * @param look settles the circuit for one look; the solver stays valid until the next call
 * @param set called with the place in `monitors` of every code that sets
 */
export function judge(
  { monitors, rest, steel, driven, heard, onlyTalk }: JudgePlan,
  phases: readonly Phase[],
  look: (l: Look) => Solver,
  set: (i: number) => void,
): void {
  if (rest.length && phases.length === 1) {
    const s = look(REST);
    for (const i of rest) if (isSet(s, monitors[i]!)) set(i);
  } else if (rest.length) {
    const volt = new Float64Array(rest.length);
    const other = new Float64Array(rest.length);
    const running = new Uint8Array(rest.length).fill(1);
    for (const p of phases) {
      const s = look({ phase: p.phase });
      rest.forEach((i, j) => {
        const m = monitors[i]!;
        volt[j] = volt[j]! + p.share * moduleSideVolt(s, m);
        if (m.other) other[j] = other[j]! + p.share * moduleSideVolt(s, m.other);
        if (!runs(s, m)) running[j] = 0;
      });
    }
    rest.forEach((i, j) => {
      if (running[j] && setAtRest(monitors[i]!.monitor, volt[j]!, other[j]!)) set(i);
    });
  }
  if (steel.length) {
    const s = look(STEEL);
    const with_ = steel.map((i) => moduleSideVolt(s, monitors[i]!));
    const t = look(NO_STEEL);
    steel.forEach((i, j) => {
      if (lacksActivity(monitors[i]!, with_[j]!, moduleSideVolt(t, monitors[i]!), runs(t, monitors[i]!))) set(i);
    });
  }
  if (driven.length) {
    const s = look(REST);
    for (const i of driven) if (currentFails(s, monitors[i]!)) set(i);
  }
  const failedWhenQuiet = () => {
    const quiet = look({ phase: phases[phases.length - 1]!.phase });
    return heard.map((i) => quietFails(quiet, monitors[i]!));
  };
  if (heard.length) {
    const failed = onlyTalk ? [] : failedWhenQuiet();
    heard.forEach((i, j) => {
      if (failed[j] || talkFails(look({ phase: 0, talker: monitors[i]!.node!.gate }), monitors[i]!)) set(i);
    });
  }
}
