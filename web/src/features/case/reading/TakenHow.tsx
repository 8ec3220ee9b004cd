"use client";
import type { ReadingMore } from "@radicula/core";
import { parseQuantity } from "@radicula/core";
import { Segmented } from "antd";
import styles from "./NextReading.module.css";
import { t } from "@/messages";

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
    <div className={styles.taken} role="group" aria-label={t("reading.howItWasTaken")}>
      <Segmented
        size="small"
        value={how.how ?? "asked"}
        onChange={(v) => {
          onHow({ ...without(how, "how"), ...(v === "asked" ? {} : { how: v as NonNullable<How["how"]> }) });
        }}
        options={[
          { value: "asked", label: t("reading.asAsked") },
          { value: "backProbed", label: t("reading.backProbed") },
          { value: "front", label: t("reading.fromTheFront") },
          { value: "pierced", label: t("reading.pierced") },
          { value: "breakout", label: t("reading.breakoutLead") },
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
              { value: "dc", label: t("reading.dcVolts") },
              { value: "ac", label: t("reading.acVolts") },
            ]}
          />
          <label>
            {t("reading.batteryThen")}{" "}
            <input
              placeholder={t("reading.volts")}
              aria-label={t("reading.batteryAtThatMomentVolts")}
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
