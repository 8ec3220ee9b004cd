import {
  formatQuantity,
  type Channel,
  type ChannelFacts,
  type ChannelSeen,
  type Issue,
  type PairSeen,
} from "../src/index.js";
import { thousands } from "./figures.js";
import { t } from "./messages/index.js";

type Params = Issue["params"];

/** Wording of the issues of recordings; part of `issueText`. */
export const TRACE_TEXTS: Readonly<Record<string, (p: Params) => string>> = {
  "trace.no-numbers": () => t("traces.noNumbers"),
  "trace.many-channels": (p) => t("traces.manyChannels", { channels: p["channels"], limit: p["limit"] }),
  "trace.no-time": () => t("traces.noTime"),
  "trace.cut-short": (p) => t("traces.cutShort", { row: thousands(p["row"]) }),
  "trace.wide-row": (p) =>
    t("traces.wideRow", { row: thousands(p["row"]), cells: p["cells"], expected: p["expected"] }),
  "trace.no-time-here": (p) => t("traces.noTimeHere", { row: thousands(p["row"]) }),
  "trace.time-backwards": (p) => t("traces.timeBackwards", { row: thousands(p["row"]) }),
  "trace.too-long": (p) => t("traces.tooLong", { row: thousands(p["row"]), limit: thousands(p["limit"]) }),
  "trace.not-a-number": (p) =>
    t("traces.notANumber", { row: thousands(p["row"]), column: p["column"], text: p["text"] }),
  "trace.more-of-it": (p) =>
    t("traces.moreOfIt", {
      count: Number(p["count"]),
      shown: thousands(p["count"]),
      first: NAMES[String(p["first"])]?.() ?? String(p["first"]),
    }),
  "trace.wave-format": () => t("traces.waveFormat"),
  "trace.scale-unknown": () => t("traces.scaleUnknown"),
  "trace.too-many-bytes": (p) => t("traces.tooManyBytes", { limit: thousands(p["limit"]) }),
  "trace.slow": (p) => t("traces.slow", { perSecond: figure(p["perSecond"]), milliseconds: figure(p["milliseconds"]) }),
  "trace.too-few-a-period": (p) =>
    t("traces.tooFewAPeriod", { perSecond: figure(p["perSecond"]), hertz: figure(p["hertz"]) }),
  "trace.gaps": (p) => t("traces.gaps", { share: percent(Number(p["share"])) }),
  "trace.frozen": (p) => t("traces.frozen", { value: figure(p["value"]), seconds: figure(p["seconds"]) }),
  "trace.clipped": (p) => t("traces.clipped", { value: figure(p["value"]) }),
  "trace.stairs": (p) => t("traces.stairs", { step: figure(p["step"]) }),
  "trace.pattern-step": (p) => t("traces.patternStep", { step: p["step"], text: p["text"] }),
};
/** What there is more of, in a few words. */
const NAMES: Readonly<Record<string, () => string>> = {
  "trace.not-a-number": () => t("traces.aCellThatIsNoNumber"),
  "trace.time-backwards": () => t("traces.timeThatRunsBackwards"),
  "trace.wide-row": () => t("traces.cellsTooMany"),
  "trace.no-time-here": () => t("traces.noTimeInTheRow"),
};

const figure = (v: Params[string] | undefined) => String(Number(Number(v).toPrecision(3)));
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** A value of a channel with its unit. */
export function channelValue(value: number, unit: string): string {
  if (unit === "V" || unit === "A" || unit === "Ω") return formatQuantity(value, unit);
  return `${Number(value.toPrecision(4))}${unit ? ` ${unit}` : ""}`;
}
/** A time as people say it: `3.2 ms`, `1.25 s`. */
export const secondsText = (s: number): string => (s < 0 ? `−${lengthText(-s)}` : s === 0 ? "0 s" : lengthText(s));
const lengthText = (s: number): string =>
  s < 0.9995e-3
    ? `${Number((s * 1e6).toPrecision(3))} µs`
    : s < 0.9995
      ? `${Number((s * 1e3).toPrecision(3))} ms`
      : `${Number(s.toPrecision(4))} s`;
const hertzText = (hertz: number) =>
  hertz >= 1_000 ? `${Number((hertz / 1_000).toPrecision(4))} kHz` : `${Number(hertz.toPrecision(4))} Hz`;

/** What a channel does, in a line. */
export function seenText(seen: ChannelSeen | undefined, unit: string): string {
  if (!seen) return t("traces.nothingWasRead");
  const value = (v: number) => channelValue(v, unit);
  const { kind, low, high, mean, hertz, duty, dropouts, missing } = seen;
  const does =
    kind === "switching"
      ? t("traces.switchesBetween", {
          low: value(low),
          high: value(high),
          hertz: hertzText(hertz ?? 0),
          duty: percent(duty ?? 0),
        })
      : kind === "steady"
        ? t("traces.staysAt", { value: value(mean) })
        : t("traces.runsFromTo", { low: value(low), high: value(high) });
  return [
    does,
    ...(dropouts
      ? [
          t("traces.dropsOutTo", {
            count: dropouts.count,
            value: value(dropouts.to),
            longest: secondsText(dropouts.longest),
          }),
        ]
      : []),
    ...(missing ? [t("traces.pulsesMissing", { count: missing })] : []),
  ].join(", ");
}

/** Something that happens at one moment of a recording. */
export interface TraceEvent {
  /** seconds */
  readonly from: number;
  readonly to: number;
  readonly channel: string;
  readonly text: string;
}
/** What chance of being noise is worth a word. */
const DOUBTFUL = 1e-3;

/** Dropouts, missing and extra pulses of one channel, in order of time. */
export function channelEvents({ name, unit, dropouts, teeth }: ChannelFacts): TraceEvent[] {
  const value = (v: number) => channelValue(v, unit);
  return [
    ...dropouts.map((d) => ({
      from: d.from,
      to: d.to,
      channel: name,
      text:
        t("traces.dropoutEvent", { base: value(d.base), value: value(d.value), length: secondsText(d.to - d.from) }) +
        (d.chance > DOUBTFUL ? ` (${t("traces.mayBeNoise")})` : ""),
    })),
    ...(teeth?.faults ?? []).map((f) => ({
      from: f.at,
      to: f.at,
      channel: name,
      text: f.kind === "missing" ? t("traces.missingPulse", { count: f.count }) : t("traces.extraPulse"),
    })),
  ].sort((a, b) => a.from - b.from);
}
/** What was made so, and is no fault. */
export const gapText = ({ teeth }: ChannelFacts): string | undefined =>
  teeth?.gap
    ? t("traces.gapMadeSo", { missing: teeth.gap.missing, teeth: teeth.gap.teeth + teeth.gap.missing })
    : undefined;

/** Where two tracks go apart. */
export function pairEvents(
  channels: readonly Pick<Channel, "name" | "unit">[],
  { channels: [i, j], agreement }: PairSeen,
): TraceEvent[] {
  const [first, second] = [channels[i]!, channels[j]!];
  return agreement.partings.map((p) => ({
    from: p.from,
    to: p.to,
    channel: second.name,
    text: t("traces.partingEvent", {
      first: first.name,
      second: second.name,
      value: channelValue(p.second, second.unit),
      expected: channelValue(p.expected, second.unit),
    }),
  }));
}
