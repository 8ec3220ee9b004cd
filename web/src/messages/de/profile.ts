import type { Translation } from "@radicula/core/words";
import type { profile as english } from "../en/profile";

export const profile: Translation<typeof english> = {
  "profile.codesComeFirstThenThereIs": "Zuerst die Codes: dann gibt es eine Leitung zum Verfolgen.",
  "profile.unplugged": ", {unplugged} abgezogen",
  "profile.wireToWhichPin": "Leitung zu welchem Pin",
  "profile.healthy": "gesund",
  "profile.ifItIs": "wenn es das ist: {suspect}",
  "profile.read": "gemessen",
  "profile.noWireLeadsFromThisPin": "Von diesem Pin führt keine Leitung zu einem Steuergerät.",
  "profile.asATable": "Als Tabelle",
  "profile.point": "Punkt",
  "profile.healthy2": "Gesund",
  "profile.withTheSuspect": "Mit dem Verdächtigen",
  "profile.read2": "Gemessen",
  "profile.voltageAlongTheWire": "Spannung entlang der Leitung: {said}",
  "profile.andJoin": " und ",
};
