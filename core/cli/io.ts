import {
  type Entry,
  formatOf,
  isPoint,
  KeyState,
  parseCase,
  parseJson,
  readWiringOrChart,
  type Case,
  type Issue,
  type Result,
  State,
  type Wiring,
} from "../src/index.js";
import { issueText, placeOf } from "../words/index.js";

/** Where a command reads and writes: files and streams for real, strings in tests. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  /** what is no text: written to standard output when it is done */
  bytes(content: Promise<Uint8Array>): void;
  read(file: string): string;
  /** a file that is no text, or too long for one */
  readBytes(file: string): Uint8Array;
}

export const EXIT = { done: 0, document: 1, usage: 2, noInput: 66 } as const;

/** An expected failure: lines for standard error, and the exit code. */
export class Refusal extends Error {
  constructor(
    readonly exit: number,
    readonly lines: readonly string[],
  ) {
    super(lines[0]);
  }
}

export const issueLines = (file: string, issues: readonly Issue[]) =>
  issues.map((i) => {
    const place = placeOf(i);
    return `${file}${place ? `: ${place}` : ""}: ${issueText(i)}`;
  });

export function accept<T>(file: string, result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Refusal(EXIT.document, issueLines(file, result.issues));
}

export const loadCase = (file: string, io: Io): Case => accept(file, parseCase(io.read(file)));

/** A wiring document, what a pin chart says, or the wiring of a case. */
export function loadWiring(file: string, io: Io): Wiring {
  return loadMachine(file, io).wiring;
}
/** A wiring, what a pin chart says, or the wiring of a case with the case's logbook. */
export function loadMachine(file: string, io: Io): { readonly wiring: Wiring; readonly entries: readonly Entry[] } {
  const text = io.read(file);
  const json = parseJson(text);
  if (json.ok && formatOf(json.value) === "radicula/case") return accept(file, parseCase(text));
  return { wiring: accept(file, json.ok ? readWiringOrChart(json.value) : json), entries: [] };
}

/** Reads `on`, `off,unplug=B7+B9,pull=F1`, or a state written as JSON (see `radicula schema case`). */
export function readState(text: string | undefined, wiring: Wiring): State {
  const state = text?.trim().startsWith("{") ? jsonState(text) : shortState(text ?? "on");
  const refuse = (line: string) => {
    throw new Refusal(EXIT.usage, [`--state: ${line}`]);
  };
  const known = (list: readonly string[] | undefined, what: string, has: (id: string) => boolean) => {
    for (const id of list ?? []) if (!has(id)) refuse(`there is no ${what} "${id}" in this wiring.`);
  };
  const device = (id: string, kinds: readonly string[]) =>
    wiring.devices.some((d) => d.id === id && kinds.includes(d.kind));
  known(state.unplugged, "connector", (id) => wiring.connectors.some((x) => x.id === id));
  known([...(state.pulled ?? []), ...(state.breakers ?? [])], "fuse", (id) => device(id, ["fuse", "breaker"]));
  known(state.asleep, "module", (id) => device(id, ["module"]));
  known(Object.keys(state.stimulus ?? {}), "device", (id) => wiring.devices.some((d) => d.id === id));
  known(
    [...(state.jumpers ?? []), ...(state.loads ?? [])].flatMap((x) => [x.from, x.to]),
    "point",
    (p) => isPoint(wiring, p),
  );
  return state;
}

const LISTS: Readonly<Record<string, "unplugged" | "pulled" | "breakers" | "asleep">> = {
  unplug: "unplugged",
  pull: "pulled",
  breaker: "breakers",
  asleep: "asleep",
};

function shortState(text: string): State {
  const [keyText = "on", ...more] = text.split(",");
  const key = KeyState.safeParse(keyText);
  if (!key.success)
    throw new Refusal(EXIT.usage, [
      `--state: "${keyText}" is not a key position; known: ${KeyState.options.join(", ")}.`,
    ]);
  const lists: { unplugged: string[]; pulled?: string[]; breakers?: string[]; asleep?: string[] } = { unplugged: [] };
  for (const part of more) {
    const [word = "", ids] = part.split("=");
    const field = LISTS[word];
    if (!field || !ids)
      throw new Refusal(EXIT.usage, [
        `--state: "${part}" is not understood; write unplug=B7+B9, pull=F1, breaker=F1 or asleep=A1, or give ` +
          "the state as JSON.",
      ]);
    lists[field] = [...(lists[field] ?? []), ...ids.split("+")];
  }
  return { key: key.data, ...lists };
}

function jsonState(text: string): State {
  const json = parseJson(text);
  const parsed = json.ok ? State.safeParse(json.value) : undefined;
  if (parsed?.success) return parsed.data;
  throw new Refusal(EXIT.usage, [
    `--state: not a machine state${
      parsed
        ? `: ${parsed.error.issues
            .slice(0, 3)
            .map((i) => `${i.path.join(".")} ${i.message}`)
            .join("; ")}`
        : ", nor JSON"
    }. See radicula schema case.`,
  ]);
}

/** JSON has no Infinity and no NaN: an open circuit is "OL", what proves nothing is null. */
export const jsonNumber = (value: number): number | "OL" | null =>
  value === Infinity ? "OL" : Number.isFinite(value) ? Number(value.toPrecision(12)) : null;
export const printJson = (io: Io, value: unknown) => io.out(`${JSON.stringify(value, null, 2)}\n`);
