import {
  indexWiring,
  STORED_UNITS,
  wireId,
  type Fault,
  type FaultMode,
  type FaultPlace,
  type SuspectView,
  type Units,
  type Wiring,
} from "../src/index.js";

const MODES: Readonly<Record<FaultMode, string>> = {
  open: "open",
  highResistance: "high resistance",
  shortToChassis: "shorted to ground (chafed)",
  shortToSupply: "touching a battery feed",
  contactOpen: "not making contact",
  contactHighResistance: "corroded or spread",
  legOpen: "one leg open",
  legHighResistance: "one leg with high resistance",
  spliceHighResistance: "corroded",
  groundOpen: "open",
  groundHighResistance: "corroded or loose",
  fuseBlown: "blown",
  fuseHighResistance: "poor contact",
  switchOpen: "does not close",
  switchHighResistance: "burnt contact",
  shortSupplyGround: "shorted inside, supply to ground",
  shortSignalGround: "shorted inside, signal to ground",
  shortSignalSupply: "shorted inside, signal to supply",
  fewStrands: "hanging by a few strands",
  shortToWire: "chafed onto the wire beside it",
  contactFilm: "oily film on the contact",
  cavitiesBridged: "fluid bridging two cavities",
  cavitiesSwapped: "two cavities swapped",
  unseated: "not seated",
  relayCoilOpen: "coil open",
  relayContactOpen: "contact does not close",
  relayContactHighResistance: "burnt contact",
  relayStuck: "contact welded shut",
  shortInside: "shorted inside",
  biased: "reads wrong",
  wrongPart: "wrong look-alike part",
  targetDamaged: "target or tooth damaged",
  gapTooLarge: "air gap too large",
  trueCondition: "is right: the machine really is out of range",
  referenceWeak: "reference weak",
  referenceResistive: "reference behind a high resistance inside",
  moduleGroundOpen: "ground open inside",
  driverDead: "driver dead",
  driverStuck: "driver stuck on",
  busDriverDead: "does not talk on the bus",
  supplyLow: "low",
  supplyHigh: "charging too high",
  elementOpen: "open inside",
  dead: "no output",
  referenceDead: "reference dead",
  moduleUnpowered: "not working, though powered",
  sensorGroundOpen: "sensor ground open inside",
  inputShort: "input shorted inside",
};

/**
 * Names of things as a technician says them: "boost pressure sensor B7", "splice S22 (sensor ground)", "wire S14 to X5
 * cavity 4".
 */
export class Namer {
  private readonly index;
  private readonly wires;
  /** @param units in which lengths and the like are said */
  constructor(
    private readonly wiring: Wiring,
    readonly units: Units = STORED_UNITS,
  ) {
    this.index = indexWiring(wiring);
    this.wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
  }

  withUnits(units: Units): Namer {
    return new Namer(this.wiring, units);
  }
  point(point: string): string {
    const [id = "", cavity = ""] = split(point);
    const sided = /^(.*)\.([ab])$/.exec(cavity);
    if (sided) return `${id} cavity ${sided[1]}, side ${sided[2]}`;
    if (this.index.connectors.has(id) && cavity) return `${id} cavity ${cavity}`;
    const device = this.index.devices.get(id);
    if (device && cavity)
      return device.kind === "battery"
        ? `battery ${cavity === "+" ? "positive" : "negative"}`
        : `${device.kind} ${id}, ${cavity} side`;
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
  /** Whatever an entry names: a connector, cavity, wire, splice, ground, fuse or part. */
  thing(id: string): string {
    if (this.wires.has(id)) return this.wire(id);
    if (id.includes(":")) return this.point(id);
    return this.index.connectors.has(id) && !this.index.devices.has(id)
      ? `connector ${this.connector(id)}`
      : this.device(id);
  }
  place(place: FaultPlace): string {
    if (place.type === "wire") return this.wire(place.id);
    if (place.type === "cavity") return `terminal in ${this.point(place.id)}`;
    if (place.type === "connector") return `connector ${this.connector(place.id)}`;
    if (place.type === "machine") return `what ${this.device(place.id)} measures`;
    return this.device(place.id);
  }
  /** a place as short as a technician would say it with the map in view: "B7", "wire B7:1 to S14", "terminal X5:4" */
  short(place: FaultPlace): string {
    if (place.type === "cavity") return `terminal ${place.id}`;
    if (place.type === "connector") return `connector ${place.id}`;
    if (place.type === "machine") return `the machine at ${place.id}`;
    if (place.type !== "wire") return place.id;
    const w = this.wires.get(place.id);
    return w ? `wire ${short(w.from)} to ${short(w.to)}` : `wire ${place.id}`;
  }
  /** one fault in full: "oil pressure sensor B9 shorted inside, supply to ground" */
  fault(fault: Pick<Fault, "id" | "mode" | "place" | "at">): string {
    const text = MODES[fault.mode];
    if (fault.mode === "legOpen" || fault.mode === "legHighResistance")
      return (
        `${this.place(fault.place)}, leg to ${this.farEnd(fault.at ?? "", fault.place.id)} ` +
        `${fault.mode === "legOpen" ? "open" : "with high resistance"}`
      );
    if (fault.mode === "shortToWire") return `${this.place(fault.place)} chafed onto the ${this.wire(fault.at ?? "")}`;
    if (fault.mode === "cavitiesBridged" || fault.mode === "cavitiesSwapped")
      return (
        `${this.place(fault.place)}, ${fault.mode === "cavitiesBridged" ? "fluid bridging" : "swapped:"} ` +
        `cavities ${this.firstCavity(fault)} and ${fault.at ?? ""}`
      );
    if (fault.mode === "trueCondition")
      return `${this.device(fault.place.id)} is right: the machine really is out of range`;
    if (fault.mode === "targetDamaged") return `target or tooth at ${this.device(fault.place.id)} damaged`;
    if (fault.mode === "gapTooLarge") return `air gap at ${this.device(fault.place.id)} too large`;
    if (fault.place.type === "device" && fault.at !== undefined)
      return `${this.place(fault.place)}, ${SECOND[fault.at] ?? fault.at} ${text}`;
    if (fault.place.type === "module" && fault.at !== undefined)
      return `${this.place(fault.place)}, ${text} at ${this.point(fault.at)}`;
    return `${this.place(fault.place)} ${text}`;
  }
  /** what the mode says of the place, without naming it */
  mode(fault: Pick<Fault, "mode">): string {
    return MODES[fault.mode];
  }
  /** a suspect: its strongest fault, and what else cannot be told from it */
  suspect(s: Pick<SuspectView, "type" | "places" | "members">): { title: string; detail: string } {
    if (s.type === "several") {
      const lead = s.members[0];
      return {
        title: lead ? lead.faults.map((f) => this.fault(f)).join(", and ") : "",
        detail: lead ? `${lead.faults.length} faults at once` : "",
      };
    }
    if (s.type === "nothing")
      return { title: "Nothing wrong right now", detail: "a fault that comes and goes, or none" };
    if (s.type === "notHere")
      return { title: "Not in this wiring", detail: "another drawing, another component, or more than one fault" };
    const lead = s.members[0];
    const others = s.places.filter((p) => p.type !== lead?.fault.place.type || p.id !== lead.fault.place.id);
    const modes = [
      ...new Set(
        s.members
          .filter((m) => m.fault.place.id === lead?.fault.place.id && m !== lead && m.share > 0.1 * (lead?.share ?? 1))
          .map((m) => MODES[m.fault.mode]),
      ),
    ];
    const goes = lead && lead.intermittent > 0.5 * lead.share ? "it comes and goes" : "";
    const detail = others.length
      ? `or ${others.map((p) => this.short(p)).join(", ")}: no test here can separate these`
      : modes.length
        ? `or ${modes.join(", or ")}`
        : goes;
    return { title: lead ? this.fault(lead.fault) : "", detail };
  }
  /** where to go: the place of the thing, as far as the document says */
  where(place: FaultPlace): string {
    const id = place.type === "cavity" ? (split(place.id)[0] ?? "") : place.id;
    if (place.type === "wire") {
      const w = this.wires.get(id);
      return w ? `between ${this.point(w.from)} and ${this.point(w.to)}${w.bundle ? `, in ${w.bundle}` : ""}` : id;
    }
    return this.index.connectors.get(id)?.place ?? this.index.devices.get(id)?.place ?? this.place(place);
  }
  private firstCavity(fault: Pick<Fault, "id">): string {
    return (split(fault.id.slice(0, fault.id.lastIndexOf("/")))[1] ?? "").split("+")[0] ?? "";
  }
  private farEnd(wire: string, from: string): string {
    const w = this.wires.get(wire);
    return w ? short(w.from === from ? w.to : w.from) : wire;
  }
}

const SECOND: Readonly<Record<string, string>> = { "2": "second track", tracks: "the two tracks", bus: "bus lines" };
const SHORT_KIND: Readonly<Record<string, string>> = {
  threeWireSensor: "sensor",
  potentiometer: "position sensor",
  pedal: "pedal sensor",
  thermistor: "temperature sensor",
  hall: "speed sensor",
  coilSensor: "speed sensor",
  currentLoop: "current-loop sensor",
  smartSensor: "bus sensor",
};
const split = (point: string) => {
  const i = point.indexOf(":");
  return i < 0 ? [point] : [point.slice(0, i), point.slice(i + 1)];
};
const short = (point: string) => point.replace(/\.[ab]$/, "");
