import type { Translation } from "@radicula/core/words";
import type { library as english } from "../en/library";

export const library: Translation<typeof english> = {
  "library.inTheLibrary": "In der Sammlung",
  "library.archived": "Archiviert",
  "library.deleted": "Gelöscht",
  "library.wirings": "Schaltpläne",
  "library.where": "Wo",
  "library.findASplicePartNumberCode": "Spleiß, Teilenummer, Code, Ort suchen",
  "library.find": "Suchen",
  "library.nothingHereHolds": 'Nichts hier enthält "{words}".',
  "library.nothingIs": "{away, select, archived {Nichts ist archiviert.} other {Nichts ist gelöscht.}}",
  "library.noWiringsYetTypeOneOr": "Noch keine Schaltpläne. Einen tippen oder eine Datei öffnen.",
  "library.machineTypeNotNamed": "Maschinentyp nicht genannt",
  "library.changed": " · geändert {changedAt}",
  "library.lines": "{rows, plural, one {1 Zeile} other {# Zeilen}}",
  "library.revision": "Revision {revision}",
  "library.noRevisionYet": "noch keine Revision",
  "library.jobs": "{jobs, plural, one {1 Auftrag} other {# Aufträge}}",
  "library.theNewWiring": "Der neue Schaltplan",
  "library.newWiring": "Neuer Schaltplan",
  "library.copy": "Kopieren",
};
