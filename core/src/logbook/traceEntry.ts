import type { State } from "../format/case.js";
import type { Doing, TraceChannel, TraceEntry } from "../format/trace.js";
import type { ChannelFacts } from "../traces/facts.js";
import type { PairSeen } from "../traces/pairs.js";
import type { Recording } from "../traces/recording.js";
import { seenIn, type ChannelSeen } from "../traces/seen.js";
import { cutText } from "../units/cutText.js";
import { SCAN_UNITS } from "../units/scanUnit.js";

/** Where a channel of a recording was put; a channel without one is not weighed. */
export interface ChannelPlace {
  readonly on: string;
  readonly black?: string | undefined;
  readonly by: TraceChannel["by"];
  readonly unit?: TraceChannel["unit"] | undefined;
}
export interface TakenRecording {
  readonly at: string;
  readonly state: State;
  readonly doing: Doing;
  /** by the channels' places in the recording; undefined where nobody said */
  readonly places: readonly (ChannelPlace | undefined)[];
  /** places that were moved, when, seconds */
  readonly moved?: readonly { readonly thing: string; readonly from: number; readonly to: number }[];
  readonly recording?: string | undefined;
  readonly note?: string | undefined;
}

/**
 * In which unit what a channel shows is logged: volts of a lead, amperes of a clamp, any of the scan tool's.
 * @returns undefined where the instrument shows no such thing
 */
export function fittingUnit(
  unit: string,
  by: TraceChannel["by"],
): { readonly factor: number; readonly unit?: TraceChannel["unit"] } | undefined {
  if (by === "scope") return unit === "V" || unit === "" ? { factor: 1 } : undefined;
  if (by === "clamp") return unit === "A" || unit === "" ? { factor: 1 } : unit === "mA" ? { factor: 1e-3 } : undefined;
  if (unit === "" || unit === "V") return { factor: 1 };
  const scan = SCAN_UNITS.find((u) => u === unit);
  return scan && { factor: 1, unit: scan };
}
function scaledBy(seen: ChannelSeen, factor: number): ChannelSeen {
  if (factor === 1) return seen;
  const { low, high, mean, dropouts } = seen;
  return {
    ...seen,
    low: low * factor,
    high: high * factor,
    mean: mean * factor,
    ...(dropouts ? { dropouts: { ...dropouts, to: dropouts.to * factor } } : {}),
  };
}

/** A reaction may come a little after the hand, seconds. Judgement. */
const AFTER = 0.3;

/**
 * What a recording adds to the logbook. A channel whose unit its instrument does not show is left out.
 * @returns undefined where no channel with a place holds anything that can be weighed
 */
export function traceEntry(
  { channels }: Recording,
  facts: readonly ChannelFacts[],
  pairs: readonly PairSeen[],
  taken: TakenRecording,
): TraceEntry | undefined {
  const own = channels.flatMap((c, i): { channel: TraceChannel; i: number }[] => {
    const place = taken.places[i];
    const measured = facts[i] && seenIn(facts[i]);
    const fitting = place && fittingUnit(c.unit, place.by);
    if (!place || !measured || !fitting) return [];
    const seen = scaledBy(measured, fitting.factor);
    const { on, black, by } = place;
    const unit = place.unit ?? fitting.unit;
    return [
      {
        i,
        channel: {
          name: cutText(c.name, 80) || on,
          on,
          by,
          ...(black === undefined ? {} : { black }),
          ...(unit === undefined || by !== "scanTool" ? {} : { unit }),
          ...seen,
        },
      },
    ];
  });
  if (own.length === 0) return undefined;
  const weighed = new Map(own.map(({ channel, i }) => [i, channel.name]));
  const partings = pairs.flatMap(({ channels: [a, b], agreement }) => {
    const [first, second] = [weighed.get(a), weighed.get(b)];
    const count = agreement.partings.length;
    return first !== undefined && second !== undefined && count > 0
      ? [{ channels: [first, second] as [string, string], count }]
      : [];
  });
  const events = [
    ...own.flatMap(({ i }) => facts[i]!.dropouts),
    ...pairs.flatMap((p) => (p.channels.every((c) => weighed.has(c)) ? p.agreement.partings : [])),
  ];
  const moved = taken.moved?.map((m) => {
    // what comes a little late belongs to the next place where that is moved already
    const next = Math.min(...taken.moved!.map((o) => o.from).filter((from) => from >= m.to));
    const until = Math.max(m.to, Math.min(m.to + AFTER, next));
    return { ...m, reacted: events.some((e) => e.from < until && e.to >= m.from) };
  });
  return {
    type: "trace",
    at: taken.at,
    ...(taken.note ? { note: taken.note } : {}),
    ...(taken.recording === undefined ? {} : { recording: taken.recording }),
    seconds: Math.max(1e-9, ...own.map(({ i }) => facts[i]!.seconds)),
    perSecond: Math.max(1e-9, ...own.map(({ i }) => facts[i]!.perSecond).filter(Number.isFinite)),
    doing: taken.doing,
    state: taken.state,
    channels: own.map(({ channel }) => channel),
    ...(moved?.length ? { moved } : {}),
    ...(partings.length ? { partings } : {}),
  };
}
