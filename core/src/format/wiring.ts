import { z } from "zod";

/**
 * Wiring document, version 1: the things a technician can point at, and what is known of each.
 * Everything but names and connections has a generic value, so a bare pin chart already solves.
 */
export const WIRING_FORMAT = "radicula/wiring";

const NAME = /^[\p{L}\p{N}][\p{L}\p{N}_+/-]*$/u;
export const Id = z.string().min(1).max(40).regex(NAME, "letters, digits, - _ + /, no spaces").meta({ description: "Short name, as on the drawing: B7, S14, X5" });
const Text = z.string().max(400);
/** `B7:1` cavity of a connector · `X5:4.a` one side of an in-line cavity · `S14` splice or ground · `F12:in` terminal */
export const Endpoint = z.string().min(1).max(90).meta({ description: "Where a wire ends: connector:cavity, in-line connector:cavity.a or .b, splice, ground, or device:terminal (battery + and -, fuse and switch in and out)" });
const CavityRef = z.string().min(3).max(90).meta({ description: "connector:cavity" });

export const KeyState = z.enum(["off", "on", "cranking", "running"]);
export type KeyState = z.infer<typeof KeyState>;
export const Zone = z.enum(["dry", "wet", "hot", "oily", "vibrating", "chewed"]);
export const Caution = z.enum(["restraint", "highVoltage", "fuel", "hot", "rotating", "throttle", "brake"]);
export type Caution = z.infer<typeof Caution>;

const positive = z.number().positive().max(1e9);
const Where = {
  place: Text.optional().meta({ description: "Where it sits, in words" }),
  zones: z.array(Zone).max(6).default([]),
  reachMinutes: z.number().min(0).max(600).default(1).meta({ description: "Minutes to get at it" }),
  cautions: z.array(Caution).max(7).default([]),
};

export const Connector = z.strictObject({
  id: Id,
  name: Text.optional(),
  cavities: z.array(Id).min(1).max(400),
  inline: z.boolean().default(false).meta({ description: "Joins harness to harness; its cavities have a side a and a side b" }),
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
});

const share = z.number().min(0).max(1);
const range = (n: z.ZodNumber) => z.tuple([n, n]);
const device = <K extends string, S extends z.ZodRawShape>(kind: K, shape: S) => z.strictObject({ kind: z.literal(kind), id: Id, name: Text.optional(), ...Where, ...shape });

export const ModulePin = z.discriminatedUnion("role", [
  z.strictObject({ role: z.literal("supply"), at: CavityRef, supplyAmpere: positive.optional() }),
  z.strictObject({ role: z.literal("ground"), at: CavityRef }),
  z.strictObject({ role: z.literal("reference"), at: CavityRef, name: Text.optional(), volt: z.number().min(1).max(30).optional(), limitAmpere: positive.optional(), ohm: positive.optional() }),
  z.strictObject({ role: z.literal("sensorGround"), at: CavityRef, name: Text.optional(), ohm: positive.optional() }),
  z.strictObject({ role: z.literal("input"), at: CavityRef, name: Text.optional(), pull: z.enum(["up", "down", "none"]).default("none"), pullOhm: positive.optional(), pullVolt: z.number().min(0).max(60).optional() }),
]);

export const Device = z.discriminatedUnion("kind", [
  device("battery", { volt: z.number().min(1).max(60).optional().meta({ description: "Rest voltage, key on" }), ohm: positive.optional() }),
  device("fuse", { rating: positive.meta({ description: "Ampere" }) }),
  device("switch", { closedIn: z.array(KeyState).max(4).default(["on", "cranking", "running"]).meta({ description: "Key states in which the contact is closed" }) }),
  device("splice", {}),
  device("ground", {}),
  device("module", { pins: z.array(ModulePin).min(1).max(400) }),
  device("threeWireSensor", {
    pins: z.strictObject({ supply: CavityRef, ground: CavityRef, signal: CavityRef }),
    supplyAmpere: positive.optional(), outputOhm: positive.optional(), dropOutVolt: positive.optional(),
    restShare: range(share).optional().meta({ description: "Output at rest as a share of its supply, lowest to highest" }),
  }),
  device("potentiometer", {
    pins: z.strictObject({ supply: CavityRef, ground: CavityRef, signal: CavityRef }),
    trackOhm: positive.optional(), wiperOhm: positive.optional(), restShare: range(share).optional(),
  }),
  device("thermistor", {
    pins: z.strictObject({ signal: CavityRef, ground: CavityRef }),
    ohm25: positive.optional(), betaKelvin: positive.optional(), restCelsius: range(z.number().min(-60).max(1200)).optional(),
  }),
  device("hall", {
    pins: z.strictObject({ supply: CavityRef, ground: CavityRef, signal: CavityRef }),
    supplyAmpere: positive.optional(), dropOutVolt: positive.optional(), saturationOhm: positive.optional(),
  }),
]);

const when = z.array(KeyState).min(1).max(4).optional().meta({ description: "Key states in which the monitor runs" });
export const Monitor = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("below"), at: CavityRef, volt: z.number(), when }),
  z.strictObject({ type: z.literal("above"), at: CavityRef, volt: z.number(), when }),
  z.strictObject({ type: z.literal("outside"), at: CavityRef, low: z.number(), high: z.number(), when }),
  z.strictObject({ type: z.literal("noActivity"), at: CavityRef, when }).meta({ description: "The signal does not change as steel passes the sensor" }),
]);
export const Code = z.strictObject({
  id: z.string().min(1).max(24), module: Id, title: Text.optional(),
  monitor: Monitor.optional().meta({ description: "The set condition, over module-side volts; without it the code weighs nothing" }),
});

export const Wiring = z.strictObject({
  format: z.literal(WIRING_FORMAT),
  version: z.literal(1),
  name: z.string().min(1).max(120),
  nominalVolt: z.union([z.literal(12), z.literal(24)]),
  note: z.string().max(4000).optional(),
  connectors: z.array(Connector).max(4000).default([]),
  devices: z.array(Device).max(8000).default([]),
  wires: z.array(Wire).max(20000).default([]),
  codes: z.array(Code).max(4000).default([]),
});
export type Wiring = z.infer<typeof Wiring>;
export type Connector = z.infer<typeof Connector>;
export type Device = z.infer<typeof Device>;
export type Wire = z.infer<typeof Wire>;
export type ModulePin = z.infer<typeof ModulePin>;
export type Code = z.infer<typeof Code>;
export type Monitor = z.infer<typeof Monitor>;
export type DeviceOf<K extends Device["kind"]> = Extract<Device, { kind: K }>;
