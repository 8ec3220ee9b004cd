import { DEFAULTS } from "../defaults.js";
import type { LearnedEntry } from "../format/case.js";
import type { Lesson } from "../format/notebook.js";
import type { Wiring } from "../format/wiring.js";

/** How much a lesson counts: one that was proven or held is whole, one that came back or is switched off is nothing. */
export function lessonWeight({ used, held, claimed, repairs }: Lesson): number {
  if (!used || repairs.length === 0 || held === "cameBack") return 0;
  const { proven, certain, likely } = DEFAULTS.lessons;
  return held === "stillGood" || (claimed ?? 0) >= proven ? certain : likely;
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
/** Whether a lesson is of the same wiring: names as they are written, but for capitals. */
export const isOfWiring = (l: Pick<Lesson, "wiring" | "machineType">, { name, machineType }: Wiring): boolean =>
  same(l.wiring, name) && same(l.machineType, machineType ?? "");

const MOST_CAUSES = 400;
/**
 * The entry by which lessons count in a job on this wiring; lessons of other wirings are left out.
 * @param at when, ISO 8601
 * @returns undefined where no lesson counts
 */
export function learnFrom(lessons: readonly Lesson[], wiring: Wiring, at: string): LearnedEntry | undefined {
  const causes = new Map<string, LearnedEntry["causes"][number]>();
  let count = 0;
  for (const lesson of lessons) {
    const weight = lessonWeight(lesson);
    if (weight === 0 || !isOfWiring(lesson, wiring)) continue;
    count++;
    for (const { things, how } of lesson.repairs) {
      const { suspect } = lesson;
      const key = JSON.stringify([things, how, suspect]);
      const more = weight / lesson.repairs.length;
      const known = causes.get(key);
      causes.set(key, {
        things,
        how,
        ...(suspect ? { suspect } : {}),
        count: (known?.count ?? 0) + more,
      });
    }
  }
  if (count === 0) return undefined;
  const most = [...causes.values()].sort((a, b) => b.count - a.count).slice(0, MOST_CAUSES);
  return { type: "learned", at, lessons: Math.min(5000, count), causes: most };
}
