import { fail, issue, ok, type Result } from "../issues/issue.js";
import { failureType, type FailureType } from "./failureType.js";

/** Status of a code, from the bits a module reports. */
export type CodeStatus = "active" | "pending" | "stored" | "intermittent" | "notRun" | "absent";

/** One code as a module reported it. */
export interface ReportedCode {
  /** P0133, or SPN 110 FMI 3 */
  readonly code: string;
  readonly status: CodeStatus;
  readonly failureType?: FailureType;
  readonly failureTypeByte?: number;
  /** how often it has occurred, where that is reported */
  readonly occurrences?: number;
}

const LETTERS = ["P", "C", "B", "U"] as const;

/**
 * Number of a road machine's code from its two bytes (SAE J2012 / ISO 15031-6; values from memory): bits 15 and 14
 * choose
 * P, C, B or U, bits 13 and 12 the first digit, the rest three hexadecimal digits. 0x0133 is P0133, 0xC100 is U0100.
 */
export function codeNumber(high: number, low: number): string {
  return (
    `${LETTERS[(high >> 6) & 3]!}${(high >> 4) & 3}` +
    `${((high & 15) * 256 + low).toString(16).toUpperCase().padStart(3, "0")}`
  );
}

/** The two bytes of a code such as P0133. @returns undefined where the text is not one */
export function codeBytes(code: string): readonly [number, number] | undefined {
  const m = /^([PCBU])([0-3])([0-9A-F]{3})$/i.exec(code.trim());
  if (!m) return undefined;
  const rest = parseInt(m[3]!, 16);
  return [
    (LETTERS.indexOf(m[1]!.toUpperCase() as (typeof LETTERS)[number]) << 6) | (Number(m[2]) << 4) | (rest >> 8),
    rest & 255,
  ];
}

/** The eight bits of a status byte (ISO 14229-1; values from memory). */
export interface StatusBits {
  readonly testFailed: boolean;
  readonly failedThisCycle: boolean;
  readonly pending: boolean;
  readonly confirmed: boolean;
  readonly notCompletedSinceClear: boolean;
  readonly failedSinceClear: boolean;
  readonly notCompletedThisCycle: boolean;
  readonly lampRequested: boolean;
}
export function statusBits(byte: number): StatusBits {
  const bit = (i: number) => ((byte >> i) & 1) === 1;
  return {
    testFailed: bit(0),
    failedThisCycle: bit(1),
    pending: bit(2),
    confirmed: bit(3),
    notCompletedSinceClear: bit(4),
    failedSinceClear: bit(5),
    notCompletedThisCycle: bit(6),
    lampRequested: bit(7),
  };
}

/**
 * What a status byte means as evidence: failing now, not yet confirmed, stored, seen and gone, or not judged since it
 * was cleared.
 */
export function statusOf(byte: number): CodeStatus {
  const s = statusBits(byte);
  if (s.testFailed) return "active";
  if (s.confirmed) return "stored";
  if (s.pending || s.failedThisCycle) return "pending";
  if (s.failedSinceClear) return "intermittent";
  return s.notCompletedSinceClear ? "notRun" : "absent";
}

/**
 * Hex text to bytes: spaces, commas, 0x and line breaks may stand between. Issues: `hex.empty`, `hex.not-hex`,
 * `hex.odd`, `hex.too-long`.
 */
export function hexBytes(text: string): Result<number[]> {
  if (text.length > MOST_HEX) return fail([issue("hex.too-long", [], { characters: text.length, limit: MOST_HEX })]);
  const bare = text.replace(/0x/gi, "").replace(/[\s,;:-]/g, "");
  if (bare === "") return fail([issue("hex.empty")]);
  const wrong = /[^0-9a-f]/i.exec(bare);
  if (wrong) return fail([issue("hex.not-hex", [], { character: wrong[0] })]);
  if (bare.length % 2) return fail([issue("hex.odd", [], { digits: bare.length })]);
  return ok(Array.from({ length: bare.length / 2 }, (_, i) => parseInt(bare.slice(2 * i, 2 * i + 2), 16)));
}
/** Longest reply taken, characters: a guard against a wrong paste. Judgement. */
const MOST_HEX = 20_000;

const EMISSION: Readonly<Record<number, CodeStatus>> = { 0x43: "stored", 0x47: "pending", 0x4a: "stored" };

/**
 * Reads the reply to an emission service (SAE J1979 / ISO 15031-5; values from memory): 43 stored, 47 pending,
 * 4A permanent, then two bytes a code. On CAN a count byte stands before them; without it, 00 00 fills the frame.
 * @returns the codes, or `hex.…`, `reply.not-emission`, `reply.cut-short`
 */
export function emissionCodes(text: string): Result<ReportedCode[]> {
  const hex = hexBytes(text);
  if (!hex.ok) return hex;
  const [service, ...rest] = hex.value;
  const status = EMISSION[service ?? -1];
  if (!status) return fail([issue("reply.not-emission", [], { byte: hexByte(service ?? 0) })]);
  // with a count byte the rest is odd in length; without, even
  const counted = rest.length % 2 === 1;
  const pairs = counted ? rest.slice(1) : rest;
  if (counted && rest[0]! * 2 > pairs.length)
    return fail([issue("reply.cut-short", [], { expected: rest[0]!, got: pairs.length / 2 })]);
  const codes = chunks(counted ? pairs.slice(0, 2 * rest[0]!) : pairs, 2).filter(([a, b]) => a !== 0 || b !== 0);
  return ok(codes.map(([a, b]) => ({ code: codeNumber(a!, b!), status })));
}

/**
 * Reads the reply 59 02 of ReadDTCInformation (ISO 14229-1; values from memory): a mask, then code, failure type and
 * status, four bytes each.
 */
export function informationCodes(text: string): Result<ReportedCode[]> {
  const hex = hexBytes(text);
  if (!hex.ok) return hex;
  const [service, sub, , ...rest] = hex.value;
  if (service !== 0x59 || sub !== 0x02)
    return fail([issue("reply.not-information", [], { byte: hexByte(service ?? 0) })]);
  if (rest.length % 4)
    return fail([
      issue("reply.cut-short", [], { expected: Math.ceil(rest.length / 4), got: Math.floor(rest.length / 4) }),
    ]);
  return ok(
    chunks(rest, 4).map(([a, b, type, status]) => {
      const named = failureType(type!);
      return {
        code: codeNumber(a!, b!),
        status: statusOf(status!),
        failureTypeByte: type!,
        ...(named ? { failureType: named } : {}),
      };
    }),
  );
}

/**
 * Reads a DM1 message of a heavy machine (SAE J1939-73; values from memory): two lamp bytes, then four bytes a fault:
 * parameter (SPN) of 19 bits, low byte first, failure mode (FMI) of 5, a conversion bit, occurrences of 7. All are
 * active.
 * @returns the faults, none for the "no fault" filler, or `reply.cut-short`, `reply.old-conversion`
 */
export function dm1Codes(text: string): Result<ReportedCode[]> {
  const hex = hexBytes(text);
  if (!hex.ok) return hex;
  // single frames are filled up with two FF
  const rest = hex.value.slice(2).filter((_, i, all) => i < all.length - (all.length % 4 === 2 ? 2 : 0));
  if (hex.value.length < 6 || rest.length % 4)
    return fail([
      issue("reply.cut-short", [], { expected: Math.ceil(rest.length / 4) || 1, got: Math.floor(rest.length / 4) }),
    ]);
  const codes: ReportedCode[] = [];
  for (const [a, b, c, d] of chunks(rest, 4)) {
    if ((d! & 0x80) !== 0 && !(a === 0xff && b === 0xff)) return fail([issue("reply.old-conversion")]);
    const spn = a! | (b! << 8) | ((c! & 0xe0) << 11);
    const fmi = c! & 31;
    if ((spn === 0 && fmi === 0) || (a === 0xff && b === 0xff && c === 0xff)) continue;
    codes.push({ code: `SPN ${spn} FMI ${fmi}`, status: "active", occurrences: d! & 127 });
  }
  return ok(codes);
}

/** Whichever of the replies above it is, by its first byte; anything else is read as DM1. */
export function decodeReply(text: string): Result<ReportedCode[]> {
  const hex = hexBytes(text);
  if (!hex.ok) return hex;
  const first = hex.value[0]!;
  return EMISSION[first] ? emissionCodes(text) : first === 0x59 ? informationCodes(text) : dm1Codes(text);
}

const chunks = (list: readonly number[], size: number) =>
  Array.from({ length: Math.floor(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));
const hexByte = (byte: number) => byte.toString(16).toUpperCase().padStart(2, "0");
