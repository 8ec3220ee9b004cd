import type { ScannedCode } from "@radicula/core";
import { Select } from "antd";
import { useMemo } from "react";
import { partChoices } from "../choices";
import { STATUS_WORDS } from "../statusWords";
import styles from "./Scan.module.css";
import { codeKey, type ScanPartProps } from "./useScanDraft";
import { t } from "@/messages";

const STATUSES: readonly ScannedCode["status"][] = ["active", "pending", "stored", "intermittent", "absent", "notRun"];
/** What was read of the list, code by code; status and part can be changed. */
export function CodesRead({ draft }: ScanPartProps) {
  const { wiring, codes } = draft;
  const parts = useMemo(() => partChoices(wiring), [wiring]);
  const known = useMemo(() => new Set(wiring.codes.map((c) => `${c.module} ${c.id}`)), [wiring]);
  return (
    <div className={styles.read}>
      <table>
        <thead>
          <tr>
            <th>{t("scan.module")}</th>
            <th>{t("scan.code")}</th>
            <th>{t("scan.status")}</th>
            <th>{t("scan.text")}</th>
            <th>{t("scan.component")}</th>
            <th>
              <span className="visually-hidden">{t("scan.leaveOut")}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {codes.map((c) => (
            <CodeRow key={codeKey(c)} draft={draft} code={c} known={known} parts={parts} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function CodeRow({
  draft,
  code: c,
  known,
  parts,
}: ScanPartProps & {
  readonly code: ScannedCode;
  readonly known: ReadonlySet<string>;
  readonly parts: ReturnType<typeof partChoices>;
}) {
  return (
    <tr>
      <td>{c.module}</td>
      <td className="mono">
        <b>{c.code}</b>
        {c.failureType ? ` ${c.failureType}` : ""}
      </td>
      <td>
        <Select
          size="small"
          variant="borderless"
          aria-label={t("scan.statusOf", { code: c.code })}
          value={c.status}
          popupMatchSelectWidth={false}
          onChange={(status: ScannedCode["status"]) => draft.change(c, { status })}
          options={STATUSES.map((s) => ({ value: s, label: STATUS_WORDS[s] }))}
        />
      </td>
      <td>
        {c.title ?? <span className="muted">{t("scan.noText")}</span>}
        {c.seen ? <span className="muted"> · {c.seen}</span> : null}
      </td>
      <td>
        {known.has(`${c.module} ${c.code}`) ? (
          <span className="muted">{c.about ?? t("scan.asTheWiringSays")}</span>
        ) : (
          <Select
            size="small"
            variant={c.about ? "borderless" : "outlined"}
            aria-label={t("scan.partNames", { code: c.code })}
            allowClear
            placeholder={t("scan.whichPart")}
            value={c.about}
            showSearch={{ optionFilterProp: "label" }}
            style={{ width: 150 }}
            onChange={(about: string | undefined) => draft.change(c, { about: about ?? null })}
            options={parts}
          />
        )}
      </td>
      <td>
        <button
          type="button"
          className={styles.drop}
          aria-label={t("scan.leaveOut2", { code: c.code })}
          onClick={() => draft.drop(c)}
        >
          ×
        </button>
      </td>
    </tr>
  );
}
