import { Wiring } from "../../src/index.js";

/**
 * Twelve machines as a competent user would type them from a drawing: pins, wires, splices, few values. The first eight
 * are for tuning, the last four for judging only.
 */
type Kind = "pressure" | "position" | "temperature" | "speed" | "coil";
interface SensorLine {
  readonly id: string;
  readonly kind: Kind;
  readonly code: string;
  /** which reference and sensor ground it hangs on */
  readonly group: number;
}
interface Plan {
  readonly name: string;
  readonly nominalVolt: 12 | 24;
  readonly sensors: readonly SensorLine[];
  /** loads on the module's low-side (L) or high-side (H) drivers, or between a shared feed and ground (F) */
  readonly loads: readonly {
    readonly id: string;
    readonly kind: "heater" | "solenoid" | "lamp";
    readonly on: "L" | "H";
  }[];
  /** nodes on a two-wire bus, or a single-wire one */
  readonly bus?: { readonly wires: 1 | 2; readonly nodes: readonly string[] };
  /** loads are fed through a relay */
  readonly relay: boolean;
  /** harnesses meet at an in-line connector */
  readonly inLine: boolean;
  readonly alternator: boolean;
}

const PLANS: readonly Plan[] = [
  {
    name: "judge 1: loader, three pressures on one reference",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "pressure", code: "P0101", group: 0 },
      { id: "B2", kind: "pressure", code: "P0102", group: 0 },
      { id: "B3", kind: "pressure", code: "P0103", group: 0 },
      { id: "B4", kind: "temperature", code: "P0104", group: 0 },
    ],
    loads: [],
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 2: truck, heaters on a shared feed",
    nominalVolt: 24,
    sensors: [
      { id: "B1", kind: "temperature", code: "P0201", group: 0 },
      { id: "B2", kind: "speed", code: "P0202", group: 0 },
    ],
    loads: [
      { id: "R1", kind: "heater", on: "L" },
      { id: "R2", kind: "heater", on: "L" },
      { id: "Y1", kind: "solenoid", on: "L" },
    ],
    relay: true,
    inLine: false,
    alternator: true,
  },
  {
    name: "judge 3: van, sensors on a two-wire bus",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "position", code: "P0301", group: 0 },
      { id: "B2", kind: "pressure", code: "P0302", group: 0 },
    ],
    loads: [{ id: "Y1", kind: "solenoid", on: "H" }],
    bus: { wires: 2, nodes: ["N1", "N2", "N3"] },
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 4: tractor, speed sensors and a single wire",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "speed", code: "P0401", group: 0 },
      { id: "B2", kind: "speed", code: "P0402", group: 0 },
      { id: "B3", kind: "coil", code: "P0403", group: 0 },
      { id: "B4", kind: "position", code: "P0404", group: 1 },
      { id: "B5", kind: "pressure", code: "P0405", group: 1 },
    ],
    loads: [],
    bus: { wires: 1, nodes: ["N1", "N2"] },
    relay: false,
    inLine: false,
    alternator: false,
  },
  {
    name: "judge 5: excavator, two references, pressures and positions",
    nominalVolt: 24,
    sensors: [
      { id: "B1", kind: "pressure", code: "P0501", group: 0 },
      { id: "B2", kind: "position", code: "P0502", group: 0 },
      { id: "B3", kind: "pressure", code: "P0503", group: 1 },
      { id: "B4", kind: "pressure", code: "P0504", group: 1 },
      { id: "B5", kind: "temperature", code: "P0505", group: 1 },
    ],
    loads: [{ id: "Y1", kind: "solenoid", on: "H" }],
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 6: van, exhaust heaters behind a relay",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "temperature", code: "P0601", group: 0 },
      { id: "B2", kind: "temperature", code: "P0602", group: 0 },
      { id: "B3", kind: "pressure", code: "P0603", group: 0 },
    ],
    loads: [
      { id: "R1", kind: "heater", on: "L" },
      { id: "R2", kind: "heater", on: "L" },
      { id: "R3", kind: "heater", on: "L" },
      { id: "Y1", kind: "solenoid", on: "L" },
    ],
    relay: true,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 7: harvester, two-wire bus of four",
    nominalVolt: 24,
    sensors: [{ id: "B1", kind: "speed", code: "P0701", group: 0 }],
    loads: [],
    bus: { wires: 2, nodes: ["N1", "N2", "N3", "N4"] },
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 8: boat, mixed sensors and a single wire",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "pressure", code: "P0801", group: 0 },
      { id: "B2", kind: "temperature", code: "P0802", group: 0 },
      { id: "B3", kind: "coil", code: "P0803", group: 0 },
      { id: "B4", kind: "speed", code: "P0804", group: 0 },
    ],
    loads: [{ id: "H1", kind: "lamp", on: "H" }],
    bus: { wires: 1, nodes: ["N1", "N2", "N3"] },
    relay: false,
    inLine: false,
    alternator: false,
  },
  {
    name: "judge 9: crane, six sensors on one reference",
    nominalVolt: 24,
    sensors: [
      { id: "B1", kind: "pressure", code: "P0901", group: 0 },
      { id: "B2", kind: "pressure", code: "P0902", group: 0 },
      { id: "B3", kind: "position", code: "P0903", group: 0 },
      { id: "B4", kind: "pressure", code: "P0904", group: 0 },
      { id: "B5", kind: "temperature", code: "P0905", group: 0 },
      { id: "B6", kind: "temperature", code: "P0906", group: 0 },
    ],
    loads: [],
    relay: false,
    inLine: false,
    alternator: true,
  },
  {
    name: "judge 10: coach, lamps and valves fed by the module",
    nominalVolt: 24,
    sensors: [
      { id: "B1", kind: "speed", code: "P1001", group: 0 },
      { id: "B2", kind: "pressure", code: "P1002", group: 1 },
    ],
    loads: [
      { id: "H1", kind: "lamp", on: "H" },
      { id: "Y1", kind: "solenoid", on: "H" },
      { id: "Y2", kind: "solenoid", on: "L" },
    ],
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 11: roller, pressures and a two-wire bus of two",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "pressure", code: "P1101", group: 0 },
      { id: "B2", kind: "pressure", code: "P1102", group: 0 },
      { id: "B3", kind: "temperature", code: "P1103", group: 0 },
    ],
    loads: [],
    bus: { wires: 2, nodes: ["N1", "N2"] },
    relay: false,
    inLine: true,
    alternator: true,
  },
  {
    name: "judge 12: pump, relayed heaters, positions and a single wire",
    nominalVolt: 12,
    sensors: [
      { id: "B1", kind: "position", code: "P1201", group: 0 },
      { id: "B2", kind: "position", code: "P1202", group: 0 },
      { id: "B3", kind: "coil", code: "P1203", group: 1 },
    ],
    loads: [
      { id: "R1", kind: "heater", on: "L" },
      { id: "R2", kind: "heater", on: "L" },
    ],
    bus: { wires: 1, nodes: ["N1", "N2"] },
    relay: true,
    inLine: true,
    alternator: false,
  },
];

type Loose = Record<string, unknown>;
/** Draws the harness of a plan: one module A1, everything else on it. */
class Drawing {
  private readonly connectors: Loose[] = [];
  private readonly devices: Loose[] = [];
  private readonly wires: Loose[] = [];
  private readonly codes: Loose[] = [];
  private readonly pins: Loose[] = [];
  private readonly guesses: string[] = [];
  private cavities = 0;
  private wireCount = 0;
  private inLineCount = 0;
  constructor(private readonly plan: Plan) {}

  build(): Wiring {
    const { plan } = this;
    this.power();
    plan.sensors.forEach((s) => this.sensor(s));
    this.shared();
    this.loads();
    this.bus();
    const cavities = Array.from({ length: this.cavities }, (_, i) => String(i + 1));
    this.connectors.push({ id: "A1", cavities });
    if (this.inLineCount)
      this.connectors.push({
        id: "X1",
        inline: true,
        cavities: Array.from({ length: this.inLineCount }, (_, i) => String(i + 1)),
      });
    this.devices.push({ kind: "module", id: "A1M", name: "controller", pins: this.pins });
    return Wiring.parse({
      format: "radicula/wiring",
      version: 1,
      name: plan.name,
      nominalVolt: plan.nominalVolt,
      connectors: this.connectors,
      devices: this.devices,
      wires: this.wires,
      codes: this.codes,
      guesses: this.guesses,
    });
  }

  private wire(from: string, to: string): void {
    this.wires.push({ id: `W${++this.wireCount}`, from, to });
  }
  /** As a wire, through the in-line connector where the machine has one. */
  private through(from: string, to: string): void {
    if (!this.plan.inLine) return this.wire(from, to);
    const n = ++this.inLineCount;
    this.wire(from, `X1:${n}.a`);
    this.wire(`X1:${n}.b`, to);
  }
  private pin(role: string, more: Loose = {}): string {
    const at = `A1:${++this.cavities}`;
    this.pins.push({ role, at, ...more });
    return at;
  }
  private connector(id: string, cavities: number): void {
    this.connectors.push({ id, cavities: Array.from({ length: cavities }, (_, i) => String(i + 1)) });
  }
  private code(id: string, monitor: Loose | undefined, more: Loose = {}): void {
    this.codes.push({ id, module: "A1M", ...(monitor ? { monitor } : {}), ...more });
  }

  private power(): void {
    this.devices.push({ kind: "battery", id: "G1" }, { kind: "switch", id: "S1" });
    if (this.plan.alternator) {
      this.devices.push({ kind: "alternator", id: "G2" });
      this.wire("G2:+", "G1:+");
    }
    this.devices.push({ kind: "fuse", id: "F1", rating: 10 }, { kind: "ground", id: "GND1" });
    this.wire("G1:+", "S1:in");
    this.devices.push({ kind: "splice", id: "SPF" });
    this.wire("S1:out", "SPF");
    this.wire("SPF", "F1:in");
    this.wire("F1:out", this.pin("supply"));
    this.wire(this.pin("ground"), "GND1");
  }

  /** pin names of each group: reference and sensor ground run through a splice */
  private readonly groups = new Map<number, { reference: string[]; ground: string[] }>();
  private group(n: number) {
    let g = this.groups.get(n);
    if (!g) this.groups.set(n, (g = { reference: [], ground: [] }));
    return g;
  }
  private sensor({ id, kind, code, group }: SensorLine): void {
    const g = this.group(group);
    const low = `${code}L`;
    const high = `${code}H`;
    if (kind === "pressure" || kind === "position") {
      this.connector(id, 3);
      const pins = { supply: `${id}:1`, ground: `${id}:2`, signal: `${id}:3` };
      this.devices.push({ kind: kind === "pressure" ? "threeWireSensor" : "potentiometer", id: `${id}S`, pins });
      g.reference.push(`${id}:1`);
      g.ground.push(`${id}:2`);
      const at = this.pin("input", { pull: "down" });
      this.guesses.push(at);
      this.through(`${id}:3`, at);
      this.code(low, { type: "below", at, volt: 0.25 }, { about: `${id}S`, title: `${kind} signal low` });
      this.code(high, { type: "above", at, volt: 4.75 }, { about: `${id}S`, title: `${kind} signal high` });
    } else if (kind === "temperature") {
      this.connector(id, 2);
      this.devices.push({ kind: "thermistor", id: `${id}S`, pins: { signal: `${id}:1`, ground: `${id}:2` } });
      g.ground.push(`${id}:2`);
      const at = this.pin("input", { pull: "up" });
      this.through(`${id}:1`, at);
      this.code(low, { type: "below", at, volt: 0.1 }, { about: `${id}S`, title: "temperature signal low" });
      this.code(high, { type: "above", at, volt: 4.85 }, { about: `${id}S`, title: "temperature signal high" });
    } else if (kind === "speed") {
      this.connector(id, 3);
      const pins = { supply: `${id}:1`, ground: `${id}:2`, signal: `${id}:3` };
      this.devices.push({ kind: "hall", id: `${id}S`, pins });
      g.reference.push(`${id}:1`);
      g.ground.push(`${id}:2`);
      const at = this.pin("input", { pull: "up" });
      this.through(`${id}:3`, at);
      this.code(code, { type: "noActivity", at }, { about: `${id}S`, title: "speed signal missing" });
    } else {
      this.connector(id, 2);
      this.devices.push({ kind: "coilSensor", id: `${id}S`, pins: { high: `${id}:1`, low: `${id}:2` } });
      const at = this.pin("input", { pull: "none" });
      this.through(`${id}:1`, at);
      g.ground.push(`${id}:2`);
      this.code(code, { type: "noActivity", at }, { about: `${id}S`, title: "speed signal missing" });
    }
  }
  private shared(): void {
    for (const [n, g] of this.groups) {
      if (g.reference.length) this.star(`SPR${n}`, g.reference, this.pin("reference"));
      if (g.ground.length) this.star(`SPG${n}`, g.ground, this.pin("sensorGround"));
    }
  }
  private star(splice: string, ends: readonly string[], to: string): void {
    const [only] = ends;
    if (ends.length === 1) return this.through(only!, to);
    this.devices.push({ kind: "splice", id: splice });
    ends.forEach((e) => this.wire(e, splice));
    this.through(splice, to);
  }

  private loads(): void {
    const { loads, relay } = this.plan;
    if (loads.length === 0) return;
    const low = loads.filter((l) => l.on === "L");
    if (low.length) {
      this.devices.push({ kind: "fuse", id: "F2", rating: 20 }, { kind: "splice", id: "SPL" });
      this.wire("SPF", "F2:in");
      if (relay) {
        this.connector("K1", 4);
        const pins = { coilHigh: "K1:1", coilLow: "K1:2", common: "K1:3", working: "K1:4" };
        this.devices.push({ kind: "relay", id: "K1R", pins }, { kind: "ground", id: "GND2" });
        this.devices.push({ kind: "splice", id: "SPK" });
        this.wire("F2:out", "SPK");
        this.wire("SPK", "K1:1");
        this.wire("SPK", "K1:3");
        this.wire("K1:2", "GND2");
        this.wire("K1:4", "SPL");
      } else this.wire("F2:out", "SPL");
    }
    for (const l of loads) {
      this.connector(l.id, 2);
      this.devices.push({ kind: l.kind, id: `${l.id}D`, pins: { feed: `${l.id}:1`, ground: `${l.id}:2` } });
      const role = l.on === "L" ? "lowSide" : "highSide";
      const at = this.pin(role, { activeIn: ["running"] });
      if (l.on === "L") {
        this.wire("SPL", `${l.id}:1`);
        this.through(`${l.id}:2`, at);
      } else {
        this.through(`${l.id}:1`, at);
        this.devices.push({ kind: "ground", id: `GN${l.id}` });
        this.wire(`${l.id}:2`, `GN${l.id}`);
      }
      this.code(`P9${l.id}`, { type: "current", at, low: 0.05 }, { about: `${l.id}D`, title: `${l.kind} circuit` });
    }
  }

  private bus(): void {
    const { bus } = this.plan;
    if (!bus) return;
    this.devices.push({ kind: "fuse", id: "F3", rating: 5 }, { kind: "splice", id: "SPN" });
    this.wire("SPF", "F3:in");
    this.wire("F3:out", "SPN");
    this.devices.push({ kind: "ground", id: "GND3" }, { kind: "splice", id: "SPM" });
    this.wire("SPM", "GND3");
    const lines = bus.wires === 2 ? ["SPH", "SPB"] : ["SPB"];
    lines.forEach((id) => this.devices.push({ kind: "splice", id }));
    bus.nodes.forEach((id, i) => {
      this.connector(id, 2 + bus.wires);
      const pins = {
        supply: `${id}:1`,
        ground: `${id}:2`,
        ...(bus.wires === 2 ? { busHigh: `${id}:3`, busLow: `${id}:4` } : { busLine: `${id}:3` }),
      };
      const terminated = bus.wires === 2 && i === bus.nodes.length - 1;
      this.devices.push({ kind: "smartSensor", id: `${id}S`, pins, terminated });
      this.wire("SPN", `${id}:1`);
      this.wire(`${id}:2`, "SPM");
      lines.forEach((line, k) => this.wire(`${id}:${3 + k}`, line));
      this.code(
        `U01${i}${id.slice(1)}`,
        { type: "silent", node: `${id}S` },
        { about: `${id}S`, title: "lost communication" },
      );
    });
    if (bus.wires === 2) {
      this.through("SPH", this.pin("busHigh", { terminated: true }));
      this.through("SPB", this.pin("busLow", { terminated: true }));
    } else this.through("SPB", this.pin("busLine", { commander: true }));
  }
}

export const judgeMachines = (): Wiring[] => PLANS.map((p) => new Drawing(p).build());
