import { sharedMatrix, subjectsOf, thingsOnTheWay } from "../../src/index.js";
import { tug } from "../helpers.js";

describe("what coded circuits share", () => {
  const coded = ["B7", "B9", "B12"];
  const m = sharedMatrix(tug(), coded);
  test(
    "the shared reference leads, healthy circuits stand against what they pass through, as set intersection " +
      "by hand",
    () => {
      const way = thingsOnTheWay(tug());
      const all = [...way.get("B7")!].filter((t) => coded.every((d) => way.get(d)!.has(t)));
      const listed = m.rows.filter((r) => r.coded.length === 3).flatMap((r) => [r.thing, ...r.same]);
      expect(listed.sort()).toEqual(all.sort());
      const first = m.rows[0]!;
      expect([first.thing, ...first.same]).toContain("S14");
      expect(first.healthy).toEqual([]);
      const ground = m.rows.find((r) => [r.thing, ...r.same].includes("S22"))!;
      expect(ground.healthy).toContain("B4");
      for (const r of m.rows) for (const h of r.healthy) expect(way.get(h)!.has(r.thing)).toBe(true);
    },
  );
  test(
    "smallest sets that cover all: one thing where there is a shared one; by brute force over all pairs " + "elsewhere",
    () => {
      expect(m.covers.every((c) => c.length === 1)).toBe(true);
      const apart = sharedMatrix(tug(), ["B7", "B9", "B12", "B20"]);
      const way = thingsOnTheWay(tug());
      const things = [...new Set(apart.coded.flatMap((d) => [...way.get(d)!]))];
      const hits = (set: readonly string[]) => apart.coded.every((d) => set.some((t) => way.get(d)!.has(t)));
      const least = things.some((t) => hits([t])) ? 1 : things.some((x) => things.some((y) => hits([x, y]))) ? 2 : 3;
      for (const c of apart.covers) {
        expect(c).toHaveLength(least);
        expect(hits(c)).toBe(true);
      }
      expect(apart.covers.length).toBeGreaterThan(0);
    },
  );
  test("which parts a code is about", () => {
    expect(subjectsOf(tug(), "A1", "P0237")).toEqual(["B7"]);
    expect(subjectsOf(tug(), "A1", "P9999")).toEqual([]);
  });
  test("nothing coded: nothing listed", () => {
    expect(sharedMatrix(tug(), []).rows).toEqual([]);
  });
});
