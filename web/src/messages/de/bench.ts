import type { Translation } from "@radicula/core/words";
import type { bench as english } from "../en/bench";

export const bench: Translation<typeof english> = {
  "bench.theSameMachineSimulatedWithA":
    "Dieselbe Maschine, simuliert, mit einem Fehler, den niemand kennt. Auslesen, messen, finden: nichts Echtes wird berührt.",
  "bench.machine": "Maschine",
  "bench.whichMachine": "Welche Maschine?",
  "bench.oneFault": "Ein Fehler",
  "bench.twoAtOnce": "Zwei zugleich",
  "bench.threeAtOnce": "Drei zugleich",
  "bench.itComesAndGoes": "Er kommt und geht",
  "bench.putItOnTheBench": "Auf die Werkbank stellen",
  "bench.onTheBench": "Auf der Werkbank",
};
