import type { Translation } from "../../language.js";
import { english } from "../en/index.js";

export const german: Translation<typeof english> = english;
