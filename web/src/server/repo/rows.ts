import { Chart, Entry, readWiring, type Wiring } from "@radicula/core";
import type { z } from "zod";

/** A row that is not what it was written as: of an older version, or changed by hand. */
export class UnreadableRow extends Error {
  constructor(
    /** what the row was to hold, in the reader's words */
    readonly what: string,
    readonly reason: string,
  ) {
    super(`the database holds ${what} that does not read: ${reason}`);
    this.name = "UnreadableRow";
  }
}

/** @throws {UnreadableRow} */
export function readRow<T>(schema: z.ZodType<T>, value: unknown, what: string): T {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [first] = read.error.issues;
  throw new UnreadableRow(what, `${first?.path.join(".") ?? ""}: ${first?.message ?? ""}`);
}
export const readEntryRow = (value: unknown, seq: number): Entry => readRow(Entry, value, `entry ${seq}`);
export const readChartRow = (value: unknown): Chart => readRow(Chart, value, "a pin chart");
/** @throws {UnreadableRow} */
export function readWiringRow(value: unknown, what = "a wiring"): Wiring {
  const read = readWiring(value);
  if (!read.ok) throw new UnreadableRow(what, read.issues[0]?.code ?? "");
  return read.value;
}
