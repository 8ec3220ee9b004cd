import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { connectorOf, indexWiring } from "../wiring/points.js";
import type { Candidate, FittedThing } from "./candidate.js";
import type { CandidateKind } from "./candidateKind.js";

/** Where somebody stands: the last place, every place already opened up, and the machine as it is. */
export interface Position {
  readonly last: string | undefined;
  readonly opened: ReadonlySet<string>;
  readonly state: State;
}

/** Where the logbook leaves the technician. A cover once off is off, and what was unplugged once is known. */
export function positionOf(folded: Folded): Position {
  const opened = new Set<string>();
  let last: string | undefined;
  let latest = 0;
  const at = (place: string, number: number) => {
    opened.add(place);
    if (number >= latest) {
      latest = number;
      last = place;
    }
  };
  for (const { number, entry } of folded.readings) {
    for (const c of entry.state.unplugged) at(c, number);
    if (entry.instrument !== "scanTool") for (const p of entry.points) at(connectorOf(p), number);
  }
  for (const { number, entry } of folded.clues)
    if (entry.type === "look" || entry.type === "wiggle") at(connectorOf(entry.thing), number);
  for (const c of folded.state.unplugged) opened.add(c);
  return { last, opened, state: folded.state };
}

/** What the time of a candidate is made of. */
export interface CostedStep {
  readonly kind: CandidateKind;
  readonly at: string;
  readonly state: State;
  /** where the black lead goes, when not at battery negative: it has to be got at too */
  readonly black?: string;
}

/** Minutes to take a step from where one stands: get there, change the state, measure. */
export class Cost {
  private readonly index;
  constructor(wiring: Wiring) {
    this.index = indexWiring(wiring);
  }

  /** minutes to get at a place: none where one stands, a few steps where it is already open; "" is the driver's seat */
  reach(place: string, from: Position): number {
    if (place === "" || place === from.last) return 0;
    if (from.opened.has(place)) return DEFAULTS.plan.minutes.again;
    return (
      this.index.connectors.get(place)?.reachMinutes ??
      this.index.devices.get(place)?.reachMinutes ??
      DEFAULTS.plan.minutes.reachDefault
    );
  }
  changes(state: State, from: Position): Pick<Candidate, "unplug" | "plug" | "turnKey" | "takeOff" | "fuseBack"> {
    const now = from.state;
    const fuseBack = (now.pulled ?? []).filter((f) => !state.pulled?.includes(f) && !state.breakers?.includes(f));
    const takeOff = [...comesOff("jumper", now.jumpers, state.jumpers), ...comesOff("lamp", now.loads, state.loads)];
    return {
      unplug: state.unplugged.filter((c) => !now.unplugged.includes(c)),
      plug: now.unplugged.filter((c) => !state.unplugged.includes(c)),
      turnKey: now.key !== state.key,
      ...(takeOff.length ? { takeOff } : {}),
      ...(fuseBack.length ? { fuseBack } : {}),
    };
  }
  minutes(step: CostedStep, from: Position): number {
    const { minutes } = DEFAULTS.plan;
    const { unplug, plug, turnKey } = this.changes(step.state, from);
    const places = new Set([step.at, ...unplug, ...plug]);
    if (step.black !== undefined) places.add(connectorOf(step.black));
    for (const l of step.state.loads ?? []) places.add(connectorOf(l.from));
    let total = 0;
    for (const p of places) total += this.reach(p, from);
    return (
      total +
      unplug.length * minutes.unplug +
      plug.length * minutes.plug +
      (turnKey ? minutes.key : 0) +
      minutes.take[step.kind] +
      (step.state.key === "cranking" || step.state.key === "running" ? minutes.engine : 0)
    );
  }
  /** Where one stands after a step. */
  after(step: CostedStep, from: Position): Position {
    const opened = new Set(from.opened);
    for (const p of [step.at, ...step.state.unplugged]) if (p !== "") opened.add(p);
    return { last: step.at === "" ? from.last : step.at, opened, state: step.state };
  }
}

type Leads = readonly { readonly from: string; readonly to: string }[];
/** What is fitted now and not wanted in the next state. */
function comesOff(thing: FittedThing, now: Leads = [], next: Leads = []): FittedThing[] {
  return now.some((a) => !next.some((b) => a.from === b.from && a.to === b.to)) ? [thing] : [];
}

const EYES: ReadonlySet<CandidateKind> = new Set<CandidateKind>(["look", "identity", "partNumber"]);

/** A test with what it costs from where one stands. */
export function price(
  o: Pick<Candidate, "id" | "kind" | "instrument" | "points" | "at" | "state" | "black" | "part">,
  cost: Cost,
  from: Position,
): Candidate {
  // eyes do not mind what is plugged and where the key stands
  const state = EYES.has(o.kind) ? from.state : o.state;
  return {
    id: o.id,
    kind: o.kind,
    instrument: o.instrument,
    points: o.points,
    state,
    at: o.at,
    ...(o.black === undefined ? {} : { black: o.black }),
    ...(o.part ? { part: o.part } : {}),
    ...cost.changes(state, from),
    minutes: cost.minutes(
      { kind: o.kind, at: o.at, state, ...(o.black === undefined ? {} : { black: o.black }) },
      from,
    ),
  };
}
