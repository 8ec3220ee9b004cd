import {
  analyse,
  canSeen,
  checkEntries,
  DOING,
  factsOf,
  Focus,
  indexWiring,
  linSeen,
  matchPattern,
  pairsOf,
  parsePattern,
  readRecording,
  recordingCsv,
  seenIn,
  SimulatedMachine,
  simulateRecording,
  traceEntry,
  withScannedCodes,
  wireId,
  type BusSeen,
  type ChannelFacts,
  type ChannelPlace,
  type Doing,
  type Entry,
  type PairSeen,
  type RecordedPlace,
  type Recording,
  type TraceEntry,
  type Wiring,
} from "../src/index.js";
import {
  busText,
  channelEvents,
  gapText,
  issueText,
  Namer,
  pairEvents,
  patternText,
  secondsText,
  seenText,
  shareText,
  type TraceEvent,
} from "../words/index.js";
import { chooseFaults } from "./circuit.js";
import { accept, EXIT, jsonNumber, loadMachine, loadWiring, printJson, readState, Refusal, type Io } from "./io.js";

interface Options {
  readonly on?: string | undefined;
  readonly case?: string | undefined;
  readonly state?: string | undefined;
  readonly do?: string | undefined;
  readonly fault?: string | undefined;
  readonly seconds?: string | undefined;
  readonly rate?: string | undefined;
  readonly seed?: string | undefined;
  readonly presence?: string | undefined;
  readonly moved?: string | undefined;
  readonly bus?: string | undefined;
  readonly supply?: string | undefined;
  readonly pattern?: string | undefined;
  readonly json?: boolean | undefined;
}
/** Events printed before the rest is counted. */
const PRINTED = 40;
const AT = "2026-01-01T12:00:00Z";

/**
 * `radicula trace`: what a recording holds, channel by channel, and what happens in it. With `--case` and `--on` it is
 * weighed with that logbook.
 */
export function traceCommand(file: string, options: Options, io: Io): void {
  const rate = options.rate === undefined ? undefined : number("--rate", options.rate, 1e-6, 1e9);
  const { recording, issues } = accept(
    file,
    readRecording(io.readBytes(file), rate === undefined ? undefined : 1 / rate),
  );
  const facts = recording.channels.map(factsOf);
  const pairs = pairsOf(recording, facts);
  const bus = options.bus === undefined ? undefined : busOf(recording, options);
  const patterns = options.pattern === undefined ? undefined : patternsIn(recording, options.pattern);
  const judged = options.case === undefined ? undefined : judge(options.case, recording, facts, pairs, options, io);
  if (options.json) {
    printJson(io, {
      channels: facts.map((f, i) => channelJson(f, recording, i)),
      events: eventsOf(recording, facts, pairs),
      issues: issues.map((i) => ({ code: i.code, params: i.params })),
      ...(bus ? { bus: { ...bus, dominant: bus.dominant ?? null } } : {}),
      ...(patterns ? { patterns: patterns.found.map((f, i) => ({ channel: facts[i]!.name, ...f })) } : {}),
      entry: judged?.entry ?? null,
      suspects: judged?.suspects ?? null,
    });
    return;
  }
  for (const i of issues) io.out(`${issueText(i)}\n`);
  for (const f of facts) {
    io.out(
      `${f.name}: ${seenText(seenIn(f), f.unit)}\n  ${f.samples} samples, ${secondsText(f.seconds)}` +
        `${Number.isFinite(f.perSecond) ? `, ${Number(f.perSecond.toPrecision(4))} a second` : ""}\n`,
    );
    const gap = gapText(f);
    if (gap !== undefined) io.out(`  ${gap}.\n`);
    for (const i of f.issues) io.out(`  ${issueText(i)}\n`);
  }
  if (bus) io.out(`${busText(bus).join("\n")}\n`);
  for (const [i, found] of (patterns?.found ?? []).entries())
    io.out(`${patternText(facts[i]!.name, found, patterns!.steps)}\n`);
  const events = eventsOf(recording, facts, pairs);
  if (events.length) io.out("\n");
  for (const e of events.slice(0, PRINTED)) io.out(`  ${secondsText(e.from).padStart(9)}  ${e.channel}: ${e.text}\n`);
  if (events.length > PRINTED) io.out(`  and ${events.length - PRINTED} more; all of them with --json\n`);
  if (!judged) return;
  io.out("\nSuspects, before and with this recording:\n");
  for (const s of judged.suspects)
    io.out(`  ${shareText(s.before).padStart(9)}  ${shareText(s.share).padStart(9)}  ${s.name}\n`);
}

const eventsOf = (recording: Recording, facts: readonly ChannelFacts[], pairs: readonly PairSeen[]): TraceEvent[] =>
  [...facts.flatMap(channelEvents), ...pairs.flatMap((p) => pairEvents(recording.channels, p))].sort(
    (a, b) => a.from - b.from,
  );

function channelJson(f: ChannelFacts, { channels }: Recording, i: number) {
  const { teeth, issues, levels, timing } = f;
  const plain = Object.entries(f).filter(([, v]) => typeof v !== "object");
  return {
    ...Object.fromEntries(plain.map(([k, v]) => [k, typeof v === "number" ? jsonNumber(v) : v])),
    start: jsonNumber(channels[i]!.start),
    seen: seenIn(f) ?? null,
    levels: levels ? { low: levels.low, high: levels.high } : null,
    timing: timing ? Object.fromEntries(Object.entries(timing).map(([k, v]) => [k, jsonNumber(v)])) : null,
    gap: teeth?.gap ?? null,
    issues: issues.map(({ code, params }) => ({ code, params })),
  };
}

function busOf({ channels }: Recording, options: Options): BusSeen {
  const [first, second] = channels;
  if (options.bus === "lin") {
    if (options.supply === undefined)
      throw new Refusal(EXIT.usage, ["--bus lin: say with --supply how many volts the node is fed with."]);
    return linSeen(first!, number("--supply", options.supply, 1, 60));
  }
  if (options.bus !== "can") throw new Refusal(EXIT.usage, [`--bus: there is no "${options.bus}". can or lin.`]);
  if (!second)
    throw new Refusal(EXIT.usage, ["--bus can: the recording has one channel. It takes CAN high and CAN low."]);
  return canSeen(first!, second);
}
function patternsIn({ channels }: Recording, text: string) {
  const pattern = accept("--pattern", parsePattern(text));
  return { steps: pattern.length, found: channels.map((c) => matchPattern(c, pattern)) };
}

interface Judged {
  readonly entry: TraceEntry;
  readonly suspects: readonly {
    readonly id: string;
    readonly name: string;
    readonly before: number;
    readonly share: number;
  }[];
}
const SUSPECTS = 6;

function judge(
  file: string,
  recording: Recording,
  facts: readonly ChannelFacts[],
  pairs: readonly PairSeen[],
  options: Options,
  io: Io,
): Judged {
  const { wiring, entries } = loadMachine(file, io);
  const doing = doingOf(options.do);
  const places = placesOf(options.on, wiring);
  if (places.length !== recording.channels.length)
    throw new Refusal(EXIT.usage, [
      `--on names ${places.length} places; the recording has ${recording.channels.length} channels. ` +
        'Write "-" for a channel that is not to be weighed.',
    ]);
  const at = entries.at(-1)?.at ?? AT;
  const state = readState(
    options.state ?? (doing === "crank" ? "cranking" : doing === "run" ? "running" : "on"),
    wiring,
  );
  const moved = movedOf(options.moved, wiring);
  const entry = traceEntry(recording, facts, pairs, { at, state, doing, places, moved });
  if (!entry) throw new Refusal(EXIT.document, ["No channel with a place holds anything."]);
  const bad = checkEntries(wiring, [entry]);
  if (bad.length)
    throw new Refusal(
      EXIT.usage,
      bad.map((i) => `--on: ${issueText(i)}`),
    );
  const weigh = (all: readonly Entry[]) => {
    const own = withScannedCodes(wiring, all);
    return analyse(new Focus(own).predictor(all), all).suspects;
  };
  const before = weigh(entries);
  const namer = new Namer(wiring);
  return {
    entry,
    suspects: weigh([...entries, entry])
      .slice(0, SUSPECTS)
      .map((s) => ({
        id: s.id,
        name: namer.suspect(s).title,
        before: before.find((b) => b.id === s.id)?.share ?? 0,
        share: s.share,
      })),
  };
}

/** `radicula record`: what a recording on a simulated machine shows, as CSV. */
export function recordCommand(file: string, options: Options, io: Io): void {
  const wiring = loadWiring(file, io);
  const doing = doingOf(options.do);
  const state = readState(
    options.state ?? (doing === "crank" ? "cranking" : doing === "run" ? "running" : "on"),
    wiring,
  );
  const places = placesOf(options.on, wiring).filter((p): p is RecordedPlace & ChannelPlace => p !== undefined);
  const machine = new SimulatedMachine(wiring, chooseFaults(wiring, options.fault), seedOf(options.seed));
  const presence = options.presence === undefined ? undefined : number("--presence", options.presence, 1e-6, 1);
  try {
    io.out(
      recordingCsv(
        simulateRecording(machine, {
          places,
          state,
          doing,
          seconds: number("--seconds", options.seconds ?? "2", 1e-3, 1e5),
          perSecond: number("--rate", options.rate ?? "5000", 0.01, 1e7),
          seed: seedOf(options.seed),
          ...(presence === undefined ? {} : { presence }),
          ...(options.moved === undefined ? {} : { moved: movedOf(options.moved, wiring) }),
        }),
      ),
    );
  } catch (error) {
    if (error instanceof RangeError) throw new Refusal(EXIT.usage, [error.message]);
    throw error;
  }
}

function doingOf(text: string | undefined): Doing {
  const found = DOING.find((d) => d === (text ?? "nothing"));
  if (!found) throw new Refusal(EXIT.usage, [`--do: there is no "${text}". One of ${DOING.join(", ")}.`]);
  return found;
}

/** `B9:2,W4,scan:A1:24,-`: a point, a wire for a clamp, a module's cavity for the scan tool, nothing. */
function placesOf(text: string | undefined, wiring: Wiring): ((RecordedPlace & ChannelPlace) | undefined)[] {
  if (text === undefined)
    throw new Refusal(EXIT.usage, [
      "--on: say where each channel is put, in order, joined by commas: B9:2 for a point, " +
        "W4 for a clamp around a wire, scan:A1:24 for a value of the scan tool.",
    ]);
  const wires = new Set(wiring.wires.map(wireId));
  return text.split(",").map((one) => {
    const on = one.trim();
    if (on === "-" || on === "") return undefined;
    if (on.startsWith("scan:")) return { on: on.slice("scan:".length), by: "scanTool" as const };
    return { on, by: wires.has(on) ? ("clamp" as const) : ("scope" as const) };
  });
}
/** `X5@0-3,S50@3-6`: places moved, and from which second to which. */
function movedOf(text: string | undefined, wiring: Wiring): { thing: string; from: number; to: number }[] {
  if (text === undefined) return [];
  const { connectors, devices } = indexWiring(wiring);
  const wires = new Set(wiring.wires.map(wireId));
  return text.split(",").map((one) => {
    const [, thing = "", from, to] = /^\s*(.+)@([\d.]+)-([\d.]+)\s*$/.exec(one) ?? [];
    if (from === undefined || to === undefined || !(Number(from) < Number(to)))
      throw new Refusal(EXIT.usage, [`--moved: "${one.trim()}" is no place with its seconds, such as X5@0-3.`]);
    if (!connectors.has(thing) && !devices.has(thing) && !wires.has(thing))
      throw new Refusal(EXIT.usage, [`--moved: nothing in this wiring is called "${thing}".`]);
    return { thing, from: Number(from), to: Number(to) };
  });
}
function number(name: string, text: string, least: number, most: number): number {
  const n = Number(text);
  if (!(n >= least && n <= most))
    throw new Refusal(EXIT.usage, [`${name}: "${text}" is not a number from ${least} to ${most}.`]);
  return n;
}
function seedOf(text: string | undefined): number {
  const n = number("--seed", text ?? "1", 0, 1e9);
  if (!Number.isInteger(n)) throw new Refusal(EXIT.usage, [`--seed: "${text}" is not a whole number.`]);
  return n;
}
