import type { Lesson } from "../format/notebook.js";
import type { Wiring } from "../format/wiring.js";
import { isOfWiring } from "./learn.js";

/** A lesson, and how like this job it is. */
export interface SeenBefore {
  readonly lesson: Lesson;
  /** of the codes of both jobs, the share that both have (Jaccard 1901) */
  readonly alike: number;
  readonly isSameWiring: boolean;
}

/** Lessons of the same wiring come before those of others with as like codes. Judgement. */
const OTHER_WIRING = 0.5;
/** So like the codes of another wiring have to be, for a lesson of it to be shown. Judgement. */
const ALIKE_FROM = 0.5;

/**
 * Lessons that are like this job, the most alike first, of equal ones the latest: of the same wiring those with a code
 * in common, of other wirings those with much the same codes.
 * @param codes set on this job
 */
export function seenBefore(lessons: readonly Lesson[], wiring: Wiring, codes: readonly string[]): SeenBefore[] {
  const here = new Set(codes);
  const worth = (s: SeenBefore) => s.alike * (s.isSameWiring ? 1 : OTHER_WIRING);
  return lessons
    .map((lesson): SeenBefore => {
      const both = lesson.codes.filter((c) => here.has(c)).length;
      const either = new Set([...lesson.codes, ...codes]).size;
      return { lesson, alike: either === 0 ? 0 : both / either, isSameWiring: isOfWiring(lesson, wiring) };
    })
    .filter((s) => (s.isSameWiring ? s.alike > 0 : s.alike >= ALIKE_FROM))
    .sort((a, b) => worth(b) - worth(a) || b.lesson.closed.localeCompare(a.lesson.closed));
}

/** Whether every word stands somewhere in a lesson: machine, codes, shared things, cause, words. */
export function isFound(lesson: Lesson, find: string): boolean {
  const { machine, machineType, wiring, title, complaint, codes, shared, found, suspect, repairs, note } = lesson;
  const text = [
    ...[machine, machineType, wiring, title, complaint, found, suspect, note],
    ...[...codes, ...shared, ...repairs.flatMap((r) => [...r.things, r.how])],
  ]
    .join(" ")
    .toLowerCase();
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
