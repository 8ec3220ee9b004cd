import type { SharedMatrix } from "../src/index.js";
import { t } from "./messages/index.js";

const MOST = 4;
/** A thing of the matrix as people write it: a wire by its ends. */
export const thingText = (thing: string) => thing.replace("~", t("shared.toJoin"));

/** What the coded circuits share, in one sentence, from the drawing alone. */
export function sharedText({ coded, covers, rows }: SharedMatrix): string {
  if (coded.length === 0) return t("shared.noCodeNamesAPartOf");
  if (coded.length === 1) return t("shared.onlyOneCircuitHasACode");
  const least = covers[0]?.length;
  if (least === undefined) return t("shared.noThreeThingsCoverAllCoded");
  if (least > 1)
    return t("shared.noOneThingIsSharedBy", {
      codedCount: coded.length,
      least,
      covers: covers
        .slice(0, 3)
        .map((set) => set.map(thingText).join(t("shared.withJoin")))
        .join(t("faults.orJoin")),
    });
  const all = rows.filter((r) => r.coded.length === coded.length);
  const fewest = Math.min(...all.map((r) => r.healthy.length));
  const best = all.filter((r) => r.healthy.length === fewest);
  // wires go without saying where the things they join are named
  const named = best.flatMap((r) => [
    ...(r.kind === "wire" ? [] : [r.thing]),
    ...r.same.slice(0, r.same.length - r.wires),
  ]);
  const things = (named.length ? named : best.flatMap((r) => [r.thing, ...r.same])).map(thingText);
  const against = fewest === 0 ? t("shared.andNoHealthyCircuitDoes") : t("shared.healthyCircuitsDoToo", { fewest });
  return t("shared.passThrough", {
    circuits: coded.length === 2 ? t("shared.both") : t("shared.all", { codedCount: coded.length }),
    things: things.slice(0, MOST).join(", "),
    more: things.length > MOST ? t("shared.andMore", { thingsCount: things.length - MOST }) : "",
    against,
  });
}
