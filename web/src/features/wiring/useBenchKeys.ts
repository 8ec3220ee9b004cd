"use client";
import { useHotkeys } from "react-hotkeys-hook";
import type { Bench } from "./useBench";

/** Time until a cell that is left has given its text to the table, ms. */
const LEAVE_MS = 30;
const EVERYWHERE = { enableOnFormTags: true, preventDefault: true } as const;

/** A text box outside the table has an undo of its own. */
const isTyping = ({ target }: KeyboardEvent): boolean =>
  (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) && !target.closest(".dsg-container");

/** The keys of the workbench. */
export function useBenchKeys({ history, job, toJob }: Bench, onFind: () => void): void {
  useHotkeys("mod+z", history.undo, { ...EVERYWHERE, ignoreEventWhen: isTyping });
  useHotkeys("mod+shift+z", history.redo, { ...EVERYWHERE, ignoreEventWhen: isTyping });
  useHotkeys("mod+y", history.redo, { preventDefault: true });
  useHotkeys("mod+k", onFind, EVERYWHERE);
  useHotkeys(
    "mod+enter",
    () => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      setTimeout(() => void toJob(), LEAVE_MS);
    },
    { ...EVERYWHERE, enabled: job !== null },
  );
}
