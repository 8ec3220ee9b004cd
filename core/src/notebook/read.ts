import { MAX_ISSUES, parseJson, readSchema } from "../format/json.js";
import { Notebook, NOTEBOOK_FORMAT, type Lesson } from "../format/notebook.js";
import { fail, issue, type Result } from "../issues/issue.js";

/** Reads a notebook from JSON text. @returns its lessons, or every issue found with its place */
export function parseNotebook(text: string): Result<Notebook> {
  const json = parseJson(text);
  return json.ok ? readNotebook(json.value) : json;
}

/** As `parseNotebook`, for JSON already read. */
export function readNotebook(value: unknown): Result<Notebook> {
  const read = readSchema(value, Notebook, NOTEBOOK_FORMAT);
  if (!read.ok) return read;
  const seen = new Set<string>();
  const twice = read.value.lessons.flatMap(({ id }, i) =>
    seen.has(id) ? [issue("notebook.twice", ["lessons", i, "id"], { id })] : (seen.add(id), []),
  );
  return twice.length ? fail(twice.slice(0, MAX_ISSUES)) : read;
}

/** Lessons as a file. */
export const notebookOf = (lessons: readonly Lesson[]): Notebook => ({
  format: NOTEBOOK_FORMAT,
  version: 1,
  lessons: [...lessons],
});
