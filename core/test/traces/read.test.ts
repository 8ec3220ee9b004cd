import fc from "fast-check";
import WaveLibrary from "wavefile/dist/wavefile.js";
import {
  readRecording,
  recordingCsv,
  recordingFile,
  RecordingReader,
  parseRecording,
} from "../../src/traces/readRecording.js";
import { looksRecorded } from "../../src/traces/looksRecorded.js";
import { lengthOf, rateOf, timeOf, valueAt, channelPart, evenChannel } from "../../src/traces/recording.js";
import { pyramidOf, stretchOf } from "../../src/traces/pyramid.js";

const bytes = (text: string) => new TextEncoder().encode(text);
const read = (text: string, interval?: number) => readRecording(bytes(text), interval);
function good(text: string) {
  const result = read(text);
  if (!result.ok) throw new Error(JSON.stringify(result.issues));
  return result.value;
}
const values = (text: string) => good(text).recording.channels.map((c) => Array.from(c.values));
const near = (got: readonly number[], wanted: readonly number[]) => {
  expect(got).toHaveLength(wanted.length);
  got.forEach((v, i) => expect(v).toBeCloseTo(wanted[i]!, 4));
};

// Layouts as oscilloscopes and loggers write them: common practice, no source.
describe("tables in usual layouts", () => {
  test("a head with units in brackets", () => {
    const { recording, issues } = good("Time (ms),CH1 (mV),CH2 (V)\n0,1200,5\n1,1300,5\n2,1400,0.1\n");
    expect(issues).toEqual([]);
    expect(recording.channels.map((c) => [c.name, c.unit])).toEqual([
      ["CH1", "V"],
      ["CH2", "V"],
    ]);
    near(Array.from(recording.channels[0]!.values), [1.2, 1.3, 1.4]);
    expect(rateOf(recording.channels[0]!)).toBeCloseTo(1_000, 6);
  });
  test("units in a second row, semicolons, decimal commas", () => {
    const { recording } = good("Zeit;Kanal A;Kanal B\n(s);(V);(A)\n\n0,000;0,5;1,25\n0,001;0,6;1,5\n0,002;0,7;-1,5\n");
    expect(recording.channels.map((c) => [c.name, c.unit])).toEqual([
      ["Kanal A", "V"],
      ["Kanal B", "A"],
    ]);
    near(Array.from(recording.channels[1]!.values), [1.25, 1.5, -1.5]);
    expect(rateOf(recording.channels[0]!)).toBeCloseTo(1_000, 3);
  });
  test("a preamble with the interval between samples, and no time column", () => {
    const { recording, issues } = good(
      "Model,Bench scope\nSample Interval,2.0e-04\nRecord Length,4\n\nCH1\nVolt\n0.1\n0.2\n0.3\n4.9e0\n",
    );
    expect(issues).toEqual([]);
    expect(rateOf(recording.channels[0]!)).toBeCloseTo(5_000, 3);
    near(Array.from(recording.channels[0]!.values), [0.1, 0.2, 0.3, 4.9]);
  });
  test("tabs, no head, a first column that only rises is the time", () => {
    const { recording } = good("0\t1.5\n0.01\t1.6\n0.02\t1.7\n0.03\t1.8\n");
    expect(recording.channels).toHaveLength(1);
    expect(recording.channels[0]!.step).toBeCloseTo(0.01, 9);
  });
  test("one column and no time: said, and one asks", () => {
    const { recording, issues } = good("1.5\n1.6\n1.4\n1.5\n");
    expect(recording.channels).toHaveLength(1);
    expect(issues.map((i) => i.code)).toContain("trace.no-time");
    const told = read("1.5\n1.6\n1.4\n1.5\n", 0.5);
    expect(told.ok && told.value.recording.channels[0]!.step).toBe(0.5);
    expect(told.ok && told.value.issues).toEqual([]);
  });
  test("channels at different rates, each with a time column of its own, two time columns", () => {
    const { recording } = good("Time A,A,Time B,B\n0,1,0,10\n1,2,0.5,11\n2,3,1,12\n,,1.5,13\n,,2,14\n");
    expect(recording.channels.map((c) => [c.name, c.values.length, rateOf(c)])).toEqual([
      ["A", 3, 1],
      ["B", 5, 2],
    ]);
  });
  test("a scan tool's log: time of day, blanks and OL where nothing was read", () => {
    const { recording } = good("time,B7 V,rail kPa\n12:00:00.0,1.2,100\n12:00:00.1,OL,101\n12:00:00.3,1.4,\n");
    const [first, second] = recording.channels;
    expect(Array.from(first!.values, (v) => Number.isNaN(v))).toEqual([false, true, false]);
    expect(Number.isNaN(second!.values[2]!)).toBe(true);
    expect([0, 1, 2].map((i) => timeOf(first!, i) - timeOf(first!, 0)).map((t) => Math.round(t * 1e4) / 1e4)).toEqual([
      0, 0.1, 0.3,
    ]);
    expect(first!.unit).toBe("V");
  });
  test("UTF-16 and a byte order mark, carriage returns", () => {
    const text = "\uFEFFtime,A\r\n0,1\r\n1,2\r\n2,3\r\n";
    const wide = new Uint8Array(2 * text.length);
    [...text].forEach((c, i) => {
      wide[2 * i] = c.charCodeAt(0) & 255;
      wide[2 * i + 1] = c.charCodeAt(0) >> 8;
    });
    const result = readRecording(wide);
    expect(result.ok && Array.from(result.value.recording.channels[0]!.values)).toEqual([1, 2, 3]);
    near(values(text)[0]!, [1, 2, 3]);
  });
  test("milliseconds that something takes are values, not times; words above the numbers tell no rate", () => {
    const { recording } = good(
      "Bus rate,500000\nTime (s),RPM,Injection time (ms),Rail (kPa)\n" +
        "0,800,2.5,300\n0.1,810,2.4,301\n0.2,805,2.6,302\n0.3,800,2.5,301\n",
    );
    expect(recording.channels.map((c) => [c.name, c.unit, c.values.length])).toEqual([
      ["RPM", "rpm", 4],
      ["Injection time", "s", 4],
      ["Rail", "kPa", 4],
    ]);
    expect(rateOf(recording.channels[2]!)).toBeCloseTo(10, 6);
  });
  test("a channel called A is not amperes, unless its neighbours are units, too", () => {
    expect(good("time,A,B\n0,1,2\n1,1,2\n2,1,2\n").recording.channels.map((c) => c.unit)).toEqual(["", ""]);
    expect(good("s,V,A\n0,1,2\n1,1,2\n2,1,2\n").recording.channels.map((c) => c.unit)).toEqual(["V", "A"]);
  });
  test("quoted cells and spaces", () => {
    near(values('"time","A"\n"0,0","1,5"\n"0,1","2,5"\n"0,2","3,5"\n')[0]!, [1.5, 2.5, 3.5]);
    near(values("time   A\n 0.0   1.5\n 0.1   2.5\n 0.2   3.5\n")[0]!, [1.5, 2.5, 3.5]);
  });
  test("parts of any size give the same as the whole", () => {
    const text = `t,A,B\n${Array.from({ length: 30_000 }, (_, i) => `${i / 100},${(i % 97) / 10},${-i}`).join("\n")}\n`;
    const whole = good(text).recording;
    const reader = new RecordingReader();
    const all = bytes(text);
    for (let at = 0, k = 1; at < all.length; at += k, k = (k * 7) % 9_973) reader.push(all.subarray(at, at + k));
    const parts = reader.end();
    expect(parts.ok && parts.value.recording).toEqual(whole);
    // whatever room is made at first
    for (const size of [all.length, all.length / 3, 10 * all.length]) {
      const roomy = new RecordingReader(undefined, size);
      roomy.push(all);
      const read = roomy.end();
      expect(read.ok && read.value.recording).toEqual(whole);
    }
    expect(whole.channels[1]!.values[29_999]).toBe(-29_999);
    expect(whole.channels[0]!.step).toBeCloseTo(0.01, 9);
  });
  test("a pause in the middle of an even recording keeps every time", () => {
    const time = (i: number) => (i < 9_000 ? i : i + 50_000) / 1_000;
    const { recording } = good(`t,A\n${Array.from({ length: 12_000 }, (_, i) => `${time(i)},${i}`).join("\n")}\n`);
    const channel = recording.channels[0]!;
    [0, 5_000, 8_999, 9_000, 11_999].forEach((i) => expect(timeOf(channel, i)).toBeCloseTo(time(i), 3));
  });
});

describe("how rows and numbers are written", () => {
  test("lines that end with a carriage return alone, in a file of several parts", () => {
    const rows = Array.from({ length: 20_000 }, (_, i) => `${(i / 1_000).toFixed(3)},${i % 7}`);
    const all = bytes(`time (s),A (V)\r${rows.join("\r")}`);
    const reader = new RecordingReader();
    for (let at = 0; at < all.length; at += 65_536) reader.push(all.slice(at, at + 65_536));
    const parts = reader.end();
    expect(parts.ok && parts.value.recording.channels[0]!.values.length).toBe(20_000);
  });
  // Reference: the language's own reading of a number
  test("numbers of any usual writing are read as the language reads them", () => {
    const number = fc.oneof(
      fc.integer(),
      fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e12, max: 1e12 }).map((v) => Number(v.toPrecision(14))),
    );
    const written = number.chain((v) => fc.constantFrom(String(v), v.toExponential(), v.toFixed(6)));
    fc.assert(
      fc.property(fc.array(fc.tuple(written, written), { minLength: 20, maxLength: 40 }), (rows) => {
        const { channels } = good(`t,A,B\n${rows.map((r, i) => `${i},${r.join(",")}`).join("\n")}\n`).recording;
        rows.forEach((row, i) =>
          row.forEach((text, c) => {
            const wanted = Math.fround(Number(text));
            expect(Math.abs(channels[c]!.values[i]! - wanted)).toBeLessThanOrEqual(2e-7 * Math.abs(wanted));
          }),
        );
      }),
      { numRuns: 60, seed: 7 },
    );
  });
});

describe("what is wrong is said at its row, and the rest is offered", () => {
  const codes = (text: string) => {
    const r = read(text);
    return (r.ok ? r.value.issues : r.issues).map((i) => [i.code, i.params["row"]]);
  };
  test("time that runs backwards", () => {
    const text = "time,A\n0,1\n1,2\n0.5,3\n2,4\n3,5\n";
    expect(codes(text)).toEqual([["trace.time-backwards", 4]]);
    near(values(text)[0]!, [1, 2, 4, 5]);
  });
  test("a word among numbers, a row too wide, a file cut in the middle of a row", () => {
    const text = "time,A,B\n0,1,1\n1,oops,1\n2,3,1,9\n3,4,1\n4,5";
    expect(codes(text)).toEqual([
      ["trace.not-a-number", 3],
      ["trace.wide-row", 4],
      ["trace.cut-short", 6],
    ]);
    expect(values(text)[0]!.map((v) => (Number.isNaN(v) ? "-" : v))).toEqual([1, "-", 3, 4, 5]);
  });
  test("many mistakes are counted, and three named", () => {
    const text = `time,A\n${Array.from({ length: 300 }, (_, i) => `${i},${i > 200 && i % 2 ? "x" : i}`).join("\n")}\n`;
    const { issues } = good(text);
    expect(issues.filter((i) => i.code === "trace.not-a-number")).toHaveLength(3);
    expect(issues.find((i) => i.code === "trace.more-of-it")?.params["count"]).toBe(47);
  });
  test.each([
    ["nothing", "", "file.empty"],
    ["spaces", "  \n \n", "file.empty"],
    ["prose", "There is nothing here to measure.\nNot one number.\n", "trace.no-numbers"],
    ["a picture", "\u00ff\u00d8\u00ff\u00e0JFIF", "file.other-sort"],
    ["numbers of another document", '{"format":"radicula/wiring","version":1}', "file.wrong-format"],
    ["half a JSON", '{"format":"radicula/recording","version":1,"channels":[', "file.cut-short"],
  ])("%s is refused", (_, text, code) => {
    const result = read(text);
    expect(result.ok).toBe(false);
    expect(!result.ok && result.issues[0]!.code).toBe(code);
  });
  test("a picture renamed to .csv, as bytes", () => {
    const png = new Uint8Array(5_000).map((_, i) => (i * 7919) % 256);
    png.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
    const result = readRecording(png);
    expect(result.ok).toBe(false);
  });
  test("one sample is a recording of one sample", () => {
    const { recording } = good("time,A\n0,1.5\n");
    expect(recording.channels[0]!.values).toHaveLength(1);
    expect(lengthOf(recording.channels[0]!)).toBe(0);
  });
});

describe("sound, logic and our own form", () => {
  const wave = (bits: number, samples: readonly number[], more = 0) => {
    const width = bits / 8;
    const out = new Uint8Array(44 + samples.length * width);
    const view = new DataView(out.buffer);
    const text = (at: number, s: string) => [...s].forEach((c, i) => (out[at + i] = c.charCodeAt(0)));
    text(0, "RIFF");
    text(8, "WAVE");
    text(12, "fmt ");
    view.setUint32(16, 16, true);
    view.setUint16(20, 1, true);
    view.setUint16(22, 1, true);
    view.setUint32(24, 8_000, true);
    view.setUint16(34, bits, true);
    text(36, "data");
    view.setUint32(40, samples.length * width + more, true);
    samples.forEach((v, i) => {
      if (bits === 8) out[44 + i] = 128 + v * 127;
      else if (bits === 16) view.setInt16(44 + 2 * i, v * 32_767, true);
      else {
        const whole = Math.round(v * 8_388_607);
        view.setUint16(44 + 3 * i, whole & 0xffff, true);
        view.setInt8(44 + 3 * i + 2, whole >> 16);
      }
    });
    return out;
  };
  test.each([8, 16, 24])("WAV of %d bits", (bits) => {
    const result = readRecording(wave(bits, [0, 0.5, -0.5, 1]));
    if (!result.ok) throw new Error(JSON.stringify(result.issues));
    const [channel] = result.value.recording.channels;
    expect(channel!.step).toBeCloseTo(1 / 8_000, 9);
    [0, 0.5, -0.5, 1].forEach((v, i) => expect(Math.abs(channel!.values[i]! - v)).toBeLessThan(0.01));
    expect(result.value.issues.map((i) => i.code)).toEqual(["trace.scale-unknown"]);
  });
  test("a WAV of three channels, whose head is the extensible one", () => {
    const file = new WaveLibrary.WaveFile();
    file.fromScratch(
      3,
      8_000,
      "16",
      [0.25, 0.5, -0.5].map((v) => [v * 32_767, 0]),
    );
    const result = readRecording(file.toBuffer());
    expect(result.ok && result.value.recording.channels.map((c) => Math.round(c.values[0]! * 100) / 100)).toEqual([
      0.25, 0.5, -0.5,
    ]);
  });
  // Reference program: wavefile writes what is read here, floats among it
  test.each(["8", "16", "24", "32", "32f"])("two channels of a WAV of %s bits as the library writes it", (bits) => {
    const file = new WaveLibrary.WaveFile();
    const own = [
      [0, 0.5, -0.5],
      [0.25, -0.25, 1],
    ];
    const full = bits === "32f" ? 1 : 2 ** (Number(bits) - 1) - 1;
    const lift = bits === "8" ? 128 : 0;
    file.fromScratch(
      2,
      48_000,
      bits,
      own.map((c) => c.map((v) => lift + Math.round(v * full * 1e6) / 1e6)),
    );
    const result = readRecording(file.toBuffer());
    if (!result.ok) throw new Error(JSON.stringify(result.issues));
    const { channels } = result.value.recording;
    expect(channels.map((c) => Array.from(c.values, (v) => Math.round(v * 50) / 50))).toEqual(
      own.map((c) => c.map((v) => Math.round(v * 50) / 50)),
    );
    expect(channels[0]!.step).toBeCloseTo(1 / 48_000, 12);
  });
  test.each([
    ["no parts", (b: Uint8Array) => b.subarray(0, 20), "trace.no-numbers"],
    ["no samples", (b: Uint8Array) => b.subarray(0, 44), "trace.no-numbers"],
    ["compressed samples", (b: Uint8Array) => b.map((v, i) => (i === 20 ? 85 : v)), "trace.wave-format"],
  ])("a WAV with %s is refused", (_, spoil, code) => {
    const result = readRecording(spoil(wave(16, [0.1, 0.2])));
    expect(!result.ok && result.issues.map((i) => i.code)).toContain(code);
  });
  test("a WAV that ends too soon says so and keeps what is there", () => {
    const result = readRecording(wave(16, [0.1, 0.2], 100));
    expect(result.ok && result.value.issues.map((i) => i.code)).toContain("trace.cut-short");
  });
  test("a value change dump (IEEE 1364): a value holds until the next", () => {
    const { recording } = good(
      "$timescale 1us $end\n$scope module top $end\n$var wire 1 ! SPEED $end\n$var wire 8 # BUS $end\n$upscope $end\n" +
        "$enddefinitions $end\n#0\n0!\n#500\n1!\n#1500\n0!\nb101 #\n#4000\n",
    );
    const [line] = recording.channels;
    expect(line!.name).toBe("SPEED");
    expect([0.0001, 0.0004, 0.0006, 0.0014, 0.0016, 0.0039].map((t) => Math.round(valueAt(line!, t)))).toEqual([
      0, 0, 1, 1, 0, 0,
    ]);
  });
  test("channels of other rates stand in one table at the times of the first", () => {
    const slow = evenChannel("slow", "V", 0, 1, [0, 10, 20]);
    const { recording } = good(recordingCsv({ channels: [evenChannel("fast", "V", 0, 0.5, [1, 2, 3, 4, 5]), slow] }));
    expect(Array.from(recording.channels[1]!.values)).toEqual([0, 5, 10, 15, 20]);
  });
  test("a head without an end is given up before it has been read over and over", () => {
    const result = read(`$date\n${"$comment x $end\n".repeat(300_000)}`);
    expect(!result.ok && result.issues[0]!.code).toBe("trace.no-numbers");
  }, 10_000);
  test("one line of sixty thousand figures that ends in a word does not hold anybody up", () => {
    expect(looksRecorded(bytes(`${"1".repeat(60_000)}x\n`.repeat(1)))).toBe(false);
    expect(read(`${"(".repeat(60_000)}\n1\n2\n3\n`).ok).toBe(true);
  }, 10_000);
  test("our own JSON and CSV give back what was written", () => {
    const recording = {
      channels: [evenChannel("A", "V", 0, 0.5, [1, NaN, 3]), evenChannel("B", "A", 0, 0.5, [0.25, 0.5, 0.75])],
    };
    const own = parseRecording(JSON.stringify(recordingFile(recording)));
    expect(own.ok && own.value.recording).toEqual(recording);
    const table = good(recordingCsv(recording)).recording;
    expect(table.channels.map((c) => [c.name, c.unit, Array.from(c.values)])).toEqual(
      recording.channels.map((c) => [c.name, c.unit, Array.from(c.values)]),
    );
  });
});

describe("drawing a long channel", () => {
  const channel = evenChannel(
    "A",
    "V",
    0,
    1e-4,
    Float32Array.from({ length: 300_000 }, (_, i) => (i === 123_456 ? 9 : Math.sin(i / 500))),
  );
  const pyramid = pyramidOf(channel);
  test("a spike of one sample is seen from afar, and near by every sample is there", () => {
    const far = stretchOf(pyramid, 0, 30, 1_000);
    expect(far.values.length).toBeLessThan(20_000);
    expect(Math.max(...far.values)).toBe(9);
    const close = stretchOf(pyramid, 12.34, 12.36, 1_000);
    expect(close.values.length).toBeGreaterThanOrEqual(200);
    expect(close.values.length).toBeLessThan(210);
    expect(Math.max(...close.values)).toBe(9);
    for (let i = 1; i < far.seconds.length; i++) expect(far.seconds[i]!).toBeGreaterThanOrEqual(far.seconds[i - 1]!);
  });
  test("a part of a channel has the values of that time", () => {
    const part = channelPart(channel, 12.3456, 12.3458);
    expect(Array.from(part.values)).toHaveLength(3);
    expect(part.values[0]).toBe(9);
  });
});
