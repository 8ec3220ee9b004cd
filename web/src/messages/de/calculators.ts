import type { Translation } from "@radicula/core/words";
import type { calculators as english } from "../en/calculators";

export const calculators: Translation<typeof english> = {
  "calculators.check": "Prüfen",
  "calculators.to": "{typed} bis {typed2}",
  "calculators.nothingFollowsFromTheseValues": "aus diesen Werten folgt nichts",
  "calculators.calculators": "Rechner",
  "calculators.at": "{names} {short} {unitY} bei {names2} {short2} {unitX}",
  "calculators.curve": "Kurve: {said}{outside}",
  "calculators.outsideWhatIsDrawn": ", außerhalb des Gezeichneten",
  "calculators.asATable": "Als Tabelle",
};
