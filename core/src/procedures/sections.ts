/** A stretch of a run between two points that leads can reach, and what lies in it. */
export interface Section {
  readonly from: string;
  readonly to: string;
  readonly things: readonly string[];
}
export const thingsBetween = (sections: readonly Section[]): string[] => [
  ...new Set(sections.flatMap((s) => s.things)),
];
