"use client";
import { parseQuantity, type Entry, type Unit } from "@radicula/core";
import { Button, Input } from "antd";
import { useState } from "react";
import { say } from "@/messages/issues";
import { Sheet } from "../Sheet";
import styles from "../Case.module.css";
import { t } from "@/messages";
import { wordedList } from "@radicula/core/words";

type Field = "leads" | "battery" | "ground";
const FIELDS: readonly (readonly [Field, string, string, Unit])[] = wordedList(() => [
  ["leads", t("meter.ohmsLeadsTouchedTogether"), t("meter.ohmsAFewTenths"), "Ω"],
  ["battery", t("meter.dcVoltsAcrossTheBatteryRed"), t("meter.volts"), "V"],
  ["ground", t("meter.dcVoltsFromBatteryNegativeTo"), t("meter.voltsUnder01"), "V"],
]);

/** Three touches before a meter is believed. Any of them may be left out. */
export function MeterSheet({
  open,
  onLog,
  onClose,
}: {
  readonly open: boolean;
  readonly onLog: (entry: Entry) => void;
  readonly onClose: () => void;
}) {
  return (
    <Sheet open={open} onClose={onClose} title={t("meter.checkTheMeter")} width={560} keeps>
      <Body onLog={onLog} />
    </Sheet>
  );
}
function Body({ onLog }: { readonly onLog: (entry: Entry) => void }) {
  const [texts, setTexts] = useState<Readonly<Record<Field, string>>>({ leads: "", battery: "", ground: "" });
  const read = FIELDS.map(([field, , , unit]) => ({
    field,
    said: texts[field].trim() !== "",
    value: parseQuantity(texts[field], unit),
  }));
  const bad = read.filter((r) => r.said && !r.value.ok);
  const good = read.filter((r) => r.said && r.value.ok);
  const log = () => {
    if (bad.length || good.length === 0) return;
    const of = (f: Field) => {
      const v = good.find((r) => r.field === f)?.value;
      return v?.ok ? v.value : undefined;
    };
    const leads = of("leads");
    const battery = of("battery");
    const ground = of("ground");
    onLog({
      type: "meterCheck",
      at: new Date().toISOString(),
      ...(leads === undefined ? {} : { leads: leads === Infinity ? ("OL" as const) : leads }),
      ...(battery === undefined ? {} : { battery }),
      ...(ground === undefined ? {} : { ground }),
    });
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        log();
      }}
    >
      {FIELDS.map(([field, label, hint], i) => (
        <div key={field} style={{ margin: "10px 0" }}>
          <label htmlFor={`meter-${field}`} className={styles.formHead}>
            {label}
          </label>
          <Input
            id={`meter-${field}`}
            className="mono"
            size="large"
            autoFocus={i === 0}
            placeholder={hint}
            value={texts[field]}
            maxLength={40}
            status={bad.some((b) => b.field === field) ? "error" : ""}
            onChange={(e) => setTexts({ ...texts, [field]: e.target.value })}
          />
          {bad
            .filter((b) => b.field === field)
            .map((b) => (
              <p key={field} role="alert" className="muted">
                {b.value.ok ? "" : say(b.value.issues[0]!).text}
              </p>
            ))}
        </div>
      ))}
      <p className="muted">{t("meter.meterOnDcNotAcThe")}</p>
      <Button type="primary" size="large" block htmlType="submit" disabled={bad.length > 0 || good.length === 0}>
        {t("meter.logTheCheck")}
      </Button>
    </form>
  );
}
