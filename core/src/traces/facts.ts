import type { Issue } from "../issues/issue.js";
import { dropoutsInSteps, type Dropout } from "./dropouts.js";
import { signalEdges, isRegular, riseTime, timingOf, type Timing } from "./edges.js";
import { levelsOf, type Levels } from "./levels.js";
import { mostOf, noiseOf, spanOf } from "./numbers.js";
import { qualityOf } from "./quality.js";
import { lengthOf, rateOf, type Channel } from "./recording.js";
import { finished, type InSteps } from "../steps.js";
import { teethOf, type Teeth } from "./teeth.js";

/** What one channel is seen to do. */
export interface ChannelFacts {
  readonly name: string;
  readonly unit: string;
  readonly samples: number;
  readonly seconds: number;
  readonly perSecond: number;
  readonly least: number;
  readonly most: number;
  readonly mean: number;
  /** σ from one sample to the next */
  readonly noise: number;
  readonly kind: "empty" | "steady" | "switching" | "varying";
  readonly levels: Levels | undefined;
  readonly timing: (Timing & { readonly rise: number }) | undefined;
  readonly teeth: Teeth | undefined;
  readonly dropouts: readonly Dropout[];
  readonly issues: readonly Issue[];
}

/** A channel that moves less than this many σ of its noise, or this much, stands still. Judgement; volts or amperes. */
const STEADY_SIGMAS = 12;
const STEADY = 0.1;

/** All that is measured of one channel by itself. */
export const factsOf = (channel: Channel): ChannelFacts => finished(factsInSteps(channel));

/** The same in steps of its own, between which somebody may ask for something else: a long recording takes seconds. */
export function* factsInSteps(channel: Channel): InSteps<ChannelFacts> {
  const { least, most, mean, count } = spanOf(channel.values);
  const noise = noiseOf(channel.values);
  yield;
  const levels = levelsOf(channel);
  yield;
  const isSwitching = levels?.isSwitching === true;
  const edges = isSwitching ? signalEdges(channel, levels.low, levels.high) : [];
  const timing = isSwitching && isRegular(edges) ? timingOf(edges) : undefined;
  const switches = timing !== undefined;
  yield;
  const dropouts = count === 0 || switches ? [] : yield* dropoutsInSteps(channel);
  yield;
  const moves = most - least > Math.max(STEADY, STEADY_SIGMAS * noise) && !isSteadyBut(channel, dropouts, noise);
  return {
    name: channel.name,
    unit: channel.unit,
    samples: channel.values.length,
    seconds: lengthOf(channel),
    perSecond: rateOf(channel),
    least,
    most,
    mean,
    noise,
    kind: count === 0 ? "empty" : switches ? "switching" : moves ? "varying" : "steady",
    levels: switches ? levels : undefined,
    timing: switches ? { ...timing, rise: riseTime(channel, levels!.low, levels!.high) } : undefined,
    teeth: switches ? teethOf(edges) : undefined,
    dropouts,
    issues: count === 0 ? [] : qualityOf(channel, timing, switches),
  };
}

/** Whether all that moves in a channel is its dropouts. */
function isSteadyBut(channel: Channel, dropouts: readonly Dropout[], noise: number): boolean {
  if (dropouts.length === 0) return false;
  // a base between two leaves that follow each other closely is none
  const { low, high } = mostOf(dropouts.map((d) => d.base));
  const spread = high - low;
  const out = dropouts.reduce((sum, d) => sum + d.samples, 0);
  return spread < Math.max(STEADY, STEADY_SIGMAS * noise) && out < channel.values.length / 2;
}
