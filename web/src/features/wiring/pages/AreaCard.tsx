"use client";
import { cavitiesInBox, tableIn, takeBox, type TakenBox } from "@radicula/core";
import { Button, Checkbox, Input, InputNumber, Segmented } from "antd";
import { useState } from "react";
import { Form, BOX_KINDS, KIND_LIST, NAME, PageWords, type CardProps } from "./cardParts";
import type { Tapped } from "./hit";
import styles from "./Pages.module.css";
import { t } from "@/messages";

/** A box drawn by hand: its cavities are numbered by rule. */
export function AreaCard(props: CardProps & { readonly area: Tapped & { kind: "area" } }) {
  const { area, sheet, page, onChart, onTap, onTable } = props;
  const table = page?.content ? tableIn(page.content.words, area) : "";
  const [id, setId] = useState("");
  const [kind, setKind] = useState<TakenBox["kind"]>("connector");
  const [count, setCount] = useState(3);
  const [rows, setRows] = useState(area.height > area.width ? count : 1);
  const [isReversed, setReversed] = useState(false);
  return (
    <Form
      title={BOX_KINDS[kind]}
      before={
        table ? (
          <Button onClick={() => onTable(table)}>{t("paper.readAsTable", { count: table.split("\n").length })}</Button>
        ) : null
      }
      canTake={NAME.test(id.trim())}
      onTake={() => {
        const pins = cavitiesInBox(area, { count, rows, isReversed }).map((p) => ({ ...p, function: "" }));
        const { x, y, width, height } = area;
        onChart((c) => takeBox(c, sheet, { id: id.trim().toUpperCase(), kind, title: "", x, y, width, height, pins }));
        onTap(undefined);
      }}
    >
      <label>
        {t("paper.name")}
        <Input value={id} maxLength={40} autoFocus onChange={(e) => setId(e.target.value)} />
      </label>
      <PageWords {...props} onChoose={setId} />
      <Segmented
        size="small"
        value={kind}
        onChange={setKind}
        options={KIND_LIST.map((k) => ({ value: k, label: BOX_KINDS[k] }))}
      />
      <div className={styles.pair}>
        <label>
          {t("paper.howManyCavities")}
          <InputNumber min={1} max={200} precision={0} value={count} onChange={(n) => setCount(n ?? 1)} />
        </label>
        <label>
          {t("paper.inRows")}
          <InputNumber min={1} max={count} precision={0} value={rows} onChange={(n) => setRows(n ?? 1)} />
        </label>
      </div>
      <Checkbox checked={isReversed} onChange={(e) => setReversed(e.target.checked)}>
        {t("paper.countedFromTheEnd")}
      </Checkbox>
    </Form>
  );
}
