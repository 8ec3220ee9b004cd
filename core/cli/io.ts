import { KeyState, parseCase, parseWiring, parseJson, readWiring, type Case, type Issue, type Result, type Wiring } from "../src/index.js";
import { issueText, placeOf } from "../words/index.js";

/** Where a command reads and writes: files and streams for real, strings in tests. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  read(file: string): string;
}

export const EXIT = { done: 0, document: 1, usage: 2, noInput: 66 } as const;

/** An expected failure: lines for standard error, and the exit code. */
export class Refusal extends Error {
  constructor(readonly exit: number, readonly lines: readonly string[]) { super(lines[0]); }
}

export const issueLines = (file: string, issues: readonly Issue[]) => issues.map((i) => {
  const place = placeOf(i);
  return `${file}${place ? `: ${place}` : ""}: ${issueText(i)}`;
});

function accept<T>(file: string, result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Refusal(EXIT.document, issueLines(file, result.issues));
}

export const loadCase = (file: string, io: Io): Case => accept(file, parseCase(io.read(file)));

/** A wiring document, or the wiring of a case. */
export function loadWiring(file: string, io: Io): Wiring {
  const text = io.read(file);
  const json = parseJson(text);
  const format = json.ok && typeof json.value === "object" && json.value !== null && "format" in json.value ? json.value.format : undefined;
  if (format === "radicula/case") return accept(file, parseCase(text)).wiring;
  return accept(file, json.ok ? readWiring(json.value) : parseWiring(text));
}

/** Reads `on`, `off,unplug=B7+B9`. */
export function readState(text: string | undefined, wiring: Wiring): { key: KeyState; unplugged: string[] } {
  const [keyText = "on", ...more] = (text ?? "on").split(",");
  const key = KeyState.safeParse(keyText);
  if (!key.success) throw new Refusal(EXIT.usage, [`--state: "${keyText}" is not a key position; known: ${KeyState.options.join(", ")}.`]);
  const unplugged: string[] = [];
  for (const part of more) {
    if (!part.startsWith("unplug=")) throw new Refusal(EXIT.usage, [`--state: "${part}" is not understood; write unplug=B7+B9.`]);
    unplugged.push(...part.slice("unplug=".length).split("+"));
  }
  for (const c of unplugged) if (!wiring.connectors.some((x) => x.id === c)) throw new Refusal(EXIT.usage, [`--state: there is no connector "${c}" in this wiring.`]);
  return { key: key.data, unplugged };
}

/** JSON has no Infinity and no NaN: an open circuit is "OL", what proves nothing is null. */
export const jsonNumber = (value: number): number | "OL" | null => (value === Infinity ? "OL" : Number.isFinite(value) ? Number(value.toPrecision(12)) : null);
export const printJson = (io: Io, value: unknown) => io.out(`${JSON.stringify(value, null, 2)}\n`);
