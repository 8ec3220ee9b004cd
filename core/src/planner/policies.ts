import { POLICY_NAMES, type ChartStep } from "../format/case.js";
import { type Folded, isSetCode } from "../logbook/fold.js";
import { stateName } from "../network/state.js";
import { uniform } from "../prediction/draws.js";
import type { Predictor } from "../prediction/predictor.js";
import { subjectsOf } from "../wiring/matrix.js";
import { findNets } from "../wiring/nets.js";
import { connectorOf, deviceConnectors, devicePins } from "../wiring/points.js";
import { isGuarded } from "../wiring/safety.js";
import { withoutBystanders } from "./bystanders.js";
import type { Candidate } from "./candidate.js";
import { price } from "./cost.js";
import { Forecast } from "./forecast.js";
import { lookAhead, type LookAhead, type MacroTest } from "./lookAhead.js";
import type { Plan } from "./plan.js";
import type { Weighed } from "./ranking.js";

/** How the next test is chosen: a setting of the job. */
export const POLICIES = POLICY_NAMES;
export type Policy = (typeof POLICIES)[number];

export type { ChartStep } from "../format/case.js";
export interface ChooseOptions {
  /** steps entered from a maker's chart; without them the chart is built from the codes */
  readonly chart?: readonly ChartStep[];
  /** for "random" */
  readonly seed?: number;
  /** guided runs that compete with single tests in the look-ahead */
  readonly macros?: readonly MacroTest[];
  /** leave the look-ahead out (for measuring what it is worth) */
  readonly greedy?: boolean;
}
export interface Chosen {
  readonly candidate: Candidate;
  readonly weighed: Weighed | undefined;
  /** expected minutes until one suspect is left, where the school looks that far */ readonly minutes:
    number | undefined;
  /** and what it saw */ readonly ahead?: LookAhead;
}

/** The look-ahead is worth its time once so few suspects are left. */
const LOOK_AHEAD_FROM = 24;

/** What tells the repairs of a proven group apart, the best first step first; undefined where nothing does. */
export function narrowFurther(predictor: Predictor, { narrowing }: Plan, folded: Folded): Chosen | undefined {
  if (!narrowing) return undefined;
  return choose(predictor, { ...narrowing, stage: "splitting", hangsOn: undefined }, folded, "information");
}

/** What a school does next. @returns undefined when it has nothing left to do */
export function choose(
  predictor: Predictor,
  plan: Plan,
  folded: Folded,
  school: Policy,
  options: ChooseOptions = {},
): Chosen | undefined {
  const weighed = (c: Candidate | undefined): Chosen | undefined =>
    c ? { candidate: c, weighed: plan.ranked.find((r) => r.candidate.id === c.id), minutes: undefined } : undefined;
  const telling = plan.ranked.filter((r) => r.bits >= EASY_BITS);
  // a verdict at hand is confirmed the same way in every school
  if (plan.stage === "confirming")
    return plan.ranked[0]
      ? { candidate: plan.ranked[0].candidate, weighed: plan.ranked[0], minutes: undefined }
      : undefined;
  switch (school) {
    case "information": {
      const ranked = withoutBystanders(predictor, folded, plan.ranked);
      const first = ranked[0];
      if (!first) return undefined;
      const worth = plan.grouped.suspects.filter((s) => s.share >= 0.01).length;
      if (options.greedy || worth > LOOK_AHEAD_FROM)
        return { candidate: first.candidate, weighed: first, minutes: undefined };
      const ahead = lookAhead(predictor, plan.particleBelief, ranked, plan.cost, plan.position, options.macros);
      const best = ranked[ahead.best]!;
      return { candidate: best.candidate, weighed: best, minutes: ahead.minutes, ahead };
    }
    case "easiest": {
      const list = (telling.length ? telling : plan.ranked)
        .slice()
        .sort((a, b) => a.candidate.minutes - b.candidate.minutes || b.bits - a.bits);
      return weighed(list[0]?.candidate);
    }
    case "halve":
      return weighed(halving(predictor, plan));
    case "powerGroundSignal":
      return weighed(byHand(predictor, plan, folded));
    case "chart":
      return weighed(
        options.chart
          ? (branched(predictor, plan, folded, options.chart) ?? plan.ranked[0]?.candidate)
          : fixedChart(predictor, plan, folded),
      );
    case "random": {
      const { open } = plan;
      const u = uniform((options.seed ?? 1) * 1009 + folded.readings.length + folded.clues.length);
      return weighed(open[Math.floor(u() * open.length)]);
    }
  }
}
/** The easiest reading must at least tell this much, bits. Judgement: less is no answer. */
const EASY_BITS = 0.05;

/** The reading whose answer, good or bad, comes nearest to halving the number of suspects, whatever it costs. */
function halving(predictor: Predictor, plan: Plan): Candidate | undefined {
  const forecast = new Forecast(predictor, plan.particleBelief);
  const { particles } = plan.particleBelief;
  const suspects = new Set(particles.map((a) => a.suspect));
  const telling = new Set(plan.ranked.map((r) => r.candidate.id));
  let best: Candidate | undefined;
  let nearest = Infinity;
  for (const candidate of plan.open) {
    // in the document's order: of equals the first
    if (candidate.instrument === "none" || !telling.has(candidate.id)) continue;
    const bad = new Map<number, number>();
    const all = new Map<number, number>();
    for (const a of particles) {
      const isBad = candidate.points.some((p) =>
        differs(
          forecast.there(a, candidate, p).mean,
          forecast.away(a, candidate, p).mean,
          candidate.instrument === "ohmmeter",
        ),
      );
      all.set(a.suspect, (all.get(a.suspect) ?? 0) + a.weight);
      if (isBad) bad.set(a.suspect, (bad.get(a.suspect) ?? 0) + a.weight);
    }
    let half = 0;
    for (const [s, w] of bad) half += w / all.get(s)!;
    const off = Math.abs(half / suspects.size - 0.5);
    if (off < nearest - 1e-9) {
      nearest = off;
      best = candidate;
    }
  }
  return best ?? plan.ranked[0]?.candidate;
}
const differs = (a: number, b: number, ohms: boolean) =>
  Number.isNaN(a) || Number.isNaN(b) || a === b
    ? false
    : ohms
      ? Math.abs(a - b) > 0.5 || a === Infinity || b === Infinity
      : Math.abs(a - b) > 0.25;

const FUNCTION_ORDER = ["feed", "reference", "ground", "sensorGround", "signal", "driver", "bus", "unknown"];

/** Power, ground, reference and signal at the coded part that is easiest to reach, then at the next. */
function byHand(predictor: Predictor, plan: Plan, folded: Folded): Candidate | undefined {
  const nets = findNets(predictor.wiring);
  const parts = coded(predictor, folded)
    .map((id) => predictor.wiring.devices.find((d) => d.id === id)!)
    .filter(Boolean)
    .sort((a, b) => reachOf(predictor, deviceConnectors(a)[0]) - reachOf(predictor, deviceConnectors(b)[0]));
  for (const d of parts) {
    const list = plan.open
      .filter((c) => c.kind === "voltage" && c.state.key === "on" && deviceConnectors(d).includes(c.at))
      .sort(
        (a, b) =>
          FUNCTION_ORDER.indexOf(nets.functionOf(a.points[0]!)) - FUNCTION_ORDER.indexOf(nets.functionOf(b.points[0]!)),
      );
    if (list[0]) return list[0];
  }
  return fixedChart(predictor, plan, folded);
}
const reachOf = (predictor: Predictor, connector: string | undefined) =>
  predictor.wiring.connectors.find((c) => c.id === connector)?.reachMinutes ?? 99;

/**
 * Codes in the order logged; for each its part's supply, ground, reference and signal, the module's end, then the
 * fuses.
 */
function fixedChart(predictor: Predictor, plan: Plan, folded: Folded): Candidate | undefined {
  const { wiring } = predictor;
  const nets = findNets(wiring);
  const open = new Map(plan.open.filter((c) => c.instrument !== "none").map((c) => [c.id, c]));
  const order: string[] = [];
  for (const id of coded(predictor, folded)) {
    const d = wiring.devices.find((x) => x.id === id);
    if (!d) continue;
    const pins = devicePins(d)
      .slice()
      .sort((a, b) => FUNCTION_ORDER.indexOf(nets.functionOf(a.at)) - FUNCTION_ORDER.indexOf(nets.functionOf(b.at)));
    for (const p of pins) order.push(`voltage ${p.at}`, `voltageUnplugged ${p.at} -${connectorOf(p.at)}`);
    for (const p of pins) {
      const pin = nets.modulePinOf(p.at);
      if (pin) order.push(`voltage ${pin}`);
    }
  }
  for (const d of wiring.devices) if (d.kind === "fuse") order.push(`fuse ${d.id}:in ${d.id}:out`, `ohms ${d.id}:out`);
  for (const id of order) {
    const c = open.get(id);
    if (c) return c;
  }
  // the chart is at its end: whatever is left, in the document's order
  return (
    plan.open.find((c) => c.kind === "voltage" || c.kind === "voltageUnplugged") ??
    plan.open.find((c) => c.instrument !== "none") ??
    plan.open[0]
  );
}

/** A maker's chart with branches: follows the answers logged so far. @returns undefined when the chart is at its end */
function branched(
  predictor: Predictor,
  plan: Plan,
  folded: Folded,
  chart: readonly ChartStep[],
): Candidate | undefined {
  const byId = new Map(chart.map((s) => [s.id, s]));
  const seen = new Set<string>();
  let step: ChartStep | undefined = chart[0];
  while (step && !seen.has(step.id)) {
    seen.add(step.id);
    const here: ChartStep = step;
    const read = folded.readings.find(
      ({ entry }) =>
        entry.instrument === here.instrument &&
        stateName(entry.state) === stateName(here.state) &&
        entry.points.includes(here.point),
    );
    if (!read) {
      const offered =
        plan.open.find(
          (c) =>
            c.instrument === here.instrument &&
            stateName(c.state) === stateName(here.state) &&
            c.points.length === 1 &&
            c.points[0] === here.point,
        ) ?? asked(predictor, plan, here);
      if (offered && !folded.setAside.has(offered.id)) return offered;
      step = chart[chart.indexOf(here) + 1]; // cannot be taken here: the chart goes on
      continue;
    }
    const value = read.entry.values[read.entry.points.indexOf(here.point)]!;
    const good = typeof value === "number" && value >= here.low && value <= here.high;
    const next: string | undefined = good ? here.ifGood : here.ifBad;
    step = next === undefined ? chart[chart.indexOf(here) + 1] : byId.get(next);
  }
  return undefined;
}

/**
 * A step the chart asks for though it is not among what would be offered; never at a place that must not be touched.
 */
function asked(predictor: Predictor, plan: Plan, step: ChartStep): Candidate | undefined {
  const at = step.instrument === "scanTool" ? "" : step.point.includes(":") ? connectorOf(step.point) : step.point;
  if (
    predictor.placeOf(step.instrument, step.point) === undefined ||
    [at, ...step.state.unplugged].some((id) => isGuarded(predictor.wiring, id))
  )
    return undefined;
  const kind =
    step.instrument === "ohmmeter"
      ? "ohms"
      : step.instrument === "scanTool"
        ? "scan"
        : step.state.unplugged.length
          ? "voltageUnplugged"
          : "voltage";
  return price(
    {
      id: `chart ${kind} ${step.point} ${stateName(step.state)}`,
      kind,
      instrument: step.instrument,
      points: [step.point],
      at,
      state: step.state,
    },
    plan.cost,
    plan.position,
  );
}

/** Parts that the codes logged are about, in that order. */
function coded(predictor: Predictor, folded: Folded): string[] {
  const known = new Set<string>();
  for (const { entry } of folded.codes)
    if (isSetCode(entry)) for (const s of subjectsOf(predictor.wiring, entry.module, entry.code)) known.add(s);
  return [...known];
}
