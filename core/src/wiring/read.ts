import { fail, type Result } from "../issues/issue.js";
import { MAX_ISSUES, parseJson, readSchema } from "../format/json.js";
import { Wiring, WIRING_FORMAT } from "../format/wiring.js";
import { checkWiring } from "./check.js";

/**
 * Reads a wiring document from JSON text: syntax, version, schema, then sense (see `checkWiring`).
 * @returns the document with its defaults filled in, or every issue found (50 at most) with its place
 */
export function parseWiring(text: string): Result<Wiring> {
  const json = parseJson(text);
  return json.ok ? readWiring(json.value) : json;
}

/** As `parseWiring`, for JSON already read. */
export function readWiring(value: unknown): Result<Wiring> {
  const shaped = readSchema(value, Wiring, WIRING_FORMAT);
  if (!shaped.ok) return shaped;
  const issues = checkWiring(shaped.value);
  return issues.length ? fail(issues.slice(0, MAX_ISSUES)) : shaped;
}
