import {
  canSeen,
  DOING,
  factsInSteps,
  findFault,
  findNets,
  generateFaults,
  linSeen,
  losesTeeth,
  matchPattern,
  pairsOf,
  parsePattern,
  pyramidOf,
  readScope,
  RecordingReader,
  Rig,
  SCAN_UNITS,
  State,
  stretchOf,
  traceEntry,
  valueAt,
  type Channel,
  type ChannelFacts,
  type Issue,
  type PairSeen,
  type PatternMatch,
  type PatternMissed,
  type Pyramid,
  type Recording,
  type Stretch,
  type TraceEntry,
} from "@radicula/core";
import { expose, transfer } from "comlink";
import { z } from "zod";
import { readMessage, Wiring } from "./messages";

/** A file of samples, and how it is to be read where it does not tell. */
const Asked = z.object({
  file: z.instanceof(Blob),
  isCompressed: z.boolean(),
  interval: z.number().positive().optional(),
  /** what a value of 1 is, volt, by channel */
  scales: z.array(z.number()).max(64).optional(),
});
const Place = z.object({
  on: z.string(),
  black: z.string().exactOptional(),
  by: z.enum(["scope", "clamp", "scanTool"]),
  unit: z.enum(SCAN_UNITS).exactOptional(),
});
const Taken = z.object({
  at: z.string(),
  state: State,
  doing: z.enum(DOING),
  places: z.array(Place.or(z.undefined())).max(64),
  moved: z
    .array(z.object({ thing: z.string(), from: z.number(), to: z.number() }))
    .max(200)
    .exactOptional(),
  recording: z.uuid().exactOptional(),
});
const Expecting = z.object({
  wiring: Wiring,
  state: State,
  points: z.array(z.string().or(z.undefined())).max(64),
  suspect: z.object({ fault: z.string(), ohm: z.number().nullable() }).optional(),
});

/** What is known of a recording as soon as it is read. */
export interface OpenedChannel {
  readonly name: string;
  readonly unit: string;
  readonly samples: number;
  readonly from: number;
  readonly to: number;
  /** samples a second; NaN of one sample */
  readonly perSecond: number;
  readonly least: number;
  readonly most: number;
}
export type OpenedRecording =
  | { readonly ok: true; readonly channels: readonly OpenedChannel[]; readonly issues: readonly Issue[] }
  | { readonly ok: false; readonly issues: readonly Issue[] };
/** What is measured of it, which may take longer. */
export interface Measured {
  readonly facts: readonly ChannelFacts[];
  readonly pairs: readonly PairSeen[];
}
/** Levels between which a channel would be: undefined where nothing is expected of it. */
export interface ExpectedLevels {
  readonly sound: readonly (Band | undefined)[];
  readonly suspect: readonly (Band | undefined)[];
}
export interface Band {
  readonly low: number;
  readonly high: number;
  /** share of the time that it is high, where a driver is pulsed */
  readonly duty?: number;
}

export type PatternFound =
  | { readonly ok: true; readonly steps: number; readonly found: readonly (PatternMatch | PatternMissed)[] }
  | { readonly ok: false; readonly issues: readonly Issue[] };

let recording: Recording = { channels: [] };
let pyramids: readonly Pyramid[] = [];
let measured: Promise<Measured> | undefined;

const api = {
  /** Reads a file as it streams in. @param progress told how much of it is read, 0 to 1 */
  async open(message: unknown, progress: (share: number) => void): Promise<OpenedRecording> {
    const { file, isCompressed, interval, scales } = readMessage(Asked, message);
    const reader = new RecordingReader(interval, isCompressed ? undefined : file.size);
    try {
      let told = 0;
      for await (const [bytes, share] of isCompressed ? unpacked(file) : slices(file)) {
        reader.push(bytes);
        if (!reader.wantsMore) break;
        if (share - told < PROGRESS) continue;
        told = share;
        progress(share);
      }
    } catch {
      return { ok: false, issues: [{ code: "recording.not-read", path: [], params: {} }] };
    }
    const result = reader.end();
    if (!result.ok) return result;
    recording = { channels: result.value.recording.channels.map((c, i) => scaled(c, scales?.[i])) };
    pyramids = recording.channels.map(pyramidOf);
    measured = undefined;
    return {
      ok: true,
      issues: result.value.issues.filter((i) => i.code !== "trace.scale-unknown" || !scales),
      channels: pyramids.map(opened),
    };
  },
  /** Everything that is measured of what was opened: what is to be drawn meanwhile comes first. */
  measure: (): Promise<Measured> => (measured ??= measureAll(recording)),
  /** What to draw of some channels between two moments. */
  stretches(channels: readonly number[], from: number, to: number, pixels: number): readonly Stretch[] {
    const all = channels.map((c) => stretchOf(pyramids[c]!, from, to, pixels));
    return transfer(
      all,
      all.flatMap((s) => [s.seconds.buffer, s.values.buffer]),
    );
  },
  /** Values of all channels at a moment. */
  valuesAt: (seconds: number): number[] => recording.channels.map((c) => valueAt(c, seconds)),
  /** What goes into the logbook. */
  async entry(message: unknown): Promise<TraceEntry | undefined> {
    const { facts, pairs } = await api.measure();
    return traceEntry(recording, facts, pairs, readMessage(Taken, message));
  },
  /** What the lines of a bus do: the channels on CAN high and low, or the one of a LIN line with its supply, volt. */
  bus(lines: { readonly high: number; readonly low: number } | { readonly line: number; readonly supply: number }) {
    const { channels } = recording;
    return "line" in lines
      ? linSeen(channels[lines.line]!, lines.supply)
      : canSeen(channels[lines.high]!, channels[lines.low]!);
  },
  /** Whether each channel goes through a pattern; what is not understood of it. */
  pattern(text: string): PatternFound {
    const pattern = parsePattern(text);
    if (!pattern.ok) return { ok: false, issues: pattern.issues };
    const found = recording.channels.map((c) => matchPattern(c, pattern.value));
    return { ok: true, steps: pattern.value.length, found };
  },
  /** What a sound machine, and the leading suspect, would show at the points of the channels. */
  expected(message: unknown): ExpectedLevels {
    const { wiring, state, points, suspect } = readMessage(Expecting, message);
    const found = suspect && findFault(generateFaults(wiring), suspect.fault);
    const nets = findNets(wiring);
    const bands = (rig: Rig) =>
      points.map((on): Band | undefined => {
        if (on === undefined) return undefined;
        const { least, most, duty } = readScope(rig, state, on).value;
        const isPulsed = nets.functionOf(on) === "driver" && duty > 0 && duty < 1;
        return { low: least, high: most, ...(isPulsed ? { duty } : {}) };
      });
    return {
      sound: bands(new Rig(wiring)),
      // missing teeth do not change the levels
      suspect:
        found && !losesTeeth(found.fault)
          ? bands(new Rig(wiring, [{ fault: found.fault, severity: suspect.ohm ?? NaN }]))
          : [],
    };
  },
};
export type RecordingApi = typeof api;
expose(api);

/** How much of a file is read at once, bytes; and how much more of it is worth being told. */
const AT_ONCE = 4 << 20;
const PROGRESS = 0.02;
type Part = readonly [bytes: Uint8Array, share: number];

/** A file in large pieces: each takes a way through the browser, and the next is on its way while one is read. */
async function* slices(file: Blob): AsyncGenerator<Part> {
  const piece = (at: number) => (at < file.size ? file.slice(at, at + AT_ONCE).arrayBuffer() : undefined);
  let next = piece(0);
  for (let at = 0; next; at += AT_ONCE) {
    const bytes = new Uint8Array(await next);
    next = piece(at + AT_ONCE);
    next?.catch(() => undefined); // a failure is thrown where the piece is awaited
    yield [bytes, Math.min(1, (at + AT_ONCE) / file.size)];
  }
}
/** A compressed file as it unpacks. */
async function* unpacked(file: Blob): AsyncGenerator<Part> {
  let read = 0;
  const counted = new TransformStream<Uint8Array<ArrayBuffer>, Uint8Array<ArrayBuffer>>({
    transform(chunk, to) {
      read += chunk.byteLength;
      to.enqueue(chunk);
    },
  });
  const stream = file.stream().pipeThrough(counted).pipeThrough(new DecompressionStream("gzip")).getReader();
  for (let next = await stream.read(); !next.done; next = await stream.read()) yield [next.value, read / file.size];
}

/** Measures step by step, and lets what was asked for meanwhile pass. */
async function measureAll(all: Recording): Promise<Measured> {
  const facts: ChannelFacts[] = [];
  for (const channel of all.channels) {
    const steps = factsInSteps(channel);
    let next = steps.next();
    for (; !next.done; next = steps.next()) await new Promise((pass) => setTimeout(pass));
    facts.push(next.value);
  }
  return { facts, pairs: pairsOf(all, facts) };
}
function scaled(channel: Channel, scale: number | undefined): Channel {
  if (scale === undefined || channel.unit !== "") return channel;
  return { ...channel, unit: "V", values: channel.values.map((v) => v * scale) };
}
function opened({ channel, levels }: Pyramid): OpenedChannel {
  const top = levels[levels.length - 1];
  let least = Infinity;
  let most = -Infinity;
  for (const v of top?.least ?? channel.values) if (v < least) least = v;
  for (const v of top?.most ?? channel.values) if (v > most) most = v;
  const { values, times, start, step } = channel;
  const n = values.length;
  const from = times ? times[0]! : start;
  const to = times ? times[n - 1]! : start + (n - 1) * (step ?? 0);
  return {
    name: channel.name,
    unit: channel.unit,
    samples: n,
    from,
    to,
    perSecond: n < 2 ? NaN : (n - 1) / (to - from),
    least,
    most,
  };
}
