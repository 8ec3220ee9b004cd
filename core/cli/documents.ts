import { jsonSchema, parseCase, parseJson, parseWiring } from "../src/index.js";
import { EXIT, issueLines, printJson, Refusal, type Io } from "./io.js";

export function validateCommand(file: string, io: Io): void {
  const text = io.read(file);
  const json = parseJson(text);
  const isCase = json.ok && typeof json.value === "object" && json.value !== null && "format" in json.value && json.value.format === "radicula/case";
  const result = isCase ? parseCase(text) : parseWiring(text);
  if (!result.ok) throw new Refusal(EXIT.document, issueLines(file, result.issues));
  const wiring = "wiring" in result.value ? result.value.wiring : result.value;
  const entries = "entries" in result.value ? `, ${result.value.entries.length} logbook entries` : "";
  io.out(`${file}: a ${isCase ? "case" : "wiring"} document in order: ${wiring.connectors.length} connectors, ${wiring.devices.length} devices, ${wiring.wires.length} wires, ${wiring.codes.length} codes${entries}.\n`);
}

export function schemaCommand(name: string, io: Io): void {
  if (name !== "wiring" && name !== "case") throw new Refusal(EXIT.usage, [`There is no schema "${name}"; known: wiring, case.`]);
  printJson(io, jsonSchema(name));
}
