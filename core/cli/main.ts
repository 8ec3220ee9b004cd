import { parseArgs } from "node:util";
import { analyseCommand } from "./analyse.js";
import { faultsCommand, netlistCommand, predictCommand } from "./circuit.js";
import { schemaCommand, validateCommand } from "./documents.js";
import { EXIT, Refusal, type Io } from "./io.js";

const USAGE = `radicula: finds the one shared cause behind several trouble codes

  radicula analyse CASE.json [--json] [--top N]          suspects with reasons, next readings
  radicula predict WIRING.json [--fault ID[@OHM]] [--state STATE] [--json]
                                                         volts at every cavity, codes set
  radicula faults WIRING.json [--json]                   every fault this wiring can have, by ID
  radicula netlist WIRING.json [--fault ID[@OHM]] [--state STATE]
                                                         the same circuit for SPICE
  radicula validate FILE                                 checks a wiring or case document
  radicula schema wiring|case                            the JSON Schema of a document

A FILE of "-" is standard input. STATE is a key position and what is unplugged:
  on   off   cranking   running   on,unplug=B9   off,unplug=B7+B9

Exit codes: 0 done · 1 the document has errors · 2 wrong use · 66 the file cannot be read
`;

/** Runs one command. @returns the exit code; wording goes to `io`, nothing is thrown for expected failures */
export function run(argv: readonly string[], io: Io): number {
  try {
    const { values, positionals } = parseArgs({
      args: [...argv], allowPositionals: true,
      options: { json: { type: "boolean" }, fault: { type: "string" }, state: { type: "string" }, top: { type: "string" }, help: { type: "boolean", short: "h" } },
    });
    const [command, file, ...rest] = positionals;
    if (values.help || command === "help" || command === undefined) {
      io.out(USAGE);
      return values.help || command === "help" ? EXIT.done : EXIT.usage;
    }
    if (file === undefined || rest.length) throw new Refusal(EXIT.usage, [`radicula ${command} takes one ${command === "schema" ? "name: wiring or case" : "file"}. See radicula --help.`]);
    switch (command) {
      case "analyse": analyseCommand(file, values, io); break;
      case "predict": predictCommand(file, values, io); break;
      case "faults": faultsCommand(file, values, io); break;
      case "netlist": netlistCommand(file, values, io); break;
      case "validate": validateCommand(file, io); break;
      case "schema": schemaCommand(file, io); break;
      default: throw new Refusal(EXIT.usage, [`There is no command "${command}". See radicula --help.`]);
    }
    return EXIT.done;
  } catch (error) {
    if (error instanceof Refusal) {
      for (const line of error.lines) io.err(`${line}\n`);
      return error.exit;
    }
    if (typeof error === "object" && error !== null && "code" in error && String(error.code).startsWith("ERR_PARSE_ARGS")) {
      io.err(`${"message" in error ? String(error.message).split(". To specify")[0] : "unknown option"}\nSee radicula --help.\n`);
      return EXIT.usage;
    }
    throw error;
  }
}
