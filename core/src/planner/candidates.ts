import type { State } from "../format/case.js";
import type { Caution, Connector, Device, Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { deviceConnectors, devicePins } from "../wiring/points.js";
import { clueLikelihood } from "../diagnosis/clues.js";
import type { Clue } from "../diagnosis/evidence.js";
import type { Fault } from "../faults/fault.js";
import type { Instrument, Predictor } from "../diagnosis/predictor.js";
import { drawnPartNumber } from "../logbook/seen.js";
import { lookAlikes, type Misplacement } from "../diagnosis/misplaced.js";
import { Cost, standing, type Standing } from "./cost.js";

export type CandidateKind =
  | "voltage"
  | "voltageUnplugged"
  | "watch"
  | "fuse"
  | "ohms"
  | "ohmsWatch"
  | "scan"
  | "scanWatch"
  | "activity"
  | "look"
  | "wiggle"
  | "swap"
  | "partNumber"
  | "identity"
  | RunKind;
/** Steps that only guided runs take: between two leads, a jumper with the scan tool, a lamp, a breaker in a fuse's place, a part by itself, a code made to set. */
export type RunKind = "drop" | "jumper" | "lamp" | "breaker" | "bench" | "codeSets";

/** One thing that could be done next: a reading in a given state, or a look, a wiggle, a swap. `id` is stable while the document is. */
export interface Candidate {
  readonly id: string;
  readonly kind: CandidateKind;
  /** "none": eyes and hands; the answer is one of few words */
  readonly instrument: Instrument | "none";
  /** where the red lead goes; the thing looked at or moved; the two parts swapped */
  readonly points: readonly string[];
  readonly state: State;
  /** the connector to reach for the reading itself, or the fuse; "" for the driver's seat */
  readonly at: string;
  /** what must be done to get from the present state to this one */
  readonly unplug: readonly string[];
  readonly plug: readonly string[];
  readonly turnKey: boolean;
  readonly minutes: number;
  /** where the black lead goes, when not at battery negative */
  readonly black?: string;
  /** on the part's own pins: taken out, or new */
  readonly part?: "removed" | "new";
}

/** Restraint and high-voltage circuits are never probed; see the makers' procedures. */
const NEVER_PROBED: ReadonlySet<string> = new Set(["restraint", "highVoltage"]);
/** Above this many connectors only those in question are planned for. */
const MANY_CONNECTORS = 12;
/** Sensors whose value a scan tool shows as a number that stands for volts at the pin. */
const SHOWN_KINDS: ReadonlySet<Device["kind"]> = new Set<Device["kind"]>([
  "threeWireSensor",
  "potentiometer",
  "pedal",
  "thermistor",
  "currentLoop",
]);
const TURNING_KINDS: ReadonlySet<Device["kind"]> = new Set<Device["kind"]>(["hall", "coilSensor"]);
const DRIVEN_KINDS: ReadonlySet<Device["kind"]> = new Set<Device["kind"]>(["solenoid", "heater", "lamp", "relay"]);

const off = (unplugged: string[] = []): State => ({ key: "off", unplugged });
const on = (unplugged: string[] = []): State => ({ key: "on", unplugged });

const EYES: ReadonlySet<CandidateKind> = new Set<CandidateKind>(["look", "identity", "partNumber"]);

/** What a document offers, worked out once: every step, before what it costs from where one stands. */
interface Offered {
  readonly id: string;
  readonly kind: CandidateKind;
  readonly instrument: Instrument | "none";
  readonly points: readonly string[];
  readonly at: string;
  readonly state: State;
  readonly touches: readonly string[];
}

/**
 * Every test worth weighing: voltage at each reachable cavity (plugged, or unplugged at its own connector; with the
 * engine running where something is only driven then), shared points watched while a device is unplugged, both sides
 * of each fuse, ohms with power off, what the scan tool shows, looks, wiggles, twins swapped, part numbers.
 * @param concerned connectors, fuses and other things that a suspect touches; only these when the machine is large
 */
export function candidates(predictor: Predictor, folded: Folded, concerned: ReadonlySet<string>): Candidate[] {
  const tools = folded.intake?.entry.tools;
  const owns = (t: NonNullable<typeof tools>[number]) => !tools || tools.includes(t);
  const shows = folded.intake?.entry.scanShows;
  const cost = new Cost(predictor.wiring);
  const from = standing(folded);
  const many = predictor.wiring.connectors.length > MANY_CONNECTORS;
  return offered(predictor)
    .filter((o) => {
      if (folded.setAside.has(o.id) || folded.lacking.has(o.kind)) return false;
      if (many && !o.touches.some((t) => concerned.has(t))) return false;
      if (!many && (o.kind === "look" || o.kind === "wiggle") && !concerned.has(o.points[0]!)) return false;
      if (o.kind === "scan" || o.kind === "scanWatch")
        return owns("scanTool") && (!shows || o.touches.some((t) => shows.includes(t)));
      if (o.instrument === "scope") return owns("scope");
      return o.instrument === "none" || owns("meter");
    })
    .map((o) => price(o, cost, from));
}

export function price(
  o: Pick<Offered, "id" | "kind" | "instrument" | "points" | "at" | "state">,
  cost: Cost,
  from: Standing,
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
    ...cost.changes(state, from),
    minutes: cost.minutes({ kind: o.kind, at: o.at, state }, from),
  };
}

/** The clue a candidate without an instrument would bring, for either answer. */
export function clueOf(c: Pick<Candidate, "kind" | "points">, positive: boolean): Clue {
  const at = "2000-01-01T00:00:00Z";
  switch (c.kind) {
    case "wiggle":
      return { type: "wiggle", at, thing: c.points[0]!, reacted: positive };
    case "swap":
      return { type: "swap", at, parts: [c.points[0]!, c.points[1]!], result: positive ? "moved" : "stayed" };
    case "identity":
      return { type: "identity", at, connector: c.points[0]!, right: !positive };
    case "partNumber":
      return { type: "partNumber", parts: c.points, same: !positive };
    default:
      return {
        type: "look",
        at,
        thing: c.points[0]!,
        found: positive ? ["rubbed", "green", "pushedBack"] : ["nothing"],
      };
  }
}

/** Probability of the answer "yes" to a candidate without an instrument, given what is wrong. */
export function yesLikelihood(
  c: Pick<Candidate, "kind" | "points">,
  faults: readonly Fault[],
  comesAndGoes: boolean,
  misplaced?: Pick<Misplacement, "from" | "to">,
): number {
  // a look may find many things: it is yes when it does not find nothing
  return c.kind === "look"
    ? 1 - clueLikelihood(clueOf(c, false), faults, comesAndGoes)
    : clueLikelihood(clueOf(c, true), faults, comesAndGoes, misplaced);
}

/** Whether a part or connector is marked as one that is never probed. */
export const isNeverProbed = (x: { readonly cautions: readonly Caution[] }): boolean =>
  x.cautions.some((c) => NEVER_PROBED.has(c));
/** Whether a connector or part must not be probed or unplugged. */
export function isGuarded(wiring: Wiring, id: string): boolean {
  return barredConnectors(wiring).has(id) || wiring.devices.some((d) => d.id === id && isNeverProbed(d));
}

/** Connectors that must not be probed: their own caution, or that of a device on them. */
export function barredConnectors(wiring: Wiring): ReadonlySet<string> {
  const barred = new Set(wiring.connectors.filter(isNeverProbed).map((c) => c.id));
  for (const d of wiring.devices) if (isNeverProbed(d)) for (const c of deviceConnectors(d)) barred.add(c);
  return barred;
}

function offered(predictor: Predictor): readonly Offered[] {
  const known = predictor.memo.get("offered") as readonly Offered[] | undefined;
  if (known) return known;
  const list = new Offering(predictor).all();
  predictor.memo.set("offered", list);
  return list;
}

class Offering {
  private readonly wiring: Wiring;
  private readonly barred: ReadonlySet<string>;
  private readonly connectors: readonly Connector[];
  private readonly modules: ReadonlySet<string>;
  private readonly nets: Nets;
  private readonly deviceOn: ReadonlyMap<string, Device>;
  private readonly found: Offered[] = [];
  private readonly names = new Set<string>();

  constructor(private readonly predictor: Predictor) {
    this.wiring = predictor.wiring;
    this.barred = barredConnectors(this.wiring);
    this.connectors = this.wiring.connectors.filter((c) => !this.barred.has(c.id));
    this.modules = new Set(this.wiring.devices.flatMap((d) => (d.kind === "module" ? deviceConnectors(d) : [])));
    this.nets = findNets(this.wiring);
    this.deviceOn = new Map(this.wiring.devices.flatMap((d) => deviceConnectors(d).map((c) => [c, d] as const)));
  }

  all(): readonly Offered[] {
    for (const c of this.connectors) this.atConnector(c);
    for (const c of this.connectors) if (!this.modules.has(c.id)) this.watches(c);
    for (const d of this.wiring.devices) if (!isNeverProbed(d)) this.atDevice(d);
    for (const d of this.wiring.devices) if (d.kind === "module") this.scans(d.pins);
    this.swaps();
    return this.found;
  }

  private add(
    kind: CandidateKind,
    instrument: Instrument | "none",
    points: readonly string[],
    at: string,
    state: State,
    touches: readonly string[] = [],
  ): void {
    if (instrument !== "none" && points.some((p) => this.predictor.placeOf(instrument, p) === undefined)) return;
    const id = `${kind} ${points.join(" ")}${state.key === "running" || state.key === "cranking" ? ` ${state.key}` : ""}${state.unplugged.length ? ` -${state.unplugged.join(",")}` : ""}`;
    if (this.names.has(id)) return;
    this.names.add(id);
    this.found.push({
      id,
      kind,
      instrument,
      points,
      at,
      state,
      touches: [...new Set([at, ...state.unplugged, ...touches])].filter(Boolean),
    });
  }

  private atConnector(c: Connector): void {
    const device = this.deviceOn.get(c.id);
    this.add("look", "none", [c.id], c.id, on(), [c.id]);
    if (lookAlikes(this.wiring, c.id).length) this.add("identity", "none", [c.id], c.id, on(), [c.id]);
    this.add("wiggle", "none", [c.id], c.id, on(), [c.id]);
    if (device && device.kind !== "module" && drawnPartNumber(this.wiring, c.id) !== undefined)
      this.add("partNumber", "none", [device.id], c.id, on());
    for (const point of this.sides(c)) {
      if (this.nets.netOf.get(point) === undefined || !this.isWired(point)) continue;
      if (c.backProbe) {
        this.add("voltage", "voltmeter", [point], c.id, on());
        if (device && DRIVEN_KINDS.has(device.kind))
          this.add("voltage", "voltmeter", [point], c.id, { key: "running", unplugged: [] });
        if (device && TURNING_KINDS.has(device.kind) && this.nets.functionOf(point) === "signal")
          this.add("activity", "scope", [point], c.id, { key: "cranking", unplugged: [] });
      }
      if (this.modules.has(c.id)) continue; // unplugging a module to measure at it is a last resort, not planned here
      this.add("voltageUnplugged", "voltmeter", [point], c.id, on([c.id]));
      this.add("ohms", "ohmmeter", [point], c.id, off([c.id]));
    }
  }

  /** unplug one device and watch a point on each conductor it shares, at another connector; or its own value in the scan tool */
  private watches(c: Connector): void {
    const done = new Map<number, { point: string; reach: number }>();
    for (const point of this.sides(c)) {
      const net = this.nets.netOf.get(point);
      if (net === undefined || this.nets.functionOf(point) === "ground") continue;
      const pin = this.nets.modulePinOf(point);
      if (pin !== undefined && this.isShown(pin))
        this.add("scanWatch", "scanTool", [pin], "", on([c.id]), this.shownFor(pin));
      for (const other of this.connectors) {
        if (other.id === c.id || other.inline || !other.backProbe) continue;
        const there = this.sides(other).find((p) => this.nets.netOf.get(p) === net);
        const best = done.get(net);
        if (there !== undefined && (best === undefined || other.reachMinutes < best.reach))
          done.set(net, { point: there, reach: other.reachMinutes });
      }
    }
    for (const { point } of done.values())
      this.add("watch", "voltmeter", [point], point.slice(0, point.indexOf(":")), on([c.id]));
  }

  private atDevice(d: Device): void {
    switch (d.kind) {
      case "fuse":
      case "breaker": {
        this.add("fuse", "voltmeter", [`${d.id}:in`, `${d.id}:out`], d.id, on());
        this.add("look", "none", [d.id], d.id, on());
        this.add("ohms", "ohmmeter", [`${d.id}:out`], d.id, off());
        const net = this.nets.netOf.get(`${d.id}:out`);
        for (const c of this.connectors)
          if (!this.modules.has(c.id) && this.sides(c).some((p) => this.nets.netOf.get(p) === net))
            this.add("ohmsWatch", "ohmmeter", [`${d.id}:out`], d.id, off([c.id]));
        return;
      }
      case "ground":
        this.add("voltage", "voltmeter", [d.id], d.id, on());
        this.add("look", "none", [d.id], d.id, on());
        this.add("wiggle", "none", [d.id], d.id, on());
        return;
      case "splice":
        this.add("look", "none", [d.id], d.id, on());
        this.add("wiggle", "none", [d.id], d.id, on());
        return;
      case "switch":
        for (const end of ["in", "out"]) this.add("voltage", "voltmeter", [`${d.id}:${end}`], d.id, on());
        return;
      case "battery":
        for (const key of ["on", "running"] as const)
          this.add("voltage", "voltmeter", [`${d.id}:+`], d.id, { key, unplugged: [] });
        return;
      default:
        return;
    }
  }

  private scans(pins: readonly { readonly role: string; readonly at: string }[]): void {
    for (const p of pins) if (this.isShown(p.at)) this.add("scan", "scanTool", [p.at], "", on(), this.shownFor(p.at));
  }
  private isShown(pin: string): boolean {
    return this.predictor.placeOf("scanTool", pin) !== undefined && this.shownFor(pin).length > 0;
  }
  /** the sensors whose value a module's pin is: what a scan tool lists it under */
  private shownFor(pin: string): string[] {
    const net = this.nets.netOf.get(pin);
    return this.wiring.devices.flatMap((d) =>
      SHOWN_KINDS.has(d.kind) &&
      devicePins(d).some((p) => this.nets.netOf.get(p.at) === net && p.role.startsWith("signal"))
        ? [d.id]
        : [],
    );
  }

  /** parts of the same kind and pins that could change places; never on restraint or high-voltage circuits */
  private swaps(): void {
    const parts = this.wiring.devices.filter((d) => SHOWN_KINDS.has(d.kind) || TURNING_KINDS.has(d.kind));
    parts.forEach((a, i) => {
      if (isNeverProbed(a) || deviceConnectors(a).some((c) => this.barred.has(c))) return;
      for (const b of parts.slice(i + 1)) {
        if (
          a.kind !== b.kind ||
          isNeverProbed(b) ||
          deviceConnectors(b).some((c) => this.barred.has(c)) ||
          !isTwin(a, b)
        )
          continue;
        this.add("swap", "none", [a.id, b.id], deviceConnectors(a)[0]!, on(), [
          ...deviceConnectors(a),
          ...deviceConnectors(b),
        ]);
      }
    });
  }

  private isWired(point: string): boolean {
    this.wired ??= new Set(this.wiring.wires.flatMap((w) => [w.from, w.to]));
    return this.wired.has(point);
  }
  private wired: ReadonlySet<string> | undefined;
  private sides(c: Connector): string[] {
    return c.cavities.flatMap((cavity) =>
      c.inline ? [`${c.id}:${cavity}.a`, `${c.id}:${cavity}.b`] : [`${c.id}:${cavity}`],
    );
  }
}

/** The same part twice: the same number, where numbers are known; else the same name but for the side it is on. */
export function isTwin(a: Device, b: Device): boolean {
  if (a.kind !== b.kind) return false;
  if (a.partNumber !== undefined || b.partNumber !== undefined)
    return (
      a.partNumber !== undefined &&
      b.partNumber !== undefined &&
      (a.partNumber === b.partNumber ||
        (a.alsoNumbers ?? []).includes(b.partNumber) ||
        (b.alsoNumbers ?? []).includes(a.partNumber))
    );
  return a.name !== undefined && b.name !== undefined && a.side !== b.side && sideless(a) === sideless(b);
}
/** "port oil pressure sensor" on the port side is an oil pressure sensor */
const sideless = (d: Device) =>
  d.side
    ? d
        .name!.toLowerCase()
        .split(" ")
        .filter((word) => !d.side!.toLowerCase().split(" ").includes(word))
        .join(" ")
    : d.name!.toLowerCase();
