import { DEFAULTS } from "../defaults.js";
import type { Belief } from "../diagnosis/assessment.js";
import { isSetCode, type Folded } from "../logbook/fold.js";
import { ofMachineNow } from "../logbook/told.js";

/** How a repair may have turned out; sums to 1. */
export interface RepairOutcome {
  /** the cause is gone, because it was repaired */
  readonly cured: number;
  /** the right place was worked on, but it is still wrong */
  readonly notWell: number;
  /** another fault is left, here or in what is not drawn */
  readonly anotherLeft: number;
  /** nothing is wrong now, but not by the repair: it went away while somebody worked there, and may come back */
  readonly wentAway: number;
}

/**
 * How the last repair, and those before it, turned out, by all that was seen since.
 * @returns undefined where nothing was repaired yet
 */
export function repairOutcome(belief: Belief): RepairOutcome | undefined {
  const { carried, posterior, gathered } = belief;
  if (!carried || gathered.folded.repairs.length === 0) return undefined;
  const sound = posterior.share[0]!;
  const away = (carried.sound.moved + carried.sound.never) * stayedAway(gathered.folded);
  let notWell = 0;
  let anotherLeft = posterior.notHere;
  for (const { hypothesis, share } of posterior.components) {
    if (hypothesis === 0) continue;
    const worked = carried.workedOn[hypothesis] ?? 0;
    notWell += share * worked;
    anotherLeft += share * (1 - worked);
  }
  const parts = { cured: sound * carried.sound.cured, notWell, anotherLeft, wentAway: sound * away };
  const all = parts.cured + parts.notWell + parts.anotherLeft + parts.wentAway;
  return {
    cured: parts.cured / all,
    notWell: parts.notWell / all,
    anotherLeft: parts.anotherLeft / all,
    wentAway: parts.wentAway / all,
  };
}

/** What is left of a fault that went away by itself, once the machine was driven, and its places moved, without it. */
function stayedAway(all: Folded): number {
  const { scans, since } = all;
  const { clues } = ofMachineNow(all);
  const { stayedAwayDriving, stayedAwayMoved } = DEFAULTS.repair;
  const drives = scans.filter(
    ({ number, entry }) =>
      number > since && entry.when === "afterDrive" && !entry.codes.some((c) => isSetCode({ status: c.status })),
  );
  const moved = new Set(clues.flatMap(({ entry }) => (entry.type === "wiggle" && !entry.reacted ? [entry.thing] : [])));
  return stayedAwayDriving ** drives.length * (moved.size > 0 ? stayedAwayMoved : 1);
}
