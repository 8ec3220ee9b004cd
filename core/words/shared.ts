import type { SharedMatrix } from "../src/index.js";

const MOST = 4;
/** A thing of the matrix as people write it: a wire by its ends. */
export const thingText = (thing: string) => thing.replace("~", " to ");

/** What the coded circuits share, in one sentence, from the drawing alone. */
export function sharedText({ coded, covers, rows }: SharedMatrix): string {
  if (coded.length === 0) return "No code names a part of this wiring yet.";
  if (coded.length === 1) return "Only one circuit has a code.";
  const least = covers[0]?.length;
  if (least === undefined)
    return "No three things cover all coded circuits: several faults, or a code about another part.";
  if (least > 1)
    return `No one thing is shared by all ${coded.length}. ${least} together would do: ${covers
      .slice(0, 3)
      .map((set) => set.map(thingText).join(" with "))
      .join(", or ")}.`;
  const all = rows.filter((r) => r.coded.length === coded.length);
  const fewest = Math.min(...all.map((r) => r.healthy.length));
  const best = all.filter((r) => r.healthy.length === fewest);
  // wires go without saying where the things they join are named
  const named = best.flatMap((r) => [
    ...(r.kind === "wire" ? [] : [r.thing]),
    ...r.same.slice(0, r.same.length - r.wires),
  ]);
  const things = (named.length ? named : best.flatMap((r) => [r.thing, ...r.same])).map(thingText);
  const against =
    fewest === 0
      ? ", and no healthy circuit does"
      : fewest === 1
        ? "; one healthy circuit does too"
        : `; ${fewest} healthy circuits do too`;
  return (
    `${coded.length === 2 ? "Both" : `All ${coded.length}`} pass through ` +
    `${things.slice(0, MOST).join(", ")}${things.length > MOST ? ` and ${things.length - MOST} more` : ""}` +
    `${against}.`
  );
}
