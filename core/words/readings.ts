import {
  connectorOf,
  deviceConnectors,
  devicePins,
  findNets,
  formatQuantity,
  STORED_UNITS,
  type Candidate,
  type Caution,
  type NetFunction,
  type Nets,
  type Units,
  type Wire,
  type Wiring,
  wireId,
} from "../src/index.js";
import { stimulusText } from "./stimulus.js";
import { Namer } from "./faults.js";
import { t } from "./messages/index.js";
import { worded } from "./language.js";

const METERS: Readonly<Record<Candidate["instrument"], string>> = worded(() => ({
  voltmeter: t("readings.dcVolts"),
  ohmmeter: t("readings.ohms"),
  scanTool: t("readings.scanToolLiveValues"),
  clamp: t("readings.clampDcAmperes"),
  scope: t("readings.scopeOrAMeterWithMinMax"),
  scopeLow: t("readings.scopeTheLowerLevel"),
  scopeHigh: t("readings.scopeTheUpperLevel"),
  continuity: t("readings.continuity"),
  lamp: t("readings.testLamp"),
  none: "",
}));
/** A cavity of an in-line connector without its side. */
const sideless = (point: string) => point.replace(/\.[ab]$/, "");
/** Where a value is not read once, but watched. */
const WATCHING: Readonly<Partial<Record<Candidate["kind"], string>>> = worded(() => ({
  record: t("readings.scopeForTenSeconds"),
  minMax: t("readings.voltsMinMax"),
  scanRecord: t("readings.scanToolRecording"),
}));
/** What a conductor is for. */
export const CONDUCTORS: Readonly<Record<NetFunction, string>> = worded(() => ({
  reference: t("readings.reference"),
  sensorGround: t("readings.sensorGround"),
  signal: t("readings.signal"),
  driver: t("readings.lowSideDriver"),
  feed: t("readings.feed"),
  ground: t("readings.ground"),
  bus: t("readings.bus"),
  unknown: t("readings.wire"),
}));
const COMES_OFF = worded(() => ({
  jumper: t("readings.takeTheJumperOff"),
  lamp: t("readings.takeTheLampOff"),
}));
const KEYS = worded(() => ({
  off: t("readings.keyOff"),
  on: t("readings.keyOnEngineOff"),
  cranking: t("readings.cranking"),
  running: t("readings.engineRunning"),
}));

/** One reading as a sentence that can be obeyed, and the lines under it. */
export interface Instruction {
  readonly title: string;
  readonly state: string;
  readonly meter: string;
  readonly red: { readonly text: string; readonly how: string; readonly colour?: string; readonly place?: string }[];
  readonly black: string;
  /** dangers that are acknowledged once a job, by name */
  readonly dangers: readonly Danger[];
  /** what to mind, before the step */
  readonly cautions: readonly string[];
}

/** What a step may touch that can hurt people or machine. */
export type Danger = Caution | "backFeed" | "jumper" | "benchFeed" | "lamp" | "breaker" | "turning";
export const DANGER_WORDS: Readonly<Record<Danger, string>> = worded(() => ({
  restraint: t("readings.restraintCircuitTheMakersProcedureAnd"),
  highVoltage: t("readings.highVoltageLicensedPeopleOnly"),
  lifted: t("readings.liftedMachineSupportedOnStandsNobody"),
  hot: t("readings.hotPartsNearHere"),
  rotating: t("readings.rotatingPartsNearHereKeepClear"),
  fuel: t("readings.fuelNoSparksRelievePressureAs"),
  throttle: t("readings.throttleCircuitChockTheMachineAnd"),
  brake: t("readings.brakeCircuitChockTheMachineBefore"),
  backFeed: t("readings.batteryVoltageGoesOntoThisWire"),
  jumper: t("readings.deviceUnpluggedAndPinsMeasuredFirst"),
  benchFeed: t("readings.partOutOfTheMachineFused"),
  lamp: t("readings.noLampOnAReferenceSignal"),
  breaker: t("readings.ratedNoHigherThanTheFuse"),
  turning: t("readings.engineTurnsEverybodyClearHandsAnd"),
}));

export class Instructor {
  private readonly namer: Namer;
  private readonly nets: Nets;
  private readonly colours: ReadonlyMap<string, string>;
  private readonly wires: ReadonlyMap<string, Wire>;
  constructor(
    private readonly wiring: Wiring,
    private readonly units: Units = STORED_UNITS,
  ) {
    this.namer = new Namer(wiring, units);
    this.nets = findNets(wiring);
    this.wires = new Map(wiring.wires.map((w) => [wireId(w), w]));
    this.colours = new Map(
      wiring.wires.flatMap((w) => (w.colour ? [[w.from, w.colour] as const, [w.to, w.colour] as const] : [])),
    );
  }

  withUnits(units: Units): Instructor {
    return new Instructor(this.wiring, units);
  }
  /** what is done to a sensor on purpose, in words */
  stimulus(id: string, value: number): string {
    return stimulusText(this.wiring, id, value, this.units);
  }
  functionOf(point: string): string {
    return CONDUCTORS[this.nets.functionOf(point)];
  }
  colourOf(point: string): string | undefined {
    return this.colours.get(point);
  }

  instruct(c: Candidate): Instruction {
    return {
      title: capital(this.title(c)),
      state: [
        KEYS[c.state.key],
        ...(c.state.pulled ?? []).map((f) => t("readings.fusePulled", { f })),
        ...(c.state.breakers ?? []).map((f) => t("readings.breakerInPlaceOf", { f })),
        ...(c.takeOff ?? []).map((thing) => COMES_OFF[thing]),
        ...(c.fuseBack ?? []).map((f) => t("readings.fuseBackIn", { f })),
        ...(c.plug.length ? [t("readings.plugBackIn", { plug: c.plug.join(", ") })] : []),
        ...this.unplugged(c),
        ...this.fitted(c),
        ...Object.entries(c.state.stimulus ?? {}).map(([id, value]) => this.stimulus(id, value)),
      ].join(" · "),
      meter: WATCHING[c.kind] ?? METERS[c.instrument],
      red: c.instrument === "none" || c.instrument === "scanTool" ? [] : c.points.map((p) => this.lead(c, p)),
      black:
        c.instrument === "none" || c.instrument === "scanTool" || c.instrument === "clamp"
          ? ""
          : c.black === undefined
            ? t("readings.batteryNegative")
            : c.part
              ? t("readings.itsPin", { pin: cavityOf(c.black) })
              : this.namer.point(c.black),
      cautions: this.cautions(c),
      dangers: this.dangers(c),
    };
  }
  private unplugged(c: Candidate): string[] {
    const { unplugged } = c.state;
    const still = unplugged.filter((u) => !c.unplug.includes(u));
    return [
      ...(c.unplug.length > 4
        ? [t("readings.unplugConnectors", { unplugCount: c.unplug.length, unplug: c.unplug.join(", ") })]
        : c.unplug.map((u) => t("readings.unplug", { u }))),
      ...(still.length > 3
        ? [t("readings.stillUnplugged", { stillCount: still.length })]
        : still.map((u) => t("readings.stillUnplugged2", { u }))),
    ];
  }
  private fitted(c: Candidate): string[] {
    return [
      ...(c.state.jumpers ?? []).map((j) =>
        t("readings.joinedTo", {
          from: this.namer.point(j.from),
          to: this.namer.point(j.to),
          through: j.ohm >= 100 ? t("readings.through", { ohm: formatQuantity(j.ohm, "Ω") }) : "",
        }),
      ),
      ...(c.state.loads ?? []).map((l) =>
        t("readings.wLampFromTo", {
          watt: l.watt,
          from: this.namer.point(l.from),
          to: l.to === "chassis" ? t("readings.batteryNegative") : this.namer.point(l.to),
        }),
      ),
    ];
  }
  /** What to mind where somebody works: at connectors, parts, cavities or wires. */
  cautionsAt(things: readonly string[]): string[] {
    const ends = things.flatMap((id) => {
      const w = this.wires.get(id);
      return w ? [w.from, w.to] : [id];
    });
    return [...new Set(this.markedAt(new Set(ends.map(connectorOf))).map((d) => DANGER_WORDS[d]))];
  }
  private markedAt(ids: ReadonlySet<string>): Danger[] {
    return [
      ...this.wiring.connectors.filter((x) => ids.has(x.id)),
      ...this.wiring.devices.filter((d) => ids.has(d.id) || deviceConnectors(d).some((x) => ids.has(x))),
    ].flatMap((x) => x.cautions);
  }
  private dangers(c: Candidate): Danger[] {
    const marked = this.markedAt(new Set([c.at, ...c.state.unplugged, ...c.plug]));
    const plus = this.wiring.devices.find((d) => d.kind === "battery");
    if (c.part && c.state.jumpers?.length) marked.push("benchFeed");
    else if (plus && c.state.jumpers?.some((j) => j.from === `${plus.id}:+` || j.to === `${plus.id}:+`))
      marked.push("backFeed");
    else if (c.state.jumpers?.length) marked.push("jumper");
    if (c.state.loads?.length || c.instrument === "lamp") marked.push("lamp");
    if (c.kind === "breaker") marked.push("breaker");
    if (c.state.key === "running" || c.state.key === "cranking") marked.push("turning");
    return [...new Set(marked)];
  }

  /** A Hall sensor fed by itself, with steel at its tip or none. */
  private hallOnBench(c: Candidate): string {
    const [signal = ""] = c.points;
    const steel = Object.values(c.state.stimulus ?? {}).some((x) => x >= 0.5)
      ? t("readings.steelAtItsTip")
      : t("readings.noSteelNearIt");
    return t("readings.onTheBenchMeasureFromBattery", {
      device: this.namer.device(this.deviceIdOn(signal)),
      steel,
      cavityOf: cavityOf(signal),
    });
  }

  private title(c: Candidate): string {
    const point = c.points[0] ?? "";
    const what = this.functionOf(point);
    const where = this.namer.point(point);
    const device = this.deviceOn(c.state.unplugged[0] ?? "");
    switch (c.kind) {
      case "fuse":
        return t("readings.measureBothSidesOfFuse", { at: c.at });
      case "voltage":
        return t("readings.measureTheAt", { what, where });
      case "voltageUnplugged":
        return t("readings.unplugAndMeasureTheInCavity", { at: c.at, what, cavity: cavityOf(point) });
      case "watch":
        return t("readings.unplugTheAndWatchTheAt", { device, what, where });
      case "ohms":
        return t("readings.keyOffOhmsFromTheAt", { what, where });
      case "ohmsWatch":
        return t("readings.keyOffUnplugTheAndRead", { device, where });
      case "scan":
        return t("readings.readTheSignalInTheScan", { shownName: this.shownName(point) });
      case "scanWatch":
        return t("readings.unplugTheAndReadTheSignal", { device, shownName: this.shownName(point) });
      case "activity":
        return t("readings.whileCrankingSeeHowFarThe", { what, where });
      case "record": {
        const [, other] = c.points;
        if (other !== undefined && sideless(point) === sideless(other))
          return t("readings.recordBothSides", {
            what,
            connector: this.namer.connector(connectorOf(point)),
            cavity: cavityOf(sideless(point)),
          });
        return other === undefined
          ? t("readings.recordOneWhileMoved", { what, where })
          : t("readings.recordTwoWhileMoved", {
              what,
              where,
              other: this.functionOf(other),
              cavity: cavityOf(other),
            });
      }
      case "minMax":
        return t("readings.minMaxWhileMoved", { what, where });
      case "scanRecord":
        return t("readings.scanRecordWhileMoved", { shownName: this.shownName(point) });
      case "look":
        return this.wires.has(point)
          ? t("readings.lookAlongThe", { wire: this.namer.wire(point) })
          : t("readings.lookCloselyAt", { thing: this.thing(point) });
      case "branchCurrent":
        return t("readings.putTheClampAroundTheDoes", { wire: this.namer.wire(point) });
      case "ohmsBetween":
        return t("readings.keyOffOhmsFromToBoth", { where, point: this.namer.point(c.black ?? "") });
      case "identity":
        return t("readings.makeSureThisIsLabelColours", { connector: this.namer.connector(point) });
      case "wiggle":
        return t("readings.moveAndItsHarnessWhileYou", { thing: this.thing(point) });
      case "swap":
        return t("readings.swapWithAndScanAgain", { thing: this.thing(point), thing2: this.thing(c.points[1] ?? "") });
      case "drop":
        return c.black === undefined
          ? this.title({ ...c, kind: "voltage" })
          : point.endsWith(":+")
            ? t("readings.measureFromBatteryPositiveToThe", {
                functionOf: this.functionOf(c.black),
                point: this.namer.point(c.black),
              })
            : t("readings.measureTheDropFromTo", { point: this.namer.point(c.black), where });
      case "jumper": {
        const jumpers = c.state.jumpers?.map((j) =>
          t("readings.toThe", {
            point: this.namer.point(j.from),
            functionOf: this.functionOf(j.to),
            through: j.ohm >= 100 ? t("readings.through1K") : "",
          }),
        );
        return t("readings.jumperAndReadTheSignalIn", {
          jumpers: jumpers?.join(", ") ?? "",
          shownName: this.shownName(point),
        });
      }
      case "lamp":
        return t("readings.feedFromBatteryPositiveAndLook", {
          jumpers: c.state.jumpers?.map((j) => this.namer.point(j.to)).join(", ") ?? t("readings.theWire"),
          where,
        });
      case "breaker":
        return t("readings.breakerInPlaceOfFuseDoes", { at: c.at, breakerStep: breakerStep(c) });
      case "bench":
        if (c.instrument === "voltmeter") return this.hallOnBench(c);
        return c.part === "new"
          ? t("readings.newBeforeItGoesInOhms", {
              device: this.namer.device(this.deviceIdOn(point)),
              pin: cavityOf(point),
              other: cavityOf(c.black ?? ""),
            })
          : t("readings.takenOutOhmsBetweenItsOwn", {
              device: this.namer.device(this.deviceIdOn(point)),
              pin: cavityOf(point),
              other: cavityOf(c.black ?? ""),
            });
      case "codeSets":
        return t("readings.makeTheOppositeFaultThrough1", { points: c.points[1] });
      case "partNumber":
        return t("readings.readThePartNumberOnThe", { device: this.namer.device(point) });
    }
  }
  /** the sensor whose value stands at a module's pin */
  private shownName(pin: string): string {
    const net = this.nets.netOf.get(pin);
    const d = this.wiring.devices.find(
      (x) =>
        x.kind !== "module" &&
        devicePins(x).some((p) => p.role.startsWith("signal") && this.nets.netOf.get(p.at) === net),
    );
    return d ? this.namer.device(d.id) : pin;
  }
  private thing(id: string): string {
    if (this.wiring.connectors.some((c) => c.id === id))
      return t("readings.connector", { connector: this.namer.connector(id) });
    return this.namer.device(id);
  }
  private deviceIdOn(point: string): string {
    const connector = connectorOf(point);
    return (
      this.wiring.devices.find((d) => d.kind !== "module" && deviceConnectors(d).includes(connector))?.id ?? connector
    );
  }
  private deviceOn(connector: string): string {
    const device = this.wiring.devices.find((d) => d.kind !== "module" && deviceConnectors(d).includes(connector));
    return device ? this.namer.device(device.id) : t("readings.connector", { connector });
  }
  private lead(c: Candidate, point: string): Instruction["red"][number] {
    const wire = c.instrument === "clamp" ? this.wires.get(point) : undefined;
    if (wire)
      return {
        text: t("readings.aroundTheWireAt", { point: this.namer.point(wire.from) }),
        how: t("readings.arrowTowards", { point: this.namer.point(wire.to) }),
        ...(wire.colour ? { colour: wire.colour } : {}),
      };
    const id = connectorOf(point);
    const connector = this.wiring.connectors.find((x) => x.id === id);
    const device = this.wiring.devices.find((d) => d.id === id);
    const colour = this.colourOf(point);
    const place = connector?.place ?? device?.place;
    if (c.part)
      return {
        text: t("readings.itsPin2", {
          part: c.part === "new" ? t("readings.newPart") : t("readings.thePart"),
          pin: cavityOf(point),
        }),
        how: t("readings.onThePartItself"),
      };
    const how = !connector
      ? t("readings.touchTheContact")
      : c.state.unplugged.includes(id)
        ? t("readings.frontOfThePlugTouchOnly")
        : t("readings.backProbed");
    return { text: this.namer.point(point), how, ...(colour ? { colour } : {}), ...(place ? { place } : {}) };
  }
  private cautions(c: Candidate): string[] {
    const texts: string[] = [];
    for (const d of this.dangers(c)) texts.push(DANGER_WORDS[d]);
    if (c.instrument === "ohmmeter") texts.push(t("readings.keyOffFirst"));
    if (c.kind === "voltageUnplugged" || c.kind === "ohms" || c.kind === "ohmsBetween")
      texts.push(t("readings.frontProbeGently"));
    if (c.unplug.length) texts.push(t("readings.keyOffWhileUnplugging"));
    if (c.kind === "swap") texts.push(t("readings.onlyWhereTheMakerAllowsIt"));
    if (c.kind === "fuse") texts.push(t("readings.neverFitALargerFuse"));
    return texts;
  }
}

/** `3`, or `7, side a` of an in-line connector: a cavity without its connector. */
export const cavityOf = (point: string): string =>
  point.slice(point.indexOf(":") + 1).replace(/\.([ab])$/, (_, side: string) => t("readings.sideOf", { side }));
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
export const keyText = (key: keyof typeof KEYS) => KEYS[key];

/** What is plugged or unplugged for a breaker to be tried. */
function breakerStep({ plug, unplug, state }: Pick<Candidate, "plug" | "unplug" | "state">): string {
  if (plug.length) return t("readings.plugBackInKey", { plug: plug.join(", "), key: KEYS[state.key] });
  if (unplug.length === 0) return t("readings.keyOn");
  return t("readings.unplugKeyOn", {
    what: unplug.length === 1 ? unplug[0] : t("readings.allConnectors", { unplugCount: unplug.length }),
  });
}
