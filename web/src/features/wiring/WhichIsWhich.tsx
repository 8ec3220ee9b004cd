"use client";
import { parseQuantity, tellApart, type CavityVolts, type Chart, type Connector } from "@radicula/core";
import { toldText } from "@radicula/core/words";
import { Button, Input } from "antd";
import { useState } from "react";
import type { Built } from "@/workers/chart.worker";
import { setFunctions } from "./edit";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

const WORDS = { supply: "supply", reference: "5 V reference", signal: "signal", ground: "ground" } as const;

/** Where no drawing says which cavity is which: unplug, key on, read each, and the voltages tell. */
export function WhichIsWhich({
  connector,
  built,
  onChange,
}: {
  readonly connector: Connector;
  readonly built: Built;
  readonly onChange: (change: (chart: Chart) => Chart) => void;
}) {
  const [open, setOpen] = useState(false);
  const [battery, setBattery] = useState("");
  const [typed, setTyped] = useState<
    Readonly<Record<string, { readonly negative: string; readonly positive: string }>>
  >({});
  if (!open)
    return (
      <Button size="small" type="text" className={styles.run} onClick={() => setOpen(true)}>
        {t("wiring.whichWireIsWhich")}
      </Button>
    );
  const number = (text: string | undefined) => {
    const q = parseQuantity(text ?? "", "V");
    return q.ok ? q.value : undefined;
  };
  const volts = connector.cavities.flatMap((cavity): CavityVolts[] => {
    const a = number(typed[cavity]?.negative);
    const b = number(typed[cavity]?.positive);
    return a === undefined ? [] : [{ cavity, toNegative: a, ...(b === undefined ? {} : { toPositive: b }) }];
  });
  const told = new Map(
    tellApart(volts, number(battery) ?? built.wiring.nominalVolt * 1.03).map((one) => [one.cavity, one]),
  );
  const rows = connector.cavities.flatMap((cavity) => {
    const one = told.get(cavity);
    const row = built.points.indexOf(`${connector.id}:${cavity}`);
    return one && one.sure && one.function !== "unknown" && row >= 0
      ? [{ row, point: `${connector.id}:${cavity}`, function: WORDS[one.function] }]
      : [];
  });
  const set = (cavity: string, part: Partial<{ negative: string; positive: string }>) =>
    setTyped((now) => ({ ...now, [cavity]: { negative: "", positive: "", ...now[cavity], ...part } }));
  return (
    <section className={styles.fields} aria-label={t("wiring.whichWireIsWhich2")}>
      <h3>{t("wiring.whichWireIsWhich2")}</h3>
      <p className="muted">{t("wiring.unplugKeyOnFrontProbeGently", { id: connector.id })}</p>
      <label className={styles.field}>
        <span>{t("wiring.batteryNow")}</span>
        <Input size="small" value={battery} onChange={(e) => setBattery(e.target.value)} suffix="V" />
      </label>
      {connector.cavities.slice(0, 24).map((cavity) => (
        <div key={cavity} className={styles.volts}>
          <b className="mono">{cavity}</b>
          <Input
            size="small"
            aria-label={t("wiring.cavityAgainstBatteryNegative", { cavity })}
            placeholder={t("wiring.toMinus")}
            value={typed[cavity]?.negative ?? ""}
            onChange={(e) => set(cavity, { negative: e.target.value })}
          />
          <Input
            size="small"
            aria-label={t("wiring.cavityAgainstBatteryPositive", { cavity })}
            placeholder={t("wiring.toPlus")}
            value={typed[cavity]?.positive ?? ""}
            onChange={(e) => set(cavity, { positive: e.target.value })}
          />
          <span>{told.get(cavity) ? toldText(told.get(cavity)!) : ""}</span>
        </div>
      ))}
      <Button
        size="small"
        type="primary"
        disabled={rows.length === 0}
        onClick={() => {
          onChange((c) => setFunctions(c, rows));
          setOpen(false);
        }}
      >
        {t("wiring.writeIntoTheChart", { rowsCount: rows.length })}
      </Button>
    </section>
  );
}
