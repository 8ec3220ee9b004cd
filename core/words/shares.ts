/** A share as people read it: "41 %", "under 1 %", "over 99 %". Never 0 or 100: the engine is never that sure. */
export function shareText(share: number): string {
  if (share < 0.01) return "under 1 %";
  if (share > 0.99) return "over 99 %";
  return `${Math.round(share * 100)} %`;
}

export function probabilityWord(share: number): string {
  if (share >= 0.95) return "almost certain";
  if (share >= 0.7) return "likely";
  if (share >= 0.3) return "possible";
  if (share >= 0.05) return "one of several";
  return "unlikely";
}

/**
 * How strongly one piece of evidence speaks, from the natural log of its likelihood ratio (bands after Jeffreys, value
 * from memory).
 */
export function strengthWord(weight: number): "strongly for" | "for" | "says little" | "against" | "strongly against" {
  if (weight >= Math.log(10)) return "strongly for";
  if (weight >= Math.log(2)) return "for";
  if (weight <= -Math.log(10)) return "strongly against";
  if (weight <= -Math.log(2)) return "against";
  return "says little";
}

/** As `shareText`, for narrow columns: "<1 %", "41 %", ">99 %". */
export const shareShort = (share: number) => shareText(share).replace("under ", "<").replace("over ", ">");

/** Up to this share, what is ruled out is said in this word. */
const PARTS: readonly (readonly [number, string])[] = [
  [0.06, "little"],
  [0.14, "about a tenth"],
  [0.22, "about a fifth"],
  [0.29, "about a quarter"],
  [0.42, "about a third"],
  [0.58, "about half"],
  [0.71, "about two thirds"],
  [0.85, "about three quarters"],
  [1, "nearly everything"],
];
/** How much of what is still open a test settles, as people say it: "Rules out about a third". */
export const rulesOut = (share: number): string =>
  `Rules out ${PARTS.find(([most]) => share <= most)?.[1] ?? "nearly everything"}`;
