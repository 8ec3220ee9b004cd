import type { Translation } from "../../language.js";
import type { fileSorts as english } from "../en/fileSorts.js";

export const fileSorts: Translation<typeof english> = {
  "fileSorts.thisIsAJobOpenIt": "Das ist ein Auftrag. Bitte unter Aufträge öffnen.",
  "fileSorts.thisIsAWiringOpenIt": "Das ist ein Schaltplan. Bitte unter Schaltpläne öffnen.",
  "fileSorts.thisIsAPinChartOpen": "Das ist eine Pinbelegung. Bitte unter Schaltpläne öffnen.",
  "fileSorts.thisIsANotebookOfClosed": "Das ist ein Notizbuch abgeschlossener Aufträge. Bitte unter Notizbuch öffnen.",
  "fileSorts.thisIsATableIfIt": "Das ist eine Tabelle. Ist es eine Pinbelegung, bitte unter Schaltpläne öffnen.",
  "fileSorts.thisIsAZipAJob":
    "Das ist eine Zip-Datei. Ein mit Fotos gespeicherter Auftrag wird unter Aufträge geöffnet.",
  "fileSorts.thisIsAGraphGraphmlIt":
    "Das ist ein Graph (GraphML). Er ist für andere Programme und wird nicht zurückgelesen. Bitte den Schaltplan oder seine Belegung öffnen.",
  "fileSorts.thisIsASpiceNetlistIt":
    "Das ist eine SPICE-Netzliste. Sie ist für andere Programme und wird nicht zurückgelesen. Bitte den Schaltplan oder seine Belegung öffnen.",
  "fileSorts.thisIsALogbookAsA":
    "Das ist ein Protokoll als Tabelle. Zum Öffnen des Auftrags dessen JSON- oder Zip-Datei nehmen.",
  "fileSorts.thisIsAListOfCodes": "Das ist eine Liste von Fehlercodes. Bitte den Auftrag öffnen und sie dort ablegen.",
  "fileSorts.thisIsAPictureAddIt": "Das ist ein Bild. Bitte im Schaltplan hinzufügen, beim Stecker, den es zeigt.",
  "fileSorts.thisIsAPdfCopyIts": "Das ist ein PDF. Bitte dessen Tabelle kopieren und in den Schaltplan einfügen.",
  "fileSorts.thisIsASpreadsheetSaveIt": "Das ist eine Kalkulationstabelle. Bitte als CSV speichern und diese öffnen.",
  "fileSorts.thisIsAWebPageCopy": "Das ist eine Webseite. Bitte deren Tabelle kopieren und einfügen.",
};
