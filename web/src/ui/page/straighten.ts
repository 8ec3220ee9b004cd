export type Corner = readonly [number, number];
/** Upper left, upper right, lower right, lower left. */
export type Corners = readonly [Corner, Corner, Corner, Corner];
/** A picture as red, green, blue and opacity of each point. */
export interface Pixels {
  readonly data: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
}

/** How large a sheet is whose corners lie at these places: its longer edges. */
export function straightSize([a, b, c, d]: Corners): { readonly width: number; readonly height: number } {
  const apart = (p: Corner, q: Corner) => Math.hypot(p[0] - q[0], p[1] - q[1]);
  return {
    width: Math.max(1, Math.round(Math.max(apart(a, b), apart(d, c)))),
    height: Math.max(1, Math.round(Math.max(apart(a, d), apart(b, c)))),
  };
}

/**
 * Where a place of the straight sheet, shares of its width and height, lies in the picture: the projection that takes
 * the unit square to four corners (Heckbert 1989, Fundamentals of texture mapping, §2.2.3; formula from memory).
 */
export function projection([p0, p1, p2, p3]: Corners): (u: number, v: number) => Corner {
  const [dx1, dx2, sx] = [p1[0] - p2[0], p3[0] - p2[0], p0[0] - p1[0] + p2[0] - p3[0]];
  const [dy1, dy2, sy] = [p1[1] - p2[1], p3[1] - p2[1], p0[1] - p1[1] + p2[1] - p3[1]];
  const det = dx1 * dy2 - dx2 * dy1 || 1e-9;
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  const [a, b] = [p1[0] - p0[0] + g * p1[0], p3[0] - p0[0] + h * p3[0]];
  const [d, e] = [p1[1] - p0[1] + g * p1[1], p3[1] - p0[1] + h * p3[1]];
  return (u, v) => {
    const w = g * u + h * v + 1;
    return [(a * u + b * v + p0[0]) / w, (d * u + e * v + p0[1]) / w];
  };
}

/** The sheet between four corners of a picture, straight; points in between are mixed of their four neighbours. */
export function straightened(from: Pixels, corners: Corners): Pixels {
  const { width, height } = straightSize(corners);
  const data = new Uint8ClampedArray(width * height * 4);
  const place = projection(corners);
  const { data: source, width: w, height: h } = from;
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o += 4) {
      const [px, py] = place((x + 0.5) / width, (y + 0.5) / height);
      const fx = Math.min(w - 1, Math.max(0, px - 0.5));
      const fy = Math.min(h - 1, Math.max(0, py - 0.5));
      const [x0, y0] = [Math.floor(fx), Math.floor(fy)];
      const [tx, ty] = [fx - x0, fy - y0];
      const i = (y0 * w + x0) * 4;
      const right = x0 + 1 < w ? 4 : 0;
      const below = y0 + 1 < h ? w * 4 : 0;
      for (let c = 0; c < 3; c++) {
        const above = source[i + c]! * (1 - tx) + source[i + right + c]! * tx;
        const under = source[i + below + c]! * (1 - tx) + source[i + below + right + c]! * tx;
        data[o + c] = above * (1 - ty) + under * ty;
      }
      data[o + 3] = 255;
    }
  return { data, width, height };
}

/** Cells by which the paper's own brightness is told, points; and which of their points is taken for bare paper. */
const CELL = 48;
const PAPER = 0.9;
/** What is as bright as this share of the paper is white, and what is darker than that share black. Judgement. */
const WHITE = 0.92;
const BLACK = 0.25;

/** Evens out shade and lifts the contrast: paper becomes white everywhere, ink black. Changes the picture itself. */
export function liftContrast({ data, width, height }: Pixels): void {
  const [columns, rows] = [Math.ceil(width / CELL), Math.ceil(height / CELL)];
  const paper = smoothed(paperOf(data, width, height, columns, rows), columns, rows);
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o += 4) {
      const gx = Math.min(columns - 1, Math.max(0, x / CELL - 0.5));
      const gy = Math.min(rows - 1, Math.max(0, y / CELL - 0.5));
      const [x0, y0] = [Math.floor(gx), Math.floor(gy)];
      const [x1, y1] = [Math.min(columns - 1, x0 + 1), Math.min(rows - 1, y0 + 1)];
      const [tx, ty] = [gx - x0, gy - y0];
      const bright =
        (paper[y0 * columns + x0]! * (1 - tx) + paper[y0 * columns + x1]! * tx) * (1 - ty) +
        (paper[y1 * columns + x0]! * (1 - tx) + paper[y1 * columns + x1]! * tx) * ty;
      for (let c = 0; c < 3; c++) {
        const share = data[o + c]! / Math.max(bright, 1);
        data[o + c] = ((share - BLACK) / (WHITE - BLACK)) * 255;
      }
    }
}
function paperOf(data: Uint8ClampedArray, width: number, height: number, columns: number, rows: number): Float32Array {
  const found = new Float32Array(columns * rows);
  const counts = new Uint32Array(256);
  for (let cy = 0; cy < rows; cy++)
    for (let cx = 0; cx < columns; cx++) {
      counts.fill(0);
      let all = 0;
      for (let y = cy * CELL; y < Math.min(height, (cy + 1) * CELL); y += 2)
        for (let x = cx * CELL; x < Math.min(width, (cx + 1) * CELL); x += 2) {
          const i = (y * width + x) * 4;
          const grey = (data[i]! * 2 + data[i + 1]! * 5 + data[i + 2]!) >> 3;
          counts[grey] = counts[grey]! + 1;
          all++;
        }
      let above = all * (1 - PAPER);
      let level = 255;
      while (level > 1 && (above -= counts[level]!) > 0) level--;
      found[cy * columns + cx] = level;
    }
  return found;
}
/** A cell that is mostly ink takes the brightness of the cells around it. */
function smoothed(cells: Float32Array, columns: number, rows: number): Float32Array {
  return cells.map((own, i) => {
    const [cx, cy] = [i % columns, Math.floor(i / columns)];
    let most = own;
    let sum = 0;
    let n = 0;
    for (let y = Math.max(0, cy - 1); y <= Math.min(rows - 1, cy + 1); y++)
      for (let x = Math.max(0, cx - 1); x <= Math.min(columns - 1, cx + 1); x++) {
        const v = cells[y * columns + x]!;
        most = Math.max(most, v);
        sum += v;
        n++;
      }
    return Math.max(own, (sum / n + most) / 2);
  });
}
