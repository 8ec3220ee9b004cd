import type { Translation } from "@radicula/core/words";
import type { session as english } from "../en/session";

export const session: Translation<typeof english> = {
  "session.findOutWhich": "Herausfinden, welche",
  "session.stillComparingTests": " (Tests werden noch verglichen)",
  "session.insteadOfEntry": "Statt Eintrag {corrects}",
  "session.anotherReading": "Andere Messung",
  "session.nextStepOfThisTest": "Nächster Schritt dieses Tests",
  "session.onceMoreEntryDoesNotFit": "Noch einmal: Eintrag {again} passt nicht",
  "session.confirm": "Bestätigen",
  "session.nextReading": "Nächste Messung",
};
