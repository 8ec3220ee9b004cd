import { t } from "./messages/index.js";

/** A share as people read it: "41 %", "under 1 %", "over 99 %". Never 0 or 100: the engine is never that sure. */
export function shareText(share: number): string {
  if (share < 0.01) return t("shares.under");
  if (share > 0.99) return t("shares.over");
  return `${Math.round(share * 100)} %`;
}

export function probabilityWord(share: number): string {
  if (share >= 0.95) return t("shares.almostCertain");
  if (share >= 0.7) return t("shares.likely");
  if (share >= 0.3) return t("shares.possible");
  if (share >= 0.05) return t("shares.oneOfSeveral");
  return t("shares.unlikely");
}

/**
 * How strongly one piece of evidence speaks, from the natural log of its likelihood ratio (bands after Jeffreys, value
 * from memory).
 */
export function strengthWord(weight: number): string {
  if (weight >= Math.log(10)) return t("shares.stronglyFor");
  if (weight >= Math.log(2)) return t("shares.for");
  if (weight <= -Math.log(10)) return t("shares.stronglyAgainst");
  if (weight <= -Math.log(2)) return t("shares.against");
  return t("shares.saysLittle");
}

/** As `shareText`, for narrow columns: "<1 %", "41 %", ">99 %". */
export const shareShort = (share: number) => (share < 0.01 ? "<1 %" : share > 0.99 ? ">99 %" : shareText(share));

/** Up to this share, what is ruled out is said in this word. */
const parts = (): readonly (readonly [number, string])[] => [
  [0.06, t("shares.little")],
  [0.14, t("shares.aboutATenth")],
  [0.22, t("shares.aboutAFifth")],
  [0.29, t("shares.aboutAQuarter")],
  [0.42, t("shares.aboutAThird")],
  [0.58, t("shares.aboutHalf")],
  [0.71, t("shares.aboutTwoThirds")],
  [0.85, t("shares.aboutThreeQuarters")],
  [1, t("shares.nearlyEverything")],
];
/** How much of what is still open a test settles, as people say it: "Rules out about a third". */
export const rulesOut = (share: number): string =>
  t("shares.rulesOut", { part: parts().find(([most]) => share <= most)?.[1] ?? t("shares.nearlyEverything") });
