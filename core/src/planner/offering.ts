import { lookAlikes } from "../diagnosis/misplaced.js";
import { testId } from "../format/candidateId.js";
import type { Instrument, State } from "../format/case.js";
import type { Connector, Device, Wiring } from "../format/wiring.js";
import { drawnPartNumber } from "../logbook/seen.js";
import type { Predictor } from "../prediction/predictor.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { connectorOf, connectorPoints, deviceConnectors, devicePins } from "../wiring/points.js";
import { barredConnectors, isNeverProbed, isTwin } from "../wiring/safety.js";
import type { CandidateKind } from "./candidateKind.js";

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

/** Other cavities of a plug that a second channel is offered for. Judgement: time. */
const MOST_BESIDE = 3;

const off = (unplugged: string[] = []): State => ({ key: "off", unplugged });
const on = (unplugged: string[] = []): State => ({ key: "on", unplugged });

/** What a document offers, worked out once: every step, before what it costs from where one stands. */
export interface Offered {
  readonly id: string;
  readonly kind: CandidateKind;
  readonly instrument: Instrument | "none";
  readonly points: readonly string[];
  readonly at: string;
  readonly state: State;
  readonly touches: readonly string[];
}

const offers = new WeakMap<Predictor, readonly Offered[]>();

/** What a document offers; remembered with its predictor. */
export function offered(predictor: Predictor): readonly Offered[] {
  let list = offers.get(predictor);
  if (!list) offers.set(predictor, (list = new Offering(predictor).all()));
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
    for (const c of this.connectors) this.recordings(c);
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
    const id = testId(kind, points, state);
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
    for (const point of connectorPoints(c)) {
      if (this.nets.netOf.get(point) === undefined || !this.isWired(point)) continue;
      if (c.backProbe) {
        this.add("voltage", "voltmeter", [point], c.id, on());
        this.add("minMax", "voltmeter", [point], c.id, on());
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

  /**
   * Two channels of a recorder while the harness is moved: on one plug a signal and another cavity; on an in-line
   * connector both sides of one cavity.
   */
  private recordings(c: Connector): void {
    if (!c.backProbe || this.modules.has(c.id)) return;
    const points = connectorPoints(c).filter((p) => this.nets.netOf.get(p) !== undefined && this.isWired(p));
    for (const [a, b] of c.inline ? bothSides(points) : this.withSignals(points))
      this.add("record", "voltmeter", b === undefined ? [a] : [a, b], c.id, on());
  }
  private withSignals(points: readonly string[]): (readonly [string, string?])[] {
    if (points.length === 1) return [[points[0]!]];
    const signals = points.filter((p) => this.nets.functionOf(p) === "signal");
    const first = signals.length ? signals : points.slice(0, 1);
    const others = points.filter((p) => !first.includes(p));
    return first.flatMap((a, i) =>
      [...first.slice(i + 1), ...others].slice(0, MOST_BESIDE).map((b): readonly [string, string] => [a, b]),
    );
  }

  /**
   * unplug one device and watch a point on each conductor it shares, at another connector; or its own value in the scan
   * tool
   */
  private watches(c: Connector): void {
    const done = new Map<number, { point: string; reach: number }>();
    for (const point of connectorPoints(c)) {
      const net = this.nets.netOf.get(point);
      if (net === undefined || this.nets.functionOf(point) === "ground") continue;
      const pin = this.nets.modulePinOf(point);
      if (pin !== undefined && this.isShown(pin))
        this.add("scanWatch", "scanTool", [pin], "", on([c.id]), this.shownFor(pin));
      for (const other of this.connectors) {
        if (other.id === c.id || other.inline || !other.backProbe) continue;
        const there = connectorPoints(other).find((p) => this.nets.netOf.get(p) === net);
        const best = done.get(net);
        if (there !== undefined && (best === undefined || other.reachMinutes < best.reach))
          done.set(net, { point: there, reach: other.reachMinutes });
      }
    }
    for (const { point } of done.values()) this.add("watch", "voltmeter", [point], connectorOf(point), on([c.id]));
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
          if (!this.modules.has(c.id) && connectorPoints(c).some((p) => this.nets.netOf.get(p) === net))
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
    for (const kind of ["scan", "scanRecord"] as const)
      for (const p of pins) if (this.isShown(p.at)) this.add(kind, "scanTool", [p.at], "", on(), this.shownFor(p.at));
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
}

/** The two sides of each cavity of an in-line connector. */
function bothSides(points: readonly string[]): (readonly [string, string])[] {
  return points.flatMap((a) => {
    const b = a.endsWith(".a") ? `${a.slice(0, -2)}.b` : undefined;
    return b !== undefined && points.includes(b) ? [[a, b] as const] : [];
  });
}
