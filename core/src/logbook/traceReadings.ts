import { DEFAULTS } from "../defaults.js";
import type { ReadingEntry, WiggleEntry } from "../format/case.js";
import type { TraceChannel, TraceEntry } from "../format/trace.js";

/** A clearer dropout than this is no noise. Judgement. */
const CLEAR = 1e-3;
/** A recording shorter than this, seconds, or with fewer samples a second, was not watched for what comes and goes. */
const LONG_ENOUGH = 5;
const OFTEN_ENOUGH = 5;

/**
 * What a recording says of the machine, as readings taken at one moment: levels of a switching signal, the value of a
 * steady one with where it drops out to, amperes. A signal that varies by itself says nothing as a number: what stood
 * at the sensor meanwhile is not known.
 */
export function traceReadings(trace: TraceEntry): ReadingEntry[] {
  // where it is known which places were moved, each of them is a clue of its own, and the rest stood still
  const isWatched =
    trace.doing === "move" && !trace.moved?.length && trace.seconds >= LONG_ENOUGH && trace.perSecond >= OFTEN_ENOUGH;
  return trace.channels.flatMap((c) => {
    const reading = (
      instrument: ReadingEntry["instrument"],
      value: number,
      more: Partial<ReadingEntry> = {},
    ): ReadingEntry => ({
      type: "reading",
      at: trace.at,
      ...(trace.by === undefined ? {} : { by: trace.by }),
      instrument,
      points: [c.on],
      ...(c.black === undefined ? {} : { black: c.black }),
      values: [value],
      state: trace.state,
      ...(isWatched ? { watched: "recorded" } : {}),
      ...more,
    });
    if (c.by === "scanTool") {
      const unit = c.unit === undefined ? {} : { unit: c.unit };
      if (c.kind === "varying" && (trace.doing === "crank" || trace.doing === "run"))
        return [reading("voltmeter", c.mean)];
      return c.kind === "steady" ? [reading("scanTool", c.mean, { ...unit, ...swingOf(c) })] : [];
    }
    if (c.by === "clamp") return c.kind === "varying" ? [] : [reading("clamp", c.mean, swingOf(c))];
    if (c.kind === "switching")
      return [reading("scopeLow", c.low), reading("scopeHigh", c.high), reading("voltmeter", c.mean)];
    return c.kind === "steady" ? [reading("voltmeter", c.mean, swingOf(c))] : [];
  });
}
function swingOf({ dropouts, mean }: TraceChannel): Partial<ReadingEntry> {
  if (!dropouts || dropouts.chance > CLEAR) return {};
  return { swing: [Math.min(mean, dropouts.to), Math.max(mean, dropouts.to)] };
}

/** Whether a recording shows that something comes and goes, and not only that a load is switched. */
export const showsDropouts = ({ channels, partings }: TraceEntry): boolean =>
  (partings?.length ?? 0) > 0 ||
  channels.some(
    ({ dropouts, mean, by }) =>
      dropouts !== undefined &&
      dropouts.chance <= CLEAR &&
      (by !== "scope" || Math.abs(mean - dropouts.to) > DEFAULTS.reading.flickerVolt),
  );

/** Places moved while it was recorded, and whether a channel reacted. */
export const traceWiggles = (trace: TraceEntry): WiggleEntry[] =>
  (trace.moved ?? []).map(({ thing, reacted }) => ({ type: "wiggle", at: trace.at, thing, reacted }));
