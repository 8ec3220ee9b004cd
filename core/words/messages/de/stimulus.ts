import type { Translation } from "../../language.js";
import type { stimulus as english } from "../en/stimulus.js";

export const stimulus: Translation<typeof english> = {
  "stimulus.at": "{id} auf {value}",
  "stimulus.steelAtTheTipOf": "Stahl an der Spitze von {id}",
  "stimulus.noSteelAtTheTipOf": "kein Stahl an der Spitze von {id}",
  "stimulus.at2": "{id} auf {value} %",
  "stimulus.at3": "{id} auf {value}",
};
