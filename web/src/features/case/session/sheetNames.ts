/** Everything that opens over a case; each has an address of its own: `?sheet=codes`. */
export const SHEETS = [
  "other",
  "codes",
  "name",
  "intake",
  "seen",
  "chart",
  "help",
  "runs",
  "disturbed",
  "meter",
  "watch",
  "recording",
  "sums",
  "bench",
  "repair",
  "close",
  "followUp",
  "before",
  "gaps",
] as const;
export type SheetName = (typeof SHEETS)[number];

/** The ways to look at what the codes share; each has an address too: `?view=shared`. */
export const VIEWS = ["map", "page", "shared", "profile", "course", "beforeAfter"] as const;
export type MapView = (typeof VIEWS)[number];

/** A text for the scan box; each that is given is another, though it says the same. */
export interface GivenCodes {
  readonly text: string;
}
