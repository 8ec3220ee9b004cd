import { decode, encode } from "@msgpack/msgpack";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import stringify from "fast-json-stable-stringify";
import { z } from "zod";
import type { KnownCodes, RowsOfHypothesis } from "./piece.js";
import { takeResults } from "./pieceWork.js";
import type { Predictor } from "./predictor.js";

// What was predicted for the single faults of a machine, as bytes: no evidence is in it, so that it serves every job on
// such a machine. Numbers come back bit by bit as they were.

/** Numbers kept of what instruments would show, some 2 MB when compressed. Judgement. */
const MOST_NUMBERS = 2.5e6;
/** The form of the bytes; grows when it changes. */
const FORM = 1;

/** By what the predictions of a machine are found again, 64 hexadecimal digits each. */
export interface KeptKeys {
  /** which codes faults set: hangs on the codes of the wiring, too */
  readonly codes: string;
  /** what instruments would show */
  readonly values: string;
}
/**
 * The same wiring, predicted by the same engine in as many draws, has the same keys.
 * @param engine `ENGINE_VERSION`
 */
export function keptKeys({ wiring, draws }: Predictor, engine: string): KeptKeys {
  const { codes, ...rest } = wiring;
  const plain = digest([FORM, engine, draws, rest]);
  return { values: plain, codes: digest([plain, codes]) };
}
const digest = (of: unknown) => bytesToHex(sha256(utf8ToBytes(stringify(of))));

const Bytes = z.custom<Uint8Array>((x) => x instanceof Uint8Array);
const Codes = z.object({ bits: Bytes, share: Bytes, groups: z.array(z.number()) }).nullable();
const Shifted = z.object({ known: Bytes, most: Bytes, touched: Bytes }).nullable();
const PackedCodes = z.object({
  unsettled: z.array(z.number()),
  /** by hypothesis */
  all: z.array(z.object({ shifts: Shifted, rough: Codes, full: Codes })),
});
const PackedValues = z.array(
  z.object({
    column: z.string(),
    stride: z.number(),
    /** hypothesis, samples, rows less (by exclusive or) those of the sound machine in the same draw: mostly zeros */
    hypotheses: z.array(z.tuple([z.number(), Bytes, Bytes])),
  }),
);

/** Which codes the single faults of a machine set, as far as it was worked out. */
export function packCodes({ faults, codes, unsettled }: Predictor): Uint8Array {
  const packed: z.infer<typeof PackedCodes> = {
    unsettled: [...unsettled].filter((h) => h <= faults.length),
    all: Array.from({ length: faults.length + 1 }, (_, h) => {
      const { shifts, rough, full } = codes.knownOf(h);
      return {
        shifts: shifts ? { known: shifts.known, most: bytesOf(shifts.most), touched: shifts.touched } : null,
        rough: packKnown(rough),
        full: packKnown(full),
      };
    }),
  };
  return encode(packed);
}
const packKnown = (known: KnownCodes | undefined) =>
  known ? { bits: known.bits, share: bytesOf(known.share), groups: [...known.groups] } : null;

/**
 * Takes over what was kept of the same machine; what is known already stays.
 * @throws where the bytes are of another machine, or no such bytes
 */
export function takeCodes(predictor: Predictor, bytes: Uint8Array): void {
  const { unsettled, all } = PackedCodes.parse(decode(bytes));
  const { hypotheses, faults, monitors } = predictor;
  if (all.length !== faults.length + 1) throw new RangeError("kept codes are of another machine");
  const some = new Set(unsettled);
  takeResults(
    predictor,
    all.map(({ shifts, rough, full }, hypothesis) => {
      const numbers = hypotheses[hypothesis]!.samples * monitors.length;
      return {
        hypothesis,
        isSettled: !some.has(hypothesis),
        codes: {
          shifts: shifts
            ? {
                known: sized(shifts.known, monitors.length),
                most: sized(new Float64Array(aligned(shifts.most)), monitors.length),
                touched: sized(shifts.touched, monitors.length),
              }
            : undefined,
          rough: unpackKnown(rough, numbers),
          full: unpackKnown(full, numbers),
        },
      };
    }),
  );
}
function unpackKnown(known: z.infer<typeof Codes>, numbers: number): KnownCodes | undefined {
  if (!known) return undefined;
  const share = sized(new Float32Array(aligned(known.share)), numbers);
  return { bits: sized(known.bits, numbers), share, groups: new Set(known.groups) };
}

/**
 * What instruments would show with single faults, as far as it was worked out. Where there is too much of it the states
 * worked out for the fewest faults are kept: those were asked for where something was in question.
 */
export function packValues({ faults, cache, draws }: Predictor): Uint8Array {
  const columns = cache
    .all()
    .map(({ column, rowsOf }) => {
      const hypotheses = [...rowsOf].filter(([h]) => h <= faults.length).sort(([a], [b]) => a - b);
      const rows = hypotheses.flatMap(([h, of]) => of.flatMap((row, sample) => (row ? [{ h, row, sample }] : [])));
      return { column, stride: rows[0]?.row.length ?? 0, rows, sound: rowsOf.get(0) };
    })
    .sort((a, b) => a.rows.length * a.stride - b.rows.length * b.stride);
  let numbers = 0;
  const packed: z.infer<typeof PackedValues> = columns
    .filter((c) => c.rows.length > 0 && (numbers += c.rows.length * c.stride) <= MOST_NUMBERS)
    .map(({ column, stride, rows, sound }) => ({
      column,
      stride,
      hypotheses: [...new Set(rows.map((r) => r.h))].map((h) => {
        const own = rows.filter((r) => r.h === h);
        const words = new Uint32Array(own.length * stride);
        own.forEach(({ row, sample }, i) => {
          words.set(wordsOf(row), i * stride);
          if (h > 0) without(words, i * stride, sound?.[sample % draws]);
        });
        return [h, bytesOf(Uint32Array.from(own, (r) => r.sample)), bytesOf(words)];
      }),
    }));
  return encode(packed);
}

/** As `takeCodes`, of what instruments would show. */
export function takeValues(predictor: Predictor, bytes: Uint8Array): void {
  const packed = PackedValues.parse(decode(bytes));
  const { hypotheses, faults, draws } = predictor;
  for (const { column, stride, hypotheses: all } of packed) {
    // the sound machine comes first: the rows of the others stand as differences to its rows
    const kept = new Map<number, Float32Array>();
    for (const [h, packedSamples, packedRows] of all) {
      if (h > faults.length) throw new RangeError("kept values are of another machine");
      const samples = new Uint32Array(aligned(packedSamples));
      const words = sized(new Uint32Array(aligned(packedRows)), samples.length * stride);
      samples.forEach((sample, i) => {
        if (sample >= hypotheses[h]!.samples) throw new RangeError("kept values are of another machine");
        if (h === 0) kept.set(sample, new Float32Array(words.buffer, 4 * i * stride, stride));
        else without(words, i * stride, kept.get(sample % draws));
      });
      const values: RowsOfHypothesis = { column, stride, samples, rows: new Float32Array(words.buffer) };
      takeResults(predictor, [{ hypothesis: h, isSettled: true, values }]);
    }
  }
}

/** Exclusive or of the words from a place on with the bits of a row: twice gives what was there. */
function without(words: Uint32Array, from: number, row: Float32Array | undefined): void {
  if (!row) return;
  const sound = wordsOf(row);
  for (let i = 0; i < sound.length; i++) words[from + i]! ^= sound[i]!;
}
const wordsOf = (row: Float32Array) => new Uint32Array(row.buffer, row.byteOffset, row.length);
const bytesOf = (list: Float32Array | Float64Array | Uint32Array) =>
  new Uint8Array(list.buffer, list.byteOffset, list.byteLength);
/** Bytes that stand anywhere in a message, where numbers can be read from. */
const aligned = (bytes: Uint8Array) => new Uint8Array(bytes).buffer;
function sized<T extends { readonly length: number }>(list: T, length: number): T {
  if (list.length !== length) throw new RangeError("kept predictions are of another machine");
  return list;
}
