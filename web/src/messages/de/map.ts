import type { Translation } from "@radicula/core/words";
import type { map as english } from "../en/map";

export const map: Translation<typeof english> = {
  "map.putALeadOn": "Leitung an {point} anlegen",
  "map.pinsArrowKeysFollowTheWires": "Pins: Pfeiltasten folgen den Leitungen, Enter legt dort an",
  "map.inLineConnector": "Zwischenstecker",
  "map.suspected": "{share} verdächtig",
  "map.theNextReading": "die nächste Messung",
  "map.theMapInWords": "Die Karte in Worten",
  "map.place": "Stelle",
  "map.leadsTo": "Führt zu",
  "map.suspected2": "Verdächtig",
  "map.readThere": "Dort gemessen",
  "map.noCode": "✓ kein Code",
  "map.noCodeLogged": "kein Code eingetragen",
  "map.unpluggedNow": "jetzt abgezogen",
  "map.worksPointsAway": "arbeitet: spricht dagegen",
  "map.notSetAnyMore": "nicht mehr gesetzt",
  "map.provesNothing": "beweist nichts",
  "map.healthy": "{healthyText} gesund",
  "map.otherCircuitsShareNoWireWith":
    "{hidden, plural, one {Ein anderer Stromkreis teilt keine Leitung mit denen mit Code und ist nicht gezeichnet.} other {# andere Stromkreise teilen keine Leitung mit denen mit Code und sind nicht gezeichnet.}} ",
  "map.hiddenNotSuspected": "Ausgeblendet (nicht verdächtig): {shortList}.",
  "map.mostSuspicionOn": " Am verdächtigsten: {title}, {share}.",
  "map.rootMapOfSensorsAndWhat": "Ursachenkarte von {sensors} Sensoren und dem, was sie teilen.{most}",
  "map.andMore": "{names} und {more} weitere",
  "map.splice": "Spleiß {id}",
  "map.connector": "Stecker {thing}",
  "map.module": "Steuergerät",
};
