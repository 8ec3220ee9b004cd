import { words } from "./messages/index.js";
import { german } from "./messages/de/index.js";

/** Makes the core's words speak German. They are apart, so that only who reads them loads them. */
export const addGermanWords = (): void => words.add("de", german);
