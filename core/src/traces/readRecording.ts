import { parseJson, readSchema } from "../format/json.js";
import { RECORDING_FORMAT, RecordingFile } from "../format/recording.js";
import { fail, issue, ok, type Result } from "../issues/issue.js";
import { isDump, readDump } from "./readDump.js";
import { TableReader, type RecordingRead } from "./readTable.js";
import { isWave } from "./isWave.js";
import { readWave } from "./readWave.js";
import { timeOf, valueAt, type Channel, type Recording } from "./recording.js";

/** Bytes kept of a file that can only be read whole (sound, logic, JSON). Judgement. */
const MOST_BYTES = 600_000_000;

/**
 * Reads a recording as its bytes come: a table of an oscilloscope or logger (CSV, TSV), WAV, VCD, or this program's own
 * JSON, told by how it begins. Give every part to `push`, in order and in any size, then ask `end`.
 */
export class RecordingReader {
  private readonly parts: Uint8Array[] = [];
  private size = 0;
  private table: TableReader | undefined;
  private isTold = false;
  private tooLarge = false;

  /**
   * @param interval seconds between two rows of a table that tells no time
   * @param size bytes that will come, where that is known: room is then made once
   */
  constructor(
    private readonly interval?: number,
    private readonly bytes?: number,
  ) {}

  /** Whether more bytes are of any use: false once enough samples were read, or it is clear that it is no recording. */
  get wantsMore(): boolean {
    return !this.tooLarge && (this.table?.wantsMore ?? true);
  }

  push(bytes: Uint8Array): void {
    if (bytes.length === 0 || !this.wantsMore) return;
    if (this.table) return this.table.push(bytes);
    this.parts.push(bytes);
    this.size += bytes.length;
    if (this.size > MOST_BYTES) this.tooLarge = true;
    if (this.isTold || this.size < 16) return;
    this.isTold = true;
    if (!this.isKeptWhole()) this.toTable();
  }

  /** @returns the channels with what was left out, or why there are none */
  end(): Result<RecordingRead> {
    if (this.tooLarge) return fail([issue("trace.too-many-bytes", [], { limit: MOST_BYTES })]);
    if (this.table) return this.table.end();
    if (!this.isTold && !this.isKeptWhole()) return this.toTable().end();
    const all = this.whole();
    if (isWave(all)) return readWave(all);
    const text = new TextDecoder().decode(all);
    return isDump(text) ? readDump(text) : parseRecording(text);
  }

  private isKeptWhole(): boolean {
    const head = this.whole();
    const text = new TextDecoder().decode(head.subarray(0, 400)).replace(/^\uFEFF/, "");
    return isWave(head) || isDump(text) || /^\s*[{[]/.test(text);
  }
  private toTable(): TableReader {
    this.table = new TableReader(this.interval, this.bytes);
    for (const part of this.parts.splice(0)) this.table.push(part);
    return this.table;
  }
  private whole(): Uint8Array {
    if (this.parts.length === 1) return this.parts[0]!;
    const all = new Uint8Array(this.size);
    let at = 0;
    for (const part of this.parts) {
      all.set(part, at);
      at += part.length;
    }
    this.parts.splice(0, this.parts.length, all);
    return all;
  }
}

/** A whole file at once. @param interval seconds between two rows of a table that tells no time */
export function readRecording(bytes: Uint8Array, interval?: number): Result<RecordingRead> {
  const reader = new RecordingReader(interval);
  reader.push(bytes);
  return reader.end();
}

/** Reads a recording in this program's own JSON. @returns the channels, or every issue found with its place */
export function parseRecording(text: string): Result<RecordingRead> {
  const json = parseJson(text);
  if (!json.ok) return json;
  const file = readSchema(json.value, RecordingFile, RECORDING_FORMAT);
  if (!file.ok) return file;
  const channels = file.value.channels.map((c): Channel => ({
    name: c.name,
    unit: c.unit,
    start: c.times?.[0] ?? c.start,
    step: c.interval,
    times: c.times && Float64Array.from(c.times),
    values: Float32Array.from(c.values, (v) => v ?? NaN),
  }));
  return ok({ recording: { channels }, issues: [] });
}

/** A recording in this program's own JSON. */
export const recordingFile = ({ channels }: Recording): RecordingFile => ({
  format: RECORDING_FORMAT,
  version: 1,
  channels: channels.map((c) => ({
    name: c.name,
    unit: c.unit,
    start: c.start,
    ...(c.times ? { times: [...c.times] } : { interval: c.step ?? 1 }),
    values: Array.from(c.values, (v) => (Number.isFinite(v) ? v : null)),
  })),
});

/** Digits of a value in a table. */
const DIGITS = 6;
/** Channels as one table, at the times of the first: others are read off between their samples where they differ. */
export function recordingCsv({ channels }: Recording): string {
  const first = channels[0];
  if (!first) return "";
  const head = ["time (s)", ...channels.map((c) => `${cell(c.name)}${c.unit ? ` (${c.unit})` : ""}`)];
  const lines = [head.join(",")];
  for (let i = 0; i < first.values.length; i++) {
    const t = timeOf(first, i);
    const own = channels.map((c) => {
      const v = c === first ? c.values[i]! : valueAt(c, t);
      return Number.isFinite(v) ? String(Number(v.toPrecision(DIGITS))) : "";
    });
    lines.push([String(Number(t.toPrecision(10))), ...own].join(","));
  }
  return `${lines.join("\n")}\n`;
}
const cell = (text: string) => text.replace(/[",\n]/g, " ").replace(/^[=+\-@]/, "'$&");
