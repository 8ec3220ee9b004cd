/**
 * Pages of drawings: largest upload and picture, pages of a wiring, side of a tile and the smallest level kept, in
 * which the whole page is about 256 points wide; characters of what is written and drawn on a page.
 */
export const PAGE = {
  bytes: 80_000_000,
  points: 62_000_000,
  each: 200,
  tile: 512,
  leastLevel: 8,
  content: 12_000_000,
} as const;
