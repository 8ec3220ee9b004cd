import type { Entry, ReadingEntry } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { undoneEntries } from "../logbook/undone.js";
import { connectorOf, isPlainBlack } from "../wiring/points.js";
import type { CandidateKind } from "./candidateKind.js";
import { Cost, type Position } from "./cost.js";

const BY_INSTRUMENT: Readonly<Record<ReadingEntry["instrument"], CandidateKind>> = {
  voltmeter: "voltage",
  ohmmeter: "ohms",
  scanTool: "scan",
  clamp: "branchCurrent",
  scope: "activity",
  scopeLow: "activity",
  scopeHigh: "activity",
  continuity: "ohms",
  lamp: "lamp",
};

/**
 * Minutes that the tests of a logbook take by the plan's own times: getting there, changing the machine, measuring.
 * Against the minutes that the dates of the entries tell. Repairs, scans and talk are not in it.
 */
export function plannedMinutes(wiring: Wiring, entries: readonly Entry[]): number {
  const cost = new Cost(wiring);
  const undone = undoneEntries(entries);
  let position: Position = { last: undefined, opened: new Set(), state: { key: "off", unplugged: [] } };
  let minutes = 0;
  entries.forEach((e, i) => {
    const step = undone.has(i + 1) ? undefined : stepOf(e, position);
    if (!step) return;
    minutes += cost.minutes(step, position);
    position = cost.after(step, position);
  });
  return Math.round(minutes);
}

function stepOf(e: Entry, { state }: Position): Parameters<Cost["minutes"]>[0] | undefined {
  switch (e.type) {
    case "reading": {
      const kind = e.points.length === 2 && e.instrument === "voltmeter" ? "fuse" : BY_INSTRUMENT[e.instrument];
      const at = e.instrument === "scanTool" ? "" : connectorOf(e.points[0]!);
      const black = isPlainBlack(e.black) ? undefined : e.black;
      return { kind, at, state: e.state, ...(black === undefined ? {} : { black }) };
    }
    case "trace": {
      const on = e.channels.find((c) => c.by === "scope")?.on;
      return {
        kind: on === undefined ? "scanRecord" : "record",
        at: on === undefined ? "" : connectorOf(on),
        state: e.state,
      };
    }
    case "look":
    case "wiggle":
      return { kind: e.type, at: connectorOf(e.thing), state };
    case "swap":
      return { kind: "swap", at: e.parts[0], state };
    case "identity":
      return { kind: "identity", at: e.connector, state };
    case "seen":
      return e.partNumber === undefined ? undefined : { kind: "partNumber", at: e.connector, state };
    default:
      return undefined;
  }
}
