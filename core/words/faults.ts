import { indexWiring, wireId, type Fault, type FaultMode, type FaultPlace, type SuspectView, type Wiring } from "../src/index.js";

const MODES: Readonly<Record<FaultMode, string>> = {
  open: "open", highResistance: "high resistance", shortToChassis: "chafed through to chassis", shortToSupply: "touching a battery feed",
  contactOpen: "not making contact", contactHighResistance: "corroded or spread",
  legOpen: "one leg open", legHighResistance: "one leg with high resistance", spliceHighResistance: "corroded",
  groundOpen: "open", groundHighResistance: "corroded or loose", fuseBlown: "blown", fuseHighResistance: "poor contact",
  switchOpen: "does not close", switchHighResistance: "burnt contact",
  shortSupplyGround: "shorted inside, supply to ground", shortSignalGround: "shorted inside, signal to ground", shortSignalSupply: "shorted inside, signal to supply",
  elementOpen: "open inside", dead: "no output", referenceDead: "reference dead", moduleUnpowered: "not working, though powered",
  sensorGroundOpen: "sensor ground open inside", inputShort: "input shorted inside",
};

/** Names of things as a technician says them: "boost pressure sensor B7", "splice S22 (sensor ground)", "wire S14 to X5 cavity 4". */
export class Namer {
  private readonly index;
  private readonly wires;
  constructor(wiring: Wiring) {
    this.index = indexWiring(wiring);
    this.wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
  }

  point(point: string): string {
    const [id = "", cavity = ""] = split(point);
    const sided = /^(.*)\.([ab])$/.exec(cavity);
    if (sided) return `${id} cavity ${sided[1]}, side ${sided[2]}`;
    if (this.index.connectors.has(id) && cavity) return `${id} cavity ${cavity}`;
    const device = this.index.devices.get(id);
    if (device && cavity) return device.kind === "battery" ? `battery ${cavity === "+" ? "positive" : "negative"}` : `${device.kind} ${id}, ${cavity} side`;
    return device ? `${device.kind} ${id}` : point;
  }
  connector(id: string): string {
    const name = this.index.connectors.get(id)?.name;
    return name ? `${id} (${name})` : id;
  }
  device(id: string): string {
    const d = this.index.devices.get(id);
    if (!d) return id;
    if (d.kind === "splice") return `splice ${id}${d.name ? ` (${d.name})` : ""}`;
    return d.name ? `${d.name} ${id}` : `${SHORT_KIND[d.kind] ?? d.kind} ${id}`;
  }
  wire(id: string): string {
    const w = this.wires.get(id);
    return w ? `wire from ${short(w.from)} to ${short(w.to)}${w.colour ? `, ${w.colour}` : ""}` : `wire ${id}`;
  }
  place(place: FaultPlace): string {
    if (place.type === "wire") return this.wire(place.id);
    if (place.type === "cavity") return `terminal in ${this.point(place.id)}`;
    return this.device(place.id);
  }
  /** a place as short as a technician would say it with the map in view: "B7", "wire B7:1–S14", "terminal X5:4" */
  short(place: FaultPlace): string {
    if (place.type === "cavity") return `terminal ${place.id}`;
    if (place.type !== "wire") return place.id;
    const w = this.wires.get(place.id);
    return w ? `wire ${short(w.from)}–${short(w.to)}` : `wire ${place.id}`;
  }
  /** one fault in full: "oil pressure sensor B9 shorted inside, supply to ground" */
  fault(fault: Pick<Fault, "mode" | "place" | "at">): string {
    const text = MODES[fault.mode];
    if (fault.mode === "legOpen" || fault.mode === "legHighResistance") return `${this.place(fault.place)}, leg to ${this.farEnd(fault.at ?? "", fault.place.id)} ${fault.mode === "legOpen" ? "open" : "with high resistance"}`;
    if (fault.place.type === "module" && fault.at !== undefined) return `${this.place(fault.place)}, ${text} at ${this.point(fault.at)}`;
    return `${this.place(fault.place)} ${text}`;
  }
  /** what the mode says of the place, without naming it */
  mode(fault: Pick<Fault, "mode">): string { return MODES[fault.mode]; }
  /** a suspect: its strongest fault, and what else cannot be told from it */
  suspect(s: Pick<SuspectView, "type" | "places" | "members">): { title: string; detail: string } {
    if (s.type === "nothing") return { title: "Nothing wrong right now", detail: "a fault that comes and goes, or none" };
    if (s.type === "notHere") return { title: "Not in this wiring", detail: "another drawing, another component, or more than one fault" };
    const lead = s.members[0];
    const others = s.places.filter((p) => p.type !== lead?.fault.place.type || p.id !== lead.fault.place.id);
    const modes = [...new Set(s.members.filter((m) => m.fault.place.id === lead?.fault.place.id && m !== lead && m.share > 0.1 * (lead?.share ?? 1)).map((m) => MODES[m.fault.mode]))];
    const detail = others.length ? `or ${others.map((p) => this.short(p)).join(", ")}: no reading on offer tells them apart` : modes.length ? `or ${modes.join(", or ")}` : "";
    return { title: lead ? this.fault(lead.fault) : "", detail };
  }
  private farEnd(wire: string, from: string): string {
    const w = this.wires.get(wire);
    return w ? short(w.from === from ? w.to : w.from) : wire;
  }
}

const SHORT_KIND: Readonly<Record<string, string>> = { threeWireSensor: "sensor", potentiometer: "position sensor", thermistor: "temperature sensor", hall: "speed sensor" };
const split = (point: string) => { const i = point.indexOf(":"); return i < 0 ? [point] : [point.slice(0, i), point.slice(i + 1)]; };
const short = (point: string) => point.replace(/\.[ab]$/, "");
