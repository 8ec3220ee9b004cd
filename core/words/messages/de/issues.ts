import type { Translation } from "../../language.js";
import type { issues as english } from "../en/issues.js";

export const issues: Translation<typeof english> = {
  "issues.theFileIsEmpty": "Die Datei ist leer.",
  "issues.theFileHasCharactersAreTaken": "Die Datei hat {characters} Zeichen; höchstens {limit} werden genommen.",
  "issues.theFileStopsInTheMiddle":
    "Die Datei hört mittendrin auf (Zeile {line}, Spalte {column}): nur ein Teil kam an.",
  "issues.thereAreTwoLessonsOfOne": 'Zwei Erfahrungen stammen von einem Auftrag, "{id}": eine Kennung gibt es einmal.',
  "issues.thisFileIsNotOfA": "Diese Art von Datei wird hier nicht gelesen.",
  "issues.sayWhereItGoesArchivedDeleted": "Bitte angeben, wohin: archiviert, gelöscht oder zurück.",
  "issues.itHoldsACharacterThatCannot":
    "Ein Zeichen darin lässt sich nicht speichern, oder es ist zu tief verschachtelt. Bitte neu tippen.",
  "issues.otherEntriesWereSavedUnderThe":
    "Unter derselben Kennung wurden schon andere Einträge gespeichert. Bitte die Seite neu laden und noch einmal eintragen.",
  "issues.thisIsNotJsonItCannot": "Das ist kein JSON: ab Zeile {line}, Spalte {column} ist es nicht lesbar.",
  "issues.expectedADocumentThatBeginsWith": 'Erwartet wird ein Dokument, das mit "format": "{format}" beginnt.',
  "issues.expectedFormatFound": 'Erwartet wird das Format "{expected}", gefunden wurde {got}.',
  "issues.versionIsNotKnownHereThis": "Version {got} ist hier nicht bekannt; dieses Programm liest Version {expected}.",
  "issues.unknownKindOfDeviceKnownKinds": "Unbekannte Art von Bauteil. Bekannt sind: {known}.",
  "issues.unknownTypeKnownTypes": "Unbekannter Typ. Bekannt sind: {known}.",
  "issues.unknownRoleOfAModulePin": "Unbekannte Rolle eines Steuergerätepins. Bekannt sind: {known}.",
  "issues.unknownField": "Unbekanntes Feld: {fields}.",
  "issues.isUsedTwiceTheFirstIs": '"{id}" kommt zweimal vor; das erste ist {first}.',
  "issues.isNotAConnectorSpliceGround":
    '"{id}" ist kein Stecker, Spleiß, Massepunkt, keine Sicherung, kein Schalter und keine Batterie dieses Dokuments.',
  "issues.connectorNeedsACavityForExample":
    "Stecker {connector} braucht eine Kammer, zum Beispiel {connector}:{first}.",
  "issues.connectorHasNoCavityItHas": 'Stecker {connector} hat keine Kammer "{cavity}"; er hat {known}.',
  "issues.hasNoTerminalItHas": '{device} hat keinen Anschluss "{terminal}"; es hat {known}.',
  "issues.isAnInLineConnectorWrite":
    "{connector} ist ein Zwischenstecker: bitte {connector}:{cavity}.a oder {connector}:{cavity}.b schreiben.",
  "issues.isNotAnInLineConnector":
    "{connector} ist kein Zwischenstecker: bitte {connector}:{cavity} ohne Seite schreiben.",
  "issues.cavityIsWiredTwiceTheFirst":
    "Kammer {cavity} ist zweimal belegt; die erste Leitung dort ist {first}. Zwei Leitungen in einer Kammer brauchen einen Spleiß.",
  "issues.cavityAlreadyBelongsTo": "Kammer {cavity} gehört schon zu {first}.",
  "issues.theWireGoesFromToItself": "Die Leitung führt von {endpoint} zu sich selbst.",
  "issues.aDevicePinMustBeA":
    "Ein Pin eines Bauteils muss eine Kammer seines eigenen Steckers sein; {at} ist das nicht.",
  "issues.theRangeRunsBackwardsTo": "Der Bereich läuft rückwärts: {low} bis {high}.",
  "issues.thereIsNoModule": 'Es gibt kein Steuergerät "{module}".{known}',
  "issues.modulesHere": " Steuergeräte hier: {known}.",
  "issues.theSetConditionWatchesWhichIs":
    "Die Setzbedingung beobachtet {at}; das ist kein Pin des Steuergeräts {module}.",
  "issues.thereIsNoDeviceInThis": 'In diesem Dokument gibt es kein Bauteil "{id}".',
  "issues.aCurrentIsWatchedAtWhich": "An {at} wird ein Strom beobachtet; das ist kein Ausgang des Steuergeräts.",
  "issues.moduleNeedsOneBushighAndOne":
    "Steuergerät {module} braucht je Bus einen Pin busHigh und einen Pin busLow{bus}.",
  "issues.relayHasNeitherAWorkingNor": "Relais {relay} hat weder einen Arbeits- noch einen Ruhekontakt.",
  "issues.moduleHasNoGroundPinA": "Steuergerät {module} hat keinen Massepin; eine gute Masse wird angenommen.",
  "issues.noSteadyState": "{key}: kein stabiler Zustand. {devices} {contradict}.",
  "issues.contradictEachOther": "widersprechen einander",
  "issues.contradictsItself": "widerspricht sich selbst",
  "issues.twoSteadyStatesForExampleOr":
    "{key}: zwei stabile Zustände, zum Beispiel {volts} oder {volts2} an {point}. Genommen wird der, in dem alles wach ist.",
  "issues.fuseMeltsOnAHealthyMachine":
    "{key}: Sicherung {fuse} brennt an einer gesunden Maschine durch. Stimmt ihr Wert, oder verbindet eine Leitung zwei Versorgungen?",
  "issues.batteryWouldGiveAOnA":
    "{key}: Batterie {battery} gäbe an einer gesunden Maschine {ampere} A ab. Zwei Versorgungen sind verbunden, oder eine ist kurzgeschlossen.",
  "issues.keyOnModuleStaysAsleepAre":
    "Zündung ein: Steuergerät {module} bleibt inaktiv. Sind seine Versorgungen an eine Spannung angeschlossen?",
  "issues.aHealthyMachineWouldSetIs": "Eine gesunde Maschine würde {code} setzen ({key}). Stimmt seine Setzbedingung?",
  "issues.thereAreNoHexDigitsHere": "Hier stehen keine Hex-Ziffern.",
  "issues.isNotAHexDigit": '"{character}" ist keine Hex-Ziffer.',
  "issues.hexDigitsOneIsMissingSince": "{digits} Hex-Ziffern: eine fehlt, denn jedes Byte hat zwei.",
  "issues.theReplyHasCharactersAreTaken": "Die Antwort hat {characters} Zeichen; höchstens {limit} werden genommen.",
  "issues.theReplyBeginsWithOneTo":
    "Die Antwort beginnt mit {byte}; eine auf einen Abgasdienst beginnt mit 43, 47 oder 4A.",
  "issues.theReplyBeginsWithOneWith":
    "Die Antwort beginnt mit {byte}; eine mit Codes und deren Status beginnt mit 59 02.",
  "issues.theReplyStopsInTheMiddle": "Die Antwort hört mittendrin auf: {got} von {expected} Codes sind vollständig.",
  "issues.thisMessageCountsParametersInAn":
    "Diese Botschaft zählt Parameter auf eine ältere Art, die nicht sicher lesbar ist.",
  "issues.standsBehindAMeterShowsThis":
    "{point} liegt hinter {ohm} Ω: ein Messgerät zeigt diese Spannung, eine Lampe ließe sie verschwinden.",
  "issues.moduleIsAsleepSuppliesAndReferences":
    "Steuergerät {modules} ist inaktiv: Versorgungen und Referenzen daraus fehlen deshalb.",
  "issues.theBatteryStandsAtCompareEvery":
    "Die Batterie steht bei {volts}: jede Versorgung damit vergleichen, nicht mit einer Zahl.",
  "issues.thereIsVoltageOnThisCircuit":
    "Auf diesem Stromkreis liegt Spannung ({volts} an {point}), oder die Zündung ist ein: Ohm beweisen nichts.",
  "issues.aBeepOnlyRulesOutAn":
    "Ein Ton schließt nur eine Unterbrechung aus: auch eine einzige Ader gibt Ton. Nur eine Last zeigt, dass die Leitung Strom trägt.",
  "issues.neverATestLampOnA":
    "Nie eine Prüflampe an eine Leitung dieser Art ({line}, {point}): sie zieht sie herunter und kann das Steuergerät beschädigen.",
  "issues.aWLampWantsAEven":
    "Eine Lampe mit {watt} W braucht {ampere} A: auch ein gesunder Stromkreis brächte sie nicht zum Leuchten ({volts}).",
  "issues.theCurrentIsTooSmallFor": "Der Strom ist zu klein für eine Stromzange; sie zeigt erst ab {least} A.",
  "issues.moduleIsNotAwakeTheScan": "Steuergerät {module} ist nicht wach: das Diagnosegerät hat keinen Wert.",
  "issues.thisIsNotAZipFile": "Das ist keine Zip-Datei, oder sie ist beschädigt.",
  "issues.theZipFileHoldsMoreThan": "Die Zip-Datei enthält entpackt mehr als {limit} Byte; nichts wurde genommen.",
  "issues.theZipFileHoldsNoCase": "Die Zip-Datei enthält keine case.json.",
  "issues.thisFileIsNotAPhoto": "Diese Datei ist kein lesbares Foto (JPEG, PNG, WebP). Nichts wurde behalten.",
  "issues.thePhotoHasBytesAreTaken": "Das Foto hat {bytes} Byte; höchstens {limit} werden genommen.",
  "issues.thereArePhotosAtThisConnector": "An diesem Stecker sind schon {limit} Fotos; bitte zuerst eines entfernen.",
  "issues.theLogbookSpeaksOfWhichThe":
    "Das Protokoll nennt {things}, was die andere Revision nicht hat. Der Auftrag bleibt bei seiner Revision.",
  "issues.theJobIsNotClosedYet":
    "Der Auftrag ist noch nicht abgeschlossen: {things} {count, plural, one {ist} other {sind}} nicht wie vorgefunden. Bitte wiederherstellen oder den Grund nennen.",
  "issues.noFaultCouldBeHiddenHere":
    "Hier ließ sich kein Fehler verstecken, der einen Code setzt: der Schaltplan hat noch keine Codes mit Setzbedingung, oder zu wenige Fehler setzen einen.",
  "issues.noCodeFoundIn": 'Kein Code gefunden in "{text}".',
  "issues.whichModuleGaveChooseOneOr":
    'Welches Steuergerät meldete "{text}"? Bitte eines wählen oder seinen Namen in die Zeile schreiben.',
  "issues.thisIsNoTableItHolds":
    "Das ist keine Tabelle: sie enthält Bytes, die kein Text hat. Bitte zuerst als CSV speichern.",
  "issues.quotesDoNotCloseHereCheck": "Anführungszeichen schließen hier nicht; bitte prüfen, dass keine Zelle fehlt.",
  "issues.noColumnForConnectorOrCavity":
    "Keine Spalte für Stecker oder Kammer gefunden. Bitte die Spalten in der ersten Zeile benennen, zum Beispiel: {examples}.",
  "issues.theColumnIsNotKnownHere": 'Die Spalte "{text}" ist hier nicht bekannt; sie wurde ausgelassen.',
  "issues.theTableHasNoHeadIts": "Die Tabelle hat keine Kopfzeile; die Spalten wurden genommen als: {columns}.",
  "issues.onlyTheFirstRowsAreTaken": "Nur die ersten {limit} Zeilen werden genommen.",
  "issues.aCellIsLongerThanCharacters": "Eine Zelle ist länger als {limit} Zeichen; der Rest wurde abgeschnitten.",
  "issues.aTableCannotHoldTheseSo":
    "Eine Tabelle kann dies nicht aufnehmen, es fehlt also in der Datei: {fields}. Zum Behalten das Dokument als JSON speichern.",
  "issues.noConnectorIsNamedHereOr": "Hier und darüber ist kein Stecker genannt.",
  "issues.cannotBeANameLettersDigits":
    '"{text}" kann kein Name sein: Buchstaben, Ziffern, - _ + / ohne Leerzeichen, höchstens 40.',
  "issues.isNoPlaceAWireCan": '"{text}" ist kein Ziel einer Leitung. Bitte A1:8, S14 oder battery - schreiben.',
  "issues.hasCavitiesSayWhichOneFor": "{connector} hat Kammern: bitte angeben, welche, zum Beispiel {connector}:1.",
  "issues.hasNoTerminal": '{connector} hat keinen Anschluss "{cavity}".',
  "issues.cavityIsAlreadyInRow": "Kammer {cavity} steht schon in Zeile {first}.",
  "issues.theWireAtIsSaidDifferently":
    "Die Leitung an {point} ist am anderen Ende anders angegeben; beides bleibt, das erste zählt.",
  "issues.isNotAWireColour": '"{text}" ist keine Leitungsfarbe.{guess}',
  "issues.isIt": " Ist es {nearest}?",
  "issues.meansDifferentColoursOnDifferentDrawings":
    '"{text}" bedeutet auf verschiedenen Plänen verschiedene Farben: {could}. Es bleibt, wie getippt.',
  "issues.isNotACrossSectionWrite": '"{text}" ist kein Querschnitt. Bitte 0.75 oder 18 AWG schreiben.',
  "issues.isNotALengthInMetres": '"{text}" ist keine Länge in Metern.',
  "issues.isNotANumberOfMinutes": '"{text}" ist keine Anzahl Minuten.',
  "issues.isLongerThanCharacters": '"{text}" ist länger als {limit} Zeichen.',
  "issues.isNotAZoneDryWet": '"{text}" ist keine Zone: dry, wet, hot, oily, vibrating, chewed.',
  "issues.isNotACaution": '"{text}" ist kein Warnhinweis: {known}.',
  "issues.isNotAFunctionThatIs": '"{text}" ist keine hier bekannte Funktion; sie gilt als nicht angegeben.',
  "issues.isNotAKindOfPart": '"{text}" ist keine Art von Bauteil.',
  "issues.whatKindOfPartIsCannot":
    "Welche Art von Bauteil {part} ist, geht aus den Kammern nicht hervor: bitte die Art nennen, oder wozu die Kammern dienen.",
  "issues.isAButNoCavityIs": "{part} ist: {kind}. Keine Kammer ist {missing}: das Bauteil bleibt aus, bis eine da ist.",
  "issues.notUnderstoodWriteNameValueFor":
    "Nicht verstanden: {text}. Bitte Name=Wert schreiben, zum Beispiel rating=10.",
  "issues.wiresAreInSpliceIsAssumed": "In {cavity} sind {wires} Leitungen: daneben wird Spleiß {splice} angenommen.",
  "issues.bothSidesOfAreTakenAlready": "Beide Seiten von {cavity} sind schon belegt.",
  "issues.moduleNeedsOneBusHighAnd":
    "Steuergerät {module} braucht eine Kammer Bus high und eine Bus low; eine allein bleibt aus.",
  "issues.connectorHasNoRowsYet": "Stecker {id} hat noch keine Zeilen.",
  "issues.partHasNoRowsYet": "Bauteil {id} hat noch keine Zeilen.",
  "issues.isNotAsDrawnEitherThe":
    "{connector} ist nicht wie gezeichnet ({differences}). Entweder gehört der Plan zu einer anderen Ausführung, oder dies ist nicht {connector}{fits}. Vor dem Messen die Teilenummer prüfen.",
  "issues.fitsBetter": ": {fits} passt besser",
  "issues.isNamedTwice": '"{id}" ist zweimal genannt.',
  "issues.thereIsNoPartOrConnector": 'Im Schaltplan gibt es kein Bauteil und keinen Stecker "{id}".',
  "issues.thereIsNoConnectorInThe": 'Im Schaltplan gibt es keinen Stecker "{id}".',
  "issues.olIsAnOhmsReadingA": "OL gibt es nur bei Ohm; ein Voltmeter kann es nicht zeigen.",
  "issues.isBelowZero": "{value} Ω liegt unter null.",
  "issues.isMoreThanAMeterCan": "{value} ist mehr, als ein Messgerät hier zeigen kann (höchstens {limit}).",
  "issues.entryDoesNotStandBeforeThis": "Eintrag {target} steht nicht vor diesem.",
  "issues.typeWhatTheMeterShows": "Bitte tippen, was das Messgerät zeigt.",
  "issues.isNotANumberExamples0":
    '"{text}" ist keine Zahl. Beispiele: 0.15, 12,4, 150m, 10k2, OL, 4.2–4.9 wenn es schwankt.',
  "issues.isNotWhatIsShownHere": '"{text}" wird hier nicht angezeigt: {known}.',
  "issues.olIsAnOhmsReadingIs": "OL gibt es nur bei Ohm. Steht das Messgerät auf Ohm? Hier werden Volt gemessen.",
  "issues.ohmsBelowZeroIsThereStill": "Ohm unter null: liegt noch Spannung auf der Leitung?",
  "issues.isMoreThanVCheckThe": '"{text}" ist mehr als {limit} V. Bitte die Vorsilbe prüfen: m ist Milli, k ist Kilo.',
  "issues.isMoreThanAnyWorkshopMeter":
    '"{text}" ist mehr, als ein Werkstattgerät zeigt. Bitte die Vorsilbe prüfen; eine Unterbrechung ist OL.',
  "issues.isNotAmongTheCodesOf": "{code} gehört nicht zu den Codes dieses Schaltplans und zählt deshalb noch nicht.",
  "issues.theSetConditionOfIsNot": "Die Setzbedingung von {code} ist nicht bekannt; er zählt deshalb noch nicht.",
  "issues.isNotWhatAShows": '"{value}" zeigt dieses Messmittel nicht ({instrument}).',
  "issues.isSetByUnpluggingOurOwn":
    "{code} entsteht durch das Abziehen von {connectors}: selbst verursacht, kein Hinweis.",
  "issues.ohmsAtWereReadWithThe":
    "Ohm an {point} wurden bei eingeschalteter Zündung gelesen. Sie beweisen nichts: Zündung aus und neu messen.",
  "issues.entryWasReadWithTheMeter":
    "Eintrag {number} wurde mit dem Messgerät auf AC gelesen. Er sagt nichts über eine Gleichspannung: auf DC stellen und neu messen.",
  "issues.entryWasReadWhileTheBattery":
    "Eintrag {number} wurde bei Batterie {volts} gelesen. Er zählt nicht: Ladegerät anschließen und neu messen.",
  "issues.atIsNotCloseEnoughFor":
    "{volts} an {point} ist für eine Referenz nicht genau genug: gut sind {volts2} bis {volts3}. Das ist ein Befund.",
  "issues.entryCameAfterAPauseOf":
    "Eintrag {number} kam nach {minutes} Minuten Pause: die Maschine kann eingeschlafen sein. Zündung aus und ein, dann sofort neu messen.",
  "issues.entryWithThisUnpluggedHangsBehind":
    "Eintrag {number}: so abgezogen hängt {point} hinter {ohm} Ω. Ein Messgerät zeigt dort eine Scheinspannung, die jede Last verschwinden ließe.",
  "issues.entryABeepOnlyRulesOut":
    "Eintrag {number}: ein Ton schließt nur eine Unterbrechung aus. Auch eine einzige Ader gibt Ton; eine Last zeigt, dass die Leitung Strom trägt.",
  "issues.entryWasItRatherThanA": "Eintrag {number}: war es {instead} statt {typed}? Tausendmal {way} würde passen.",
  "issues.theMeterHasNotBeenChecked":
    "Das Messgerät wurde in diesem Auftrag noch nicht geprüft: Leitungen zusammen, die Batterie und die Stelle der schwarzen Leitung.",
  "issues.leadsTogetherReadABrokenLead":
    "Die Leitungen zusammen zeigen {ohm}: Leitung gebrochen oder Gerätebatterie leer. Zuerst beheben, dann messen.",
  "issues.theBatteryReadsRedAndBlack": "Die Batterie zeigt {volts}: Rot und Schwarz sind vertauscht.",
  "issues.theBlackLeadStandsAwayFrom":
    "Die schwarze Leitung liegt {volts} neben Batterie minus: das ist keine Masse. An Batterie minus klemmen.",
  "issues.measureWithAllPluggedFirstWithout":
    "Zuerst {point} messen, wenn alles steckt: sonst ist nichts zu vergleichen.",
  "issues.standsAtWhereIsHealthyNothing": "{point} steht bei {volts}, gesund sind {volts2}: jetzt zieht nichts daran.",
  "issues.stillNotBackWithUnpluggedWhat":
    "Auch mit {unplugged} abgezogen nicht zurück: was an {point} zieht, liegt in den Leitungen dazwischen oder im Steuergerät.",
  "issues.everyConnectorOnWasSkippedNothing": "Alle Stecker an {point} wurden ausgelassen; es lässt sich nichts sagen.",
  "issues.offItsVoltageThePartThere":
    "{names} {count, plural, one {zieht} other {ziehen}} {point} von seiner Spannung: das Teil dort oder das Stück Kabelbaum, das mit abging.",
  "issues.withoutABreakerOrLampIn": "Ohne Automat oder Lampe statt {fuse} geht dieser Test nicht weiter.",
  "issues.itTripsWithEverythingUnpluggedThe":
    "Er löst aus, obwohl alles abgezogen ist: der Kurzschluss liegt in den Leitungen zwischen {fuse} und {before}.",
  "issues.itThePartThereOrThe":
    "{names} {count, plural, one {löst} other {lösen}} ihn aus: das Teil dort oder der Kabelbaum dahinter.",
  "issues.movingTripsItLookForA": "Bewegen von {names} löst ihn aus: dort nach einer Scheuerstelle suchen.",
  "issues.itHoldsWithEverythingPluggedIn":
    "Er hält, mit allem gesteckt und bewegt: an {fuse} ist jetzt nichts kurzgeschlossen.",
  "issues.hasNoSignalThatAModule": "{part} hat kein Signal, das ein Steuergerät liest.",
  "issues.isARestraintOrHighVoltage":
    "{point} ist ein Rückhalte- oder Hochvoltkreis: Verfahren des Herstellers, nur durch Fachkundige.",
  "issues.thePinsMustBeMeasuredBefore": "Die Pins müssen gemessen sein, bevor gebrückt wird.",
  "issues.notAsAHealthyMachineWould":
    "{things} {count, plural, one {ist} other {sind}} abgezogen nicht wie an einer gesunden Maschine: das zuerst beheben, dann brücken.",
  "issues.theModulesValueDoesNotGo":
    "Der Wert des Steuergeräts geht nicht {ends}: die Signalleitung oder der Eingang des Steuergeräts ist schuld, nicht {part}.",
  "issues.theModulesValueGoesAsTold":
    "Der Wert des Steuergeräts geht wie gewünscht {ends}: Leitungen und Eingang sind geprüft. Übrig bleiben {part} oder seine Kontakte.",
  "issues.noCodeOfThisWiringWatches":
    "Kein Code dieses Schaltplans überwacht das Signal von {part} auf zu niedrig oder zu hoch.",
  "issues.didNotSetTheMonitorIs":
    "{codes} setzte nicht: die Überwachung schläft, ihre Bedingungen fehlen, oder das Steuergerät sieht seinen Pin nicht.",
  "issues.theOppositeCodeSetAsIt":
    "Der Gegencode setzte wie erwartet: die Überwachung von {part} ist wach. Bitte löschen, was selbst gesetzt wurde.",
  "issues.whatWasWrongWentWithThe": "Der Fehler ging mit dem Teil mit: {part} oder {twin} selbst.",
  "issues.whatWasWrongStayedNotThe": "Der Fehler blieb: nicht das Teil, sondern das, worin es steckt.",
  "issues.ohmsProveNothingOnTestIt": "Ohm beweisen an {part} nichts: prüfen, was es unter Spannung tut.",
  "issues.byItselfIsNotGood": "{part} für sich ist nicht gut.",
  "issues.byItselfIsGood": "{part} für sich ist gut.",
  "issues.theNewIsNotGoodDo": "Das neue Teil {part} ist nicht gut: nicht einbauen.",
  "issues.theNewIsGoodItCan": "Das neue Teil {part} ist gut: es kann eingebaut werden.",
  "issues.wasNotMeasuredUnderAnyCurrent": "{point} wurde bei keinem Strom gemessen; nichts ist bewiesen.",
  "issues.isAGoodGroundUnderCurrent": "{point} ist eine gute Masse: {volts} unter Strom.",
  "issues.dropsUnderCurrentItIsNot":
    "{point} verliert {volts} unter Strom: keine gute Masse, egal was der Durchgang sagt.",
  "issues.theDrawingShowsNoWayFrom": "Der Plan zeigt ab {point} keinen Weg.",
  "issues.isLostBetweenAnd": "{volts} gehen zwischen {from} und {to} verloren.",
  "issues.noneOfTheSectionsFromOn": "Keiner der {sections} Abschnitte ab {point} verliert etwas.",
  "issues.tooManyStepsAtWereSkipped": "Zu viele Schritte an {point} wurden ausgelassen; es lässt sich nichts sagen.",
  "issues.readsAsItShouldThereIs": "{point} zeigt {volts}, wie es soll: es gibt nichts zu halbieren.",
  "issues.itIsNotRightEvenAt": "Schon an {point} stimmt es nicht: die Quelle selbst, oder was daran zieht.",
  "issues.rightAtWrongAtItIs": "Richtig an {to}, falsch an {from}: dazwischen geht es verloren.",
  "issues.cannotBeIsolatedHangOnIt":
    "{point} lässt sich nicht freimachen: {things} {count, plural, one {hängt} other {hängen}} daran und lassen sich nicht abziehen.",
  "issues.thereIsOnWithBothEnds":
    "An {point} liegen {volts}, obwohl beide Enden abgezogen sind: die Leitung berührt eine andere. Nicht speisen.",
  "issues.theWireFromToCarriesCurrent": "Die Leitung von {from} nach {to} trägt Strom.",
  "issues.theLampIsNotBrightThe":
    "Die Lampe ist nicht hell: die Leitung von {from} nach {to} trägt keinen Strom, egal was ein Ton sagt.",
  "issues.noModulePinIsAtThe": "Am anderen Ende von {point} ist kein Pin eines Steuergeräts.",
  "issues.thePinIsRightAndThe":
    "Der Pin {pin} stimmt, und das Steuergerät sagt etwas anderes ({volts} Unterschied): sein Kontakt oder sein Eingang.",
  "issues.andAreApartTheWayBetween": "{point} und {pin} liegen {volts} auseinander: der Weg dazwischen.",
  "issues.andAgreeTheWayBetweenThem": "{point} und {pin} stimmen überein: der Weg dazwischen ist gut.",
  "issues.hasNoTwinOnThisMachine": "{part} hat auf dieser Maschine kein gleiches Teil.",
  "issues.differsFromAt": "{part} weicht von {twin} ab an {things}.",
  "issues.hasAllItNeedsAsDoes": "{part} hat alles, was es braucht, wie {twin}.",
  "issues.isNotAHallSensor": "{part} ist kein Hall-Sensor.",
  "issues.answersSteelAtItsTipSensor":
    "{part} antwortet auf Stahl an der Spitze: Sensor, Versorgung, Masse und Leitung sind gut. Geberrad und Luftspalt ansehen.",
  "issues.isFedFromAModulesReference":
    "{part} wird aus der Referenz eines Steuergeräts versorgt, etwa 5 V: eine Batterie würde ihn zerstören. An der Maschine versuchen, mit Stahl an der Spitze.",
  "issues.switchesByItselfItIsGood":
    "{part} schaltet für sich allein: er ist gut. Stecker, Leitungen, Geberrad und Luftspalt ansehen.",
  "issues.doesNotSwitchByItselfCheck":
    "{part} schaltet für sich allein nicht. Die drei Anschlüsse und die Versorgungsspannung noch einmal prüfen; stimmen sie, ist der Sensor schlecht.",
  "issues.doesNotAnswerAndIsNot": "{part} antwortet nicht, und {pin} ist nicht, wie es sein soll: das zuerst beheben.",
  "issues.doesNotAnswerSteelThoughIt":
    "{part} antwortet nicht auf Stahl, obwohl er versorgt ist: der Sensor, seine Leitung oder ein Kontakt seines Steckers.",
  "issues.hasFeedAndGroundAsDoes":
    "{part} hat Versorgung und Masse wie {twin}. Ob das Steuergerät ansteuert, wurde nicht geprüft.",
  "issues.fluidInSeveralPlugsHasOne":
    "Flüssigkeit in mehreren Steckern ({plugs}) hat eine Quelle: nach einer undichten Stelle suchen, von der sie im Kabelbaum kriecht, bevor gereinigt oder ersetzt wird.",
  "issues.entryProvesOnlyThatIsNot":
    "Eintrag {number} zeigt nur, dass {black} nicht unterbrochen ist: ein Messgerät zieht fast keinen Strom. Den Spannungsfall unter Last messen oder eine Lampe anschließen.",
  "issues.entryTellsNothingOhmsThroughElectronics":
    "Eintrag {number} sagt nichts: Ohm durch Elektronik an {point} hängen vom Messgerät ab.",
  "issues.entryCountsForNothingAValue":
    "Eintrag {number} zählt nicht: ein Wert, der stillsteht, kann ein Ersatzwert des Steuergeräts sein.",
  "issues.entryCountsForNothingWhatIs":
    "Eintrag {number} zählt nicht: was an {point} gelesen wird, gilt in {wanted}, nicht in {unit}.",
  "issues.entryCountsForNothingTheWiring":
    "Eintrag {number} zählt nicht: der Schaltplan sagt nicht, wie viel Volt an {point} ein Wert in {unit} ist. Die Kennlinie des Teils ergänzen, oder den Wert als plausibel oder am Ende eintragen.",
  "issues.theTransferOfMustRiseAll":
    "Die Kennlinie von {part} muss ganz steigen oder ganz fallen, jede Spannung nur einmal.",
  "issues.cannotFollowOnlyAnotherPartOf": "{part} kann {id} nicht folgen: nur einem anderen Teil gleicher Art.",
  "issues.asThisWiringIsDrawnA":
    "So wie der Schaltplan gezeichnet ist, setzt auch eine gesunde Maschine {code}. Bitte den Plan oder die Setzbedingung berichtigen: bis dahin sagt der Code nichts.",
  "issues.isNotAPointOfThis": "{point} ist kein Punkt dieses Schaltplans.",
  "issues.noSingleFaultInThisWiring":
    "Kein einzelner Fehler in diesem Schaltplan erklärt das Gesehene. Zuerst prüfen, ob Plan und Bauteil die richtigen sind; dann an mehr als einen Fehler denken.",
  "issues.itLooksAsThoughTheReadings":
    "Es sieht so aus, als wären die Messungen an {from} an {to} gemacht worden, das leicht damit verwechselt wird. Zuerst prüfen, an welchem Bauteil gemessen wurde.",
  "issues.theLeadingSuspectDoesNotExplain":
    "Der Hauptverdächtige erklärt {codes} nicht. Es kann mehr als einen Fehler geben.",
  "issues.theReadingInEntryIsFar":
    "Die Messung in Eintrag {entries} weicht weit von dem ab, was der Hauptverdächtige erwarten lässt. Vor einem Urteil noch einmal messen.",
  "issues.entryTheRepairHasAnEarlier":
    "Eintrag {number}: die Reparatur hat ein früheres Datum als der Auftrag. Bitte die Uhr des Geräts prüfen.",
  "issues.mayBeOlderThanTheRepair":
    "{codes} kann älter als die Reparatur sein: Codes löschen, Zündung aus und ein, neu auslesen.",
  "issues.theVerdictInEntryWasGiven":
    "Das Urteil in Eintrag {number} ({suspect}, {share}) stammt von Version {engine} des Programms. Neu gewichtet führt {now} mit {nowShare}: Sensoren, Ausgänge und Busse werden jetzt so genommen, wie sie sich ohne Masse oder Versorgung wirklich verhalten.",
  "issues.nothingHereExplainsTheReadingsAt":
    "Nichts hier erklärt die Messungen an {part} (Einträge {entries}). Vielleicht ist es nicht von der gezeichneten Art: Teilenummer und Pins mit dem Plan vergleichen.",
  "issues.theDocumentSaysThatIsPulled":
    "Laut Dokument ist {pin} gezogen ({pull}), bei offener Leitung wirkt es aber nicht so (Einträge {entries}). Diesen Wert prüfen: was hier steht, hängt davon ab.",
  "issues.withThisCircuitHasNoSteady":
    "Mit {faults} hat dieser Stromkreis keinen stabilen Zustand: was dafür erwartet wird, ist nicht sicher.",
  "issues.battery": "Batterie",
  "issues.alternator": "Generator",
  "issues.fuse": "Sicherung",
  "issues.breaker": "Automat",
  "issues.switch": "Schalter",
  "issues.diode": "Diode",
  "issues.splice": "Spleiß",
  "issues.groundPoint": "Massepunkt",
  "issues.module": "Steuergerät",
  "issues.relay": "Relais",
  "issues.threeWireSensor": "Dreileiter-Sensor",
  "issues.potentiometer": "Potentiometer",
  "issues.twoTrackPedal": "Zweispur-Pedal",
  "issues.thermistor": "Thermistor",
  "issues.hallSensor": "Hall-Sensor",
  "issues.coilSensor": "Induktivsensor",
  "issues.currentLoopSensor": "Stromschleifen-Sensor",
  "issues.smartSensor": "intelligenter Sensor",
  "issues.busTerminator": "Bus-Abschlusswiderstand",
  "issues.lamp": "Lampe",
  "issues.solenoid": "Magnetventil",
  "issues.heater": "Heizung",
  "issues.inLineConnector": "Zwischenstecker",
  "issues.busNode": "Busteilnehmer",
  "issues.keyOff": "Zündung aus",
  "issues.keyOn": "Zündung ein",
  "issues.cranking": "Beim Anlassen",
  "issues.engineRunning": "Motor läuft",
  "issues.reference": "Referenz",
  "issues.signal": "Signal",
  "issues.sensorGround": "Sensormasse",
  "issues.bus": "Bus",
  "issues.cavityDrawn": "Kammer {c}: {seen}, gezeichnet {drawn}",
  "issues.cavitiesDrawn": "{countSeen} Kammern, gezeichnet {countDrawn}",
  "issues.partDrawn": "Teil {partSeen}, gezeichnet {partDrawn}",
  "issues.and": "{most} und {last}",
  "issues.thisReadingIsInSays": 'Hier wird in {unit} gemessen; "{text}" sagt {typed}.',
  "issues.volts": "Volt",
  "issues.ohms": "Ohm",
  "issues.orJoin": " oder ",
  "issues.andJoin": " und ",
  "issues.entryIsTheMeanOfASpeed":
    "Eintrag {number} zählt nicht: Der Mittelwert eines Drehzahlsignals an {point} hängt von den vorbeilaufenden Zähnen ab. Die beiden Pegel zeigt ein Oszilloskop.",
  "issues.thisFileIsNoPicture":
    "Diese Datei ist kein lesbares Bild: JPEG, PNG oder WebP, vollständig. Nichts wurde aufgenommen.",
  "issues.thisPdfCannotBeRead":
    "Dieses PDF ist nicht lesbar: Es ist beschädigt oder kein PDF. Schon aufgenommene Seiten bleiben.",
  "issues.thisPdfIsLocked":
    "Dieses PDF ist mit einem Passwort gesperrt. Bitte ohne Passwort speichern und dann aufnehmen.",
  "issues.thePictureHasMillionPoints":
    "Das Bild hat {millions} Millionen Punkte; bis zu {limit} Millionen werden aufgenommen.",
  "issues.thePageHasTooManyBytes": "Das Bild einer Seite darf bis zu {limit} Bytes haben.",
  "issues.aWiringTakesPages": "Eine Verdrahtung nimmt bis zu {limit} Seiten auf.",
  "issues.noSuchPage": "Diese Seite gibt es nicht.",
  "issues.theWordsCouldNotBeRead": "Die Wörter dieses Bildes konnten nicht gelesen werden. Bitte die Namen eintippen.",
};
