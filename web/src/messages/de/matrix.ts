import type { Translation } from "@radicula/core/words";
import type { matrix as english } from "../en/matrix";

export const matrix: Translation<typeof english> = {
  "matrix.inLineCavity": "Kammer im Zwischenstecker",
  "matrix.modulePin": "Steuergerätepin",
  "matrix.whichPartIsNotKnownSo":
    "{unnamed}: es ist nicht bekannt, welches Teil {count, plural, one {gemeint ist} other {jeweils gemeint ist}}; deshalb nicht in dieser Tabelle.",
  "matrix.sayWhich": "Angeben",
  "matrix.shared": "Gemeinsam",
  "matrix.noCode": "{device}, kein Code",
  "matrix.theSameCircuits": "; dieselben Stromkreise: {same}{more}",
  "matrix.andMore": " und {sameCount} weitere",
  "matrix.codedPasses": "mit Code, führt hindurch",
  "matrix.healthyPasses": "gesund, führt hindurch",
  "matrix.whatTheCircuitsShareAsA": "Was die Stromkreise teilen, als Tabelle",
  "matrix.codedAndPassesThrough": "mit Code und führt hindurch",
  "matrix.passesThroughAndWorksPointsAway": "führt hindurch und arbeitet: spricht dagegen",
  "matrix.moreRowsSharedByFewer": "{rowsCount} weitere Zeilen, von weniger geteilt",
  "matrix.splice": "Spleiß",
  "matrix.ground": "Massepunkt",
  "matrix.fuse": "Sicherung",
  "matrix.switch": "Schalter",
  "matrix.relay": "Relais",
  "matrix.wire": "Leitung",
  "matrix.part": "Bauteil",
};
