import type { OpenRecording } from "./useRecording";

/** The part of a recording that is seen, seconds. */
export interface Seen {
  readonly from: number;
  readonly to: number;
}
/** From the first sample of a recording to its last. */
export function wholeOf({ channels }: Pick<OpenRecording, "channels">): Seen {
  return { from: Math.min(...channels.map((c) => c.from)), to: Math.max(...channels.map((c) => c.to)) };
}

/** Keeps a stretch within the recording, and no shorter than a few samples. */
export function within(seen: Seen, whole: Seen, least: number): Seen {
  const span = Math.min(whole.to - whole.from, Math.max(least, seen.to - seen.from));
  const from = Math.max(whole.from, Math.min(whole.to - span, seen.from));
  return { from, to: from + span };
}
