import { formatQuantity, type Answer, type Suspect, type Unit } from "@radicula/core";
import { type Namer, shareShort } from "@radicula/core/words";
import { t } from "@/messages";

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
export interface Tick {
  /** place on the scale, 0 to 1 */
  readonly at: number;
  readonly text: string;
}
export interface Scale {
  readonly lines: readonly AnswerLine[];
  readonly ticks: readonly Tick[];
  /** what a machine without a fault would show */
  readonly healthy: Tick | undefined;
}

const GONE_BELOW = 0.015;
const WAS_ABOVE = 0.06;
const DECIDED = 0.85;

/** Volts (or amperes) between marks, by how far the scale goes. */
const STEPS: readonly (readonly [number, number])[] = [
  [1.5, 0.5],
  [6.5, 1],
  [16, 2],
  [40, 5],
];
const LARGEST_STEP = 20;
const OHM_TICKS = [1, 10, 100, 1e3, 1e4, 1e5, 1e6];
/** A tick this close to the end would stand in its unit or in OL. */
const END = 0.94;

/** What each answer would mean, and where it lies on the meter's scale. */
export function answerScale(
  answers: readonly Answer[],
  unit: Unit,
  suspects: readonly Suspect[],
  namer: Namer,
  healthy = NaN,
): Scale {
  const finite = [...answers.flatMap((a) => [a.low, a.high]), healthy].filter(Number.isFinite);
  const top = Math.max(unit === "Ω" ? 1000 : unit === "V" ? 5.5 : 1, ...finite);
  const bottom = unit === "Ω" ? 0.1 : Math.min(0, ...finite);
  const place =
    unit !== "Ω"
      ? (v: number) => (v - bottom) / (top - bottom)
      : (v: number) => Math.log(Math.max(v, bottom) / bottom) / Math.log((top * 8) / bottom);
  const at = (v: number) => Math.min(1, Math.max(0, v === Infinity ? 1 : place(v)));
  const nears = answers.map((a) => nearText(a, unit));
  return {
    lines: answers.map((a, i) => ({
      key: `${a.low} ${a.high}`,
      near: nears.indexOf(nears[i]!) === nears.lastIndexOf(nears[i]!) ? nears[i]! : apartText(a, unit),
      share: shareShort(a.share),
      meaning: meaningOf(a, suspects, namer).replaceAll(" %", "\u00a0%"),
      from: a.low === Infinity ? 0.96 : at(a.low),
      to: at(a.high),
      decides: (a.suspects[0]?.share ?? 0) >= DECIDED,
      low: a.low,
      high: a.high,
    })),
    ticks: ticksOf(unit, bottom, top)
      .map((v) => ({ at: at(v), text: unit === "Ω" ? roundOhm(v) : String(v) }))
      .filter((tick) => tick.at <= END),
    healthy: Number.isNaN(healthy)
      ? undefined
      : { at: at(healthy), text: healthy === Infinity ? "OL" : formatQuantity(healthy, unit) },
  };
}
/** A power of ten as on a dial: 1, 100, 10 k. */
function roundOhm(ohm: number): string {
  const [by, unit] = ohm >= 1e6 ? [1e6, " M"] : ohm >= 1e3 ? [1e3, " k"] : [1, ""];
  return `${Number((ohm / by).toPrecision(3))}${unit}`;
}
function ticksOf(unit: Unit, bottom: number, top: number): number[] {
  if (unit === "Ω") return OHM_TICKS.filter((v) => v < top * 8);
  const step = STEPS.find(([most]) => top - bottom <= most)?.[1] ?? LARGEST_STEP;
  const first = Math.ceil(bottom / step);
  return Array.from({ length: Math.floor(top / step) - first + 1 }, (_, i) => (first + i) * step);
}
/** Two answers that would be written alike, told apart by their ends. */
function apartText({ low, high }: Answer, unit: Unit): string {
  if (unit === "Ω") return low === Infinity ? "OL" : ohmRange({ low, high });
  return `${low.toFixed(2)}–${high.toFixed(2)} ${unit}`;
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
    return t("reading.speaksAgainstTheOthersAreOpen", { name: answerName(leader, namer) });
  if (a.suspects.some((s) => s.suspect === -1) && leader) return t("reading.fits", { name: answerName(leader, namer) });
  const named = a.suspects.flatMap((s) => {
    const v = suspects[s.suspect];
    return v ? [{ ...s, name: answerName(v, namer) }] : [];
  });
  const [first] = named;
  if (!first) return t("reading.noneOfTheSuspects");
  if (first.share >= DECIDED) return t("reading.decides", { name: first.name });
  const out = suspects.flatMap((v, i) =>
    v.share >= WAS_ABOVE && !a.suspects.some((s) => s.suspect === i && s.share >= GONE_BELOW)
      ? [answerName(v, namer)]
      : [],
  );
  const likeliest = { name: first.name, share: shareShort(first.share) };
  if (out.length === 0) return t("reading.mostLikely", likeliest);
  const then = t("reading.mostLikelyThen", likeliest);
  return t("reading.rulesOut", { out: out[0]!, more: moreThan(out.length), then });
}
const moreThan = (n: number) => (n === 1 ? "" : n === 2 ? t("reading.andOneMore") : t("reading.andMore", { n: n - 1 }));

/** a suspect by its place alone, short enough for a line */
export function answerName(v: Suspect, namer: Namer): string {
  if (v.type === "nothing") return t("reading.nothingIsWrongNow");
  if (v.type === "notHere") return t("reading.notInThisWiring");
  if (v.type === "several") return v.places.map((p) => namer.short(p)).join(t("reading.andJoin"));
  const [place, ...more] = v.places;
  if (!place) return v.id;
  if (more.length === 0) return namer.short(place);
  const others = more.length === 1 ? namer.short(more[0]!) : t("reading.alike", { count: more.length });
  return namer.short(place) + t("reading.or", { others });
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
