import {
  cutText,
  type Candidate,
  type Entry,
  type ReadingEntry,
  type State,
  type SuspectView,
  connectorOf,
} from "@radicula/core";

/** A reading that was not saved, as something to take (again) from the present state. */
export type Own = Pick<ReadingEntry, "instrument" | "points" | "state"> &
  Partial<Pick<ReadingEntry, "black" | "part" | "corrects" | "how" | "mode" | "battery">>;
export function candidateOf(reading: Own, now: State = { key: "on", unplugged: [] }): Candidate {
  const { instrument, points, state } = reading;
  const at = instrument === "scanTool" ? "" : connectorOf(points[0] ?? "");
  return {
    id:
      `own ${instrument} ${points.join(" ")} ${reading.black ?? ""} ${reading.part ?? ""} ${state.key} ` +
      `${state.unplugged.join(",")} ${reading.corrects ?? ""} ` +
      `${JSON.stringify([state.jumpers, state.loads, state.pulled, state.breakers])}`,
    kind: kindOf(reading, at),
    instrument,
    points,
    state,
    at,
    ...(reading.black === undefined ? {} : { black: reading.black }),
    ...(reading.part ? { part: reading.part } : {}),
    unplug: state.unplugged.filter((c) => !now.unplugged.includes(c)),
    plug: now.unplugged.filter((c) => !state.unplugged.includes(c)),
    turnKey: state.key !== now.key,
    minutes: 1,
  };
}
function kindOf({ instrument, points, state, black, part }: Own, at: string): Candidate["kind"] {
  if (part) return "bench";
  if (state.jumpers?.length && instrument === "scanTool") return "jumper";
  switch (instrument) {
    case "scanTool":
      return state.unplugged.length ? "scanWatch" : "scan";
    case "ohmmeter":
    case "continuity":
      return "ohms";
    case "lamp":
      return "lamp";
    case "scope":
    case "scopeLow":
    case "scopeHigh":
      return "activity";
    default:
      return points.length > 1
        ? "fuse"
        : black !== undefined
          ? "drop"
          : state.unplugged.includes(at)
            ? "voltageUnplugged"
            : state.unplugged.length
              ? "watch"
              : "voltage";
  }
}

export function verdictEntry(
  suspect: SuspectView,
  text: string,
  ranking: readonly SuspectView[],
  engine: string,
  at: string,
  open: readonly { readonly repair: string; readonly share: number }[] = [],
): Entry {
  return {
    type: "verdict",
    at,
    suspect: suspect.id,
    text: cutText(text, 400),
    share: suspect.share,
    engine,
    ...(open.length > 1 ? { open: open.slice(0, 40).map((o) => ({ ...o, repair: o.repair.slice(0, 400) })) } : {}),
    ranking: ranking.slice(0, 12).map((s) => ({ suspect: s.id, share: s.share })),
  };
}
