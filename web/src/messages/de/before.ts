import type { Translation } from "@radicula/core/words";
import type { before as english } from "../en/before";

export const before: Translation<typeof english> = {
  "before.thisIsAPracticeJobWhat":
    "Das ist ein Übungsauftrag. Absichtlich Verstecktes steht nicht im Notizbuch, und echte Aufträge zählen hier nicht.",
  "before.afterARepairThisIsNot": "Nach einer Reparatur wird das nicht mehr geändert.",
  "before.howLikelyEachPlaceIsNow":
    "Wie wahrscheinlich jede Stelle jetzt ist, verglichen mit ohne Erfahrungen: {feeds}.",
  "before.lookingInTheNotebook": "Das Notizbuch wird durchsucht…",
  "before.openTheNotebook": "Notizbuch öffnen",
  "before.seenBefore": "Schon gesehen",
  "before.noClosedJobHasCodesLike": "Kein abgeschlossener Auftrag hat ähnliche Codes.",
  "before.didNotLast": "Hielt nicht",
  "before.whatHelped": "Was half",
  "before.theSameCodes": "dieselben Codes",
  "before.on": " · an {machine}",
  "before.times": "{what} {factor}-mal",
  "before.allElse": "alles andere",
  "before.ofTheCodes": "{share} % der Codes",
  "before.jobsCountHere":
    "{count, plural, one {1 abgeschlossener Auftrag dieses Schaltplans zählt hier} other {# abgeschlossene Aufträge dieses Schaltplans zählen hier}}",
  "before.jobsCanCountHere":
    "{count, plural, one {1 abgeschlossener Auftrag dieses Schaltplans kann} other {# abgeschlossene Aufträge dieses Schaltplans können}} hier zählen",
  "before.andJoin": " und ",
};
