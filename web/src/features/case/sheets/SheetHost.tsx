"use client";
import { useCase } from "../session/caseContext";
import { SHEETS } from "../session/sheetNames";
import { REGISTRY } from "./registry";

/**
 * The sheets opened so far, one of them over the case. A sheet comes with its first use, so that the case need not wait
 * for it.
 */
export function SheetHost() {
  const { sheets } = useCase();
  return SHEETS.map((name) => {
    const Sheet = REGISTRY[name];
    const begun = `${name} ${sheets.done[name] ?? 0} ${name === "other" ? (sheets.point ?? "") : ""}`;
    return sheets.opened.has(name) ? <Sheet key={begun} isOpen={sheets.sheet === name} /> : null;
  });
}
