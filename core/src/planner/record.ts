import type { Entry, Finding, ReadingEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { drawnPartNumber } from "../logbook/seen.js";
import { OVERLOAD } from "../units/quantity.js";
import { type Candidate, clueOf } from "./candidate.js";
import { watchedBy } from "./candidateKind.js";

export type Recorded = Pick<
  Candidate,
  "kind" | "instrument" | "points" | "state" | "plug" | "unplug" | "at" | "black" | "part"
>;
/** What goes with a value: how it was typed, how it was taken. */
export type ReadingMore = Partial<
  Pick<ReadingEntry, "as" | "swing" | "unit" | "mode" | "battery" | "how" | "corrects" | "note" | "by">
>;

/** What had to be unplugged or plugged back first: what we disturb is thereby always on record. */
export function recordChanges(c: Pick<Recorded, "plug" | "unplug">, at: string): Entry[] {
  return [
    ...c.plug.map((connector): Entry => ({ type: "plugged", at, connector })),
    ...c.unplug.map((connector): Entry => ({ type: "unplugged", at, connector })),
  ];
}

/**
 * The entries that one reading makes.
 * @param values volts, ohms, amperes (open: `OVERLOAD`), or what a lamp or beeper shows
 */
export function recordReading(
  c: Recorded,
  values: readonly (number | ReadingEntry["values"][number])[],
  at: string,
  more: ReadingMore = {},
): Entry[] {
  if (c.instrument === "none") throw new RangeError("a step without an instrument has no reading");
  const watched = watchedBy(c.kind);
  return [
    ...recordChanges(c, at),
    {
      type: "reading",
      at,
      instrument: c.instrument,
      points: [...c.points],
      ...(c.black === undefined ? {} : { black: c.black }),
      ...(c.part ? { part: c.part } : {}),
      values: values.map((v) => (v === OVERLOAD ? ("OL" as const) : v)),
      state: { ...c.state, unplugged: [...c.state.unplugged] },
      ...(watched ? { watched } : {}),
      ...more,
    },
  ];
}

/**
 * The entries that values make which were watched for a while: a reading for each point, with its least and most where
 * it would not stand still.
 * @param swings by point
 */
export function recordWatched(
  c: Recorded,
  values: readonly ReadingEntry["values"][number][],
  swings: readonly (readonly [number, number] | undefined)[],
  at: string,
  more: Omit<ReadingMore, "swing"> = {},
): Entry[] {
  return [
    ...recordChanges(c, at),
    ...c.points.flatMap((point, i) => {
      const swing = swings[i];
      const one = { ...c, points: [point], plug: [], unplug: [] };
      return recordReading(one, [values[i]!], at, { ...more, ...(swing ? { swing: [...swing] } : {}) });
    }),
  ];
}

/**
 * The entries that a yes or no makes: a look, a wiggle, a swap, a part number, which connector it was, whether a
 * breaker held, whether a code set.
 */
export function recordAnswer(
  wiring: Wiring,
  c: Recorded,
  yes: boolean,
  at: string,
  found: readonly Finding[] = [],
  more: { readonly note?: string; readonly by?: string; readonly photo?: string } = {},
): Entry[] {
  const { photo, ...noted } = more;
  const changes = recordChanges(c, at);
  if (c.kind === "breaker")
    return [...changes, { type: "holds", at, fuse: c.points[0]!, held: yes, state: c.state, ...noted }];
  if (c.kind === "codeSets")
    return [
      ...changes,
      {
        type: "code",
        at,
        module: c.points[0]!,
        code: c.points[1]!,
        status: yes ? "active" : "absent",
        ours: true,
        ...noted,
      },
    ];
  const clue = clueOf(c, yes);
  if (clue.type === "partNumber")
    return [
      ...changes,
      {
        type: "seen",
        at,
        connector: c.at,
        colours: [],
        partNumber: yes ? "?" : (drawnPartNumber(wiring, c.at) ?? ""),
        ...noted,
      },
    ];
  return [
    ...changes,
    {
      ...clue,
      at,
      ...(clue.type === "look" && yes ? { found: found.length ? [...found] : ["green"] } : {}),
      ...(clue.type === "look" && photo ? { photo } : {}),
      ...noted,
    } as Entry,
  ];
}
