import { shownNumber } from "../diagnosis/evidence.js";
import { runStepId } from "../format/candidateId.js";
import type { Entry, RunEntry, RunName } from "../format/case.js";
import { fold } from "../logbook/fold.js";
import { stateName } from "../network/state.js";
import type { Candidate } from "../planner/candidate.js";
import { price } from "../planner/cost.js";
import { Cost, positionOf } from "../planner/cost.js";
import type { Predictor } from "../prediction/predictor.js";
import { connectorOf } from "../wiring/points.js";
import { benchTest, jumpers, newPart, opposite, swapTwins, whichIsWhich } from "./parts.js";
import {
  RunContext,
  unclear,
  type Mark,
  type RunFinding,
  type RunStep,
  type Script,
  type StepAnswer,
} from "./script.js";
import { fuseRun, unplugSeries } from "./series.js";
import { hallBench, steelTest } from "./steel.js";
import { compareTwin, dropBySection, farEnd, groundProof, halveRun, loadWire } from "./wires.js";

const SCRIPTS: Readonly<Record<Exclude<RunName, "wiggle">, (ctx: RunContext) => Script>> = {
  unplugSeries,
  fuseRun,
  jumpers,
  groundProof,
  dropBySection,
  halveRun,
  loadWire,
  compareTwin,
  benchTest,
  farEnd,
  opposite,
  newPart,
  swapTwins,
  whichIsWhich,
  steelTest,
  hallBench,
};
/** A run longer than this is broken. */
const MOST_STEPS = 400;

/** One step of a run that has been taken, or set aside. */
export interface TakenStep {
  readonly step: RunStep;
  readonly number: number | undefined;
  readonly values: readonly number[];
  readonly healthy: readonly number[];
  readonly mark: Mark | undefined;
}
/** A guided run as it stands: what was done, what comes next, what it came to. */
export interface RunView {
  readonly run: RunName;
  readonly on: string;
  /** number of the entry that began it */
  readonly begun: number;
  readonly taken: readonly TakenStep[];
  readonly next: Candidate | undefined;
  readonly finding: RunFinding | undefined;
}

/** Where the open run of a logbook stands; undefined where none is open, or only a wiggle run, which has no script. */
export function runView(predictor: Predictor, entries: readonly Entry[]): RunView | undefined {
  const folded = fold(entries);
  const open = folded.run;
  if (!open || open.entry.run === "wiggle") return undefined;
  const ctx = new RunContext(predictor, open.entry.on);
  const taken: Omit<TakenStep, "mark">[] = [];
  if (open.entry.on.split(" ").some((x) => ctx.isGuarded(x)))
    return view(open, taken, ctx, undefined, unclear("guarded", { point: open.entry.on }));
  const script = SCRIPTS[open.entry.run](ctx);
  const used = new Set<number>();
  let at = script.next();
  for (let n = 0; !at.done && n < MOST_STEPS; n++) {
    const step = at.value;
    const id = runStepId(open.entry.run, step);
    // a step that must not be done is never offered: it counts as one that cannot be taken
    if (folded.setAside.has(id) || touched(step).some((x) => ctx.isGuarded(x))) {
      taken.push({ step, number: undefined, values: [], healthy: [] });
      at = script.next(undefined);
      continue;
    }
    const got = findAnswer(step, entries, folded.undone, open.number, used);
    if (!got) {
      const c = new Cost(predictor.wiring);
      return view(open, taken, ctx, candidateOf(step, id, c, positionOf(folded)), undefined);
    }
    used.add(got.number);
    taken.push({
      step,
      number: got.number,
      values: got.values,
      healthy: step.points.map((_, i) => ctx.healthy(step, i)),
    });
    at = script.next(got);
  }
  return view(open, taken, ctx, undefined, at.done ? at.value : undefined);
}
/** Every point and plug a step puts a hand or a lead to. */
const touched = (s: RunStep): string[] => [
  ...(s.kind === "codeSets" ? [] : s.points),
  ...(s.black === undefined ? [] : [s.black]),
  ...s.state.unplugged,
  ...[...(s.state.jumpers ?? []), ...(s.state.loads ?? [])].flatMap((x) => [x.from, x.to]),
];
const view = (
  open: { readonly number: number; readonly entry: RunEntry },
  taken: readonly Omit<TakenStep, "mark">[],
  ctx: RunContext,
  next: Candidate | undefined,
  finding: RunFinding | undefined,
): RunView => ({
  run: open.entry.run,
  on: open.entry.on,
  begun: open.number,
  taken: taken.map((t) => ({ ...t, mark: t.number === undefined ? undefined : ctx.marks.get(t.number) })),
  next,
  finding,
});

function candidateOf(step: RunStep, id: string, cost: Cost, from: ReturnType<typeof positionOf>): Candidate {
  const point = step.points[0] ?? "";
  const at =
    step.instrument === "scanTool"
      ? ""
      : step.kind === "drop" && step.black !== undefined && point.endsWith(":+")
        ? connectorOf(step.black)
        : step.kind === "codeSets"
          ? ""
          : connectorOf(point);
  return {
    ...price(
      { id, kind: step.kind, instrument: step.instrument, points: step.points, at, state: step.state },
      cost,
      from,
    ),
    state: step.state,
    ...(step.black === undefined ? {} : { black: step.black }),
    ...(step.part ? { part: step.part } : {}),
  };
}

/** The entry, after the run began and not used yet, that answers a step. */
function findAnswer(
  step: RunStep,
  entries: readonly Entry[],
  undone: ReadonlySet<number>,
  after: number,
  used: ReadonlySet<number>,
): StepAnswer | undefined {
  const name = stateName(step.state);
  for (let number = after + 1; number <= entries.length; number++) {
    if (undone.has(number) || used.has(number)) continue;
    const e = entries[number - 1]!;
    if (
      e.type === "reading" &&
      step.instrument === e.instrument &&
      e.black === step.black &&
      e.part === step.part &&
      e.points.length === step.points.length &&
      e.points.every((p, i) => p === step.points[i]) &&
      stateName(e.state) === name
    )
      return { number, values: e.values.map(shownNumber) };
    if (step.instrument !== "none") continue;
    const yes = (y: boolean): StepAnswer => ({ number, values: [y ? 1 : 0] });
    if (step.kind === "breaker" && e.type === "holds" && e.fuse === step.points[0] && stateName(e.state) === name)
      return yes(e.held);
    if (step.kind === "wiggle" && e.type === "wiggle" && e.thing === step.points[0]) return yes(e.reacted);
    if (
      step.kind === "swap" &&
      e.type === "swap" &&
      step.points.every((p) => (e.parts as readonly string[]).includes(p))
    )
      return yes(e.result === "moved");
    if (step.kind === "codeSets" && e.type === "code" && e.module === step.points[0] && e.code === step.points[1])
      return yes(e.status !== "absent");
  }
  return undefined;
}
