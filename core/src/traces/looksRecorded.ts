import { fileSort } from "../format/fileSort.js";
import { isWave } from "./isWave.js";
import { isDump } from "./readDump.js";
import { TableReader } from "./readTable.js";

/** Rows of numbers by which a table is taken for a recording. Judgement. */
const LEAST_ROWS = 8;
/** What rows of numbers are written with, `OL` and `NaN` among it. */
const NUMBERS = /^[\s\d.,;:|+\-eE"OLNan]*$/;

/**
 * Whether a file seems to be a recording, by how it begins: sound, logic, our own form, or a table of numbers and
 * little else.
 */
export function looksRecorded(head: Uint8Array, name = ""): boolean {
  const text = new TextDecoder().decode(head);
  if (isWave(head) || isDump(text) || /^\s*\{\s*"format"\s*:\s*"radicula\/recording"/.test(text)) return true;
  if (/^\s*[{[]/.test(text) || fileSort(text, name) === "scan") return false;
  const lines = text.split(/\r?\n/, 400);
  const rows = lines.filter((l) => /\d/.test(l) && NUMBERS.test(l));
  if (rows.length < LEAST_ROWS || rows.length <= lines.length / 2) return false;
  const table = new TableReader();
  table.push(head);
  return table.end().ok;
}
