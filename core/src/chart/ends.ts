import type { Chart } from "../format/chart.js";
import { Device } from "../format/wiring.js";
import { issue, type Issue } from "../issues/issue.js";
import { STAR_KINDS, TERMINALS } from "../wiring/kinds.js";
import { parseFunction } from "./functions.js";
import { cutText } from "../units/cutText.js";

type Kind = Device["kind"];
/**
 * One end of a wire as typed: a thing and, where it has several, which cavity or terminal, and the side of an in-line
 * cavity.
 */
export interface End {
  readonly id: string;
  readonly cavity: string;
  readonly side?: "a" | "b";
}
/** One row that says something: its own end, and the ends it goes to. */
export interface ReadRow {
  readonly index: number;
  readonly own: End;
  readonly to: readonly End[];
  readonly part: string;
}

export const KINDS: ReadonlySet<string> = new Set(Device.options.map((o) => o.shape.kind.value));
const NAME = /^[\p{L}\p{N}][\p{L}\p{N}_+/-]{0,39}$/u;
export const endName = (e: End): string =>
  e.cavity === "" ? e.id : `${e.id}:${e.cavity}${e.side ? `.${e.side}` : ""}`;

/** Kinds by the first letters of a name, where no one says (common practice, no source). */
const PREFIX: readonly (readonly [RegExp, Kind])[] = [
  [/^(GND|GROUND|CHASSIS|FRAME|EARTH|G\d|E\d)/i, "ground"],
  [/^(BAT|BATT|BATTERY)/i, "battery"],
  [/^ALT/i, "alternator"],
  [/^(F|FU|FUSE)\d/i, "fuse"],
  [/^(CB|BRK)\d/i, "breaker"],
  [/^(K|SW|IGN|KEY)\d*$/i, "switch"],
  [/^(D|DIODE)\d/i, "diode"],
  [/^(S|SP|SPL|J|JC)\d/i, "splice"],
];
const IN = /^(in|1|a|line|feed|30|\+|anode)$/i;
const OUT = /^(out|2|b|load|15|87|-|cathode)$/i;

/**
 * Which thing each name of a chart is: a connector with cavities, or a part without (splice, ground) or with terminals
 * (fuse, battery).
 */
export class Names {
  private readonly stated = new Map<string, Kind>();
  private readonly cavities = new Map<string, Set<string>>();
  private readonly known = new Map<string, string>();
  readonly guessed = new Set<string>();
  private readonly kinds = new Map<string, Kind | undefined>();

  constructor(chart: Chart, ends: readonly End[]) {
    for (const p of chart.parts) {
      if (KINDS.has(p.kind.trim())) this.stated.set(p.id.trim(), p.kind.trim() as Kind);
      if (p.id.trim()) this.known.set(p.id.trim().toUpperCase(), p.id.trim());
    }
    for (const e of ends) {
      if (!this.known.has(e.id.toUpperCase())) this.known.set(e.id.toUpperCase(), e.id);
      const list = this.cavities.get(this.spelt(e.id)) ?? new Set<string>();
      if (e.cavity) list.add(e.cavity);
      this.cavities.set(this.spelt(e.id), list);
    }
  }
  /** one spelling for a name typed in small and in capital letters */
  spelt(id: string): string {
    return this.known.get(id.toUpperCase()) ?? id;
  }
  all(): Iterable<string> {
    return this.cavities.keys();
  }
  statedKind(id: string): Kind | undefined {
    return this.stated.get(id);
  }

  /** the kind of a part without cavities; undefined for a connector */
  bare(id: string): Kind | undefined {
    if (this.kinds.has(id)) return this.kinds.get(id);
    const kind = this.findBare(id);
    this.kinds.set(id, kind);
    return kind;
  }
  private findBare(id: string): Kind | undefined {
    const stated = this.stated.get(id);
    if (stated) return STAR_KINDS.has(stated) || TERMINALS[stated] ? stated : undefined;
    const cavities = [...(this.cavities.get(id) ?? [])];
    const byName = PREFIX.find(([words]) => words.test(id))?.[1];
    const only = (...list: string[]) => cavities.length > 0 && cavities.every((c) => list.includes(c.toLowerCase()));
    let kind: Kind | undefined;
    if (cavities.length === 0) kind = byName ?? "splice";
    else if (only("in", "out")) kind = byName && TERMINALS[byName]?.[0] === "in" ? byName : "fuse";
    else if (only("+", "-")) kind = byName === "alternator" ? "alternator" : "battery";
    else if (only("anode", "cathode")) kind = "diode";
    else if ((byName === "fuse" || byName === "breaker") && cavities.every((c) => IN.test(c) || OUT.test(c)))
      kind = byName;
    if (kind) this.guessed.add(id);
    return kind;
  }
  /** `in`, `out`, `+`, `-`, … for what was typed; undefined where it is none of them */
  terminal(id: string, text: string): string | undefined {
    const list = TERMINALS[this.bare(id) ?? "splice"];
    return (
      list?.find((t) => t === text.toLowerCase()) ??
      (list && IN.test(text) ? list[0] : list && OUT.test(text) ? list[1] : undefined)
    );
  }
}

/**
 * Reads every row of a chart: an empty connector means the one above, an empty line says nothing.
 * Issues carry the row in their path: `chart.no-connector`, `chart.bad-name`, `chart.bad-goes-to`.
 */
export function readRows(chart: Chart): { readonly rows: readonly ReadRow[]; readonly issues: readonly Issue[] } {
  const issues: Issue[] = [];
  const rows: ReadRow[] = [];
  let above = "";
  let part = "";
  chart.rows.forEach((row, index) => {
    if (Object.values(row).every((c) => c.trim() === "")) return;
    const typed = name(row.connector);
    if (typed !== "") {
      if (typed !== above) part = "";
      above = typed;
    }
    if (row.part.trim()) part = name(row.part);
    else if (typed !== "") part = "";
    const bad = (column: string, code: string, params: Issue["params"] = {}) =>
      issues.push(issue(`chart.${code}`, ["rows", index, column], params));
    if (above === "") {
      bad("connector", "no-connector");
      return;
    }
    if (!NAME.test(above)) {
      bad("connector", "bad-name", { text: cutText(above, 60) });
      return;
    }
    const own = sided(above, row.cavity.trim().replace(/\s+/g, "-"));
    if (own.cavity !== "" && !/^[+-]$/.test(own.cavity) && !NAME.test(own.cavity)) {
      bad("cavity", "bad-name", { text: cutText(own.cavity, 60) });
      return;
    }
    const to = (saysNowhere(row.goesTo) ? "" : row.goesTo)
      .split(/\s*[,;\n]\s*|\s+and\s+/)
      .map((t) => t.trim())
      .filter(Boolean)
      .flatMap((t): End[] => {
        const end = destination(t);
        if (!end || !NAME.test(end.id) || (end.cavity !== "" && !/^[+-]$/.test(end.cavity) && !NAME.test(end.cavity))) {
          bad("goesTo", "bad-goes-to", { text: cutText(t, 60) });
          return [];
        }
        return [end];
      });
    rows.push({ index, own, to, part });
  });
  return { rows, issues };
}

/** What a row says of a cavity that is known to have no wire (common practice, no source); this is what is written. */
export const NOWHERE = "not connected";
const NOWHERE_WORDS = /^(not connected|no wire|nothing|n\/c|[-–—])$/i;
/** Whether a cell of a chart says that no wire goes from there: it is not that nobody knows where it goes. */
export const saysNowhere = (goesTo: string): boolean => NOWHERE_WORDS.test(goesTo.trim());

const name = (text: string) => text.trim().replace(/\s+/g, "-");
function sided(id: string, cavity: string): End {
  const m = /^(.+)\.([ab])$/i.exec(cavity);
  return m ? { id, cavity: m[1]!, side: m[2]!.toLowerCase() as "a" | "b" } : { id, cavity };
}
/** `A1:8`, `A1 8`, `A1 pin 8`, `A1.8`, `X5:4.b`, `S14`, `battery -` */
function destination(text: string): End | undefined {
  const words = /^(battery|batt?)\s*([+-]|positive|negative)?$/i.exec(text);
  if (words) return { id: "BAT", cavity: words[2] ? (/^(-|neg)/i.test(words[2]) ? "-" : "+") : "" };
  if (/^(ground|gnd|chassis|earth|frame)$/i.test(text)) return { id: "GND", cavity: "" };
  const m =
    /^([^:\s]+)\s*(?::|\s+(?:pin|cavity|terminal|cav\.?)?\s*)\s*(\S+)$/i.exec(text) ??
    /^([^:.\s]+)\.([^.\s]+)$/.exec(text);
  return m ? sided(m[1]!, m[2]!) : /\s/.test(text) ? undefined : { id: text, cavity: "" };
}

/**
 * Settles the ends of a row against the names: terminals in their own words, the terminal meant where none was said.
 * @returns undefined where a connector needs a cavity
 */
export function settleEnd(
  names: Names,
  end: End,
  role: { readonly other?: End | undefined; readonly function: string },
): End | undefined {
  const id = names.spelt(end.id);
  const kind = names.bare(id);
  if (kind === undefined) return end.cavity === "" ? undefined : { ...end, id };
  if (STAR_KINDS.has(kind)) return { id, cavity: "" };
  if (end.cavity !== "") {
    const t = names.terminal(id, end.cavity);
    return t === undefined ? undefined : { id, cavity: t };
  }
  const [first, second] = TERMINALS[kind]!;
  if (first === "+")
    return {
      id,
      cavity:
        parseFunction(role.function) === "ground" ||
        role.other?.cavity === "-" ||
        (role.other && names.bare(names.spelt(role.other.id)) === "ground")
          ? second!
          : first,
    };
  // what comes from a supply goes in; what goes to a device or splice comes out
  const from = role.other && names.bare(names.spelt(role.other.id));
  const fromSupply = role.other && from && TERMINALS[from] && /^(out|\+|cathode|)$/.test(role.other.cavity);
  return { id, cavity: fromSupply ? first! : second! };
}
