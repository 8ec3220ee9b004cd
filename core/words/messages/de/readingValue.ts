import type { Translation } from "../../language.js";
import type { readingValue as english } from "../en/readingValue.js";

export const readingValue: Translation<typeof english> = {
  "readingValue.atItsLowEnd": "am unteren Ende",
  "readingValue.atItsHighEnd": "am oberen Ende",
  "readingValue.noBeep": "kein Ton",
};
