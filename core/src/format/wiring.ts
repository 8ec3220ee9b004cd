import { z } from "zod";
import { PageDrawing } from "./sheet.js";
import { ScanUnit } from "../units/scanUnit.js";

/**
 * Wiring document, version 1: the things a technician can point at, and what is known of each.
 * Everything but names and connections has a generic value, so a bare pin chart already solves.
 */
export const WIRING_FORMAT = "radicula/wiring";

const NAME = /^[\p{L}\p{N}][\p{L}\p{N}_+/-]*$/u;
export const Id = z
  .string()
  .min(1)
  .max(40)
  .regex(NAME, "letters, digits, - _ + /, no spaces")
  .meta({ description: "Short name, as on the drawing: B7, S14, X5" });
const Text = z.string().max(400);
/**
 * `B7:1` cavity of a connector · `X5:4.a` one side of an in-line cavity · `S14` splice or ground · `F12:in` terminal
 */
export const Endpoint = z
  .string()
  .min(1)
  .max(90)
  .meta({
    description:
      "Where a wire ends: connector:cavity, in-line connector:cavity.a or .b, splice, ground, or device:terminal " +
      "(battery and alternator + and -; fuse, breaker and switch in and out; diode anode and cathode)",
  });
const GroundRef = z.string().min(1).max(90).meta({
  description: "connector:cavity; or the name of a ground point, where the part is grounded through its case",
});
const CavityRef = z.string().min(3).max(90).meta({ description: "connector:cavity" });

export const KeyState = z.enum(["off", "on", "cranking", "running"]);
export type KeyState = z.infer<typeof KeyState>;
export const Zone = z.enum(["dry", "wet", "hot", "oily", "vibrating", "chewed"]);
export type Zone = z.infer<typeof Zone>;
export const Caution = z.enum(["restraint", "highVoltage", "fuel", "hot", "rotating", "throttle", "brake", "lifted"]);
export type Caution = z.infer<typeof Caution>;

const positive = z.number().positive().max(1e9);
const Where = {
  place: Text.optional().meta({ description: "Where it sits, in words" }),
  side: z.string().max(60).optional().meta({ description: "Which bank or side it is on: left, port, bank 2" }),
  comesOff: Text.optional().meta({ description: "What must come off to reach it" }),
  lookAlikes: z.array(Id).max(20).optional().meta({ description: "Connectors or parts it is easily taken for" }),
  partNumber: z.string().max(60).optional(),
  alsoNumbers: z
    .array(z.string().min(1).max(60))
    .max(20)
    .optional()
    .meta({ description: "Numbers as good as the part's own: those it replaces and those that replace it" }),
  price: z.number().min(0).max(1e7).optional().meta({ description: "What a new one costs" }),
  zones: z.array(Zone).max(6).default([]),
  reachMinutes: z.number().min(0).max(600).default(1).meta({ description: "Minutes to get at it" }),
  cautions: z.array(Caution).max(8).default([]),
};

export const Connector = z.strictObject({
  id: Id,
  name: Text.optional(),
  cavities: z.array(Id).min(1).max(400),
  inline: z
    .boolean()
    .default(false)
    .meta({ description: "Joins harness to harness; its cavities have a side a and a side b" }),
  backProbe: z.boolean().default(true).meta({ description: "Can be probed from behind while plugged" }),
  ...Where,
});

export const Wire = z.strictObject({
  id: Id.optional(),
  from: Endpoint,
  to: Endpoint,
  colour: z.string().max(20).optional().meta({ description: "Base and stripe: OG/WH" }),
  mm2: z.number().min(0.05).max(240).optional(),
  lengthM: z.number().min(0).max(500).optional(),
  bundle: Text.optional(),
  zones: z.array(Zone).max(6).default([]),
  source: z
    .string()
    .max(120)
    .optional()
    .meta({ description: "Which drawing or list says so, or: seen on the machine" }),
});

/** What a source says that is not what the document goes by: two sources that disagree are kept side by side. */
export const Claim = z.strictObject({
  at: Endpoint.meta({ description: "A cavity, or the name of a connector or part" }),
  field: z.enum(["colour", "mm2", "function", "goesTo", "kind", "name", "place", "partNumber", "cavities"]),
  value: z.string().max(400),
  source: z.string().max(120),
});
export type Claim = z.infer<typeof Claim>;

const share = z.number().min(0).max(1);
const range = (n: z.ZodNumber) => z.tuple([n, n]);
const device = <K extends string, S extends z.ZodRawShape>(kind: K, shape: S) =>
  z.strictObject({ kind: z.literal(kind), id: Id, name: Text.optional(), ...Where, ...shape });

const domain = {
  domain: z
    .string()
    .max(20)
    .optional()
    .meta({ description: "Pins of one module that share an inner ground; leave out where it has only one" }),
};
const activeIn = z
  .array(KeyState)
  .max(4)
  .optional()
  .meta({ description: "Key states in which the driver is on; running when left out" });
const driver = {
  name: Text.optional(),
  ohm: positive.optional(),
  limitAmpere: positive.optional().meta({ description: "It gives no more than this" }),
  duty: share.optional().meta({ description: "Share of each period in which it is on; 1 when not pulsed" }),
  activeIn,
};
const busPin = {
  bus: Id.optional().meta({ description: "Which bus, where a module has several" }),
  terminated: z.boolean().default(false).meta({ description: "120 ohm across the pair inside" }),
};
export const ModulePin = z.discriminatedUnion("role", [
  z.strictObject({
    role: z.literal("supply"),
    at: CavityRef,
    ...domain,
    supplyAmpere: positive.optional(),
    feed: z
      .enum(["switched", "permanent"])
      .optional()
      .meta({ description: "A module with both wakes only while both are live" }),
  }),
  z.strictObject({ role: z.literal("ground"), at: CavityRef, ...domain }),
  z.strictObject({
    role: z.literal("reference"),
    at: CavityRef,
    ...domain,
    name: Text.optional(),
    volt: z.number().min(1).max(30).optional(),
    limitAmpere: positive.optional(),
    ohm: positive.optional(),
    foldAmpere: positive
      .optional()
      .meta({ description: "A reference that folds back gives only this once it is pulled below 1 V" }),
  }),
  z.strictObject({
    role: z.literal("sensorGround"),
    at: CavityRef,
    ...domain,
    name: Text.optional(),
    ohm: positive.optional(),
  }),
  z.strictObject({
    role: z.literal("input"),
    at: CavityRef,
    ...domain,
    name: Text.optional(),
    pull: z.enum(["up", "down", "none"]).default("none"),
    pullOhm: positive.optional(),
    pullVolt: z.number().min(0).max(60).optional(),
  }),
  z
    .strictObject({ role: z.literal("lowSide"), at: CavityRef, ...domain, ...driver })
    .meta({ description: "Driver that switches to ground" }),
  z
    .strictObject({ role: z.literal("highSide"), at: CavityRef, ...domain, ...driver })
    .meta({ description: "Driver that feeds from the module's supply, limited" }),
  z.strictObject({ role: z.literal("busHigh"), at: CavityRef, ...domain, ...busPin }),
  z.strictObject({ role: z.literal("busLow"), at: CavityRef, ...domain, ...busPin }),
  z.strictObject({
    role: z.literal("busLine"),
    at: CavityRef,
    ...domain,
    commander: z
      .boolean()
      .default(false)
      .meta({ description: "Pulls the single wire up through 1 kOhm; a responder through 30 kOhm" }),
  }),
]);

const twoPins = { pins: z.strictObject({ feed: CavityRef, ground: GroundRef }) };
const threePins = z.strictObject({ supply: CavityRef, ground: GroundRef, signal: CavityRef });
const transfer = z
  .strictObject({
    unit: ScanUnit,
    points: z
      .array(z.tuple([z.number().min(0).max(60), z.number().min(-1e6).max(1e6)]))
      .min(2)
      .max(40)
      .meta({ description: "Volts at the module's pin and the value shown for them; both only rise or only fall" }),
  })
  .optional()
  .meta({ description: "What the scan tool shows for the volts of this part" });
const follows = Id.optional().meta({
  description: "At rest it stands at the same condition as this other part: ambient pressure, the twin",
});
const target = z
  .strictObject({
    teeth: z
      .number()
      .int()
      .min(1)
      .max(1000)
      .meta({ description: "In one turn, those left out on purpose not counted" }),
    gap: z
      .number()
      .int()
      .min(0)
      .max(20)
      .default(0)
      .meta({ description: "Teeth left out on purpose, one after the other" }),
  })
  .optional()
  .meta({ description: "The wheel that a speed sensor sees; tells a broken tooth from a gap that is made so" });
const whenGroundLost = z
  .enum(["high", "low"])
  .optional()
  .meta({
    description:
      "Where the output goes when the sensor's ground is open: most float up to the supply, some fall; unknown when " +
      "left out",
  });
const restShare = range(share)
  .optional()
  .meta({ description: "Output at rest as a share of its supply, lowest to highest" });

export const Device = z.discriminatedUnion("kind", [
  device("battery", {
    volt: z.number().min(1).max(60).optional().meta({ description: "Rest voltage, key on" }),
    ohm: positive.optional(),
  }),
  device("alternator", {
    volt: z.number().min(1).max(60).optional().meta({ description: "What it regulates to" }),
    limitAmpere: positive.optional(),
  }),
  device("fuse", { rating: positive.meta({ description: "Ampere" }) }),
  device("breaker", { rating: positive.meta({ description: "Ampere; resets itself" }) }),
  device("switch", {
    closedIn: z
      .array(KeyState)
      .max(4)
      .default(["on", "cranking", "running"])
      .meta({ description: "Key states in which the contact is closed" }),
  }),
  device("diode", {}),
  device("splice", {}),
  device("ground", {}),
  device("module", { pins: z.array(ModulePin).min(1).max(400) }),
  device("relay", {
    pins: z.strictObject({
      coilHigh: CavityRef,
      coilLow: CavityRef,
      common: CavityRef,
      working: CavityRef.optional().meta({ description: "Joined to common while the coil pulls" }),
      resting: CavityRef.optional(),
    }),
    coilOhm: positive.optional(),
    pullInVolt: positive.optional(),
  }),
  device("threeWireSensor", {
    pins: threePins,
    supplyAmpere: positive.optional(),
    outputOhm: positive.optional(),
    outputVolt: z
      .number()
      .min(1)
      .max(30)
      .optional()
      .meta({ description: "Full scale of its output, where a regulator of its own sets it and not its supply" }),
    dropOutVolt: positive.optional(),
    whenGroundLost,
    restShare,
    transfer,
    follows,
  }),
  device("potentiometer", {
    pins: threePins,
    trackOhm: positive.optional(),
    wiperOhm: positive.optional(),
    restShare,
    transfer,
    follows,
  }),
  device("pedal", {
    pins: z.strictObject({
      supply: CavityRef,
      ground: CavityRef,
      signal: CavityRef,
      supply2: CavityRef.optional(),
      ground2: CavityRef.optional(),
      signal2: CavityRef,
    }),
    trackOhm: positive.optional(),
    wiperOhm: positive.optional(),
    restShare,
    ratio: z.number().min(0.1).max(2).optional().meta({ description: "Second track as a share of the first" }),
    transfer,
  }),
  device("thermistor", {
    pins: z.strictObject({ signal: CavityRef, ground: GroundRef }),
    ohm25: positive.optional(),
    betaKelvin: positive.optional(),
    restCelsius: range(z.number().min(-60).max(1200)).optional(),
    transfer,
    follows,
  }),
  device("hall", {
    pins: threePins,
    supplyAmpere: positive.optional(),
    dropOutVolt: positive.optional(),
    whenGroundLost,
    saturationOhm: positive.optional(),
    target,
  }),
  device("coilSensor", { pins: z.strictObject({ high: CavityRef, low: CavityRef }), ohm: positive.optional(), target }),
  device("currentLoop", {
    pins: z.strictObject({ supply: CavityRef, signal: CavityRef }),
    dropOutVolt: positive.optional(),
    restMilliampere: range(z.number().min(0.5).max(30)).optional(),
  }),
  device("smartSensor", {
    pins: z.strictObject({
      supply: CavityRef,
      ground: CavityRef,
      busHigh: CavityRef.optional(),
      busLow: CavityRef.optional(),
      busLine: CavityRef.optional(),
    }),
    supplyAmpere: positive.optional(),
    dropOutVolt: positive.optional(),
    terminated: z.boolean().default(false),
  }),
  device("terminator", { pins: z.strictObject({ busHigh: CavityRef, busLow: CavityRef }), ohm: positive.optional() }),
  device("lamp", { ...twoPins, watt: positive.optional() }),
  device("solenoid", { ...twoPins, ohm: positive.optional() }),
  device("heater", { ...twoPins, ohm: positive.optional().meta({ description: "At working temperature" }) }),
]);

const when = z.array(KeyState).min(1).max(4).optional().meta({ description: "Key states in which the monitor runs" });
const enable = {
  when,
  supply: range(z.number().min(0).max(60))
    .optional()
    .meta({
      description:
        "Runs only while the module's own supply is within these volts; 9 to 16 on 12 V machines and 18 to 32 on " +
        "24 V ones when left out",
    }),
  seconds: z
    .number()
    .min(0)
    .max(3600)
    .optional()
    .meta({ description: "How long it must last before the code sets; shown to people, a steady fault lasts longer" }),
};
export const Monitor = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("below"), at: CavityRef, volt: z.number(), ...enable }),
  z.strictObject({ type: z.literal("above"), at: CavityRef, volt: z.number(), ...enable }),
  z.strictObject({ type: z.literal("outside"), at: CavityRef, low: z.number(), high: z.number(), ...enable }),
  z
    .strictObject({
      type: z.literal("noActivity"),
      at: CavityRef,
      stuck: z.enum(["low", "high"]).optional().meta({ description: "Sets only while the signal stands there" }),
      ...enable,
    })
    .meta({ description: "The signal does not change as steel passes the sensor" }),
  z
    .strictObject({
      type: z.literal("disagree"),
      at: CavityRef,
      other: CavityRef,
      ratio: z.number().min(0.01).max(100).default(1),
      volt: positive.default(0.3),
      ...enable,
    })
    .meta({ description: "The other pin is not at ratio times this one, by more than volt" }),
  z
    .strictObject({
      type: z.literal("current"),
      at: CavityRef,
      low: z.number().min(0).optional(),
      high: positive.optional(),
      ...enable,
    })
    .meta({ description: "The driver at this pin carries less than low or more than high, ampere, while it is on" }),
  z
    .strictObject({ type: z.literal("silent"), node: Id, ...enable })
    .meta({ description: "The module hears nothing from this module or sensor on the bus they share" }),
]);
export const CodeFamily = z.enum([
  "low",
  "high",
  "circuit",
  "performance",
  "noActivity",
  "lostCommunication",
  "driver",
]);
export type CodeFamily = z.infer<typeof CodeFamily>;
export const Code = z.strictObject({
  id: z.string().min(1).max(24),
  module: Id,
  title: Text.optional(),
  monitor: Monitor.optional().meta({ description: "The set condition, over module-side volts" }),
  about: Id.optional().meta({
    description:
      "The sensor, actuator or module the code names. Where the set condition is not known, a broad one is made " +
      "from this and the family",
  }),
  family: CodeFamily.optional().meta({
    description: "What sort of code it is, where only its title is known; read from the title when left out",
  }),
  failureType: z
    .string()
    .regex(/^[0-9A-Fa-f]{2}$/)
    .optional()
    .meta({ description: "Failure type byte, hex" }),
  trip: z
    .strictObject({
      minutes: z.number().positive().max(10_000).optional(),
      km: z.number().positive().max(10_000).optional(),
      coldSoakHours: z.number().positive().max(100).optional(),
      note: z.string().max(400).optional(),
    })
    .optional()
    .meta({ description: "What has to be driven, or waited for, so that its monitor has run" }),
});

/** What a part needs after it was renewed or unplugged: teach-in, calibration, a counter set back. */
export const Reset = z.strictObject({
  id: Id,
  what: z.string().min(1).max(200),
  on: z.array(Id).min(1).max(40).meta({ description: "Parts or connectors it is needed for" }),
  after: z
    .enum(["replaced", "anyRepair"])
    .default("replaced")
    .meta({ description: "Needed when one of them was replaced, or after any work on it" }),
  tool: z.string().max(200).optional().meta({ description: "With which tool" }),
  ifLeftOut: z.string().max(400).optional().meta({ description: "What happens when it is left out" }),
});
export type Reset = z.infer<typeof Reset>;

export const Wiring = z.strictObject({
  format: z.literal(WIRING_FORMAT),
  version: z.literal(1),
  name: z.string().min(1).max(120),
  nominalVolt: z.union([z.literal(12), z.literal(24)]),
  note: z.string().max(4000).optional(),
  machineType: z.string().max(80).optional().meta({ description: "Which machines this wiring is of" }),
  claims: z.array(Claim).max(4000).optional().meta({ description: "What other sources say differently" }),
  guesses: z
    .array(Endpoint)
    .max(8000)
    .optional()
    .meta({ description: "Cavities whose function, and parts whose kind, were guessed and not read anywhere" }),
  connectors: z.array(Connector).max(4000).default([]),
  devices: z.array(Device).max(8000).default([]),
  wires: z.array(Wire).max(20000).default([]),
  codes: z.array(Code).max(4000).default([]),
  resets: z.array(Reset).max(400).optional().meta({ description: "Teach-ins, calibrations and counters to set back" }),
  pages: PageDrawing.optional().meta({ description: "Pages it was read from, and where on them things stand" }),
});
export type Wiring = z.infer<typeof Wiring>;
export type Connector = z.infer<typeof Connector>;
export type Device = z.infer<typeof Device>;
export type Wire = z.infer<typeof Wire>;
export type ModulePin = z.infer<typeof ModulePin>;
export type Code = z.infer<typeof Code>;
export type Monitor = z.infer<typeof Monitor>;
export type ModulePinOf<R extends ModulePin["role"]> = Extract<ModulePin, { role: R }>;
export type DeviceOf<K extends Device["kind"]> = Extract<Device, { kind: K }>;
