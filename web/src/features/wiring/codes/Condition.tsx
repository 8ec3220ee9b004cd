import type { Code, Monitor, Wiring } from "@radicula/core";
import { Button, Input, InputNumber, Select } from "antd";
import styles from "../Workbench.module.css";
import { FAMILIES, FAMILY_WORDS, WHEN } from "./conditionText";
import { MONITOR_TYPES, partsFor, pinsFor, startOf, type ConditionChoice, type MonitorType } from "./monitors";
import { t } from "@/messages";

function without(code: Code, key: "monitor" | "title" | "about" | "family"): Code {
  const rest = { ...code };
  delete rest[key];
  return rest;
}

interface ConditionProps {
  readonly code: Code & { key: string; row: number };
  readonly wiring: Wiring;
  readonly onSet: (change: (c: Code) => Code) => void;
}
/** One code: what it names and when it sets. */
export function Condition({ code, wiring, onSet, onRemove }: ConditionProps & { readonly onRemove: () => void }) {
  const parts = partsFor(wiring, code);
  const m = code.monitor;
  const choose = (type: MonitorType | "unknown") =>
    onSet((c) => {
      const rest = without(c, "monitor");
      if (type === "unknown") return rest;
      return { ...rest, monitor: startOf(type, pinsFor(wiring, code, type), parts[0]?.value ?? "", m) };
    });
  const put = (change: Partial<Record<string, unknown>>) =>
    onSet((c) => (c.monitor ? { ...c, monitor: { ...c.monitor, ...change } as Monitor } : c));
  return (
    <div className={styles.condition}>
      <WhichCode code={code} wiring={wiring} onSet={onSet} />
      <span className={styles.break} />
      <span>{t("codes.setsWhenThe")}</span>
      <Select
        size="small"
        aria-label={t("codes.condition")}
        value={m?.type ?? "unknown"}
        style={{ width: 190 }}
        onChange={(v: MonitorType | "unknown") => choose(v)}
        options={[{ value: "unknown", label: t("codes.conditionIsNotKnown") }, ...MONITOR_TYPES]}
      />
      {m ? <Watched monitor={m} pins={pinsFor(wiring, code, m.type)} parts={parts} put={put} /> : null}
      {m ? <WhenItRuns monitor={m} put={put} /> : <Family code={code} onSet={onSet} />}
      <Button size="small" type="text" onClick={onRemove}>
        {t("codes.remove")}
      </Button>
    </div>
  );
}

type Put = (change: Partial<Record<string, unknown>>) => void;

function Figure({
  name,
  value,
  unit = "V",
  put,
}: {
  readonly name: string;
  readonly value: number | undefined;
  readonly unit?: string;
  readonly put: Put;
}) {
  return (
    <InputNumber
      size="small"
      aria-label={name}
      value={value}
      step={0.05}
      suffix={unit}
      style={{ width: 104 }}
      onChange={(v) => put({ [name]: v ?? undefined })}
    />
  );
}

/** Which code it is: its number, module and text, and the part it names. */
function WhichCode({ code, wiring, onSet }: ConditionProps) {
  const parts = partsFor(wiring, code);
  return (
    <>
      <Input
        size="small"
        aria-label={t("codes.code")}
        defaultValue={code.id}
        style={{ width: 130 }}
        onBlur={(e) => {
          const id = e.target.value.trim().slice(0, 24);
          if (id) onSet((c) => ({ ...c, id }));
        }}
      />
      <Select
        size="small"
        aria-label={t("codes.module")}
        value={code.module}
        style={{ width: 100 }}
        onChange={(v: string) => onSet((c) => ({ ...c, module: v }))}
        options={wiring.devices.filter((d) => d.kind === "module").map((d) => ({ value: d.id, label: d.id }))}
      />
      <Input
        size="small"
        aria-label={t("codes.text")}
        placeholder={t("codes.whatTheScanToolCallsIt")}
        defaultValue={code.title ?? ""}
        style={{ width: 260 }}
        onBlur={(e) => {
          const title = e.target.value.trim();
          onSet((c) => {
            const rest = without(c, "title");
            return title ? { ...rest, title } : rest;
          });
        }}
      />
      <Select
        size="small"
        aria-label={t("codes.partItNames")}
        allowClear
        placeholder={t("codes.partItNames2")}
        value={code.about}
        style={{ width: 170 }}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(v: string | undefined) =>
          onSet((c) => {
            const rest = without(c, "about");
            return v ? { ...rest, about: v } : rest;
          })
        }
        options={parts}
      />
    </>
  );
}

/** What the module watches, and what it must not be. */
function Watched({
  monitor: m,
  pins,
  parts,
  put,
}: {
  readonly monitor: Monitor;
  readonly pins: ConditionChoice[];
  readonly parts: ConditionChoice[];
  readonly put: Put;
}) {
  const volt = (name: string, value: number | undefined, unit?: string) => (
    <Figure name={name} value={value} put={put} {...(unit ? { unit } : {})} />
  );
  return (
    <>
      {"at" in m ? (
        <Select
          size="small"
          aria-label={t("codes.pin")}
          value={m.at || undefined}
          style={{ width: 160 }}
          onChange={(v: string) => put({ at: v })}
          options={pins}
        />
      ) : null}
      {m.type === "below" || m.type === "above" ? volt("volt", m.volt) : null}
      {m.type === "outside" ? (
        <>
          {volt("low", m.low)} {t("codes.toBetween")} {volt("high", m.high)}
        </>
      ) : null}
      {m.type === "disagree" ? (
        <>
          <Select
            size="small"
            aria-label={t("codes.otherPin")}
            value={m.other}
            style={{ width: 150 }}
            onChange={(v: string) => put({ other: v })}
            options={pins}
          />
          {volt("volt", m.volt)} {t("codes.ratio")} {volt("ratio", m.ratio, "×")}
        </>
      ) : null}
      {m.type === "current" ? (
        <>
          {volt("low", m.low, "A")} {t("codes.toBetween")} {volt("high", m.high, "A")}
        </>
      ) : null}
      {m.type === "silent" ? (
        <Select
          size="small"
          aria-label={t("codes.node")}
          value={m.node || undefined}
          style={{ width: 170 }}
          onChange={(v: string) => put({ node: v })}
          options={parts}
        />
      ) : null}
    </>
  );
}

function WhenItRuns({ monitor: m, put }: { readonly monitor: Monitor; readonly put: Put }) {
  return (
    <>
      {t("codes.for")} <Figure name="seconds" value={m.seconds} unit="s" put={put} />
      <Select
        size="small"
        aria-label={t("codes.whenItRuns")}
        mode="multiple"
        placeholder={t("codes.keyOnOrRunning")}
        value={(m.when as string[] | undefined) ?? []}
        style={{ minWidth: 190 }}
        onChange={(v: string[]) => put({ when: v.length ? v : undefined })}
        options={[...WHEN]}
      />
    </>
  );
}

function Family({ code, onSet }: Pick<ConditionProps, "code" | "onSet">) {
  return (
    <Select
      size="small"
      aria-label={t("codes.family")}
      allowClear
      placeholder={t("codes.whatSortOfCode")}
      value={code.family}
      style={{ width: 190 }}
      onChange={(v: Code["family"] | undefined) =>
        onSet((c) => {
          const rest = without(c, "family");
          return v ? { ...rest, family: v } : rest;
        })
      }
      options={FAMILIES.map((f) => ({ value: f, label: FAMILY_WORDS[f] }))}
    />
  );
}
