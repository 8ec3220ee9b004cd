import {
  fold,
  formatOf,
  generateFaults,
  isFound,
  learnFrom,
  lessonFactors,
  lessonOf,
  lessonWeight,
  NOTEBOOK_FORMAT,
  notebookOf,
  parseCase,
  parseJson,
  readNotebook,
  seenBefore,
  toldCodes,
  withScannedCodes,
  type Lesson,
} from "../src/index.js";
import { feedText, lessonText, seenBeforeText } from "../words/index.js";
import { accept, EXIT, loadCase, printJson, Refusal, type Io } from "./io.js";

/** Lessons of closed cases, and those of notebooks, as one notebook; the later file counts where two name one job. */
export function notebookCommand(
  files: readonly string[],
  options: { readonly find?: string | undefined; readonly json?: boolean | undefined },
  io: Io,
): void {
  const lessons = new Map<string, Lesson>();
  for (const file of files) for (const lesson of lessonsOf(file, io)) lessons.set(lesson.id, lesson);
  const list = [...lessons.values()].filter((l) => isFound(l, options.find ?? ""));
  if (options.json) printJson(io, notebookOf(list));
  else if (list.length === 0) io.out("No lesson: a case teaches something once it is closed.\n");
  else for (const l of list) io.out(`${l.closed}  ${lessonText(l)}\n`);
}

function lessonsOf(file: string, io: Io): readonly Lesson[] {
  const text = io.read(file);
  const json = parseJson(text);
  if (json.ok && formatOf(json.value) === NOTEBOOK_FORMAT) return accept(file, readNotebook(json.value)).lessons;
  const lesson = lessonOf(nameOf(file), accept(file, parseCase(text)));
  return lesson ? [lesson] : [];
}
const nameOf = (file: string) =>
  (file.split(/[\\/]/).at(-1) ?? file).replace(/(?:\.case)?\.json$/, "").slice(0, 60) || "case";

/** What earlier jobs teach a case: which are like it, and what they change; `--json` is the case with them in it. */
export function learnCommand(
  file: string,
  notebook: string,
  options: { readonly json?: boolean | undefined },
  io: Io,
): void {
  const job = loadCase(file, io);
  const lessons = lessonsOf(notebook, io);
  const folded = fold(job.entries);
  if (folded.since > 0)
    throw new Refusal(EXIT.document, [
      `${file}: lessons count until something is repaired; entry ${folded.since} comes after that.`,
    ]);
  const wiring = withScannedCodes(job.wiring, job.entries);
  const learned = learnFrom(lessons, wiring, job.entries.at(-1)?.at ?? new Date().toISOString());
  if (options.json) {
    printJson(io, { ...job, entries: [...job.entries, ...(learned ? [learned] : [])] });
    return;
  }
  const codes = toldCodes(folded).map((c) => c.code);
  const alike = seenBefore(lessons, wiring, codes).slice(0, MOST_SHOWN);
  io.out(alike.length ? "Seen before\n" : "Nothing like it in this notebook.\n");
  for (const s of alike) io.out(`  ${seenBeforeText(s)}\n`);
  if (!learned) {
    const count = lessons.filter((l) => lessonWeight(l) > 0).length;
    io.out(`\nNone of its ${count} lessons that count is of this wiring (${wiring.name}): nothing changes.\n`);
    return;
  }
  io.out(`\nWhat ${learned.lessons === 1 ? "1 job" : `${learned.lessons} jobs`} of this wiring change\n`);
  for (const f of lessonFactors(wiring, generateFaults(wiring), learned).feeds) io.out(`  ${feedText(f)}\n`);
}
const MOST_SHOWN = 10;
