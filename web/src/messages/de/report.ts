import type { Translation } from "@radicula/core/words";
import type { report as english } from "../en/report";

export const report: Translation<typeof english> = {
  "report.backToTheJob": "Zurück zum Auftrag",
  "report.lengthOfTheReport": "Länge des Berichts",
  "report.print": "Drucken",
  "report.pdf": "PDF",
  "report.saveAsAPage": "Als Seite speichern",
  "report.letterheadAndRates": "Briefkopf und Sätze",
  "report.lengthsAndFiles": "Längen und Dateien",
  "report.putTheNameOfTheWorkshop": "Name der Werkstatt hierher",
  "report.makeAnAddressToSendFor": "Adresse zum Versenden erzeugen, für {days} Tage",
  "report.whoeverHasThisAddressReadsThe": "Wer diese Adresse hat, liest den Bericht, {days} Tage lang:",
  "report.saved": "Gespeichert.",
  "report.workshop": "Werkstatt",
  "report.standsAtTheHeadOfEvery": "Steht oben auf jedem Bericht; damit werden Zeiten und Teile berechnet.",
  "report.name": "Name",
  "report.address": "Adresse",
  "report.telephoneMail": "Telefon, Mail",
  "report.currency": "Währung",
  "report.oneHourOfWorkCosts": "Eine Arbeitsstunde kostet",
  "report.tax": "Steuer, %",
  "report.closedJobsOfTheSameWiring": "Abgeschlossene Aufträge desselben Schaltplans zählen in neuen von Anfang an",
  "report.save": "Speichern",
};
