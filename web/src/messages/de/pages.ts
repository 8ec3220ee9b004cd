import type { Translation } from "@radicula/core/words";
import type { pages as english } from "../en/pages";

export const pages: Translation<typeof english> = {
  "pages.myAccount": "Mein Konto",
  "pages.calculators": "Rechner",
  "pages.thisPageCouldNotBeShown": "Diese Seite ließ sich nicht zeigen",
  "pages.theDatabaseMayBeOutOf":
    "Vielleicht ist die Datenbank nicht erreichbar. Gespeichertes ging nicht verloren, und Getipptes bleibt auf diesem Gerät.",
  "pages.tryAgain": "Noch einmal versuchen",
  "pages.invitation": "Einladung",
  "pages.noSuchJob": "Kein solcher Auftrag",
  "pages.report": "Bericht",
  "pages.findsTheOneSharedCauseBehind": "Findet die eine gemeinsame Ursache hinter mehreren Fehlercodes",
  "pages.skipToTheContent": "Zum Inhalt springen",
  "pages.thereIsNothingAtThisAddress": "Unter dieser Adresse ist nichts",
  "pages.theJobMayHaveBeenRemoved": "Der Auftrag wurde vielleicht entfernt, oder die Adresse ist unvollständig.",
  "pages.allJobs": "Alle Aufträge",
  "pages.notebook": "Notizbuch",
  "pages.people": "Personen",
  "pages.workshop": "Werkstatt",
  "pages.notFound": "Nicht gefunden",
  "pages.signIn": "Anmelden",
  "pages.wiringOf": "Schaltplan von {name}",
  "pages.noSuchWiring": "Kein solcher Schaltplan",
  "pages.wirings": "Schaltpläne",
};
