import type { Translation } from "@radicula/core/words";
import { english } from "../en";

export const german: Translation<typeof english> = english;
