import type { Translation } from "@radicula/core/words";
import type { site as english } from "../en/site";

export const site: Translation<typeof english> = {
  "site.find": "Suchen",
  "site.showAll": "Alle zeigen",
  "site.openAFile": "Datei öffnen",
  "site.dropTheFileToOpenIt": "Datei ablegen, um sie zu öffnen",
  "site.archived": "Archiviert",
  "site.deleted": "Gelöscht",
  "site.putBack": "Zurückholen",
  "site.undo": "Rückgängig",
  "site.archive": "Archivieren",
  "site.moreFor": "Mehr zu {name}",
  "site.jobs": "Aufträge",
  "site.wirings": "Pläne",
  "site.notebook": "Notizbuch",
  "site.calculators": "Rechner",
  "site.radicula": "radicula",
  "site.radiculaAllJobs": "Radicula: alle Aufträge",
  "site.main": "Hauptmenü",
  "site.delete": "Löschen",
  "site.opening": "{file} wird geöffnet …",
};
