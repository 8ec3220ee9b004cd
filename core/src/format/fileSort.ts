/** What a file seems to be, told by what stands in it. Its name counts only where the content leaves it open. */
export const FILE_SORTS = [
  "case",
  "wiring",
  "chart",
  "notebook",
  "pins",
  "table",
  "zip",
  "graph",
  "netlist",
  "logbook",
  "scan",
  "picture",
  "pdf",
  "spreadsheet",
  "page",
  "other",
] as const;
export type FileSort = (typeof FILE_SORTS)[number];

/** So much of a file is looked at for its first bytes, and for what stands in it. */
const HEAD = 4000;
const LOOKED_AT = 200_000;
const CODE_LINES = 200;

/** First bytes of formats that are no text: file signatures, values from memory. */
const SIGNATURES: readonly (readonly [RegExp, FileSort])[] = [
  [/^%PDF-/, "pdf"],
  [/^(?:\u00ff\u00d8\u00ff|.PNG\r\n|GIF8[79]a|BM.{4}\0{4}|RIFF.{4}WEBP|.{4}ftyp(?:hei[cx]|mif1|avif))/su, "picture"],
  [/^PK\u0003\u0004/, "zip"],
];
const SPREADSHEET_NAME = /\.(?:xlsx?|ods|numbers)$/i;
const OLD_SPREADSHEET = /^\u00d0\u00cf\u0011\u00e0/;
const DOCUMENTS = ["case", "wiring", "chart", "notebook"] as const;
/** The head of a logbook saved as a table. */
const LOGBOOK_HEAD = /^\uFEFF?number,at,by,type,where\b/;
const TROUBLE_CODE = /\b(?:[PCBU][0-3][0-9A-F]{3}|SPN\D{0,3}\d{1,6}\D{1,8}FMI)\b/i;
/** A head that names connectors and cavities: a pin chart, not just any table. */
const CONNECTOR_WORD = /\b(?:connector|conn|plug)\b/i;
const CAVITY_WORD = /\b(?:cavity|cav|pin|terminal|position)\b/i;

/**
 * @param whole the file as text; of a file that is none, its bytes as characters 0 to 255
 * @param name its name, where it has one
 */
export function fileSort(whole: string, name = ""): FileSort {
  const text = whole.slice(0, LOOKED_AT);
  const head = text.slice(0, HEAD);
  const signed = SIGNATURES.find(([bytes]) => bytes.test(head))?.[1];
  if (OLD_SPREADSHEET.test(head) || (signed === "zip" && SPREADSHEET_NAME.test(name))) return "spreadsheet";
  if (signed) return signed;
  const begins = head.replace(/^\uFEFF/, "").trimStart();
  if (/^[{[]/.test(begins)) {
    const format = /"format"\s{0,4}:\s{0,4}"radicula\/(case|wiring|chart|notebook)"/.exec(whole)?.[1];
    return DOCUMENTS.find((d) => d === format) ?? "other";
  }
  if (/<graphml[\s>]/i.test(head)) return "graph";
  if (/^<!doctype html|^<html[\s>]/i.test(begins)) return "page";
  if (LOGBOOK_HEAD.test(head)) return "logbook";
  if (/^[ \t]{0,8}\.(?:end|op|tran|dc|ac|model|subckt|include)\b/im.test(text)) return "netlist";
  const lines = begins.split(/\r?\n/, CODE_LINES).filter((l) => l.trim() !== "");
  if (lines.length === 0) return "other";
  // a pin chart may name codes, and a scan may have a head; what most lines hold decides
  const first = lines[0] ?? "";
  if (/^#(?:connectors|parts|chart)\b/m.test(text) || (CONNECTOR_WORD.test(first) && CAVITY_WORD.test(first)))
    return "pins";
  if (lines.filter((l) => TROUBLE_CODE.test(l)).length * 2 >= lines.length) return "scan";
  return lines.some((l) => /[\t;,|]/.test(l)) ? "table" : "other";
}

/** Sorts that are neither a document nor a table of ours, whoever reads. */
const FOREIGN: ReadonlySet<FileSort> = new Set(["graph", "netlist", "logbook", "picture", "pdf", "spreadsheet", "zip"]);
export const isForeign = (sort: FileSort): boolean => FOREIGN.has(sort);
