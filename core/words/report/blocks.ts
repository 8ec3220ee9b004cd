import { t } from "../messages/index.js";
import { worded } from "../language.js";
/** A piece of a report, whatever it is drawn with: screen, paper or PDF. */
export type Block =
  | { readonly kind: "text"; readonly text: string; readonly strong?: boolean }
  | { readonly kind: "list"; readonly items: readonly string[] }
  | { readonly kind: "caution"; readonly text: string }
  | { readonly kind: "facts"; readonly rows: readonly (readonly [string, string])[] }
  | { readonly kind: "table"; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] }
  | { readonly kind: "photo"; readonly id: string; readonly caption: string };
export interface ReportSection {
  readonly heading: string;
  readonly blocks: readonly Block[];
}
export const REPORT_LENGTHS = ["customer", "workshop", "record"] as const;
export type ReportLength = (typeof REPORT_LENGTHS)[number];
export const REPORT_WORDS: Readonly<Record<ReportLength, string>> = worded(() => ({
  customer: t("report.forTheCustomer"),
  workshop: t("report.forTheWorkshop"),
  record: t("report.wholeRecord"),
}));
export interface Report {
  readonly length: ReportLength;
  readonly title: string;
  /** name, address and contact of the workshop; empty lines are left out */
  readonly letterhead: readonly string[];
  readonly facts: readonly (readonly [string, string])[];
  readonly sections: readonly ReportSection[];
  /** what stands at the foot: from what it was made */
  readonly foot: string;
}

export const paragraph = (text: string, strong = false): Block => ({
  kind: "text",
  text,
  ...(strong ? { strong } : {}),
});
/** A section without content is none. */
export const section = (heading: string, blocks: readonly (Block | undefined)[]): ReportSection[] => {
  const own = blocks.filter((b): b is Block => b !== undefined && !isEmpty(b));
  return own.length ? [{ heading, blocks: own }] : [];
};
function isEmpty(b: Block): boolean {
  if (b.kind === "list") return b.items.length === 0;
  if (b.kind === "facts" || b.kind === "table") return b.rows.length === 0;
  return b.kind === "photo" ? false : b.text === "";
}
