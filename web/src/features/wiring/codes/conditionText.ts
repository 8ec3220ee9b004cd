import type { Code } from "@radicula/core";
import { t } from "@/messages";
import { worded, wordedList } from "@radicula/core/words";

export const FAMILIES = ["low", "high", "circuit", "performance", "noActivity", "lostCommunication", "driver"] as const;
export const FAMILY_WORDS: Readonly<Record<(typeof FAMILIES)[number], string>> = worded(() => ({
  low: t("codes.low"),
  high: t("codes.high"),
  circuit: t("codes.circuit"),
  performance: t("codes.rangeOrPerformance"),
  noActivity: t("codes.noActivity"),
  lostCommunication: t("codes.lostCommunication"),
  driver: t("codes.driverCircuit"),
}));
export const WHEN: readonly { readonly value: string; readonly label: string }[] = wordedList(() => [
  { value: "on", label: t("codes.keyOn") },
  { value: "cranking", label: t("codes.cranking") },
  { value: "running", label: t("codes.engineRunning") },
]);
/** A set condition in a line. */
export function conditionText(c: Pick<Code, "monitor" | "family" | "about">): string {
  const m = c.monitor;
  if (!m)
    return c.family
      ? t("codes.aBroadCondition", { family: FAMILY_WORDS[c.family] })
      : c.about
        ? t("codes.aBroadConditionByItsText")
        : t("codes.notKnownWeighsNothing");
  const when =
    `${m.seconds ? t("codes.forS", { seconds: m.seconds }) : ""}` +
    `${m.when ? `, ${m.when.map((k) => WHEN.find((w) => w.value === k)?.label ?? k).join(t("codes.or"))}` : ""}`;
  switch (m.type) {
    case "below":
      return t("codes.underV", { at: m.at, volt: m.volt, when });
    case "above":
      return t("codes.overV", { at: m.at, volt: m.volt, when });
    case "outside":
      return t("codes.outsideToV", { at: m.at, low: m.low, high: m.high, when });
    case "noActivity":
      return t("codes.doesNotChange", { at: m.at, when });
    case "disagree":
      return t("codes.andDifferByOverV", { at: m.at, other: m.other, volt: m.volt, when });
    case "current":
      return t("codes.carries", {
        at: m.at,
        ampere: [
          ...(m.low === undefined ? [] : [t("codes.underA", { low: m.low })]),
          ...(m.high === undefined ? [] : [t("codes.overA", { high: m.high })]),
        ].join(t("codes.or")),
        when,
      });
    case "silent":
      return t("codes.nothingHeardFrom", { node: m.node, when });
  }
}
