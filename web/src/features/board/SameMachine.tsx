import type { JobSummary } from "@/server/repo/jobs";
import Link from "next/link";
import type { ReactNode } from "react";
import styles from "./Board.module.css";
import { waitsFor } from "./waitsFor";

const LINES: readonly (readonly [string, (job: JobSummary) => ReactNode])[] = [
  ["Started", (j) => j.createdAt.slice(0, 10)],
  ["What the customer says", (j) => j.complaint ?? "–"],
  ["Codes", (j) => (j.codes.length ? <span className="mono">{j.codes.join(" ")}</span> : "none")],
  ["Readings", (j) => j.readings],
  ["Cause found", (j) => j.verdict ?? "not yet"],
  ["Now", (j) => waitsFor(j)],
];

/** The jobs of one machine side by side: what comes back, and what was found before. */
export function SameMachine({ jobs }: { readonly jobs: readonly JobSummary[] }) {
  return (
    <div className={styles.scroll} tabIndex={0} role="region" aria-label="Jobs of this machine">
      <table className={styles.compare}>
        <thead>
          <tr>
            <td />
            {jobs.map((j) => (
              <th key={j.id} scope="col">
                <Link href={`/job/${j.id}`}>{j.title}</Link>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {LINES.map(([name, cell]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {jobs.map((j) => (
                <td key={j.id}>{cell(j)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
