"use client";
import type { CoursePoint, SuspectView } from "@radicula/core";
import { shareText, type Namer } from "@radicula/core/words";
import { useEffect, useState } from "react";
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import styles from "./Course.module.css";
import { t } from "@/messages";

const LINES = ["var(--rust)", "var(--accent)", "var(--muted)", "#8a6fae"];
const DASHES = ["", "6 3", "2 3", "8 2 2 2"];

/** How suspicion on the leading places went, entry by entry. */
export function Course({
  suspects,
  entries,
  courseOf,
  namer,
}: {
  readonly suspects: readonly SuspectView[];
  readonly entries: number;
  readonly courseOf: (ids: readonly string[]) => Promise<readonly CoursePoint[]>;
  readonly namer: Namer;
}) {
  const places = suspects
    .filter((s) => s.places.length)
    .slice(0, LINES.length)
    .map((s) => s.places[0]!);
  const key = places.map((p) => p.id).join(" ");
  const [course, setCourse] = useState<readonly CoursePoint[]>([]);
  useEffect(() => {
    let here = true;
    void courseOf(key.split(" ").filter(Boolean)).then((c) => {
      if (here) setCourse(c);
    });
    return () => {
      here = false;
    };
  }, [courseOf, key, entries]);
  const rows = course.map((c) => ({
    number: c.number,
    ...Object.fromEntries(places.map((p, i) => [`s${i}`, Math.round(100 * (c.shares[p.id] ?? 0))])),
  }));
  return (
    <div className={styles.course}>
      <ul className={styles.legend}>
        {places.map((p, i) => (
          <li key={p.id}>
            <svg width="30" height="8" aria-hidden="true">
              <line x1="0" x2="30" y1="4" y2="4" stroke={LINES[i]} strokeWidth="3" strokeDasharray={DASHES[i]} />
            </svg>
            {namer.place(p)} <span className="mono">{shareText(course.at(-1)?.shares[p.id] ?? 0)}</span>
          </li>
        ))}
      </ul>
      <div
        className={styles.chart}
        role="img"
        aria-label={t("course.suspicionAfterEachEntry", {
          places: places.map((p) => sharesText(p.id, course)).join("; "),
        })}
      >
        <ResponsiveContainer width="100%" height={300} initialDimension={{ width: 700, height: 300 }}>
          <LineChart data={rows} margin={{ top: 8, right: 16, bottom: 20, left: 0 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="number"
              stroke="var(--muted)"
              tickLine={false}
              label={{ value: t("course.logbookEntry"), position: "bottom", fill: "var(--muted)", fontSize: 13 }}
            />
            <YAxis domain={[0, 100]} unit=" %" width={56} stroke="var(--muted)" tickLine={false} />
            <Tooltip
              formatter={(v) => `${String(v)} %`}
              labelFormatter={(n) => t("course.afterEntry", { n: String(n) })}
              contentStyle={{ background: "var(--card)", border: "1px solid var(--line)", borderRadius: 8 }}
            />
            {places.map((p, i) => (
              <Line
                key={p.id}
                dataKey={`s${i}`}
                name={namer.short(p)}
                stroke={LINES[i]!}
                strokeDasharray={DASHES[i]!}
                strokeWidth={2.5}
                dot={{ r: 2.5 }}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
    </div>
  );
}

const sharesText = (id: string, course: readonly CoursePoint[]) =>
  t("course.percent", { id, course: course.map((c) => Math.round(100 * (c.shares[id] ?? 0))).join(", ") });
