"use client";
import { type TemplateKind } from "@radicula/core";
import { KIND_WORDS } from "@radicula/core/words";
import { Dropdown } from "antd";
import dynamic from "next/dynamic";
import { Notes } from "./Notes";
import { WholeCircuit } from "./WholeCircuit";
import type { Bench } from "./useBench";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

const PinGrid = dynamic(() => import("./grid/PinGrid").then((m) => m.PinGrid), {
  ssr: false,
  loading: () => (
    <p className="muted" style={{ padding: 24, flex: "1 1 auto", minHeight: 220 }}>
      {t("wiring.openingTheTable")}
    </p>
  ),
});
const ADD: readonly TemplateKind[] = ["threeWireSensor", "hall", "thermistor", "heater", "busNode", "splice", "inline"];
const ADD_MORE: readonly TemplateKind[] = [
  "potentiometer",
  "pedal",
  "coilSensor",
  "currentLoop",
  "smartSensor",
  "solenoid",
  "lamp",
  "relay",
  "fuse",
  "ground",
  "battery",
];

/** The pin chart as a table to type into, parts to add, and what needs a look. */
export function PinsView({ bench }: { readonly bench: Bench }) {
  const { grid, chart, built, more, onRows, onActive, add, addWhole, slow, goToRow, takeIt, dropIt } = bench;
  return (
    <div className={styles.card}>
      <PinGrid ref={grid} rows={chart.rows} built={built} more={more} onRows={onRows} onActive={onActive} />
      <div className={styles.adds} aria-label={t("wiring.addAPart")}>
        {ADD.map((k) => (
          <button key={k} type="button" onClick={() => add(k)}>
            + {KIND_WORDS[k]}
          </button>
        ))}
        <Dropdown
          trigger={["click"]}
          menu={{ items: ADD_MORE.map((k) => ({ key: k, label: KIND_WORDS[k], onClick: () => add(k) })) }}
        >
          <button type="button">{t("wiring.more")}</button>
        </Dropdown>
        <WholeCircuit onAdd={addWhole} />
      </div>
      <Notes issues={built?.issues ?? NONE} claims={slow.claims} onRow={goToRow} onTake={takeIt} onDrop={dropIt} />
    </div>
  );
}
const NONE: readonly never[] = [];
