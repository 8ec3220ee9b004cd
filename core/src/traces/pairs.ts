import { agreementOf, type Agreement } from "./agreement.js";
import type { ChannelFacts } from "./facts.js";
import type { Recording } from "./recording.js";

/** Two channels that scatter more than this share of what the second spans around their line have nothing in common. */
const TOGETHER = 0.05;
/** Channels that are compared each with each: more would take too long. Judgement. */
const MOST_COMPARED = 8;

/** Two channels, by their places, that run along a line against each other. */
export interface PairSeen {
  readonly channels: readonly [number, number];
  readonly agreement: Agreement;
}

/** Pairs of channels of one unit that go together, with where they do not. */
export function pairsOf({ channels }: Recording, facts: readonly ChannelFacts[]): PairSeen[] {
  const moving = channels.flatMap((c, i) => (facts[i]?.kind === "varying" ? [{ c, i }] : [])).slice(0, MOST_COMPARED);
  return moving.flatMap(({ c, i }, k) =>
    moving.slice(k + 1).flatMap(({ c: other, i: j }) => {
      if (c.unit !== other.unit) return [];
      const span = facts[j]!.most - facts[j]!.least;
      const agreement = agreementOf(c, other, 0, TOGETHER * span);
      return agreement ? [{ channels: [i, j] as const, agreement }] : [];
    }),
  );
}
