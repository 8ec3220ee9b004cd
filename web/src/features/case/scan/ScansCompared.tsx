import { compareScans, type ScanCell, type ScanEntry } from "@radicula/core";
import { scanWhenText, storyText } from "@radicula/core/words";
import styles from "./Scan.module.css";

const CELL: Readonly<Record<ScanCell, string>> = {
  active: "active",
  pending: "pending",
  stored: "stored",
  intermittent: "intermittent",
  absent: "not set",
  notRun: "not run",
  notGiven: "–",
  notScanned: "not scanned",
};
const MOST = 60;

/** Scans side by side: which code was there when, and which came back. */
export function ScansCompared({ scans }: { readonly scans: readonly ScanEntry[] }) {
  if (scans.length === 0) return null;
  const rows = compareScans(scans);
  return (
    <div className={styles.read} aria-label="Scans so far">
      <table>
        <thead>
          <tr>
            <th>Module</th>
            <th>Code</th>
            {scans.map((s, i) => (
              <th key={i}>
                {i + 1}. {scanWhenText[s.when]}
                {s.disturbed.length ? <small> with {s.disturbed.join(", ")} disturbed</small> : null}
                {s.wiped ? <small> battery had been off</small> : null}
              </th>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST).map((r) => (
            <tr key={`${r.module} ${r.code}`}>
              <td>{r.module}</td>
              <td className="mono" title={r.title}>
                <b>{r.code}</b>
              </td>
              {r.cells.map((c, i) => (
                <td key={i} data-cell={c}>
                  {CELL[c]}
                </td>
              ))}
              <td>
                <b>{storyText[r.story]}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 ? <p className="muted">No codes in any scan.</p> : null}
      {rows.length > MOST ? <p className="muted">and {rows.length - MOST} more</p> : null}
    </div>
  );
}
