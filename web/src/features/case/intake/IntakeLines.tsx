"use client";
import { CHOICE_WORDS } from "@radicula/core/words";
import { type Bulletin, type HistoryItem } from "@radicula/core";
import { Input, Select } from "antd";
import type { Choice } from "../choices";
import styles from "./Intake.module.css";

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
        aria-label="What happened"
        value={item.what}
        style={{ width: 150 }}
        onChange={(what: HistoryItem["what"]) => onSet({ ...item, what })}
        options={WHAT}
      />
      <Select
        size="small"
        mode="multiple"
        aria-label="Where"
        placeholder={part ? "which part?" : "where? (anywhere)"}
        value={item.at}
        style={{ flex: "1 1 180px" }}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(at: string[]) => onSet({ ...item, at })}
        options={[...things]}
      />
      {part ? (
        <Select
          size="small"
          aria-label="Did it help"
          value={item.helped}
          style={{ width: 140 }}
          onChange={(helped: HistoryItem["helped"]) => onSet({ ...item, helped })}
          options={HELPED.map((h) => (h.value === "unknown" ? { ...h, label: "did it help?" } : h))}
        />
      ) : null}
      {item.what === "replaced" ? (
        <Select
          size="small"
          aria-label="With what"
          value={item.brand}
          style={{ width: 130 }}
          onChange={(brand: HistoryItem["brand"]) => onSet({ ...item, brand })}
          options={BRAND.map((b) => (b.value === "unknown" ? { ...b, label: "with what?" } : b))}
        />
      ) : null}
      <Input
        size="small"
        aria-label="Note"
        placeholder="who, when"
        maxLength={400}
        value={item.text ?? ""}
        style={{ width: 130 }}
        onChange={(e) => {
          const { value } = e.target;
          onSet(value ? { ...item, text: value } : withoutText(item));
        }}
      />
      <button type="button" className={styles.drop} aria-label="Take this line out" onClick={onDrop}>
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
        aria-label="How sure"
        value={item.trust}
        style={{ width: 110 }}
        onChange={(trust: Bulletin["trust"]) => onSet({ ...item, trust })}
        options={TRUST}
      />
      <Input
        size="small"
        aria-label="What it says"
        placeholder="what it says"
        maxLength={1000}
        value={item.text}
        style={{ flex: "1 1 180px" }}
        onChange={(e) => onSet({ ...item, text: e.target.value })}
      />
      <Select
        size="small"
        mode="multiple"
        aria-label="About"
        placeholder="about which part?"
        value={item.at}
        style={{ flex: "1 1 150px" }}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(at: string[]) => onSet({ ...item, at })}
        options={[...things]}
      />
      <Input
        size="small"
        aria-label="Where it applies"
        placeholder="for which machines"
        maxLength={200}
        value={item.applies ?? ""}
        style={{ width: 150 }}
        onChange={(e) => onSet({ ...item, applies: e.target.value })}
      />
      <button type="button" className={styles.drop} aria-label="Take this line out" onClick={onDrop}>
        ×
      </button>
    </div>
  );
}
