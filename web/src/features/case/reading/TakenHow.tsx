"use client";
import type { ReadingMore } from "@radicula/core";
import { parseQuantity } from "@radicula/core";
import { Input, Segmented } from "antd";
import styles from "./NextReading.module.css";

export type How = Pick<ReadingMore, "how" | "mode" | "battery">;

/**
 * How a reading was really taken, where it matters: how the pin was reached, the meter's mode, the battery at that
 * moment.
 */
export function TakenHow({
  how,
  volts,
  onHow,
}: {
  readonly how: How;
  readonly volts: boolean;
  readonly onHow: (how: How) => void;
}) {
  return (
    <div className={styles.taken} role="group" aria-label="How it was taken">
      <Segmented
        size="small"
        value={how.how ?? "asked"}
        onChange={(v) => {
          onHow({ ...without(how, "how"), ...(v === "asked" ? {} : { how: v as NonNullable<How["how"]> }) });
        }}
        options={[
          { value: "asked", label: "As asked" },
          { value: "backProbed", label: "Back-probed" },
          { value: "front", label: "From the front" },
          { value: "pierced", label: "Pierced" },
          { value: "breakout", label: "Breakout lead" },
        ]}
      />
      {volts ? (
        <>
          <Segmented
            size="small"
            value={how.mode ?? "dc"}
            onChange={(v) => {
              onHow({ ...without(how, "mode"), ...(v === "ac" ? { mode: "ac" as const } : {}) });
            }}
            options={[
              { value: "dc", label: "DC volts" },
              { value: "ac", label: "AC volts" },
            ]}
          />
          <label>
            Battery then{" "}
            <Input
              size="small"
              style={{ width: 84 }}
              placeholder="volts"
              aria-label="Battery at that moment, volts"
              onChange={(e) => {
                const read = parseQuantity(e.target.value, "V");
                onHow({ ...without(how, "battery"), ...(read.ok && read.value >= 0 ? { battery: read.value } : {}) });
              }}
            />
          </label>
        </>
      ) : null}
    </div>
  );
}

const without = (how: How, field: keyof How): How =>
  Object.fromEntries(Object.entries(how).filter(([k]) => k !== field)) as How;
