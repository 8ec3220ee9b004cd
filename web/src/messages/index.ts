import { catalogue } from "@radicula/core/words";
import { english } from "./en";

/** What the screens say; the words of the core have their own catalogue. */
export const screens = catalogue(english);
export const { t } = screens;
