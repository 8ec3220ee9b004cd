import type { Translation } from "@radicula/core/words";
import type { disturbed as english } from "../en/disturbed";

export const disturbed: Translation<typeof english> = {
  "disturbed.everythingIsAsItWasFound": "Alles ist wie vorgefunden, oder es ist begründet.",
  "disturbed.everythingIsAsItWasFoundClosed": "Alles ist wie vorgefunden, und der Auftrag ist abgeschlossen.",
  "disturbed.closeTheJob": "Auftrag abschließen",
  "disturbed.sinceEntry": "seit Eintrag {number}",
  "disturbed.leaveAsIs": "So lassen",
  "disturbed.allIsAsItWasFound": "Alles ist wie vorgefunden",
  "disturbed.whyDoesStay": "Warum bleibt das so: {thing}, {still}?",
  "disturbed.keepItSoWithThisReason": "So lassen, mit diesem Grund",
  "disturbed.somethingElseThatWasDisturbed": "Noch etwas, das verändert wurde",
  "disturbed.somethingElseWasLeftOtherwise": "Noch etwas wurde verändert",
  "disturbed.how": "Wie",
  "disturbed.putOnTheList": "Auf die Liste setzen",
  "disturbed.restoreBeforeClosing": "Wiederherstellen vor dem Abschluss",
  "disturbed.toJoin": " nach ",
};
