import { readFileSync, statSync } from "node:fs";
import { MAX_CHARACTERS } from "../src/index.js";
import { EXIT, Refusal } from "./io.js";
import { run } from "./main.js";

/** UTF-8 takes up to four bytes a character; anything larger cannot pass and is not even opened. */
const MAX_BYTES = 4 * MAX_CHARACTERS;

/** Larger than any recording that fits in memory. */
const MOST_RECORDED = 2_000_000_000;

function readFile(file: string, most: number): Buffer {
  try {
    if (file === "-") return readFileSync(0);
    if (statSync(file).size > most)
      throw new Refusal(EXIT.document, [`${file}: too large: ${most} bytes are taken at most.`]);
    return readFileSync(file);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(EXIT.noInput, [
      `${file}: cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    ]);
  }
}

process.exitCode = run(process.argv.slice(2), {
  out: (text) => {
    process.stdout.write(text);
  },
  err: (text) => {
    process.stderr.write(text);
  },
  bytes: (content) => {
    content.then(
      (all) => process.stdout.write(all),
      (error: unknown) => {
        process.stderr.write(`${String(error)}\n`);
        process.exitCode = EXIT.document;
      },
    );
  },
  read: (file) => readFile(file, MAX_BYTES).toString("utf8"),
  readBytes: (file) => readFile(file, MOST_RECORDED),
});
// a reader that stops early (`radicula … | head`) is no failure
process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
});
