import { inkPath } from "../src/ui/page/inkPath";
import { paper as strokesOn, type Stroke } from "./paper";

/** Paper of a size for all tests. */
const paper = (strokes: readonly Stroke[], light?: number, dark?: number) =>
  strokesOn(strokes, [200, 160], light, dark);
/** Right along the top, down, and right again. */
const BENT: readonly Stroke[] = [
  [20, 20, 82, 3],
  [99, 20, 3, 102],
  [99, 119, 80, 3],
];
const [FROM, TO] = [[20, 21] as const, [178, 120] as const];

describe("a wire on a photo is followed along its ink", () => {
  test("through its bends, by few points", () => {
    const way = inkPath(paper(BENT), FROM, TO)!;
    expect(way[0]).toEqual(FROM);
    expect(way.at(-1)).toEqual(TO);
    for (const corner of [
      [100, 21],
      [100, 120],
    ])
      expect(Math.min(...way.map(([x, y]) => Math.hypot(x - corner[0]!, y - corner[1]!)))).toBeLessThan(4);
    expect(way.length).toBeLessThan(9);
  });

  test("over a break as wide as a crease, and grey where it is thin", () => {
    const broken = paper(BENT);
    for (let y = 60; y < 64; y++) broken.data.fill(235, (y * 200 + 95) * 4, (y * 200 + 106) * 4);
    expect(inkPath(broken, FROM, TO)).toBeDefined();
    const thin = paper(BENT);
    for (let i = 0; i < thin.data.length; i++) if (thin.data[i]! < 100 && i > 200 * 4 * 60) thin.data[i] = 140;
    expect(inkPath(thin, FROM, TO)).toBeDefined();
  });

  test("not across paper: another line that ends elsewhere, no ink at all, a faint stain", () => {
    expect(inkPath(paper(BENT.slice(0, 1)), FROM, TO)).toBeUndefined();
    expect(inkPath(paper([]), FROM, TO)).toBeUndefined();
    expect(inkPath(paper(BENT, 235, 200), FROM, TO)).toBeUndefined();
    expect(inkPath(paper(BENT), FROM, FROM)).toBeUndefined();
  });

  test("straight on where lines cross, though another way is as short", () => {
    const way = inkPath(paper([...BENT, [60, 0, 3, 160], [0, 70, 200, 3]]), FROM, TO)!;
    for (const [x, y] of way) expect(y < 26 || y > 115 || Math.abs(x - 100) < 5).toBe(true);
    expect(way.at(-1)).toEqual(TO);
  });
});
