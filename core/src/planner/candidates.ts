import { DEFAULTS } from "../defaults.js";
import type { State } from "../format/case.js";
import type { Connector, Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { findNets } from "../wiring/nets.js";
import { deviceConnectors, indexWiring } from "../wiring/points.js";
import type { Instrument, Predictor } from "../diagnosis/predictor.js";

export type CandidateKind = "voltage" | "voltageUnplugged" | "watch" | "fuse" | "ohms";

/** One thing that could be done next: a reading in a given state. `id` is stable while the document is. */
export interface Candidate {
  readonly id: string;
  readonly kind: CandidateKind;
  readonly instrument: Instrument;
  readonly points: readonly string[];
  readonly state: State;
  /** the connector to reach for the reading itself, or the fuse */
  readonly at: string;
  /** what must be done to get from the present state to this one */
  readonly unplug: readonly string[];
  readonly plug: readonly string[];
  readonly turnKey: boolean;
  readonly minutes: number;
}

/** Restraint and high-voltage circuits are never probed; see the makers' procedures. */
const NEVER_PROBED: ReadonlySet<string> = new Set(["restraint", "highVoltage"]);
/** Above this many connectors only those in question are planned for. */
const MANY_CONNECTORS = 12;

/**
 * Every reading worth weighing: voltage at each reachable cavity (plugged, or unplugged at its own connector),
 * a shared point watched while another device is unplugged, both sides of each fuse, ohms to chassis with power off.
 * @param concerned connectors and fuses that a suspect touches; only these when the machine is large
 */
export function candidates(predictor: Predictor, folded: Folded, concerned: ReadonlySet<string>): Candidate[] {
  const { wiring } = predictor;
  const barred = barredConnectors(wiring);
  const wired = new Set(wiring.wires.flatMap((w) => [w.from, w.to]));
  const all = wiring.connectors.filter((c) => !barred.has(c.id));
  const connectors = all.length > MANY_CONNECTORS ? all.filter((c) => concerned.has(c.id)) : all;
  const modules = new Set(wiring.devices.flatMap((d) => (d.kind === "module" ? deviceConnectors(d) : [])));
  const plan = new StateCost(wiring, folded);
  const found: Candidate[] = [];
  const add = (kind: CandidateKind, instrument: Instrument, points: readonly string[], at: string, state: State) => {
    if (points.every((p) => predictor.pointIndex.has(p))) found.push(plan.price(kind, instrument, points, at, state));
  };
  const off = (unplugged: string[]): State => ({ key: "off", unplugged });
  const on = (unplugged: string[] = []): State => ({ key: "on", unplugged });
  for (const c of connectors) {
    for (const point of sides(c).filter((p) => wired.has(p))) {
      if (c.backProbe) add("voltage", "voltmeter", [point], c.id, on());
      if (modules.has(c.id)) continue; // unplugging a module to measure at it is a last resort, not planned here
      add("voltageUnplugged", "voltmeter", [point], c.id, on([c.id]));
      add("ohms", "ohmmeter", [point], c.id, off([c.id]));
    }
  }
  for (const [device, watch] of watchPoints(predictor, connectors, modules, plan)) {
    for (const point of watch) add("watch", "voltmeter", [point], point.slice(0, point.indexOf(":")), on([device]));
  }
  for (const d of wiring.devices) {
    if (d.kind === "fuse" && !d.cautions.some((c) => NEVER_PROBED.has(c))) add("fuse", "voltmeter", [`${d.id}:in`, `${d.id}:out`], d.id, on());
  }
  const tools = folded.intake?.entry.tools;
  if (tools && !tools.includes("meter")) return [];
  return found.filter((c) => !folded.setAside.has(c.id));
}

/** Connectors that must not be probed: their own caution, or that of a device on them. */
export function barredConnectors(wiring: Wiring): ReadonlySet<string> {
  const barred = new Set(wiring.connectors.filter((c) => c.cautions.some((x) => NEVER_PROBED.has(x))).map((c) => c.id));
  for (const d of wiring.devices) if (d.cautions.some((x) => NEVER_PROBED.has(x))) for (const c of deviceConnectors(d)) barred.add(c);
  return barred;
}

const sides = (c: Connector) => c.cavities.flatMap((cavity) => (c.inline ? [`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`] : [`${c.id}:${cavity}`]));

/** For each device connector that can be unplugged: a point on each copper net it shares with another, at the connector cheapest to reach. */
function watchPoints(predictor: Predictor, connectors: readonly Connector[], modules: ReadonlySet<string>, plan: StateCost): [string, string[]][] {
  const { netOf: nets, functionOf } = findNets(predictor.wiring);
  const reachable = connectors.filter((c) => c.backProbe && !c.inline);
  return connectors.filter((c) => !modules.has(c.id)).map((c) => {
    const shared = new Map<number, string>();
    for (const point of sides(c)) {
      const net = nets.get(point);
      if (net === undefined || functionOf(point) === "ground") continue;
      for (const other of reachable) {
        if (other.id === c.id) continue;
        const there = sides(other).find((p) => nets.get(p) === net);
        const best = shared.get(net);
        if (there && (best === undefined || plan.reach(other.id) < plan.reach(best.slice(0, best.indexOf(":"))))) shared.set(net, there);
      }
    }
    return [c.id, [...shared.values()]];
  });
}

/** Minutes to take a reading: get there, change the state from the present one, measure. */
class StateCost {
  private readonly index;
  private readonly last: string | undefined;
  constructor(wiring: Wiring, private readonly folded: Folded) {
    this.index = indexWiring(wiring);
    const point = folded.readings.at(-1)?.entry.points[0];
    this.last = point?.slice(0, point.includes(":") ? point.indexOf(":") : undefined);
  }
  /** minutes to get at a connector or fuse; none when the last reading was taken there */
  reach(id: string): number {
    if (id === this.last) return 0;
    return this.index.connectors.get(id)?.reachMinutes ?? this.index.devices.get(id)?.reachMinutes ?? DEFAULTS.plan.minutes.reachDefault;
  }
  price(kind: CandidateKind, instrument: Instrument, points: readonly string[], at: string, state: State): Candidate {
    const { minutes } = DEFAULTS.plan;
    const now = this.folded.state;
    const unplug = state.unplugged.filter((c) => !now.unplugged.includes(c));
    const plug = now.unplugged.filter((c) => !state.unplugged.includes(c));
    const turnKey = now.key !== state.key;
    const places = new Set([at, ...unplug, ...plug]);
    const total = [...places].reduce((sum, p) => sum + this.reach(p), 0) + unplug.length * minutes.unplug + plug.length * minutes.plug + (turnKey ? minutes.key : 0)
      + (kind === "fuse" ? minutes.fuse : instrument === "ohmmeter" ? minutes.ohms : minutes.voltage);
    return { id: `${kind} ${points.join(" ")}${state.unplugged.length ? ` -${state.unplugged.join(",")}` : ""}`, kind, instrument, points, state, at, unplug, plug, turnKey, minutes: total };
  }
}
