"use client";
import { isSetCode, type Issue } from "@radicula/core";
import { issueText, scanWhenText } from "@radicula/core/words";
import { Button, Select } from "antd";
import Link from "next/link";
import { useRef } from "react";
import { Sheet } from "../Sheet";
import { CodeBox } from "./CodeBox";
import { CodesRead } from "./CodesRead";
import { HowScanned } from "./HowScanned";
import styles from "./Scan.module.css";
import { ScansCompared } from "./ScansCompared";
import { LEAST_MODULES, useScanDraft, type ScanPartProps, type ScanProps, type When } from "./useScanDraft";
import { t } from "@/messages";

const WHENS: readonly When[] = ["before", "afterClear", "afterCrank", "afterDrive", "other"];
/**
 * A scan as it comes: typed, or pasted in whatever layout the scan tool gives. What was read stands below, line for
 * line.
 */
export function ScanSheet(p: ScanProps) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("scan.scan")} width={860} keeps>
      <ScanForm {...p} />
    </Sheet>
  );
}

function ScanForm(p: ScanProps) {
  const draft = useScanDraft(p);
  const area = useRef<HTMLTextAreaElement>(null);
  const set = draft.codes.filter(isSetCode).length;
  if (draft.units.length === 0)
    return (
      <p className={styles.none}>
        {t("scan.codesBelongToAModuleAnd")}{" "}
        {p.workbench ? <Link href={p.workbench}>{t("scan.typeTheWiringFirst")}</Link> : null}
      </p>
    );
  return (
    <div className={styles.sheet}>
      <ScansCompared scans={p.folded.scans.map((s) => s.entry)} />
      {p.unkept ? <KeepCodes count={p.unkept} onKeep={p.onKeep} /> : null}
      <WhenTaken draft={draft} />
      {p.onSimulated ? <ScanSimulated draft={draft} onScanned={() => area.current?.focus()} /> : null}
      <CodeBox draft={draft} area={area} />
      {draft.units.length >= LEAST_MODULES ? <ModuleMeant draft={draft} /> : null}
      {draft.codes.length ? <CodesRead draft={draft} /> : null}
      <LinesNotTaken issues={draft.read.issues} />
      <HowScanned draft={draft} />
      <Button type="primary" size="large" block disabled={!draft.ready} onClick={draft.log} title={t("scan.ctrlEnter")}>
        {t("scan.logTheScan", { set })}
      </Button>
    </div>
  );
}

function KeepCodes({ count, onKeep }: { readonly count: number; readonly onKeep: () => void }) {
  return (
    <p className={styles.keep}>
      {t("scan.notInTheWiringOfThis", { count })}{" "}
      <button type="button" className="link" onClick={onKeep}>
        {t("scan.keepWithTheWiringTextsAnd", { count })}
      </button>
    </p>
  );
}

function WhenTaken({ draft }: ScanPartProps) {
  const { folded, when, setWhen, onLog } = draft;
  return (
    <div className={styles.row}>
      <div className={styles.when} role="radiogroup" aria-label={t("scan.whenTheScanWasTaken")}>
        {WHENS.map((w) => (
          <label key={w} data-chosen={w === when}>
            <input
              type="radio"
              name="when"
              className="visually-hidden"
              checked={w === when}
              onChange={() => setWhen(w)}
            />
            {scanWhenText[w]}
          </label>
        ))}
      </div>
      {folded.scans.length ? (
        <button
          type="button"
          className="link"
          onClick={() => onLog([{ type: "cleared", at: new Date().toISOString() }])}
        >
          {t("scan.codesWereClearedJustNow")}
        </button>
      ) : null}
    </div>
  );
}

function ScanSimulated({ draft, onScanned }: ScanPartProps & { readonly onScanned: () => void }) {
  const { onSimulated, when, setText, setModules, units } = draft;
  const scan = async () => {
    const list = await onSimulated?.(when);
    if (list === undefined) return;
    setText(list);
    setModules(units.map((u) => u.value));
    onScanned();
  };
  return (
    <p className={styles.keep}>
      {t("scan.thisMachineIsSimulated")}{" "}
      <button type="button" className="link" onClick={() => void scan()}>
        {t("scan.scanIt")}
      </button>
    </p>
  );
}

function ModuleMeant({ draft }: ScanPartProps) {
  const { meant, setMeant, units } = draft;
  return (
    <div className={styles.row}>
      <label className={styles.label} htmlFor="scan-module">
        {t("scan.module")}
      </label>
      <Select
        id="scan-module"
        allowClear
        placeholder={t("scan.asEachLineSays")}
        value={meant}
        style={{ width: 230 }}
        onChange={(v: string | undefined) => setMeant(v)}
        options={units}
      />
      <span className="muted">{t("scan.forLinesThatNameNone")}</span>
    </div>
  );
}

/** Lines listed before the rest is only counted. */
const LISTED = 20;

function LinesNotTaken({ issues }: { readonly issues: readonly Issue[] }) {
  if (issues.length === 0) return null;
  return (
    <ul className={styles.issues} aria-label={t("scan.linesNotTaken")}>
      {issues.slice(0, LISTED).map((i, n) => (
        <li key={n}>
          {typeof i.path[1] === "number" ? t("scan.line", { path: i.path[1] + 1 }) : ""}
          {issueText(i)}
        </li>
      ))}
      {issues.length > LISTED ? <li>{t("scan.andMore", { issuesCount: issues.length - LISTED })}</li> : null}
    </ul>
  );
}
