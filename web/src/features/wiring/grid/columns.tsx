"use client";
import { parseColour, type ChartRow } from "@radicula/core";
import { createTextColumn, keyColumn, type CellProps, type Column } from "react-datasheet-grid";
import { Swatch } from "@/ui/WireSwatch";
import type { Built } from "@/workers/chart.worker";
import { TextCell, type TextData } from "./TextCell";
import { t } from "@/messages";
import { worded } from "@radicula/core/words";

export type Key = keyof ChartRow;
/** Columns in the order they are typed; the rest stands behind "more columns". */
export const MAIN: readonly Key[] = ["connector", "cavity", "colour", "function", "goesTo", "mm2", "source"];
export const MORE: readonly Key[] = ["lengthM", "bundle", "zones", "part", "values", "wire"];
export const TITLES: Readonly<Record<Key, string>> = worded(() => ({
  connector: t("grid.connector"),
  cavity: t("grid.cavity"),
  colour: t("grid.colour"),
  function: t("grid.function"),
  goesTo: t("grid.goesTo"),
  mm2: "mm²",
  source: t("grid.source"),
  lengthM: t("grid.lengthM"),
  bundle: t("grid.bundle"),
  zones: t("grid.zones"),
  part: t("grid.part"),
  values: t("grid.values"),
  wire: t("grid.wireName"),
}));
const GROW: Readonly<Partial<Record<Key, number>>> = {
  connector: 1,
  cavity: 0.75,
  colour: 1.15,
  function: 1.5,
  goesTo: 1.1,
  mm2: 0.65,
  source: 1,
  values: 2,
};
const LEAST: Readonly<Partial<Record<Key, number>>> = {
  connector: 92,
  cavity: 70,
  colour: 104,
  function: 130,
  goesTo: 96,
  mm2: 62,
  source: 84,
  values: 180,
  zones: 100,
  bundle: 90,
};

/** How text is copied, pasted and deleted; how it is shown and typed is `TextCell`. */
const text = createTextColumn<string | null>({
  continuousUpdates: false,
  deletedValue: "",
  parseUserInput: (v) => v,
  parsePastedValue: (v) => v.replace(/[\r\n\t]+/g, " ").trim(),
  formatForCopy: (v) => v ?? "",
});

function ColourCell(props: CellProps<string | null, TextData>) {
  const read = props.rowData ? parseColour(props.rowData) : undefined;
  return (
    <>
      <span className="swatch">
        {read?.status === "read" ? <Swatch base={read.colour.base} stripe={read.colour.stripe} /> : null}
      </span>
      <TextCell {...props} />
    </>
  );
}

export function gridColumns(keys: readonly Key[], built: Built | undefined): Partial<Column<ChartRow>>[] {
  const hints: Readonly<Partial<Record<Key, readonly string[] | undefined>>> = {
    connector: built?.inherited,
    function: built?.guessed,
    goesTo: built?.otherEnd,
  };
  return keys.map((key) => ({
    ...keyColumn<ChartRow, Key, string>(key, {
      ...text,
      component: key === "colour" ? ColourCell : TextCell,
      columnData: { title: TITLES[key], hints: hints[key], guess: key === "function" } satisfies TextData,
    } as unknown as Partial<Column<string>>),
    id: key,
    title: TITLES[key],
    grow: GROW[key] ?? 1,
    basis: 0,
    minWidth: LEAST[key] ?? 80,
  }));
}
