import {
  minutesTaken,
  partsNamed,
  type Entry,
  type Folded,
  type Wiring,
  type WorkshopSettings,
} from "../../src/index.js";
import type { Namer } from "../faults.js";
import type { Block } from "./blocks.js";
import { t } from "../messages/index.js";

export const moneyText = (value: number, { currency }: Pick<WorkshopSettings, "currency">): string =>
  `${currency} ${value.toFixed(2)}`;

/** Labour, parts and tax, and their sum; nothing where no price is known. */
export function costs(entries: readonly Entry[], folded: Folded, settings: WorkshopSettings): Block | undefined {
  const rate = settings.labourPerHour ?? folded.intake?.entry.labourPerHour;
  const { testing, repairing } = minutesTaken(entries);
  const parts = folded.repairs.reduce((sum, r) => sum + (r.entry.price ?? 0), 0);
  const labour = rate === undefined ? undefined : ((testing + repairing) / 60) * rate;
  if (labour === undefined && parts === 0) return undefined;
  const net = (labour ?? 0) + parts;
  const tax = settings.taxPercent === undefined ? 0 : (net * settings.taxPercent) / 100;
  const money = (value: number) => moneyText(value, settings);
  return {
    kind: "facts",
    rows: [
      ...(labour === undefined
        ? []
        : [[t("report.workMin", { testing: testing + repairing }), money(labour)] as const]),
      ...(parts ? [[t("report.parts"), money(parts)] as const] : []),
      ...(tax ? [[t("report.tax", { taxPercent: settings.taxPercent }), money(tax)] as const] : []),
      [t("report.sum"), money(net + tax)],
    ],
  };
}

/** Parts that codes named, or that were suspected, and that nobody had to buy. */
export function notReplaced(
  wiring: Wiring,
  folded: Folded,
  namer: Namer,
  settings: WorkshopSettings,
): { readonly items: readonly string[]; readonly saved: number } {
  const replaced = new Set(folded.repairs.flatMap(({ entry }) => (entry.how === "replaced" ? entry.things : [])));
  const parts = partsNamed(wiring, [...folded.codesBefore, ...folded.codes]).filter((id) => !replaced.has(id));
  let saved = 0;
  const items = parts.map((id) => {
    const price = wiring.devices.find((d) => d.id === id)?.price;
    saved += price ?? 0;
    return `${namer.device(id)}${price === undefined ? "" : `, ${moneyText(price, settings)}`}`;
  });
  return { items, saved };
}
