"use client";
import type { HeldBand } from "@radicula/core";
import { bandText, REPAIR_WORDS } from "@radicula/core/words";
import {
  CartesianGrid,
  ErrorBar,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  XAxis,
  YAxis,
} from "recharts";
import { useState } from "react";
import styles from "./Notebook.module.css";

const percent = (x: number) => `${Math.round(100 * x)} %`;

interface Props {
  readonly bands: readonly HeldBand[];
  readonly work: readonly { readonly how: string; readonly asked: number; readonly held: number }[];
}

/** What was claimed when jobs were closed, against what people said later: a chart, and the same in numbers. */
export function HowOftenHeld({ bands, work }: Props) {
  const asked = bands.reduce((sum, b) => sum + b.asked, 0);
  const held = bands.reduce((sum, b) => sum + b.held, 0);
  const [isOpen, setOpen] = useState(false);
  if (asked === 0)
    return <p className={styles.says}>Nobody was asked yet whether a repair held. The board says when to ask.</p>;
  return (
    <details className={styles.held} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        {held} of {asked} repairs held when somebody asked later
      </summary>
      {isOpen ? <HeldInNumbers bands={bands} work={work} /> : null}
    </details>
  );
}

function HeldInNumbers({ bands, work }: Props) {
  const points = bands.flatMap((b) =>
    b.share === undefined
      ? []
      : [
          {
            claimed: 100 * b.claimed!,
            held: 100 * b.share,
            room: [100 * (b.share - b.low!), 100 * (b.high! - b.share)],
          },
        ],
  );
  // proofs below a half are hardly ever closed: the chart begins there unless one was
  const least = points.some((p) => p.claimed < 50) ? 0 : 50;
  const axis = { stroke: "var(--muted)", fontSize: 13 };
  return (
    <div className={styles.numbers}>
      <div>
        <table>
          <thead>
            <tr>
              <th scope="col">Proof said</th>
              <th scope="col">Closed</th>
              <th scope="col">Held, of those asked</th>
              <th scope="col">Nine times in ten between</th>
            </tr>
          </thead>
          <tbody>
            {bands
              .filter((b) => b.proofs > 0)
              .map((b) => (
                <tr key={b.from}>
                  <th scope="row">{bandText(b)}</th>
                  <td>{b.proofs}</td>
                  <td>{b.asked ? `${b.held} of ${b.asked}` : "nobody asked"}</td>
                  <td>{b.low === undefined ? "–" : `${percent(b.low)} and ${percent(b.high!)}`}</td>
                </tr>
              ))}
          </tbody>
        </table>
        <p className="muted">{work.map((w) => `${wordOf(w.how)}: ${w.held} of ${w.asked} held`).join(" · ")}</p>
      </div>
      <figure className={styles.chart} aria-hidden="true">
        <ResponsiveContainer width="100%" height={230}>
          <ScatterChart margin={{ top: 8, right: 16, bottom: 24, left: 0 }}>
            <CartesianGrid stroke="var(--line)" />
            <XAxis
              type="number"
              dataKey="claimed"
              domain={[least, 100]}
              ticks={[...[0, 25].filter((t) => t >= least), 50, 75, 100]}
              {...axis}
              label={{ value: "claimed, %", position: "bottom", offset: 4, fill: "var(--muted)", fontSize: 13 }}
            />
            <YAxis
              type="number"
              dataKey="held"
              domain={[0, 100]}
              ticks={[0, 25, 50, 75, 100]}
              {...axis}
              width={44}
              label={{ value: "held, %", angle: -90, position: "insideLeft", fill: "var(--muted)", fontSize: 13 }}
            />
            <ReferenceLine
              segment={[
                { x: least, y: least },
                { x: 100, y: 100 },
              ]}
              stroke="var(--muted)"
              strokeDasharray="5 4"
            />
            <Scatter data={points} fill="var(--accent)" isAnimationActive={false}>
              <ErrorBar dataKey="room" direction="y" stroke="var(--accent)" width={6} />
            </Scatter>
          </ScatterChart>
        </ResponsiveContainer>
      </figure>
    </div>
  );
}
const wordOf = (how: string) => (REPAIR_WORDS as Readonly<Record<string, string>>)[how] ?? how;
