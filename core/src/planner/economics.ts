import { DEFAULTS } from "../defaults.js";
import { isCause } from "../diagnosis/groups.js";
import type { Wiring } from "../format/wiring.js";
import type { Folded } from "../logbook/fold.js";
import { type Plan } from "./plan.js";

/** Two courses compared by what they are expected to cost from here on, in money of the job's own currency. */
export interface Economics {
  readonly part: string;
  /** how sure it is that this is the cause */
  readonly share: number;
  readonly price: number;
  /** buying and fitting it now: what is lost on average if it was not the cause */
  readonly buyNow: number;
  /** one more test first: its time, and what is then still lost on average */
  readonly testFirst: number;
  readonly cheaper: "buy" | "test";
  /** whether price and labour were given, or common ones were taken */
  readonly priced: boolean;
}

/**
 * Expected cost of "one more test" against "buy the part now". A wrong part costs its price and the time to fit it; a
 * test costs its minutes, and leaves on average the chance of being wrong that its answers leave.
 * @returns undefined where no part leads, or there is no test to compare with
 */
export function compareCosts(wiring: Wiring, plan: Plan, folded: Folded): Economics | undefined {
  const leader = plan.grouped.suspects[0];
  const test = plan.ranked[0];
  const place = leader?.places[0];
  if (
    !leader ||
    !isCause(leader) ||
    !place ||
    !test ||
    (place.type !== "device" && place.type !== "module" && place.type !== "relay")
  )
    return undefined;
  const device = wiring.devices.find((d) => d.id === place.id);
  const { labourPerHour, price, fitMinutes } = DEFAULTS.economics;
  const rate = (folded.intake?.entry.labourPerHour ?? labourPerHour) / 60;
  const cost = device?.price ?? price;
  const wrong = cost + fitMinutes * rate;
  const after = stillWrong(plan);
  const buyNow = (1 - leader.share) * wrong;
  const testFirst = test.candidate.minutes * rate + after * wrong;
  return {
    part: place.id,
    share: leader.share,
    price: cost,
    buyNow,
    testFirst,
    cheaper: buyNow <= testFirst ? "buy" : "test",
    priced: device?.price !== undefined && folded.intake?.entry.labourPerHour !== undefined,
  };
}

/** Chance of being wrong that the best next test leaves on average, going by whoever then leads. */
function stillWrong(plan: Plan): number {
  const joint = plan.ranked[0]!.joints.at(-1);
  if (!joint) return 1 - plan.grouped.suspects[0]!.share;
  let right = 0;
  let total = 0;
  for (let b = 0; b < joint.bins; b++) {
    let most = 0;
    for (let suspect = 0; suspect < joint.suspects; suspect++) most = Math.max(most, joint.at(b, suspect));
    total += joint.share(b);
    right += most;
  }
  return total > 0 ? 1 - right / total : 1;
}
