import type { SharedMatrix as Matrix, SharedRow } from "@radicula/core";
import { sharedText, thingText, type Namer } from "@radicula/core/words";
import styles from "./SharedMatrix.module.css";

const KIND: Readonly<Record<SharedRow["kind"], string>> = {
  splice: "splice",
  ground: "ground",
  fuse: "fuse",
  switch: "switch",
  relay: "relay",
  cavity: "in-line cavity",
  modulePin: "module pin",
  wire: "wire",
  part: "part",
};
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
          {unnamed.join(", ")}: which part {unnamed.length === 1 ? "it names" : "they name"} is not known, so{" "}
          {unnamed.length === 1 ? "it is" : "they are"} not in this table.{" "}
          <button type="button" className="link" onClick={onName}>
            Say which
          </button>
        </p>
      ) : null}
      <p className={styles.sum}>{sharedText(matrix)}</p>
      {rows.length ? (
        <div className={styles.scroll} tabIndex={0} role="region" aria-label="What the circuits share, as a table">
          <table>
            <thead>
              <tr>
                <th scope="col">Shared</th>
                {matrix.coded.map((d) => (
                  <th key={d} scope="col" className={styles.coded} title={namer.device(d)}>
                    {d}
                  </th>
                ))}
                {healthy.map((d) => (
                  <th key={d} scope="col" className={styles.healthy} title={`${namer.device(d)}, no code`}>
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
                        ? `; the same circuits: ${r.same.slice(0, SAME).map(thingText).join(", ")}` +
                          `${r.same.length > SAME ? ` and ${r.same.length - SAME} more` : ""}`
                        : ""}
                    </span>
                  </th>
                  {matrix.coded.map((d) => (
                    <td key={d}>
                      {r.coded.includes(d) ? <i className={styles.dot} role="img" aria-label="coded, passes" /> : null}
                    </td>
                  ))}
                  {healthy.map((d) => (
                    <td key={d}>
                      {r.healthy.includes(d) ? (
                        <i className={styles.ring} role="img" aria-label="healthy, passes" />
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
            <i className={styles.dot} /> coded and passes through
          </span>
          <span>
            <i className={styles.ring} /> passes through and works: points away from it
          </span>
          {matrix.rows.length > ROWS ? <span>{matrix.rows.length - ROWS} more rows shared by fewer</span> : null}
        </p>
      ) : null}
    </div>
  );
}
