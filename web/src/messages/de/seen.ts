import type { Translation } from "@radicula/core/words";
import type { seen as english } from "../en/seen";

export const seen: Translation<typeof english> = {
  "seen.seenOnTheMachine": "An der Maschine gesehen",
  "seen.connector": "Stecker",
  "seen.whichConnector": "Welcher Stecker?",
  "seen.looksLikeCheckTheNumberBefore": "Sieht aus wie {lookAlikes}: vor dem Messen die Nummer prüfen.",
  "seen.logWhatStandsThere": "Eintragen, was dort steht",
  "seen.cavity": "Kammer",
  "seen.drawn": "Gezeichnet",
  "seen.onTheMachine": "An der Maschine",
  "seen.notDrawn": "nicht gezeichnet",
  "seen.colourSeenInCavity": "Farbe in Kammer {c}",
  "seen.asDrawn": "wie gezeichnet",
  "seen.notAColourKnownHereKept": "keine hier bekannte Farbe; bleibt wie getippt",
  "seen.cavities": "Kammern",
  "seen.partNumber": "Teilenummer",
  "seen.noneDrawn": "keine gezeichnet",
  "seen.andReplaceEachOtherTheRight": "{partNumber} und {drawnNumber} ersetzen einander: das richtige Teil.",
  "seen.notAsDrawn": "Nicht wie gezeichnet.",
  "seen.eitherTheDrawingIsOfAnother": "Entweder gehört der Plan zu einer anderen Ausführung, oder dies ist nicht {id}",
  "seen.fitsBetter": "passt besser",
  "seen.settleThatBeforeTestingHere": ". Das klären, bevor hier gemessen wird.",
  "seen.asDrawn2": "Wie gezeichnet.",
  "seen.orJoin": " oder ",
};
