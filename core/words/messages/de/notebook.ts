import type { Translation } from "../../language.js";
import type { notebook as english } from "../en/notebook.js";

export const notebook: Translation<typeof english> = {
  "notebook.notAskedYet": "noch nicht nachgefragt",
  "notebook.stillGoodWhenAsked": "bei Nachfrage noch gut",
  "notebook.cameBack": "kam wieder",
  "notebook.anotherFaultLater": "später ein anderer Fehler",
  "notebook.noCauseWasFound": "keine Ursache gefunden",
  "notebook.couldNotBeReproduced": "Nicht nachzustellen",
  "notebook.notRepaired": "Nicht repariert",
  "notebook.repairedWithoutAProof": "Repariert, ohne Nachweis",
  "notebook.proofSaidCured": "Nachweis: {share} behoben",
  "notebook.theSameCodes": "dieselben Codes",
  "notebook.ofTheCodes": "{share} der Codes",
  "notebook.on": ", an {machine}",
  "notebook.below": "unter {percent}",
  "notebook.orMore": "{percent} oder mehr",
  "notebook.to": "{percent} bis {percent2}",
};
