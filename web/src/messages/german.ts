import { addGermanWords } from "@radicula/core/words/german";
import { screens } from ".";
import { german } from "./de";

/** Makes the screens speak German; loaded only where somebody reads it. */
export function addGerman(): void {
  addGermanWords();
  screens.add("de", german);
}
