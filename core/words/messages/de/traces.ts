import type { Translation } from "../../language.js";
import type { traces as english } from "../en/traces.js";

export const traces: Translation<typeof english> = {
  "traces.noNumbers": "Darin sind keine Messwerte: keine Zeile mit Zahlen, die zusammengehören.",
  "traces.manyChannels": "Sie hat {channels} Spalten mit Zahlen; höchstens {limit} werden genommen.",
  "traces.noTime": "Keine Spalte nennt die Zeit und keine Zeile, wie oft gemessen wurde. Werte je Sekunde eingeben.",
  "traces.cutShort": "Sie endet mitten in Zeile {row}. Was davor steht, wird genommen.",
  "traces.wideRow": "Zeile {row} hat {cells} Zellen statt {expected}. Der Rest der Zeile bleibt weg.",
  "traces.noTimeHere": "Zeile {row} hat Werte, aber keine Zeit. Sie bleibt weg.",
  "traces.timeBackwards": "Die Zeit läuft in Zeile {row} rückwärts. Zeilen bleiben weg, bis sie weitergeht.",
  "traces.tooLong": "Nur die ersten {limit} Werte werden genommen, bis Zeile {row}.",
  "traces.notANumber": "Zeile {row}, Spalte {column}: „{text}“ ist keine Zahl. Sie gilt als nicht gemessen.",
  "traces.moreOfIt": "Dasselbe in {count, plural, one {# weiteren Zeile} other {# weiteren Zeilen}}: {first}",
  "traces.waveFormat": "Diese Art WAV wird hier nicht gelesen. Als PCM speichern.",
  "traces.scaleUnknown": "Eine Soundkarte nennt keine Volt. Eingeben, wie viel Volt der Vollausschlag ist.",
  "traces.tooManyBytes": "Sie hat mehr als {limit} Bytes. Einen kürzeren Teil speichern.",
  "traces.slow": "Bei {perSecond} Werten je Sekunde ist eine Störung unter {milliseconds} ms nicht zu sehen.",
  "traces.tooFewAPeriod":
    "{perSecond} Werte je Sekunde sind zu wenig für {hertz} Hz: die wahre Frequenz kann eine andere sein. Schneller aufzeichnen.",
  "traces.gaps": "{share} davon wurden nicht gemessen.",
  "traces.frozen": "Der Wert steht {seconds} s lang bei {value} still. Er kann eingefroren sein.",
  "traces.clipped": "Das Signal ist bei {value} abgeschnitten: der Messbereich war zu klein, oder etwas hält es dort.",
  "traces.stairs": "Werte kommen in Stufen von {step}. Kleineres ist nicht zu sehen.",
  "traces.patternStep":
    "Schritt {step} des Musters ist nicht zu verstehen: „{text}“. Schreiben wie „5 for 20 to 40 ms“.",
  "traces.nothingWasRead": "Nichts gemessen",
  "traces.switchesBetween": "Schaltet zwischen {low} und {high}, {hertz}, {duty} der Zeit oben",
  "traces.staysAt": "Bleibt bei {value}",
  "traces.runsFromTo": "Läuft von {low} bis {high}",
  "traces.dropsOutTo": "setzt {count, plural, one {einmal} other {#-mal}} aus, bis {value}, höchstens {longest}",
  "traces.pulsesMissing": "{count, plural, one {ein Impuls fehlt} other {# Impulse fehlen}}",
  "traces.dropoutEvent": "Setzt aus von {base} auf {value}, {length} lang",
  "traces.mayBeNoise": "kann Rauschen sein",
  "traces.missingPulse": "{count, plural, one {Ein Impuls fehlt} other {# Impulse fehlen}}",
  "traces.extraPulse": "Ein Impuls zu viel",
  "traces.partingEvent": "{second} weicht von {first} ab: {value} statt {expected}",
  "traces.gapMadeSo":
    "Eine Lücke von {missing, plural, one {einem Zahn} other {# Zähnen}} kehrt alle {teeth} Zähne wieder: das Geberrad ist so gemacht",
  "traces.aCellThatIsNoNumber": "eine Zelle, die keine Zahl ist",
  "traces.timeThatRunsBackwards": "Zeit, die rückwärts läuft",
  "traces.cellsTooMany": "zu viele Zellen",
  "traces.noTimeInTheRow": "keine Zeit in der Zeile",
};
