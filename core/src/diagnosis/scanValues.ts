import type { ReadingEntry } from "../format/case.js";
import type { Device, ModulePinOf, Wiring } from "../format/wiring.js";
import { DEFAULTS } from "../defaults.js";
import { thermistorOhm } from "../network/laws.js";
import type { Predictor } from "../prediction/predictor.js";
import { convertScan, type ScanUnit } from "../units/scanUnit.js";
import { findNets } from "../wiring/nets.js";
import { devicePins } from "../wiring/points.js";

/** What a scan tool showed, as volts at the module's pin. */
export interface ScanVolts {
  readonly volt: number;
  /** how far off that may be, volt: the module's own curve is not known, or a word was said and no figure */
  readonly tolerance: number;
}
export type ScanRefused =
  { readonly why: "unit-does-not-fit"; readonly wanted: ScanUnit } | { readonly why: "no-curve" };

/** Judgement: how far a module's curve may stand off the one taken here, and how wide the words are, volt. */
const CURVE_VOLT = 0.12;
const GENERIC_CURVE_VOLT = 0.35;
const PLAUSIBLE_VOLT = 1;
const AT_END_VOLT = 0.2;

/**
 * A scan value in whatever unit it was shown, as volts at the module's pin: by the part's own curve, else by the usual
 * one of its kind (a thermistor by its table and the module's pull, a potentiometer in per cent of the reference).
 * @returns undefined where the value proves nothing: a frozen one may be a substitute
 */
export function scanVolts(
  predictor: Predictor,
  entry: ReadingEntry,
  shown: ReadingEntry["values"][number],
): ScanVolts | ScanRefused | undefined {
  const point = entry.points[0]!;
  if (shown === "frozen") return undefined;
  if (shown === "lowEnd") return { volt: 0, tolerance: AT_END_VOLT };
  if (shown === "highEnd") return { volt: DEFAULTS.module.referenceVolt, tolerance: AT_END_VOLT };
  if (shown === "plausible") {
    const volt = predictor.predictAt(0, { instrument: "scanTool", point, black: undefined, state: entry.state }).at(0);
    return Number.isNaN(volt) ? undefined : { volt, tolerance: PLAUSIBLE_VOLT };
  }
  if (typeof shown !== "number") return undefined;
  const unit = entry.unit ?? "V";
  if (unit === "V") return { volt: shown, tolerance: 0 };
  const part = partAt(predictor.wiring, point);
  return part ? byCurve(predictor.wiring, part, point, shown, unit) : { why: "no-curve" };
}

function partAt(wiring: Wiring, modulePin: string): Device | undefined {
  const nets = findNets(wiring);
  const net = nets.netOf.get(modulePin);
  return wiring.devices.find(
    (d) =>
      d.kind !== "module" &&
      devicePins(d).some((p) => /^(signal|high)/.test(p.role) && nets.netOf.get(p.at) === net && net !== undefined),
  );
}

function byCurve(wiring: Wiring, part: Device, point: string, value: number, unit: ScanUnit): ScanVolts | ScanRefused {
  const own = "transfer" in part ? part.transfer : undefined;
  if (own) {
    const x = convertScan(value, unit, own.unit);
    return x === undefined
      ? { why: "unit-does-not-fit", wanted: own.unit }
      : { volt: along(own.points, x), tolerance: CURVE_VOLT };
  }
  if (part.kind === "thermistor") {
    const celsius = convertScan(value, unit, "°C");
    if (celsius === undefined) return { why: "unit-does-not-fit", wanted: "°C" };
    const pin = inputAt(wiring, point);
    const d = DEFAULTS.thermistor;
    const ohm = thermistorOhm(part.ohm25 ?? d.ohm25, part.betaKelvin ?? d.betaKelvin, celsius);
    const volt = pin?.pullVolt ?? DEFAULTS.module.pullVolt;
    const pull = pin?.pullOhm ?? DEFAULTS.module.pullOhm.up;
    return { volt: (volt * ohm) / (ohm + pull), tolerance: GENERIC_CURVE_VOLT };
  }
  if (part.kind === "potentiometer" || part.kind === "pedal")
    return unit === "%"
      ? { volt: (DEFAULTS.module.referenceVolt * value) / 100, tolerance: GENERIC_CURVE_VOLT }
      : { why: "unit-does-not-fit", wanted: "%" };
  return { why: "no-curve" };
}
function inputAt(wiring: Wiring, point: string): ModulePinOf<"input"> | undefined {
  for (const d of wiring.devices)
    if (d.kind === "module") for (const p of d.pins) if (p.at === point && p.role === "input") return p;
  return undefined;
}

/** Volts for a value, straight between the points of a curve; its ends beyond them. */
function along(points: readonly (readonly [number, number])[], x: number): number {
  const sorted = [...points].sort((a, b) => a[1] - b[1]);
  const first = sorted[0]!;
  const last = sorted.at(-1)!;
  if (x <= first[1]) return first[0];
  if (x >= last[1]) return last[0];
  const i = sorted.findIndex(([, v]) => v >= x);
  const [v0, x0] = sorted[i - 1]!;
  const [v1, x1] = sorted[i]!;
  return v0 + ((v1 - v0) * (x - x0)) / (x1 - x0);
}
