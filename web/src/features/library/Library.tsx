import Link from "next/link";
import { FindChoice, FindForm } from "@/features/site/FindForm";
import { PutAwayMenu } from "@/features/site/PutAwayMenu";
import { SiteHead } from "@/features/site/SiteHead";
import type { WiringSummary } from "@/server/repo/wirings";
import board from "../board/Board.module.css";
import styles from "./Library.module.css";
import { CopyButton, NewWiring } from "./NewWiring";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

export type Away = NonNullable<WiringSummary["putAway"]>;
const STATES: Readonly<Record<Away | "", string>> = worded(() => ({
  "": t("library.inTheLibrary"),
  archived: t("library.archived"),
  deleted: t("library.deleted"),
}));

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
          <h1>{t("library.wirings")}</h1>
          <NewWiring />
        </div>
        <FindForm
          path="/wirings"
          find={words}
          says={t("library.findASplicePartNumberCode")}
          label={t("library.find")}
          isFiltered={words !== "" || away !== undefined}
        >
          <FindChoice name="state" label={t("library.where")} value={away ?? ""} options={STATES} />
        </FindForm>
        {wirings.length === 0 ? (
          <p className={board.empty}>
            {words
              ? t("library.nothingHereHolds", { words })
              : away
                ? t("library.nothingIs", { away })
                : t("library.noWiringsYetTypeOneOr")}
          </p>
        ) : (
          <ul className={board.list}>
            {wirings.map((w) => (
              <li key={w.id} className={styles.wiring}>
                <Link href={`/wiring/${w.id}`} className={styles.name}>
                  <b>{w.name}</b>
                  <span className="muted">
                    {w.machineType || t("library.machineTypeNotNamed")}
                    {(same.get(w.name) ?? 0) > 1
                      ? t("library.changed", { changedAt: w.changedAt.slice(0, 16).replace("T", " ") })
                      : ""}
                  </span>
                </Link>
                <span className={styles.found}>
                  {w.found.map((f) => (
                    <span key={f}>{f}</span>
                  ))}
                </span>
                <span className="muted">
                  {t("library.lines", { rows: w.rows })} ·{" "}
                  {w.revision ? t("library.revision", { revision: w.revision }) : t("library.noRevisionYet")} ·{" "}
                  {t("library.jobs", { jobs: w.jobs })}
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
