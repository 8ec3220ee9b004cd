"use client";
import { keyText } from "@radicula/core/words";
import { Select } from "antd";
import { useMemo, useState } from "react";
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import course from "../course/Course.module.css";
import { useCase } from "../session/caseContext";
import styles from "./Profile.module.css";
import { leaderAt, pinChoices, profileRows, type ProfileRow } from "./rows";
import { t } from "@/messages";

const volts = (v: number | undefined) => (v === undefined ? "–" : `${v.toFixed(2)} V`);

/** The voltage along a wire, from the module to a plug: healthy, as the leading suspect would have it, and as read. */
export function Profile() {
  const { wiring, folded, analysis, next, namer, codes } = useCase();
  const choices = useMemo(() => pinChoices(wiring, codes.matrix.coded, namer), [wiring, codes, namer]);
  const offered = next.candidate?.points[0];
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const pin = chosen ?? choices.find((c) => c.value === offered)?.value ?? choices[0]?.value;
  const leader = useMemo(() => leaderAt(wiring, analysis), [wiring, analysis]);
  const asked = next.candidate?.state ?? folded.state;
  const { rows, state } = useMemo(
    () => (pin === undefined ? { rows: [], state: asked } : profileRows(wiring, pin, folded, leader, asked)),
    [wiring, pin, folded, leader, asked],
  );
  if (pin === undefined) return <p className={styles.none}>{t("profile.codesComeFirstThenThereIs")}</p>;
  const suspect = leader && namer.fault(leader.fault);
  const unplugged = state.unplugged.length
    ? t("profile.unplugged", { unplugged: state.unplugged.join(t("profile.andJoin")) })
    : "";
  return (
    <div className={course.course}>
      <div className={styles.head}>
        <Select
          aria-label={t("profile.wireToWhichPin")}
          value={pin}
          options={choices}
          onChange={setChosen}
          showSearch={{ optionFilterProp: "label" }}
          style={{ minWidth: 260 }}
        />
        <span className="muted">
          {keyText(state.key)}
          {unplugged}
        </span>
      </div>
      <ul className={course.legend}>
        <li>
          <Mark colour="var(--accent)" dash="6 3" /> {t("profile.healthy")}
        </li>
        {suspect ? (
          <li>
            <Mark colour="var(--rust)" dash="" /> {t("profile.ifItIs", { suspect })}
          </li>
        ) : null}
        <li>
          <svg width="14" height="14" aria-hidden="true">
            <circle cx="7" cy="7" r="5" fill="var(--ink)" />
          </svg>
          {t("profile.read")}
        </li>
      </ul>
      {rows.length ? <Drawn rows={rows} /> : <p className={styles.none}>{t("profile.noWireLeadsFromThisPin")}</p>}
      <details className={styles.table}>
        <summary>{t("profile.asATable")}</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">{t("profile.point")}</th>
              <th scope="col">{t("profile.healthy2")}</th>
              <th scope="col">{t("profile.withTheSuspect")}</th>
              <th scope="col">{t("profile.read2")}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.point}>
                <th scope="row">{r.point}</th>
                <td>{volts(r.healthy)}</td>
                <td>{volts(r.suspected)}</td>
                <td>{volts(r.measured)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </div>
  );
}

const Mark = ({ colour, dash }: { readonly colour: string; readonly dash: string }) => (
  <svg width="30" height="8" aria-hidden="true">
    <line x1="0" x2="30" y1="4" y2="4" stroke={colour} strokeWidth="3" strokeDasharray={dash} />
  </svg>
);

function Drawn({ rows }: { readonly rows: readonly ProfileRow[] }) {
  const said = rows.map((r) => `${r.point} ${volts(r.measured ?? r.healthy)}`).join(", ");
  return (
    <div className={course.chart} role="img" aria-label={t("profile.voltageAlongTheWire", { said })}>
      <ResponsiveContainer width="100%" height={300} initialDimension={{ width: 700, height: 300 }}>
        <LineChart data={[...rows]} margin={{ top: 12, right: 28, bottom: 8, left: 0 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis
            dataKey="point"
            stroke="var(--muted)"
            tickLine={false}
            interval={0}
            padding={{ left: 24, right: 24 }}
          />
          <YAxis unit=" V" width={64} stroke="var(--muted)" tickLine={false} />
          <Tooltip
            formatter={(v) => volts(Number(v))}
            contentStyle={{ background: "var(--card)", border: "1px solid var(--line)", borderRadius: 8 }}
          />
          <Line
            dataKey="suspected"
            name="with the suspect"
            stroke="var(--rust)"
            strokeWidth={5}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="healthy"
            name="healthy"
            stroke="var(--accent)"
            strokeDasharray="6 3"
            strokeWidth={3}
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="measured"
            name="read"
            stroke="none"
            dot={{ r: 6, fill: "var(--ink)", stroke: "var(--paper)", strokeWidth: 2 }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
