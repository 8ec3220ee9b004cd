import {
  liftContrast,
  projection,
  straightened,
  straightSize,
  type Corner,
  type Corners,
} from "../src/ui/page/straighten";

const corners: Corners = [
  [120, 40],
  [900, 110],
  [860, 700],
  [60, 620],
];

describe("a sheet straightened by its four corners", () => {
  test("corners go to corners, and the middle of the sheet to where its diagonals cross", () => {
    const place = projection(corners);
    const at = [place(0, 0), place(1, 0), place(1, 1), place(0, 1)];
    at.forEach((p, i) => p.forEach((v, k) => expect(v).toBeCloseTo(corners[i]![k]!, 6)));
    // a projection keeps straight lines straight: the diagonals of the sheet stay diagonals (projective geometry)
    const [a, b, c, d] = corners;
    const t =
      ((b[0] - a[0]) * (d[1] - b[1]) - (b[1] - a[1]) * (d[0] - b[0])) /
      ((c[0] - a[0]) * (d[1] - b[1]) - (c[1] - a[1]) * (d[0] - b[0]));
    const [x, y] = place(0.5, 0.5);
    expect(x).toBeCloseTo(a[0] + t * (c[0] - a[0]), 6);
    expect(y).toBeCloseTo(a[1] + t * (c[1] - a[1]), 6);
  });

  test("a sheet that lies turned by 37 degrees comes out upright, each mark of it in its place", () => {
    const [w, h, side] = [120, 80, 200];
    const turn = (37 * Math.PI) / 180;
    const at = (x: number, y: number): Corner => [
      side / 2 + (x - w / 2) * Math.cos(turn) - (y - h / 2) * Math.sin(turn),
      side / 2 + (x - w / 2) * Math.sin(turn) + (y - h / 2) * Math.cos(turn),
    ];
    // a mark that is not the same upside down
    const isInk = (x: number, y: number) => x > 20 && x < 60 && y > 10 && y < 30;
    const data = new Uint8ClampedArray(side * side * 4).fill(128);
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const [dx, dy] = [x + 0.5 - side / 2, y + 0.5 - side / 2];
        const u = w / 2 + dx * Math.cos(turn) + dy * Math.sin(turn);
        const v = h / 2 - dx * Math.sin(turn) + dy * Math.cos(turn);
        if (u >= 0 && v >= 0 && u < w && v < h)
          data.fill(isInk(u, v) ? 0 : 255, (y * side + x) * 4, (y * side + x) * 4 + 3);
      }
    const corners: Corners = [at(0, 0), at(w, 0), at(w, h), at(0, h)];
    const upright = straightened({ data, width: side, height: side }, corners);
    expect([upright.width, upright.height]).toEqual([w, h]);
    const dark = (x: number, y: number) => upright.data[(y * w + x) * 4]! < 128;
    for (const [x, y, ink] of [
      [40, 20, true],
      [22, 12, true],
      [57, 27, true],
      [15, 20, false],
      [65, 20, false],
      [40, 35, false],
      [80, 60, false],
    ] as const)
      expect({ x, y, dark: dark(x, y) }).toEqual({ x, y, dark: ink });
  });

  test("a picture between its own corners stays as it is", () => {
    const width = 40;
    const height = 30;
    const data = Uint8ClampedArray.from({ length: width * height * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 7) % 251));
    const own: Corners = [
      [0, 0],
      [width, 0],
      [width, height],
      [0, height],
    ];
    expect(straightSize(own)).toEqual({ width, height });
    expect(straightened({ data, width, height }, own).data).toEqual(data);
  });

  test("shaded paper becomes white, ink on it black, in the light corner and in the dark one", () => {
    const side = 300;
    const data = new Uint8ClampedArray(side * side * 4).fill(255);
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) {
        const light = 230 - (x + y) * 0.2;
        const isInk = x % 30 === 0 || y % 30 === 0;
        for (let c = 0; c < 3; c++) data[(y * side + x) * 4 + c] = isInk ? light * 0.2 : light;
      }
    liftContrast({ data, width: side, height: side });
    for (const [x, y] of [
      [15, 15],
      [285, 285],
      [15, 285],
    ] as const) {
      expect(data[(y * side + x) * 4]).toBeGreaterThan(230);
      expect(data[(y * side + (x - 15)) * 4]).toBeLessThan(40);
    }
  });
});
