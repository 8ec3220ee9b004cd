"use client";
import { STORED_UNITS, UNIT_CHOICES, type UnitQuantity, type Units } from "@radicula/core";
import { Button, Popover, Segmented } from "antd";
import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { readUnits, unitsCookie } from "./unitsCookie";
import { t } from "@/messages";
import { readerLanguage } from "@radicula/core/words";
import { LanguageChoice } from "./Language";
import { worded } from "@radicula/core/words";

const Context = createContext<{ readonly units: Units; choose(units: Units): void }>({
  units: STORED_UNITS,
  choose: () => undefined,
});
export const useUnits = (): Units => useContext(Context).units;

/**
 * The units in which this person reads and types; everything is stored in SI. Kept in a cookie, so that the first paint
 * has them.
 * @param person id of who is signed in: on a shared device each has their own
 */
export function UnitsOf({
  person,
  initial,
  children,
}: {
  readonly person: string | undefined;
  readonly initial: Units;
  readonly children: ReactNode;
}) {
  const name = unitsCookie(person);
  const [own, setOwn] = useState({ name, units: initial });
  // another person took over on this page
  if (own.name !== name) setOwn({ name, units: keptUnits(name) });
  const { units } = own;
  const value = useMemo(
    () => ({
      units,
      choose: (next: Units) => {
        document.cookie = `${name}=${encodeURIComponent(JSON.stringify(next))}; path=/; max-age=31536000; samesite=lax`;
        setOwn({ name, units: next });
      },
    }),
    [name, units, setOwn],
  );
  return <Context value={value}>{children}</Context>;
}
function keptUnits(name: string): Units {
  const found = document.cookie.split("; ").find((c) => c.startsWith(`${name}=`));
  return readUnits(found?.slice(name.length + 1));
}

const QUANTITIES: Readonly<Record<UnitQuantity, string>> = worded(() => ({
  temperature: t("ui.temperature"),
  pressure: t("ui.pressure"),
  section: t("ui.wireSize"),
  distance: t("ui.distance"),
}));
const US_UNITS: Units = { temperature: "°F", pressure: "psi", section: "AWG", distance: "mi" };

/** Chooses the units, each by itself or all at once. */
export function UnitsButton() {
  const { units, choose } = useContext(Context);
  const isAll = (of: Units) => (Object.keys(of) as UnitQuantity[]).every((q) => of[q] === units[q]);
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      content={
        <div style={{ display: "grid", gap: 8 }} role="group" aria-label={t("ui.unitsAndLanguage")}>
          <LanguageChoice />
          <Segmented
            block
            aria-label={t("ui.allUnits")}
            options={[t("ui.metric"), "US"]}
            value={isAll(STORED_UNITS) ? t("ui.metric") : isAll(US_UNITS) ? "US" : ""}
            onChange={(all) => choose(all === "US" ? US_UNITS : STORED_UNITS)}
          />
          {(Object.keys(QUANTITIES) as UnitQuantity[]).map((q) => (
            // no label: a tap on its words would choose the first unit
            <div key={q} style={{ display: "flex", justifyContent: "space-between", alignItems: "center", gap: 24 }}>
              <span>{QUANTITIES[q]}</span>
              <Segmented
                aria-label={QUANTITIES[q]}
                options={[...UNIT_CHOICES[q]]}
                value={units[q]}
                onChange={(unit) => choose({ ...units, [q]: unit })}
              />
            </div>
          ))}
        </div>
      }
    >
      <Button type="text" aria-label={t("ui.unitsAndLanguage")} title={t("ui.unitsAndLanguage")}>
        {readerLanguage().toUpperCase()} · {units.temperature}
      </Button>
    </Popover>
  );
}
