import Papa from "papaparse";
import type { ScannedCode } from "../format/case.js";
import type { Wiring } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { decodeReply, hexBytes, type CodeStatus } from "./decode.js";
import { genericTitle } from "./generic.js";
import { cutText } from "../units/cutText.js";

/** A pasted scan, read: codes, and for every line what became of it. */
export interface ScanRead {
  readonly codes: readonly ScannedCode[];
  /** modules named as scanned, also those that gave no code */
  readonly modules: readonly string[];
  /** lines not taken, with the line in the path: `scan.no-code`, `scan.no-module`, `scan.reply` */
  readonly issues: readonly Issue[];
}
/** Most lines, longest line and most codes taken from one paste: guards against a wrong file. Judgement. */
const MOST_LINES = 2_000;
const LONGEST_LINE = 600;
const MOST_CODES = 500;

const STATUS_WORDS: readonly (readonly [RegExp, ScannedCode["status"]])[] = [
  [/\b(not run|incomplete|not (yet )?(tested|completed)|not ready)\b/i, "notRun"],
  [/\b(not set|absent|passed|pass|no fault|not present\s*$)\b/i, "absent"],
  [/\b(intermittent|sporadic)\b/i, "intermittent"],
  [/\bpending\b/i, "pending"],
  [/\b(stored|history|historic|memory|permanent|inactive|past|previously active|not present)\b/i, "stored"],
  [/\b(active|current|present|confirmed|failing)\b/i, "active"],
];
const CODE = /\b([PCBU][0-3][0-9A-F]{3})(?:[-: ]([0-9A-F]{2})\b(?![ :]*[0-9A-F]{2}\b))?/i;
const SPN = /\bSPN\D{0,3}(\d{1,6})\D{1,8}FMI\D{0,3}(\d{1,2})\b/i;
const SHORT_SPN = /^\s*(\d{2,6})\s*[/.-]\s*(\d{1,2})\b/;
const TIME =
  /\b(\d{4}-\d\d-\d\d[T ]\d\d:\d\d(?::\d\d)?Z?|\d{1,2}:\d\d(?::\d\d)?|\d+(?:[.,]\d+)?\s*(?:h|hours|km|mi|x|times)\b)/i;

/** The codes of a line that holds nothing else, however they are parted; none where there is anything beside them. */
function codesAlone(line: string): readonly string[] {
  const words = line
    .trim()
    .split(/[\s,;|]+/)
    .filter(Boolean);
  return words.every((w) => CODE_ALONE.test(w)) ? words : [];
}
const CODE_ALONE = /^[PCBU][0-3][0-9A-F]{3}(?:-[0-9A-F]{2})?$/i;

/**
 * Reads what a scan tool shows, pasted in any layout: one code a line with words around it, several codes in a line
 * with none, a table with a header, hex replies (43 47 4A, 59 02, DM1), SPN and FMI. A line that only names a module is
 * a heading for the lines below it.
 * A code word the wiring knows but that looks like none of these (a shop's own) is found by its name.
 * @param module the module meant where a line names none
 */
export function readScan(text: string, wiring: Wiring, module?: string): ScanRead {
  const issues: Issue[] = [];
  const codes = new Map<string, ScannedCode>();
  const modules = new Set<string>();
  const finder = new Finder(wiring);
  const only = finder.modules.length === 1 ? finder.modules[0] : undefined;
  let under = module ?? only;
  const add = (code: ScannedCode) => {
    if (codes.size < MOST_CODES) codes.set(`${code.module} ${code.code}`, code);
    modules.add(code.module);
  };
  const lines = text
    .replace(/^\uFEFF/, "")
    .split(/\r\n|\r|\n/)
    .slice(0, MOST_LINES);
  const table = tableOf(lines);
  const take = (raw: string, i: number): void => {
    const line = raw.trim().slice(0, LONGEST_LINE);
    if (!/[\p{L}\p{N}]/u.test(line) || (table && i === table.header)) return;
    const named = finder.module(table?.cell(i, "module") ?? line);
    const hex = hexReply(line, finder);
    if (hex) {
      const at = named ?? under;
      if (!at) {
        issues.push(issue("scan.no-module", ["lines", i], { text: cutText(line, 60) }));
        return;
      }
      const reply = decodeReply(hex);
      if (!reply.ok) {
        issues.push(...reply.issues.map((x) => ({ ...x, path: ["lines", i] })));
        return;
      }
      modules.add(at);
      for (const c of reply.value)
        add({
          module: at,
          code: c.code,
          status: statusOf(c.status),
          ...finder.known(at, c.code),
          ...(c.failureTypeByte === undefined
            ? {}
            : { failureType: c.failureTypeByte.toString(16).toUpperCase().padStart(2, "0") }),
          ...(c.occurrences ? { seen: `${c.occurrences} times` } : {}),
        });
      return;
    }
    const found = finder.code(table?.cell(i, "code") ?? line);
    if (!found) {
      if (named) {
        under = named;
        modules.add(named);
      } else issues.push(issue("scan.no-code", ["lines", i], { text: cutText(line, 60) }));
      return;
    }
    const at = named ?? under;
    if (!at) {
      issues.push(issue("scan.no-module", ["lines", i], { text: cutText(line, 60) }));
      return;
    }
    const rest = line.replace(found.text, " ");
    const status = STATUS_WORDS.find(([words]) => words.test(table?.cell(i, "status") ?? rest))?.[1] ?? "active";
    const about = finder.part(rest, at);
    const seen = (table?.cell(i, "seen") ?? TIME.exec(rest)?.[1])?.trim();
    const title =
      finder.known(at, found.code).title ??
      clean(table?.cell(i, "title") ?? rest, [at, about, seen]) ??
      genericTitle(found.code);
    add({
      module: at,
      code: found.code,
      status,
      ...(title ? { title } : {}),
      ...(about ? { about } : finder.known(at, found.code).about ? { about: finder.known(at, found.code).about } : {}),
      ...(found.failureType ? { failureType: found.failureType } : {}),
      ...(seen ? { seen: seen.slice(0, 60) } : {}),
    });
  };
  lines.forEach((raw, i) => {
    const several = table ? [] : codesAlone(raw);
    for (const line of several.length > 1 ? several : [raw]) take(line, i);
  });
  return { codes: [...codes.values()], modules: [...modules], issues };
}

/** What a reply's status means here; "not judged since it was cleared" is not run. */
const statusOf = (s: CodeStatus): ScannedCode["status"] => s;

/** A line that is nothing but bytes (a module's name and a colon may stand before them). */
function hexReply(line: string, finder: Finder): string | undefined {
  const bare = line
    .replace(/^([\p{L}\p{N}_+/-]+)\s*[:>]\s*/u, (all, name: string) => (finder.module(name) ? "" : all))
    .replace(/^(DM1|DM2)\s*[:=]?\s*/i, "");
  if (
    !/^(0x)?[0-9A-F]{2}([\s,]*(0x)?[0-9A-F]{2}){2,}$/i.test(bare) ||
    (CODE.exec(bare)?.index === 0 && /^[PCBU]/i.test(bare))
  )
    return undefined;
  const bytes = hexBytes(bare);
  return bytes.ok && bytes.value.length >= 3 ? bare : undefined;
}

class Finder {
  readonly modules: readonly string[];
  private readonly own: readonly string[];
  private readonly devices: ReadonlyMap<string, string>;
  private readonly byName: readonly (readonly [string, string])[];
  private readonly codes: ReadonlyMap<string, { title?: string; about?: string }>;
  constructor(wiring: Wiring) {
    const modules = wiring.devices.filter((d) => d.kind === "module");
    this.modules = modules.map((d) => d.id);
    this.byName = modules.flatMap((d) => (d.name ? [[d.name.toLowerCase(), d.id] as const] : []));
    this.devices = new Map(wiring.devices.filter((d) => "pins" in d).map((d) => [d.id.toUpperCase(), d.id]));
    this.own = [...new Set(wiring.codes.map((c) => c.id))]
      .filter((id) => !CODE.test(id) && !SPN.test(id))
      .sort((a, b) => b.length - a.length);
    this.codes = new Map(
      wiring.codes.map((c) => [
        `${c.module} ${c.id}`,
        { ...(c.title ? { title: c.title } : {}), ...(c.about ? { about: c.about } : {}) },
      ]),
    );
  }
  known(module: string, code: string) {
    return this.codes.get(`${module} ${code}`) ?? {};
  }
  module(text: string): string | undefined {
    const words = tokens(text);
    return (
      this.modules.find((m) => words.includes(m.toUpperCase())) ??
      this.byName.find(([name]) => text.toLowerCase().includes(name))?.[1]
    );
  }
  /** a part of the wiring that the line names, other than its module */
  part(text: string, module: string): string | undefined {
    return tokens(text)
      .map((t) => this.devices.get(t))
      .find((id) => id !== undefined && id !== module && !this.modules.includes(id));
  }
  code(text: string): { code: string; text: string; failureType?: string } | undefined {
    const spn = SPN.exec(text) ?? SHORT_SPN.exec(text);
    if (spn) return { code: `SPN ${Number(spn[1])} FMI ${Number(spn[2])}`, text: spn[0] };
    const own = this.own.find(
      (id) => tokens(text).includes(id.toUpperCase()) || text.toUpperCase().includes(id.toUpperCase()),
    );
    if (own)
      return {
        code: own,
        text: text.slice(
          text.toUpperCase().indexOf(own.toUpperCase()),
          text.toUpperCase().indexOf(own.toUpperCase()) + own.length,
        ),
      };
    const m = CODE.exec(text);
    // "P1100 B1": two hex digits after a blank that name a part are the part
    if (m?.[2] && !/[-:]/.test(m[0]) && this.devices.has(m[2].toUpperCase()))
      return { code: m[1]!.toUpperCase(), text: m[1]! };
    return m
      ? { code: m[1]!.toUpperCase(), text: m[0], ...(m[2] ? { failureType: m[2].toUpperCase() } : {}) }
      : undefined;
  }
}
const tokens = (text: string) => text.toUpperCase().split(/[^\p{L}\p{N}_+/-]+/u);

/** What is left of a line once code, status, module and part are out of it, as a text. */
function clean(text: string, out: readonly (string | undefined)[]): string | undefined {
  let t = ` ${text} `;
  for (const o of out)
    if (o)
      t = t.replace(
        new RegExp(`(?<=[^\\p{L}\\p{N}])${o.replace(/[.*+?^${}()|[\]\\/]/g, "\\$&")}(?=[^\\p{L}\\p{N}])`, "iu"),
        " ",
      );
  for (const [words] of STATUS_WORDS) t = t.replace(words, " ");
  t = t
    .replace(/[\t;|"]+/g, " ")
    .replace(/\s{2,}/g, " ")
    .replace(/^[\s,:.()[\]–-]+|[\s,:.()[\]–-]+$/g, "");
  return /\p{L}{2}/u.test(t) ? t.slice(0, 400) : undefined;
}

const HEADERS: Readonly<Record<string, RegExp>> = {
  code: /^(code|dtc|fault( code)?|trouble code|number)$/i,
  module: /^(module|unit|ecu|controller|system|source)$/i,
  status: /^(status|state)$/i,
  title: /^(text|title|description|meaning|name)$/i,
  seen: /^(time|date|count|occurrences|hours|seen|km)$/i,
};
/** A table with a header that names its columns. */
function tableOf(
  lines: readonly string[],
): { readonly header: number; cell(line: number, column: string): string | undefined } | undefined {
  const header = lines.findIndex((l) => l.trim() !== "");
  if (header < 0 || !/[,;\t|]/.test(lines[header]!)) return undefined;
  const delimiter = Papa.parse<string[]>(lines[header]!, { preview: 1 }).meta.delimiter;
  const heads = Papa.parse<string[]>(lines[header]!, { delimiter }).data[0]?.map((h) => h.trim()) ?? [];
  const columns = new Map(Object.entries(HEADERS).map(([key, words]) => [key, heads.findIndex((h) => words.test(h))]));
  if ((columns.get("code") ?? -1) < 0) return undefined;
  return {
    header,
    cell: (line, column) => {
      const at = columns.get(column) ?? -1;
      const text = at < 0 ? undefined : Papa.parse<string[]>(lines[line] ?? "", { delimiter }).data[0]?.[at]?.trim();
      return text === "" ? undefined : text;
    },
  };
}
