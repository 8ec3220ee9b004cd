import type { Translation } from "@radicula/core/words";
import type { gaps as english } from "../en/gaps";

export const gaps: Translation<typeof english> = {
  "gaps.wiresAssumed":
    "{count, plural, one {1 Leitung steht} other {# Leitungen stehen}} nicht im Plan: wohin sie führen, ist angenommen",
  "gaps.firstLookAtTheDrawing": "Ein Blick in den Plan sagt mehr als eine Messung",
  "gaps.theDrawingLeavesOpen": "Der Plan lässt das offen",
  "gaps.whereDoesItGo": "Wohin führt die Leitung an {point}?",
  "gaps.worth": "Es sagt {bits} Bit über die Ursache; etwa {minutes} min im Buch.",
  "gaps.worthOnSheet": "Es sagt {bits} Bit über die Ursache; etwa {minutes} min: auf {sheet} nachsehen, bei {near}.",
  "gaps.hangsOn":
    "Der Plan zeigt nicht, wohin die Leitung an {point} führt. Führt sie anderswohin ({percent} %), liegt eine andere Ursache vorn.",
  "gaps.lookItUp": "Erst nachsehen",
  "gaps.notOnTheDrawing": "Nicht im Plan",
  "gaps.assumedUntilLookedUp":
    "Bei diesen Leitungen ist angenommen, dass sie dorthin führen, wohin die ähnlicher Teile führen. In der Wurzelkarte sind sie gestrichelt. Nach dem Nachsehen hier eintragen, wohin jede führt.",
  "gaps.drawThemAll": "Schaltplan öffnen",
  "gaps.workingThemOut": "Was jede sagen würde, wird berechnet …",
  "gaps.supply": "Speisung",
  "gaps.ground": "Masse",
  "gaps.signal": "Signal",
  "gaps.bits": "{bits} Bit wert",
  "gaps.lookOn": "Auf {sheet} nachsehen, bei {near}.",
  "gaps.showThePage": "Seite zeigen",
  "gaps.assumedNow": "jetzt angenommen",
  "gaps.elsewhere": "anderswohin",
  "gaps.noWire": "keine Leitung dort",
  "gaps.whereItGoes": "Wohin sie führt",
  "gaps.forExample": "Zum Beispiel A1:8 oder S14",
  "gaps.putItDown": "In den Schaltplan eintragen",
};
