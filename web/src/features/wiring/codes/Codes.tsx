"use client";
import type { Chart, Code, Wiring } from "@radicula/core";
import { Button, Table } from "antd";
import { useState } from "react";
import styles from "../Workbench.module.css";
import { Condition } from "./Condition";
import { conditionText } from "./conditionText";
import { t } from "@/messages";

/** What the codes of this machine say and when they set: a shop's own texts and conditions, kept with the wiring. */
export function Codes({
  chart,
  wiring,
  onChange,
}: {
  readonly chart: Chart;
  readonly wiring: Wiring;
  readonly onChange: (change: (chart: Chart) => Chart) => void;
}) {
  const [open, setOpen] = useState<string | undefined>(undefined);
  const modules = wiring.devices.flatMap((d) => (d.kind === "module" ? [d] : []));
  const set = (i: number, change: (c: Code) => Code) =>
    onChange((c) => ({ ...c, codes: c.codes.map((x, j) => (j === i ? change(x) : x)) }));
  const add = () => {
    const first = modules[0]?.id;
    if (!first) return;
    let n = 1;
    while (chart.codes.some((c) => c.id === `P${String(n).padStart(4, "0")}`)) n++;
    onChange((c) => ({ ...c, codes: [...c.codes, { id: `P${String(n).padStart(4, "0")}`, module: first }] }));
    setOpen(String(chart.codes.length));
  };
  return (
    <section className={styles.codes}>
      <header>
        <h2>{t("codes.codesOfThisMachine")}</h2>
        <span className="muted">{t("codes.textsAndSetConditionsTheNext")}</span>
        <Button onClick={add} disabled={!modules.length}>
          {t("codes.addACode")}
        </Button>
      </header>
      {modules.length ? null : <p className="muted">{t("codes.codesBelongToAModuleType")}</p>}
      <Table<Code & { key: string; row: number }>
        size="small"
        pagination={chart.codes.length > 50 ? { pageSize: 50, showSizeChanger: false } : false}
        dataSource={chart.codes.map((c, i) => ({ ...c, key: String(i), row: i }))}
        expandable={{
          columnTitle: <span className="visually-hidden">{t("codes.openTheSetCondition")}</span>,
          expandedRowKeys: open === undefined ? [] : [open],
          onExpand: (yes, r) => setOpen(yes ? r.key : undefined),
          expandedRowRender: (r) => (
            <Condition
              code={r}
              wiring={wiring}
              onSet={(change) => set(r.row, change)}
              onRemove={() => {
                onChange((c) => ({ ...c, codes: c.codes.filter((_, j) => j !== r.row) }));
                setOpen(undefined);
              }}
            />
          ),
        }}
        locale={{ emptyText: t("codes.noCodesYetCodesFromA") }}
        columns={[
          { title: t("codes.code"), dataIndex: "id", width: 130, render: (v: string) => <b className="mono">{v}</b> },
          { title: t("codes.module"), dataIndex: "module", width: 90 },
          { title: t("codes.text"), dataIndex: "title" },
          { title: t("codes.component"), dataIndex: "about", width: 90 },
          { title: t("codes.setsWhen"), render: (_, r) => conditionText(r) },
        ]}
      />
    </section>
  );
}
