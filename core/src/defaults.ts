import type { KeyState } from "./format/wiring.js";

/**
 * Every number the engine assumes when the document does not say, in one place.
 * Values are common practice (no source) unless a line says otherwise.
 */
export const DEFAULTS = {
  /** Conductor: IEC 60228 class 5, maximum ohm per km at 20 °C, plain copper (values from memory). */
  cableOhmPerKm: { 0.35: 55.8, 0.5: 39.0, 0.75: 26.0, 1: 19.5, 1.5: 13.3, 2.5: 7.98, 4: 4.95, 6: 3.3, 10: 1.91, 16: 1.21 } as Readonly<Record<string, number>>,
  /** Copper: IEC 60028, 1/58 ohm mm² per metre at 20 °C (value from memory); for cross-sections not in the table. */
  copperOhmMm2PerMetre: 1 / 58,
  wireMm2: 0.75,
  wireLengthM: 2,
  /** A healthy mated terminal, ohm. */
  contactOhm: 0.005,
  /** A healthy ground point, ohm. */
  groundOhm: 0.001,
  switchOhm: 0.01,
  /** Battery: rest voltage of a 12 V battery by key state, volt, and inner resistance, ohm. */
  batteryVolt: { off: 12.6, on: 12.4, cranking: 10.4, running: 14.2 } as Readonly<Record<KeyState, number>>,
  batteryOhm: 0.01,
  /** A fuse's cold resistance, ohm × ampere: a 10 A blade fuse drops about 75 mV at its rating. */
  fuseOhmAmpere: 0.075,
  /** Steady current over rating at which a blade fuse opens (ISO 8820-3 operates at 135 %; value from memory). */
  fuseMeltsAt: 1.35,

  module: {
    supplyAmpere: 0.25,
    /** Awake above this share of nominal voltage. */
    wakesAtShare: 0.5,
    referenceVolt: 5,
    referenceOhm: 0.2,
    referenceLimitAmpere: 0.15,
    /** Seen into a reference that is unpowered, or pushed above its own voltage, ohm. */
    referenceOffOhm: 10_000,
    sensorGroundOhm: 0.03,
    pullOhm: { up: 2_200, down: 100_000, none: 1_000_000 },
    pullVolt: 5,
    /** Output of the limiting reference is almost, not quite, a constant current. */
    limitSlopeSiemens: 1e-6,
  },
  threeWireSensor: { supplyAmpere: 0.008, outputOhm: 100, dropOutVolt: 3.5, offOhm: 1_000_000, restShare: [0.08, 0.6] as const },
  potentiometer: { trackOhm: 5_000, wiperOhm: 100, restShare: [0.1, 0.3] as const },
  thermistor: { ohm25: 2_500, betaKelvin: 3_435, restCelsius: [-10, 90] as const },
  hall: { supplyAmpere: 0.006, dropOutVolt: 3.5, saturationOhm: 30, offOhm: 1_000_000 },

  /** Half-widths of what is not exactly known, as a share of the value. */
  tolerance: { generic: 0.2, typed: 0.05, reference: 0.01, battery: 0.025 },

  meter: { ohm: 10e6, accuracyShare: 0.005, digitsVolt: 0.02, ohmAccuracyShare: 0.02, ohmDigits: 0.3, overloadOhm: 20e6 },
  /** σ² = floor² + (share·V)²: covers wire lengths, temperature and lead placement. */
  reading: { floorVolt: 0.03, share: 0.012, slip: 0.003, ohmShare: 0.1, ohmFloor: 0.5 },

  codes: { miss: 0.05, falseAlarm: 3e-4, weight: { active: 1, pending: 0.8, stored: 0.6, intermittent: 0.4, absent: 1 } },

  /** Severity grids (equal weight on each point), ohm. */
  severity: {
    highResistance: [0.1, 0.5, 2, 8, 25, 80, 200, 500, 1_200, 3_500, 12_000, 60_000],
    // closer together where a 5 V reference of 50 to 250 mA gives way: there the set of codes changes within a few ohm
    short: [0.05, 0.4, 1.2, 3, 6, 10, 14, 18, 22, 26, 30, 35, 42, 60, 120, 400],
  },
  /** Relative rate of each mode; see docs/engine.md. Product judgement, no source. */
  prior: {
    groundHighResistance: 4, groundOpen: 2,
    spliceHighResistance: 2, spliceOpen: 1,
    contactHighResistance: 2, contactOpen: 1.5,
    wireOpen: 1, wireHighResistance: 0.5, wireToChassis: 0.6, wireToSupply: 0.15,
    fuseBlown: 3, fuseHighResistance: 0.5,
    switchOpen: 1, switchHighResistance: 1,
    sensorDead: 4, elementOpen: 3, internalShort: 2,
    referenceDead: 0.5, moduleUnpowered: 0.3, inputDamaged: 0.3,
    nothingWrong: 2, notInThisWiring: 1.5,
  },
  /** Multipliers by zone: [contacts, splices and grounds; wires; devices]. */
  zones: { dry: [1, 1, 1], wet: [3, 1.5, 1.2], hot: [1.3, 1.5, 1.5], oily: [1.5, 1.2, 1.2], vibrating: [1.8, 1.8, 1.2], chewed: [1, 4, 1] } as Readonly<Record<string, readonly [number, number, number]>>,

  /** Joint draws of everything not exactly known, the first one nominal. */
  draws: 8,
  /** Most node voltages computed for one machine state (severities × draws × nodes); above it draws are thinned. */
  predictionBudget: 10e6,

  plan: {
    /** Suspects below this share are left out of planning. */
    keepShare: 1e-4,
    enoughShare: 0.95,
    minutes: { key: 0.2, unplug: 0.5, plug: 0.5, voltage: 0.4, ohms: 0.6, fuse: 0.6, reachDefault: 1 },
  },
} as const;
