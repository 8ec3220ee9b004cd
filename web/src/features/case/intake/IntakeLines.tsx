"use client";
import { CHOICE_WORDS } from "@radicula/core/words";
import { type Bulletin, type HistoryItem } from "@radicula/core";
import { Input, Select } from "antd";
import type { Choice } from "../choices";
import styles from "./Intake.module.css";
import { t } from "@/messages";

const choices = (words: Readonly<Record<string, string>>): Choice[] =>
  Object.entries(words).map(([value, label]) => ({ value, label }));
const HELPED = choices(CHOICE_WORDS.helped);
const BRAND = choices(CHOICE_WORDS.brand);
const WHAT = choices(CHOICE_WORDS.history);
const TRUST: Choice[] = [
  { value: "hearsay", label: "hearsay" },
  { value: "bulletin", label: "bulletin" },
];

/** One thing done or happened before. */
export function HistoryLine({
  item,
  things,
  onSet,
  onDrop,
}: {
  readonly item: HistoryItem;
  readonly things: readonly Choice[];
  readonly onSet: (item: HistoryItem) => void;
  readonly onDrop: () => void;
}) {
  const part = item.what === "replaced" || item.what === "repaired";
  return (
    <div className={styles.line}>
      <Select
        size="small"
        aria-label={t("intake.whatHappened")}
        value={item.what}
        style={{ width: 150 }}
        onChange={(what: HistoryItem["what"]) => onSet({ ...item, what })}
        options={WHAT}
      />
      <Select
        size="small"
        mode="multiple"
        aria-label={t("intake.where")}
        placeholder={part ? t("intake.whichPart") : t("intake.whereAnywhere")}
        value={item.at}
        style={{ flex: "1 1 180px" }}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(at: string[]) => onSet({ ...item, at })}
        options={[...things]}
      />
      {part ? (
        <Select
          size="small"
          aria-label={t("intake.didItHelp")}
          value={item.helped}
          style={{ width: 140 }}
          onChange={(helped: HistoryItem["helped"]) => onSet({ ...item, helped })}
          options={HELPED.map((h) => (h.value === "unknown" ? { ...h, label: t("intake.didItHelp2") } : h))}
        />
      ) : null}
      {item.what === "replaced" ? (
        <Select
          size="small"
          aria-label={t("intake.withWhat")}
          value={item.brand}
          style={{ width: 130 }}
          onChange={(brand: HistoryItem["brand"]) => onSet({ ...item, brand })}
          options={BRAND.map((b) => (b.value === "unknown" ? { ...b, label: t("intake.withWhat2") } : b))}
        />
      ) : null}
      <Input
        size="small"
        aria-label={t("intake.note")}
        placeholder={t("intake.whoWhen")}
        maxLength={400}
        value={item.text ?? ""}
        style={{ width: 130 }}
        onChange={(e) => {
          const { value } = e.target;
          onSet(value ? { ...item, text: value } : withoutText(item));
        }}
      />
      <button type="button" className={styles.drop} aria-label={t("intake.takeThisLineOut")} onClick={onDrop}>
        ×
      </button>
    </div>
  );
}
function withoutText(item: HistoryItem): HistoryItem {
  const rest = { ...item };
  delete rest.text;
  return rest;
}

/** One thing said of machines like this. */
export function BulletinLine({
  item,
  things,
  onSet,
  onDrop,
}: {
  readonly item: Bulletin;
  readonly things: readonly Choice[];
  readonly onSet: (item: Bulletin) => void;
  readonly onDrop: () => void;
}) {
  return (
    <div className={styles.line}>
      <Select
        size="small"
        aria-label={t("intake.howSure")}
        value={item.trust}
        style={{ width: 110 }}
        onChange={(trust: Bulletin["trust"]) => onSet({ ...item, trust })}
        options={TRUST}
      />
      <Input
        size="small"
        aria-label={t("intake.whatItSays")}
        placeholder={t("intake.whatItSays2")}
        maxLength={1000}
        value={item.text}
        style={{ flex: "1 1 180px" }}
        onChange={(e) => onSet({ ...item, text: e.target.value })}
      />
      <Select
        size="small"
        mode="multiple"
        aria-label={t("intake.about")}
        placeholder={t("intake.aboutWhichPart")}
        value={item.at}
        style={{ flex: "1 1 150px" }}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(at: string[]) => onSet({ ...item, at })}
        options={[...things]}
      />
      <Input
        size="small"
        aria-label={t("intake.whereItApplies")}
        placeholder={t("intake.forWhichMachines")}
        maxLength={200}
        value={item.applies ?? ""}
        style={{ width: 150 }}
        onChange={(e) => onSet({ ...item, applies: e.target.value })}
      />
      <button type="button" className={styles.drop} aria-label={t("intake.takeThisLineOut")} onClick={onDrop}>
        ×
      </button>
    </div>
  );
}
