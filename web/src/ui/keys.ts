"use client";
import { useHotkeys } from "react-hotkeys-hook";
import { inSheet } from "./focus";

/** Marks an element in which keys of the case work although it has the focus: in a text box while it is empty. */
export const KEYS = { "data-keys": "all" } as const;
/** As `KEYS`, for a box in which words are typed: they begin with letters, so only "?" is a key there. */
export const KEYS_BESIDE_WORDS = { "data-keys": "no letters" } as const;

const OFF = "radicula.keys-off";
/** Whether single letters are keys on this device: who dictates, or rests a hand on the keys, turns them off. */
export const areLettersKeys = (): boolean => localStorage.getItem(OFF) === null;
export function setLettersKeys(on: boolean): void {
  if (on) localStorage.removeItem(OFF);
  else localStorage.setItem(OFF, "yes");
}

/** Keys work from the page itself and from what is marked for them, but never while something is being typed. */
function isElsewhere(e: KeyboardEvent): boolean {
  if (e.key !== "?" && !areLettersKeys()) return true;
  const target = e.target as HTMLElement | null;
  if (!target || target === document.body) return inSheet();
  const place = target.closest<HTMLElement>("[data-keys]");
  if (!place) return true;
  if (target instanceof HTMLInputElement && target.value !== "") return true;
  return place.dataset.keys !== KEYS["data-keys"] && e.key !== "?";
}

/** A key of the case, as it is printed on the keyboard. @param key one character, upper or lower case alike */
export function useKey(key: string, action: () => void, enabled = true): void {
  useHotkeys(key === "?" ? "?, shift+?" : key, action, {
    enabled,
    useKey: true,
    preventDefault: true,
    enableOnFormTags: ["INPUT"],
    ignoreEventWhen: isElsewhere,
  });
}

/** Ctrl Z (or ⌘ Z), but where a text being typed has its own. */
export function useUndoKey(action: () => void): void {
  useHotkeys("mod+z", action, {
    preventDefault: true,
    enableOnFormTags: ["INPUT"],
    ignoreEventWhen: (e) => e.target instanceof HTMLInputElement && e.target.value !== "",
  });
}
