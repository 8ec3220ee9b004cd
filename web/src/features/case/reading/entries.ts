import { clueOf, drawnPartNumber, OVERLOAD, type Candidate, type Entry, type Finding, type ReadingEntry, type State, type SuspectView, type Wiring } from "@radicula/core";

/**
 * The entries that logging one reading makes: what had to be unplugged or plugged back first, then the reading with
 * its full state. What we disturb is thereby always on record.
 */
export function readingEntries(c: Pick<Candidate, "instrument" | "points" | "state" | "plug" | "unplug">, values: readonly number[], typed: string, at: string): Entry[] {
  return [
    ...c.plug.map((connector): Entry => ({ type: "plugged", at, connector })),
    ...c.unplug.map((connector): Entry => ({ type: "unplugged", at, connector })),
    ...(c.instrument === "none" ? [] : [{ type: "reading" as const, at, instrument: c.instrument, points: [...c.points], values: values.map((v) => (v === OVERLOAD ? "OL" as const : v)), state: { key: c.state.key, unplugged: [...c.state.unplugged] }, as: typed }]),
  ];
}

/** What a test without an instrument brings into the logbook: a look, a wiggle, a swap, a part number, which connector it was. */
export function clueEntries(wiring: Wiring, c: Candidate, yes: boolean, found: Finding | undefined, at: string): Entry[] {
  const clue = clueOf(c, yes);
  if (clue.type === "partNumber") return [{ type: "seen", at, connector: c.at, colours: [], partNumber: yes ? "?" : drawnPartNumber(wiring, c.at) ?? "" }];
  return [{ ...clue, at, ...(clue.type === "look" && yes ? { found: [found ?? "green"] } : {}) } as Entry];
}

/** A reading that was not saved, as something to take (again) from the present state. */
export function candidateOf(reading: Pick<ReadingEntry, "instrument" | "points" | "state">, now: State = { key: "on", unplugged: [] }): Candidate {
  const { instrument, points, state } = reading;
  const at = instrument === "scanTool" ? "" : points[0]?.split(":")[0] ?? "";
  const kind = instrument === "scanTool" ? (state.unplugged.length ? "scanWatch" : "scan") : instrument === "ohmmeter" ? "ohms" : points.length > 1 ? "fuse" : state.unplugged.includes(at) ? "voltageUnplugged" : state.unplugged.length ? "watch" : "voltage";
  return {
    id: `own ${instrument} ${points.join(" ")} ${state.key} ${state.unplugged.join(",")}`, kind, instrument, points, state, at,
    unplug: state.unplugged.filter((c) => !now.unplugged.includes(c)), plug: now.unplugged.filter((c) => !state.unplugged.includes(c)), turnKey: state.key !== now.key, minutes: 1,
  };
}

export function verdictEntry(suspect: SuspectView, text: string, ranking: readonly SuspectView[], engine: string, at: string): Entry {
  return { type: "verdict", at, suspect: suspect.id, text: text.slice(0, 400), share: suspect.share, engine, ranking: ranking.slice(0, 12).map((s) => ({ suspect: s.id, share: s.share })) };
}
