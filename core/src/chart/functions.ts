import type { Device } from "../format/wiring.js";

/** What a cavity is for, as a chart says it. */
export type PinFunction =
  | "reference"
  | "sensorGround"
  | "signal"
  | "signal2"
  | "supply"
  | "supply2"
  | "ground"
  | "ground2"
  | "busHigh"
  | "busLow"
  | "busLine"
  | "lowSide"
  | "highSide"
  | "coilHigh"
  | "coilLow"
  | "common"
  | "working"
  | "resting"
  | "high"
  | "low";

/** Words charts use, most telling first (common practice, no source). */
const WORDS: readonly (readonly [RegExp, PinFunction])[] = [
  [/\b(can|bus)[ _-]?(h|high|hi|\+)(?![a-z])|^h\(?can/, "busHigh"],
  [/\b(can|bus)[ _-]?(l|low|lo|-)(?![a-z])/, "busLow"],
  [/\blin\b|bus line|single[- ]wire bus|^bus$/, "busLine"],
  [/low[- ]?side|driver (to )?(ground|low)|switched ground|\blsd\b/, "lowSide"],
  [/high[- ]?side|driver (to )?(battery|high|feed)|\bhsd\b/, "highSide"],
  [/coil ?(\+|high|feed|in)|^86$/, "coilHigh"],
  [/coil ?(-|low|ground|control|out)|^85$/, "coilLow"],
  [/^common|^30$/, "common"],
  [/working|normally open|^n\.?o\.?$|^87$/, "working"],
  [/resting|normally closed|^n\.?c\.?$|^87a$/, "resting"],
  [
    /(sensor|signal|ref(erence)?|analog(ue)?|low) ?(ground|gnd|return|minus|rtn)|^(sg|sgnd|rtn|return)$|low ref/,
    "sensorGround",
  ],
  [/(signal|sig|track|output|wiper) ?(2|b)\b/, "signal2"],
  [/(supply|feed|reference|ref) ?(2|b)\b/, "supply2"],
  [/(ground|gnd) ?(2|b)\b/, "ground2"],
  [/\b5 ?v(olts?)?\b|v ?ref|reference|^ref\b/, "reference"],
  [/ground|\bgnd\b|earth|^gr?d$|chassis|battery ?-|^minus$|^-$|^masse$|^31$|^0 ?v$/, "ground"],
  [/^(high|hi|plus side|winding \+)$|^coil a$/, "high"],
  [/^(low|lo|winding -)$|^coil b$/, "low"],
  [/sig(nal)?\b|output|^out$|input|wiper|sense|^s$/, "signal"],
  [/supply|feed|power|\bbatt|\b(12|24) ?v|ign(ition)?\b|\bkl ?15|^15$|\+|vcc|\bb\+/, "supply"],
];

/** Reads what a chart says a cavity is for. @returns undefined where the words are not known: then it is guessed */
export function parseFunction(text: string): PinFunction | undefined {
  const t = text.trim().toLowerCase();
  if (t === "") return undefined;
  const short = SHORT[t];
  return short ?? WORDS.find(([words]) => words.test(t))?.[1];
}
/** One or two letters for the keyboard. */
const SHORT: Readonly<Record<string, PinFunction>> = {
  r: "reference",
  g: "ground",
  sg: "sensorGround",
  s: "signal",
  s2: "signal2",
  p: "supply",
  f: "supply",
  bh: "busHigh",
  bl: "busLow",
  ls: "lowSide",
  hs: "highSide",
};

/** The words this program writes. */
export const FUNCTION_WORDS: Readonly<Record<PinFunction, string>> = {
  reference: "5 V reference",
  sensorGround: "sensor ground",
  signal: "signal",
  signal2: "signal 2",
  supply: "supply",
  supply2: "supply 2",
  ground: "ground",
  ground2: "ground 2",
  busHigh: "bus high",
  busLow: "bus low",
  busLine: "bus line",
  lowSide: "low-side driver",
  highSide: "high-side driver",
  coilHigh: "coil high",
  coilLow: "coil low",
  common: "common",
  working: "working contact",
  resting: "resting contact",
  high: "high",
  low: "low",
};

type Kind = Device["kind"];
/** Which functions can fill which role of a kind, first choice first. */
export const ROLES: Readonly<Partial<Record<Kind, Readonly<Record<string, readonly PinFunction[]>>>>> = {
  threeWireSensor: {
    supply: ["reference", "supply"],
    ground: ["sensorGround", "ground"],
    signal: ["signal", "signal2"],
  },
  potentiometer: { supply: ["reference", "supply"], ground: ["sensorGround", "ground"], signal: ["signal", "signal2"] },
  hall: { supply: ["supply", "reference"], ground: ["ground", "sensorGround"], signal: ["signal", "signal2"] },
  pedal: {
    supply: ["reference", "supply"],
    ground: ["sensorGround", "ground"],
    signal: ["signal"],
    supply2: ["supply2", "reference", "supply"],
    ground2: ["ground2", "sensorGround", "ground"],
    signal2: ["signal2", "signal"],
  },
  thermistor: { signal: ["signal", "signal2"], ground: ["sensorGround", "ground"] },
  coilSensor: { high: ["high", "signal"], low: ["low", "signal2", "sensorGround", "ground", "signal"] },
  currentLoop: { supply: ["supply", "reference"], signal: ["signal"] },
  smartSensor: {
    supply: ["supply", "reference"],
    ground: ["ground", "sensorGround"],
    busHigh: ["busHigh"],
    busLow: ["busLow"],
    busLine: ["busLine", "signal"],
  },
  terminator: { busHigh: ["busHigh"], busLow: ["busLow"] },
  lamp: {
    feed: ["supply", "highSide", "reference", "coilHigh", "high"],
    ground: ["ground", "lowSide", "sensorGround", "signal", "coilLow", "low"],
  },
  solenoid: {
    feed: ["supply", "highSide", "reference", "coilHigh", "high"],
    ground: ["ground", "lowSide", "sensorGround", "signal", "coilLow", "low"],
  },
  heater: {
    feed: ["supply", "highSide", "reference", "high"],
    ground: ["ground", "lowSide", "sensorGround", "signal", "low"],
  },
  relay: {
    coilHigh: ["coilHigh", "high"],
    coilLow: ["coilLow", "low", "lowSide"],
    common: ["common", "supply"],
    working: ["working"],
    resting: ["resting"],
  },
};
const OPTIONAL: ReadonlySet<string> = new Set([
  "supply2",
  "ground2",
  "working",
  "resting",
  "busHigh",
  "busLow",
  "busLine",
]);

/**
 * Gives each role of a kind a cavity by what the cavities are for.
 * @returns the cavity of each role, and the roles left without one
 */
export function assignRoles(
  kind: Kind,
  pins: readonly { readonly cavity: string; readonly function: PinFunction | undefined }[],
): { readonly roles: ReadonlyMap<string, string>; readonly missing: readonly string[] } {
  const roles = new Map<string, string>();
  const taken = new Set<string>();
  const wanted = Object.entries(ROLES[kind] ?? {});
  const depth = Math.max(0, ...wanted.map(([, list]) => list.length));
  // all first choices before any second: a pedal's second track must not take the first one's supply
  for (let choice = 0; choice < depth; choice++)
    for (const [role, list] of wanted) {
      if (roles.has(role) || list[choice] === undefined) continue;
      const pin = pins.find((p) => !taken.has(p.cavity) && p.function === list[choice]);
      if (pin) {
        roles.set(role, pin.cavity);
        taken.add(pin.cavity);
      }
    }
  return { roles, missing: wanted.map(([role]) => role).filter((role) => !roles.has(role) && !OPTIONAL.has(role)) };
}

/** What a module pin does, from the function of its cavity. */
export const MODULE_ROLE: Readonly<Partial<Record<PinFunction, string>>> = {
  reference: "reference",
  supply2: "reference",
  sensorGround: "sensorGround",
  ground2: "sensorGround",
  signal: "input",
  signal2: "input",
  high: "input",
  low: "input",
  supply: "supply",
  ground: "ground",
  lowSide: "lowSide",
  highSide: "highSide",
  busHigh: "busHigh",
  busLow: "busLow",
  busLine: "busLine",
};
