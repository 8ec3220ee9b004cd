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
import { t } from "./messages/index.js";
import { worded } from "./language.js";

const MODES: Readonly<Record<FaultMode, string>> = worded(() => ({
  open: t("faults.open"),
  highResistance: t("faults.highResistance"),
  shortToChassis: t("faults.shortedToGroundChafed"),
  shortToSupply: t("faults.touchingABatteryFeed"),
  contactOpen: t("faults.notMakingContact"),
  contactHighResistance: t("faults.corrodedOrSpread"),
  legOpen: t("faults.oneLegOpen"),
  legHighResistance: t("faults.oneLegWithHighResistance"),
  spliceHighResistance: t("faults.corroded"),
  groundOpen: t("faults.open"),
  groundHighResistance: t("faults.corrodedOrLoose"),
  fuseBlown: t("faults.blown"),
  fuseHighResistance: t("faults.poorContact"),
  switchOpen: t("faults.doesNotClose"),
  switchHighResistance: t("faults.burntContact"),
  shortSupplyGround: t("faults.shortedInsideSupplyToGround"),
  shortSignalGround: t("faults.shortedInsideSignalToGround"),
  shortSignalSupply: t("faults.shortedInsideSignalToSupply"),
  fewStrands: t("faults.hangingByAFewStrands"),
  shortToWire: t("faults.chafedOntoTheWireBesideIt"),
  contactFilm: t("faults.oilyFilmOnTheContact"),
  cavitiesBridged: t("faults.fluidBridgingTwoCavities"),
  cavitiesSwapped: t("faults.twoCavitiesSwapped"),
  unseated: t("faults.notSeated"),
  relayCoilOpen: t("faults.coilOpen"),
  relayContactOpen: t("faults.contactDoesNotClose"),
  relayContactHighResistance: t("faults.burntContact"),
  relayStuck: t("faults.contactWeldedShut"),
  shortInside: t("faults.shortedInside"),
  biased: t("faults.readsWrong"),
  wrongPart: t("faults.wrongLookAlikePart"),
  targetDamaged: t("faults.targetOrToothDamaged"),
  gapTooLarge: t("faults.airGapTooLarge"),
  trueCondition: t("faults.isRightTheMachineReallyIs"),
  referenceWeak: t("faults.referenceWeak"),
  referenceResistive: t("faults.referenceBehindAHighResistanceInside"),
  moduleGroundOpen: t("faults.groundOpenInside"),
  driverDead: t("faults.driverDead"),
  driverStuck: t("faults.driverStuckOn"),
  dutyWrong: t("faults.drivenForTheWrongShareOf"),
  busDriverDead: t("faults.doesNotTalkOnTheBus"),
  supplyLow: t("faults.low"),
  supplyHigh: t("faults.chargingTooHigh"),
  elementOpen: t("faults.openInside"),
  dead: t("faults.noOutput"),
  referenceDead: t("faults.referenceDead"),
  moduleUnpowered: t("faults.notWorkingThoughPowered"),
  sensorGroundOpen: t("faults.sensorGroundOpenInside"),
  inputShort: t("faults.inputShortedInside"),
}));

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
    if (sided) return t("faults.cavitySide", { id, cavity: sided[1], side: sided[2] });
    if (this.index.connectors.has(id) && cavity) return t("faults.cavity", { id, cavity });
    const device = this.index.devices.get(id);
    if (device && cavity)
      return device.kind === "battery"
        ? t("faults.battery", { pole: cavity === "+" ? "positive" : "negative" })
        : t("faults.side", { kind: kindName(device.kind), id, cavity });
    return device ? `${kindName(device.kind)} ${id}` : point;
  }
  connector(id: string): string {
    const name = this.index.connectors.get(id)?.name;
    return name ? `${id} (${name})` : id;
  }
  device(id: string): string {
    const d = this.index.devices.get(id);
    if (!d) return id;
    if (d.kind === "splice") return t("faults.splice", { id, name: d.name ? ` (${d.name})` : "" });
    return d.name ? `${d.name} ${id}` : `${kindName(d.kind)} ${id}`;
  }
  wire(id: string): string {
    const w = this.wires.get(id);
    return w
      ? t("faults.wireFromTo", { from: short(w.from), to: short(w.to), colour: w.colour ? `, ${w.colour}` : "" })
      : t("faults.wire", { id });
  }
  /** Whatever an entry names: a connector, cavity, wire, splice, ground, fuse or part. */
  thing(id: string): string {
    if (this.wires.has(id)) return this.wire(id);
    if (id.includes(":")) return this.point(id);
    return this.index.connectors.has(id) && !this.index.devices.has(id)
      ? t("faults.connector", { connector: this.connector(id) })
      : this.device(id);
  }
  place(place: FaultPlace): string {
    if (place.type === "wire") return this.wire(place.id);
    if (place.type === "cavity") return t("faults.terminalIn", { point: this.point(place.id) });
    if (place.type === "connector") return t("faults.connector", { connector: this.connector(place.id) });
    if (place.type === "machine") return t("faults.whatMeasures", { device: this.device(place.id) });
    return this.device(place.id);
  }
  /** a place as short as a technician would say it with the map in view: "B7", "wire B7:1 to S14", "terminal X5:4" */
  short(place: FaultPlace): string {
    if (place.type === "cavity") return t("faults.terminal", { id: place.id });
    if (place.type === "connector") return t("faults.connector2", { id: place.id });
    if (place.type === "machine") return t("faults.theMachineAt", { id: place.id });
    if (place.type !== "wire") return place.id;
    const w = this.wires.get(place.id);
    return w ? t("faults.wireTo", { from: short(w.from), to: short(w.to) }) : t("faults.wire", { id: place.id });
  }
  /** one fault in full: "oil pressure sensor B9 shorted inside, supply to ground" */
  fault(fault: Pick<Fault, "id" | "mode" | "place" | "at">): string {
    const text = MODES[fault.mode];
    if (fault.mode === "legOpen" || fault.mode === "legHighResistance")
      return t("faults.legTo", {
        place: this.place(fault.place),
        farEnd: this.farEnd(fault.at ?? "", fault.place.id),
        is: fault.mode === "legOpen" ? MODES.open : t("faults.withHighResistance"),
      });
    if (fault.mode === "shortToWire")
      return t("faults.chafedOntoThe", { place: this.place(fault.place), wire: this.wire(fault.at ?? "") });
    if (fault.mode === "cavitiesBridged" || fault.mode === "cavitiesSwapped")
      return t("faults.cavitiesAnd", {
        place: this.place(fault.place),
        what: fault.mode === "cavitiesBridged" ? t("faults.fluidBridging") : t("faults.swapped"),
        firstCavity: this.firstCavity(fault),
        at: fault.at ?? "",
      });
    if (fault.mode === "trueCondition")
      return t("faults.isRightTheMachineReallyIs2", { device: this.device(fault.place.id) });
    if (fault.mode === "targetDamaged")
      return t("faults.targetOrToothAtDamaged", { device: this.device(fault.place.id) });
    if (fault.mode === "gapTooLarge") return t("faults.airGapAtTooLarge", { device: this.device(fault.place.id) });
    if (fault.place.type === "device" && fault.at !== undefined)
      return `${this.place(fault.place)}, ${SECOND[fault.at] ?? fault.at} ${text}`;
    if (fault.place.type === "module" && fault.at !== undefined)
      return t("faults.at", { place: this.place(fault.place), text, point: this.point(fault.at) });
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
        title: lead ? lead.faults.map((f) => this.fault(f)).join(t("faults.andJoin")) : "",
        detail: lead ? t("faults.faultsAtOnce", { faultsCount: lead.faults.length }) : "",
      };
    }
    if (s.type === "nothing")
      return { title: t("faults.nothingWrongRightNow"), detail: t("faults.aFaultThatComesAndGoes") };
    if (s.type === "notHere")
      return { title: t("faults.notInThisWiring"), detail: t("faults.anotherDrawingAnotherComponentOrMore") };
    const lead = s.members[0];
    const others = s.places.filter((p) => p.type !== lead?.fault.place.type || p.id !== lead.fault.place.id);
    const modes = [
      ...new Set(
        s.members
          .filter((m) => m.fault.place.id === lead?.fault.place.id && m !== lead && m.share > 0.1 * (lead?.share ?? 1))
          .map((m) => MODES[m.fault.mode]),
      ),
    ];
    const goes = lead && lead.intermittent > 0.5 * lead.share ? t("faults.itComesAndGoes") : "";
    const detail = others.length
      ? t("faults.orNoTestHereCanSeparate", { others: others.map((p) => this.short(p)).join(", ") })
      : modes.length
        ? t("faults.or", { modes: modes.join(t("faults.orJoin")) })
        : goes;
    return { title: lead ? this.fault(lead.fault) : "", detail };
  }
  /** where to go: the place of the thing, as far as the document says */
  where(place: FaultPlace): string {
    const id = place.type === "cavity" ? (split(place.id)[0] ?? "") : place.id;
    if (place.type === "wire") {
      const w = this.wires.get(id);
      return w
        ? t("faults.betweenAnd", {
            from: this.point(w.from),
            to: this.point(w.to),
            bundle: w.bundle ? t("faults.in", { bundle: w.bundle }) : "",
          })
        : id;
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

const SECOND: Readonly<Record<string, string>> = worded(() => ({
  "2": t("faults.secondTrack"),
  tracks: t("faults.theTwoTracks"),
  bus: t("faults.busLines"),
}));
const KIND_IN_NAMES: Readonly<Record<string, string>> = worded(() => ({
  threeWireSensor: t("faults.sensor"),
  potentiometer: t("faults.positionSensor"),
  pedal: t("faults.pedalSensor"),
  thermistor: t("faults.temperatureSensor"),
  hall: t("faults.speedSensor"),
  coilSensor: t("faults.speedSensor"),
  currentLoop: t("faults.currentLoopSensor"),
  smartSensor: t("faults.busSensor"),
  battery: t("faults.kindBattery"),
  alternator: t("faults.kindAlternator"),
  fuse: t("faults.kindFuse"),
  breaker: t("faults.kindBreaker"),
  switch: t("faults.kindSwitch"),
  diode: t("faults.kindDiode"),
  splice: t("faults.kindSplice"),
  ground: t("faults.kindGround"),
  module: t("faults.kindModule"),
  relay: t("faults.kindRelay"),
  terminator: t("faults.kindTerminator"),
  lamp: t("faults.kindLamp"),
  solenoid: t("faults.kindSolenoid"),
  heater: t("faults.kindHeater"),
}));
const kindName = (kind: string) => KIND_IN_NAMES[kind] ?? kind;
const split = (point: string) => {
  const i = point.indexOf(":");
  return i < 0 ? [point] : [point.slice(0, i), point.slice(i + 1)];
};
const short = (point: string) => point.replace(/\.[ab]$/, "");
