import type { Translation } from "../../language.js";
import type { tests as english } from "../en/tests.js";

export const tests: Translation<typeof english> = {
  "tests.voltage": "Spannung",
  "tests.voltageUnplugged": "Spannung, abgezogen",
  "tests.voltageWhileAnotherPartIsUnplugged": "Spannung, während ein anderes Teil abgezogen wird",
  "tests.bothSidesOfTheFuse": "Beide Seiten der Sicherung",
  "tests.resistance": "Widerstand",
  "tests.resistanceFromPlugToPlug": "Widerstand von Stecker zu Stecker",
  "tests.currentInABranch": "Strom in einem Zweig",
  "tests.resistanceWhileSomethingIsMoved": "Widerstand, während etwas bewegt wird",
  "tests.valueOnTheScanTool": "Wert im Diagnosegerät",
  "tests.valueOnTheScanToolPart": "Wert im Diagnosegerät, Teil abgezogen",
  "tests.signalOnTheScope": "Signal am Oszilloskop",
  "tests.look": "Ansehen",
  "tests.moveTheWires": "Leitungen bewegen",
  "tests.swapThePart": "Teil tauschen",
  "tests.compareThePartNumber": "Teilenummer vergleichen",
  "tests.checkWhichConnectorItIs": "Prüfen, welcher Stecker es ist",
  "tests.voltageDrop": "Spannungsfall",
  "tests.jumper": "Brücke",
  "tests.testLamp": "Prüflampe",
  "tests.breakerInPlaceOfTheFuse": "Automat statt der Sicherung",
  "tests.testOnTheBench": "Test auf der Werkbank",
  "tests.seeWhetherTheCodeSets": "Prüfen, ob der Fehlercode setzt",
  "tests.nothingToSee": "nichts zu sehen",
};
