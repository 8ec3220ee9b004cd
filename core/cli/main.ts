import { parseArgs } from "node:util";
import { analyseCommand } from "./analyse.js";
import { checkCommand, faultsCommand, netlistCommand, predictCommand, readCommand } from "./circuit.js";
import { compareCommand, convertCommand, mergeCommand, scanCommand, sharedCommand } from "./charts.js";
import { decodeCommand, schemaCommand, validateCommand } from "./documents.js";
import { gapsCommand } from "./gaps.js";
import { EXIT, Refusal, type Io } from "./io.js";
import { learnCommand, notebookCommand } from "./notebook.js";
import { proveCommand } from "./prove.js";
import { reportCommand } from "./report.js";
import { logbookCommand, runCommand } from "./runs.js";
import { simulateCommand } from "./simulate.js";
import { recordCommand, traceCommand } from "./traces.js";

const TAKES: Readonly<Record<string, string>> = {
  schema: "name: wiring, case, chart, notebook or recording",
  decode: "text of hex digits, in quotes",
};
const USAGE = `radicula: finds the one shared cause behind several trouble codes

  radicula analyse CASE.json [--json] [--top N]          suspects with reasons, next readings
  radicula prove CASE.json [--json]                      after a repair: how sure it is that the cause is cured,
                                                         and the steps that prove it
  radicula report CASE.json [--as html|pdf|json] [--length customer|workshop|record] [--settings FILE.json]
                  [--language en|de]
                                                         what was wrong, how it is known, what was done,
                                                         how sure it is; as a page, on paper, or as data
  radicula notebook FILE… [--find WORDS] [--json]        what closed cases teach, and notebooks, as one notebook
  radicula learn CASE.json NOTEBOOK.json [--json]        earlier jobs like this one, and what they change;
                                                         with --json the case with them in it
  radicula predict WIRING.json [--fault FAULT] [--state STATE] [--json]
                                                         volts at every cavity, codes set
  radicula read WIRING.json --with INSTRUMENT --red POINT [--black POINT] [--watt W]
                            [--fault FAULT] [--state STATE] [--json]
                                                         what an instrument shows, and what that is worth
  radicula faults WIRING.json [--json]                   every fault this wiring can have, by ID
  radicula check WIRING.json [--json]                    what the solved circuit says of the document
  radicula simulate WIRING.json|CASE.json --fault FAULT[,FAULT…] [--school SCHOOL] [--seed N]
                    [--runs N] [--presence SHARE] [--mistaken FROM,TO] [--json]
                                                         a technician of one school on a machine with hidden faults
  radicula run WIRING.json|CASE.json --run RUN [--on PLACE] [--fault FAULT[,FAULT…]] [--seed N] [--json]
                                                         a guided run played on such a machine;
                                                         without --on, where it can begin
  radicula trace FILE [--rate SAMPLES-A-SECOND] [--case CASE.json|WIRING.json --on PLACES [--do DOING]
                 [--state STATE] [--moved MOVED]] [--bus can|lin [--supply VOLT]] [--pattern PATTERN] [--json]
                                                         what a recording (CSV, TSV, WAV, VCD, JSON) holds, what
                                                         happens in it; with a case, what it says of the suspects
  radicula record WIRING.json --on PLACES [--fault FAULT] [--do DOING] [--state STATE] [--seconds S]
                  [--rate SAMPLES-A-SECOND] [--presence SHARE] [--moved MOVED] [--seed N]
                                                         a recording on a simulated machine, as CSV
  radicula logbook CASE.json [--csv|--json]              what a logbook adds up to: what is not as found,
                                                         before and after; all of it as CSV
  radicula netlist WIRING.json [--fault FAULT] [--state STATE]
                                                         the same circuit for SPICE
  radicula decode HEX [--json]                           codes in a scan tool's reply: 43 47 4A, 59 02, DM1
  radicula convert FILE --to wiring|chart|csv|graphml|spice
                                                         one form of a wiring into another;
                                                         FILE may be a pin chart as CSV
  radicula gaps FILE [--case CASE.json] [--json]         pins of a half-known drawing without a wire, what is
                                                         assumed of them, and which to look up first
  radicula shared CASE.json [--json]                     what the coded circuits share, before any reading
  radicula scan SCAN.txt WIRING.json [--json]            codes in a scan pasted in any layout
  radicula merge FIRST SECOND [--json]                   one chart laid over another: what agrees,
                                                         what is new, what contradicts
  radicula compare BEFORE.json AFTER.json [--json]       what changed between two wirings
  radicula validate FILE                                 checks a wiring, chart, case or notebook document
  radicula schema wiring|case|chart|notebook|recording   the JSON Schema of a document

A FILE of "-" is standard input. A FAULT is an ID with its severity where it has one, several joined by commas:
  S22/spliceHighResistance@500   F1/fuseBlown,B9/dead
STATE is a key position and what was changed, or a state as JSON (see schema case):
  on   off   cranking   running   on,unplug=B9   off,unplug=B7+B9   on,pull=F1   on,breaker=F1   on,asleep=A1
INSTRUMENT is voltmeter, ohmmeter, continuity, lamp, clamp, scope or scanTool.
RUN is unplugSeries, fuseRun, jumpers, groundProof, dropBySection, halveRun, loadWire, compareTwin, benchTest, farEnd,
  opposite, newPart, wiggle, whichIsWhich, swapTwins, steelTest or hallBench.
PLACES are in the order of the channels, joined by commas: B9:2 for a point, W4 for a clamp around a wire,
  scan:A1:24 for a value of the scan tool, - for a channel that is not weighed.
DOING is nothing, crank, run, sweep or move.
MOVED are places moved meanwhile, and from which second to which: X5@0-3,S50@3-6.
PATTERN are levels and times in order: "5 for 20 to 40 ms, 0.2 for 5 ms, 5±0.5". Of --bus can the first channel is on
  CAN high and the second on CAN low; of --bus lin the first is on the line.
SCHOOL is information, easiest, halve, powerGroundSignal, chart or random.

Exit codes: 0 done · 1 the document has errors · 2 wrong use · 66 the file cannot be read
`;

const OPTIONS = {
  json: { type: "boolean" },
  fault: { type: "string" },
  state: { type: "string" },
  top: { type: "string" },
  with: { type: "string" },
  red: { type: "string" },
  black: { type: "string" },
  watt: { type: "string" },
  to: { type: "string" },
  school: { type: "string" },
  seed: { type: "string" },
  runs: { type: "string" },
  presence: { type: "string" },
  mistaken: { type: "string" },
  run: { type: "string" },
  on: { type: "string" },
  csv: { type: "boolean" },
  as: { type: "string" },
  length: { type: "string" },
  settings: { type: "string" },
  language: { type: "string" },
  find: { type: "string" },
  case: { type: "string" },
  do: { type: "string" },
  seconds: { type: "string" },
  rate: { type: "string" },
  moved: { type: "string" },
  bus: { type: "string" },
  supply: { type: "string" },
  pattern: { type: "string" },
  help: { type: "boolean", short: "h" },
} as const;

/** Runs one command. @returns the exit code; wording goes to `io`, nothing is thrown for expected failures */
export function run(argv: readonly string[], io: Io): number {
  try {
    const { values, positionals } = parseArgs({
      args: [...argv],
      allowPositionals: true,
      options: OPTIONS,
    });
    const [command, file, ...rest] = positionals;
    if (values.help || command === "help" || command === undefined) {
      io.out(USAGE);
      return values.help || command === "help" ? EXIT.done : EXIT.usage;
    }
    if (command === "notebook" && file !== undefined) {
      notebookCommand(positionals.slice(1), values, io);
      return EXIT.done;
    }
    const second = rest[0];
    if (command === "merge" || command === "compare" || command === "scan" || command === "learn") {
      if (file === undefined || second === undefined || rest.length > 1)
        throw new Refusal(EXIT.usage, [`radicula ${command} takes two files. See radicula --help.`]);
      ({ merge: mergeCommand, compare: compareCommand, scan: scanCommand, learn: learnCommand })[command](
        file,
        second,
        values,
        io,
      );
      return EXIT.done;
    }
    if (file === undefined || rest.length)
      throw new Refusal(EXIT.usage, [
        `radicula ${command} takes one ${TAKES[command] ?? "file"}. See radicula --help.`,
      ]);
    switch (command) {
      case "analyse":
        analyseCommand(file, values, io);
        break;
      case "report":
        reportCommand(file, values, io);
        break;
      case "prove":
        proveCommand(file, values, io);
        break;
      case "predict":
        predictCommand(file, values, io);
        break;
      case "faults":
        faultsCommand(file, values, io);
        break;
      case "read":
        readCommand(file, values, io);
        break;
      case "check":
        checkCommand(file, values, io);
        break;
      case "decode":
        decodeCommand(file, values, io);
        break;
      case "netlist":
        netlistCommand(file, values, io);
        break;
      case "convert":
        convertCommand(file, values, io);
        break;
      case "trace":
        traceCommand(file, values, io);
        break;
      case "record":
        recordCommand(file, values, io);
        break;
      case "simulate":
        simulateCommand(file, values, io);
        break;
      case "run":
        runCommand(file, values, io);
        break;
      case "logbook":
        logbookCommand(file, values, io);
        break;
      case "gaps":
        gapsCommand(file, values, io);
        break;
      case "shared":
        sharedCommand(file, values, io);
        break;
      case "validate":
        validateCommand(file, io);
        break;
      case "schema":
        schemaCommand(file, io);
        break;
      default:
        throw new Refusal(EXIT.usage, [`There is no command "${command}". See radicula --help.`]);
    }
    return EXIT.done;
  } catch (error) {
    if (error instanceof Refusal) {
      for (const line of error.lines) io.err(`${line}\n`);
      return error.exit;
    }
    if (
      typeof error === "object" &&
      error !== null &&
      "code" in error &&
      String(error.code).startsWith("ERR_PARSE_ARGS")
    ) {
      io.err(
        `${"message" in error ? String(error.message).split(". To specify")[0] : "unknown option"}\nSee ` +
          "radicula --help.\n",
      );
      return EXIT.usage;
    }
    throw error;
  }
}
