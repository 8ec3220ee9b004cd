import { DEFAULTS } from "../defaults.js";
import { thermistorOhm, wireOhm } from "../network/laws.js";

/** What a calculator takes: a number with its unit, what it starts with, and what it can be. */
export interface Input {
  readonly id: string;
  readonly unit: string;
  readonly start: number;
  readonly low: number;
  readonly high: number;
}
export interface Output {
  readonly id: string;
  readonly unit: string;
  readonly value: number;
}
/** One sum of the trade, as data: names are worded elsewhere. Values outside the stated range give no result. */
export interface Calculator<K extends string = string> {
  readonly id: K;
  readonly inputs: readonly Input[];
  readonly compute: (x: Readonly<Record<string, number>>) => readonly Output[];
}

const input = (id: string, unit: string, start: number, low: number, high: number): Input => ({
  id,
  unit,
  start,
  low,
  high,
});
const out = (id: string, unit: string, value: number): Output => ({ id, unit, value });

/**
 * Ohm per metre of a copper conductor at a temperature: as the engine has it at 20 °C, times 1 + α·(t − 20), with
 * α = 0.00393 per kelvin (IEC 60028; value from memory).
 */
export const cableOhmPerMetre = (mm2: number, celsius: number): number =>
  (wireOhm({ mm2, lengthM: 1000 }) / 1000) * (1 + COPPER_PER_KELVIN * (celsius - 20));
/** Temperature coefficient of annealed copper at 20 °C, per kelvin (IEC 60028; value from memory). */
const COPPER_PER_KELVIN = 0.00393;

/**
 * Platinum thermometer, R/R0 = 1 + A·t + B·t² from 0 °C up, with C·(t − 100)·t³ below (IEC 60751; values from
 * memory).
 */
export function platinumRatio(celsius: number): number {
  const t = celsius;
  const base = 1 + 3.9083e-3 * t - 5.775e-7 * t * t;
  return t >= 0 ? base : base - 4.183e-12 * (t - 100) * t ** 3;
}
/** The other way round, by halving; °C. */
export const platinumCelsius = (ratio: number): number => invert((t) => platinumRatio(t), ratio, -200, 850);
/** Air pressure at a height, kPa: 101.325·(1 − 0.0065·h/288.15)^5.25588 (ISO 2533; values from memory). */
export const airPressure = (heightM: number): number => 101.325 * (1 - (0.0065 * heightM) / 288.15) ** 5.25588;
/** Temperature of a thermistor from its resistance, °C: the B equation turned round. */
export const thermistorCelsius = (ohm25: number, beta: number, ohm: number): number =>
  1 / (1 / 298.15 + Math.log(ohm / ohm25) / beta) - 273.15;

function invert(f: (x: number) => number, y: number, low: number, high: number): number {
  for (let i = 0; i < 60; i++) {
    const m = (low + high) / 2;
    if (f(m) < y) low = m;
    else high = m;
  }
  return (low + high) / 2;
}

export const CALCULATORS = [
  {
    id: "lamp",
    inputs: [
      input("watt", "W", 5, 0.1, 500),
      input("volt", "V", 12.6, 0.5, 60),
      input("circuitAmpere", "A", 0.5, 0.001, 500),
      input("duty", "%", 100, 1, 100),
    ],
    compute: (x) => {
      const ampere = x["watt"]! / x["volt"]!;
      const cold = ampere / DEFAULTS.lamp.coldShare;
      const mean = (ampere * x["duty"]!) / 100;
      return [
        out("lampAmpere", "A", ampere),
        out("coldAmpere", "A", cold),
        out("meanAmpere", "A", mean),
        out("shareOfCircuit", "%", (100 * ampere) / x["circuitAmpere"]!),
      ];
    },
  },
  {
    id: "wire",
    inputs: [
      input("mm2", "mm²", 0.75, 0.05, 240),
      input("length", "m", 6, 0.01, 1000),
      input("ampere", "A", 2, 0, 2000),
      input("celsius", "°C", 20, -40, 150),
    ],
    compute: (x) => {
      const ohm = cableOhmPerMetre(x["mm2"]!, x["celsius"]!) * x["length"]!;
      return [out("drop", "V", ohm * x["ampere"]!), out("ohm", "Ω", ohm), out("heat", "W", ohm * x["ampere"]! ** 2)];
    },
  },
  {
    id: "fuse",
    inputs: [input("millivolt", "mV", 12, 0, 2000), input("rating", "A", 10, 0.5, 200)],
    compute: (x) => {
      const ohm = DEFAULTS.fuseOhmAmpere / x["rating"]!;
      const ampere = x["millivolt"]! / 1000 / ohm;
      return [out("ampere", "A", ampere), out("shareOfRating", "%", (100 * ampere) / x["rating"]!)];
    },
  },
  {
    id: "divider",
    inputs: [
      input("pullVolt", "V", 5, 0.1, 60),
      input("pullOhm", "Ω", 2200, 1, 1e7),
      input("sensorOhm", "Ω", 2500, 0, 1e8),
      input("meterOhm", "Ω", 10e6, 1e3, 1e9),
    ],
    compute: (x) => {
      const below = 1 / (1 / Math.max(1e-9, x["sensorOhm"]!) + 1 / x["meterOhm"]!);
      return [
        out("volt", "V", (x["pullVolt"]! * below) / (below + x["pullOhm"]!)),
        out("ampere", "mA", (1000 * x["pullVolt"]!) / (below + x["pullOhm"]!)),
      ];
    },
  },
  {
    id: "thermistor",
    inputs: [
      input("ohm25", "Ω", 2500, 1, 1e6),
      input("beta", "K", 3435, 500, 8000),
      input("ohm", "Ω", 2500, 0.1, 1e8),
      input("pullVolt", "V", 5, 0.1, 60),
      input("pullOhm", "Ω", 2200, 1, 1e7),
    ],
    compute: (x) => {
      const t = thermistorCelsius(x["ohm25"]!, x["beta"]!, x["ohm"]!);
      return [
        out("celsius", "°C", t),
        out("volt", "V", (x["pullVolt"]! * x["ohm"]!) / (x["ohm"]! + x["pullOhm"]!)),
        out("ohmAt0", "Ω", thermistorOhm(x["ohm25"]!, x["beta"]!, 0)),
        out("ohmAt80", "Ω", thermistorOhm(x["ohm25"]!, x["beta"]!, 80)),
      ];
    },
  },
  {
    id: "platinum",
    inputs: [input("r0", "Ω", 100, 1, 10000), input("ohm", "Ω", 138.51, 1, 50000)],
    compute: (x) => {
      const ratio = x["ohm"]! / x["r0"]!;
      return ratio < platinumRatio(-200) || ratio > platinumRatio(850)
        ? []
        : [out("celsius", "°C", platinumCelsius(ratio)), out("ohmAt100", "Ω", x["r0"]! * platinumRatio(100))];
    },
  },
  {
    id: "pressure",
    inputs: [
      input("volt", "V", 2.5, 0, 30),
      input("reference", "V", 5, 0.1, 30),
      input("lowShare", "%", 10, 0, 100),
      input("highShare", "%", 90, 0, 100),
      input("lowPressure", "kPa", 0, -100, 1e6),
      input("highPressure", "kPa", 1000, -100, 1e6),
    ],
    compute: (x) => {
      const share = (100 * x["volt"]!) / x["reference"]!;
      const span = x["highShare"]! - x["lowShare"]!;
      return span <= 0
        ? []
        : [
            out("share", "%", share),
            out(
              "pressure",
              "kPa",
              x["lowPressure"]! + ((share - x["lowShare"]!) / span) * (x["highPressure"]! - x["lowPressure"]!),
            ),
          ];
    },
  },
  {
    id: "height",
    inputs: [input("height", "m", 0, -500, 11000)],
    compute: (x) => [out("pressure", "kPa", airPressure(x["height"]!))],
  },
  {
    id: "duty",
    inputs: [input("duty", "%", 40, 0, 100), input("volt", "V", 12.6, 0, 60), input("ohm", "Ω", 12, 0.01, 1e6)],
    compute: (x) => {
      const d = x["duty"]! / 100;
      return [
        out("averageVolt", "V", d * x["volt"]!),
        out("averageAmpere", "A", (d * x["volt"]!) / x["ohm"]!),
        out("watt", "W", (d * x["volt"]! ** 2) / x["ohm"]!),
      ];
    },
  },
  {
    id: "heaters",
    inputs: [
      input("ohm1", "Ω", 0.6, 0.001, 1e4),
      input("ohm2", "Ω", 0.6, 0.001, 1e4),
      input("ohm3", "Ω", 0, 0, 1e4),
      input("ohm4", "Ω", 0, 0, 1e4),
      input("volt", "V", 12, 0.1, 60),
    ],
    compute: (x) => {
      const list = [1, 2, 3, 4].map((i) => x[`ohm${i}`]!).filter((r) => r > 0);
      const ohm = 1 / list.reduce((sum, r) => sum + 1 / r, 0);
      return [out("ohm", "Ω", ohm), out("ampere", "A", x["volt"]! / ohm), out("watt", "W", x["volt"]! ** 2 / ohm)];
    },
  },
] as const satisfies readonly Calculator[];
export type CalculatorId = (typeof CALCULATORS)[number]["id"];

/** @returns results, or the inputs that are missing or outside what they can be */
export function calculate(
  id: CalculatorId,
  values: Readonly<Record<string, number | undefined>>,
): { readonly outputs: readonly Output[]; readonly wrong: readonly string[] } {
  const c: Calculator = CALCULATORS.find((x) => x.id === id)!;
  const wrong = c.inputs
    .filter((i) => {
      const v = values[i.id];
      return v === undefined || !Number.isFinite(v) || v < i.low || v > i.high;
    })
    .map((i) => i.id);
  if (wrong.length) return { outputs: [], wrong };
  return {
    outputs: c.compute(values as Readonly<Record<string, number>>).filter((o) => Number.isFinite(o.value)),
    wrong,
  };
}
