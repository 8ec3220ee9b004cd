import type { TraceChannel } from "../format/trace.js";
import type { ChannelFacts } from "./facts.js";
import { median, mostOf } from "./numbers.js";

/** What of a channel goes into the logbook. */
export type ChannelSeen = Pick<
  TraceChannel,
  "kind" | "low" | "high" | "mean" | "hertz" | "duty" | "missing" | "returns" | "gap" | "dropouts"
>;

/** Digits that are kept: more than any instrument shows. */
const round = (v: number) => Number(v.toPrecision(6));

/**
 * What is weighed of a channel: its two levels where it switches, else where it stays, with its dropouts taken out.
 * @returns undefined where nothing was read
 */
export function seenIn({
  kind,
  levels,
  timing,
  teeth,
  dropouts,
  least,
  most,
  mean,
}: ChannelFacts): ChannelSeen | undefined {
  if (kind === "empty") return undefined;
  if (kind === "switching" && levels && timing) {
    const missing = teeth?.faults.reduce((sum, f) => sum + f.count, 0) ?? 0;
    return {
      kind,
      low: round(levels.low),
      high: round(levels.high),
      mean: round(mean),
      hertz: round(timing.hertz),
      duty: round(Math.min(1, Math.max(0, timing.duty))),
      ...(missing ? { missing, ...(teeth?.returns ? { returns: true as const } : {}) } : {}),
      ...(teeth?.gap && teeth.gap.teeth >= 1
        ? { gap: { teeth: Math.round(teeth.gap.teeth), missing: teeth.gap.missing } }
        : {}),
    };
  }
  const clearest = dropouts.reduce((a, d) => Math.min(a, d.chance), 1);
  const bases = dropouts.map((d) => d.base);
  const usual = mostOf(bases);
  return {
    kind: kind === "varying" ? "varying" : "steady",
    low: round(dropouts.length ? Math.max(least, usual.low) : least),
    high: round(dropouts.length ? Math.min(most, usual.high) : most),
    mean: round(dropouts.length && kind === "steady" ? median(bases) : mean),
    ...(dropouts.length
      ? {
          dropouts: {
            count: dropouts.length,
            to: round(median(dropouts.map((d) => d.value))),
            longest: round(Math.max(...dropouts.map((d) => d.to - d.from))),
            chance: clearest,
          },
        }
      : {}),
  };
}
