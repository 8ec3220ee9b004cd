import { catalogue } from "../language.js";
import { english } from "./en/index.js";

/** What the core's words are made of. */
export const words = catalogue(english);
export const { t } = words;
