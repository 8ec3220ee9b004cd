"use client";
import { STORED_UNITS, UNIT_CHOICES, type UnitQuantity, type Units } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Popover, Segmented } from "antd";
import type { ReactElement } from "react";
import { t } from "@/messages";
import { LanguageChoice } from "./LanguageChoice";

const QUANTITIES: Readonly<Record<UnitQuantity, string>> = worded(() => ({
  temperature: t("ui.temperature"),
  pressure: t("ui.pressure"),
  section: t("ui.wireSize"),
  distance: t("ui.distance"),
}));
const US_UNITS: Units = { temperature: "°F", pressure: "psi", section: "AWG", distance: "mi" };

/** Chooses the units, each by itself or all at once, and the language; open from the start. */
export function UnitsChoice({
  units,
  onChoose,
  children,
}: {
  readonly units: Units;
  readonly onChoose: (units: Units) => void;
  /** what opens it again */
  readonly children: ReactElement;
}) {
  const isAll = (of: Units) => (Object.keys(of) as UnitQuantity[]).every((q) => of[q] === units[q]);
  return (
    <Popover
      trigger="click"
      defaultOpen
      placement="bottomRight"
      content={
        <div style={{ display: "grid", gap: 8 }} role="group" aria-label={t("ui.unitsAndLanguage")}>
          <LanguageChoice />
          <Segmented
            block
            aria-label={t("ui.allUnits")}
            options={[t("ui.metric"), "US"]}
            value={isAll(STORED_UNITS) ? t("ui.metric") : isAll(US_UNITS) ? "US" : ""}
            onChange={(all) => onChoose(all === "US" ? US_UNITS : STORED_UNITS)}
          />
          {(Object.keys(QUANTITIES) as UnitQuantity[]).map((q) => (
            // no label: a tap on its words would choose the first unit
            <div key={q} style={{ display: "flex", justifyContent: "space-between", alignItems: "center", gap: 24 }}>
              <span>{QUANTITIES[q]}</span>
              <Segmented
                aria-label={QUANTITIES[q]}
                options={[...UNIT_CHOICES[q]]}
                value={units[q]}
                onChange={(unit) => onChoose({ ...units, [q]: unit })}
              />
            </div>
          ))}
        </div>
      }
    >
      {children}
    </Popover>
  );
}
