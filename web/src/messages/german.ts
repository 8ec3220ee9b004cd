import { addGermanWords } from "@radicula/core/words/german";
import controls from "antd/locale/de_DE";
import { screens } from ".";
import { german } from "./de";

/** Makes the screens speak German; loaded only where somebody reads it. @returns the words of the controls */
export function addGerman() {
  addGermanWords();
  screens.add("de", german);
  return controls;
}
