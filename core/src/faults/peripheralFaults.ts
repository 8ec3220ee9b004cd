import { shifted, rescaled, scaled } from "./edits.js";
import { zoneFactor, DEVICE } from "./zones.js";
import {
  type Fault,
  type FaultPlace,
  dead,
  elementIndex,
  series,
  shuntBetween,
  opened,
  fault,
  NO_SEVERITY,
  type FaultMode,
} from "./fault.js";
import { type Index, deviceConnectors, pinBehind } from "../wiring/points.js";
import type { Device } from "../format/wiring.js";
import { NO_EDIT, type Circuit, type Edit } from "../network/element.js";
import { type DeviceOf } from "../format/wiring.js";
import { DEFAULTS } from "../defaults.js";

const { severity, prior } = DEFAULTS;

type Peripheral = Exclude<
  Device,
  { kind: "module" | "battery" | "alternator" | "splice" | "ground" | "fuse" | "breaker" | "switch" | "diode" }
>;

/** A coil sensor gives this much less at cranking speed, beyond what a wide gap takes. Common practice, no source. */
const SLOW = 0.5;

/** A Hall sensor that answers steel held at its tip, and not what passes. */
const missesTeeth = (c: Circuit, id: string): Edit => ({
  replace: [{ element: elementIndex(c, `output ${id}`), by: { steel: "held" } }],
});

/** Sensors, actuators and relays. */
export function peripheralFaults(index: Index, d: Peripheral): Fault[] {
  const zones = [...d.zones, ...deviceConnectors(d).flatMap((c) => index.connectors.get(c)?.zones ?? [])];
  return new PeripheralFaults(d.id, d.kind === "relay" ? "relay" : "device", zoneFactor(zones, DEVICE)).of(d);
}

/** Makes the faults of one part: their rates all depend on where it sits. */
class PeripheralFaults {
  private readonly place: FaultPlace;
  /** @param zoneRate what the part's zones multiply rates by */
  constructor(
    private readonly id: string,
    type: "relay" | "device",
    private readonly zoneRate: number,
  ) {
    this.place = { type, id };
  }

  of(d: Peripheral): Fault[] {
    switch (d.kind) {
      case "relay":
        return this.relay(d);
      case "threeWireSensor":
        return this.threeWireSensor(d);
      case "potentiometer":
        return [...this.threeWireShorts(d.pins), this.open(`wiper ${this.id}`)];
      case "pedal":
        return this.pedal(d);
      case "hall":
        return [
          ...this.threeWireShorts(d.pins),
          this.deadOutput(),
          this.target((_s, c) => missesTeeth(c, this.id)),
          // it misses teeth while they pass slowly only
          this.gap(NO_SEVERITY, (_s, c) => (c.key === "running" ? NO_EDIT : missesTeeth(c, this.id))),
        ];
      case "thermistor":
        return this.thermistor(d);
      case "coilSensor":
        return [
          this.open(`element ${this.id}`),
          this.short("shortInside", d.pins.high, d.pins.low),
          this.target((_s, c) => ({ replace: [{ element: elementIndex(c, `element ${this.id}`), by: { volt: 0 } }] })),
          this.gap(severity.gap, (factor, c) =>
            scaled(c, `element ${this.id}`, "volt", c.key === "cranking" ? factor * SLOW : factor),
          ),
        ];
      case "currentLoop":
        return this.currentLoop(d);
      case "smartSensor":
        return this.smartSensor(d);
      case "terminator":
        return [this.open(`element ${this.id}`), this.short("shortInside", d.pins.busHigh, d.pins.busLow)];
      case "lamp":
        return this.load(d.pins, prior.lampOpen);
      case "solenoid":
      case "heater":
        return [
          ...this.load(d.pins, prior.elementOpen),
          this.resistive("highResistance", prior.wireHighResistance, severity.element, series(`element ${this.id}`)),
        ];
    }
  }

  private relay(d: DeviceOf<"relay">): Fault[] {
    const { working, resting, common } = d.pins;
    const contacts = [
      ...(working ? [`contact ${this.id} working`] : []),
      ...(resting ? [`contact ${this.id} resting`] : []),
    ];
    const welded: Fault["edit"] = (_s, c) =>
      shuntBetween(pinBehind(common), pinBehind(working!))(DEFAULTS.relay.contactOhm, c);
    return [
      this.single("relayCoilOpen", prior.relayCoilOpen, opened(`coil ${this.id}`)),
      this.single("relayContactOpen", prior.relayContactOpen, opened(...contacts)),
      this.resistive(
        "relayContactHighResistance",
        prior.relayContactHighResistance,
        severity.highResistance,
        series(...contacts),
      ),
      ...(working ? [this.single("relayStuck", prior.relayStuck, welded)] : []),
    ];
  }
  private threeWireSensor(d: DeviceOf<"threeWireSensor">): Fault[] {
    const output = `output ${this.id}`;
    const condition: Fault["edit"] = (share, c) => ({
      replace: [{ element: elementIndex(c, output), by: { ratio: share } }],
    });
    return [
      ...this.threeWireShorts(d.pins),
      this.deadOutput(),
      this.graded("biased", prior.biased, severity.bias, "share", shifted(output)),
      this.graded("wrongPart", prior.wrongPart, severity.wrongPart, "factor", rescaled(output)),
      this.graded("trueCondition", prior.trueCondition, severity.condition, "share", condition, this.machine),
    ];
  }
  private pedal(d: DeviceOf<"pedal">): Fault[] {
    const p = d.pins;
    const ground2 = p.ground2 ?? p.ground;
    const supply2 = p.supply2 ?? p.supply;
    const open2 = opened(`wiper ${this.id} second`);
    return [
      ...this.threeWireShorts(p),
      this.open(`wiper ${this.id}`),
      this.short("shortSignalGround", p.signal2, ground2, "2"),
      this.short("shortSignalSupply", p.signal2, supply2, "2"),
      this.short("shortInside", p.signal, p.signal2, "tracks"),
      fault(this.place, `${this.id}~2`, "elementOpen", prior.elementOpen * this.zoneRate, NO_SEVERITY, open2, {
        at: "2",
      }),
    ];
  }
  private thermistor(d: DeviceOf<"thermistor">): Fault[] {
    const times: Fault["edit"] = (factor, c) => scaled(c, `element ${this.id}`, "ohm", factor);
    return [
      this.open(`element ${this.id}`),
      this.short("shortSignalGround", d.pins.signal, d.pins.ground),
      this.graded("biased", prior.biased, severity.ohmBias, "factor", times),
      this.graded("wrongPart", prior.wrongPart, severity.ohmWrongPart, "factor", times),
    ];
  }
  private currentLoop(d: DeviceOf<"currentLoop">): Fault[] {
    const times: Fault["edit"] = (factor, c) => {
      const element = elementIndex(c, `element ${this.id}`);
      return { replace: [{ element, by: { limitAmpere: c.elements[element]!.limitAmpere * factor } }] };
    };
    return [
      this.open(`element ${this.id}`),
      this.short("shortSignalSupply", d.pins.signal, d.pins.supply),
      this.graded("biased", prior.biased, severity.loopBias, "factor", times),
    ];
  }
  private smartSensor(d: DeviceOf<"smartSensor">): Fault[] {
    const { id } = this;
    const { supply, ground, busHigh, busLow, busLine } = d.pins;
    const talk = busHigh && busLow ? [`dominant high ${id}`, `dominant low ${id}`] : busLine ? [`talk ${id}`] : [];
    const silent: Fault["edit"] = (_s, c) => ({ asleep: [c.gateOf.get(id)!], ...dead(...talk)(NaN, c) });
    return [
      this.short("shortSupplyGround", supply, ground),
      ...(busHigh && busLow ? [this.short("shortInside", busHigh, busLow, "bus")] : []),
      ...(talk.length ? [this.single("dead", prior.sensorDead, silent)] : []),
    ];
  }

  private get machine(): FaultPlace {
    return { type: "machine", id: this.id };
  }
  private threeWireShorts(p: { readonly supply: string; readonly ground: string; readonly signal: string }): Fault[] {
    return [
      this.short("shortSupplyGround", p.supply, p.ground),
      this.short("shortSignalGround", p.signal, p.ground),
      this.short("shortSignalSupply", p.signal, p.supply),
    ];
  }
  private load(p: { readonly feed: string; readonly ground: string }, openRate: number): Fault[] {
    return [
      this.single("elementOpen", openRate, opened(`element ${this.id}`)),
      this.short("shortInside", p.feed, p.ground),
    ];
  }
  private open(element: string): Fault {
    return this.single("elementOpen", prior.elementOpen, opened(element));
  }
  private deadOutput(): Fault {
    return this.single("dead", prior.sensorDead, dead(`output ${this.id}`));
  }
  private target(edit: Fault["edit"]): Fault {
    return fault(this.machine, this.id, "targetDamaged", prior.targetDamaged * this.zoneRate, NO_SEVERITY, edit);
  }
  private gap(grid: readonly number[], edit: Fault["edit"]): Fault {
    return fault(this.machine, this.id, "gapTooLarge", prior.gapTooLarge * this.zoneRate, grid, edit, {
      unit: "factor",
    });
  }
  private single(mode: FaultMode, rate: number, edit: Fault["edit"]): Fault {
    return fault(this.place, this.id, mode, rate * this.zoneRate, NO_SEVERITY, edit);
  }
  private resistive(mode: FaultMode, rate: number, grid: readonly number[], edit: Fault["edit"]): Fault {
    return fault(this.place, this.id, mode, rate * this.zoneRate, grid, edit);
  }
  private graded(
    mode: FaultMode,
    rate: number,
    grid: readonly number[],
    unit: "factor" | "share",
    edit: Fault["edit"],
    where: FaultPlace = this.place,
  ): Fault {
    return fault(where, this.id, mode, rate * this.zoneRate, grid, edit, { unit });
  }
  /** @param at which of several like it, where there are several */
  private short(mode: FaultMode, a: string, b: string, at?: string): Fault {
    const name = at === undefined ? this.id : `${this.id}~${at}`;
    const more = at === undefined ? {} : { at };
    const edit = shuntBetween(pinBehind(a), pinBehind(b));
    return fault(this.place, name, mode, prior.internalShort * this.zoneRate, severity.short, edit, more);
  }
}
