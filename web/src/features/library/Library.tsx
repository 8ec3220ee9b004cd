import Link from "next/link";
import { FindChoice, FindForm } from "@/features/site/FindForm";
import { PutAwayMenu } from "@/features/site/PutAwayMenu";
import { SiteHead } from "@/features/site/SiteHead";
import type { WiringSummary } from "@/server/repo/wirings";
import board from "../board/Board.module.css";
import styles from "./Library.module.css";
import { CopyButton, NewWiring } from "./NewWiring";

export type Away = NonNullable<WiringSummary["putAway"]>;
const STATES: Readonly<Record<Away | "", string>> = {
  "": "In the library",
  archived: "Archived",
  deleted: "Deleted",
};

/** All wirings of the workshop: found by anything that stands in them, copied, opened. */
export function Library({
  wirings,
  words,
  away,
}: {
  readonly wirings: readonly WiringSummary[];
  readonly words: string;
  readonly away: Away | undefined;
}) {
  const same = new Map<string, number>();
  for (const w of wirings) same.set(w.name, (same.get(w.name) ?? 0) + 1);
  return (
    <div className={board.page}>
      <SiteHead here="wirings" />
      <main id="content">
        <div className={board.title}>
          <h1>Wirings</h1>
          <NewWiring />
        </div>
        <FindForm
          path="/wirings"
          find={words}
          says="Find a splice, part number, code, place"
          label="Find"
          isFiltered={words !== "" || away !== undefined}
        >
          <FindChoice name="state" label="Where" value={away ?? ""} options={STATES} />
        </FindForm>
        {wirings.length === 0 ? (
          <p className={board.empty}>
            {words
              ? `Nothing here holds "${words}".`
              : away
                ? `Nothing is ${away}.`
                : "No wirings yet. Type one, or open a file."}
          </p>
        ) : (
          <ul className={board.list}>
            {wirings.map((w) => (
              <li key={w.id} className={styles.wiring}>
                <Link href={`/wiring/${w.id}`} className={styles.name}>
                  <b>{w.name}</b>
                  <span className="muted">
                    {w.machineType || "machine type not named"}
                    {(same.get(w.name) ?? 0) > 1 ? ` · changed ${w.changedAt.slice(0, 16).replace("T", " ")}` : ""}
                  </span>
                </Link>
                <span className={styles.found}>
                  {w.found.map((f) => (
                    <span key={f}>{f}</span>
                  ))}
                </span>
                <span className="muted">
                  {w.rows === 1 ? "1 line" : `${w.rows} lines`} ·{" "}
                  {w.revision ? `revision ${w.revision}` : "no revision yet"} ·{" "}
                  {w.jobs === 1 ? "1 job" : `${w.jobs} jobs`}
                </span>
                <CopyButton id={w.id} />
                <PutAwayMenu kind="wirings" id={w.id} name={w.name} where={w.putAway} />
              </li>
            ))}
          </ul>
        )}
      </main>
    </div>
  );
}
