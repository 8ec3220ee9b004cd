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
import { t } from "@/messages";

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
  if (asked === 0) return <p className={styles.says}>{t("notebook.nobodyWasAskedYetWhetherA")}</p>;
  return (
    <details className={styles.held} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{t("notebook.ofRepairsHeldWhenSomebodyAsked", { held, asked })}</summary>
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
              <th scope="col">{t("notebook.proofSaid")}</th>
              <th scope="col">{t("notebook.closed")}</th>
              <th scope="col">{t("notebook.heldOfThoseAsked")}</th>
              <th scope="col">{t("notebook.nineTimesInTenBetween")}</th>
            </tr>
          </thead>
          <tbody>
            {bands
              .filter((b) => b.proofs > 0)
              .map((b) => (
                <tr key={b.from}>
                  <th scope="row">{bandText(b)}</th>
                  <td>{b.proofs}</td>
                  <td>{b.asked ? t("notebook.of", { held: b.held, asked: b.asked }) : t("notebook.nobodyAsked")}</td>
                  <td>
                    {b.low === undefined
                      ? "–"
                      : t("notebook.and", { percent: percent(b.low), percent2: percent(b.high!) })}
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
        <p className="muted">
          {work.map((w) => t("notebook.ofHeld", { work: wordOf(w.how), held: w.held, asked: w.asked })).join(" · ")}
        </p>
      </div>
      <figure className={styles.chart} aria-hidden="true">
        <ResponsiveContainer width="100%" height={230}>
          <ScatterChart margin={{ top: 8, right: 16, bottom: 24, left: 0 }}>
            <CartesianGrid stroke="var(--line)" />
            <XAxis
              type="number"
              dataKey="claimed"
              domain={[least, 100]}
              ticks={[...[0, 25].filter((tick) => tick >= least), 50, 75, 100]}
              {...axis}
              label={{
                value: t("notebook.claimedAxis"),
                position: "bottom",
                offset: 4,
                fill: "var(--muted)",
                fontSize: 13,
              }}
            />
            <YAxis
              type="number"
              dataKey="held"
              domain={[0, 100]}
              ticks={[0, 25, 50, 75, 100]}
              {...axis}
              width={44}
              label={{
                value: t("notebook.heldAxis"),
                angle: -90,
                position: "insideLeft",
                fill: "var(--muted)",
                fontSize: 13,
              }}
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
