import { sharedMatrix, type SharedRow, type Wiring } from "@radicula/core";
import type { Namer } from "@radicula/core/words";
import { useMemo } from "react";
import styles from "./SharedMatrix.module.css";

const KIND: Readonly<Record<SharedRow["kind"], string>> = { splice: "splice", ground: "ground", fuse: "fuse", switch: "switch", relay: "relay", cavity: "in-line cavity", modulePin: "module pin", wire: "wire", part: "part" };
const ROWS = 14, HEALTHY = 10, SAME = 4;

/** Coded circuits against what they share, from the drawing alone: who passes through what, and which healthy circuits argue against it. */
export function SharedMatrix({ wiring, coded, namer, unnamed, onName }: { readonly wiring: Wiring; readonly coded: readonly string[]; readonly namer: Namer; readonly unnamed: readonly string[]; readonly onName: () => void }) {
  const matrix = useMemo(() => sharedMatrix(wiring, coded), [wiring, coded]);
  const healthy = matrix.healthy.slice(0, HEALTHY), rows = matrix.rows.slice(0, ROWS);
  const name = (r: SharedRow) => (r.kind === "wire" && r.thing.includes("~") ? r.thing.replace("~", " to ") : r.thing);
  return (
    <div className={styles.matrix}>
      {unnamed.length ? <p className={styles.unnamed}>{unnamed.join(", ")}: which part {unnamed.length === 1 ? "it names" : "they name"} is not known, so {unnamed.length === 1 ? "it is" : "they are"} not in this table. <button type="button" className="link" onClick={onName}>Say which</button></p> : null}
      {matrix.coded.length === 0 ? <p className="muted">No code names a part of this wiring yet.</p> : <p className={styles.sum}>{sumUp(matrix.coded.length, matrix.covers, matrix.rows)}</p>}
      {rows.length ? (
        <div className={styles.scroll}>
          <table>
            <thead><tr><th scope="col">Shared</th>{matrix.coded.map((d) => <th key={d} scope="col" className={styles.coded} title={namer.device(d)}>{d}</th>)}{healthy.map((d) => <th key={d} scope="col" className={styles.healthy} title={`${namer.device(d)}, no code`}>{d}</th>)}{matrix.healthy.length > HEALTHY ? <th scope="col" className={styles.healthy}>+{matrix.healthy.length - HEALTHY}</th> : null}</tr></thead>
            <tbody>{rows.map((r) => (
              <tr key={r.thing}>
                <th scope="row"><b className="mono">{name(r)}</b> <span className="muted">{KIND[r.kind]}{r.same.length ? `; the same circuits: ${r.same.slice(0, SAME).map((t) => t.replace("~", " to ")).join(", ")}${r.same.length > SAME ? ` and ${r.same.length - SAME} more` : ""}` : ""}</span></th>
                {matrix.coded.map((d) => <td key={d}>{r.coded.includes(d) ? <i className={styles.dot} role="img" aria-label="coded, passes" /> : null}</td>)}
                {healthy.map((d) => <td key={d}>{r.healthy.includes(d) ? <i className={styles.ring} role="img" aria-label="healthy, passes" /> : null}</td>)}
              </tr>
            ))}</tbody>
          </table>
        </div>
      ) : null}
      {rows.length ? <p className={styles.legend}><span><i className={styles.dot} /> coded and passes through</span><span><i className={styles.ring} /> passes through without a code: argues against</span>{matrix.rows.length > ROWS ? <span>{matrix.rows.length - ROWS} more rows shared by fewer</span> : null}</p> : null}
    </div>
  );
}

function sumUp(count: number, covers: readonly (readonly string[])[], rows: readonly SharedRow[]): string {
  if (count === 1) return "One circuit has a code: it shares its fault with nobody yet.";
  const least = covers[0]?.length;
  if (least === undefined) return "No three things cover all coded circuits: several faults, or a code about another part.";
  const shown = (set: readonly string[]) => set.map((t) => t.replace("~", " to ")).join(" with ");
  if (least > 1) return `No single thing is shared by all ${count}. ${least} together would do: ${covers.slice(0, 3).map(shown).join(", or ")}.`;
  const best = rows.filter((r) => r.coded.length === count && r.healthy.length === Math.min(...rows.filter((x) => x.coded.length === count).map((x) => x.healthy.length)));
  const all = best.flatMap((r) => [r.thing, ...r.same]), named = all.filter((t) => !t.includes("~"));
  const things = (named.length ? named : all).map((t) => t.replace("~", " to "));
  const against = best[0]?.healthy.length ?? 0;
  return `All ${count} pass through ${things.slice(0, 4).join(", ")}${things.length > 4 ? ` and ${things.length - 4} more` : ""}${against ? `; ${against === 1 ? "one healthy circuit does" : `${against} healthy circuits do`} too` : ", and no healthy circuit does"}.`;
}
