import type { Translation } from "@radicula/core/words";
import type { ui as english } from "../en/ui";

export const ui: Translation<typeof english> = {
  "ui.noWire": ", keine Leitung",
  "ui.cavity": "Kammer {cavity}{wire}",
  "ui.withCavitiesLookingIntoThePlug": "{id} mit {cavitiesCount} Kammern, Blick in den Stecker",
  "ui.andMoreCavities": "und {cavitiesCount} weitere Kammern",
  "ui.wasNotTakenNothingWasSaved": "{file} wurde nicht genommen; nichts wurde gespeichert.",
  "ui.andMore": "und {issuesCount} weitere",
  "ui.darkColours": "Dunkle Farben",
  "ui.lightColours": "Helle Farben",
  "ui.temperature": "Temperatur",
  "ui.pressure": "Druck",
  "ui.wireSize": "Leitungsquerschnitt",
  "ui.distance": "Strecke",
  "ui.allUnits": "Alle Einheiten",
  "ui.metric": "Metrisch",
  "ui.language": "Sprache",
  "ui.unitsAndLanguage": "Einheiten und Sprache",
  "ui.stop": "Anhalten",
};
