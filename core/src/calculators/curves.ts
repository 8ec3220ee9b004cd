import { thermistorOhm } from "../network/laws.js";
import { calculate, CALCULATORS, platinumRatio, type Calculator, type CalculatorId } from "./calculators.js";

type Values = Readonly<Record<string, number>>;
/** What a curve runs over, and what is drawn against what: ids of inputs or outputs. */
interface CurveOver {
  readonly over: string;
  readonly x: string;
  readonly y: string;
  readonly isLog?: boolean;
  /** the values of `over`, in order */
  readonly sweep: (given: Values) => readonly number[];
}
export interface Axis {
  readonly id: string;
  readonly unit: string;
  readonly isLog: boolean;
}
/** A curve through the values that are given, in the units of storage. */
export interface Curve {
  readonly x: Axis;
  readonly y: Axis;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  /** where the given values lie on it */
  readonly here: { readonly x: number; readonly y: number };
}

/** Points of a curve. */
const STEPS = 48;
const evenly = (from: number, to: number): readonly number[] =>
  Array.from({ length: STEPS + 1 }, (_, i) => from + ((to - from) * i) / STEPS);
/** A pull-up tells ohms apart within two decades of its own; thermistors as hot and cold as machines get, °C. */
const DECADES = 2;
const COLD = -40;
const HOT = 150;

const CURVES: Readonly<Partial<Record<CalculatorId, CurveOver>>> = {
  divider: {
    over: "sensorOhm",
    x: "sensorOhm",
    y: "volt",
    isLog: true,
    sweep: (given) => evenly(-DECADES, DECADES).map((decade) => given["pullOhm"]! * 10 ** decade),
  },
  thermistor: {
    over: "ohm",
    x: "celsius",
    y: "volt",
    sweep: (given) => evenly(COLD, HOT).map((t) => thermistorOhm(given["ohm25"]!, given["beta"]!, t)),
  },
  platinum: {
    over: "ohm",
    x: "celsius",
    y: "ohm",
    sweep: (given) => evenly(-100, 400).map((t) => given["r0"]! * platinumRatio(t)),
  },
  pressure: {
    over: "volt",
    x: "volt",
    y: "pressure",
    sweep: (given) =>
      evenly(given["lowShare"]!, given["highShare"]!).map((share) => (given["reference"]! * share) / 100),
  },
};

/**
 * The curve of a calculator with the values given on it: volts against ohms of a pulled-up signal, and the like.
 * @returns undefined for one that has no curve, and where nothing follows from the values
 */
export function curveOf(id: CalculatorId, values: Readonly<Record<string, number | undefined>>): Curve | undefined {
  const curve = CURVES[id];
  if (!curve) return undefined;
  const { inputs }: Calculator = CALCULATORS.find((c) => c.id === id)!;
  const at = (given: Readonly<Record<string, number | undefined>>) => {
    const { outputs } = calculate(id, given);
    const all = [
      ...inputs.map((i) => ({ id: i.id, unit: i.unit, value: given[i.id] })),
      ...outputs.map((o) => ({ ...o, value: o.value as number | undefined })),
    ];
    const [x, y] = [curve.x, curve.y].map((name) => all.find((o) => o.id === name));
    return outputs.length && x?.value !== undefined && y?.value !== undefined
      ? { x: { ...x, value: x.value }, y: { ...y, value: y.value } }
      : undefined;
  };
  const here = at(values);
  if (!here) return undefined;
  const points = curve.sweep(values as Values).flatMap((over) => {
    const point = at({ ...values, [curve.over]: over });
    return point ? [{ x: point.x.value, y: point.y.value }] : [];
  });
  // a flat curve, or one of which next to nothing is within what the sum takes, shows nothing
  const isFlat = (["x", "y"] as const).some((k) => new Set(points.map((p) => p[k])).size < 2);
  if (isFlat) return undefined;
  return {
    x: { id: curve.x, unit: here.x.unit, isLog: curve.isLog ?? false },
    y: { id: curve.y, unit: here.y.unit, isLog: false },
    points,
    here: { x: here.x.value, y: here.y.value },
  };
}
