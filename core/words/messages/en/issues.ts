export const issues = {
  "issues.theFileIsEmpty": "The file is empty.",
  "issues.theFileHasCharactersAreTaken": "The file has {characters} characters; {limit} are taken at most.",
  "issues.theFileStopsInTheMiddle":
    "The file stops in the middle (line {line}, column {column}): only part of it arrived.",
  "issues.thereAreTwoLessonsOfOne": 'There are two lessons of one job, "{id}": an id is there once.',
  "issues.thisFileIsNotOfA": "This file is not of a sort that is read here.",
  "issues.sayWhereItGoesArchivedDeleted": "Say where it goes: archived, deleted, or back.",
  "issues.itHoldsACharacterThatCannot":
    "It holds a character that cannot be saved, or is nested too deep. Type that text anew.",
  "issues.otherEntriesWereSavedUnderThe":
    "Other entries were saved under the same id already. Reload the page and log it again.",
  "issues.thisIsNotJsonItCannot": "This is not JSON: it cannot be read from line {line}, column {column} on.",
  "issues.expectedADocumentThatBeginsWith": 'Expected a document that begins with "format": "{format}".',
  "issues.expectedFormatFound": 'Expected format "{expected}", found {got}.',
  "issues.versionIsNotKnownHereThis": "Version {got} is not known here; this program reads version {expected}.",
  "issues.unknownKindOfDeviceKnownKinds": "Unknown kind of device. Known kinds: {known}.",
  "issues.unknownTypeKnownTypes": "Unknown type. Known types: {known}.",
  "issues.unknownRoleOfAModulePin": "Unknown role of a module pin. Known roles: {known}.",
  "issues.unknownField": "Unknown field: {fields}.",
  "issues.isUsedTwiceTheFirstIs": '"{id}" is used twice; the first is {first}.',
  "issues.isNotAConnectorSpliceGround":
    '"{id}" is not a connector, splice, ground, fuse, switch or battery of this document.',
  "issues.connectorNeedsACavityForExample": "Connector {connector} needs a cavity, for example {connector}:{first}.",
  "issues.connectorHasNoCavityItHas": 'Connector {connector} has no cavity "{cavity}"; it has {known}.',
  "issues.hasNoTerminalItHas": '{device} has no terminal "{terminal}"; it has {known}.',
  "issues.isAnInLineConnectorWrite":
    "{connector} is an in-line connector: write {connector}:{cavity}.a or {connector}:{cavity}.b.",
  "issues.isNotAnInLineConnector":
    "{connector} is not an in-line connector: write {connector}:{cavity} without a side.",
  "issues.cavityIsWiredTwiceTheFirst":
    "Cavity {cavity} is wired twice; the first wire there is {first}. Two wires in one cavity need a splice.",
  "issues.cavityAlreadyBelongsTo": "Cavity {cavity} already belongs to {first}.",
  "issues.theWireGoesFromToItself": "The wire goes from {endpoint} to itself.",
  "issues.aDevicePinMustBeA": "A device pin must be a cavity of the device's own connector; {at} is not.",
  "issues.theRangeRunsBackwardsTo": "The range runs backwards: {low} to {high}.",
  "issues.thereIsNoModule": 'There is no module "{module}".{known}',
  "issues.modulesHere": " Modules here: {known}.",
  "issues.theSetConditionWatchesWhichIs": "The set condition watches {at}, which is not a pin of module {module}.",
  "issues.thereIsNoDeviceInThis": 'There is no device "{id}" in this document.',
  "issues.aCurrentIsWatchedAtWhich": "A current is watched at {at}, which is not a driver of the module.",
  "issues.moduleNeedsOneBushighAndOne": "Module {module} needs one busHigh and one busLow pin for each bus{bus}.",
  "issues.relayHasNeitherAWorkingNor": "Relay {relay} has neither a working nor a resting contact.",
  "issues.moduleHasNoGroundPinA": "Module {module} has no ground pin; a good ground is assumed.",
  "issues.noSteadyState": "{key}: no steady state. {devices} {contradict}.",
  "issues.contradictEachOther": "contradict each other",
  "issues.contradictsItself": "contradicts itself",
  "issues.twoSteadyStatesForExampleOr":
    "{key}: two steady states, for example {volts} or {volts2} at {point}. The one with everything awake is used.",
  "issues.fuseMeltsOnAHealthyMachine":
    "{key}: fuse {fuse} melts on a healthy machine. Is its rating right, or does a wire join two feeds?",
  "issues.batteryWouldGiveAOnA":
    "{key}: battery {battery} would give {ampere} A on a healthy machine. Two supplies are joined, or one is shorted.",
  "issues.keyOnModuleStaysAsleepAre": "Key on: module {module} stays asleep. Are its supplies wired to a live feed?",
  "issues.aHealthyMachineWouldSetIs": "A healthy machine would set {code} ({key}). Is its set condition right?",
  "issues.thereAreNoHexDigitsHere": "There are no hex digits here.",
  "issues.isNotAHexDigit": '"{character}" is not a hex digit.',
  "issues.hexDigitsOneIsMissingSince": "{digits} hex digits: one is missing, since every byte has two.",
  "issues.theReplyHasCharactersAreTaken": "The reply has {characters} characters; {limit} are taken at most.",
  "issues.theReplyBeginsWithOneTo":
    "The reply begins with {byte}; one to an emission service begins with 43, 47 or 4A.",
  "issues.theReplyBeginsWithOneWith":
    "The reply begins with {byte}; one with codes and their status begins with 59 02.",
  "issues.theReplyStopsInTheMiddle": "The reply stops in the middle: {got} of {expected} codes are whole.",
  "issues.thisMessageCountsParametersInAn":
    "This message counts parameters in an older way that cannot be read safely.",
  "issues.standsBehindAMeterShowsThis":
    "{point} stands behind {ohm} Ω: a meter shows this voltage, a lamp would make it vanish.",
  "issues.moduleIsAsleepSuppliesAndReferences":
    "Module {modules} is asleep: supplies and references it makes are missing for that reason.",
  "issues.theBatteryStandsAtCompareEvery":
    "The battery stands at {volts}: compare every supply with that, not with a number.",
  "issues.thereIsVoltageOnThisCircuit":
    "There is voltage on this circuit ({volts} at {point}) or the key is on: ohms prove nothing.",
  "issues.aBeepOnlyRulesOutAn":
    "A beep only rules out an open: one strand left still sounds. Only a load proves that the wire carries current.",
  "issues.neverATestLampOnA":
    "Never a test lamp on a {line} line ({point}): it loads it flat and can damage the module.",
  "issues.aWLampWantsAEven": "A {watt} W lamp wants {ampere} A: even a healthy circuit could not light it ({volts}).",
  "issues.theCurrentIsTooSmallFor": "The current is too small for a clamp, which shows {least} A at least.",
  "issues.moduleIsNotAwakeTheScan": "Module {module} is not awake: the scan tool has no value.",
  "issues.thisIsNotAZipFile": "This is not a zip file, or it is damaged.",
  "issues.theZipFileHoldsMoreThan": "The zip file holds more than {limit} bytes once unpacked; nothing was taken.",
  "issues.theZipFileHoldsNoCase": "The zip file holds no case.json.",
  "issues.thisFileIsNotAPhoto": "This file is not a photo that can be read (JPEG, PNG, WebP). Nothing was kept.",
  "issues.thePhotoHasBytesAreTaken": "The photo has {bytes} bytes; {limit} are taken at most.",
  "issues.thereArePhotosAtThisConnector": "There are {limit} photos at this connector already; remove one first.",
  "issues.theLogbookSpeaksOfWhichThe":
    "The logbook speaks of {things}, which the other revision does not have. The job stays with its revision.",
  "issues.theJobIsNotClosedYet":
    "The job is not closed yet: {things} {count, plural, one {is} other {are}} not as found. Restore it, or say why it stays so.",
  "issues.noFaultCouldBeHiddenHere":
    "No fault could be hidden here that sets a code: the wiring has no codes with set conditions yet, or too few faults set one.",
  "issues.noCodeFoundIn": 'No code found in "{text}".',
  "issues.whichModuleGaveChooseOneOr": 'Which module gave "{text}"? Choose one, or write its name in the line.',
  "issues.thisIsNoTableItHolds": "This is no table: it holds bytes that no text has. Save it as CSV first.",
  "issues.quotesDoNotCloseHereCheck": "Quotes do not close here; check that no cell is missing.",
  "issues.noColumnForConnectorOrCavity":
    "No column for connector or cavity was found. Name the columns in the first line, for example: {examples}.",
  "issues.theColumnIsNotKnownHere": 'The column "{text}" is not known here; it was left out.',
  "issues.theTableHasNoHeadIts": "The table has no head; its columns were taken for: {columns}.",
  "issues.onlyTheFirstRowsAreTaken": "Only the first {limit} rows are taken.",
  "issues.aCellIsLongerThanCharacters": "A cell is longer than {limit} characters; the rest was cut off.",
  "issues.aTableCannotHoldTheseSo":
    "A table cannot hold these, so they are not in the file: {fields}. Save the document as JSON to keep them.",
  "issues.noConnectorIsNamedHereOr": "No connector is named here or above.",
  "issues.cannotBeANameLettersDigits":
    '"{text}" cannot be a name: letters, digits, - _ + / without spaces, 40 at most.',
  "issues.isNoPlaceAWireCan": '"{text}" is no place a wire can go to. Write A1:8, S14 or battery -.',
  "issues.hasCavitiesSayWhichOneFor": "{connector} has cavities: say which one, for example {connector}:1.",
  "issues.hasNoTerminal": '{connector} has no terminal "{cavity}".',
  "issues.cavityIsAlreadyInRow": "Cavity {cavity} is already in row {first}.",
  "issues.theWireAtIsSaidDifferently":
    "The wire at {point} is said differently at its other end; both are kept, the first one counts.",
  "issues.isNotAWireColour": '"{text}" is not a wire colour.{guess}',
  "issues.isIt": " Is it {nearest}?",
  "issues.meansDifferentColoursOnDifferentDrawings":
    '"{text}" means different colours on different drawings: {could}. It is kept as typed.',
  "issues.isNotACrossSectionWrite": '"{text}" is not a cross-section. Write 0.75 or 18 AWG.',
  "issues.isNotALengthInMetres": '"{text}" is not a length in metres.',
  "issues.isNotANumberOfMinutes": '"{text}" is not a number of minutes.',
  "issues.isLongerThanCharacters": '"{text}" is longer than {limit} characters.',
  "issues.isNotAZoneDryWet": '"{text}" is not a zone: dry, wet, hot, oily, vibrating, chewed.',
  "issues.isNotACaution": '"{text}" is not a caution: {known}.',
  "issues.isNotAFunctionThatIs": '"{text}" is not a function that is known here; it counts as not said.',
  "issues.isNotAKindOfPart": '"{text}" is not a kind of part.',
  "issues.whatKindOfPartIsCannot":
    "What kind of part {part} is cannot be told from its cavities: say its kind, or what its cavities are for.",
  "issues.isAButNoCavityIs": "{part} is a {kind}, but no cavity is its {missing}: it is left out until one is.",
  "issues.notUnderstoodWriteNameValueFor": "Not understood: {text}. Write name=value, for example rating=10.",
  "issues.wiresAreInSpliceIsAssumed": "{wires} wires are in {cavity}: splice {splice} is assumed beside it.",
  "issues.bothSidesOfAreTakenAlready": "Both sides of {cavity} are taken already.",
  "issues.moduleNeedsOneBusHighAnd":
    "Module {module} needs one bus high and one bus low cavity; one alone is left out.",
  "issues.connectorHasNoRowsYet": "Connector {id} has no rows yet.",
  "issues.partHasNoRowsYet": "Part {id} has no rows yet.",
  "issues.isNotAsDrawnEitherThe":
    "{connector} is not as drawn ({differences}). Either the drawing is of another build, or this is not {connector}{fits}. Check the part number before testing.",
  "issues.fitsBetter": ": {fits} fits better",
  "issues.isNamedTwice": '"{id}" is named twice.',
  "issues.thereIsNoPartOrConnector": 'There is no part or connector "{id}" in the wiring.',
  "issues.thereIsNoConnectorInThe": 'There is no connector "{id}" in the wiring.',
  "issues.olIsAnOhmsReadingA": "OL is an ohms reading; a voltmeter cannot show it.",
  "issues.isBelowZero": "{value} Ω is below zero.",
  "issues.isMoreThanAMeterCan": "{value} is more than a meter can show here ({limit} at most).",
  "issues.entryDoesNotStandBeforeThis": "Entry {target} does not stand before this one.",
  "issues.typeWhatTheMeterShows": "Type what the meter shows.",
  "issues.isNotANumberExamples0":
    '"{text}" is not a number. Examples: 0.15, 12,4, 150m, 10k2, OL, 4.2–4.9 where it flickers.',
  "issues.isNotWhatIsShownHere": '"{text}" is not what is shown here: {known}.',
  "issues.olIsAnOhmsReadingIs": "OL is an ohms reading. Is the meter on ohms? This reading is in volts.",
  "issues.ohmsBelowZeroIsThereStill": "Ohms below zero: is there still voltage on the wire?",
  "issues.isMoreThanVCheckThe": '"{text}" is more than {limit} V. Check the prefix: m is milli, k is kilo.',
  "issues.isMoreThanAnyWorkshopMeter":
    '"{text}" is more than any workshop meter shows. Check the prefix; an open circuit is OL.',
  "issues.isNotAmongTheCodesOf": "{code} is not among the codes of this wiring, so it weighs nothing yet.",
  "issues.theSetConditionOfIsNot": "The set condition of {code} is not known, so it weighs nothing yet.",
  "issues.isNotWhatAShows": '"{value}" is not what a {instrument} shows.',
  "issues.isSetByUnpluggingOurOwn": "{code} is set by unplugging {connectors}: our own doing, no evidence.",
  "issues.ohmsAtWereReadWithThe":
    "Ohms at {point} were read with the key on. They prove nothing: turn the key off and read again.",
  "issues.entryWasReadWithTheMeter":
    "Entry {number} was read with the meter on AC. It proves nothing about a steady voltage: switch to DC and read again.",
  "issues.entryWasReadWhileTheBattery":
    "Entry {number} was read while the battery stood at {volts}. It counts for nothing: put a charger on and read again.",
  "issues.atIsNotCloseEnoughFor":
    "{volts} at {point} is not close enough for a reference: good is {volts2} to {volts3}. It is a finding.",
  "issues.entryCameAfterAPauseOf":
    "Entry {number} came after a pause of {minutes} minutes: the machine may have gone to sleep. Cycle the key and read again at once.",
  "issues.entryWithThisUnpluggedHangsBehind":
    "Entry {number}: with this unplugged, {point} hangs behind {ohm} Ω. A meter shows a ghost there that any load would make vanish.",
  "issues.entryABeepOnlyRulesOut":
    "Entry {number}: a beep only rules out an open. One strand left still sounds; a load proves that the wire carries current.",
  "issues.entryWasItRatherThanA":
    "Entry {number}: was it {instead} rather than {typed}? A thousand times {way} would fit.",
  "issues.theMeterHasNotBeenChecked":
    "The meter has not been checked on this job: leads together, the battery, and the place the black lead stands on.",
  "issues.leadsTogetherReadABrokenLead":
    "Leads together read {ohm}: a broken lead or a flat meter battery. Mend that before any reading.",
  "issues.theBatteryReadsRedAndBlack": "The battery reads {volts}: red and black are changed over.",
  "issues.theBlackLeadStandsAwayFrom":
    "The black lead stands {volts} away from battery negative: that is no ground. Clip it to battery negative.",
  "issues.measureWithAllPluggedFirstWithout":
    "Measure {point} with all plugged first: without it nothing can be compared.",
  "issues.standsAtWhereIsHealthyNothing":
    "{point} stands at {volts}, where {volts2} is healthy: nothing drags it off now.",
  "issues.stillNotBackWithUnpluggedWhat":
    "Still not back with {unplugged} unplugged: what drags at {point} is in the wiring between, or in the module.",
  "issues.everyConnectorOnWasSkippedNothing": "Every connector on {point} was skipped; nothing can be said.",
  "issues.offItsVoltageThePartThere":
    "{names} {count, plural, one {drags} other {drag}} {point} off its voltage: the part there, or the piece of harness that came off with it.",
  "issues.withoutABreakerOrLampIn": "Without a breaker or lamp in the place of {fuse} this run cannot go on.",
  "issues.itTripsWithEverythingUnpluggedThe":
    "It trips with everything unplugged: the short is in the wiring between {fuse} and {before}.",
  "issues.itThePartThereOrThe":
    "{names} {count, plural, one {trips} other {trip}} it: the part there, or the harness behind it.",
  "issues.movingTripsItLookForA": "Moving {names} trips it: look for a chafed place there.",
  "issues.itHoldsWithEverythingPluggedIn":
    "It holds with everything plugged in and moved: nothing is shorted on {fuse} now.",
  "issues.hasNoSignalThatAModule": "{part} has no signal that a module reads.",
  "issues.isARestraintOrHighVoltage":
    "{point} is in a restraint or high-voltage circuit: the maker’s procedure, by trained people only.",
  "issues.thePinsMustBeMeasuredBefore": "The pins must be measured before a jumper goes on.",
  "issues.notAsAHealthyMachineWould":
    "{things} {count, plural, one {is} other {are}} not as a healthy machine would have it, unplugged: mend that before any jumper.",
  "issues.theModulesValueDoesNotGo":
    "The module's value does not go {ends}: the signal wire or the module's input is at fault, not {part}.",
  "issues.theModulesValueGoesAsTold":
    "The module's value goes {ends} as told: wiring and module input are proven. {part} or its terminals are left.",
  "issues.noCodeOfThisWiringWatches":
    "No code of this wiring watches the signal of {part} for being too low or too high.",
  "issues.didNotSetTheMonitorIs":
    "{codes} did not set: the monitor is asleep, its conditions are not met, or the module does not see its pin.",
  "issues.theOppositeCodeSetAsIt":
    "The opposite code set as it should: the monitor for {part} is awake. Clear what we set.",
  "issues.whatWasWrongWentWithThe": "What was wrong went with the part: {part} or {twin} itself.",
  "issues.whatWasWrongStayedNotThe": "What was wrong stayed: not the part, but what it plugs into.",
  "issues.ohmsProveNothingOnTestIt": "Ohms prove nothing on {part}: test it by what it does when fed.",
  "issues.byItselfIsNotGood": "{part} by itself is not good.",
  "issues.byItselfIsGood": "{part} by itself is good.",
  "issues.theNewIsNotGoodDo": "The new {part} is not good: do not fit it.",
  "issues.theNewIsGoodItCan": "The new {part} is good: it can go in.",
  "issues.wasNotMeasuredUnderAnyCurrent": "{point} was not measured under any current; nothing is proven.",
  "issues.isAGoodGroundUnderCurrent": "{point} is a good ground: {volts} under current.",
  "issues.dropsUnderCurrentItIsNot":
    "{point} drops {volts} under current: it is not a good ground, whatever continuity says.",
  "issues.theDrawingShowsNoWayFrom": "The drawing shows no way from {point} on.",
  "issues.isLostBetweenAnd": "{volts} is lost between {from} and {to}.",
  "issues.noneOfTheSectionsFromOn": "None of the {sections} sections from {point} on loses anything.",
  "issues.tooManyStepsAtWereSkipped": "Too many steps at {point} were skipped; nothing can be said.",
  "issues.readsAsItShouldThereIs": "{point} reads {volts}, as it should: there is nothing to halve.",
  "issues.itIsNotRightEvenAt": "It is not right even at {point}: the source itself, or what drags at it.",
  "issues.rightAtWrongAtItIs": "Right at {to}, wrong at {from}: it is lost between the two.",
  "issues.cannotBeIsolatedHangOnIt":
    "{point} cannot be isolated: {things} {count, plural, one {hangs} other {hang}} on it and cannot be unplugged.",
  "issues.thereIsOnWithBothEnds":
    "There is {volts} on {point} with both ends unplugged: it touches another wire. Do not feed it.",
  "issues.theWireFromToCarriesCurrent": "The wire from {from} to {to} carries current.",
  "issues.theLampIsNotBrightThe":
    "The lamp is not bright: the wire from {from} to {to} does not carry current, whatever a beeper says.",
  "issues.noModulePinIsAtThe": "No module pin is at the other end of {point}.",
  "issues.thePinIsRightAndThe":
    "The pin {pin} is right and the module says otherwise ({volts} apart): its terminal or its input.",
  "issues.andAreApartTheWayBetween": "{point} and {pin} are {volts} apart: the way between them.",
  "issues.andAgreeTheWayBetweenThem": "{point} and {pin} agree: the way between them is sound.",
  "issues.hasNoTwinOnThisMachine": "{part} has no twin on this machine.",
  "issues.differsFromAt": "{part} differs from {twin} at {things}.",
  "issues.hasAllItNeedsAsDoes": "{part} has all it needs, as {twin} does.",
  "issues.isNotAHallSensor": "{part} is not a Hall sensor.",
  "issues.answersSteelAtItsTipSensor":
    "{part} answers steel at its tip: sensor, supply, ground and line are good. Look at the target and the air gap.",
  "issues.isFedFromAModulesReference":
    "{part} is fed from a module's reference, about 5 V: a battery would destroy it. Try it on the machine, with steel at its tip.",
  "issues.switchesByItselfItIsGood":
    "{part} switches by itself: it is good. Look at its plug, its wires, the target and the air gap.",
  "issues.doesNotSwitchByItselfCheck":
    "{part} does not switch by itself. Check the three connections and the supply voltage once more; if they are right, the sensor is bad.",
  "issues.doesNotAnswerAndIsNot": "{part} does not answer, and {pin} is not as it should be: mend that first.",
  "issues.doesNotAnswerSteelThoughIt":
    "{part} does not answer steel, though it is fed: the sensor, its line, or a terminal of its plug.",
  "issues.hasFeedAndGroundAsDoes":
    "{part} has feed and ground as {twin} does. Whether the module drives it was not tried.",
  "issues.fluidInSeveralPlugsHasOne":
    "Fluid in several plugs ({plugs}) has one source: look for a leaking seal that wicks along the harness before you clean or replace anything.",
  "issues.entryProvesOnlyThatIsNot":
    "Entry {number} proves only that {black} is not open: a meter draws next to no current. Read the drop under load, or light a lamp over it.",
  "issues.entryTellsNothingOhmsThroughElectronics":
    "Entry {number} tells nothing: ohms through electronics at {point} depend on the meter.",
  "issues.entryCountsForNothingAValue":
    "Entry {number} counts for nothing: a value that stands still may be a substitute of the module's own.",
  "issues.entryCountsForNothingWhatIs":
    "Entry {number} counts for nothing: what is read at {point} is given in {wanted}, not in {unit}.",
  "issues.entryCountsForNothingTheWiring":
    "Entry {number} counts for nothing: the wiring does not say how many volts at {point} a value in {unit} is. Add the part's transfer, or log the value as plausible or at its end.",
  "issues.theTransferOfMustRiseAll":
    "The transfer of {part} must rise all the way or fall all the way, with each voltage once.",
  "issues.cannotFollowOnlyAnotherPartOf": "{part} cannot follow {id}: only another part of its own kind.",
  "issues.asThisWiringIsDrawnA":
    "As this wiring is drawn, a sound machine sets {code}, too. Correct the drawing or the code's set condition: until then the code tells nothing.",
  "issues.isNotAPointOfThis": "{point} is not a point of this wiring.",
  "issues.noSingleFaultInThisWiring":
    "No single fault in this wiring explains what was seen. Check first that this is the right drawing and the right component; then think of more than one fault.",
  "issues.itLooksAsThoughTheReadings":
    "It looks as though the readings at {from} were taken at {to}, which is easily taken for it. Check which component the leads were in before anything else.",
  "issues.theLeadingSuspectDoesNotExplain":
    "The leading suspect does not explain {codes}. There may be more than one fault.",
  "issues.theReadingInEntryIsFar":
    "The reading in entry {entries} is far from what the leading suspect predicts. Take it again before any verdict.",
  "issues.entryTheRepairHasAnEarlier":
    "Entry {number}: the repair has an earlier date than the job. Check the clock of the device.",
  "issues.mayBeOlderThanTheRepair":
    "{codes} may be older than the repair: clear the codes, cycle the key and scan again.",
  "issues.theVerdictInEntryWasGiven":
    "The verdict in entry {number} ({suspect}, {share}) was given by version {engine} of the program. Weighed anew, {now} leads with {nowShare}: sensors, drivers and buses are now taken as they really behave when a ground or a supply is lost.",
  "issues.nothingHereExplainsTheReadingsAt":
    "Nothing here explains the readings at {part} (entries {entries}). It may not be of the kind drawn: check its part number and its pins against the drawing.",
  "issues.theDocumentSaysThatIsPulled":
    "The document says that {pin} is pulled {pull}, but with the line open it reads as if it were not (entries {entries}). Check that value: what is said here hangs on it.",
  "issues.withThisCircuitHasNoSteady":
    "With {faults} this circuit has no steady state: what is predicted for it is not certain.",
  "issues.battery": "battery",
  "issues.alternator": "alternator",
  "issues.fuse": "fuse",
  "issues.breaker": "breaker",
  "issues.switch": "switch",
  "issues.diode": "diode",
  "issues.splice": "splice",
  "issues.groundPoint": "ground point",
  "issues.module": "module",
  "issues.relay": "relay",
  "issues.threeWireSensor": "three-wire sensor",
  "issues.potentiometer": "potentiometer",
  "issues.twoTrackPedal": "two-track pedal",
  "issues.thermistor": "thermistor",
  "issues.hallSensor": "Hall sensor",
  "issues.coilSensor": "coil sensor",
  "issues.currentLoopSensor": "current-loop sensor",
  "issues.smartSensor": "smart sensor",
  "issues.busTerminator": "bus terminator",
  "issues.lamp": "lamp",
  "issues.solenoid": "solenoid",
  "issues.heater": "heater",
  "issues.inLineConnector": "in-line connector",
  "issues.busNode": "bus node",
  "issues.keyOff": "Key off",
  "issues.keyOn": "Key on",
  "issues.cranking": "Cranking",
  "issues.engineRunning": "Engine running",
  "issues.reference": "reference",
  "issues.signal": "signal",
  "issues.sensorGround": "sensor ground",
  "issues.bus": "bus",
  "issues.cavityDrawn": "cavity {c}: {seen}, drawn {drawn}",
  "issues.cavitiesDrawn": "{countSeen} cavities, drawn {countDrawn}",
  "issues.partDrawn": "part {partSeen}, drawn {partDrawn}",
  "issues.and": "{most} and {last}",
  "issues.thisReadingIsInSays": 'This reading is in {unit}; "{text}" says {typed}.',
  "issues.volts": "volts",
  "issues.ohms": "ohms",
  "issues.orJoin": " or ",
  "issues.andJoin": " and ",
  "issues.entryIsTheMeanOfASpeed":
    "Entry {number} counts for nothing: the mean of a speed signal at {point} depends on the teeth that pass. Use a scope for its two levels.",
  "issues.thisFileIsNoPicture": "This file is no picture that can be read: JPEG, PNG or WebP, whole. Nothing was kept.",
  "issues.thisPdfCannotBeRead": "This PDF cannot be read: it is damaged, or no PDF. Pages kept before stay.",
  "issues.thisPdfIsLocked": "This PDF is locked with a password. Save it without one, then add it.",
  "issues.thePictureHasMillionPoints": "The picture has {millions} million points; up to {limit} million are taken.",
  "issues.thePageHasTooManyBytes": "The picture of a page may have up to {limit} bytes.",
  "issues.aWiringTakesPages": "A wiring takes up to {limit} pages.",
  "issues.noSuchPage": "There is no such page.",
  "issues.theWordsCouldNotBeRead": "The words of this picture could not be read. Type the names instead.",
} as const;
