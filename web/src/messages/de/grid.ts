import type { Translation } from "@radicula/core/words";
import type { grid as english } from "../en/grid";

export const grid: Translation<typeof english> = {
  "grid.aGuessFromTheRestType": "Aus dem Rest vermutet: tippen, sobald es gelesen ist",
  "grid.line": "{title}, Zeile {rowIndex}",
  "grid.connector": "Stecker",
  "grid.cavity": "Kammer",
  "grid.colour": "Farbe",
  "grid.function": "Funktion",
  "grid.goesTo": "Führt zu",
  "grid.source": "Quelle",
  "grid.lengthM": "Länge m",
  "grid.bundle": "Strang",
  "grid.zones": "Zonen",
  "grid.part": "Bauteil",
  "grid.values": "Werte",
  "grid.wireName": "Leitungsname",
};
