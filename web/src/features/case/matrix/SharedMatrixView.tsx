import type { SharedMatrix as Matrix, SharedRow } from "@radicula/core";
import { sharedText, thingText, type Namer, worded } from "@radicula/core/words";
import styles from "./SharedMatrix.module.css";
import { t } from "@/messages";

const KIND: Readonly<Record<SharedRow["kind"], string>> = worded(() => ({
  splice: t("matrix.splice"),
  ground: t("matrix.ground"),
  fuse: t("matrix.fuse"),
  switch: t("matrix.switch"),
  relay: t("matrix.relay"),
  cavity: t("matrix.inLineCavity"),
  modulePin: t("matrix.modulePin"),
  wire: t("matrix.wire"),
  part: t("matrix.part"),
}));
const ROWS = 14;
const HEALTHY = 10;
const SAME = 4;

/**
 * Coded circuits against what they share, from the drawing alone: who passes through what, and which healthy circuits
 * argue against it.
 */
export function SharedMatrixView({
  matrix,
  namer,
  unnamed,
  onName,
}: {
  readonly matrix: Matrix;
  readonly namer: Namer;
  readonly unnamed: readonly string[];
  readonly onName: () => void;
}) {
  const healthy = matrix.healthy.slice(0, HEALTHY);
  const rows = matrix.rows.slice(0, ROWS);
  return (
    <div className={styles.matrix}>
      {unnamed.length ? (
        <p className={styles.unnamed}>
          {t("matrix.whichPartIsNotKnownSo", { unnamed: unnamed.join(", "), count: unnamed.length })}{" "}
          <button type="button" className="link" onClick={onName}>
            {t("matrix.sayWhich")}
          </button>
        </p>
      ) : null}
      <p className={styles.sum}>{sharedText(matrix)}</p>
      {rows.length ? (
        <div className={styles.scroll} tabIndex={0} role="region" aria-label={t("matrix.whatTheCircuitsShareAsA")}>
          <table>
            <thead>
              <tr>
                <th scope="col">{t("matrix.shared")}</th>
                {matrix.coded.map((d) => (
                  <th key={d} scope="col" className={styles.coded} title={namer.device(d)}>
                    {d}
                  </th>
                ))}
                {healthy.map((d) => (
                  <th
                    key={d}
                    scope="col"
                    className={styles.healthy}
                    title={t("matrix.noCode", { device: namer.device(d) })}
                  >
                    {d}
                  </th>
                ))}
                {matrix.healthy.length > HEALTHY ? (
                  <th scope="col" className={styles.healthy}>
                    +{matrix.healthy.length - HEALTHY}
                  </th>
                ) : null}
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.thing}>
                  <th scope="row">
                    <b className="mono">{thingText(r.thing)}</b>{" "}
                    <span className="muted">
                      {KIND[r.kind]}
                      {r.same.length
                        ? t("matrix.theSameCircuits", {
                            same: r.same.slice(0, SAME).map(thingText).join(", "),
                            more: r.same.length > SAME ? t("matrix.andMore", { sameCount: r.same.length - SAME }) : "",
                          })
                        : ""}
                    </span>
                  </th>
                  {matrix.coded.map((d) => (
                    <td key={d}>
                      {r.coded.includes(d) ? (
                        <i className={styles.dot} role="img" aria-label={t("matrix.codedPasses")} />
                      ) : null}
                    </td>
                  ))}
                  {healthy.map((d) => (
                    <td key={d}>
                      {r.healthy.includes(d) ? (
                        <i className={styles.ring} role="img" aria-label={t("matrix.healthyPasses")} />
                      ) : null}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      {rows.length ? (
        <p className={styles.legend}>
          <span>
            <i className={styles.dot} /> {t("matrix.codedAndPassesThrough")}
          </span>
          <span>
            <i className={styles.ring} /> {t("matrix.passesThroughAndWorksPointsAway")}
          </span>
          {matrix.rows.length > ROWS ? (
            <span>{t("matrix.moreRowsSharedByFewer", { rowsCount: matrix.rows.length - ROWS })}</span>
          ) : null}
        </p>
      ) : null}
    </div>
  );
}
