import type { Analysis } from "@radicula/core";
import { whatStays } from "@/features/case/session/whatStays";
import { analysed, demoCase } from "./helpers";

const full = analysed(demoCase());
const [best, second] = full.next;
/** the same job at a first look: another test first, suspects in another order */
const first: Analysis = {
  ...full,
  suspects: [...full.suspects].reverse(),
  next: [second!, best!],
};
const stood = (forMs: number, acted: boolean, analysis = first) => ({ analysis, forMs, acted });

test("a test seen only for an instant gives way, one seen for a while stays while it is worth its time", () => {
  expect(whatStays(full, undefined)).toBe(full);
  expect(whatStays(full, stood(100, false))).toBe(full);
  const kept = whatStays(full, stood(900, false));
  expect(kept.next.map((n) => n.candidate.id).slice(0, 2)).toEqual([second!.candidate.id, best!.candidate.id]);
  expect(kept.next).toHaveLength(full.next.length);
  const gone = { ...second!, candidate: { ...second!.candidate, id: "no longer worth its time" } };
  expect(whatStays(full, stood(900, false, { ...first, next: [gone] }))).toBe(full);
});

test("a test somebody has begun stays, whatever became of it; its answers name the suspects as they stand now", () => {
  const begun = { ...second!, candidate: { ...second!.candidate, id: "begun" } };
  const kept = whatStays(full, stood(1, true, { ...first, next: [begun] }));
  expect(kept.next[0]!.candidate.id).toBe("begun");
  expect(kept.next).toHaveLength(full.next.length + 1);
  const named = (a: Analysis, n = a.next[0]!) =>
    n.answers.flat().flatMap((x) => x.suspects.map((s) => a.suspects[s.suspect]?.id));
  expect(named(kept)).toEqual(named({ ...first, next: [begun] }));
  expect(named(kept).filter(Boolean).length).toBeGreaterThan(0);
});

test("a verdict is not held up, and an entry asked for once more is not taken for another test", () => {
  expect(whatStays({ ...full, stage: "proven", next: [] }, stood(900, true)).next).toEqual([]);
  expect(whatStays({ ...full, stage: "confirming", again: 3 }, stood(900, true)).again).toBeUndefined();
  expect(whatStays({ ...full, stage: "confirming" }, stood(900, false)).next[0]).toBe(best);
});
