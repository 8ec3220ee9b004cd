import type { Translation } from "@radicula/core/words";
import type { drawing as english } from "../en/drawing";

export const drawing: Translation<typeof english> = {
  "drawing.aroundWhat": "Um was herum",
  "drawing.showAll": "Alles zeigen",
  "drawing.thisWiringCouldNotBeLaid": "Dieser Schaltplan ließ sich nicht anordnen. Stattdessen einen Teil zeichnen.",
  "drawing.nothingToDrawYetTypeThe": "Noch nichts zu zeichnen: die erste Zeile der Belegung tippen.",
  "drawing.theSheetToBeScrolled": "Das Blatt, zum Verschieben",
  "drawing.drawing": "Zeichnung",
  "drawing.wholeWiring": "Ganzer Schaltplan",
  "drawing.around": "Um ein Teil",
  "drawing.layingOutPartsAndWires": "{nodesCount} Teile und {edgesCount} Leitungen werden angeordnet…",
  "drawing.leadsTo": "führt zu",
  "drawing.endsHere": "endet hier",
  "drawing.sharedWith": ", geteilt mit {others}",
  "drawing.pressACavityToFollowIt": "eine Kammer drücken, um ihr zu folgen",
  "drawing.smaller": "Kleiner",
  "drawing.asItFits": "eingepasst",
  "drawing.larger": "Größer",
  "drawing.print": "Drucken",
  "drawing.svg": "SVG",
  "drawing.png": "PNG",
  "drawing.wiringDrawingWithPartsAndWires": "Schaltplan mit {nodesCount} Teilen und {edgesCount} Leitungen",
  "drawing.follow": "{point} folgen",
  "drawing.stopped": "Sie haben das Zeichnen angehalten. Ein Teil ist schneller gezeichnet: wählen Sie „Um ein Teil“.",
  "drawing.drawIt": "Trotzdem zeichnen",
};
