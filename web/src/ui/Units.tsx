"use client";
import { STORED_UNITS, type Units } from "@radicula/core";
import { Button } from "antd";
import {
  createContext,
  useContext,
  useMemo,
  useState,
  type ComponentType,
  type ReactElement,
  type ReactNode,
} from "react";
import { readUnits, unitsCookie } from "./unitsCookie";
import { t } from "@/messages";
import { readerLanguage } from "@radicula/core/words";

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

type Chooser = ComponentType<{
  readonly units: Units;
  readonly onChoose: (units: Units) => void;
  readonly children: ReactElement;
}>;

/** Opens the choice of units and language, which comes with its first use. */
export function UnitsButton() {
  const { units, choose } = useContext(Context);
  const [Choice, setChoice] = useState<Chooser | undefined>(undefined);
  const button = (onClick?: () => void) => (
    <Button type="text" aria-label={t("ui.unitsAndLanguage")} title={t("ui.unitsAndLanguage")} onClick={onClick}>
      {readerLanguage().toUpperCase()} · {units.temperature}
    </Button>
  );
  if (Choice)
    return (
      <Choice units={units} onChoose={choose}>
        {button()}
      </Choice>
    );
  return button(() => void import("./UnitsChoice").then((m) => setChoice(() => m.UnitsChoice)));
}
