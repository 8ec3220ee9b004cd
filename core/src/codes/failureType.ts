import type { CodeFamily } from "../format/wiring.js";

/** What a failure type byte says (ISO 14229-1 / SAE J2012-DA; values from memory). The words are in core/words. */
export type FailureType =
  | "shortToGround"
  | "shortToBattery"
  | "open"
  | "groundOrOpen"
  | "batteryOrOpen"
  | "belowThreshold"
  | "aboveThreshold"
  | "intermittent"
  | "invalid"
  | "noSignal"
  | "missingMessage";

export const FAILURE_TYPES: Readonly<
  Record<number, { readonly type: FailureType; readonly family: CodeFamily | undefined }>
> = {
  0x11: { type: "shortToGround", family: "low" },
  0x12: { type: "shortToBattery", family: "high" },
  0x13: { type: "open", family: "circuit" },
  0x14: { type: "groundOrOpen", family: "low" },
  0x15: { type: "batteryOrOpen", family: "high" },
  0x16: { type: "belowThreshold", family: "low" },
  0x17: { type: "aboveThreshold", family: "high" },
  0x1f: { type: "intermittent", family: undefined },
  0x29: { type: "invalid", family: "performance" },
  0x31: { type: "noSignal", family: "noActivity" },
  0x87: { type: "missingMessage", family: "lostCommunication" },
};

/** @returns undefined for a byte not known here */
export const failureType = (byte: number): FailureType | undefined => FAILURE_TYPES[byte]?.type;
