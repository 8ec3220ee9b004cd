import type { JobSummary } from "@/server/repo/jobs";
import Link from "next/link";
import type { ReactNode } from "react";
import styles from "./Board.module.css";
import { waitsFor } from "./waitsFor";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

const LINES: readonly (readonly [string, (job: JobSummary) => ReactNode])[] = wordedList(() => [
  [t("board.started"), (j) => j.createdAt.slice(0, 10)],
  [t("board.whatTheCustomerSays"), (j) => j.complaint ?? "–"],
  [t("board.codes"), (j) => (j.codes.length ? <span className="mono">{j.codes.join(" ")}</span> : "none")],
  [t("board.readings"), (j) => j.readings],
  [t("board.causeFound"), (j) => j.verdict ?? t("board.notYet")],
  [t("board.now"), (j) => waitsFor(j)],
]);

/** The jobs of one machine side by side: what comes back, and what was found before. */
export function SameMachine({ jobs }: { readonly jobs: readonly JobSummary[] }) {
  return (
    <div className={styles.scroll} tabIndex={0} role="region" aria-label={t("board.jobsOfThisMachine")}>
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
