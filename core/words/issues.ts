import type { Issue } from "../src/index.js";
import { OTHER_SORTS } from "./fileSorts.js";
import { shareText } from "./shares.js";

/**
 * Human wording of the core's issue codes, shared by the command line and the web. The core itself never words
 * anything.
 * Each says what is wrong and, where it helps, what to do.
 */
const TEXTS: Readonly<Record<string, (p: Params) => string>> = {
  "file.empty": () => "The file is empty.",
  "file.too-large": (p) =>
    `The file has ${thousands(p["characters"])} characters; ${thousands(p["limit"])} are taken at most.`,
  "file.cut-short": (p) =>
    `The file stops in the middle (line ${p["line"]}, column ${p["column"]}): only part of it arrived.`,
  "notebook.twice": (p) => `There are two lessons of one job, "${p["id"]}": an id is there once.`,
  "file.other-sort": (p) => OTHER_SORTS[String(p["sort"])] ?? "This file is not of a sort that is read here.",
  "away.not-understood": () => "Say where it goes: archived, deleted, or back.",
  "text.unsaveable": () => "It holds a character that cannot be saved, or is nested too deep. Type that text anew.",
  "entries.id-used": () => "Other entries were saved under the same id already. Reload the page and log it again.",
  "file.not-json": (p) => `This is not JSON: it cannot be read from line ${p["line"]}, column ${p["column"]} on.`,
  "file.not-an-object": (p) => `Expected a document that begins with "format": "${p["format"]}".`,
  "file.wrong-format": (p) => `Expected format "${p["expected"]}", found ${p["got"]}.`,
  "file.wrong-version": (p) => `Version ${p["got"]} is not known here; this program reads version ${p["expected"]}.`,
  "schema.unknown-kind": (p) => `Unknown kind of device. Known kinds: ${list(p["known"])}.`,
  "schema.unknown-type": (p) => `Unknown type. Known types: ${list(p["known"])}.`,
  "schema.unknown-role": (p) => `Unknown role of a module pin. Known roles: ${list(p["known"])}.`,
  "schema.unknown-field": (p) => `Unknown field: ${list(p["fields"])}.`,
  "wiring.duplicate-id": (p) => `"${p["id"]}" is used twice; the first is ${p["first"]}.`,
  "wiring.missing-connector": (p) =>
    `"${p["id"]}" is not a connector, splice, ground, fuse, switch or battery of this document.`,
  "wiring.missing-cavity": (p) =>
    p["cavity"] === ""
      ? `Connector ${p["connector"]} needs a cavity, for example ${p["connector"]}:${first(p["known"])}.`
      : `Connector ${p["connector"]} has no cavity "${p["cavity"]}"; it has ${list(p["known"])}.`,
  "wiring.missing-terminal": (p) => `${p["device"]} has no terminal "${p["terminal"]}"; it has ${list(p["known"])}.`,
  "wiring.inline-needs-side": (p) =>
    `${p["connector"]} is an in-line connector: write ${p["connector"]}:${p["cavity"]}.a or ${p["connector"]}:` +
    `${p["cavity"]}.b.`,
  "wiring.no-side-here": (p) =>
    `${p["connector"]} is not an in-line connector: write ${p["connector"]}:${p["cavity"]} without a side.`,
  "wiring.cavity-wired-twice": (p) =>
    `Cavity ${p["cavity"]} is wired twice; the first wire there is ${p["first"]}. Two wires in one cavity need ` +
    "a splice.",
  "wiring.cavity-used-twice": (p) => `Cavity ${p["cavity"]} already belongs to ${p["first"]}.`,
  "wiring.wire-to-itself": (p) => `The wire goes from ${p["endpoint"]} to itself.`,
  "wiring.pin-needs-device-connector": (p) =>
    `A device pin must be a cavity of the device's own connector; ${p["at"]} is not.`,
  "wiring.range-reversed": (p) => `The range runs backwards: ${p["low"]} to ${p["high"]}.`,
  "wiring.missing-module": (p) =>
    `There is no module "${p["module"]}".` +
    `${Array.isArray(p["known"]) && p["known"].length ? ` Modules here: ${list(p["known"])}.` : ""}`,
  "wiring.monitor-not-at-module": (p) =>
    `The set condition watches ${p["at"]}, which is not a pin of module ${p["module"]}.`,
  "wiring.missing-device": (p) => `There is no device "${p["id"]}" in this document.`,
  "wiring.monitor-needs-driver": (p) => `A current is watched at ${p["at"]}, which is not a driver of the module.`,
  "wiring.bus-pair": (p) =>
    `Module ${p["module"]} needs one busHigh and one busLow pin for each bus${p["bus"] ? ` (${p["bus"]})` : ""}.`,
  "wiring.relay-without-contact": (p) => `Relay ${p["relay"]} has neither a working nor a resting contact.`,
  "circuit.module-without-ground": (p) => `Module ${p["module"]} has no ground pin; a good ground is assumed.`,
  "circuit.no-steady-state": (p) =>
    `${KEYS[String(p["key"])]}: no steady state. ${list(p["devices"])} ` +
    `${Array.isArray(p["devices"]) && p["devices"].length > 1 ? "contradict each other" : "contradicts itself"}` +
    ".",
  "circuit.two-steady-states": (p) =>
    `${KEYS[String(p["key"])]}: two steady states, for example ${volts(p["first"])} or ${volts(p["second"])} at ` +
    `${p["point"]}. The one with everything awake is used.`,
  "circuit.fuse-melts": (p) =>
    `${KEYS[String(p["key"])]}: fuse ${p["fuse"]} melts on a healthy machine. Is its rating right, or does a ` +
    "wire join two feeds?",
  "circuit.battery-shorted": (p) =>
    `${KEYS[String(p["key"])]}: battery ${p["battery"]} would give ${p["ampere"]} A on a healthy machine. Two ` +
    "supplies are joined, or one is shorted.",
  "circuit.module-asleep": (p) => `Key on: module ${p["module"]} stays asleep. Are its supplies wired to a live feed?`,
  "circuit.code-when-healthy": (p) =>
    `A healthy machine would set ${p["code"]} (${KEYS[String(p["key"])]?.toLowerCase()}). Is its set condition right?`,
  "hex.empty": () => "There are no hex digits here.",
  "hex.not-hex": (p) => `"${p["character"]}" is not a hex digit.`,
  "hex.odd": (p) => `${p["digits"]} hex digits: one is missing, since every byte has two.`,
  "hex.too-long": (p) =>
    `The reply has ${thousands(p["characters"])} characters; ${thousands(p["limit"])} are taken at most.`,
  "reply.not-emission": (p) =>
    `The reply begins with ${p["byte"]}; one to an emission service begins with 43, 47 or 4A.`,
  "reply.not-information": (p) =>
    `The reply begins with ${p["byte"]}; one with codes and their status begins with 59 02.`,
  "reply.cut-short": (p) => `The reply stops in the middle: ${p["got"]} of ${p["expected"]} codes are whole.`,
  "reply.old-conversion": () => "This message counts parameters in an older way that cannot be read safely.",
  "reading.ghost-voltage": (p) =>
    `${p["point"]} stands behind ${thousands(p["ohm"])} Ω: a meter shows this voltage, a lamp would make it vanish.`,
  "reading.module-asleep": (p) =>
    `Module ${list(p["modules"])} is asleep: supplies and references it makes are missing for that reason.`,
  "reading.battery-low": (p) =>
    `The battery stands at ${volts(p["volt"])}: compare every supply with that, not with a number.`,
  "reading.live-circuit": (p) =>
    `There is voltage on this circuit (${volts(p["volt"])} at ${p["point"]}) or the key is on: ohms prove nothing.`,
  "reading.beeper-rules-out-open": () =>
    "A beep only rules out an open: one strand left still sounds. Only a load proves that the wire carries current.",
  "lamp.on-electronics": (p) =>
    `Never a test lamp on a ${LINES[String(p["line"])] ?? "module"} line (${p["point"]}): it loads it flat and ` +
    "can damage the module.",
  "lamp.too-hungry": (p) =>
    `A ${p["watt"]} W lamp wants ${Number(Number(p["ampere"]).toPrecision(2))} A: even a healthy circuit could ` +
    `not light it (${volts(p["volt"])}).`,
  "clamp.below-resolution": (p) => `The current is too small for a clamp, which shows ${p["least"]} A at least.`,
  "scan.module-silent": (p) => `Module ${p["module"]} is not awake: the scan tool has no value.`,
  "file.not-a-zip": () => "This is not a zip file, or it is damaged.",
  "file.zip-too-large": (p) =>
    `The zip file holds more than ${thousands(p["limit"])} bytes once unpacked; nothing was taken.`,
  "file.zip-without-case": () => "The zip file holds no case.json.",
  "photo.not-a-photo": () => "This file is not a photo that can be read (JPEG, PNG, WebP). Nothing was kept.",
  "photo.too-large": (p) => `The photo has ${thousands(p["bytes"])} bytes; ${thousands(p["limit"])} are taken at most.`,
  "photo.too-many": (p) => `There are ${p["limit"]} photos at this connector already; remove one first.`,
  "revision.breaks-logbook": (p) =>
    `The logbook speaks of ${list(p["things"])}, which the other revision does not have. The job stays with its ` +
    "revision.",
  "job.not-as-found": (p) =>
    `The job is not closed yet: ${list(p["things"])} ` +
    `${Array.isArray(p["things"]) && p["things"].length > 1 ? "are" : "is"} not as found. Restore it, or say ` +
    "why it stays so.",
  "bench.no-fault-sets-a-code": () =>
    "No fault could be hidden here that sets a code: the wiring has no codes with set conditions yet, or too " +
    "few faults set one.",
  "scan.no-code": (p) => `No code found in "${p["text"]}".`,
  "scan.no-module": (p) => `Which module gave "${p["text"]}"? Choose one, or write its name in the line.`,
  "table.not-text": () => "This is no table: it holds bytes that no text has. Save it as CSV first.",
  "table.quotes": () => "Quotes do not close here; check that no cell is missing.",
  "table.no-columns": (p) =>
    "No column for connector or cavity was found. Name the columns in the first line, for example: " +
    `${list(p["known"]).split(", ").slice(0, 6).join(", ")}.`,
  "table.column-not-known": (p) => `The column "${p["text"]}" is not known here; it was left out.`,
  "table.columns-guessed": (p) =>
    "The table has no head; its columns were taken for: " +
    `${list(p["columns"]).replaceAll("mm2", "mm²").replaceAll("goesTo", "goes to")}.`,
  "table.too-many-rows": (p) => `Only the first ${thousands(p["limit"])} rows are taken.`,
  "table.cell-cut": (p) => `A cell is longer than ${p["limit"]} characters; the rest was cut off.`,
  "csv.left-out": (p) =>
    `A table cannot hold these, so they are not in the file: ${list(p["fields"])}. Save the document as JSON to ` +
    "keep them.",
  "chart.no-connector": () => "No connector is named here or above.",
  "chart.bad-name": (p) => `"${p["text"]}" cannot be a name: letters, digits, - _ + / without spaces, 40 at most.`,
  "chart.bad-goes-to": (p) => `"${p["text"]}" is no place a wire can go to. Write A1:8, S14 or battery -.`,
  "chart.needs-cavity": (p) => `${p["connector"]} has cavities: say which one, for example ${p["connector"]}:1.`,
  "chart.no-such-terminal": (p) => `${p["connector"]} has no terminal "${p["cavity"]}".`,
  "chart.to-itself": (p) => `The wire goes from ${p["endpoint"]} to itself.`,
  "chart.said-twice": (p) => `Cavity ${p["cavity"]} is already in row ${p["first"]}.`,
  "chart.two-values": (p) =>
    `The wire at ${p["point"]} is said differently at its other end; both are kept, the first one counts.`,
  "chart.unknown-colour": (p) =>
    `"${p["text"]}" is not a wire colour.` +
    `${Array.isArray(p["nearest"]) && p["nearest"].length ? ` Is it ${p["nearest"].join(", ")}?` : ""}`,
  "chart.ambiguous-colour": (p) =>
    `"${p["text"]}" means different colours on different drawings: ${list(p["could"]).replace(", ", " or ")}. ` +
    "It is kept as typed.",
  "chart.not-a-section": (p) => `"${p["text"]}" is not a cross-section. Write 0.75 or 18 AWG.`,
  "chart.not-a-length": (p) => `"${p["text"]}" is not a length in metres.`,
  "chart.not-minutes": (p) => `"${p["text"]}" is not a number of minutes.`,
  "chart.too-long": (p) => `"${p["text"]}" is longer than ${p["limit"]} characters.`,
  "chart.unknown-zone": (p) => `"${p["text"]}" is not a zone: dry, wet, hot, oily, vibrating, chewed.`,
  "chart.unknown-caution": (p) => `"${p["text"]}" is not a caution: ${list(p["known"])}.`,
  "chart.unknown-function": (p) => `"${p["text"]}" is not a function that is known here; it counts as not said.`,
  "chart.unknown-kind": (p) => `"${p["text"]}" is not a kind of part.`,
  "chart.kind-unknown": (p) =>
    `What kind of part ${p["part"]} is cannot be told from its cavities: say its kind, or what its cavities are for.`,
  "chart.role-missing": (p) =>
    `${p["part"]} is a ${KIND_WORDS[String(p["kind"])] ?? p["kind"]}, but no cavity is its ${list(p["missing"])}` +
    ": it is left out until one is.",
  "chart.bad-values": (p) => `Not understood: ${list(p["text"])}. Write name=value, for example rating=10.`,
  "chart.values-do-not-fit": (p) => `${p["part"]}: ${p["message"]}.`,
  "chart.splice-assumed": (p) =>
    `${p["wires"]} wires are in ${p["cavity"]}: splice ${p["splice"]} is assumed beside it.`,
  "chart.inline-full": (p) => `Both sides of ${p["cavity"]} are taken already.`,
  "chart.bus-pair": (p) => `Module ${p["module"]} needs one bus high and one bus low cavity; one alone is left out.`,
  "chart.connector-without-rows": (p) => `Connector ${p["id"]} has no rows yet.`,
  "chart.part-without-rows": (p) => `Part ${p["id"]} has no rows yet.`,
  "remark.not-as-drawn": (p) =>
    `${p["connector"]} is not as drawn (${differences(p)}). Either the drawing is of another build, or this is ` +
    `not ${p["connector"]}` +
    `${Array.isArray(p["fits"]) && p["fits"].length ? `: ${list(p["fits"]).replace(", ", " or ")} fits better` : ""}` +
    ". Check the part number before testing.",
  "entry.named-twice": (p) => `"${p["id"]}" is named twice.`,
  "entry.missing-thing": (p) => `There is no part or connector "${p["id"]}" in the wiring.`,
  "entry.missing-connector": (p) => `There is no connector "${p["id"]}" in the wiring.`,
  "entry.overload-not-ohms": () => "OL is an ohms reading; a voltmeter cannot show it.",
  "entry.negative-ohms": (p) => `${p["value"]} Ω is below zero.`,
  "entry.absurd": (p) => `${p["value"]} is more than a meter can show here (${p["limit"]} at most).`,
  "entry.undo-of-nothing": (p) => `Entry ${p["target"]} does not stand before this one.`,
  "quantity.empty": () => "Type what the meter shows.",
  "quantity.not-a-number": (p) =>
    `"${p["text"]}" is not a number. Examples: 0.15, 12,4, 150m, 10k2, OL, 4.2–4.9 where it flickers.`,
  "quantity.not-a-word": (p) => `"${p["text"]}" is not what is shown here: ${list(p["known"])}.`,
  "quantity.wrong-unit": (p) =>
    `This reading is in ${p["unit"] === "V" ? "volts" : "ohms"}; "${p["text"]}" says ${p["typed"]}.`,
  "quantity.overload-not-ohms": () => "OL is an ohms reading. Is the meter on ohms? This reading is in volts.",
  "quantity.negative-ohms": () => "Ohms below zero: is there still voltage on the wire?",
  "quantity.absurd": (p) =>
    p["unit"] === "V"
      ? `"${p["text"]}" is more than ${p["limit"]} V. Check the prefix: m is milli, k is kilo.`
      : `"${p["text"]}" is more than any workshop meter shows. Check the prefix; an open circuit is OL.`,
  "remark.code-not-in-wiring": (p) => `${p["code"]} is not among the codes of this wiring, so it weighs nothing yet.`,
  "remark.code-without-condition": (p) => `The set condition of ${p["code"]} is not known, so it weighs nothing yet.`,
  "entry.not-this-instrument": (p) => `"${p["value"]}" is not what a ${p["instrument"]} shows.`,
  "remark.code-set-by-us": (p) =>
    `${p["code"]} is set by unplugging ${list(p["connectors"])}: our own doing, no evidence.`,
  "remark.ohms-with-power": (p) =>
    `Ohms at ${p["point"]} were read with the key on. They prove nothing: turn the key off and read again.`,
  "remark.ac-mode": (p) =>
    `Entry ${p["number"]} was read with the meter on AC. It proves nothing about a steady voltage: switch to DC ` +
    "and read again.",
  "remark.battery-sagging": (p) =>
    `Entry ${p["number"]} was read while the battery stood at ${volts(p["volt"])}. It counts for nothing: put a ` +
    "charger on and read again.",
  "remark.not-close-enough": (p) =>
    `${volts(p["volt"])} at ${p["point"]} is not close enough for a reference: good is ${volts(p["low"])} to ` +
    `${volts(p["high"])}. It is a finding.`,
  "remark.may-sleep": (p) =>
    `Entry ${p["number"]} came after a pause of ${p["minutes"]} minutes: the machine may have gone to sleep. ` +
    "Cycle the key and read again at once.",
  "remark.ghost-voltage": (p) =>
    `Entry ${p["number"]}: with this unplugged, ${p["point"]} hangs behind ${thousands(p["ohm"])} Ω. A meter ` +
    "shows a ghost there that any load would make vanish.",
  "remark.beeper-rules-out-open": (p) =>
    `Entry ${p["number"]}: a beep only rules out an open. One strand left still sounds; a load proves that the ` +
    "wire carries current.",
  "remark.prefix-slip": (p) =>
    `Entry ${p["number"]}: was it ${p["instead"]} rather than ${p["typed"]}? A thousand times ${p["way"]} would fit.`,
  "remark.meter-not-proven": () =>
    "The meter has not been checked on this job: leads together, the battery, and the place the black lead stands on.",
  "remark.meter-leads": (p) =>
    `Leads together read ${p["ohm"] === "OL" ? "OL" : `${p["ohm"]} Ω`}: a broken lead or a flat meter battery. ` +
    "Mend that before any reading.",
  "remark.meter-reversed": (p) => `The battery reads ${volts(p["volt"])}: red and black are changed over.`,
  "remark.meter-ground": (p) =>
    `The black lead stands ${volts(p["volt"])} away from battery negative: that is no ground. Clip it to ` +
    "battery negative.",
  "run.series-needs-start": (p) => `Measure ${p["point"]} with all plugged first: without it nothing can be compared.`,
  "run.shared-is-well": (p) =>
    `${p["point"]} stands at ${volts(p["volt"])}, where ${volts(p["healthy"])} is healthy: nothing drags it off now.`,
  "run.still-down": (p) =>
    `Still not back with ${list(p["unplugged"])} unplugged: what drags at ${p["point"]} is in the wiring ` +
    "between, or in the module.",
  "run.series-skipped": (p) => `Every connector on ${p["point"]} was skipped; nothing can be said.`,
  "run.culprit": (p) =>
    `${names(p["things"])} ${plural(p["things"]) ? "drag" : "drags"} ${p["point"]} off its voltage: the part ` +
    "there, or the piece of harness that came off with it.",
  "run.fuse-needs-breaker": (p) => `Without a breaker or lamp in the place of ${p["fuse"]} this run cannot go on.`,
  "run.fuse-wiring": (p) =>
    `It trips with everything unplugged: the short is in the wiring between ${p["fuse"]} and ${p["before"]}.`,
  "run.fuse-culprit": (p) =>
    `${names(p["things"])} ${plural(p["things"]) ? "trip" : "trips"} it: the part there, or the harness behind it.`,
  "run.fuse-moved": (p) => `Moving ${names(p["things"])} trips it: look for a chafed place there.`,
  "run.fuse-holds": (p) => `It holds with everything plugged in and moved: nothing is shorted on ${p["fuse"]} now.`,
  "run.no-signal-pin": (p) => `${p["part"]} has no signal that a module reads.`,
  "run.guarded": (p) =>
    `${p["point"]} is a restraint or high-voltage circuit: the maker's procedure, by qualified people only.`,
  "run.measure-first": () => "The pins must be measured before a jumper goes on.",
  "run.pin-not-right": (p) =>
    `${list(p["things"])} ${plural(p["things"]) ? "are" : "is"} not as a healthy machine would have it, ` +
    "unplugged: mend that before any jumper.",
  "run.does-not-follow": (p) =>
    `The module's value does not go ${list(p["ends"])}: the signal wire or the module's input is at fault, not ` +
    `${p["part"]}.`,
  "run.wiring-proven": (p) =>
    `The module's value goes ${list(p["ends"]).replace(", ", " and ")} as told: wiring and module input are ` +
    `proven. ${p["part"]} or its terminals are left.`,
  "run.no-monitor": (p) => `No code of this wiring watches the signal of ${p["part"]} for being too low or too high.`,
  "run.monitor-silent": (p) =>
    `${list(p["codes"])} did not set: the monitor is asleep, its conditions are not met, or the module does not ` +
    "see its pin.",
  "run.monitor-awake": (p) =>
    `The opposite code set as it should: the monitor for ${p["part"]} is awake. Clear what we set.`,
  "run.went-with-part": (p) => `What was wrong went with the part: ${p["part"]} or ${p["twin"]} itself.`,
  "run.stayed-with-wiring": () => "What was wrong stayed: not the part, but what it plugs into.",
  "run.told-apart": (p) => `${p["connector"]}: ${list(p["cavities"])}.`,
  "run.ohms-prove-nothing": (p) => `Ohms prove nothing on ${p["part"]}: test it by what it does when fed.`,
  "run.part-bad": (p) => `${p["part"]} by itself is not good.`,
  "run.part-good": (p) => `${p["part"]} by itself is good.`,
  "run.new-part-bad": (p) => `The new ${p["part"]} is not good: do not fit it.`,
  "run.new-part-good": (p) => `The new ${p["part"]} is good: it can go in.`,
  "run.ground-not-tried": (p) => `${p["point"]} was not measured under any current; nothing is proven.`,
  "run.ground-good": (p) => `${p["point"]} is a good ground: ${volts(p["volt"])} under current.`,
  "run.ground-bad": (p) =>
    `${p["point"]} drops ${volts(p["volt"])} under current: it is not a good ground, whatever continuity says.`,
  "run.no-way": (p) => `The drawing shows no way from ${p["point"]} on.`,
  "run.section-drops": (p) => `${volts(p["volt"])} is lost between ${p["from"]} and ${p["to"]}.`,
  "run.no-section-drops": (p) => `None of the ${p["sections"]} sections from ${p["point"]} on loses anything.`,
  "run.run-skipped": (p) => `Too many steps at ${p["point"]} were skipped; nothing can be said.`,
  "run.end-is-well": (p) => `${p["point"]} reads ${volts(p["volt"])}, as it should: there is nothing to halve.`,
  "run.bad-at-source": (p) => `It is not right even at ${p["point"]}: the source itself, or what drags at it.`,
  "run.lost-between": (p) => `Right at ${p["to"]}, wrong at ${p["from"]}: it is lost between the two.`,
  "run.cannot-isolate": (p) =>
    `${p["point"]} cannot be isolated: ${list(p["things"])} hang${plural(p["things"]) ? "" : "s"} on it and ` +
    "cannot be unplugged.",
  "run.not-isolated": (p) =>
    `There is ${volts(p["volt"])} on ${p["point"]} with both ends unplugged: it touches another wire. Do not feed it.`,
  "run.wire-carries": (p) => `The wire from ${p["from"]} to ${p["to"]} carries current.`,
  "run.wire-weak": (p) =>
    `The lamp is not bright: the wire from ${p["from"]} to ${p["to"]} does not carry current, whatever a beeper says.`,
  "run.no-module-pin": (p) => `No module pin is at the other end of ${p["point"]}.`,
  "run.module-differs": (p) =>
    `The pin ${p["pin"]} is right and the module says otherwise (${volts(p["volt"])} apart): its terminal or ` +
    "its input.",
  "run.ends-differ": (p) => `${p["point"]} and ${p["pin"]} are ${volts(p["volt"])} apart: the way between them.`,
  "run.ends-agree": (p) => `${p["point"]} and ${p["pin"]} agree: the way between them is sound.`,
  "run.no-twin": (p) => `${p["part"]} has no twin on this machine.`,
  "run.twin-differs": (p) => `${p["part"]} differs from ${p["twin"]} at ${list(p["things"])}.`,
  "run.twin-agrees": (p) => `${p["part"]} has all it needs, as ${p["twin"]} does.`,
  "run.no-hall": (p) => `${p["part"]} is not a Hall sensor.`,
  "run.hall-answers": (p) =>
    `${p["part"]} answers steel at its tip: sensor, supply, ground and line are good. Look at the target and the ` +
    "air gap.",
  "run.hall-takes-reference": (p) =>
    `${p["part"]} is fed from a module's reference, about 5 V: a battery would destroy it. Try it on the machine, ` +
    "with steel at its tip.",
  "run.hall-good-alone": (p) =>
    `${p["part"]} switches by itself: it is good. Look at its plug, its wires, the target and the air gap.`,
  "run.hall-dead-alone": (p) =>
    `${p["part"]} does not switch by itself. Check the three connections and the supply voltage once more; if they ` +
    "are right, the sensor is bad.",
  "run.hall-not-fed": (p) => `${p["part"]} does not answer, and ${p["pin"]} is not as it should be: mend that first.`,
  "run.hall-silent": (p) =>
    `${p["part"]} does not answer steel, though it is fed: the sensor, its line, or a terminal of its plug.`,
  "run.twin-agrees-undriven": (p) =>
    `${p["part"]} has feed and ground as ${p["twin"]} does. Whether the module drives it was not tried.`,
  "remark.one-fluid": (p) =>
    `Fluid in several plugs (${list(p["plugs"])}) has one source: look for a leaking seal that wicks along the ` +
    "harness before you clean or replace anything.",
  "remark.plus-to-ground": (p) =>
    `Entry ${p["number"]} proves only that ${p["black"]} is not open: a meter draws next to no current. Read the ` +
    "drop under load, or light a lamp over it.",
  "remark.ohms-electronics": (p) =>
    `Entry ${p["number"]} tells nothing: ohms through electronics at ${p["point"]} depend on the meter.`,
  "remark.scan-frozen": (p) =>
    `Entry ${p["number"]} counts for nothing: a value that stands still may be a substitute of the module's own.`,
  "remark.scan-unit-does-not-fit": (p) =>
    `Entry ${p["number"]} counts for nothing: what is read at ${p["point"]} is given in ${p["wanted"]}, ` +
    `not in ${p["unit"]}.`,
  "remark.scan-no-curve": (p) =>
    `Entry ${p["number"]} counts for nothing: the wiring does not say how many volts at ${p["point"]} a value in ` +
    `${p["unit"]} is. Add the part's transfer, or log the value as plausible or at its end.`,
  "wiring.transfer-not-monotone": (p) =>
    `The transfer of ${p["part"]} must rise all the way or fall all the way, with each voltage once.`,
  "wiring.follows-another-kind": (p) => `${p["part"]} cannot follow ${p["id"]}: only another part of its own kind.`,
  "remark.code-healthy": (p) =>
    `As this wiring is drawn, a sound machine sets ${p["code"]}, too. Correct the drawing or the code's set ` +
    "condition: until then the code tells nothing.",
  "remark.point-not-in-wiring": (p) => `${p["point"]} is not a point of this wiring.`,
  "remark.not-in-this-wiring": () =>
    "No single fault in this wiring explains what was seen. Check first that this is the right drawing and the " +
    "right component; then think of more than one fault.",
  "remark.wrong-component": (p) =>
    `It looks as though the readings at ${p["from"]} were taken at ${p["to"]}, which is easily taken for it. ` +
    "Check which component the leads were in before anything else.",
  "remark.leader-leaves-codes": (p) =>
    `The leading suspect does not explain ${list(p["codes"])}. There may be more than one fault.`,
  "remark.leader-misfits": (p) =>
    `The reading in entry ${list(p["entries"])} is far from what the leading suspect predicts. Take it again ` +
    "before any verdict.",
  "remark.repair-before-job": (p) =>
    `Entry ${p["number"]}: the repair has an earlier date than the job. Check the clock of the device.`,
  "remark.codes-not-cleared": (p) =>
    `${list(p["codes"])} may be older than the repair: clear the codes, cycle the key and scan again.`,
  "remark.older-verdict": (p) =>
    `The verdict in entry ${p["number"]} (${p["suspect"]}, ${shareText(Number(p["share"]))}) was given by version ` +
    `${p["engine"]} of the program. Weighed anew, ${p["now"]} leads with ${shareText(Number(p["nowShare"]))}: ` +
    "sensors, drivers and buses are now taken as they really behave when a ground or a supply is lost.",
  "remark.device-not-as-drawn": (p) =>
    `Nothing here explains the readings at ${p["part"]} (entries ${list(p["entries"])}). It may not be of the kind ` +
    "drawn: check its part number and its pins against the drawing.",
  "remark.pull-not-as-typed": (p) =>
    `The document says that ${p["pin"]} is pulled ${p["pull"]}, but with the line open it reads as if it were not ` +
    `(entries ${list(p["entries"])}). Check that value: what is said here hangs on it.`,
  "remark.unsettled": (p) =>
    `With ${list(p["faults"])} this circuit has no steady state: what is predicted for it is not certain.`,
};

/** Kinds of parts as people say them. */
export const KIND_WORDS: Readonly<Record<string, string>> = {
  battery: "battery",
  alternator: "alternator",
  fuse: "fuse",
  breaker: "breaker",
  switch: "switch",
  diode: "diode",
  splice: "splice",
  ground: "ground point",
  module: "module",
  relay: "relay",
  threeWireSensor: "three-wire sensor",
  potentiometer: "potentiometer",
  pedal: "two-track pedal",
  thermistor: "thermistor",
  hall: "Hall sensor",
  coilSensor: "coil sensor",
  currentLoop: "current-loop sensor",
  smartSensor: "smart sensor",
  terminator: "bus terminator",
  lamp: "lamp",
  solenoid: "solenoid",
  heater: "heater",
  inline: "in-line connector",
  busNode: "bus node",
};
const KEYS: Readonly<Record<string, string>> = {
  off: "Key off",
  on: "Key on",
  cranking: "Cranking",
  running: "Engine running",
};
const LINES: Readonly<Record<string, string>> = {
  reference: "reference",
  signal: "signal",
  sensorGround: "sensor ground",
  bus: "bus",
};
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
    ...texts("cavities").map((c, i) => `cavity ${c}: ${seen[i]}, drawn ${drawn[i]}`),
    ...(p["countSeen"] === undefined ? [] : [`${p["countSeen"]} cavities, drawn ${p["countDrawn"]}`]),
    ...(p["partSeen"] === undefined ? [] : [`part ${p["partSeen"]}, drawn ${p["partDrawn"]}`]),
  ].join("; ");
}
const plural = (value: Params[string] | undefined) => Array.isArray(value) && value.length > 1;
const names = (value: Params[string] | undefined) =>
  Array.isArray(value) && value.length > 1 ? `${value.slice(0, -1).join(", ")} and ${value.at(-1)}` : list(value);
const list = (value: Params[string] | undefined) => (Array.isArray(value) ? value.join(", ") : String(value ?? ""));
const first = (value: Params[string] | undefined) => (Array.isArray(value) ? String(value[0] ?? "1") : "1");
const thousands = (value: Params[string] | undefined) => Number(value).toLocaleString("en").replaceAll(",", "\u202f");

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
