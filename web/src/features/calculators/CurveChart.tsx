"use client";
import { preferredUnit, toPreferred, type Curve, type Units } from "@radicula/core";
import { CartesianGrid, Line, LineChart, ReferenceDot, ResponsiveContainer, XAxis, YAxis } from "recharts";
import styles from "./Calculators.module.css";
import { t } from "@/messages";

const HEIGHT = 150;
/** Rows of the table: each so many points of the curve. */
const EVERY = 8;
const figures = (value: number) => Number(value.toPrecision(3));
const short = (value: number) =>
  Math.abs(value) >= 1e6
    ? `${figures(value / 1e6)}M`
    : Math.abs(value) >= 1e3
      ? `${figures(value / 1e3)}k`
      : `${figures(value)}`;

/** Round numbers from below the lowest to above the highest of some values, about five of them. */
function ticksOf(values: readonly number[]): number[] {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const rough = (high - low) / 5;
  const ten = 10 ** Math.floor(Math.log10(rough));
  const step = ten * ([1, 2, 5, 10].find((k) => k * ten >= rough) ?? 10);
  const first = Math.floor(low / step);
  const last = Math.ceil(high / step);
  return Array.from({ length: last - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(9)));
}
function decadesWithin(low: number, high: number): number[] {
  const first = Math.ceil(Math.log10(low));
  return Array.from({ length: Math.max(0, Math.floor(Math.log10(high)) - first + 1) }, (_, i) => 10 ** (first + i));
}

/** The curve that a sum runs along, with its values marked on it. */
export function CurveChart({
  curve,
  names,
  units,
}: {
  readonly curve: Curve;
  readonly names: Readonly<Record<string, string>>;
  readonly units: Units;
}) {
  const { x, y } = curve;
  const shown = (p: { readonly x: number; readonly y: number }) => ({
    x: toPreferred(p.x, x.unit, units),
    y: toPreferred(p.y, y.unit, units),
  });
  const [unitX, unitY] = [preferredUnit(x.unit, units), preferredUnit(y.unit, units)];
  const points = curve.points.map(shown);
  const here = shown(curve.here);
  const xs = points.map((p) => p.x);
  const [low, high] = [Math.min(...xs), Math.max(...xs)];
  const ticksX = x.isLog ? decadesWithin(low, high) : ticksOf(xs).filter((tick) => tick >= low && tick <= high);
  const ticksY = ticksOf(points.map((p) => p.y));
  const isOn = here.x >= low && here.x <= high;
  const said = t("calculators.at", {
    names: names[y.id],
    short: short(here.y),
    unitY,
    names2: names[x.id],
    short2: short(here.x),
    unitX,
  });
  return (
    <figure className={styles.curve}>
      <div
        role="img"
        aria-label={t("calculators.curve", { said, outside: isOn ? "" : t("calculators.outsideWhatIsDrawn") })}
      >
        <ResponsiveContainer width="100%" height={HEIGHT} initialDimension={{ width: 320, height: HEIGHT }}>
          <LineChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="x"
              type="number"
              scale={x.isLog ? "log" : "linear"}
              domain={[low, high]}
              ticks={ticksX}
              unit={` ${unitX}`}
              tickFormatter={short}
              tickLine={false}
              stroke="var(--muted)"
              fontSize={12}
            />
            <YAxis
              type="number"
              domain={[ticksY[0]!, ticksY.at(-1)!]}
              ticks={ticksY}
              unit={` ${unitY}`}
              tickFormatter={short}
              width={58}
              interval={0}
              tickLine={false}
              stroke="var(--muted)"
              fontSize={12}
            />
            <Line dataKey="y" stroke="var(--accent)" strokeWidth={3} dot={false} isAnimationActive={false} />
            {isOn ? (
              <ReferenceDot x={here.x} y={here.y} r={6} fill="var(--ink)" stroke="var(--card)" strokeWidth={2} />
            ) : null}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <details>
        <summary>{t("calculators.asATable")}</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">
                {names[x.id]}, {unitX}
              </th>
              <th scope="col">
                {names[y.id]}, {unitY}
              </th>
            </tr>
          </thead>
          <tbody className="mono">
            {points
              .filter((_, i) => i % EVERY === 0)
              .map((p) => (
                <tr key={p.x}>
                  <td>{short(p.x)}</td>
                  <td>{short(p.y)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
