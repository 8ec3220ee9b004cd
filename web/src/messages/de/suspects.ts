import type { Translation } from "@radicula/core/words";
import type { suspects as english } from "../en/suspects";

export const suspects: Translation<typeof english> = {
  "suspects.suspects": "Verdächtige",
  "suspects.explainsCodes": "erklärt Codes",
  "suspects.fewer": "Weniger",
  "suspects.moreTogether": "{worthCount} weitere, zusammen {share}",
  "suspects.earlierJobsCountHere":
    "{lessons, plural, one {1 früherer Auftrag zählt hier} other {# frühere Aufträge zählen hier}}",
  "suspects.growsWhenEveryFaultInThis":
    " Wächst, wenn jeder Fehler in diesem Schaltplan schlecht zu den Messungen passt.",
  "suspects.shouldHaveSetToo": "hätte auch {against} setzen müssen",
  "suspects.leavesTheOtherUnsetAsSeen":
    "lässt {count, plural, one {den anderen Code} other {die anderen # Codes}} ungesetzt, wie gesehen",
  "suspects.noTestHereCanSeparateThese": "Kein Test hier kann diese {placesCount} Stellen trennen. Jede ansehen.",
  "suspects.toldFrom": "Zu trennen von",
  "suspects.by": "durch:",
  "suspects.against": "dagegen",
  "suspects.for": "dafür",
};
