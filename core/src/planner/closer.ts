import { DEFAULTS } from "../defaults.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Fault } from "../faults/fault.js";
import { testId } from "../format/candidateId.js";
import type { Instrument, State } from "../format/case.js";
import type { Wire } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import type { Predictor } from "../prediction/predictor.js";
import { benchValues } from "../instruments/benchValues.js";
import { findNets, type Nets } from "../wiring/nets.js";
import { connectorOf, deviceConnectors, devicePins, indexWiring, wireId, type Index } from "../wiring/points.js";
import { barredConnectors, isNeverProbed } from "../wiring/safety.js";
import type { Candidate } from "./candidate.js";
import type { CandidateKind } from "./candidateKind.js";
import { Cost, positionOf, price } from "./cost.js";

/** So many of the places in question are looked at closer. Judgement: more than a person would go to one by one. */
const PLACES = 12;
/** A place with less than this is not worth a test of its own. Judgement. */
const WORTH_A_TEST = 0.01;
/** Closer tests come once the places in question hold this much together. Judgement: before, they are too many. */
const NARROWED = 0.8;
/** A lamp in a fuse's place lets a short draw what a clamp sees, and no more than the wire carries, watt. */
const FUSE_LAMP_WATT = 21;
/** A clamp is put around so many branches at most. */
const BRANCHES = 10;

const ON: State = { key: "on", unplugged: [] };

/**
 * Tests at the very places still in question, once few are left: ohms through a terminal of an in-line plug or a leg of
 * a splice; the drop over a wire under its own current, ohms from
 * one of its ends to the other or to the wire it may touch, looking along it, the clamp on each branch of a short that
 * is fed through a lamp in the fuse's place, a part by itself, a module's plug without the module, whether a module
 * follows when its sensor's plug is jumpered high.
 * @param posterior what is believed: says which places are in question
 */
export function closerTests(predictor: Predictor, folded: Folded, posterior: Posterior): Candidate[] {
  const places = placesInQuestion(predictor, posterior);
  if (places.length === 0) return [];
  return new Closer(predictor, folded).all(places);
}

interface Place {
  readonly id: string;
  readonly faults: readonly Fault[];
}

/** Places that hold something, the likeliest first; none while they are too many. */
function placesInQuestion(predictor: Predictor, posterior: Posterior): Place[] {
  const by = new Map<string, { share: number; faults: Fault[] }>();
  let causes = 0;
  for (const w of posterior.components) {
    const { faults } = predictor.hypotheses[w.hypothesis]!;
    if (faults.length) causes += w.share;
    for (const fault of faults) {
      const known = by.get(fault.place.id) ?? { share: 0, faults: [] };
      known.share += w.share;
      known.faults.push(fault);
      by.set(fault.place.id, known);
    }
  }
  const list = [...by]
    .filter(([, p]) => p.share >= WORTH_A_TEST)
    .sort((a, b) => b[1].share - a[1].share)
    .slice(0, PLACES);
  const held = list.reduce((sum, [, p]) => sum + p.share, 0);
  return list.length > 1 && held >= NARROWED * causes ? list.map(([id, { faults }]) => ({ id, faults })) : [];
}

const SHORTS: ReadonlySet<Fault["mode"]> = new Set<Fault["mode"]>(["shortToChassis", "shortToSupply", "shortToWire"]);

class Closer {
  private readonly index: Index;
  private readonly nets: Nets;
  private readonly barred: ReadonlySet<string>;
  private readonly wires: ReadonlyMap<string, Wire>;
  private readonly cost: Cost;
  private readonly from;
  private readonly found = new Map<string, Candidate>();

  constructor(
    private readonly predictor: Predictor,
    private readonly folded: Folded,
  ) {
    const { wiring } = predictor;
    this.index = indexWiring(wiring);
    this.nets = findNets(wiring);
    this.barred = barredConnectors(wiring);
    this.wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
    this.cost = new Cost(wiring);
    this.from = positionOf(folded);
  }

  all(places: readonly Place[]): Candidate[] {
    for (const place of places) {
      const wire = this.wires.get(place.id);
      if (wire) this.atWire(wire, place.faults);
      else {
        this.atPart(place);
        this.throughContact(place);
      }
      for (const f of place.faults)
        if (f.place.type === "module" && f.at !== undefined) this.withoutModule(f.at);
        else if (f.place.type === "cavity" && this.moduleOn(connectorOf(f.place.id))) this.withoutModule(f.place.id);
    }
    this.drawnHigh(new Set(places.flatMap((p) => p.faults.flatMap((f) => [p.id, f.place.id, f.at ?? ""]))));
    return [...this.found.values()];
  }

  private atWire(wire: Wire, faults: readonly Fault[]): void {
    const id = wireId(wire);
    const ends = [wire.from, wire.to];
    if (ends.some((p) => this.isGuarded(connectorOf(p)))) return;
    const near = ends
      .map(connectorOf)
      .reduce((a, b) => (this.cost.reach(b, this.from) < this.cost.reach(a, this.from) ? b : a));
    this.add({ kind: "look", instrument: "none", points: [id], state: ON, at: near });
    if (faults.some((f) => !SHORTS.has(f.mode))) {
      if (ends.every((p) => this.canTouch(p)))
        this.add({ kind: "drop", instrument: "voltmeter", ...this.downhill(wire), state: ON });
      this.ohms(wire.from, wire.to);
    }
    for (const f of faults) {
      const other = f.mode === "shortToWire" ? this.wires.get(f.at ?? "") : undefined;
      if (other) this.ohms(this.plugEnd(wire), this.plugEnd(other));
    }
    if (faults.some((f) => f.mode === "shortToChassis")) this.branches(wire);
  }

  /** The leads so that a sound wire's drop, however small, reads above zero. */
  private downhill({ from, to }: Wire): { readonly points: readonly string[]; readonly black: string } {
    const across = { instrument: "voltmeter" as const, point: from, black: to, state: ON };
    const isFall = this.predictor.predictAt(0, across).at(0) >= 0;
    return isFall ? { points: [from], black: to } : { points: [to], black: from };
  }

  /** Ohms between two cavities, both plugs off. */
  private ohms(red: string | undefined, black: string | undefined): void {
    if (red === undefined || black === undefined) return;
    const plugs = [...new Set([red, black].map(connectorOf))];
    if (!plugs.every((p) => this.canUnplug(p))) return;
    this.add({
      kind: "ohmsBetween",
      instrument: "ohmmeter",
      points: [red],
      black,
      state: { key: "off", unplugged: plugs.sort() },
    });
  }

  /**
   * A terminal of an in-line plug, or a leg of a splice, that may not conduct: ohms through it, from what is plugged on
   * one side to what is plugged on the other, both taken off.
   */
  private throughContact({ id, faults }: Place): void {
    if (faults.every((f) => SHORTS.has(f.mode))) return;
    for (const f of faults) {
      const leg = f.place.type === "splice" ? this.wires.get(f.at ?? "") : undefined;
      if (leg) this.ohms(this.plugEnd(leg), this.beyond(id, leg));
    }
    if (!this.index.connectors.get(connectorOf(id))?.inline) return;
    const [one, other] = [`${id}.a`, `${id}.b`].map((side) => {
      const wire = this.predictor.wiring.wires.find((w) => w.from === side || w.to === side);
      if (!wire) return undefined;
      const end = wire.from === side ? wire.to : wire.from;
      return this.canUnplug(connectorOf(end)) ? end : this.beyond(end, wire);
    });
    this.ohms(one, other);
  }
  /** The nearest cavity, but by this wire, from which a splice is reached. */
  private beyond(splice: string, without: Wire): string | undefined {
    const ends = this.predictor.wiring.wires.flatMap((w) =>
      w !== without && (w.from === splice || w.to === splice) ? [w.from === splice ? w.to : w.from] : [],
    );
    const reach = (end: string) => this.cost.reach(connectorOf(end), this.from);
    return ends.filter((e) => this.canUnplug(connectorOf(e))).sort((a, b) => reach(a) - reach(b))[0];
  }

  /** A fuse that a short melts: a lamp in its place, and the clamp on each branch of what it feeds. */
  private branches(wire: Wire): void {
    const net = this.nets.netOf.get(wire.from) ?? this.nets.netOf.get(wire.to);
    const fuse = this.predictor.wiring.devices.find(
      (d) => d.kind === "fuse" && this.nets.netOf.get(`${d.id}:out`) === net,
    );
    if (net === undefined || !fuse || isNeverProbed(fuse)) return;
    const state: State = {
      ...ON,
      pulled: [fuse.id],
      loads: [{ from: `${fuse.id}:in`, to: `${fuse.id}:out`, watt: FUSE_LAMP_WATT }],
    };
    let count = 0;
    for (const w of this.predictor.wiring.wires) {
      if (this.nets.netOf.get(w.from) !== net || count >= BRANCHES) continue;
      if ([w.from, w.to].some((p) => this.isGuarded(connectorOf(p)))) continue;
      count++;
      const at = connectorOf(w.from);
      this.add({ kind: "branchCurrent", instrument: "clamp", points: [wireId(w)], state, at });
    }
  }

  private atPart({ id }: Place): void {
    const device = this.index.devices.get(id);
    const plugs = device ? deviceConnectors(device) : [];
    if (!device || device.kind === "module" || isNeverProbed(device) || !plugs.every((p) => this.canUnplug(p))) return;
    for (const v of benchValues(device, this.predictor.wiring.nominalVolt))
      this.add({
        kind: "bench",
        instrument: "ohmmeter",
        points: [v.red],
        black: v.black,
        part: "removed",
        state: { key: "off", unplugged: [...plugs].sort() },
        at: plugs[0]!,
      });
  }

  /** What the harness shows at a module's plug once the module is off it: the module's own doing is then out of it. */
  private withoutModule(pin: string): void {
    const plug = connectorOf(pin);
    if (!this.canUnplug(plug)) return;
    this.add({
      kind: "voltageUnplugged",
      instrument: "voltmeter",
      points: [pin],
      state: { key: "on", unplugged: [plug] },
    });
    this.add({ kind: "ohms", instrument: "ohmmeter", points: [pin], state: { key: "off", unplugged: [plug] } });
  }

  /**
   * With a sensor unplugged its signal is drawn to the reference beside it through 1 kΩ: a sound wire and a sound input
   * follow, so that the sensor or its terminals are left.
   */
  private drawnHigh(concerned: ReadonlySet<string>): void {
    for (const device of this.predictor.wiring.devices) {
      if (device.kind === "module" || isNeverProbed(device)) continue;
      const pins = devicePins(device);
      const at = (role: string) => pins.find((p) => p.role === role)?.at;
      const [signal, supply] = [at("signal"), at("supply")];
      if (signal === undefined || supply === undefined || this.nets.functionOf(supply) !== "reference") continue;
      const pin = this.nets.modulePinOf(signal);
      const plug = connectorOf(signal);
      if (pin === undefined || connectorOf(supply) !== plug || !this.canUnplug(plug)) continue;
      if (![device.id, signal, supply, pin, plug].some((t) => concerned.has(t))) continue;
      if (this.predictor.placeOf("scanTool", pin) === undefined) continue;
      const jumpers = [{ from: signal, to: supply, ohm: DEFAULTS.jumperOhm }];
      const state: State = { key: "on", unplugged: [plug], jumpers };
      this.add({ kind: "jumper", instrument: "scanTool", points: [pin], state, at: plug });
    }
  }

  private moduleOn(plug: string): boolean {
    return this.predictor.wiring.devices.some((d) => d.kind === "module" && deviceConnectors(d).includes(plug));
  }
  private plugEnd(w: Wire): string | undefined {
    return [w.from, w.to].find((p) => this.canUnplug(connectorOf(p)));
  }
  private isGuarded(id: string): boolean {
    const device = this.index.devices.get(id);
    return this.barred.has(id) || (device !== undefined && isNeverProbed(device));
  }
  private canTouch(point: string): boolean {
    const id = connectorOf(point);
    if (this.isGuarded(id)) return false;
    return this.index.connectors.get(id)?.backProbe ?? this.index.devices.has(id);
  }
  private canUnplug(plug: string): boolean {
    return this.index.connectors.has(plug) && !this.isGuarded(plug);
  }

  private add(
    step: {
      readonly kind: CandidateKind;
      readonly instrument: Instrument | "none";
      readonly points: readonly string[];
      readonly state: State;
      readonly at?: string;
    } & Pick<Candidate, "black" | "part">,
  ): void {
    const { tools, scanShows } = this.folded.intake?.entry ?? {};
    const needed = NEEDED[step.instrument] ?? METER;
    if (tools && !needed.every((t) => tools.includes(t))) return;
    if (step.instrument === "scanTool" && scanShows && !step.points.some((p) => scanShows.includes(p))) return;
    const id = testId(step.kind, step.points, step.state, step.black);
    if (this.found.has(id) || this.folded.setAside.has(id) || this.folded.lacking.has(step.kind)) return;
    this.found.set(id, price({ at: connectorOf(step.points[0]!), ...step, id }, this.cost, this.from));
  }
}
const METER = ["meter"] as const;
type Tool = "meter" | "clamp" | "testLamp" | "scanTool";
const NEEDED: Partial<Record<Instrument | "none", readonly Tool[]>> = {
  none: [],
  clamp: ["clamp", "testLamp"],
  scanTool: ["scanTool"],
};
