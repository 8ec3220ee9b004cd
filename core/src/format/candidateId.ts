import type { State } from "./case.js";

/**
 * Names of the tests that could be done next. The logbook keeps them when one is set aside, so they must stay the same
 * while the document does. They are made and taken apart here and nowhere else.
 */

const RUN = "run";
const CHART = "chart";

/**
 * A test that the document offers: its kind, its points, the key where the engine turns, what is unplugged.
 * @param black where the black lead goes, when not at battery negative
 */
export function testId(kind: string, points: readonly string[], state: State, black?: string): string {
  const turning = state.key === "running" || state.key === "cranking" ? ` ${state.key}` : "";
  const unplugged = state.unplugged.length ? ` -${state.unplugged.join(",")}` : "";
  const leads = `${points.join(" ")}${black === undefined ? "" : `/${black}`}`;
  return `${kind} ${leads}${turning}${unplugged}`;
}

/** A step of a guided run, as far as it tells one step from another. */
export interface RunStepName {
  readonly kind: string;
  readonly points: readonly string[];
  readonly black?: string | undefined;
  readonly part?: string | undefined;
  readonly state: State;
}

/** The longest name of a step that the format of a case takes. */
const LONGEST = 200;

/** A step of a guided run. */
export function runStepId(run: string, step: RunStepName): string {
  const { kind, points, black, part, state } = step;
  const leads = `${points.join(" ")}${black === undefined ? "" : `/${black}`}`;
  const fitted = JSON.stringify([state.jumpers, state.loads, state.pulled, state.breakers]);
  const unplugged = [...state.unplugged].sort().join(",");
  return `${RUN} ${run} ${kind} ${leads} ${part ?? ""} ${state.key} -${unplugged} ${fitted}`.slice(0, LONGEST);
}

/** A step of a maker's chart that is not among the tests on offer. @param state its name, see `stateName` */
export const chartStepId = (kind: string, point: string, state: string): string => `${CHART} ${kind} ${point} ${state}`;

/** Where a test is made, as far as its name says: the leads, and the guided run it is a step of. */
export function testPlaceOf(id: string): { readonly run?: string; readonly points: readonly string[] } {
  const words = id.split(" ");
  const run = words[0] === RUN ? words[1] : undefined;
  const after = words.slice(run !== undefined ? 3 : words[0] === CHART ? 2 : 1);
  const ends = after.findIndex((w) => w === "" || w.startsWith("-") || KEYS_IN_NAMES.has(w));
  const points = (ends < 0 ? after : after.slice(0, ends)).map((w) => w.split("/")[0]!);
  return run === undefined ? { points } : { run, points };
}
const KEYS_IN_NAMES: ReadonlySet<string> = new Set(["off", "on", "cranking", "running"]);

/** The kind of test that a name stands for; undefined for steps of runs and charts, which are set aside one by one. */
export function testKindOf(id: string): string | undefined {
  const [first] = id.split(" ");
  return first === RUN || first === CHART ? undefined : first;
}
