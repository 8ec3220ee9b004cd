import { formatQuantity, type Answer, type Suspect, type Unit } from "@radicula/core";
import type { Namer } from "@radicula/core/words";
import { shareShort } from "@radicula/core/words";

export interface AnswerLine {
  readonly key: string;
  readonly near: string;
  readonly share: string;
  readonly meaning: string;
  /** place on the scale, 0 to 1 */
  readonly from: number;
  readonly to: number;
  /** what decides: a strong suspect left, or not */
  readonly decides: boolean;
  readonly low: number;
  readonly high: number;
}
export interface Scale {
  readonly lines: readonly AnswerLine[];
}

const GONE_BELOW = 0.015;
const WAS_ABOVE = 0.06;
const DECIDED = 0.85;

/** What each answer would mean, and where it lies on the meter's scale. */
export function answerScale(answers: readonly Answer[], unit: Unit, suspects: readonly Suspect[], namer: Namer): Scale {
  const finite = answers.flatMap((a) => [a.low, a.high]).filter(Number.isFinite);
  const top = Math.max(unit === "Ω" ? 1000 : unit === "V" ? 5.5 : 1, ...finite);
  const bottom = unit === "Ω" ? 0.1 : Math.min(0, ...finite);
  const place =
    unit !== "Ω"
      ? (v: number) => (v - bottom) / (top - bottom)
      : (v: number) => Math.log(Math.max(v, bottom) / bottom) / Math.log((top * 8) / bottom);
  const at = (v: number) => Math.min(1, Math.max(0, v === Infinity ? 1 : place(v)));
  return {
    lines: answers.map((a) => ({
      key: `${a.low} ${a.high}`,
      near: nearText(a, unit),
      share: shareShort(a.share),
      meaning: meaningOf(a, suspects, namer).replaceAll(" %", "\u00a0%"),
      from: a.low === Infinity ? 0.96 : at(a.low),
      to: at(a.high),
      decides: (a.suspects[0]?.share ?? 0) >= DECIDED,
      low: a.low,
      high: a.high,
    })),
  };
}

/** From this ratio of its ends on an answer in ohms is given as a range. Judgement. */
const WIDE_OHM = 12;
/** The unit is said once where both ends have the same. */
function ohmRange({ low, high }: Pick<Answer, "low" | "high">): string {
  const to = formatQuantity(high, "Ω");
  const from = formatQuantity(low, "Ω").replace(/ ?[kM]?Ω$/, (unit) => (to.endsWith(unit) ? "" : unit));
  return `${from}–${to}`;
}

/** "5.0 V" where the answers lie close together, "0.3–3 V" where they spread */
function nearText(a: Answer, unit: Unit): string {
  if (a.value === Infinity) return "OL";
  if (unit === "Ω") {
    const isWide = a.high / a.low > WIDE_OHM && a.high < Infinity;
    return isWide ? ohmRange(a) : formatQuantity(a.value, "Ω");
  }
  const tidy = (v: number) => (Math.abs(v) < 0.06 ? "0" : v.toFixed(1));
  return a.high - a.low > 0.8
    ? `${tidy(Math.max(0, a.low))}–${tidy(a.high)} ${unit}`
    : `${Math.abs(a.value) < 0.06 ? "0.0" : a.value.toFixed(1)} ${unit}`;
}

function meaningOf(a: Answer, suspects: readonly Suspect[], namer: Namer): string {
  const leader = suspects[0];
  if (a.suspects[0]?.suspect === -1 && leader)
    return `speaks against ${answerName(leader, namer)}; the others open again`;
  if (a.suspects.some((s) => s.suspect === -1) && leader) return `agrees with ${answerName(leader, namer)}`;
  const named = a.suspects.flatMap((s) => {
    const v = suspects[s.suspect];
    return v ? [{ ...s, name: answerName(v, namer) }] : [];
  });
  const [first, second] = named;
  if (!first) return "something not among the suspects";
  if (first.share >= DECIDED) return first.name.startsWith("no") ? first.name : `it is ${first.name}`;
  const out = suspects.flatMap((v, i) =>
    v.share >= WAS_ABOVE && !a.suspects.some((s) => s.suspect === i && s.share >= GONE_BELOW)
      ? [answerName(v, namer)]
      : [],
  );
  const left = [first, ...(second && second.share > 0.5 * first.share ? [second] : [])]
    .map((s) => `${s.name} ${shareShort(s.share)}`)
    .join(", ");
  return out.length && out.length <= 3 ? `not ${out.join(", ")}; then ${left}` : left;
}

/** a suspect by its place alone, short enough for a line */
export function answerName(v: Suspect, namer: Namer): string {
  if (v.type === "nothing") return "nothing wrong now";
  if (v.type === "notHere") return "not in this wiring";
  if (v.type === "several") return v.places.map((p) => namer.short(p)).join(" and ");
  const [place, ...more] = v.places;
  return place
    ? `${namer.short(place)}` +
        `${more.length ? ` or ${more.length === 1 ? namer.short(more[0]!) : `${more.length} alike`}` : ""}`
    : v.id;
}

/** The line a value falls on, or the nearest. */
export function lineFor(value: number, scale: Scale): string | undefined {
  const inside = scale.lines.find((l) => value >= l.low && value <= l.high);
  if (inside) return inside.key;
  if (value === Infinity) return scale.lines.find((l) => l.high === Infinity)?.key;
  return [...scale.lines].sort(
    (a, b) =>
      Math.min(Math.abs(value - a.low), Math.abs(value - a.high)) -
      Math.min(Math.abs(value - b.low), Math.abs(value - b.high)),
  )[0]?.key;
}

/** What each of the two answers to a test without an instrument would mean. */
export function yesNoLines(
  answers: readonly Answer[],
  suspects: readonly Suspect[],
  namer: Namer,
): { readonly yes: boolean; readonly share: string; readonly meaning: string }[] {
  return answers.map((a) => ({
    yes: a.value > 0.5,
    share: shareShort(a.share),
    meaning: meaningOf(a, suspects, namer).replaceAll(" %", "\u00a0%"),
  }));
}
