import { z } from "zod";
import { fail, issue, ok, type Issue, type Result } from "../issues/issue.js";
import { fileSort, isForeign } from "./fileSort.js";
import { cutText } from "../units/cutText.js";

/** Largest file taken, in characters: above it the file is refused before it is read as JSON. */
export const MAX_CHARACTERS = 8_000_000;
/** How many issues one file reports at most. */
export const MAX_ISSUES = 50;

/**
 * JSON text to a value, or one issue: `file.empty`, `.too-large`, `.other-sort` with what it seems to be, `.cut-short`
 * or `.not-json` with line and column.
 */
export function parseJson(text: string): Result<unknown> {
  if (text.length > MAX_CHARACTERS)
    return fail([issue("file.too-large", [], { characters: text.length, limit: MAX_CHARACTERS })]);
  const body = text.replace(/^\uFEFF/, "");
  if (body.trim() === "") return fail([issue("file.empty")]);
  try {
    return ok(JSON.parse(body) as unknown);
  } catch (error) {
    const sort = fileSort(body);
    if (isForeign(sort) || sort === "scan" || sort === "page") return fail([issue("file.other-sort", [], { sort })]);
    const message = error instanceof Error ? error.message : "";
    // engines word this differently and leave the place out of short texts
    const stated = /position (\d+)/.exec(message)?.[1];
    const cut =
      /unterminated|unexpected end|end of data/i.test(message) || Number(stated ?? -1) >= body.trimEnd().length;
    const position = stated !== undefined ? Number(stated) : cut ? body.length : Math.max(0, body.search(/\S/));
    const before = body.slice(0, position).split("\n");
    return fail([
      issue(cut ? "file.cut-short" : "file.not-json", [], {
        line: before.length,
        column: (before.at(-1)?.length ?? 0) + 1,
      }),
    ]);
  }
}

/** Checks format name and version first, then the schema; reports every issue found, `MAX_ISSUES` at most. */
export function readSchema<T>(value: unknown, schema: z.ZodType<T>, format: string): Result<T> {
  const head = z.looseObject({ format: z.unknown(), version: z.unknown() }).safeParse(value);
  if (!head.success || Array.isArray(value)) return fail([issue("file.not-an-object", [], { format })]);
  if (head.data.format !== format)
    return fail([issue("file.wrong-format", ["format"], { expected: format, got: shown(head.data.format) })]);
  if (head.data.version !== 1)
    return fail([issue("file.wrong-version", ["version"], { expected: 1, got: shown(head.data.version) })]);
  const parsed = schema.safeParse(value);
  return parsed.success ? ok(parsed.data) : fail(flatten(parsed.error.issues).slice(0, MAX_ISSUES));
}

const shown = (value: unknown) => cutText(JSON.stringify(value) ?? "nothing", 60);

function flatten(issues: readonly z.core.$ZodIssue[]): Issue[] {
  return issues.map((i) => {
    const path = i.path.map((p) => (typeof p === "symbol" ? String(p) : p));
    if (i.code === "invalid_union" && "discriminator" in i && i.discriminator) {
      const options = "options" in i && Array.isArray(i.options) ? i.options.map(String) : [];
      return issue(`schema.unknown-${String(i.discriminator)}`, path, options.length ? { known: options } : {});
    }
    if (i.code === "unrecognized_keys")
      return issue("schema.unknown-field", [...path, i.keys[0] ?? ""], { fields: i.keys });
    return issue(`schema.${i.code.replaceAll("_", "-")}`, path, { message: i.message });
  });
}
