import type { TraceEntry } from "@radicula/core";

/** A place that was moved while it was recorded, and when, seconds. */
export type MovedPlace = NonNullable<TraceEntry["moved"]>[number];
export type MovedWhen = Pick<MovedPlace, "thing" | "from" | "to">;
