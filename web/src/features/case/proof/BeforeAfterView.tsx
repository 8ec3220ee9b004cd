"use client";
import { beforeAfter, type BeforeAfter as Pair } from "@radicula/core";
import { keyText, readingValue } from "@radicula/core/words";
import { useMemo } from "react";
import { Bar, BarChart, CartesianGrid, LabelList, ResponsiveContainer, XAxis, YAxis } from "recharts";
import course from "../course/Course.module.css";
import profile from "../profile/Profile.module.css";
import { useCase } from "../session/caseContext";
import { healthyOf, pairCharts, type PairChart } from "./pairs";
import { t } from "@/messages";

/** Height of one place in the chart: three bars, and room between places. */
const ROW = 74;
const AXIS = 44;
const BAR = 15;

/** What was read before the repair and again after it, side by side, with what a sound machine shows. */
export function BeforeAfterView() {
  const { wiring, folded, log, namer } = useCase();
  const repair = folded.repairs.at(-1)?.number;
  const pairs = useMemo(() => (repair === undefined ? [] : beforeAfter(log.entries, repair)), [log.entries, repair]);
  const healthy = useMemo(() => healthyOf(wiring, pairs, folded.readings), [wiring, folded, pairs]);
  if (repair === undefined) return <p className={profile.none}>{t("proof.beforeAfterNeedsARepair")}</p>;
  if (pairs.length === 0) return <p className={profile.none}>{t("proof.beforeAfterNeedsAReading")}</p>;
  const charts = pairCharts(pairs, healthy, (p) => namer.point(p.point));
  const shown = (p: Pair, v: Pair["after"]["value"] | undefined) => (v === undefined ? "–" : readingValue(p, v));
  return (
    <div className={course.course}>
      <ul className={course.legend}>
        {BARS.map(({ key, colour }) => (
          <li key={key}>
            <svg width="22" height="12" aria-hidden="true">
              <rect width="22" height="12" rx="3" style={colour} />
            </svg>
            {said()[key]}
          </li>
        ))}
      </ul>
      {charts.map((chart) => (
        <Drawn key={`${chart.instrument} ${chart.unit ?? ""}`} chart={chart} />
      ))}
      <details className={profile.table} open={charts.length === 0}>
        <summary>{t("proof.asATable")}</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">{t("proof.measuredAt")}</th>
              <th scope="col">{t("proof.key")}</th>
              {BARS.map(({ key }) => (
                <th key={key} scope="col">
                  {said()[key]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {pairs.map((p, i) => (
              <tr key={`${p.instrument} ${p.after.number} ${p.point}`}>
                <th scope="row">{namer.point(p.point)}</th>
                <td>
                  {keyText(p.state.key)}
                  {p.state.unplugged.length ? t("proof.unplugged", { unplugged: p.state.unplugged }) : ""}
                </td>
                <td>{shown(p, healthy.get(i))}</td>
                <td>{shown(p, p.before.value)}</td>
                <td>{shown(p, p.after.value)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </div>
  );
}

/** Three bars a place, each told from the others by its edge as well as by its colour. */
const BARS = [
  { key: "healthy", colour: { fill: "none", stroke: "var(--muted)", strokeWidth: 2, strokeDasharray: "4 3" } },
  { key: "before", colour: { fill: "var(--rust)" } },
  { key: "after", colour: { fill: "var(--accent)" } },
] as const;
const said = () => ({ healthy: t("proof.healthy"), before: t("proof.beforeTheRepair"), after: t("proof.afterIt") });

function Drawn({ chart }: { readonly chart: PairChart }) {
  const { rows } = chart;
  const value = (v: number) => readingValue(chart, v);
  const label = rows
    .map((r) => t("proof.pairSaid", { at: r.name, before: value(r.before), after: value(r.after) }))
    .join("; ");
  const height = rows.length * ROW + AXIS;
  return (
    <div role="img" aria-label={label} style={{ height, fontSize: 14 }}>
      <ResponsiveContainer width="100%" height={height} initialDimension={{ width: 700, height }}>
        <BarChart data={[...rows]} layout="vertical" barGap={2} margin={{ top: 4, right: 96, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--line)" horizontal={false} />
          <XAxis type="number" tickFormatter={value} stroke="var(--muted)" tickLine={false} />
          <YAxis type="category" dataKey="name" width={150} stroke="var(--ink)" tickLine={false} axisLine={false} />
          {BARS.map(({ key, colour }) => (
            <Bar key={key} dataKey={key} barSize={BAR} isAnimationActive={false} radius={[0, 3, 3, 0]} {...colour}>
              <LabelList
                dataKey={key}
                position="right"
                fill="var(--ink)"
                stroke="none"
                formatter={(v) => (typeof v === "number" ? value(v) : "")}
              />
            </Bar>
          ))}
        </BarChart>
      </ResponsiveContainer>
    </div>
  );
}
