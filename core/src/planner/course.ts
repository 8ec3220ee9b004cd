import { assess } from "../diagnosis/belief.js";
import type { Posterior } from "../diagnosis/posterior.js";
import type { Entry } from "../format/case.js";
import type { Predictor } from "../prediction/predictor.js";

/** Suspicion on each thing a fault is at, by id. */
export function suspicionOf(predictor: Predictor, posterior: Posterior): ReadonlyMap<string, number> {
  const on = new Map<string, number>();
  const add = (id: string, share: number) => on.set(id, (on.get(id) ?? 0) + share);
  for (const w of posterior.components) {
    if (w.share < 1e-6 || w.misplaced) continue;
    const touched = new Set(
      predictor.hypotheses[w.hypothesis]!.faults.flatMap((f) => [f.place.id, ...(f.at !== undefined ? [f.at] : [])]),
    );
    for (const id of touched) add(id, w.share);
  }
  return on;
}

/** Suspicion over time: the share of each place after every logbook entry that changed it. */
export interface CoursePoint {
  readonly number: number;
  readonly shares: Readonly<Record<string, number>>;
}
/** How many of the last entries the course of suspicion is worked out for. Judgement: time. */
const COURSE_MOST = 60;

/** How suspicion went, entry by entry; places by id. @param ids the places asked for */
export function courseOf(predictor: Predictor, entries: readonly Entry[], ids: readonly string[]): CoursePoint[] {
  const points: CoursePoint[] = [];
  entries.forEach((e, i) => {
    if (!MOVES.has(e.type) || i < entries.length - COURSE_MOST) return;
    const { posterior } = assess(predictor, entries.slice(0, i + 1), { multiple: "never" });
    const on = suspicionOf(predictor, posterior);
    points.push({ number: i + 1, shares: Object.fromEntries(ids.map((id) => [id, on.get(id) ?? 0])) });
  });
  return points;
}
const MOVES: ReadonlySet<Entry["type"]> = new Set<Entry["type"]>([
  "code",
  "scan",
  "reading",
  "trace",
  "look",
  "wiggle",
  "swap",
  "identity",
  "holds",
  "seen",
  "undo",
  "moved",
]);
