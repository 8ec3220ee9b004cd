import type { Code } from "@radicula/core";

export const FAMILIES = ["low", "high", "circuit", "performance", "noActivity", "lostCommunication", "driver"] as const;
export const FAMILY_WORDS: Readonly<Record<(typeof FAMILIES)[number], string>> = {
  low: "low",
  high: "high",
  circuit: "circuit",
  performance: "range or performance",
  noActivity: "no activity",
  lostCommunication: "lost communication",
  driver: "driver circuit",
};
export const WHEN: readonly { readonly value: string; readonly label: string }[] = [
  { value: "on", label: "key on" },
  { value: "cranking", label: "cranking" },
  { value: "running", label: "engine running" },
];
/** A set condition in a line. */
export function conditionText(c: Pick<Code, "monitor" | "family" | "about">): string {
  const m = c.monitor;
  if (!m)
    return c.family
      ? `${FAMILY_WORDS[c.family]}, a broad condition`
      : c.about
        ? "a broad condition, by its text"
        : "not known: weighs nothing";
  const when =
    `${m.seconds ? ` for ${m.seconds} s` : ""}` +
    `${m.when ? `, ${m.when.map((k) => WHEN.find((w) => w.value === k)?.label ?? k).join(" or ")}` : ""}`;
  switch (m.type) {
    case "below":
      return `${m.at} under ${m.volt} V${when}`;
    case "above":
      return `${m.at} over ${m.volt} V${when}`;
    case "outside":
      return `${m.at} outside ${m.low} to ${m.high} V${when}`;
    case "noActivity":
      return `${m.at} does not change${when}`;
    case "disagree":
      return `${m.at} and ${m.other} differ by over ${m.volt} V${when}`;
    case "current":
      return (
        `${m.at} carries ${m.low === undefined ? "" : `under ${m.low} A`}` +
        `${m.low !== undefined && m.high !== undefined ? " or " : ""}` +
        `${m.high === undefined ? "" : `over ${m.high} A`}${when}`
      );
    case "silent":
      return `nothing heard from ${m.node}${when}`;
  }
}
