import type { Translation } from "../../language.js";
import type { shared as english } from "../en/shared.js";

export const shared: Translation<typeof english> = {
  "shared.noCodeNamesAPartOf": "Noch kein Fehlercode nennt ein Bauteil dieses Schaltplans.",
  "shared.onlyOneCircuitHasACode": "Nur ein Stromkreis hat einen Fehlercode.",
  "shared.noThreeThingsCoverAllCoded":
    "Keine drei Dinge decken alle Stromkreise mit Fehlercode ab: mehrere Fehler, oder ein Code zu einem anderen Teil.",
  "shared.noOneThingIsSharedBy": "Nichts ist allen {codedCount} gemeinsam. {least} zusammen würden genügen: {covers}.",
  "shared.andNoHealthyCircuitDoes": ", und kein gesunder Stromkreis",
  "shared.healthyCircuitsDoToo":
    "; {fewest, plural, one {auch ein gesunder Stromkreis} other {auch # gesunde Stromkreise}}",
  "shared.passThrough": "{circuits} führen über {things}{more}{against}.",
  "shared.both": "Beide",
  "shared.all": "Alle {codedCount}",
  "shared.andMore": " und {thingsCount} weitere",
  "shared.toJoin": " nach ",
  "shared.withJoin": " mit ",
};
