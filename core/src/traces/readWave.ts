import WaveLibrary from "wavefile/dist/wavefile.js";
import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import type { RecordingRead } from "./readTable.js";
import { evenChannel, MOST_CHANNELS, MOST_SAMPLES } from "./recording.js";

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

/**
 * A sound recording: a sound card used as a scope. PCM of 8 to 32 bits, or floats of 32; the parts of the file are told
 * by the library wavefile. Full scale is 1, without a unit: how many volts that is must be asked.
 * @returns the channels, or `trace.wave-format`, `trace.no-numbers`; `trace.cut-short` where it ends too soon
 */
export function readWave(bytes: Uint8Array): Result<RecordingRead> {
  const file = new WaveLibrary.WaveFile();
  try {
    file.fromBuffer(bytes);
  } catch {
    return fail([issue("trace.no-numbers")]);
  }
  const { audioFormat, numChannels, sampleRate, bitsPerSample, subformat } = file.fmt as Head;
  const format = {
    kind: audioFormat === EXTENSIBLE ? (subformat[0] ?? 0) & 0xffff : audioFormat,
    channels: numChannels,
    rate: sampleRate,
    bits: bitsPerSample,
  };
  if (!readsAs(format)) return fail([issue("trace.wave-format")]);
  const { samples, chunkSize } = file.data as Body;
  return samplesOf(new DataView(samples.buffer, samples.byteOffset, samples.byteLength), chunkSize, format);
}

/** What the library tells of a file's head, as it types neither. */
interface Head {
  readonly audioFormat: number;
  readonly numChannels: number;
  readonly sampleRate: number;
  readonly bitsPerSample: number;
  readonly subformat: readonly number[];
}
interface Body {
  readonly samples: Uint8Array;
  readonly chunkSize: number;
}

interface Format {
  readonly kind: number;
  readonly channels: number;
  readonly rate: number;
  readonly bits: number;
}
const readsAs = ({ kind, channels, rate, bits }: Format) =>
  channels > 0 &&
  channels <= MOST_CHANNELS &&
  rate > 0 &&
  ((kind === PCM && [8, 16, 24, 32].includes(bits)) || (kind === FLOAT && bits === 32));

function samplesOf(view: DataView, told: number, format: Format): Result<RecordingRead> {
  const held = Math.min(told, view.byteLength);
  const { channels, bits, kind, rate } = format;
  const width = bits / 8;
  const most = Math.floor(MOST_SAMPLES / channels);
  const count = Math.min(most, Math.floor(held / (width * channels)));
  if (count === 0) return fail([issue("trace.no-numbers")]);
  const read = reader(view, kind, bits);
  const values = Array.from({ length: channels }, () => new Float32Array(count));
  for (let i = 0; i < count; i++) for (let c = 0; c < channels; c++) values[c]![i] = read((i * channels + c) * width);
  const issues: Issue[] = [];
  if (held < told && told !== 0xffffffff) issues.push(issue("trace.cut-short", [], { row: count }));
  if (count === most) issues.push(issue("trace.too-long", [], { row: count, limit: MOST_SAMPLES }));
  return ok({
    recording: { channels: values.map((v, c) => evenChannel(`channel ${c + 1}`, "", 0, 1 / rate, v)) },
    issues: [...issues, issue("trace.scale-unknown")],
  });
}

function reader(view: DataView, kind: number, bits: number): (at: number) => number {
  if (kind === FLOAT) return (at) => view.getFloat32(at, true);
  if (bits === 8) return (at) => (view.getUint8(at) - 128) / 128;
  if (bits === 16) return (at) => view.getInt16(at, true) / 32_768;
  if (bits === 24) return (at) => (view.getUint16(at, true) + view.getInt8(at + 2) * 65_536) / 8_388_608;
  return (at) => view.getInt32(at, true) / 2_147_483_648;
}
