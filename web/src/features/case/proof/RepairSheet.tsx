"use client";
import {
  JOINTS,
  PART_CONDITIONS,
  PART_WITH,
  REPAIR_KINDS,
  repairOf,
  type FaultView,
  type RepairedEntry,
  type Wiring,
} from "@radicula/core";
import { JOINT_WORDS, PART_WORDS, REPAIR_WORDS, WITH_WORDS, type Namer } from "@radicula/core/words";
import { Button, Checkbox, Input, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { thingChoices } from "../choices";
import { Sheet } from "../Sheet";
import { PhotoField } from "../PhotoField";
import { ChooseOne } from "./ChooseOne";
import styles from "./Proof.module.css";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  /** what the verdict, or the leading suspect, says is wrong */
  readonly faults: readonly FaultView[];
  readonly cautions: readonly string[];
  /** keeps a photo of the work; undefined where there is nowhere to keep it */
  readonly onPhoto?: ((file: File, thing: string) => Promise<string | undefined>) | undefined;
  readonly onLog: (entry: RepairedEntry) => void;
  readonly onClose: () => void;
}
type Draft = Omit<RepairedEntry, "type" | "at" | "by">;

/** A draft without one of its fields, or with another value in it. */
function having<K extends keyof Draft>(draft: Draft, field: K, value: Draft[K] | undefined): Draft {
  const next = { ...draft };
  if (value === undefined) delete next[field];
  else next[field] = value;
  return next;
}

/** What was repaired, how, and with what. */
export function RepairSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("proof.logTheRepair")} width={720} keeps>
      <RepairForm {...p} />
    </Sheet>
  );
}

function RepairForm({ wiring, namer, faults, cautions, onPhoto, onLog }: Props) {
  const first = faults[0];
  const [draft, setDraft] = useState<Draft>(() =>
    first
      ? { things: [...new Set(faults.flatMap((f) => repairOf(f).things))], how: repairOf(first).how }
      : { things: [], how: "replaced" },
  );
  const change = (part: Partial<Draft>) => setDraft((d) => ({ ...d, ...part }));
  const choices = useMemo(() => {
    const own = draft.things.map((value) => ({ value, label: namer.thing(value) }));
    const all = [...own, ...thingChoices(wiring).filter((c) => !draft.things.includes(c.value))];
    return all;
  }, [wiring, namer, draft.things]);
  return (
    <div className={styles.form}>
      <ul className={styles.cautions}>
        <li>{t("proof.keyOffAndTheBatteryOff")}</li>
        {cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
      <label>
        {t("proof.whatWasWorkedOn")}
        <Select
          aria-label={t("proof.whatWasWorkedOn")}
          mode="multiple"
          value={draft.things}
          showSearch={{ optionFilterProp: "label" }}
          onChange={(things: string[]) => change({ things })}
          options={choices}
          maxCount={12}
          placeholder={t("proof.aPartConnectorWireSpliceGround")}
        />
      </label>
      <ChooseOne
        name="how"
        legend={t("proof.how")}
        among={REPAIR_KINDS}
        words={REPAIR_WORDS}
        chosen={draft.how}
        onChoose={(how) => change({ how })}
      />
      {draft.how === "replaced" ? <PartFitted draft={draft} change={change} /> : null}
      {draft.how === "repaired" || draft.how === "rewired" ? (
        <label>
          {t("proof.wiresJoined")}
          <Select
            aria-label={t("proof.wiresJoined")}
            allowClear
            value={draft.joined ?? null}
            onChange={(joined: RepairedEntry["joined"] | null) =>
              setDraft((d) => having(d, "joined", joined ?? undefined))
            }
            placeholder={t("proof.asTheMakersManualSays")}
            options={JOINTS.map((j) => ({ value: j, label: JOINT_WORDS[j] }))}
          />
        </label>
      ) : null}
      <MoreOfRepair draft={draft} change={change} setDraft={setDraft} />
      {onPhoto && draft.things[0] ? (
        <PhotoField
          onKeep={(file) => onPhoto(file, draft.things[0]!)}
          onKept={(photo) => setDraft((d) => having(d, "photo", photo))}
        />
      ) : null}
      <Button
        data-first
        type="primary"
        size="large"
        block
        disabled={draft.things.length === 0 || draft.givenOut?.asked === ""}
        onClick={() => {
          const { part, ...rest } = draft;
          onLog({
            type: "repaired",
            at: new Date().toISOString(),
            ...rest,
            ...(draft.how === "replaced" && part ? { part } : {}),
          });
        }}
      >
        {t("proof.logTheRepair")}
      </Button>
    </div>
  );
}

interface PartProps {
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
}
const NO_PART: NonNullable<Draft["part"]> = { condition: "new", with: [] };

function PartFitted({ draft, change }: PartProps) {
  const part = draft.part ?? NO_PART;
  const fit = (more: Partial<typeof part>) => change({ part: { ...part, ...more } });
  const text = (name: "number" | "brand", value: string) => {
    const next = { ...part };
    if (value.trim() === "") delete next[name];
    else next[name] = value;
    change({ part: next });
  };
  return (
    <>
      <div className={styles.row}>
        <label>
          {t("proof.partNumber")}
          <Input value={part.number ?? ""} maxLength={60} onChange={(e) => text("number", e.target.value)} />
        </label>
        <label>
          {t("proof.brand")}
          <Input value={part.brand ?? ""} maxLength={60} onChange={(e) => text("brand", e.target.value)} />
        </label>
        <label>
          {t("proof.theNewPartIs")}
          <Select
            aria-label={t("proof.theNewPartIs")}
            value={part.condition}
            onChange={(condition) => fit({ condition })}
            options={PART_CONDITIONS.map((c) => ({ value: c, label: PART_WORDS[c] }))}
          />
        </label>
      </div>
      <div className={styles.row}>
        <Checkbox checked={part.measured ?? false} onChange={(e) => fit({ measured: e.target.checked })}>
          {t("proof.measuredBeforeItWentIn")}
        </Checkbox>
        <Checkbox.Group
          value={[...part.with]}
          onChange={(list) => fit({ with: PART_WITH.filter((w) => list.includes(w)) })}
          options={PART_WITH.map((w) => ({ value: w, label: t("proof.with", { what: WITH_WORDS[w] }) }))}
        />
      </div>
    </>
  );
}

function MoreOfRepair({
  draft,
  change,
  setDraft,
}: PartProps & { readonly setDraft: (f: (d: Draft) => Draft) => void }) {
  const { temporary, givenOut } = draft;
  const number = (name: "minutes" | "price", value: number | null) =>
    setDraft((d) => having(d, name, value ?? undefined));
  return (
    <>
      <div className={styles.row}>
        <label>
          {t("proof.minutes")}
          <InputNumber min={0} max={100_000} value={draft.minutes ?? null} onChange={(v) => number("minutes", v)} />
        </label>
        <label>
          {t("proof.priceOfParts")}
          <InputNumber min={0} max={1e8} value={draft.price ?? null} onChange={(v) => number("price", v)} />
        </label>
      </div>
      <div className={styles.row}>
        <Checkbox
          checked={temporary !== undefined}
          onChange={(e) =>
            setDraft((d) => having(d, "temporary", e.target.checked ? inDays(DAYS_OF_A_MAKESHIFT) : undefined))
          }
        >
          {t("proof.temporaryRepair")}
        </Checkbox>
        <Checkbox
          checked={givenOut !== undefined}
          onChange={(e) =>
            setDraft((d) => having(d, "givenOut", e.target.checked ? { asked: "", checked: false } : undefined))
          }
        >
          {t("proof.doneBySomebodyElse")}
        </Checkbox>
      </div>
      <div className={styles.row}>
        {temporary === undefined ? null : (
          <label>
            {t("proof.comesBackBy")}
            <Input
              type="date"
              value={temporary}
              onChange={(e) => e.target.value && change({ temporary: e.target.value })}
            />
          </label>
        )}
        {givenOut === undefined ? null : (
          <label>
            {t("proof.whatWasAskedFor")}
            <Input
              value={givenOut.asked}
              maxLength={400}
              onChange={(e) => change({ givenOut: { ...givenOut, asked: e.target.value } })}
            />
          </label>
        )}
      </div>
      <label>
        {t("proof.note")}
        <Input.TextArea
          rows={2}
          maxLength={2000}
          value={draft.note ?? ""}
          onChange={(e) => setDraft((d) => having(d, "note", e.target.value || undefined))}
        />
      </label>
    </>
  );
}
const DAYS_OF_A_MAKESHIFT = 14;
/** A day so many days from now, as a date field has it. */
export const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
