import type { Translation } from "../../language.js";
import type { repairs as english } from "../en/repairs.js";

export const repairs: Translation<typeof english> = {
  "repairs.findTheBreakJoinTheWire":
    "Die Bruchstelle suchen, die Leitung nach Herstellerangabe verbinden und von der Ursache weg befestigen.",
  "repairs.cutOutTheCorrodedOrPinched":
    "Das korrodierte oder gequetschte Stück herausschneiden und neue Leitung einsetzen.",
  "repairs.cutBackToSoundCopperAnd":
    "Bis zum gesunden Kupfer zurückschneiden und neue Leitung mit gleichem Querschnitt einsetzen.",
  "repairs.freeTheWireMendItsInsulation":
    "Die Leitung freilegen, die Isolierung ausbessern oder neue Leitung einsetzen und die Kante schützen.",
  "repairs.partTheTwoWiresMendBoth":
    "Die zwei Leitungen trennen, beide ausbessern und suchen, was sie aneinander gerieben hat.",
  "repairs.pushTheTerminalHomeUntilIt": "Den Kontakt bis zum Einrasten einschieben oder einen neuen einsetzen.",
  "repairs.fitANewTerminalAndA": "Einen neuen Kontakt einsetzen, und eine neue Dichtung, wo Wasser eindrang.",
  "repairs.cleanTheContactAndStopThe": "Den Kontakt reinigen und das Öl stoppen, das in der Leitung kriecht.",
  "repairs.dryAndCleanTheConnectorReplace":
    "Den Stecker trocknen und reinigen, Grünes ersetzen, eine neue Dichtung einsetzen und suchen, wo die Flüssigkeit eindrang.",
  "repairs.putEachTerminalInItsOwn": "Jeden Kontakt nach Plan in seine eigene Kammer setzen.",
  "repairs.cleanTheConnectorIfNeedBe": "Den Stecker wenn nötig reinigen und einschieben, bis die Verriegelung klickt.",
  "repairs.remakeTheSpliceLeg": "Den Zweig am Spleiß neu verbinden.",
  "repairs.cutTheSpliceOutAndMake": "Den Spleiß herausschneiden und einen neuen, abgedichteten setzen.",
  "repairs.cleanAndTightenTheGroundPoint":
    "Den Massepunkt reinigen und festziehen; einen neuen setzen, wo er abgebrochen ist.",
  "repairs.cleanBothFacesToBrightMetal": "Beide Flächen blank machen, festziehen und den Massepunkt schützen.",
  "repairs.findOutWhyItBlewBefore": "Herausfinden, warum sie durchbrannte, dann eine neue gleicher Stärke einsetzen.",
  "repairs.cleanOrReplaceTheFusesHolder": "Den Sicherungshalter reinigen oder ersetzen.",
  "repairs.replaceTheSwitch": "Den Schalter ersetzen.",
  "repairs.replaceTheRelay": "Das Relais ersetzen.",
  "repairs.replaceTheRelayAndCheckWhat": "Das Relais ersetzen und prüfen, welchen Strom es schaltet.",
  "repairs.replaceThePartByItsNumber": "Das Teil nach seiner Nummer ersetzen.",
  "repairs.replaceThePartByItsNumber2": "Das Teil nach einem direkten Test nach seiner Nummer ersetzen.",
  "repairs.fitThePartWithTheRight": "Das Teil mit der richtigen Nummer einbauen.",
  "repairs.replaceTheDamagedTarget": "Das beschädigte Geberrad ersetzen.",
  "repairs.setTheAirGapLookFor": "Den Luftspalt einstellen; nach verbogenem Halter oder verschlissenem Lager sehen.",
  "repairs.sensorAndWiringAreGoodPut": "Sensor und Leitungen sind gut: beheben, was die Maschine selbst falsch macht.",
  "repairs.proveEverythingOutsideTheModuleFirst":
    "Zuerst alles außerhalb des Steuergeräts prüfen; dann das Steuergerät instand setzen oder ersetzen lassen.",
  "repairs.proveItsSuppliesAndGroundsUnder":
    "Zuerst seine Versorgungen und Massen unter Last prüfen; dann das Steuergerät instand setzen oder ersetzen lassen.",
  "repairs.haveTheModuleRepairedOrReplaced": "Das Steuergerät instand setzen oder ersetzen lassen.",
  "repairs.proveTheLoadAndItsWiring":
    "Zuerst den Verbraucher und seine Leitungen prüfen; dann das Steuergerät instand setzen oder ersetzen lassen.",
  "repairs.chargeAndTestTheBatteryLook": "Die Batterie laden und prüfen; suchen, was sie entlädt.",
  "repairs.haveTheRegulatorOrAlternatorReplaced": "Den Regler oder Generator ersetzen lassen.",
  "repairs.checkTheBeltAndTheWiring": "Riemen und Leitungen des Generators prüfen; ihn ersetzen, wenn beide gut sind.",
  "repairs.ofWhatItShouldBe": "{percent} des Sollwerts",
  "repairs.outputAtOfItsSupply": "Ausgang bei {percent} der Versorgung",
  "repairs.offByOfItsSupply": "um {sign}{percent} der Versorgung daneben",
  "repairs.active": "aktiv",
  "repairs.pending": "anstehend",
  "repairs.stored": "gespeichert",
  "repairs.seenSinceTheLastClearNot": "seit dem Löschen aufgetreten, jetzt nicht",
  "repairs.notJudgedSinceTheLastClear": "seit dem Löschen nicht geprüft",
  "repairs.passed": "bestanden",
  "repairs.shortToGround": "Schluss nach Masse",
  "repairs.shortToSupply": "Schluss nach plus",
  "repairs.open": "Unterbrechung",
  "repairs.shortToGroundOrOpen": "Schluss nach Masse oder Unterbrechung",
  "repairs.shortToSupplyOrOpen": "Schluss nach plus oder Unterbrechung",
  "repairs.belowThreshold": "unter dem Grenzwert",
  "repairs.aboveThreshold": "über dem Grenzwert",
  "repairs.comesAndGoes": "kommt und geht",
  "repairs.signalInvalid": "Signal ungültig",
  "repairs.noSignal": "kein Signal",
  "repairs.missingMessage": "Botschaft fehlt",
  "repairs.failureType": "Fehlerart {hex}",
  "repairs.proveWhatTheModuleGoesBy":
    "die Eingänge prüfen, nach denen das Steuergerät diesen Ausgang taktet, dann das Steuergerät instand setzen lassen oder ersetzen",
};
