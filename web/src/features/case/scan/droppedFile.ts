import { fileSort, isForeign, looksRecorded, readScan, type FileSort, type Issue, type Wiring } from "@radicula/core";
import { firstBytes } from "@/features/site/openFile";
import { decoded } from "@/ui/decoded";

/** More than any list of codes: a file this large is something else. */
const MOST_BYTES = 2_000_000;
/** So much of a file tells whether it is a recording. */
const TOLD_BY = 60_000;
/** Documents of ours, and pages, that belong elsewhere, whatever codes they name. */
const ELSEWHERE: ReadonlySet<FileSort> = new Set(["case", "wiring", "chart", "notebook", "pins", "page"]);

/**
 * Codes in a file that was dropped on a job.
 * @param wiring that of the job: it knows modules and codes
 * @returns the text for the scan box, or why nothing was taken
 */
export function codesIn(
  bytes: ArrayBuffer,
  name: string,
  wiring: Wiring,
): { readonly text: string } | { readonly issue: Issue } {
  const refused = (code: string, params: Issue["params"] = {}) => ({ issue: { code, path: [], params } });
  if (bytes.byteLength === 0) return refused("file.empty");
  if (bytes.byteLength > MOST_BYTES)
    return refused("file.too-large", { characters: bytes.byteLength, limit: MOST_BYTES });
  const sort = fileSort(firstBytes(bytes), name);
  const { text } = decoded(bytes);
  if (ELSEWHERE.has(sort) || isForeign(sort)) return refused("file.other-sort", { sort });
  if (readScan(text, wiring).codes.length === 0) return refused("scan.no-code", { text: name });
  return { text };
}

/** What a file that was dropped on a job is: codes, a recording, or neither. */
export async function droppedFile(
  file: File,
  wiring: Wiring,
): Promise<{ readonly text: string } | { readonly recording: true } | { readonly issue: Issue }> {
  const told = new Uint8Array(await file.slice(0, TOLD_BY).arrayBuffer());
  if (looksRecorded(told, file.name)) return { recording: true };
  return codesIn(await file.slice(0, MOST_BYTES + 1).arrayBuffer(), file.name, wiring);
}
