import { cutText, fileSort, type FileSort, type Issue } from "@radicula/core";
import { decoded } from "@/ui/decoded";
import { Made, post, postAs, type Posted } from "@/ui/send";

/** A zip may be larger than the text in it; the server has limits for both. */
const MOST_BYTES = 60_000_000;
const LONGEST_NAME = 120;
/** So much of a file is read to tell what it is. */
const TOLD_BY = 200_000;

export type Opened =
  { readonly ok: true; readonly path: string } | { readonly ok: false; readonly issues: readonly Issue[] };
const refused = (code: string, params: Issue["params"] = {}): Opened => ({
  ok: false,
  issues: [{ code, path: [], params }],
});

/**
 * Opens a file of any sort of ours, wherever it was dropped: a job becomes a job, a pin chart a wiring. A wiring
 * becomes what the page is for. What cannot be opened is told by what it seems to be, and where it belongs.
 * @param signal stops it; nothing is saved then
 * @returns the page to go to, or why nothing was saved
 */
export async function openFile(file: File, asked: "job" | "wiring", signal: AbortSignal): Promise<Opened> {
  if (file.size > MOST_BYTES) return refused("file.too-large", { characters: file.size, limit: MOST_BYTES });
  if (file.size === 0) return refused("file.empty");
  const bytes = await file.arrayBuffer();
  const sort = fileSort(firstBytes(bytes), file.name);
  if (sort === "zip") return to("job", await postAs("application/zip", "/api/jobs", file, Made, signal));
  // any table may be a pin chart where wirings are; on the page of jobs it has to look like one
  if (NOT_OPENED.has(sort) || (sort === "table" && asked === "job")) return refused("file.other-sort", { sort });
  const { text, isGuessed } = decoded(bytes);
  if (/^\s*[{[]/.test(text.replace(/^\uFEFF/, ""))) {
    const wanted = sort === "case" ? "job" : sort === "chart" ? "wiring" : asked;
    return to(
      wanted,
      await postAs("application/json", wanted === "job" ? "/api/jobs" : "/api/wirings", text, Made, signal),
    );
  }
  // a text that is nothing of ours: the server says what it misses
  if (sort !== "pins" && asked === "job" && !isGuessed)
    return to("job", await postAs("application/json", "/api/jobs", text, Made, signal));
  const name = cutText(file.name.replace(/\.[^.]*$/, ""), LONGEST_NAME);
  return to("wiring", await post("/api/wirings", { csv: text, name }, Made, signal));
}
const NOT_OPENED: ReadonlySet<FileSort> = new Set([
  "notebook",
  "graph",
  "netlist",
  "logbook",
  "scan",
  "picture",
  "pdf",
  "spreadsheet",
  "page",
]);
const to = (kind: "job" | "wiring", made: Posted<{ id: string }>): Opened =>
  made.ok ? { ok: true, path: `/${kind}/${made.body.id}` } : made;

/** The beginning of a file, a character for each byte, so that signatures can be told. */
export function firstBytes(bytes: ArrayBuffer): string {
  let text = "";
  for (const byte of new Uint8Array(bytes.slice(0, TOLD_BY))) text += String.fromCharCode(byte);
  return text;
}
