import type { Translation } from "@radicula/core/words";
import type { problems as english } from "../en/problems";

export const problems: Translation<typeof english> = {
  "server.database-gone":
    "Die Datenbank ist nicht erreichbar. Das Getippte bleibt hier und wird gespeichert, sobald sie wieder da ist.",
  "server.starting": "Der Server startet. Das Getippte bleibt hier; gleich noch einmal versuchen.",
  "server.schema-newer":
    "Die Datenbank gehört zu einer neueren Version dieses Programms. Bitte diese Version starten. Das Getippte bleibt hier.",
  "server.stopped": "Sie haben es angehalten.",
  "server.disk-full": "Der Datenträger des Servers ist voll. Das Getippte bleibt hier, bis Platz ist.",
  "server.failed": "Auf dem Server ging etwas schief. Das Getippte bleibt hier.",
  "server.answer-not-understood":
    "Der Server gab eine Antwort, die diese Seite nicht versteht. Bitte neu laden; das Getippte bleibt.",
  "server.unreadable-row":
    "Die Datenbank enthält {what}, das nicht lesbar ist. Nichts wurde geändert. Bitte vom Betreuer des Servers wiederherstellen lassen.",
  "worker.stopped": "Die Berechnung hielt an. Bitte die Seite neu laden; nichts geht verloren.",
  "worker.message-not-understood":
    "Diese Seite sandte sich etwas, das sie nicht versteht. Bitte neu laden; das Getippte bleibt.",
  "server.not-json": "Hier wird nur JSON genommen.",
  "server.no-such-lesson": "Diese Erfahrung steht nicht mehr im Notizbuch.",
  "server.no-such-job": "Diesen Auftrag gibt es nicht mehr.",
  "server.no-such-wiring": "Diesen Schaltplan gibt es nicht mehr.",
  "server.no-such-photo": "Dieses Foto gibt es nicht mehr.",
  "server.not-a-chart": "Das ist keine Pinbelegung.",
  "server.changed-meanwhile": "Jemand anderes hat den Schaltplan inzwischen geändert. Noch einmal versuchen.",
  "gap.not-understood": "Bitte angeben, an welcher Kammer, und wohin deren Leitung führt.",
  "gap.not-open": "{at} hat seine Leitung schon im Plan oder ist kein Pin eines Sensors oder Aktors.",
  "sign-in.needed": "Abgemeldet. Bitte neu anmelden; das Getippte bleibt hier.",
  "sign-in.may-only-read": "Die Rolle erlaubt nur Lesen. Bitte die Verwaltung um eine andere bitten.",
  "sign-in.not-allowed": "Die Rolle erlaubt das nicht.",
  "sign-in.needs-password": "Angemeldet mit PIN. Zum Verwalten von Personen bitte mit Passwort oder Passkey anmelden.",
  "sign-in.of-another": "{name} hat das geschrieben. Es wartet auf diesem Gerät, bis {name} sich wieder anmeldet.",
  "sign-in.no-such-way": "Diese Art der Anmeldung gibt es hier nicht.",
  "sign-in.no-such-person": "Diese Person gibt es nicht mehr.",
  "sign-in.disabled": "Diese Person darf sich nicht anmelden. Bitte zuerst wieder zulassen.",
  "sign-in.last-administrator": "Jemand muss die Verwaltung behalten. Bitte zuerst eine andere Person dazu machen.",
  "sign-in.taken": "Name, Anmeldename oder E-Mail-Adresse ist schon vergeben. Bitte anders wählen.",
  "hidden.not-closed": "Zuerst den Auftrag abschließen. Dann wird das Versteckte gezeigt.",
  "server.no-simulated-machine": "Dieser Auftrag hat keine simulierte Maschine.",
  "server.no-such-recording": "Diese Aufzeichnung gibt es nicht mehr.",
  "recording.not-read": "Die Datei ließ sich nicht zu Ende lesen.",
  "recording.not-compressed": "Hier wird nur eine gepackte Aufzeichnung genommen.",
  "recording.too-large": "Sie ist gepackt größer als {limit} Bytes. Einen kürzeren Teil speichern.",
};
