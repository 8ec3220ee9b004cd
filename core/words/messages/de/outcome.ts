import type { Translation } from "../../language.js";
import type { outcome as english } from "../en/outcome.js";

export const outcome: Translation<typeof english> = {
  "outcome.openCircuitInThe": "Unterbrechung: {c}",
  "outcome.highResistanceInThe": "Übergangswiderstand: {c}",
  "outcome.theIsShortedToGround": "Schluss nach Masse: {c}",
  "outcome.theIsShortedToASupply": "Schluss nach plus: {c}",
  "outcome.openCircuit": "Unterbrechung",
  "outcome.highResistance": "Übergangswiderstand",
  "outcome.shortToGround": "Schluss nach Masse",
  "outcome.shortToASupply": "Schluss nach plus",
  "outcome.at": "{use} an {point}",
  "outcome.aFaultInThe": "Ein Fehler in: {where}",
  "outcome.aFaultInTheCircuitOf": "Ein Fehler im Stromkreis von {device}",
  "outcome.aFaultAtOneOfThese": "Ein Fehler an einer dieser Stellen",
  "outcome.oneOfRepairs": "eine von {repairsCount} Reparaturen",
  "outcome.notTheOnlyFaultTheNext": "nicht der einzige Fehler: das nächste Auslesen zeigt, was übrig ist",
  "outcome.both": "{apart}; {notAll}",
  "outcome.noSingleTestCanSeparateThem": "{open}; kein einzelner Test kann sie trennen",
};
