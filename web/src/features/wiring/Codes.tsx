"use client";
import { devicePins, type Chart, type Code, type Monitor, type Wiring } from "@radicula/core";
import { Button, Input, InputNumber, Select, Table } from "antd";
import { useState } from "react";
import styles from "./Workbench.module.css";

type Type = Monitor["type"];
const TYPES: readonly { readonly value: Type; readonly label: string }[] = [
  { value: "below", label: "signal under" },
  { value: "above", label: "signal over" },
  { value: "outside", label: "signal outside" },
  { value: "noActivity", label: "signal does not change" },
  { value: "disagree", label: "two signals disagree by" },
  { value: "current", label: "driver current outside" },
  { value: "silent", label: "nothing heard from" },
];
const FAMILIES = ["low", "high", "circuit", "performance", "noActivity", "lostCommunication", "driver"] as const;
const FAMILY_WORDS: Readonly<Record<(typeof FAMILIES)[number], string>> = {
  low: "low",
  high: "high",
  circuit: "circuit",
  performance: "range or performance",
  noActivity: "no activity",
  lostCommunication: "lost communication",
  driver: "driver circuit",
};
const WHEN: readonly { readonly value: string; readonly label: string }[] = [
  { value: "on", label: "key on" },
  { value: "cranking", label: "cranking" },
  { value: "running", label: "engine running" },
];
const ROLES: Readonly<Record<Type, ReadonlySet<string>>> = {
  below: new Set(["input", "reference"]),
  above: new Set(["input", "reference"]),
  outside: new Set(["input", "reference"]),
  noActivity: new Set(["input"]),
  disagree: new Set(["input"]),
  current: new Set(["lowSide", "highSide"]),
  silent: new Set(),
};

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
        <h2>Codes of this machine</h2>
        <span className="muted">texts and set conditions; the next job on this wiring has them</span>
        <Button onClick={add} disabled={!modules.length}>
          Add a code
        </Button>
      </header>
      {modules.length ? null : (
        <p className="muted">
          Codes belong to a module. Type the chart first: a connector that sensor signals go to becomes one.
        </p>
      )}
      <Table<Code & { key: string; row: number }>
        size="small"
        pagination={chart.codes.length > 50 ? { pageSize: 50, showSizeChanger: false } : false}
        dataSource={chart.codes.map((c, i) => ({ ...c, key: String(i), row: i }))}
        expandable={{
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
        locale={{ emptyText: "No codes yet. Codes from a scan can be kept here with one press on the job." }}
        columns={[
          { title: "Code", dataIndex: "id", width: 130, render: (v: string) => <b className="mono">{v}</b> },
          { title: "Module", dataIndex: "module", width: 90 },
          { title: "Text", dataIndex: "title" },
          { title: "Names", dataIndex: "about", width: 90 },
          { title: "Sets when", render: (_, r) => conditionText(r) },
        ]}
      />
    </section>
  );
}

/** A set condition in a line. */
export function conditionText(c: Pick<Code, "monitor" | "family" | "about">): string {
  const m = c.monitor;
  if (!m)
    return c.family
      ? `${FAMILY_WORDS[c.family]}, a broad condition`
      : c.about
        ? "a broad condition, by its text"
        : "not known: weighs nothing";
  const when =
    `${m.seconds ? ` for ${m.seconds} s` : ""}` +
    `${m.when ? `, ${m.when.map((k) => WHEN.find((w) => w.value === k)?.label ?? k).join(" or ")}` : ""}`;
  switch (m.type) {
    case "below":
      return `${m.at} under ${m.volt} V${when}`;
    case "above":
      return `${m.at} over ${m.volt} V${when}`;
    case "outside":
      return `${m.at} outside ${m.low} to ${m.high} V${when}`;
    case "noActivity":
      return `${m.at} does not change${when}`;
    case "disagree":
      return `${m.at} and ${m.other} differ by over ${m.volt} V${when}`;
    case "current":
      return (
        `${m.at} carries ${m.low === undefined ? "" : `under ${m.low} A`}` +
        `${m.low !== undefined && m.high !== undefined ? " or " : ""}` +
        `${m.high === undefined ? "" : `over ${m.high} A`}${when}`
      );
    case "silent":
      return `nothing heard from ${m.node}${when}`;
  }
}

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
interface Choice {
  readonly value: string;
  readonly label: string;
}

/** Pins of the code's module that a condition of this type can watch. */
function pinsFor(wiring: Wiring, code: Code, type: Type): Choice[] {
  const owner = wiring.devices.find((d) => d.id === code.module);
  if (owner?.kind !== "module") return [];
  return owner.pins
    .filter((p) => ROLES[type].has(p.role))
    .map((p) => ({ value: p.at, label: "name" in p && p.name ? `${p.at} ${p.name}` : p.at }));
}
const partsFor = (wiring: Wiring, code: Code): Choice[] =>
  wiring.devices
    .filter((d) => devicePins(d).length && d.id !== code.module)
    .map((d) => ({ value: d.id, label: d.name ? `${d.id} ${d.name}` : d.id }));

/** A condition to begin with; figures are common practice, no source. */
function startOf(type: Type, pins: readonly Choice[], node: string, before: Monitor | undefined): Monitor {
  const at = pins[0]?.value ?? "";
  const more = {
    ...(before?.when ? { when: before.when } : {}),
    ...(before?.seconds ? { seconds: before.seconds } : {}),
  };
  switch (type) {
    case "below":
      return { type, at, volt: 0.25, ...more };
    case "above":
      return { type, at, volt: 4.75, ...more };
    case "outside":
      return { type, at, low: 0.25, high: 4.75, ...more };
    case "noActivity":
      return { type, at, ...more };
    case "disagree":
      return { type, at, other: pins[1]?.value ?? at, ratio: 1, volt: 0.3, ...more };
    case "current":
      return { type, at, low: 0.02, ...more };
    case "silent":
      return { type, node, ...more };
  }
}

function Condition({ code, wiring, onSet, onRemove }: ConditionProps & { readonly onRemove: () => void }) {
  const parts = partsFor(wiring, code);
  const m = code.monitor;
  const choose = (type: Type | "unknown") =>
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
      <span>Sets when the</span>
      <Select
        size="small"
        aria-label="Condition"
        value={m?.type ?? "unknown"}
        style={{ width: 190 }}
        onChange={(v: Type | "unknown") => choose(v)}
        options={[{ value: "unknown", label: "condition is not known" }, ...TYPES]}
      />
      {m ? <Watched monitor={m} pins={pinsFor(wiring, code, m.type)} parts={parts} put={put} /> : null}
      {m ? <WhenItRuns monitor={m} put={put} /> : <Family code={code} onSet={onSet} />}
      <Button size="small" type="text" onClick={onRemove}>
        Remove
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
        aria-label="Code"
        defaultValue={code.id}
        style={{ width: 130 }}
        onBlur={(e) => {
          const id = e.target.value.trim().slice(0, 24);
          if (id) onSet((c) => ({ ...c, id }));
        }}
      />
      <Select
        size="small"
        aria-label="Module"
        value={code.module}
        style={{ width: 100 }}
        onChange={(v: string) => onSet((c) => ({ ...c, module: v }))}
        options={wiring.devices.filter((d) => d.kind === "module").map((d) => ({ value: d.id, label: d.id }))}
      />
      <Input
        size="small"
        aria-label="Text"
        placeholder="what the scan tool calls it"
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
        aria-label="Part it names"
        allowClear
        placeholder="part it names"
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
  readonly pins: Choice[];
  readonly parts: Choice[];
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
          aria-label="Pin"
          value={m.at || undefined}
          style={{ width: 160 }}
          onChange={(v: string) => put({ at: v })}
          options={pins}
        />
      ) : null}
      {m.type === "below" || m.type === "above" ? volt("volt", m.volt) : null}
      {m.type === "outside" ? (
        <>
          {volt("low", m.low)} to {volt("high", m.high)}
        </>
      ) : null}
      {m.type === "disagree" ? (
        <>
          <Select
            size="small"
            aria-label="Other pin"
            value={m.other}
            style={{ width: 150 }}
            onChange={(v: string) => put({ other: v })}
            options={pins}
          />
          {volt("volt", m.volt)} ratio {volt("ratio", m.ratio, "×")}
        </>
      ) : null}
      {m.type === "current" ? (
        <>
          {volt("low", m.low, "A")} to {volt("high", m.high, "A")}
        </>
      ) : null}
      {m.type === "silent" ? (
        <Select
          size="small"
          aria-label="Node"
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
      for <Figure name="seconds" value={m.seconds} unit="s" put={put} />
      <Select
        size="small"
        aria-label="When it runs"
        mode="multiple"
        placeholder="key on or running"
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
      aria-label="Family"
      allowClear
      placeholder="what sort of code"
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
