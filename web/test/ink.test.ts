import { nearestInk } from "../src/ui/page/ink";
import { paper as strokesOn, type Stroke } from "./paper";

/** Paper of a size for all tests. */
const paper = (strokes: readonly Stroke[], light?: number, dark?: number) => strokesOn(strokes, [120, 90], light, dark);

describe("a tap beside a stroke", () => {
  test("lands on the middle of the stroke, at the height where it was tapped", () => {
    const found = nearestInk(paper([[50, 0, 4, 90]]), [58, 40], 12)!;
    expect(found[0]).toBeCloseTo(52, 0);
    expect(Math.abs(found[1] - 40)).toBeLessThan(1);
  });

  test("takes the nearer of two strokes", () => {
    const found = nearestInk(
      paper([
        [40, 0, 2, 90],
        [60, 0, 2, 90],
      ]),
      [53, 40],
      14,
    )!;
    expect(found[0]).toBeCloseTo(61, 0);
  });

  test("finds the end of a stroke that ends within reach", () => {
    const found = nearestInk(paper([[20, 30, 30, 3]]), [56, 33], 12)!;
    expect(found[0]).toBeGreaterThan(45);
    expect(found[0]).toBeLessThan(51);
    expect(found[1]).toBeCloseTo(31.5, 0);
  });

  test("stays where there is no ink: bare paper, faint stains, a place off the picture", () => {
    expect(nearestInk(paper([]), [50, 40], 12)).toBeUndefined();
    expect(nearestInk(paper([[50, 0, 4, 90]], 235, 200), [52, 40], 12)).toBeUndefined();
    expect(nearestInk(paper([[50, 0, 4, 90]]), [80, 40], 12)).toBeUndefined();
    expect(nearestInk(paper([[50, 0, 4, 90]]), [500, 400], 12)).toBeUndefined();
  });
});
