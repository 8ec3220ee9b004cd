"use client";
import { useKey, useUndoKey } from "@/ui/keys";
import { useCase } from "./caseContext";
import { useCardActions } from "./useCardActions";
import type { SheetName } from "./sheetNames";

/** The keys of the case that open a sheet; listed in its help. */
export const SHEET_KEYS: Readonly<Partial<Record<SheetName, string>>> = {
  other: "t",
  runs: "r",
  disturbed: "d",
  meter: "b",
  watch: "p",
  sums: "k",
  codes: "c",
  intake: "i",
  seen: "v",
  help: "?",
};

/** The keys of the case. Parts of the screen that have a key of their own take it themselves. */
export function useCaseKeys({ toggleHandsBusy }: { readonly toggleHandsBusy: () => void }): void {
  const { sheets, lines, write } = useCase();
  const { setAside } = useCardActions();
  const lastUndoable = lines.find((l) => l.canUndo)?.number;
  useKey("shift+x", () => setAside("cannotReach")); // it logs: never by one letter alone
  useKey("f", toggleHandsBusy);
  useSheetKey("other", sheets.open);
  useSheetKey("runs", sheets.open);
  useSheetKey("disturbed", sheets.open);
  useSheetKey("meter", sheets.open);
  useSheetKey("watch", sheets.open);
  useSheetKey("sums", sheets.open);
  useSheetKey("codes", sheets.open);
  useSheetKey("intake", sheets.open);
  useSheetKey("seen", sheets.open);
  useSheetKey("help", sheets.open);
  useUndoKey(() => {
    if (lastUndoable !== undefined) write.undo(lastUndoable);
  });
}
function useSheetKey(sheet: SheetName, open: (sheet: SheetName) => void): void {
  useKey(SHEET_KEYS[sheet]!, () => open(sheet));
}
