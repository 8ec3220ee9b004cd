/** A rectangle of ink, points. */
export type Stroke = readonly [x: number, y: number, width: number, height: number];
/** Paper with strokes on it. */
export function paper(strokes: readonly Stroke[], [width, height]: readonly [number, number], light = 235, dark = 40) {
  const data = new Uint8ClampedArray(width * height * 4).fill(light);
  for (const [x, y, w, h] of strokes)
    for (let py = y; py < y + h; py++) data.fill(dark, (py * width + x) * 4, (py * width + x + w) * 4);
  return { data, width, height };
}
