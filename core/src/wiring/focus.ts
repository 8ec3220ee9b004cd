import type { Connector, Device, Wire, Wiring } from "../format/wiring.js";
import { isPeripheral, STAR_KINDS, TERMINALS } from "./kinds.js";
import { findNets, type NetFunction, type Nets } from "./nets.js";
import { connectorOf, devicePins } from "./points.js";

/**
 * The part of a wiring that some places are about: the modules they belong to with everything on their conductors, the
 * modules and parts that share a conductor with those, and the feeds and grounds of them all. What is left out is
 * joined to them only through the battery, the chassis, a fuse of its own or another module, and is taken not to
 * disturb them.
 * @param named connectors, parts, wires or points that must be in it
 * @returns a wiring document of the same machine; `checkWiring` finds nothing missing in it
 */
export function focusOn(wiring: Wiring, named: Iterable<string>): Wiring {
  return new Focusing(wiring, named).document();
}

/** Kinds whose two sides stand at the same voltage while they conduct, and which have no fuse's worth of resistance. */
const CONDUCTS: ReadonlySet<Device["kind"]> = new Set(["switch"]);
const SHARED: ReadonlySet<NetFunction> = new Set(["bus", "feed", "ground"]);
const SOURCES: ReadonlySet<Device["kind"]> = new Set(["battery", "alternator"]);

class Focusing {
  private readonly nets: Nets;
  /** nets of battery and alternator terminals: stiff, so that nothing is told over them */
  private readonly stiff = new Set<number>();
  /** nets in reach of what is named, over closed contacts */
  private readonly near = new Set<number>();
  /** modules at which something is named keep every pin: that nothing is wrong there is evidence too */
  private readonly full = new Set<string>();
  private readonly named: ReadonlySet<string>;
  private readonly devices: ReadonlyMap<string, Device>;
  private readonly owners = new Map<string, Device[]>();

  constructor(
    private readonly wiring: Wiring,
    named: Iterable<string>,
  ) {
    this.nets = findNets(wiring);
    this.named = this.withWires(named);
    for (const d of wiring.devices)
      for (const c of new Set([d.id, ...devicePins(d).map((p) => connectorOf(p.at))]))
        this.owners.set(c, [...(this.owners.get(c) ?? []), d]);
    for (const d of wiring.devices)
      if (SOURCES.has(d.kind)) for (const end of this.endsOf(d)) this.addNet(this.stiff, end);
    this.reach();
    this.devices = this.fed(new Map(wiring.devices.filter((d) => this.isKept(d)).map((d) => [d.id, d])));
  }

  document(): Wiring {
    const { wiring } = this;
    const devices = wiring.devices.flatMap((d) => {
      const kept = this.devices.get(d.id);
      return kept ? [this.withKnownOnly(kept)] : [];
    });
    const pins = new Set(devices.flatMap((d) => devicePins(d).map((p) => p.at)));
    const wires = this.wiresBetween(pins);
    const ends = new Set([...pins, ...wires.flatMap((w) => [w.from, w.to])]);
    const grounded = devices.filter((d) => !STAR_KINDS.has(d.kind) || ends.has(d.id));
    const connectors = wiring.connectors.flatMap((c) => cavitiesAmong(c, ends));
    const things = new Set([...grounded.map((d) => d.id), ...connectors.map((c) => c.id)]);
    return {
      ...wiring,
      devices: grounded,
      wires,
      connectors: connectors.map((c) => withKnownAlikes(c, things)),
      codes: wiring.codes.filter(
        (c) =>
          things.has(c.module) &&
          (c.about === undefined || things.has(c.about)) &&
          (!c.monitor ||
            (c.monitor.type === "silent"
              ? things.has(c.monitor.node)
              : pins.has(c.monitor.at) && (c.monitor.type !== "disagree" || pins.has(c.monitor.other)))),
      ),
      ...(wiring.claims ? { claims: wiring.claims.filter((c) => ends.has(c.at) || things.has(c.at)) } : {}),
      ...(wiring.guesses ? { guesses: wiring.guesses.filter((g) => ends.has(g) || things.has(g)) } : {}),
    };
  }

  /** wires named by their ids, or by the bundle they run in, stand for their ends */
  private withWires(named: Iterable<string>): Set<string> {
    const all = new Set(named);
    for (const w of this.wiring.wires)
      if ((w.id !== undefined && all.has(w.id)) || (w.bundle !== undefined && all.has(w.bundle)))
        for (const end of [w.from, w.to]) all.add(end);
    return all;
  }
  private isNamed(d: Device): boolean {
    return this.named.has(d.id) || devicePins(d).some((p) => this.named.has(p.at) || this.named.has(connectorOf(p.at)));
  }
  private endsOf(d: Device): readonly string[] {
    if (STAR_KINDS.has(d.kind)) return [d.id];
    return TERMINALS[d.kind]?.map((t) => `${d.id}:${t}`) ?? devicePins(d).map((p) => p.at);
  }
  private netOf(point: string): number | undefined {
    return this.nets.netOf.get(point);
  }
  private addNet(to: Set<number>, point: string): void {
    const net = this.netOf(point);
    if (net !== undefined) to.add(net);
  }

  /** Nets of all pins of what is named, of modules at named points, and on from there over contacts that close. */
  private reach(): void {
    const { near, stiff, wiring } = this;
    const start = (points: Iterable<string>) => {
      for (const p of points) {
        const net = this.netOf(p);
        if (net !== undefined && !stiff.has(net)) near.add(net);
      }
    };
    start([...this.nets.netOf.keys()].filter((p) => this.named.has(p) || this.named.has(connectorOf(p))));
    const read = new Set(near);
    const full = wiring.devices.filter(
      (d) => this.isNamed(d) || (d.kind === "module" && devicePins(d).some((p) => this.isOwn(p.at, read))),
    );
    for (const d of full) {
      this.full.add(d.id);
      start(this.endsOf(d));
    }
    for (let grown = true; grown;) {
      const before = near.size;
      for (const d of wiring.devices) {
        const ends = contactEnds(d);
        if (ends.some((e) => this.isNear(e))) start(ends);
      }
      grown = near.size > before;
    }
  }
  /** Whether a pin is on one of these conductors, and that conductor is no bus, feed or ground of many modules. */
  private isOwn(pin: string, nets: ReadonlySet<number>): boolean {
    const net = this.netOf(pin);
    return net !== undefined && nets.has(net) && !SHARED.has(this.nets.functionOf(pin));
  }
  private isNear(point: string): boolean {
    const net = this.netOf(point);
    return net !== undefined && this.near.has(net);
  }

  /** Modules and parts on a near conductor; of what feeds and grounds, everything for now. */
  private isKept(d: Device): boolean {
    return (isPeripheral(d) || d.kind === "module") && !this.isNamed(d)
      ? this.endsOf(d).some((e) => this.isNear(e))
      : true;
  }

  /** Without fuses, relays, contacts and splices that lead to nothing kept. */
  private fed(kept: Map<string, Device>): Map<string, Device> {
    for (;;) {
      const hanging = new Map<number, number>();
      const count = (point: string) => {
        const net = this.netOf(point);
        if (net !== undefined) hanging.set(net, (hanging.get(net) ?? 0) + 1);
      };
      for (const d of kept.values()) if (!STAR_KINDS.has(d.kind)) this.endsOf(d).forEach(count);
      const leadsOn = (end: string) => (hanging.get(this.netOf(end) ?? -1) ?? 0) > 1;
      const idle = [...kept.values()].filter((d) => {
        if (this.isNamed(d) || SOURCES.has(d.kind) || STAR_KINDS.has(d.kind)) return false;
        const ends = d.kind === "relay" ? contactEnds(d) : TERMINALS[d.kind] ? this.endsOf(d) : undefined;
        return ends !== undefined && ends.filter(leadsOn).length < 2;
      });
      if (idle.length === 0) return kept;
      for (const d of idle) kept.delete(d.id);
    }
  }

  /** A module without the pins that lead to nothing kept; nothing refers to what is left out. */
  private withKnownOnly(d: Device): Device {
    const known = { ...d, ...(d.lookAlikes ? { lookAlikes: d.lookAlikes.filter((x) => this.isThere(x)) } : {}) };
    if ("follows" in known && known.follows !== undefined && !this.devices.has(known.follows)) delete known.follows;
    if (known.kind !== "module" || this.full.has(d.id)) return known;
    const pins = known.pins.filter((p) => BOX_ROLES.has(p.role) || this.isNear(p.at));
    return { ...known, pins: pins.length ? pins : known.pins };
  }
  private isThere(thing: string): boolean {
    return (this.owners.get(thing) ?? []).some((d) => this.devices.has(d.id));
  }

  /** Wires that still join two things: a branch that ends at nothing is left out, leg by leg. */
  private wiresBetween(pins: ReadonlySet<string>): Wire[] {
    const anchors = new Set(pins);
    for (const d of this.devices.values()) if (d.kind !== "splice") for (const e of this.endsOf(d)) anchors.add(e);
    for (const x of this.named) anchors.add(x);
    const inLine = new Set(this.wiring.connectors.flatMap((c) => (c.inline ? [c.id] : [])));
    const other = (end: string) =>
      inLine.has(connectorOf(end)) ? end.replace(/\.([ab])$/, (_, side) => (side === "a" ? ".b" : ".a")) : undefined;
    const exists = (end: string) => {
      const owners = this.owners.get(connectorOf(end));
      return !owners || owners.some((d) => this.devices.has(d.id));
    };
    let wires = this.wiring.wires.filter((w) => exists(w.from) && exists(w.to));
    for (;;) {
      const degree = new Map<string, number>();
      for (const w of wires) for (const e of [w.from, w.to]) degree.set(e, (degree.get(e) ?? 0) + 1);
      const ends = (e: string) => {
        if (anchors.has(e) || anchors.has(connectorOf(e))) return true;
        const beyond = other(e);
        if (beyond !== undefined) return degree.has(beyond);
        return (degree.get(e) ?? 0) > 1;
      };
      const left = wires.filter((w) => ends(w.from) && ends(w.to));
      if (left.length === wires.length) return left;
      wires = left;
    }
  }
}

/** Pins by which a module is awake and heard. */
const BOX_ROLES: ReadonlySet<string> = new Set(["supply", "ground", "busHigh", "busLow", "busLine"]);

/** The ends of a contact that may close. */
function contactEnds(d: Device): readonly string[] {
  if (CONDUCTS.has(d.kind)) return TERMINALS[d.kind]!.map((t) => `${d.id}:${t}`);
  if (d.kind !== "relay") return [];
  return [d.pins.common, d.pins.working, d.pins.resting].filter((p) => p !== undefined);
}
function cavitiesAmong(c: Connector, ends: ReadonlySet<string>): Connector[] {
  const at = (cavity: string) => `${c.id}:${cavity}`;
  const cavities = c.cavities.filter(
    (x) => ends.has(at(x)) || (c.inline && (ends.has(`${at(x)}.a`) || ends.has(`${at(x)}.b`))),
  );
  return cavities.length ? [{ ...c, cavities }] : [];
}
const withKnownAlikes = (c: Connector, things: ReadonlySet<string>): Connector =>
  c.lookAlikes ? { ...c, lookAlikes: c.lookAlikes.filter((x) => things.has(x)) } : c;
