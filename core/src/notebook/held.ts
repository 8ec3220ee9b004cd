import type { Lesson } from "../format/notebook.js";

/** Proofs of one band, and how many of those asked after held. */
export interface HeldBand {
  /** the claim, from and up to, as a share */
  readonly from: number;
  readonly to: number;
  readonly proofs: number;
  /** of how many somebody was asked */
  readonly asked: number;
  readonly held: number;
  /** mean of what was claimed, over those asked; undefined where nobody was */
  readonly claimed?: number;
  /** share that held; 90 % of its likely values (Wilson 1927); undefined where nobody was asked */
  readonly share?: number;
  readonly low?: number;
  readonly high?: number;
}

const BANDS = [0, 0.7, 0.9, 0.95, 0.98, 1] as const;
/** Two-sided 90 %: quantile of the normal distribution, value from memory. */
const Z90 = 1.645;

interface RepairHeld {
  readonly how: string;
  readonly claimed: number | undefined;
  readonly held: Lesson["held"];
}
/** Every repair that was closed: the last of each job, and those that came back before it. */
const proofsOf = (lessons: readonly Lesson[]): RepairHeld[] =>
  lessons.flatMap(({ repairs, claimed, held, notHeld }) => {
    const how = repairs.at(-1)?.how;
    return [
      ...notHeld.map((p): RepairHeld => ({ ...p, held: "cameBack" })),
      ...(how === undefined ? [] : [{ how, claimed, held }]),
    ];
  });

/** How often proofs held, by how sure they were: what was claimed at closing against what people said later. */
export function heldBands(lessons: readonly Lesson[]): HeldBand[] {
  const closed = proofsOf(lessons).filter((p) => p.claimed !== undefined);
  return BANDS.slice(0, -1).map((from, i) => {
    const to = BANDS[i + 1]!;
    const inBand = closed.filter(({ claimed }) => claimed! >= from && (claimed! < to || to === 1));
    const asked = inBand.filter((l) => l.held !== "notAsked");
    // something else is another fault: this repair held
    const held = asked.filter((l) => l.held !== "cameBack").length;
    const n = asked.length;
    if (n === 0) return { from, to, proofs: inBand.length, asked: 0, held: 0 };
    const { low, high } = wilson(held, n);
    const claimed = asked.reduce((sum, l) => sum + l.claimed!, 0) / n;
    return { from, to, proofs: inBand.length, asked: n, held, claimed, share: held / n, low, high };
  });
}

/** Wilson's interval of a share: of `n` tries `k` went well (Wilson 1927). */
export function wilson(k: number, n: number): { readonly low: number; readonly high: number } {
  const p = k / n;
  const z2 = (Z90 * Z90) / n;
  const middle = (p + z2 / 2) / (1 + z2);
  const half = (Z90 / (1 + z2)) * Math.sqrt((p * (1 - p)) / n + z2 / (4 * n));
  return { low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

/** How often repairs of each kind held, the most asked after first. */
export function heldByWork(lessons: readonly Lesson[]): {
  readonly how: string;
  readonly asked: number;
  readonly held: number;
}[] {
  const byHow = new Map<string, { asked: number; held: number }>();
  for (const { how, held } of proofsOf(lessons)) {
    if (held === "notAsked") continue;
    const at = byHow.get(how) ?? { asked: 0, held: 0 };
    byHow.set(how, { asked: at.asked + 1, held: at.held + (held === "cameBack" ? 0 : 1) });
  }
  return [...byHow].map(([how, n]) => ({ how, ...n })).sort((a, b) => b.asked - a.asked);
}
