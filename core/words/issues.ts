import type { Issue } from "../src/index.js";
import { OTHER_SORTS } from "./fileSorts.js";
import { thousands } from "./figures.js";
import { shareText } from "./shares.js";
import { t } from "./messages/index.js";
import { midSentence, worded } from "./language.js";
import { TRACE_TEXTS } from "./traces.js";

/**
 * Human wording of the core's issue codes, shared by the command line and the web. The core itself never words
 * anything.
 * Each says what is wrong and, where it helps, what to do.
 */
const TEXTS: Readonly<Record<string, (p: Params) => string>> = {
  ...TRACE_TEXTS,
  "file.empty": () => t("issues.theFileIsEmpty"),
  "file.too-large": (p) =>
    t("issues.theFileHasCharactersAreTaken", {
      characters: thousands(p["characters"]),
      limit: thousands(p["limit"]),
    }),
  "file.cut-short": (p) => t("issues.theFileStopsInTheMiddle", { line: p["line"], column: p["column"] }),
  "notebook.twice": (p) => t("issues.thereAreTwoLessonsOfOne", { id: p["id"] }),
  "file.other-sort": (p) => OTHER_SORTS[String(p["sort"])] ?? t("issues.thisFileIsNotOfA"),
  "away.not-understood": () => t("issues.sayWhereItGoesArchivedDeleted"),
  "text.unsaveable": () => t("issues.itHoldsACharacterThatCannot"),
  "entries.id-used": () => t("issues.otherEntriesWereSavedUnderThe"),
  "file.not-json": (p) => t("issues.thisIsNotJsonItCannot", { line: p["line"], column: p["column"] }),
  "file.not-an-object": (p) => t("issues.expectedADocumentThatBeginsWith", { format: p["format"] }),
  "file.wrong-format": (p) => t("issues.expectedFormatFound", { expected: p["expected"], got: p["got"] }),
  "file.wrong-version": (p) => t("issues.versionIsNotKnownHereThis", { got: p["got"], expected: p["expected"] }),
  "schema.unknown-kind": (p) => t("issues.unknownKindOfDeviceKnownKinds", { known: list(p["known"]) }),
  "schema.unknown-type": (p) => t("issues.unknownTypeKnownTypes", { known: list(p["known"]) }),
  "schema.unknown-role": (p) => t("issues.unknownRoleOfAModulePin", { known: list(p["known"]) }),
  "schema.unknown-field": (p) => t("issues.unknownField", { fields: list(p["fields"]) }),
  "wiring.duplicate-id": (p) => t("issues.isUsedTwiceTheFirstIs", { id: p["id"], first: p["first"] }),
  "wiring.missing-connector": (p) => t("issues.isNotAConnectorSpliceGround", { id: p["id"] }),
  "wiring.missing-cavity": (p) =>
    p["cavity"] === ""
      ? t("issues.connectorNeedsACavityForExample", { connector: p["connector"], first: first(p["known"]) })
      : t("issues.connectorHasNoCavityItHas", {
          connector: p["connector"],
          cavity: p["cavity"],
          known: list(p["known"]),
        }),
  "wiring.missing-terminal": (p) =>
    t("issues.hasNoTerminalItHas", { device: p["device"], terminal: p["terminal"], known: list(p["known"]) }),
  "wiring.inline-needs-side": (p) =>
    t("issues.isAnInLineConnectorWrite", { connector: p["connector"], cavity: p["cavity"] }),
  "wiring.no-side-here": (p) => t("issues.isNotAnInLineConnector", { connector: p["connector"], cavity: p["cavity"] }),
  "wiring.cavity-wired-twice": (p) =>
    t("issues.cavityIsWiredTwiceTheFirst", { cavity: p["cavity"], first: p["first"] }),
  "wiring.cavity-used-twice": (p) => t("issues.cavityAlreadyBelongsTo", { cavity: p["cavity"], first: p["first"] }),
  "wiring.wire-to-itself": (p) => t("issues.theWireGoesFromToItself", { endpoint: p["endpoint"] }),
  "wiring.pin-needs-device-connector": (p) => t("issues.aDevicePinMustBeA", { at: p["at"] }),
  "wiring.range-reversed": (p) => t("issues.theRangeRunsBackwardsTo", { low: p["low"], high: p["high"] }),
  "wiring.missing-module": (p) =>
    t("issues.thereIsNoModule", {
      module: p["module"],
      known: Array.isArray(p["known"]) && p["known"].length ? t("issues.modulesHere", { known: list(p["known"]) }) : "",
    }),
  "wiring.monitor-not-at-module": (p) =>
    t("issues.theSetConditionWatchesWhichIs", { at: p["at"], module: p["module"] }),
  "wiring.missing-device": (p) => t("issues.thereIsNoDeviceInThis", { id: p["id"] }),
  "wiring.monitor-needs-driver": (p) => t("issues.aCurrentIsWatchedAtWhich", { at: p["at"] }),
  "wiring.bus-pair": (p) =>
    t("issues.moduleNeedsOneBushighAndOne", { module: p["module"], bus: p["bus"] ? ` (${p["bus"]})` : "" }),
  "wiring.relay-without-contact": (p) => t("issues.relayHasNeitherAWorkingNor", { relay: p["relay"] }),
  "circuit.module-without-ground": (p) => t("issues.moduleHasNoGroundPinA", { module: p["module"] }),
  "circuit.no-steady-state": (p) =>
    t("issues.noSteadyState", {
      key: KEYS[String(p["key"])],
      devices: list(p["devices"]),
      contradict:
        Array.isArray(p["devices"]) && p["devices"].length > 1
          ? t("issues.contradictEachOther")
          : t("issues.contradictsItself"),
    }),
  "circuit.two-steady-states": (p) =>
    t("issues.twoSteadyStatesForExampleOr", {
      key: KEYS[String(p["key"])],
      volts: volts(p["first"]),
      volts2: volts(p["second"]),
      point: p["point"],
    }),
  "circuit.fuse-melts": (p) => t("issues.fuseMeltsOnAHealthyMachine", { key: KEYS[String(p["key"])], fuse: p["fuse"] }),
  "circuit.battery-shorted": (p) =>
    t("issues.batteryWouldGiveAOnA", { key: KEYS[String(p["key"])], battery: p["battery"], ampere: p["ampere"] }),
  "circuit.module-asleep": (p) => t("issues.keyOnModuleStaysAsleepAre", { module: p["module"] }),
  "circuit.code-when-healthy": (p) =>
    t("issues.aHealthyMachineWouldSetIs", { code: p["code"], key: midSentence(KEYS[String(p["key"])] ?? "") }),
  "hex.empty": () => t("issues.thereAreNoHexDigitsHere"),
  "hex.not-hex": (p) => t("issues.isNotAHexDigit", { character: p["character"] }),
  "hex.odd": (p) => t("issues.hexDigitsOneIsMissingSince", { digits: p["digits"] }),
  "hex.too-long": (p) =>
    t("issues.theReplyHasCharactersAreTaken", {
      characters: thousands(p["characters"]),
      limit: thousands(p["limit"]),
    }),
  "reply.not-emission": (p) => t("issues.theReplyBeginsWithOneTo", { byte: p["byte"] }),
  "reply.not-information": (p) => t("issues.theReplyBeginsWithOneWith", { byte: p["byte"] }),
  "reply.cut-short": (p) => t("issues.theReplyStopsInTheMiddle", { got: p["got"], expected: p["expected"] }),
  "reply.old-conversion": () => t("issues.thisMessageCountsParametersInAn"),
  "reading.ghost-voltage": (p) =>
    t("issues.standsBehindAMeterShowsThis", { point: p["point"], ohm: thousands(p["ohm"]) }),
  "reading.module-asleep": (p) => t("issues.moduleIsAsleepSuppliesAndReferences", { modules: list(p["modules"]) }),
  "reading.battery-low": (p) => t("issues.theBatteryStandsAtCompareEvery", { volts: volts(p["volt"]) }),
  "reading.live-circuit": (p) =>
    t("issues.thereIsVoltageOnThisCircuit", { volts: volts(p["volt"]), point: p["point"] }),
  "reading.beeper-rules-out-open": () => t("issues.aBeepOnlyRulesOutAn"),
  "lamp.on-electronics": (p) =>
    t("issues.neverATestLampOnA", { line: LINES[String(p["line"])] ?? t("issues.module"), point: p["point"] }),
  "lamp.too-hungry": (p) =>
    t("issues.aWLampWantsAEven", {
      watt: p["watt"],
      ampere: Number(Number(p["ampere"]).toPrecision(2)),
      volts: volts(p["volt"]),
    }),
  "clamp.below-resolution": (p) => t("issues.theCurrentIsTooSmallFor", { least: p["least"] }),
  "scan.module-silent": (p) => t("issues.moduleIsNotAwakeTheScan", { module: p["module"] }),
  "file.not-a-zip": () => t("issues.thisIsNotAZipFile"),
  "file.zip-too-large": (p) => t("issues.theZipFileHoldsMoreThan", { limit: thousands(p["limit"]) }),
  "file.zip-without-case": () => t("issues.theZipFileHoldsNoCase"),
  "page.no-picture": () => t("issues.thisFileIsNoPicture"),
  "page.no-words": () => t("issues.theWordsCouldNotBeRead"),
  "page.no-pdf": () => t("issues.thisPdfCannotBeRead"),
  "page.locked": () => t("issues.thisPdfIsLocked"),
  "page.too-many-points": (p) =>
    t("issues.thePictureHasMillionPoints", { millions: thousands(p["millions"]), limit: thousands(p["limit"]) }),
  "page.too-large": (p) => t("issues.thePageHasTooManyBytes", { limit: thousands(p["limit"]) }),
  "page.too-many": (p) => t("issues.aWiringTakesPages", { limit: p["limit"] }),
  "server.no-such-page": () => t("issues.noSuchPage"),
  "photo.not-a-photo": () => t("issues.thisFileIsNotAPhoto"),
  "photo.too-large": (p) =>
    t("issues.thePhotoHasBytesAreTaken", { bytes: thousands(p["bytes"]), limit: thousands(p["limit"]) }),
  "photo.too-many": (p) => t("issues.thereArePhotosAtThisConnector", { limit: p["limit"] }),
  "revision.breaks-logbook": (p) => t("issues.theLogbookSpeaksOfWhichThe", { things: list(p["things"]) }),
  "job.not-as-found": (p) => t("issues.theJobIsNotClosedYet", { things: list(p["things"]), count: count(p["things"]) }),
  "bench.no-fault-sets-a-code": () => t("issues.noFaultCouldBeHiddenHere"),
  "scan.no-code": (p) => t("issues.noCodeFoundIn", { text: p["text"] }),
  "scan.no-module": (p) => t("issues.whichModuleGaveChooseOneOr", { text: p["text"] }),
  "table.not-text": () => t("issues.thisIsNoTableItHolds"),
  "table.quotes": () => t("issues.quotesDoNotCloseHereCheck"),
  "table.no-columns": (p) =>
    t("issues.noColumnForConnectorOrCavity", { examples: list(p["known"]).split(", ").slice(0, 6).join(", ") }),
  "table.column-not-known": (p) => t("issues.theColumnIsNotKnownHere", { text: p["text"] }),
  "table.columns-guessed": (p) =>
    t("issues.theTableHasNoHeadIts", {
      columns: list(p["columns"]).replaceAll("mm2", "mm²").replaceAll("goesTo", "goes to"),
    }),
  "table.too-many-rows": (p) => t("issues.onlyTheFirstRowsAreTaken", { limit: thousands(p["limit"]) }),
  "table.cell-cut": (p) => t("issues.aCellIsLongerThanCharacters", { limit: p["limit"] }),
  "csv.left-out": (p) => t("issues.aTableCannotHoldTheseSo", { fields: list(p["fields"]) }),
  "chart.no-connector": () => t("issues.noConnectorIsNamedHereOr"),
  "chart.bad-name": (p) => t("issues.cannotBeANameLettersDigits", { text: p["text"] }),
  "chart.bad-goes-to": (p) => t("issues.isNoPlaceAWireCan", { text: p["text"] }),
  "chart.needs-cavity": (p) => t("issues.hasCavitiesSayWhichOneFor", { connector: p["connector"] }),
  "chart.no-such-terminal": (p) => t("issues.hasNoTerminal", { connector: p["connector"], cavity: p["cavity"] }),
  "chart.to-itself": (p) => t("issues.theWireGoesFromToItself", { endpoint: p["endpoint"] }),
  "chart.said-twice": (p) => t("issues.cavityIsAlreadyInRow", { cavity: p["cavity"], first: p["first"] }),
  "chart.two-values": (p) => t("issues.theWireAtIsSaidDifferently", { point: p["point"] }),
  "chart.unknown-colour": (p) =>
    t("issues.isNotAWireColour", {
      text: p["text"],
      guess:
        Array.isArray(p["nearest"]) && p["nearest"].length
          ? t("issues.isIt", { nearest: p["nearest"].join(", ") })
          : "",
    }),
  "chart.ambiguous-colour": (p) =>
    t("issues.meansDifferentColoursOnDifferentDrawings", {
      text: p["text"],
      could: list(p["could"]).replace(", ", t("issues.orJoin")),
    }),
  "chart.not-a-section": (p) => t("issues.isNotACrossSectionWrite", { text: p["text"] }),
  "chart.not-a-length": (p) => t("issues.isNotALengthInMetres", { text: p["text"] }),
  "chart.not-minutes": (p) => t("issues.isNotANumberOfMinutes", { text: p["text"] }),
  "chart.too-long": (p) => t("issues.isLongerThanCharacters", { text: p["text"], limit: p["limit"] }),
  "chart.unknown-zone": (p) => t("issues.isNotAZoneDryWet", { text: p["text"] }),
  "chart.unknown-caution": (p) => t("issues.isNotACaution", { text: p["text"], known: list(p["known"]) }),
  "chart.unknown-function": (p) => t("issues.isNotAFunctionThatIs", { text: p["text"] }),
  "chart.unknown-kind": (p) => t("issues.isNotAKindOfPart", { text: p["text"] }),
  "chart.kind-unknown": (p) => t("issues.whatKindOfPartIsCannot", { part: p["part"] }),
  "chart.role-missing": (p) =>
    t("issues.isAButNoCavityIs", {
      part: p["part"],
      kind: KIND_WORDS[String(p["kind"])] ?? p["kind"],
      missing: list(p["missing"]),
    }),
  "chart.bad-values": (p) => t("issues.notUnderstoodWriteNameValueFor", { text: list(p["text"]) }),
  "chart.values-do-not-fit": (p) => `${p["part"]}: ${p["message"]}.`,
  "chart.splice-assumed": (p) =>
    t("issues.wiresAreInSpliceIsAssumed", { wires: p["wires"], cavity: p["cavity"], splice: p["splice"] }),
  "chart.inline-full": (p) => t("issues.bothSidesOfAreTakenAlready", { cavity: p["cavity"] }),
  "chart.bus-pair": (p) => t("issues.moduleNeedsOneBusHighAnd", { module: p["module"] }),
  "chart.connector-without-rows": (p) => t("issues.connectorHasNoRowsYet", { id: p["id"] }),
  "chart.part-without-rows": (p) => t("issues.partHasNoRowsYet", { id: p["id"] }),
  "remark.not-as-drawn": (p) =>
    t("issues.isNotAsDrawnEitherThe", {
      connector: p["connector"],
      differences: differences(p),
      fits:
        Array.isArray(p["fits"]) && p["fits"].length
          ? t("issues.fitsBetter", { fits: list(p["fits"]).replace(", ", t("issues.orJoin")) })
          : "",
    }),
  "entry.named-twice": (p) => t("issues.isNamedTwice", { id: p["id"] }),
  "entry.missing-thing": (p) => t("issues.thereIsNoPartOrConnector", { id: p["id"] }),
  "entry.missing-connector": (p) => t("issues.thereIsNoConnectorInThe", { id: p["id"] }),
  "entry.overload-not-ohms": () => t("issues.olIsAnOhmsReadingA"),
  "entry.negative-ohms": (p) => t("issues.isBelowZero", { value: p["value"] }),
  "entry.absurd": (p) => t("issues.isMoreThanAMeterCan", { value: p["value"], limit: p["limit"] }),
  "entry.undo-of-nothing": (p) => t("issues.entryDoesNotStandBeforeThis", { target: p["target"] }),
  "quantity.empty": () => t("issues.typeWhatTheMeterShows"),
  "quantity.not-a-number": (p) => t("issues.isNotANumberExamples0", { text: p["text"] }),
  "quantity.not-a-word": (p) => t("issues.isNotWhatIsShownHere", { text: p["text"], known: list(p["known"]) }),
  "quantity.wrong-unit": (p) =>
    t("issues.thisReadingIsInSays", {
      unit: p["unit"] === "V" ? t("issues.volts") : t("issues.ohms"),
      text: p["text"],
      typed: p["typed"],
    }),
  "quantity.overload-not-ohms": () => t("issues.olIsAnOhmsReadingIs"),
  "quantity.negative-ohms": () => t("issues.ohmsBelowZeroIsThereStill"),
  "quantity.absurd": (p) =>
    p["unit"] === "V"
      ? t("issues.isMoreThanVCheckThe", { text: p["text"], limit: p["limit"] })
      : t("issues.isMoreThanAnyWorkshopMeter", { text: p["text"] }),
  "remark.code-not-in-wiring": (p) => t("issues.isNotAmongTheCodesOf", { code: p["code"] }),
  "remark.code-without-condition": (p) => t("issues.theSetConditionOfIsNot", { code: p["code"] }),
  "entry.not-this-instrument": (p) => t("issues.isNotWhatAShows", { value: p["value"], instrument: p["instrument"] }),
  "remark.code-set-by-us": (p) =>
    t("issues.isSetByUnpluggingOurOwn", { code: p["code"], connectors: list(p["connectors"]) }),
  "remark.ohms-with-power": (p) => t("issues.ohmsAtWereReadWithThe", { point: p["point"] }),
  "remark.ac-mode": (p) => t("issues.entryWasReadWithTheMeter", { number: p["number"] }),
  "remark.battery-sagging": (p) =>
    t("issues.entryWasReadWhileTheBattery", { number: p["number"], volts: volts(p["volt"]) }),
  "remark.not-close-enough": (p) =>
    t("issues.atIsNotCloseEnoughFor", {
      volts: volts(p["volt"]),
      point: p["point"],
      volts2: volts(p["low"]),
      volts3: volts(p["high"]),
    }),
  "remark.may-sleep": (p) => t("issues.entryCameAfterAPauseOf", { number: p["number"], minutes: p["minutes"] }),
  "remark.ghost-voltage": (p) =>
    t("issues.entryWithThisUnpluggedHangsBehind", {
      number: p["number"],
      point: p["point"],
      ohm: thousands(p["ohm"]),
    }),
  "remark.beeper-rules-out-open": (p) => t("issues.entryABeepOnlyRulesOut", { number: p["number"] }),
  "remark.prefix-slip": (p) =>
    t("issues.entryWasItRatherThanA", { number: p["number"], instead: p["instead"], typed: p["typed"], way: p["way"] }),
  "remark.meter-not-proven": () => t("issues.theMeterHasNotBeenChecked"),
  "remark.meter-leads": (p) =>
    t("issues.leadsTogetherReadABrokenLead", { ohm: p["ohm"] === "OL" ? "OL" : `${p["ohm"]} Ω` }),
  "remark.meter-reversed": (p) => t("issues.theBatteryReadsRedAndBlack", { volts: volts(p["volt"]) }),
  "remark.meter-ground": (p) => t("issues.theBlackLeadStandsAwayFrom", { volts: volts(p["volt"]) }),
  "run.series-needs-start": (p) => t("issues.measureWithAllPluggedFirstWithout", { point: p["point"] }),
  "run.shared-is-well": (p) =>
    t("issues.standsAtWhereIsHealthyNothing", {
      point: p["point"],
      volts: volts(p["volt"]),
      volts2: volts(p["healthy"]),
    }),
  "run.still-down": (p) =>
    t("issues.stillNotBackWithUnpluggedWhat", { unplugged: list(p["unplugged"]), point: p["point"] }),
  "run.series-skipped": (p) => t("issues.everyConnectorOnWasSkippedNothing", { point: p["point"] }),
  "run.culprit": (p) =>
    t("issues.offItsVoltageThePartThere", {
      names: names(p["things"]),
      count: count(p["things"]),
      point: p["point"],
    }),
  "run.fuse-needs-breaker": (p) => t("issues.withoutABreakerOrLampIn", { fuse: p["fuse"] }),
  "run.fuse-wiring": (p) => t("issues.itTripsWithEverythingUnpluggedThe", { fuse: p["fuse"], before: p["before"] }),
  "run.fuse-culprit": (p) => t("issues.itThePartThereOrThe", { names: names(p["things"]), count: count(p["things"]) }),
  "run.fuse-moved": (p) => t("issues.movingTripsItLookForA", { names: names(p["things"]) }),
  "run.fuse-holds": (p) => t("issues.itHoldsWithEverythingPluggedIn", { fuse: p["fuse"] }),
  "run.no-signal-pin": (p) => t("issues.hasNoSignalThatAModule", { part: p["part"] }),
  "run.guarded": (p) => t("issues.isARestraintOrHighVoltage", { point: p["point"] }),
  "run.measure-first": () => t("issues.thePinsMustBeMeasuredBefore"),
  "run.pin-not-right": (p) =>
    t("issues.notAsAHealthyMachineWould", { things: list(p["things"]), count: count(p["things"]) }),
  "run.does-not-follow": (p) => t("issues.theModulesValueDoesNotGo", { ends: list(p["ends"]), part: p["part"] }),
  "run.wiring-proven": (p) =>
    t("issues.theModulesValueGoesAsTold", {
      ends: list(p["ends"]).replace(", ", t("issues.andJoin")),
      part: p["part"],
    }),
  "run.no-monitor": (p) => t("issues.noCodeOfThisWiringWatches", { part: p["part"] }),
  "run.monitor-silent": (p) => t("issues.didNotSetTheMonitorIs", { codes: list(p["codes"]) }),
  "run.monitor-awake": (p) => t("issues.theOppositeCodeSetAsIt", { part: p["part"] }),
  "run.went-with-part": (p) => t("issues.whatWasWrongWentWithThe", { part: p["part"], twin: p["twin"] }),
  "run.stayed-with-wiring": () => t("issues.whatWasWrongStayedNotThe"),
  "run.told-apart": (p) => `${p["connector"]}: ${list(p["cavities"])}.`,
  "run.ohms-prove-nothing": (p) => t("issues.ohmsProveNothingOnTestIt", { part: p["part"] }),
  "run.part-bad": (p) => t("issues.byItselfIsNotGood", { part: p["part"] }),
  "run.part-good": (p) => t("issues.byItselfIsGood", { part: p["part"] }),
  "run.new-part-bad": (p) => t("issues.theNewIsNotGoodDo", { part: p["part"] }),
  "run.new-part-good": (p) => t("issues.theNewIsGoodItCan", { part: p["part"] }),
  "run.ground-not-tried": (p) => t("issues.wasNotMeasuredUnderAnyCurrent", { point: p["point"] }),
  "run.ground-good": (p) => t("issues.isAGoodGroundUnderCurrent", { point: p["point"], volts: volts(p["volt"]) }),
  "run.ground-bad": (p) => t("issues.dropsUnderCurrentItIsNot", { point: p["point"], volts: volts(p["volt"]) }),
  "run.no-way": (p) => t("issues.theDrawingShowsNoWayFrom", { point: p["point"] }),
  "run.section-drops": (p) => t("issues.isLostBetweenAnd", { volts: volts(p["volt"]), from: p["from"], to: p["to"] }),
  "run.no-section-drops": (p) => t("issues.noneOfTheSectionsFromOn", { sections: p["sections"], point: p["point"] }),
  "run.run-skipped": (p) => t("issues.tooManyStepsAtWereSkipped", { point: p["point"] }),
  "run.end-is-well": (p) => t("issues.readsAsItShouldThereIs", { point: p["point"], volts: volts(p["volt"]) }),
  "run.bad-at-source": (p) => t("issues.itIsNotRightEvenAt", { point: p["point"] }),
  "run.lost-between": (p) => t("issues.rightAtWrongAtItIs", { to: p["to"], from: p["from"] }),
  "run.cannot-isolate": (p) =>
    t("issues.cannotBeIsolatedHangOnIt", {
      point: p["point"],
      things: list(p["things"]),
      count: count(p["things"]),
    }),
  "run.not-isolated": (p) => t("issues.thereIsOnWithBothEnds", { volts: volts(p["volt"]), point: p["point"] }),
  "run.wire-carries": (p) => t("issues.theWireFromToCarriesCurrent", { from: p["from"], to: p["to"] }),
  "run.wire-weak": (p) => t("issues.theLampIsNotBrightThe", { from: p["from"], to: p["to"] }),
  "run.no-module-pin": (p) => t("issues.noModulePinIsAtThe", { point: p["point"] }),
  "run.module-differs": (p) => t("issues.thePinIsRightAndThe", { pin: p["pin"], volts: volts(p["volt"]) }),
  "run.ends-differ": (p) =>
    t("issues.andAreApartTheWayBetween", { point: p["point"], pin: p["pin"], volts: volts(p["volt"]) }),
  "run.ends-agree": (p) => t("issues.andAgreeTheWayBetweenThem", { point: p["point"], pin: p["pin"] }),
  "run.no-twin": (p) => t("issues.hasNoTwinOnThisMachine", { part: p["part"] }),
  "run.twin-differs": (p) => t("issues.differsFromAt", { part: p["part"], twin: p["twin"], things: list(p["things"]) }),
  "run.twin-agrees": (p) => t("issues.hasAllItNeedsAsDoes", { part: p["part"], twin: p["twin"] }),
  "run.no-hall": (p) => t("issues.isNotAHallSensor", { part: p["part"] }),
  "run.hall-answers": (p) => t("issues.answersSteelAtItsTipSensor", { part: p["part"] }),
  "run.hall-takes-reference": (p) => t("issues.isFedFromAModulesReference", { part: p["part"] }),
  "run.hall-good-alone": (p) => t("issues.switchesByItselfItIsGood", { part: p["part"] }),
  "run.hall-dead-alone": (p) => t("issues.doesNotSwitchByItselfCheck", { part: p["part"] }),
  "run.hall-not-fed": (p) => t("issues.doesNotAnswerAndIsNot", { part: p["part"], pin: p["pin"] }),
  "run.hall-silent": (p) => t("issues.doesNotAnswerSteelThoughIt", { part: p["part"] }),
  "run.twin-agrees-undriven": (p) => t("issues.hasFeedAndGroundAsDoes", { part: p["part"], twin: p["twin"] }),
  "remark.one-fluid": (p) => t("issues.fluidInSeveralPlugsHasOne", { plugs: list(p["plugs"]) }),
  "remark.plus-to-ground": (p) => t("issues.entryProvesOnlyThatIsNot", { number: p["number"], black: p["black"] }),
  "remark.mean-of-a-speed-signal": (p) =>
    t("issues.entryIsTheMeanOfASpeed", { number: p["number"], point: p["point"] }),
  "remark.ohms-electronics": (p) =>
    t("issues.entryTellsNothingOhmsThroughElectronics", { number: p["number"], point: p["point"] }),
  "remark.scan-frozen": (p) => t("issues.entryCountsForNothingAValue", { number: p["number"] }),
  "remark.scan-unit-does-not-fit": (p) =>
    t("issues.entryCountsForNothingWhatIs", {
      number: p["number"],
      point: p["point"],
      wanted: p["wanted"],
      unit: p["unit"],
    }),
  "remark.scan-no-curve": (p) =>
    t("issues.entryCountsForNothingTheWiring", { number: p["number"], point: p["point"], unit: p["unit"] }),
  "wiring.transfer-not-monotone": (p) => t("issues.theTransferOfMustRiseAll", { part: p["part"] }),
  "wiring.follows-another-kind": (p) => t("issues.cannotFollowOnlyAnotherPartOf", { part: p["part"], id: p["id"] }),
  "remark.code-healthy": (p) => t("issues.asThisWiringIsDrawnA", { code: p["code"] }),
  "remark.point-not-in-wiring": (p) => t("issues.isNotAPointOfThis", { point: p["point"] }),
  "remark.not-in-this-wiring": () => t("issues.noSingleFaultInThisWiring"),
  "remark.wrong-component": (p) => t("issues.itLooksAsThoughTheReadings", { from: p["from"], to: p["to"] }),
  "remark.leader-leaves-codes": (p) => t("issues.theLeadingSuspectDoesNotExplain", { codes: list(p["codes"]) }),
  "remark.leader-misfits": (p) => t("issues.theReadingInEntryIsFar", { entries: list(p["entries"]) }),
  "remark.repair-before-job": (p) => t("issues.entryTheRepairHasAnEarlier", { number: p["number"] }),
  "remark.codes-not-cleared": (p) => t("issues.mayBeOlderThanTheRepair", { codes: list(p["codes"]) }),
  "remark.older-verdict": (p) =>
    t("issues.theVerdictInEntryWasGiven", {
      number: p["number"],
      suspect: p["suspect"],
      share: shareText(Number(p["share"])),
      engine: p["engine"],
      now: p["now"],
      nowShare: shareText(Number(p["nowShare"])),
    }),
  "remark.device-not-as-drawn": (p) =>
    t("issues.nothingHereExplainsTheReadingsAt", { part: p["part"], entries: list(p["entries"]) }),
  "remark.pull-not-as-typed": (p) =>
    t("issues.theDocumentSaysThatIsPulled", { pin: p["pin"], pull: p["pull"], entries: list(p["entries"]) }),
  "remark.unsettled": (p) => t("issues.withThisCircuitHasNoSteady", { faults: list(p["faults"]) }),
};

/** Kinds of parts as people say them. */
export const KIND_WORDS: Readonly<Record<string, string>> = worded(() => ({
  battery: t("issues.battery"),
  alternator: t("issues.alternator"),
  fuse: t("issues.fuse"),
  breaker: t("issues.breaker"),
  switch: t("issues.switch"),
  diode: t("issues.diode"),
  splice: t("issues.splice"),
  ground: t("issues.groundPoint"),
  module: t("issues.module"),
  relay: t("issues.relay"),
  threeWireSensor: t("issues.threeWireSensor"),
  potentiometer: t("issues.potentiometer"),
  pedal: t("issues.twoTrackPedal"),
  thermistor: t("issues.thermistor"),
  hall: t("issues.hallSensor"),
  coilSensor: t("issues.coilSensor"),
  currentLoop: t("issues.currentLoopSensor"),
  smartSensor: t("issues.smartSensor"),
  terminator: t("issues.busTerminator"),
  lamp: t("issues.lamp"),
  solenoid: t("issues.solenoid"),
  heater: t("issues.heater"),
  inline: t("issues.inLineConnector"),
  busNode: t("issues.busNode"),
}));
const KEYS: Readonly<Record<string, string>> = worded(() => ({
  off: t("issues.keyOff"),
  on: t("issues.keyOn"),
  cranking: t("issues.cranking"),
  running: t("issues.engineRunning"),
}));
const LINES: Readonly<Record<string, string>> = worded(() => ({
  reference: t("issues.reference"),
  signal: t("issues.signal"),
  sensorGround: t("issues.sensorGround"),
  bus: t("issues.bus"),
}));
const volts = (value: Params[string] | undefined) => `${Number(Number(value).toFixed(2))} V`;

type Params = Issue["params"];
/** What is seen against what is drawn: colours by cavity, the count of cavities, the part number. */
function differences(p: Issue["params"]): string {
  const texts = (key: string) => {
    const v = p[key];
    return Array.isArray(v) ? v : [];
  };
  const seen = texts("seen");
  const drawn = texts("drawn");
  return [
    ...texts("cavities").map((c, i) => t("issues.cavityDrawn", { c, seen: seen[i], drawn: drawn[i] })),
    ...(p["countSeen"] === undefined
      ? []
      : [t("issues.cavitiesDrawn", { countSeen: p["countSeen"], countDrawn: p["countDrawn"] })]),
    ...(p["partSeen"] === undefined
      ? []
      : [t("issues.partDrawn", { partSeen: p["partSeen"], partDrawn: p["partDrawn"] })]),
  ].join("; ");
}
const count = (value: Params[string] | undefined) => (Array.isArray(value) ? value.length : 1);
const names = (value: Params[string] | undefined) =>
  Array.isArray(value) && value.length > 1
    ? t("issues.and", { most: value.slice(0, -1).join(", "), last: value.at(-1) })
    : list(value);
const list = (value: Params[string] | undefined) => (Array.isArray(value) ? value.join(", ") : String(value ?? ""));
const first = (value: Params[string] | undefined) => (Array.isArray(value) ? String(value[0] ?? "1") : "1");

/** One sentence for an issue. Schema issues fall back on what the schema itself says. */
export function issueText(issue: Issue): string {
  const text = TEXTS[issue.code];
  if (text) return text(issue.params);
  const message = issue.params["message"];
  return typeof message === "string" ? `${message}.` : issue.code;
}

/** The codes worded here; a test holds this against the codes the core uses. */
export const wordedCodes: readonly string[] = Object.keys(TEXTS);

/** A path as people read it: wires[3].from */
export function placeOf(issue: Issue): string {
  return issue.path.reduce<string>(
    (text, part) => (typeof part === "number" ? `${text}[${part}]` : text ? `${text}.${part}` : part),
    "",
  );
}
