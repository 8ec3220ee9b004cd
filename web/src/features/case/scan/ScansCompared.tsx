import { compareScans, type ScanCell, type ScanEntry } from "@radicula/core";
import { scanWhenText, storyText, worded } from "@radicula/core/words";
import { STATUS_WORDS } from "../statusWords";
import styles from "./Scan.module.css";
import { t } from "@/messages";

const CELL: Readonly<Record<ScanCell, string>> = worded(() => ({
  ...STATUS_WORDS,
  notGiven: "–",
  notScanned: t("scan.notScanned"),
}));
const MOST = 60;

/** Scans side by side: which code was there when, and which came back. */
export function ScansCompared({ scans }: { readonly scans: readonly ScanEntry[] }) {
  if (scans.length === 0) return null;
  const rows = compareScans(scans);
  return (
    <div className={styles.read} aria-label={t("scan.scansSoFar")}>
      <table>
        <thead>
          <tr>
            <th>{t("scan.module")}</th>
            <th>{t("scan.code")}</th>
            {scans.map((s, i) => (
              <th key={i}>
                {i + 1}. {scanWhenText[s.when]}
                {s.disturbed.length ? (
                  <small> {t("scan.withDisturbed", { disturbed: s.disturbed.join(", ") })}</small>
                ) : null}
                {s.wiped ? <small> {t("scan.batteryHadBeenOff")}</small> : null}
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
      {rows.length === 0 ? <p className="muted">{t("scan.noCodesInAnyScan")}</p> : null}
      {rows.length > MOST ? <p className="muted">{t("scan.andMore2", { rowsCount: rows.length - MOST })}</p> : null}
    </div>
  );
}
