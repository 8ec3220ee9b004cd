"use client";
import type { Entry, Numbered, ScanEntry, ScannedCode, Wiring } from "@radicula/core";
import { Button, Select } from "antd";
import { useMemo, useState } from "react";
import { partChoices } from "../choices";
import { Sheet } from "../Sheet";
import styles from "./Scan.module.css";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  /** codes set that name no part of this wiring, and the scans that gave them */
  readonly unnamed: readonly Pick<ScannedCode, "module" | "code" | "status">[];
  readonly scans: readonly Numbered<ScanEntry>[];
  readonly onLog: (entries: Entry[]) => void;
  readonly onClose: () => void;
}

/**
 * Says which part each code names. The scan is logged anew with it, and the old entry taken back, so that the trace
 * stays.
 */
export function NameCodes(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("scan.whichComponentIsEachCodeFor")} width={560} keeps>
      <Body {...p} />
    </Sheet>
  );
}

function Body({ wiring, unnamed, scans, onLog }: Props) {
  const [about, setAbout] = useState<Readonly<Record<string, string>>>({});
  const parts = useMemo(() => partChoices(wiring), [wiring]);
  const log = () => {
    const at = new Date().toISOString();
    // codes logged one by one stand in no scan: what they name is logged beside them
    const lone = unnamed.flatMap((c): ScannedCode[] => {
      const part = about[`${c.module} ${c.code}`];
      return part && !scans.some((s) => s.entry.codes.some((x) => x.module === c.module && x.code === c.code))
        ? [{ module: c.module, code: c.code, status: c.status, about: part }]
        : [];
    });
    onLog([
      ...(lone.length
        ? [{ type: "scan" as const, at, when: "other" as const, modules: [], codes: lone, disturbed: [], wiped: false }]
        : []),
      ...scans.flatMap(({ number, entry }): Entry[] => {
        if (!entry.codes.some((c) => about[`${c.module} ${c.code}`])) return [];
        const codes = entry.codes.map((c) => {
          const part = about[`${c.module} ${c.code}`];
          return part ? { ...c, about: part } : c;
        });
        return [
          { type: "undo", at, target: number },
          { ...entry, at, codes },
        ];
      }),
    ]);
  };
  return (
    <div className={styles.sheet}>
      <p className="muted">{t("scan.aCodeWeighsAsSoonAs")}</p>
      {unnamed.map((c) => {
        const key = `${c.module} ${c.code}`;
        return (
          <div key={key} className={styles.row}>
            <b className="mono">{c.code}</b>{" "}
            <span className="muted">
              {wiring.codes.find((x) => x.module === c.module && x.id === c.code)?.title ?? t("scan.noText")}
            </span>
            <Select
              aria-label={t("scan.partNames", { code: c.code })}
              placeholder={t("scan.whichPart")}
              value={about[key]}
              showSearch={{ optionFilterProp: "label" }}
              style={{ flex: "1 1 200px" }}
              onChange={(v: string) => setAbout((m) => ({ ...m, [key]: v }))}
              options={parts}
            />
          </div>
        );
      })}
      <Button type="primary" block disabled={Object.keys(about).length === 0} onClick={log}>
        {t("scan.logIt")}
      </Button>
    </div>
  );
}
