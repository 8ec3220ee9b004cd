import type { Translation } from "@radicula/core/words";
import type { notebook as english } from "../en/notebook";

export const notebook: Translation<typeof english> = {
  "notebook.added":
    "{added} hinzugefügt.{there, plural, =0 {} one { # war schon hier und blieb.} other { # waren schon hier und blieben.}}",
  "notebook.addLessonsFromAFile": "Erfahrungen aus einer Datei hinzufügen",
  "notebook.dropTheNotebookToAddIts": "Notizbuch ablegen, um seine Erfahrungen hinzuzufügen",
  "notebook.nobodyWasAskedYetWhetherA":
    "Noch niemand wurde gefragt, ob eine Reparatur hielt. Die Übersicht sagt, wann.",
  "notebook.ofRepairsHeldWhenSomebodyAsked": "{held} von {asked} Reparaturen hielten bei späterer Nachfrage",
  "notebook.proofSaid": "Nachweis sagte",
  "notebook.closed": "Abgeschlossen",
  "notebook.heldOfThoseAsked": "Gehalten, von den nachgefragten",
  "notebook.nineTimesInTenBetween": "Neun von zehn Malen zwischen",
  "notebook.of": "{held} von {asked}",
  "notebook.nobodyAsked": "nicht nachgefragt",
  "notebook.and": "{percent} und {percent2}",
  "notebook.ofHeld": "{work}: {held} von {asked} hielten",
  "notebook.min": " · {minutes} min",
  "notebook.didNotLast": "Hielt nicht",
  "notebook.whatHelped": "Was half",
  "notebook.changeTheNote": "Notiz ändern",
  "notebook.addANote": "Notiz hinzufügen",
  "notebook.note": "Notiz",
  "notebook.saveTheNote": "Notiz speichern",
  "notebook.leaveIt": "Lassen",
  "notebook.countsInNewJobs": "Zählt in neuen Aufträgen",
  "notebook.doesNotCount": "Zählt nicht",
  "notebook.doesNotCount2": "Zählt nicht: {why}",
  "notebook.itCameBack": "es kam wieder",
  "notebook.notRepaired": "nicht repariert",
  "notebook.notebook": "Notizbuch",
  "notebook.saveAsAFile": "Als Datei speichern",
  "notebook.everyJobThatIsClosedAfter":
    "Jeder nach einer Reparatur abgeschlossene Auftrag steht hier und zählt in neuen Aufträgen zum selben Schaltplan.",
  "notebook.ofThemInNewJobsOn":
    "{jobs}. {counting} davon {counting, plural, one {zählt} other {zählen}} in neuen Aufträgen zum selben Schaltplan: was früher half, wird eher verdächtigt. Übungsaufträge zählen nie.",
  "notebook.changeThisForTheWorkshop": "Für die Werkstatt ändern",
  "notebook.findAMachineACodeA": "Maschine, Code, Spleiß, Ursache suchen",
  "notebook.findLessons": "Erfahrungen suchen",
  "notebook.noLessonHolds": 'Keine Erfahrung enthält "{find}".',
  "notebook.nothingYet": "Noch nichts.",
  "notebook.olderOnesAreNotShownFind": "{lessonsCount} ältere werden nicht gezeigt. Mit einem Wort suchen.",
  "notebook.closedJobs": "{n, plural, one {1 abgeschlossener Auftrag} other {# abgeschlossene Aufträge}}",
  "notebook.claimedAxis": "behauptet, %",
  "notebook.heldAxis": "gehalten, %",
};
